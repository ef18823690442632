using Microsoft.AspNetCore.Mvc;
using NodaTime;
using PoliteTally.Core.Reports;
using PoliteTally.Store;
using PoliteTally.Web.Features.Lessons;
using PoliteTally.Web.Features.Scores;

namespace PoliteTally.Web.Features.Reports;

/// <summary>What a report is about.</summary>
public enum ReportKind
{
    /// <summary>One student.</summary>
    Student,

    /// <summary>Who was heard, and how fairly.</summary>
    Fairness,

    /// <summary>Each question that was asked.</summary>
    Questions,

    /// <summary>One lesson.</summary>
    Lesson,

    /// <summary>Attendance, as the office wants it.</summary>
    Register,

    /// <summary>The whole class.</summary>
    Class,
}

/// <summary>A report as it is asked for in an address.</summary>
public sealed record ReportQuery
{
    /// <summary>The student it is about.</summary>
    [FromQuery(Name = "student")]
    public Guid? Student { get; init; }

    /// <summary>The lesson it is about.</summary>
    [FromQuery(Name = "lesson")]
    public Guid? Lesson { get; init; }

    /// <summary>The first of the days whose lessons it is about, as "2026-11-23"; empty for no beginning.</summary>
    [FromQuery(Name = "from")]
    public string? From { get; init; }

    /// <summary>The last of them.</summary>
    [FromQuery(Name = "to")]
    public string? To { get; init; }

    /// <summary>Whom it is for: student or guardian.</summary>
    [FromQuery(Name = "reader")]
    public string? Reader { get; init; }

    /// <summary>Whether students are numbered instead of named.</summary>
    [FromQuery(Name = "hidden")]
    public bool? Hidden { get; init; }
}

/// <summary>A report that can be written.</summary>
internal sealed record AskedReport(ReportKind Kind, Guid? Student, Guid? Lesson, Span Span, Reader Reader, bool Hidden, DateTimeZone Zone)
{
    /// <summary>Reads what is asked for.</summary>
    /// <returns>The report, or why there is none.</returns>
    /// <param name="kind">What it is about, as it stands in the address.</param>
    /// <param name="query">The rest of the address.</param>
    /// <param name="leaves">Whether it is for somebody else: then answers to questions go without names unless they are asked for.</param>
    /// <param name="db">A context of the owner.</param>
    /// <param name="owner">The teacher.</param>
    public static async Task<(AskedReport? Report, string Problem)> Of(string kind, ReportQuery query, bool leaves, SchoolDb db, Owner owner)
    {
        if (Named<ReportKind>(kind) is not { } which)
        {
            return (null, $"There is no such report. Ask for one of {Choices<ReportKind>()}.");
        }

        if (await Span.Asked(query.From, query.To, db, owner) is not { } span)
        {
            return (null, "A day is written as 2026-11-23.");
        }

        var reader = string.IsNullOrEmpty(query.Reader) ? Core.Reports.Reader.Student : Named<Reader>(query.Reader);
        return reader is not { } who ? (null, $"There is no such reader. Ask for one of {Choices<Reader>()}.")
            : which == ReportKind.Student && query.Student is null ? (null, "Which student is it about? Name one.")
            : which == ReportKind.Lesson && query.Lesson is null ? (null, "Which lesson is it about? Name one.")
            : (new AskedReport(which, query.Student, query.Lesson, span, who, query.Hidden ?? (leaves && which == ReportKind.Questions), await LessonEndpoints.ZoneOf(db, owner)), "");
    }

    /// <summary>The only student that it reads of; null if it reads of everybody.</summary>
    public Guid? Only => Kind == ReportKind.Student ? Student : null;

    /// <summary>By which edits of it are kept.</summary>
    public string Key => FormattableString.Invariant($"{Kind} {Student} {Lesson} {Reader} {Span.From} {Span.To}");

    private static T? Named<T>(string text)
        where T : struct, Enum => Enum.TryParse<T>(text, ignoreCase: true, out var named) && Enum.IsDefined(named) && !char.IsDigit(text[0]) ? named : null;

    private static string Choices<T>()
        where T : struct, Enum => string.Join(", ", Enum.GetNames<T>().Select(n => char.ToLowerInvariant(n[0]) + n[1..]));
}
