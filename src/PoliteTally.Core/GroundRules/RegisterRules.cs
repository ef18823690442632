using NodaTime;
using PoliteTally.Core.Attendance;

namespace PoliteTally.Core.GroundRules;

/// <summary>How a school wants its registers: until when, in which codes, and where those go that no desk takes.</summary>
public sealed record RegisterRules
{
    /// <summary>The longest code, in UTF-16 code units: 12.</summary>
    public const int LongestCode = 12;

    /// <summary>Until when on the day of the lesson a register is due, as time since midnight, from 0 to 24 h. 16 h.</summary>
    public Duration DueBy { get; init; } = Duration.FromHours(16);

    /// <summary>The code of who was present. P.</summary>
    public string Present { get; init; } = "P";

    /// <summary>The code of who came late. L.</summary>
    public string Late { get; init; } = "L";

    /// <summary>The code of who was absent. A.</summary>
    public string Absent { get; init; } = "A";

    /// <summary>The code of who was excused. E.</summary>
    public string Excused { get; init; } = "E";

    /// <summary>Where a register goes by mail; empty if it does not.</summary>
    public string MailTo { get; init; } = "";

    /// <summary>The code of a status.</summary>
    public string CodeOf(AttendanceStatus status) => status switch
    {
        AttendanceStatus.Present => Present,
        AttendanceStatus.Late => Late,
        AttendanceStatus.Absent => Absent,
        _ => Excused,
    };

    /// <summary>When the register of a lesson is due: at that time of the day on which it ended, or at its end if that is later.</summary>
    /// <param name="end">When the lesson was to end.</param>
    /// <param name="zone">The zone of the school.</param>
    public Instant DueAt(Instant end, DateTimeZone zone)
    {
        var due = zone.AtLeniently(end.InZone(zone).Date.AtMidnight() + Period.FromSeconds((long)DueBy.TotalSeconds)).ToInstant();
        return Instant.Max(due, end);
    }

    /// <summary>What is wrong with them; empty if nothing is.</summary>
    public IEnumerable<string> Problems()
    {
        if (DueBy < Duration.Zero || DueBy > Duration.FromHours(24))
        {
            yield return "Register: due by a time of the day.";
        }

        string[] codes = [Present, Late, Absent, Excused];
        if (codes.Any(c => c.Trim().Length == 0 || c.Length > LongestCode || c.Any(char.IsControl)))
        {
            yield return $"Register: each code has from 1 to {LongestCode} characters.";
        }

        if (codes.Distinct(StringComparer.Ordinal).Count() < codes.Length)
        {
            yield return "Register: no two codes are the same.";
        }

        if (MailTo.Length > 0 && (MailTo.Length > ClassRules.LongestLine || MailTo.Any(char.IsWhiteSpace) || MailTo.Split('@') is not [{ Length: > 0 }, { Length: > 0 }]))
        {
            yield return "Register: the address for mail is one e-mail address, or empty.";
        }
    }
}
