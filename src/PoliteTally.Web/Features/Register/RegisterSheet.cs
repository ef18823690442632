using NodaTime;
using PoliteTally.Core.GroundRules;
using PoliteTally.Core.Register;
using PoliteTally.Formats;
using PoliteTally.Store;
using PoliteTally.Store.Model;

namespace PoliteTally.Web.Features.Register;

/// <summary>A register as it leaves: for the desk as JSON, by mail and by hand as a table.</summary>
/// <param name="Lesson">The id of the lesson.</param>
/// <param name="Class">The name of the class.</param>
/// <param name="Title">What the lesson was about.</param>
/// <param name="From">When it was to begin.</param>
/// <param name="To">When it was to end.</param>
/// <param name="Version">Counts what is handed in of this lesson from 1.</param>
/// <param name="Why">Why it is amended; empty of the first.</param>
/// <param name="Students">A line for each student.</param>
/// <param name="Changes">What changed since the version before; empty of the first.</param>
public sealed record RegisterSheet(
    Guid Lesson, string Class, string Title, DateTimeOffset From, DateTimeOffset To, int Version, string Why, IReadOnlyList<SheetLine> Students, IReadOnlyList<SheetChange> Changes)
{
    /// <summary>What the register of a lesson says now.</summary>
    public static IReadOnlyList<RegisterMark> MarksOf(OpenLesson open) =>
    [
        .. open.Roster.Select(s => RegisterMark.Of(s.Name.Id, s.Name.Number, s.Name.Whole, open.State.AttendanceOf(s.Name.Id, open.Times, open.Rules.Scheme.Attendance))),
    ];

    /// <summary>A hand-in as it leaves.</summary>
    /// <param name="handIn">The hand-in.</param>
    /// <param name="before">The one before it; null of the first.</param>
    /// <param name="lesson">Its lesson.</param>
    /// <param name="rules">The codes of the school.</param>
    /// <param name="zone">The zone of the school.</param>
    public static RegisterSheet Of(HandIn handIn, HandIn? before, Lesson lesson, RegisterRules rules, DateTimeZone zone)
    {
        var marks = OtherJson.ReadMarks(handIn.Marks);
        return new RegisterSheet(
            lesson.Id, lesson.Class!.Name, lesson.Title, lesson.PlannedStart.InZone(zone).ToDateTimeOffset(), lesson.PlannedEnd.InZone(zone).ToDateTimeOffset(), handIn.Version, handIn.Why,
            [.. marks.Select(m => SheetLine.Of(m, rules))],
            before is null ? [] : [.. RegisterChange.Between(OtherJson.ReadMarks(before.Marks), marks).Select(c => new SheetChange(c.Number, c.Name, CodeOf(c.From), CodeOf(c.To)))]);

        string? CodeOf(RegisterMark? mark) => mark is null ? null : rules.CodeOf(mark.Status);
    }

    /// <summary>Registers as one table.</summary>
    public static byte[] Table(IEnumerable<RegisterSheet> sheets) => SafeCsv.Write(
        ["Date", "From", "To", "Class", "Lesson", "Number", "Name", "Code", "Minutes late", "Reason"],
        sheets.SelectMany(s => s.Students.Select(l => (IReadOnlyList<string>)
        [
            $"{s.From:yyyy-MM-dd}", $"{s.From:HH:mm}", $"{s.To:HH:mm}", s.Class, s.Title, l.Number ?? "", l.Name, l.Code, l.MinutesLate is { } late ? $"{late}" : "", l.Reason ?? "",
        ])));
}

/// <summary>A student in a register that leaves.</summary>
public sealed record SheetLine(string? Number, string Name, string Code, int? MinutesLate, string? Reason)
{
    internal static SheetLine Of(RegisterMark mark, RegisterRules rules) => new(mark.Number, mark.Name, rules.CodeOf(mark.Status), mark.MinutesLate, mark.Reason);
}

/// <summary>A student whose code changed since the version before; null where they were, or are, not in it.</summary>
public sealed record SheetChange(string? Number, string Name, string? From, string? To);
