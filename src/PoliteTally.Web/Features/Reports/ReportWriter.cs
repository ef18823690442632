using Microsoft.EntityFrameworkCore;
using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Course;
using PoliteTally.Core.Fairness;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Lessons;
using PoliteTally.Core.Names;
using PoliteTally.Core.Register;
using PoliteTally.Core.Reports;
using PoliteTally.Core.Scoring;
using PoliteTally.Core.Text;
using PoliteTally.Store;
using PoliteTally.Store.Model;
using PoliteTally.Web.Features.Scores;

namespace PoliteTally.Web.Features.Reports;

/// <summary>Writes the reports of a class. What it has read once, it has for all reports that are asked of it.</summary>
/// <param name="row">The class.</param>
/// <param name="db">A context of its owner.</param>
/// <param name="owner">The owner.</param>
/// <param name="only">The only student that reports are asked of; null for anybody. Of a large class that is most of the reading.</param>
internal sealed class ReportWriter(SchoolClass row, SchoolDb db, Owner owner, Guid? only = null)
{
    private readonly Dictionary<Guid, OpenLesson> _open = [];
    private readonly Dictionary<(Span, bool), TermSheet> _sheets = [];
    private readonly Dictionary<bool, Named> _named = [];
    private (string Teacher, string School)? _account;


    /// <summary>A report as the program writes it, with what the teacher put in other words.</summary>
    /// <returns>Null if it is about something that is not of this class.</returns>
    public async Task<Document?> Of(AskedReport asked) =>
        await Plain(asked) is { } plain ? await Edited(plain, asked) : null;

    /// <summary>A report as the program writes it.</summary>
    public async Task<Document?> Plain(AskedReport asked)
    {
        // What is told of a whole class needs no ribbons, and those are most of the reading.
        var sheet = await SheetOf(asked.Span, figuresOnly: asked.Kind == ReportKind.Class);
        var named = NamedBy(asked);
        return asked.Kind switch
        {
            ReportKind.Student => sheet.Roster.FirstOrDefault(s => s.Name.Id == asked.Student) is { } student
                ? StudentReport.Of(StudentTermOf(student, sheet, asked.Hidden ? named.Called(student.Name.Id) : ShortNames.CalledName(student.Name), named, asked.Zone), await AboutOf(sheet, asked.Zone), asked.Reader)
                : null,
            ReportKind.Fairness => await Fairness(sheet, named, asked),
            ReportKind.Questions => new QuestionReport([.. LessonsOf(sheet).SelectMany(open => AskedIn(open, asked.Zone))], asked.Hidden ? null : named.Called)
                .Written(await AboutOf(sheet, asked.Zone)),
            ReportKind.Lesson => db.Lessons.Any(l => l.Id == asked.Lesson && l.ClassId == row.Id) && OpenLesson.Load(db, asked.Lesson!.Value) is { } open
                ? await Lesson(open, asked) : null,
            ReportKind.Register => Register(sheet, named, asked).Written(await AboutOf(sheet, asked.Zone)),
            ReportKind.Class => new ClassOverview(
                [.. sheet.Roster.AsParallel().AsOrdered().Select(s => StudentTermOf(s, sheet, named.Called(s.Name.Id), named, asked.Zone))], sheet.Lessons.Count,
                GuestsOf(sheet, asked.Hidden))
                .Written(await AboutOf(sheet, asked.Zone), sheet.Name),
            _ => throw new ArgumentOutOfRangeException(nameof(asked), asked.Kind, "no such report"),
        };
    }

    private RegisterReport Register(TermSheet sheet, Named named, AskedReport asked)
    {
        var (rules, ids) = (RulesJson.Of(row).Register, sheet.Lessons.Select(l => l.Id).ToList());
        var numbers = sheet.Lessons.ToDictionary(l => l.Id, l => l.Number);
        var handIns = db.HandIns.AsNoTracking().Where(h => ids.Contains(h.LessonId)).OrderBy(h => h.MadeAt).ToList();
        return new RegisterReport(
            [.. sheet.Lessons.Select(l => new RegisteredLesson(l.Id, l.Number, l.PlannedStart.InZone(asked.Zone).Date))],
            [
                .. sheet.Roster.Where(s => asked.Student is null || s.Name.Id == asked.Student).Select(s => new RegisteredStudent(
                    s.Name.Id, asked.Hidden ? null : s.Name.Number, named.Whole(s.Name.Id),
                    [.. sheet.Lessons.Select(l => sheet.Of(l.Id, s.Name.Id) is { } summary ? ((AttendanceStatus, string)?)(summary.Status, summary.Notes) : null)])),
            ],
            rules.CodeOf, [.. ReadAloudIn(sheet, asked.Zone)],
            // What changed names students by the name of then, so it stays out of a register without names.
            asked.Hidden ? [] : [.. handIns.Where(h => h.Version > 1).Select(h => (h.MadeAt.InZone(asked.Zone).Date, numbers[h.LessonId], ChangesOf(h, handIns)))]);
    }

    private IEnumerable<(Guid Lesson, string Clock, string Reminder, string Words)> ReadAloudIn(TermSheet sheet, DateTimeZone zone)
    {
        // Only ledgers with something of it are read: a term has many, and a register is quick.
        var (ids, kinds) = (sheet.Lessons.Select(l => l.Id).ToList(), ActJson.NamesOf(typeof(ReminderTicked)));
        var some = db.Entries.Where(e => ids.Contains(e.LessonId) && kinds.Contains(e.Kind) && e.Act.Contains("\"readAloud\":\"")).Select(e => e.LessonId).ToHashSet();
        return from open in LessonsOf(sheet, l => some.Contains(l.Id))
               from ticked in open.State.Course.RemindersTicked
               where ticked.Value.ReadAloud is not null
               orderby ticked.Value.At
               select (open.Lesson.Id, Words.Clock(ticked.Value.At, zone), ticked.Key, ticked.Value.ReadAloud!);
    }

    private static string ChangesOf(HandIn one, List<HandIn> all)
    {
        var before = all.LastOrDefault(h => h.LessonId == one.LessonId && h.Version < one.Version);
        return before is null ? one.Why : $"{one.Why}: {string.Join("; ", RegisterChange.Between(OtherJson.ReadMarks(before.Marks), OtherJson.ReadMarks(one.Marks)).Select(c => c.InWords))}";
    }

    // Two of one name in one lesson may be two devices of one person.
    private List<GuestVisits> GuestsOf(TermSheet sheet, bool hidden) =>
    [
        .. from lesson in LessonsOf(sheet, l => l.DropIn)
           from guest in lesson.State.Guests(lesson.Times, lesson.Rules.Scheme.Attendance)
           group (lesson.Lesson.Id, guest.Shown.Name, guest.Stay.Present) by NameFolding.AsShown(guest.Shown.Name) into visits
           select new GuestVisits(hidden ? "somebody" : visits.First().Name, visits.DistinctBy(v => v.Id).Count(), visits.Aggregate(Duration.Zero, (sum, v) => sum + v.Present)),
    ];

    private async Task<Document> Lesson(OpenLesson open, AskedReport asked)
    {
        var named = NamedBy(asked);
        var names = open.Roster.ToDictionary(s => s.Name.Id, s => named.Called(s.Name.Id));
        var (state, ended) = (open.State, open.Times.CountedTo);
        var taught = new LessonTaught(
            open.Lesson.Id, open.Lesson.Number, open.Lesson.Title, open.Lesson.PlannedStart.InZone(asked.Zone).Date, asked.Zone, open.Times, open.Plan, open.Rules.Scheme,
            new Replay(state, open.Merged), [.. open.Roster.Select(s => s.Name.Id)], [.. open.Rules.BeforeStart, .. open.Rules.BeforeEnd]);
        var putRight = state.Entries.Where(e => e.NotedAt >= ended && !state.IsStruck(e.Id) && (e.Act.IsOfScores || e.Act.IsOfAttendance)).Select(e => (e.NotedAt, Wording.Of(e, state, names)))
            .Concat(state.Entries.Where(e => e.NotedAt >= ended && e.Act is Struck).Select(e => (e.NotedAt, $"taken back: {Wording.Of(Taken(e), state, names)}")));
        return new LessonReport(taught, named.Called, !asked.Hidden, [.. putRight.OrderBy(p => p.NotedAt)]).Written(
            $"{row.Name} · {StudentReport.DayOf(taught.Day)}, {taught.Clock(open.Times.PlannedStart)} to {taught.Clock(open.Times.PlannedEnd)} · {await School()}");

        List<Entry> Taken(Entry strike) => [.. state.Entries.Where(e => ((Struck)strike.Act).Entries.Contains(e.Id))];
    }

    private static IEnumerable<AskedQuestion> AskedIn(OpenLesson open, DateTimeZone zone)
    {
        var (state, policy) = (open.State, open.Rules.Scheme.Attendance);
        return AskedQuestion.In(
            open.Lesson.Id, open.Lesson.Number, open.Lesson.PlannedStart.InZone(zone).Date, state,
            [.. open.Roster.Select(s => (s.Name.Id, state.AttendanceOf(s.Name.Id, open.Times, policy).WasThere))]);
    }

    private async Task<Document> Fairness(TermSheet sheet, Named named, AskedReport asked)
    {
        var teacher = (await Account()).Teacher;
        var lessons = LessonsOf(sheet, l => !l.DropIn).Select(open => HeardOf(open, asked.Zone, teacher)).ToList();
        var heard = new ClassHeard(lessons);
        var tags = sheet.Roster.SelectMany(s => s.Tags.Split(';', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries).Select(tag => (tag, s.Name.Id)))
            .GroupBy(t => t.tag, t => t.Id).OrderBy(g => g.Key, StringComparer.Ordinal).Select(g => heard.Compare(g.Key, g.ToHashSet())).OfType<TagHeard>().ToList();
        return new FairnessReport(heard, lessons, tags, named.Called).Written(await AboutOf(sheet, asked.Zone));
    }

    private static LessonHeard HeardOf(OpenLesson open, DateTimeZone zone, string teacher)
    {
        var (state, scheme) = (open.State, open.Rules.Scheme);
        var line = state.HandLine;
        return new LessonHeard(
            open.Lesson.Id, open.Lesson.Number, open.Lesson.PlannedStart.InZone(zone).Date,
            [.. open.Roster.Select(s => s.Name.Id).Where(id => state.AttendanceOf(id, open.Times, scheme.Attendance).WasThere)],
            [.. line.Turns.Where(t => Scheme.CreditOf(t.Outcome) > 0).Select(t => (t.Student, t.Origin))],
            [.. line.Turns.Select(t => t.Waited).OfType<Duration>()], line.Hands.Count(h => h.NeverCalled),
            line.Spoken(), line.OthersHeard.Where(o => NameFolding.AsShown(o.Key) == NameFolding.AsShown(teacher)).Aggregate(Duration.Zero, (sum, o) => sum + o.Value));
    }

    /// <summary>The lessons of a sheet with their ledgers, in order; each is read once, however many reports ask for it.</summary>
    public IEnumerable<OpenLesson> LessonsOf(TermSheet sheet, Func<Lesson, bool>? which = null)
    {
        var lessons = sheet.Lessons.Where(which ?? (_ => true)).ToList();
        foreach (var (id, open) in OpenLesson.Load(db, [.. lessons.Select(l => l.Id).Where(id => !_open.ContainsKey(id))]))
        {
            _open[id] = open;
        }

        return lessons.Select(l => _open[l.Id]);
    }

    private async Task<TermSheet> SheetOf(Span span, bool figuresOnly)
    {
        if (!_sheets.TryGetValue((span, figuresOnly), out var sheet))
        {
            _sheets[(span, figuresOnly)] = sheet = await TermSheet.Of(row, db, only, span, figuresOnly);
        }

        return sheet;
    }

    private static StudentTerm StudentTermOf(OnSheet student, TermSheet sheet, string called, Named named, DateTimeZone zone)
    {
        var id = student.Name.Id;
        return new StudentTerm(
            id, called, named.Whole(id),
            [
                .. from lesson in sheet.Lessons
                   let summary = sheet.Of(lesson.Id, id)
                   where summary is not null
                   let ribbon = Summaries.RibbonOf(summary)
                   select new LessonOfStudent(
                       lesson.Id, lesson.Number, lesson.Title, lesson.PlannedStart.InZone(zone).Date, lesson.DropIn, summary.Score, sheet.TallyOf(lesson.Id, id)!,
                       Duration.FromSeconds(summary.PresentSeconds), ribbon.Stretches, ribbon.Spoke, summary.Notes),
            ],
            sheet.Score(id), sheet.Scheme);
    }

    private async Task<string> AboutOf(TermSheet sheet, DateTimeZone zone)
    {
        string DayOf(Lesson lesson) => StudentReport.DayOf(lesson.PlannedStart.InZone(zone).Date);
        var days = sheet.Lessons.Count switch
        {
            0 => "no settled lesson",
            1 => $"one lesson, {DayOf(sheet.Lessons[0])}",
            var many => $"{Words.Several(many, "lesson")}, {DayOf(sheet.Lessons[0])} to {DayOf(sheet.Lessons[^1])}",
        };
        return $"{sheet.Name} · {days} · {await School()}";
    }

    // By everybody who ever was in the class, so that a number is the same student in each report.
    private Named NamedBy(AskedReport asked)
    {
        if (!_named.TryGetValue(asked.Hidden, out var named))
        {
            _named[asked.Hidden] = named = new Named(Rosters.Ever(db, row.Id), asked.Hidden);
        }

        return named;
    }

    private async Task<string> School()
    {
        var (teacher, school) = await Account();
        return $"{teacher}, {school}";
    }

    private async Task<(string Teacher, string School)> Account()
    {
        if (_account is null)
        {
            var known = await db.Users.Where(u => u.Id == owner.Id).Select(u => new { u.DisplayName, u.School }).SingleAsync();
            _account = (known.DisplayName, known.School);
        }

        return _account.Value;
    }

    private async Task<Document> Edited(Document plain, AskedReport asked)
    {
        var (classId, key) = (row.Id, asked.Key);
        var edits = await db.ReportTexts.AsNoTracking().Where(t => t.ClassId == classId && t.Report == key).ToDictionaryAsync(t => t.Part);
        return edits.Count == 0 ? plain : plain with
        {
            Sections = [.. plain.Sections.Select(s => s.Key is { } part && edits.TryGetValue(part, out var edit) ? s with { Says = [new(edit.Text)], Plain = TextOf(s), OutOfDate = edit.Instead != TextOf(s) } : s)],
        };
    }

    /// <summary>The sentences of a section as one text.</summary>
    public static string TextOf(Section section) => string.Join(' ', section.Says.Select(s => s.Text));
}
