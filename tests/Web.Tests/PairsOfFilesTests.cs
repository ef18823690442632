using System.Text;
using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Course;
using PoliteTally.Core.Merging;
using PoliteTally.Core.Plans;
using PoliteTally.Core.Questions;
using PoliteTally.Core.Settling;
using PoliteTally.Web.Features.Classes;
using PoliteTally.Web.Features.Lessons;
using PoliteTally.Web.Features.Live;
using PoliteTally.Web.Features.Plans;
using PoliteTally.Web.Features.Questions;
using PoliteTally.Web.Features.Settling;

namespace PoliteTally.Web.Tests;

/// <summary>One lesson that is known to the second, told by every two kinds of files, whichever comes first: figures are those of the lesson.</summary>
public sealed class PairsOfFilesTests(AppUnderTest app) : IClassFixture<AppUnderTest>
{
    private const string Asked = "What rises twice a day?";

    private static readonly string[] Names =
    [
        "Juno Quillfeather", "Eino Rautio", "Zainab Usman", "Saga Eriksdotter", "Pip Farrow", "Wojtek Grzelak", "Cormac Bellweather", "Ximena Castellanos Ruiz", "Tiago D'Ambrosio-Lund",
        "Birkir Árnason", "Toby Hollis", "Ify Abernethy-Okafor",
    ];

    // From when to when, in seconds of the lesson: one did not come, one came late, one left early.
    private static readonly (int From, int To)?[] Stays = [null, (720, 3000), (-120, 1800), .. Enumerable.Repeat<(int, int)?>((-60, 3000), 9)];

    private static readonly (int Who, int At, string Text)[] Messages = [.. Enumerable.Range(1, 11).SelectMany(i => new[] { (i, 800 + (37 * i), $"word {i}"), (i, 1300 + (23 * i), $"another, {i}: yes") })];

    private static readonly (int Who, int At, string Answer)[] Answers = [.. Enumerable.Range(3, 9).Select(i => (i, 2000 + (11 * i), i % 2 == 0 ? "tide" : "bread"))];

    private static readonly (int Who, int From, int To)[] Speech = [.. Enumerable.Range(4, 5).Select(i => (i, 900 + (120 * i), 900 + (120 * i) + 25))];

    private const int SeenAt = 1200;

    private static readonly Dictionary<FileKind, string> Files = new()
    {
        [FileKind.Attendance] = Table("Name,Joined,Left", Names.Zip(Stays).Where(s => s.Second is not null).Select(s => $"{s.First},{Clock(s.Second!.Value.From)},{Clock(s.Second.Value.To)}")),
        [FileKind.Chat] = string.Concat(Messages.OrderBy(m => m.At).Select(m => $"{Clock(m.At)} {Names[m.Who]}: {m.Text}\n")),
        [FileKind.Answers] = Table($"Your name,Submitted at,{Asked}", Answers.Select(a => $"{Names[a.Who]},{Clock(a.At)},{a.Answer}")),
        [FileKind.Captions] = $"WEBVTT\n\n{string.Concat(Speech.Select(s => $"{Clock(s.From, 0)}.000 --> {Clock(s.To, 0)}.000\n<v {Names[s.Who]}>And then the tide turns.\n\n"))}",
        [FileKind.People] = $"{Clock(SeenAt)[..5]}\n{string.Concat(Names.Zip(Stays).Where(s => s.Second is { } stay && stay.From <= SeenAt && SeenAt < stay.To).Select(s => $"{s.First}\n"))}",
    };

    private static string Table(string headings, IEnumerable<string> rows) => $"{headings}\n{string.Concat(rows.Select(r => $"{r}\n"))}";

    // The lesson begins at noon.
    private static string Clock(int second, int hour = 12) => LocalTime.FromHourMinuteSecondTick(hour, 0, 0, 0).PlusSeconds(second).ToString("HH:mm:ss", null);

    public static TheoryData<FileKind, FileKind> Pairs => [.. from one in Files.Keys from other in Files.Keys where one != other select (one, other)];

    [Theory]
    [MemberData(nameof(Pairs))]
    public async Task Two_kinds_of_files_tell_of_one_lesson(FileKind one, FileKind other)
    {
        var held = await Told(Files[one], Files[other]);
        (await held.Settling()).Files.Select(f => f.Kind).ShouldBe([one, other]);
        await ShouldBeTheLesson(held, [one, other]);
    }

    public static TheoryData<string, FileKind, string[]> SavedInParts => new()
    {
        { "a chat that was saved in the middle, and at the end", FileKind.Chat, [Lines(FileKind.Chat, 0, 9), Files[FileKind.Chat]] },
        { "a chat that was saved at the end, then an earlier one", FileKind.Chat, [Files[FileKind.Chat], Lines(FileKind.Chat, 0, 9)] },
        { "a chat of whoever was there at the beginning, one of whoever was at the end", FileKind.Chat, [Lines(FileKind.Chat, 0, 15), Lines(FileKind.Chat, 8, 30)] },
        { "lists of two rooms", FileKind.Attendance, [Lines(FileKind.Attendance, 0, 6), Headed(FileKind.Attendance, 6, 20)] },
        { "lists of two rooms in which some were in both", FileKind.Attendance, [Lines(FileKind.Attendance, 0, 8), Headed(FileKind.Attendance, 5, 20)] },
        { "answers that were fetched twice", FileKind.Answers, [Lines(FileKind.Answers, 0, 5), Files[FileKind.Answers]] },
        { "three lists, one of them whole", FileKind.Attendance, [Lines(FileKind.Attendance, 0, 6), Headed(FileKind.Attendance, 4, 9), Files[FileKind.Attendance]] },
    };

    [Theory]
    [MemberData(nameof(SavedInParts))]
    public async Task Several_files_of_a_kind_tell_of_one_lesson(string what, FileKind kind, string[] files)
    {
        var held = await Told(files);
        (await held.Settling()).Files.Count.ShouldBe(files.Length, what);
        await ShouldBeTheLesson(held, [kind]);
    }

    // Some of the lines of a file.
    private static string Lines(FileKind kind, int from, int to) => string.Concat(Files[kind].Split('\n', StringSplitOptions.RemoveEmptyEntries).Skip(from).Take(to - from).Select(l => $"{l}\n"));

    private static string Headed(FileKind kind, int from, int to) => Lines(kind, 0, 1) + Lines(kind, from, to);

    private async Task<Classroom> Told(params IEnumerable<string> files)
    {
        var held = await Held();
        foreach (var file in files)
        {
            await Visitor.Read<SettlingView>(await held.Teacher.Send($"/api/lessons/{held.Lesson}/files", file));
        }

        return held;
    }

    private static async Task ShouldBeTheLesson(Classroom held, HashSet<FileKind> both)
    {
        var view = await held.Settling();
        view.Questions.Where(q => q.Asks is Asks.WhoseName or Asks.WhichClock or Asks.WhichStatus).ShouldBeEmpty();
        var of = view.Register.ToDictionary(r => r.Student);
        foreach (var (name, i) in Names.Select((n, i) => (n, i)))
        {
            var line = of[held.Students[name]];
            if (both.Contains(FileKind.Attendance))
            {
                line.Status.ShouldBe(Stays[i] is not { } stay ? AttendanceStatus.Absent : stay.From > 300 ? AttendanceStatus.Late : AttendanceStatus.Present, name);
                line.PresentSeconds.ShouldBe(Stays[i] is not { } there ? 0 : there.To - Math.Max(0, there.From), 60, name);
            }
            else
            {
                // Whoever did something was there.
                (line.Status is AttendanceStatus.Present or AttendanceStatus.Late).ShouldBe(both.Any(kind => Shows(kind, i)), name);
            }
        }

        var chat = (await held.Teacher.Get<ChatView>($"/api/lessons/{held.Lesson}/chat")).Messages.Select(m => (m.Student, m.Text)).ToList();
        chat.ShouldBe(both.Contains(FileKind.Chat) ? Messages.Select(m => ((Guid?)held.Students[Names[m.Who]], m.Text)) : [], ignoreOrder: true);
        var askings = (await held.Teacher.Get<QuestionsView>($"/api/lessons/{held.Lesson}/questions")).Askings;
        askings.SelectMany(a => a.Students.Where(s => s.Answer is not null).Select(s => (s.Student, s.Answer))).ShouldBe(
            both.Contains(FileKind.Answers) ? Answers.Select(a => (held.Students[Names[a.Who]], (string?)a.Answer)) : [], ignoreOrder: true);
        view.Questions.Where(q => q.Asks == Asks.WasItATurn).Select(q => q.Student!.Value).ShouldBe(both.Contains(FileKind.Captions) ? Speech.Select(s => held.Students[Names[s.Who]]) : [], ignoreOrder: true);
    }

    private static bool Shows(FileKind kind, int who) => kind switch
    {
        FileKind.Chat => Messages.Any(m => m.Who == who),
        FileKind.Answers => Answers.Any(a => a.Who == who),
        FileKind.Captions => Speech.Any(s => s.Who == who),
        _ => Stays[who] is { } stay && stay.From <= SeenAt && SeenAt < stay.To,
    };

    /// <summary>A class of twelve, with a lesson two days ago that was held without the sheet.</summary>
    private async Task<Classroom> Held()
    {
        var teacher = await app.SignedIn();
        var made = await teacher.Post<ClassLine>("/api/classes", new NewClass("Weather and Tides"));
        await Visitor.Read<RosterBroughtIn>(await teacher.Send($"/api/classes/{made.Id}/roster", Encoding.UTF8.GetBytes(Table("Name", Names))));
        var day = Classroom.Now.InUtc().Date.PlusDays(-2);
        var planned = await teacher.Post<LessonLine>($"/api/classes/{made.Id}/lessons/planned", new LessonPlanned("Why tides turn", day, new LocalTime(12, 0), 50, false, null, false));
        var page = await teacher.Get<ClassView>($"/api/classes/{made.Id}");
        var held = new Classroom(teacher, made.Id, planned.Id, Names.ToDictionary(n => n, n => page.Students.Single(s => $"{s.Called} {s.Family}" == n).Id));
        var plan = await teacher.Get<PlanView>($"/api/lessons/{held.Lesson}/plan");
        var question = new Question { Id = Guid.NewGuid(), Kind = QuestionKind.SingleChoice, Text = Asked, Options = [new(Guid.NewGuid(), "tide", Right: true), new(Guid.NewGuid(), "bread")] };
        await teacher.Put<PlanStored>($"/api/lessons/{held.Lesson}/plan", new PlanSent(plan.Version, plan.Plan, new Plan { Questions = [question] }));
        (await held.Tap(
        [
            new SentEntry(Guid.CreateVersion7(), planned.PlannedStart, new LessonStarted()), new SentEntry(Guid.CreateVersion7(), planned.PlannedEnd, new LessonEnded()),
        ])).Refused.ShouldBeEmpty();
        return held;
    }
}
