using System.Security.Cryptography;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PoliteTally.Core.Chat;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Meeting;
using PoliteTally.Core.Merging;
using PoliteTally.Core.Names;
using PoliteTally.Formats;
using PoliteTally.Formats.Lines;
using PoliteTally.Store;
using PoliteTally.Store.Writing;
using PoliteTally.Web.Features.Lessons;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Features.Settling;

/// <summary>A row of a file, as it was read.</summary>
/// <param name="Row">The row or line, from 1.</param>
/// <param name="Seconds">How long somebody was there, if nobody says when.</param>
/// <param name="Problems">What is wrong with it; empty if it can be taken.</param>
public sealed record FileRow(int Row, string Name, Instant? At, Instant? Until, double? Seconds, string? Text, IReadOnlyList<string> Problems);

/// <summary>How a file that could be of several kinds is read as one of them.</summary>
/// <param name="Kind">The kind.</param>
/// <param name="Rows">How many rows it has then.</param>
/// <param name="First">The first of them.</param>
public sealed record FileReading(FileKind Kind, int Rows, IReadOnlyList<FileRow> First);

/// <summary>A file from another program as it was read for a lesson; nothing of it is stored.</summary>
/// <param name="Kind">What it tells; null if it could be of several kinds and nobody has said.</param>
/// <param name="CouldBe">What it could be.</param>
/// <param name="Columns">Its columns, or the parts of its lines, with what they are taken for.</param>
/// <param name="NamesZone">Whether its times name their zone.</param>
/// <param name="Zone">The zone of times that do not.</param>
/// <param name="Rows">What is in it.</param>
/// <param name="LeftOut">How many of its lines tell nothing that could count.</param>
/// <param name="Problems">What is wrong with it as a whole.</param>
/// <param name="Unclear">What is asked of its columns.</param>
/// <param name="Remarks">What is worth a look.</param>
/// <param name="People">Whom its usable rows are about, row by row.</param>
/// <param name="Acts">What its usable rows tell, each with its moment by the clock of the file.</param>
internal sealed record ReadFile(
    FileKind? Kind, IReadOnlyList<FileKind> CouldBe, IReadOnlyList<Column> Columns, bool NamesZone, DateTimeZone Zone, IReadOnlyList<FileRow> Rows, int LeftOut,
    IReadOnlyList<string> Problems, IReadOnlyList<string> Unclear, IReadOnlyList<string> Remarks, IReadOnlyList<ShownName> People, IReadOnlyList<(Instant At, Act Act)> Acts)
{
    // So many rows show which of two readings is right.
    private const int RowsCompared = 3;

    private const string MarkIt = "What this file tells is not known: no names with times, words or answers are found in it. Mark by hand what is what in one of its lines, or bring in another file.";
    private const string WhenWasIt = "A list of people is of one moment: say when it was seen.";

    /// <summary>SHA-256 of the file, in hexadecimal.</summary>
    public required string Fingerprint { get; init; }

    /// <summary>How it would be read as each kind that it could be; empty if its kind is clear.</summary>
    public IReadOnlyList<FileReading> Readings { get; init; } = [];

    /// <summary>The lines at its beginning, in which may be marked by hand what is what; empty if it is no text.</summary>
    public IReadOnlyList<string> Lines { get; init; } = [];

    /// <summary>The file with all that counts as decided about it.</summary>
    public SentFile? As { get; init; }

    /// <summary>By what its layout is known again; null if nothing can be told of it.</summary>
    public string? Layout { get; init; }

    /// <summary>What the class knows of its layout, if it is read like that.</summary>
    public KnownLayoutLine? Like { get; init; }

    /// <summary>The questions of a table of answers, with what they are taken for; empty of any other kind.</summary>
    public IReadOnlyList<FileQuestion> Questions { get; init; } = [];

    /// <summary>The questions that answers could be to.</summary>
    public IReadOnlyList<KnownQuestion> KnownQuestions { get; init; } = [];

    /// <summary>Whether its names were read from a picture, so that only whole ones are taken without asking.</summary>
    public bool IsPicture { get; init; }

    /// <summary>Names of those who teach here: they are nobody of the class.</summary>
    public IReadOnlySet<string> Staff { get; init; } = new HashSet<string>();

    /// <summary>The id of the file as it is read: read in another way, it is another.</summary>
    public required Guid Id { get; init; }

    /// <summary>Reads a file that was sent for a lesson.</summary>
    /// <exception cref="FormatProblem">It cannot be read.</exception>
    public static async Task<ReadFile> Of(SentFile sent, OpenLesson open, SchoolDb db, Owner owner)
    {
        var read = Read(sent, open, await LessonEndpoints.ZoneOf(db, owner), await KnownLayouts.Of(open.Lesson.ClassId, db));
        var staff = await db.LessonKeys.AsNoTracking().Where(k => k.LessonId == open.Lesson.Id).Select(k => k.Name).ToListAsync(sent.Gone);
        staff.Add(await db.Users.Where(u => u.Id == owner.Id).Select(u => u.DisplayName).SingleAsync(sent.Gone));
        read = read with { Staff = staff.Where(n => n.Length > 0).Select(NameFolding.AsShown).ToHashSet() };
        return read.Problems.Count == 0 || read.Rows.Count == 0 ? read : read with { Problems = [.. read.Problems, .. await Fitting(read, db)] };
    }

    /// <summary>Reads it, as far as that needs no database.</summary>
    private static ReadFile Read(SentFile sent, OpenLesson open, DateTimeZone school, IReadOnlyDictionary<string, KnownLayoutLine> known)
    {
        using var budget = ReadingBudget.Begin(sent.Gone);
        var bytes = PlainContent.Of(sent.Bytes);
        var layout = LayoutShape.Of(bytes);
        var (file, like) = KnownLayouts.Follow(sent, layout, known);
        try
        {
            return ReadAs(file, bytes, open, ZoneOf(file)) with { As = file, Layout = layout, Like = like };
        }
        catch (FormatProblem) when (like is not null)
        {
            // What was said of another file of this layout does not fit this one.
            return ReadAs(sent, bytes, open, ZoneOf(sent)) with { As = sent, Layout = layout };
        }

        DateTimeZone ZoneOf(SentFile of) => of.Zone is null ? school
            : DateTimeZoneProviders.Tzdb.GetZoneOrNull(of.Zone) ?? throw new FormatProblem($"“{of.Zone}” is not a time zone. Choose one from the list.");
    }

    private static ReadFile ReadAs(SentFile sent, byte[] bytes, OpenLesson open, DateTimeZone zone)
    {
        var (from, to) = (open.Lesson.PlannedStart, open.Lesson.PlannedEnd);
        // Several readers look at the same names, to know whether the file is theirs.
        var namesHere = new Dictionary<string, bool>(StringComparer.Ordinal);
        bool isNameHere(string name) => namesHere.TryGetValue(name, out var known) ? known : namesHere[name] = open.MatchOf(new ShownName(name)).Certainty != Certainty.Unknown;
        var lines = MarkedLines.Of(bytes);
        IReadOnlyList<FileKind> couldBe = [];
        IReadOnlyList<string> unknown = [];
        if (sent.Chosen<MarkedExample>("marks") is { } marks)
        {
            (bytes, var kind) = MarkedLines.Cut(bytes, marks);
            couldBe = [kind];
        }
        else if (sent.Chosen<FileKind?>("kind") is { } said)
        {
            couldBe = [said];
        }
        else
        {
            try
            {
                couldBe = FileRecognition.CouldBe(bytes, zone, from, to, isNameHere);
            }
            catch (NothingKnown) when (lines.Count > 0)
            {
                // Its lines are shown.
                unknown = [MarkIt];
            }
        }

        var fingerprint = Convert.ToHexString(SHA256.HashData(sent.Bytes));
        var id = DerivedId.Of($"{open.Lesson.Id}\n{fingerprint}\n{string.Join(",", couldBe)}\n{zone.Id}\n{string.Join(",", sent.Mapping?.OrderBy(m => m.Key, StringComparer.Ordinal).Select(m => $"{m.Key}={m.Value}") ?? [])}\n{sent.Decided["questions"]}\n{sent.Decided["at"]}{(sent.Decided["marks"] is [{ Length: > 0 } marked] ? $"\n{marked}" : "")}");
        if (couldBe is not [var only])
        {
            return new ReadFile(null, couldBe, [], true, zone, [], 0, unknown, [], [], [], []) { Fingerprint = fingerprint, Id = id, Lines = lines, Readings = [.. couldBe.Select(ReadingAs).OfType<FileReading>()] };
        }

        return OfKind(only) with { Lines = lines };

        FileReading? ReadingAs(FileKind kind)
        {
            try
            {
                return OfKind(kind) is { Rows: { Count: > 0 } rows } ? new FileReading(kind, rows.Count, [.. rows.Take(RowsCompared)]) : null;
            }
            catch (FormatProblem)
            {
                return null;
            }
        }

        ReadFile OfKind(FileKind kind) => kind switch
        {
            FileKind.Attendance => OfList(Few(AttendanceFile.Read(bytes, sent.Mapping, zone, from, to), list => list.Rows.Select(r => r.Name)), open, zone, fingerprint, id),
            FileKind.Captions => OfCaptions(Few(CaptionsFile.Read(bytes, zone, open.Times.ActualStart ?? from, isNameHere, open.Rules.KeepsSpoken), captions => captions.Rows.Select(r => r.Name)), zone, fingerprint, id),
            FileKind.Chat => OfChat(Few(ChatFile.Read(bytes, sent.Mapping, zone, from, isNameHere), chat => chat.Rows.Select(r => r.Name)), zone, fingerprint, id),
            FileKind.Answers => OfAnswers(Few(AnswersFile.Read(bytes, sent.Mapping, zone, from, to, isNameHere), table => table.People.Select(p => p.Name)), sent.Chosen<List<QuestionChoice>>("questions"), open, zone, fingerprint, id),
            _ => OfPeople(PeopleFile.Read(bytes, zone, from, to, isNameHere), sent, zone, fingerprint, id),
        };
    }

    // Each name is compared with the roster, and each is shown to the teacher.
    private static T Few<T>(T read, Func<T, IEnumerable<string>> names) => names(read).Distinct(StringComparer.Ordinal).Count() is var count && count > PeopleFile.MostNames
        ? throw new FormatProblem($"This file names {count:N0} different people, and at most {PeopleFile.MostNames:N0} are in a lesson. Nothing was stored; keep only the rows of this lesson, and put the names in a column of their own.")
        : read;

    /// <summary>The entries that bring it in; the one that says that it is there comes last, and nothing counts without it.</summary>
    /// <param name="name">Its name.</param>
    /// <param name="matches">Whose its names are.</param>
    /// <param name="now">Now.</param>
    public IReadOnlyList<NewEntry> Entries(string name, IReadOnlyList<NameMatch> matches, Instant now) =>
    [
        .. Acts.Select((a, i) => new NewEntry(DerivedId.Of($"{Id}\n{i}"), a.At, a.Act, Id)),
        .. AttendanceEntries.Sure(matches, Staff, onlyWhole: IsPicture).Select(act => new NewEntry(DerivedId.Of($"{Id}\n{ActJson.Write(act)}"), now, act, Id)),
        new NewEntry(Id, now, new FileBroughtIn(Kind!.Value, name, Rows.Count(r => r.Problems.Count == 0), Fingerprint)),
    ];

    private static ReadFile OfList(AttendancePreview list, OpenLesson open, DateTimeZone zone, string fingerprint, Guid id)
    {
        var people = AttendanceEntries.PeopleOf(list, name => open.MatchOf(name));
        return new ReadFile(
            FileKind.Attendance, [FileKind.Attendance], list.Columns, list.NamesZone, zone,
            [.. list.Rows.Select(r => new FileRow(r.Row, r.Name, r.Joined ?? r.Left, r.Joined is null ? null : r.Left, r.Length?.TotalSeconds, null, r.Problems))], 0,
            list.Problems, list.Unclear, list.Remarks, people, AttendanceEntries.Of(list, people, open.Times.CountedTo))
        { Fingerprint = fingerprint, Id = id };
    }

    private static ReadFile OfChat(ChatPreview chat, DateTimeZone zone, string fingerprint, Guid id)
    {
        var usable = chat.Rows.Where(r => r.Problems.Count == 0).ToList();
        var people = usable.ConvertAll(r => new ShownName(r.Name, Email: r.Email));
        return new ReadFile(
            FileKind.Chat, [FileKind.Chat], chat.Columns, chat.NamesZone, zone,
            [.. chat.Rows.Select(r => new FileRow(r.Row, r.Name, r.At, null, null, r.Text, r.Problems))], chat.LeftOut, chat.Problems, chat.Unclear, [], people,
            [.. usable.Zip(people, (r, who) => (r.At!.Value, (Act)new NameWrote(r.Name, r.Text, r.Private) { Beside = who.Beside }))])
        { Fingerprint = fingerprint, Id = id };
    }

    private static ReadFile OfAnswers(AnswersPreview table, IReadOnlyList<QuestionChoice>? chosen, OpenLesson open, DateTimeZone zone, string fingerprint, Guid id)
    {
        var entries = new AnswerEntries(open);
        var taken = entries.Of(table, chosen);
        var written = table.Questions.SelectMany(q => q.Answers).ToLookup(a => a.Row.Row, a => a.Written.Text);
        return new ReadFile(
            FileKind.Answers, [FileKind.Answers], table.Columns, table.NamesZone, zone,
            [.. table.People.Select(p => new FileRow(p.Row, p.Name, p.At, null, null, string.Join(" · ", written[p.Row]), p.Problems))], 0,
            table.Problems, [.. chosen is null ? table.Unclear : [], .. taken.Select(t => t.Doubt).OfType<string>()], table.Remarks,
            table.Anonymous ? [] : [.. table.Questions.SelectMany(q => q.Answers).Select(a => AnswerEntries.PersonOf(a.Row))], [.. taken.SelectMany(t => t.Acts)])
        { Fingerprint = fingerprint, Id = id, Questions = [.. taken.Select(t => t.Line)], KnownQuestions = entries.Known };
    }

    private static ReadFile OfPeople(PeoplePreview list, SentFile sent, DateTimeZone zone, string fingerprint, Guid id)
    {
        var at = sent.Chosen<Instant?>("at") ?? list.At;
        var usable = list.Rows.Where(r => r.Problems.Count == 0).ToList();
        return new ReadFile(
            FileKind.People, [FileKind.People], [], true, zone, [.. list.Rows.Select(r => new FileRow(r.Row, r.Name, at, null, null, null, r.Problems))], list.LeftOut,
            [], at is null ? [WhenWasIt] : [], [], [.. usable.Select(r => new ShownName(r.Name))], at is { } moment ? [.. usable.Select(r => (moment, (Act)new Seen(r.Name)))] : [])
        { Fingerprint = fingerprint, Id = id, IsPicture = sent.Decided["picture"] == "true" };
    }

    private static ReadFile OfCaptions(CaptionsPreview captions, DateTimeZone zone, string fingerprint, Guid id) => new(
        FileKind.Captions, [FileKind.Captions], [], captions.FromStart, zone,
        [.. captions.Rows.Select(r => new FileRow(r.Row, r.Name, r.From, null, r.Length.TotalSeconds, null, []))], captions.LeftOut, captions.Problems, [], [],
        [.. captions.Rows.Select(r => new ShownName(r.Name))], [.. captions.Rows.Select(r => (r.From, (Act)new NameSpoke(r.Name, r.Length, r.Said)))])
    { Fingerprint = fingerprint, Id = id };

    // Of which lesson it rather is.
    private static async Task<IEnumerable<string>> Fitting(ReadFile read, SchoolDb db)
    {
        var times = read.Rows.Where(r => r.At is not null).Select(r => r.At!.Value).Order().ToList();
        if (times.Count == 0)
        {
            return [];
        }

        var middle = times[times.Count / 2];
        var fits = await db.Lessons.AsNoTracking().Include(l => l.Class)
            .Where(l => l.PlannedStart <= middle && l.PlannedEnd >= middle).OrderBy(l => l.PlannedStart).FirstOrDefaultAsync();
        return fits is null ? [] : [$"Its times fit lesson {fits.Number} of {fits.Class!.Name}, “{fits.Title}”."];
    }
}
