using System.Globalization;
using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Scoring;
using PoliteTally.Formats;
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
