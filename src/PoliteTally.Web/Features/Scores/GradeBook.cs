using System.Globalization;
using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Scoring;
using PoliteTally.Formats;
using PoliteTally.Store;
using PoliteTally.Store.Model;

namespace PoliteTally.Web.Features.Scores;

/// <summary>The scores of a class as a grade book to be taken elsewhere: numbers as they are shown, and in words why there is none.</summary>
internal sealed class GradeBook(TermSheet term, DateTimeZone zone)
{
    private const int Frozen = 3;

    private string[] Headings =>
    [
        "Student number", "Family name", "Given name", "Term score", .. term.Scheme.Bands.Count > 0 ? ["Band"] : Array.Empty<string>(),
        .. term.Lessons.Select(l => $"Lesson {l.Number}, {l.PlannedStart.InZone(zone).ToString("uuuu-MM-dd", CultureInfo.InvariantCulture)}"), "Put right by hand",
    ];

    /// <summary>As a table whose columns are separated by commas.</summary>
    public byte[] Csv() => SafeCsv.Write(Headings, Rows().Select(row => (IReadOnlyList<string>)
        [.. row.Select(c => c.Number is { } number ? number.ToString($"F{c.Places}", CultureInfo.InvariantCulture) : c.Text)]));

    /// <summary>As a workbook.</summary>
    public byte[] Workbook() => SheetFile.Write(term.Name, Headings, Rows(), Frozen);

    /// <summary>As a bundle of the open grade book standard. Students go by their number at the school, whoever has none by their id here.</summary>
    /// <param name="school">The id of the school.</param>
    public byte[] Bundle(Guid school)
    {
        var (scheme, lessons) = (term.Scheme, term.Lessons.Where(l => !l.DropIn).ToList());
        var ranges = scheme.Bands.Select((b, i) => (b.From, To: i + 1 < scheme.Bands.Count ? scheme.Bands[i + 1].From - Step(scheme) : 100, b.Name)).ToList();
        GradedItem[] over = lessons.Count == 0 ? [] : [new($"{term.ClassId}-term", "Over the term", $"{lessons.Count} settled lessons", DayOf(lessons[^1]), ranges.Count > 0)];
        return new GradeBundle(
            $"{term.ClassId}", $"{school}",
            [.. lessons.Select(l => new GradedItem($"{l.Id}", TermSheet.LabelOf(l), "", DayOf(l), HasScale: false)), .. over],
            [
                .. from student in term.Roster
                   from lesson in lessons
                   let summary = term.Of(lesson.Id, student.Name.Id)
                   where summary is not null
                   select ResultOf(student, $"{lesson.Id}", summary.Score, term.SchemeOf(lesson), DayOf(lesson), Comment(lesson, summary), ""),
                .. from item in over
                   from student in term.Roster
                   let total = term.Score(student.Name.Id).Total
                   where total is not null
                   select ResultOf(student, item.Id, total.Value, scheme, item.Day, "", term.BandOf(total) ?? ""),
            ],
            ranges.Count == 0 ? null : new GradeScale($"{term.ClassId}-bands", ranges)).Write();
    }

    private static decimal Step(Scheme scheme) => scheme.Places switch
    {
        0 => 1,
        1 => 0.1m,
        _ => 0.01m,
    };

    private static GradedResult ResultOf(OnSheet student, string item, decimal? score, Scheme scheme, LocalDate day, string comment, string band) => new(
        $"{item}-{student.Name.Id}", item, student.Name.Number ?? $"{student.Name.Id}", score is { } value ? scheme.Shown(value) : null, day, comment, band);

    private string Comment(Lesson lesson, Summary summary) => string.Join("; ",
    [
        .. summary.Score is null ? [summary.Status.InWords()] : Array.Empty<string>(),
        .. term.TallyOf(lesson.Id, summary.StudentId)!.Corrections.Select(c => c.Said),
    ]);

    private LocalDate DayOf(Lesson lesson) => lesson.PlannedStart.InZone(zone).Date;

    private IEnumerable<IReadOnlyList<SheetCell>> Rows() => term.Roster.Select(student =>
    {
        var (id, scheme) = (student.Name.Id, term.Scheme);
        var total = term.Score(id).Total?.Value;
        return (IReadOnlyList<SheetCell>)
        [
            SheetCell.Of(student.Name.Number ?? ""), SheetCell.Of(student.Name.Family), SheetCell.Of(student.Name.Given),
            total is null ? SheetCell.Of("not enough yet") : Number(total.Value, scheme),
            .. scheme.Bands.Count > 0 ? [SheetCell.Of(total is null ? "" : scheme.BandOf(total.Value)?.Name ?? "")] : Array.Empty<SheetCell>(),
            .. term.Lessons.Select(l => term.Of(l.Id, id) is { } summary ? CellOf(summary, term.SchemeOf(l)) : SheetCell.Of("")),
            SheetCell.Of(string.Join("; ", term.Lessons.SelectMany(l => (term.TallyOf(l.Id, id)?.Corrections ?? []).Select(c => $"lesson {l.Number}: {c.Said}")))),
        ];
    });

    private static SheetCell CellOf(Summary summary, Scheme scheme) =>
        summary.Score is { } score ? Number(score, scheme) : SheetCell.Of(summary.Status.InWords());

    private static SheetCell Number(decimal score, Scheme scheme) => SheetCell.Of(scheme.Shown(score), scheme.Places);
}
