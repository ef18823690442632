using CsCheck;
using NodaTime;
using PoliteTally.Core.Chat;
using PoliteTally.Core.GroundRules;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Lessons;
using PoliteTally.Core.Meeting;
using PoliteTally.Core.Merging;
using PoliteTally.Core.Settling;

namespace PoliteTally.Core.Tests;

/// <summary>Of two clocks that disagree the right one is told by what was done: nobody writes before they join or after they leave.</summary>
public sealed class RightClockTests
{
    private static readonly Guid[] Roster = [Given.Juno, Given.Eino, Given.Zainab, Given.Cormac, Given.Ana];

    private static readonly (int Student, double From, double To)[] Stays = [(0, -2, 50), (1, -1, 31), (2, 3, 50), (3, 4.5, 48), (4, 0, 50)];

    private static Entry[] File(FileKind kind, string name, double ahead, params IEnumerable<(double Minute, Act Act)> rows)
    {
        var file = Given.Noted(60, new FileBroughtIn(kind, name, rows.Count(), name));
        return
        [
            file, .. rows.Select(r => Given.Noted(r.Minute, r.Act, Source.File)).Select(e => e with { HappenedAt = e.HappenedAt + Duration.FromSeconds(ahead), Together = file.Id }),
            .. Roster.Select((s, i) => Given.Noted(60, new NameMatched(NameOf(i), s), Source.File) with { Together = file.Id }),
        ];
    }

    private static string NameOf(int student) => $"Student {student}";

    private static Entry[] List(string name, double ahead, params IEnumerable<(int Student, double From, double To)> stays) =>
        File(FileKind.Attendance, name, ahead, stays.SelectMany(s => new (double, Act)[] { (s.From, new Joined(NameOf(s.Student), "")), (s.To, new Left(NameOf(s.Student), "")) }));

    private static Entry[] Chat(params (double Minute, int Student)[] messages) =>
        File(FileKind.Chat, "chat.txt", 0, messages.Select((m, i) => (m.Minute, (Act)new NameWrote(NameOf(m.Student), $"text {i}", Private: false))));

    private static OpenQuestion[] Asked(LessonState state) => [.. new OpenQuestions(state, Given.Lesson, ClassRules.Default, Roster, DateTimeZone.Utc).All([]).Where(q => q.Asks == Asks.WhichClock)];

    private static string AheadIn(LessonState state) => string.Join(", ", state.Files.Files.Where(f => f.File.Kind == FileKind.Attendance).OrderBy(f => f.File.Name, StringComparer.Ordinal).Select(f => $"{f.File.Name} {f.Clock.Ahead.TotalSeconds}"));

    [Theory]
    [InlineData(40)]
    [InlineData(-40)]
    [InlineData(3600)]
    public void The_list_under_which_everybody_writes_while_they_are_there_goes_right(double ahead)
    {
        var (right, wrong, chat) = (List("right.csv", 0, Stays), List("wrong.csv", ahead, Stays), Chat((3.2, 2), (30.7, 1), (20, 0)));
        // Whichever came first.
        foreach (var entries in new[] { (Entry[])[.. right, .. wrong, .. chat], [.. List("wrong.csv", ahead, Stays), .. List("right.csv", 0, Stays), .. chat] })
        {
            var state = Given.State(entries);
            AheadIn(state).ShouldBe($"right.csv 0, wrong.csv {ahead}");
            Asked(state).ShouldBeEmpty();
        }
    }

    [Fact]
    public void What_was_noted_in_the_lesson_stands_over_what_fits()
    {
        var state = Given.State([
            .. Stays.Take(3).Select(s => Given.Noted(s.From + 2, new Page.PageOpened(Roster[s.Student]), Source.Page)), .. List("a.csv", 120, Stays), .. List("b.csv", 0, Stays), .. Chat((3.2, 2), (30.7, 1)),
        ]);
        AheadIn(state).ShouldBe("a.csv 0, b.csv -120");
    }

    [Fact]
    public void Of_three_lists_that_nothing_tells_apart_the_one_that_another_agrees_with_is_proposed()
    {
        var state = Given.State([.. List("a.csv", 180, Stays), .. List("b.csv", 0, Stays.Take(4)), .. List("c.csv", 2, Stays.Skip(1))]);
        AheadIn(state).ShouldBe("a.csv 180, b.csv 0, c.csv 0");
        Asked(state).ShouldHaveSingleItem().Choices.Count.ShouldBe(2);
    }

    [Fact]
    public void What_nothing_tells_is_asked_if_the_register_depends_on_it()
    {
        Entry[] entries = [.. List("hall.csv", 0, Stays), .. List("phones.csv", 40, Stays)];
        var asked = Asked(Given.State(entries)).ShouldHaveSingleItem();
        asked.Choices.Select(c => c.Says).ShouldBe(["“hall.csv” is right", "“phones.csv” is right"], ignoreOrder: true);
        asked.Why.ShouldBe("40 s apart, and nothing else tells which is right");
        for (var choice = 0; choice < 2; choice++)
        {
            var answered = Given.State([.. entries, Given.Noted(70, asked.Choices[choice].Acts[0])]);
            Asked(answered).ShouldBeEmpty();
            AheadIn(answered).ShouldBe(asked.Choices[choice].Says.Contains("hall", StringComparison.Ordinal) ? "hall.csv 0, phones.csv 40" : "hall.csv -40, phones.csv 0");
        }

        // Nobody comes near the five minutes that make one late.
        Entry[] calm = [.. List("hall.csv", 0, Stays.Where(s => s.Student != 3)), .. List("phones.csv", 40, Stays.Where(s => s.Student != 3))];
        Asked(Given.State(calm)).ShouldBeEmpty();
    }

    [Fact]
    public void Two_files_of_one_name_are_told_apart_by_their_rows()
    {
        var asked = Asked(Given.State([.. List("list.csv", 0, Stays), .. List("list.csv", 40, Stays.Append((1, 33, 40)))])).ShouldHaveSingleItem();
        asked.Choices.Select(c => c.Says).ShouldBe(["“list.csv” with 10 rows is right", "“list.csv” with 12 rows is right"], ignoreOrder: true);
    }

    [Theory]
    [InlineData("j0 m5 l10", 0)]
    [InlineData("m-1 j0 l10 m11", 2)]
    [InlineData("j0 l10 m12 j15 l20 m17", 1)]
    [InlineData("j0 j2 l5 m7 l10 m11", 1)]      // two connections
    [InlineData("j0 m0 m10 l10", 0)]            // at the moment itself
    [InlineData("m5 l10 m11", 1)]               // not seen to come
    [InlineData("j0 l10 l20 m15 m21", 1)]       // seen to leave again
    [InlineData("j5 m4 m30", 1)]                // never seen to leave
    [InlineData("m5", 0)]                       // in no list
    public void Acts_outside_of_connections_are_counted(string told, int outside)
    {
        var traces = told.Split(' ').Select(w => new TraceAt(
            new Trace(w[0] switch { 'j' => TraceKind.Join, 'l' => TraceKind.Leave, _ => TraceKind.Message }, "Juno"), Given.At(double.Parse(w[1..], System.Globalization.CultureInfo.InvariantCulture)), Guid.NewGuid())).ToList();
        RightClock.ActsOutside([traces], []).ShouldBe(outside);
        RightClock.ActsOutside([traces.Where(t => t.Trace.Kind != TraceKind.Message)], [.. traces.Where(t => t.Trace.Kind == TraceKind.Message)]).ShouldBe(outside);
    }

    [Fact]
    public void Under_the_clock_that_is_taken_no_more_is_done_outside_than_under_any_other() =>
        Gen.Select(Gen.Int, Gen.Int[-400, 400].Where(a => Math.Abs(a) > 20), Gen.Bool).Sample((seed, ahead, first) =>
        {
            var random = new Random(seed);
            var stays = Enumerable.Range(0, 5).Select(s => (s, From: random.NextDouble() * 15, To: 30 + (random.NextDouble() * 20))).ToArray();
            // Everybody writes as soon as they have come, and before they go.
            var chat = Chat([.. stays.SelectMany(s => new[] { (s.From + 0.05, s.s), (s.To - 0.05, s.s) })]);
            Entry[][] lists = [List("right.csv", 0, stays), List("wrong.csv", ahead, stays)];
            AheadIn(Given.State([.. lists[first ? 0 : 1], .. lists[first ? 1 : 0], .. chat])).ShouldBe($"right.csv 0, wrong.csv {ahead}");
        }, iter: 200);
}
