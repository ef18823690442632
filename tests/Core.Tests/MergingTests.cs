using CsCheck;
using NodaTime;
using PoliteTally.Core.Chat;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Meeting;
using PoliteTally.Core.Merging;
using PoliteTally.Core.Page;

namespace PoliteTally.Core.Tests;

/// <summary>Files are brought to the clock of the lesson, and what two sources tell of one act counts once.</summary>
public sealed class MergingTests
{
    private static readonly Guid[] Students = [Given.Juno, Given.Eino, Given.Zainab, Given.Cormac, Given.Ana];

    /// <summary>A file with what it says at moments of the lesson, by a clock that is so many seconds ahead.</summary>
    private static IReadOnlyList<Entry> File(FileKind kind, double ahead, params IEnumerable<(double Minute, Act Act)> rows)
    {
        var file = Given.Noted(60, new FileBroughtIn(kind, "list.csv", 1, "00"));
        var names = rows.Select(r => r.Act).OfType<NameAct>().Select(a => a.Name).Distinct()
            .Select(name => Given.Noted(60, new NameMatched(name, Students.FirstOrDefault(s => NameOf(s) == name)), Source.File));
        return [file, .. rows.Select(r => Given.Noted(r.Minute, r.Act, Source.File)).Select(e => e with { HappenedAt = e.HappenedAt + Duration.FromSeconds(ahead) }).Concat(names).Select(e => e with { Together = file.Id })];
    }

    private static string NameOf(Guid student) => $"Student {Array.IndexOf(Students, student)}";

    private static Joined Comes(Guid student) => new(NameOf(student), "");

    private static Left Goes(Guid student) => new(NameOf(student), "");

    private static NameWrote Writes(Guid student, string text) => new(NameOf(student), text, Private: false);

    private static Entry Tap(double minute, Guid student, ChatKind kind = ChatKind.Idea) => Given.Noted(minute, new ChatSaid(student, kind, null));

    private static IEnumerable<Entry> Pages(params (double Minute, Guid Student)[] opened) => opened.Select(o => Given.Noted(o.Minute, new PageOpened(o.Student), Source.Page));

    private static readonly (double, Guid)[] ThreePages = [(-2, Given.Juno), (-1, Given.Eino), (3, Given.Zainab)];

    private static (double, Act)[] Joins(params (double Minute, Guid Student)[] joins) => [.. joins.Select(j => (j.Minute, (Act)Comes(j.Student)))];

    [Theory]
    [InlineData(40)]
    [InlineData(-125)]
    [InlineData(3640)]
    [InlineData(-36_000)]
    public void A_clock_is_set_by_when_three_came(double ahead)
    {
        var clock = Given.State([.. Pages(ThreePages), .. File(FileKind.Attendance, ahead, Joins(ThreePages))]).Files.Files.ShouldHaveSingleItem().Clock;
        clock.ShouldBe(new FileClock(Duration.FromSeconds(ahead), TraceKind.Join, 3));
    }

    [Theory]
    [InlineData("nobody is in both", "0:0 1:1", "2:2 3:3")]
    [InlineData("two are not enough", "0:0 1:1", "0:0.7 1:1.7")]
    [InlineData("three that do not agree", "0:0 1:1 2:2", "0:1 1:3 2:8")]
    [InlineData("as many agree on another difference", "0:0 1:1 2:2 0:10 1:11 2:12", "0:1 1:2 2:3 0:6 1:7 2:8")]
    public void A_clock_that_not_enough_agree_on_is_taken_as_right(string why, string pages, string joins)
    {
        var told = Told(pages).Select(p => new TraceAt(new Trace(TraceKind.Join, p.Who), Given.At(p.Minute), Guid.NewGuid())).ToList();
        var file = Told(joins).Select(p => new TraceAt(new Trace(TraceKind.Join, p.Who), Given.At(p.Minute), Guid.NewGuid())).ToList();
        Clocks.Reckon(file, told).ShouldBeNull(why);
        Clocks.Of([new ClockedFile(Given.Id(1), file)], told).Of[Given.Id(1)].ShouldBe(FileClock.Unknown);

        static IEnumerable<(string Who, double Minute)> Told(string text) =>
            text.Split(' ').Select(w => w.Split(':')).Select(w => (w[0], double.Parse(w[1], System.Globalization.CultureInfo.InvariantCulture)));
    }

    [Fact]
    public void A_few_seconds_are_no_other_clock() =>
        Given.State([.. Pages(ThreePages), .. File(FileKind.Attendance, 9, Joins(ThreePages))]).Files.Files[0].Clock.Ahead.ShouldBe(Duration.Zero);

    [Fact]
    public void Chance_hardly_ever_sets_a_clock()
    {
        // Thirty came over ten minutes, and a list says something else of all of them.
        var random = new Random(20_261_127);
        List<TraceAt> Any() => [.. Enumerable.Range(0, 30).Select(s => new TraceAt(new Trace(TraceKind.Join, $"{s}"), Given.At(random.NextDouble() * 10), Guid.NewGuid()))];
        Enumerable.Range(0, 1000).Count(_ => Clocks.Reckon(Any(), Any()) is not null).ShouldBeLessThan(10);
    }

    [Fact]
    public void The_teachers_word_on_a_clock_stands_and_can_be_taken_back()
    {
        var file = File(FileKind.Attendance, 40, Joins(ThreePages));
        var word = Given.Noted(61, new ClockSet(file[0].Id, Duration.FromSeconds(90)));
        Entry[] all = [.. Pages(ThreePages), .. file, word];
        Given.State(all).Files.Files[0].Clock.ShouldBe(new FileClock(Duration.FromSeconds(90), null, 0, ByHand: true));
        Given.State([.. all, Given.Noted(62, new ClockSet(file[0].Id, null))]).Files.Files[0].Clock.Ahead.ShouldBe(Duration.FromSeconds(40));
        Given.State([.. all, Given.Strike(word, 62)]).Files.Files[0].Clock.Ahead.ShouldBe(Duration.FromSeconds(40));
    }

    [Fact]
    public void A_file_that_nothing_noted_speaks_of_goes_by_another_file()
    {
        (double, Guid)[] messages = [(5, Given.Juno), (9, Given.Eino), (14, Given.Ana)];
        var list = File(FileKind.Attendance, 40, Joins([.. ThreePages, (5, Given.Cormac), (6, Given.Ana), (7, Given.Juno)]));
        var feedless = File(FileKind.Attendance, -80, Joins((5, Given.Cormac), (6, Given.Ana), (7, Given.Juno)));
        var state = Given.State([.. Pages(ThreePages), .. list, .. feedless]);
        state.Files.Files.Select(f => f.Clock.Ahead.TotalSeconds).ShouldBe([40, -80]);

        // With files alone, the one that most speak of is right.
        var chat = File(FileKind.Chat, 15, messages.Select((m, i) => (m.Item1, (Act)Writes(m.Item2, $"text {i}"))));
        var saved = File(FileKind.Chat, 75, messages.Select((m, i) => (m.Item1, (Act)Writes(m.Item2, $"text {i}"))));
        var clocks = Given.State([.. chat, .. saved]).Files.Files.Select(f => f.Clock.Ahead.TotalSeconds).Order().ToList();
        (clocks[1] - clocks[0]).ShouldBe(60);
        clocks.ShouldContain(0);
    }

    [Theory]
    [InlineData("10", "10", "0-0")]
    [InlineData("10", "55", "0-0")]
    [InlineData("10", "56", "")]
    [InlineData("0 40", "30 70", "0-0 1-1")]
    [InlineData("44", "0 44", "0-1")]
    [InlineData("0 44", "44", "1-0")]
    [InlineData("0 10 20", "5 15", "0-0 1-1")]
    [InlineData("0 100 200", "101 205 400", "1-0 2-1")]
    public void As_many_acts_are_one_as_can_be_and_the_closest_of_them(string one, string other, string pairs)
    {
        string.Join(' ', SameActs.Pair(Seconds(one), Seconds(other)).Select(p => $"{p.One}-{p.Other}")).ShouldBe(pairs);
        string.Join(' ', SameActs.Pair(Seconds(other), Seconds(one)).Select(p => $"{p.Other}-{p.One}")).ShouldBe(pairs);

        static IReadOnlyList<Instant> Seconds(string text) => [.. text.Split(' ').Select(s => Given.Start + Duration.FromSeconds(int.Parse(s, System.Globalization.CultureInfo.InvariantCulture)))];
    }

    [Fact]
    public void A_message_that_was_tapped_counts_once_and_gets_its_words()
    {
        var tap = Tap(10.3, Given.Ana, ChatKind.Question);
        var file = File(FileKind.Chat, 0, (10, Writes(Given.Ana, "why does the wind back?")), (20, Writes(Given.Ana, "thanks")));
        var state = Given.State([tap, .. file]);
        state.Chat.Of(Given.Ana).Select(m => (m.Entry, m.Kind, m.Text)).ShouldBe(
            [(tap.Id, ChatKind.Question, "why does the wind back?"), (file[2].Id, ChatKind.Unsorted, "thanks")]);
        state.Files.SupportOf(tap.Id).ShouldHaveSingleItem().Id.ShouldBe(file[1].Id);
        state.Files.CountsBy(file[1].Id).ShouldBe(tap.Id);
    }

    [Theory]
    [InlineData("why?", "why?", true)]
    [InlineData("Why?  ", "why?", true)]
    [InlineData("why?", "because", false)]
    public void Words_that_differ_are_two_messages(string fed, string saved, bool one)
    {
        var feed = Given.Noted(10, Writes(Given.Ana, fed), Source.Feed);
        Given.State([feed, .. File(FileKind.Chat, 0, (10.2, Writes(Given.Ana, saved)))]).Chat.Of(Given.Ana).Count.ShouldBe(one ? 1 : 2);
    }

    [Fact]
    public void Whoever_wrote_was_there_even_if_the_message_was_tapped()
    {
        var state = Given.State([Tap(10.3, Given.Ana), .. File(FileKind.Chat, 0, (10, Writes(Given.Ana, "why?")))]);
        state.EvidenceOf(Given.Ana).Sightings.Count.ShouldBe(2);
    }

    [Fact]
    public void A_turn_gets_the_length_of_what_was_heard_in_it_and_what_nobody_noted_counts_for_nothing()
    {
        Entry[] turn = [Given.Noted(10, new Called(Given.Ana, TurnOrigin.Invited)), Given.Noted(11.5, Given.Turn(Given.Ana))];
        (double, Act) Speaks(double minute, Guid student, int seconds) => (minute, new NameSpoke(NameOf(student), Duration.FromSeconds(seconds)));
        var file = File(FileKind.Captions, 0, Speaks(10.1, Given.Ana, 20), Speaks(10.8, Given.Ana, 15), Speaks(14, Given.Ana, 30), Speaks(20, Given.Juno, 41));
        var line = Given.State([.. turn, .. file]).HandLine;
        line.Turns.ShouldHaveSingleItem().Length.ShouldBe(Duration.FromSeconds(35));
        line.Heard.Select(h => (h.Student, h.Length.TotalSeconds)).ShouldBe([(Given.Ana, 30), (Given.Juno, 41)]);
        // Said to be a turn, it is one, with its length.
        Given.State([.. turn, .. file, Given.Noted(20, Given.Turn(Given.Juno))]).HandLine.ShouldSatisfyAllConditions(
            l => l.Turns[^1].Length.ShouldBe(Duration.FromSeconds(41)), l => l.Heard.ShouldHaveSingleItem().Student.ShouldBe(Given.Ana));
        Given.State(turn).HandLine.Turns[0].Length.ShouldBe(Duration.FromSeconds(90));
    }

    [Fact]
    public void Talk_time_is_of_turns_and_of_what_nobody_noted_and_of_others_by_their_name()
    {
        Entry[] turn = [Given.Noted(10, new Called(Given.Ana, TurnOrigin.Invited)), Given.Noted(11.5, Given.Turn(Given.Ana))];
        var file = File(FileKind.Captions, 0, (10.1, new NameSpoke(NameOf(Given.Ana), Duration.FromSeconds(20))), (14, new NameSpoke(NameOf(Given.Ana), Duration.FromSeconds(30))));
        Entry Teacher(double minute, int seconds) => Given.Noted(minute, new NameSpoke("Tamsin Vale", Duration.FromSeconds(seconds)), Source.Feed);
        var line = Given.State([.. turn, .. file, Teacher(15, 50), Teacher(18, 15)]).HandLine;
        line.Spoken().ShouldBe(new Dictionary<Guid, Duration> { [Given.Ana] = Duration.FromSeconds(50) });
        line.OthersHeard.ShouldBe(new Dictionary<string, Duration> { ["Tamsin Vale"] = Duration.FromSeconds(65) });
        // Without captions nobody knows how long anybody spoke.
        Given.State(turn).HandLine.Spoken().ShouldBeEmpty();
    }

    [Fact]
    public void A_clock_is_set_by_when_people_spoke()
    {
        (double Minute, Guid Student)[] turns = [(5, Given.Ana), (12, Given.Juno), (20, Given.Eino), (31, Given.Ana)];
        var taps = turns.SelectMany(t => new[] { Given.Noted(t.Minute, new Called(t.Student, TurnOrigin.Invited)), Given.Noted(t.Minute + 1, Given.Turn(t.Student)) });
        var file = File(FileKind.Captions, -120, turns.Select((t, i) => (t.Minute + (i / 60.0), (Act)new NameSpoke(NameOf(t.Student), Duration.FromSeconds(30)))));
        var clock = Given.State([.. taps, .. file]).Files.Files[0].Clock;
        (clock.By, clock.Pairs).ShouldBe((TraceKind.Speech, 4));
        (clock.Ahead + Duration.FromSeconds(120)).TotalSeconds.ShouldBeInRange(0, 3);
    }

    [Fact]
    public void The_teachers_word_parts_and_joins()
    {
        var tap = Tap(10.3, Given.Ana);
        var file = File(FileKind.Chat, 0, (10, Writes(Given.Ana, "why?")), (12, Writes(Given.Ana, "no, wait")));
        int Count(params Entry[] words) => Given.State([tap, .. file, .. words]).Chat.Of(Given.Ana).Count;

        Count().ShouldBe(2);
        var parted = Given.Noted(61, new ActsCompared(tap.Id, file[1].Id, AreOne: false));
        Count(parted).ShouldBe(3);
        Count(parted, Given.Noted(62, new ActsCompared(tap.Id, file[1].Id, AreOne: true))).ShouldBe(2);
        Count(Given.Noted(62, new ActsCompared(tap.Id, file[2].Id, AreOne: true))).ShouldBe(1);
        // Nothing goes in rings.
        Count(Given.Noted(62, new ActsCompared(tap.Id, file[2].Id, AreOne: true)), Given.Noted(63, new ActsCompared(file[2].Id, tap.Id, AreOne: true))).ShouldBe(1);
    }

    [Fact]
    public void A_file_taken_out_leaves_no_trace_and_comes_back_whole()
    {
        Entry[] live = [.. Pages(ThreePages), Tap(10, Given.Ana)];
        var file = File(FileKind.Chat, 0, (10, Writes(Given.Ana, "why?")), (30, Writes(Given.Juno, "because")));
        var strike = Given.Strike(file[0], 61);
        Figures([.. live, .. file, strike]).ShouldBe(Figures(live));
        Figures([.. live, .. file, strike, Given.Strike(strike, 62)]).ShouldBe(Figures([.. live, .. file]));
        // Nor does one of which the last, that it is there, has not come.
        Figures([.. live, .. file.Skip(1)]).ShouldBe(Figures(live));
    }

    /// <summary>A tapped message at minute 10, and one in the file: whether they are one, may be one, or are two for good.</summary>
    [Theory]
    [InlineData(10.5, "one")]
    [InlineData(12, "near")]
    [InlineData(14.9, "near")]
    [InlineData(15.5, "two")]
    public void What_lies_near_may_be_one_and_the_teacher_says_so(double minute, string expected)
    {
        var tap = Tap(10, Given.Ana);
        var file = File(FileKind.Chat, 0, (minute, Writes(Given.Ana, "why?")));
        var state = Given.State([tap, .. file]);
        (state.Files.CountsBy(file[1].Id) is not null ? "one" : state.Files.Near is [var near] && near == (tap, file[1]) ? "near" : "two").ShouldBe(expected);
        // Joined, they are one; parted again, they may be one.
        var joined = Given.Noted(61, new ActsCompared(tap.Id, file[1].Id, AreOne: true));
        Given.State([tap, .. file, joined]).Files.CountsBy(file[1].Id).ShouldBe(tap.Id);
        Given.State([tap, .. file, joined, Given.Noted(62, new ActsCompared(tap.Id, file[1].Id, AreOne: false))]).Files.CountsBy(file[1].Id).ShouldBeNull();
    }

    [Fact]
    public void Each_row_may_be_one_with_one_act_alone()
    {
        var file = File(FileKind.Chat, 0, (12, Writes(Given.Ana, "why?")), (12.5, Writes(Given.Ana, "and when?")));
        Given.State([Tap(10, Given.Ana), .. file]).Files.Near.ShouldHaveSingleItem();
        Given.State([Given.Noted(10, new ChatSaid(Given.Ana, ChatKind.Idea, "something else")), .. file]).Files.Near.ShouldBeEmpty();
    }

    [Fact]
    public void A_longer_version_of_a_file_adds_what_is_new()
    {
        (double, Act)[] rows = [(0, Comes(Given.Juno)), (1, Comes(Given.Eino)), (20, Goes(Given.Juno)), (22, Comes(Given.Juno))];
        (double, Act)[] more = [.. rows, (50, Goes(Given.Juno)), (50, Goes(Given.Eino))];
        Figures([.. File(FileKind.Attendance, 0, rows), .. File(FileKind.Attendance, 0, more)]).ShouldBe(Figures(File(FileKind.Attendance, 0, more)));
        Figures([.. File(FileKind.Attendance, 0, more), .. File(FileKind.Attendance, 0, more)]).ShouldBe(Figures(File(FileKind.Attendance, 0, more)));
    }

    [Fact]
    public void Two_lists_of_minutes_do_not_add_up()
    {
        (double, Act) There(int minutes) => (50, new Attended(NameOf(Given.Juno), Duration.FromMinutes(minutes)));
        var state = Given.State([.. File(FileKind.Attendance, 0, There(20), There(15)), .. File(FileKind.Attendance, 0, There(30))]);
        state.AttendanceOf(Given.Juno, Given.Lesson, Attendance.AttendancePolicy.Default).Present.ShouldBe(Duration.FromMinutes(35));
    }

    [Fact]
    public void No_order_of_bringing_in_changes_anything() => Gen.Int.Sample(
        seed =>
        {
            var random = new Random(seed);
            double Minute() => random.NextDouble() * 50;
            Guid Any() => Students[random.Next(Students.Length)];
            Entry[] live = [.. Pages([.. Students.Select(s => (random.NextDouble() * 4, s))]), .. Enumerable.Range(0, 6).Select(_ => Tap(Minute(), Any()))];
            var came = Students.Select(s => (random.NextDouble() * 4, s)).ToArray();
            var written = Enumerable.Range(0, 12).Select(i => (Minute(), (Act)Writes(Any(), $"text {random.Next(8)}"))).ToArray();
            var files = new[]
            {
                File(FileKind.Attendance, random.Next(120), [.. Joins(came), .. Students.Select(s => (50.0, (Act)Goes(s)))]),
                File(FileKind.Chat, random.Next(120), written), File(FileKind.Chat, random.Next(120), written.Skip(3)), File(FileKind.Chat, 0, written.Take(7)),
            };
            var wanted = Figures([.. live, .. files.SelectMany(f => f)]);
            for (var order = 0; order < 4; order++)
            {
                // Later noted is not later brought in by chance alone.
                random.Shuffle(files);
                var noted = Given.At(60);
                var all = live.Concat(files.SelectMany(f => f).Select(e => e with { NotedAt = noted += Duration.FromMilliseconds(1) })).ToArray();
                random.Shuffle(all);
                Figures(all).ShouldBe(wanted, $"seed {seed}");
            }
        },
        iter: 60);

    /// <summary>What counts for anybody.</summary>
    private static IReadOnlyList<string> Figures(IReadOnlyList<Entry> entries)
    {
        var state = Given.State(entries);
        return
        [
            .. Students.Select(s => $"{state.AttendanceOf(s, Given.Lesson, Attendance.AttendancePolicy.Default) is var a} {a.Status} {a.Present} {a.Arrival}"),
            .. Students.Select(s => string.Join(", ", state.Chat.Of(s).Select(m => $"{m.At} {m.Kind} {m.Text} {m.Repeat}").Order())),
        ];
    }
}
