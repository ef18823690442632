using NodaTime;
using PoliteTally.Core.Text;

namespace PoliteTally.Core.Attendance;

/// <summary>Attendance in plain words.</summary>
public static class AttendanceWords
{
    /// <summary>The name of a status.</summary>
    public static string InWords(this AttendanceStatus status) => status switch
    {
        AttendanceStatus.DidNotCome => "did not come",
        _ => status.ToString().ToLowerInvariant(),
    };

    /// <summary>How a status is known.</summary>
    public static string InWords(this KnownBy known) => known switch
    {
        KnownBy.Declared => "declared",
        KnownBy.Measured => "measured",
        KnownBy.Estimated => "estimated",
        _ => "nothing was noted",
    };

    /// <summary>What stands beside a status: how late, how early left, how much missed.</summary>
    public static IReadOnlyList<string> Notes(this AttendanceResult result)
    {
        var notes = new List<string>();
        if (result.Status == AttendanceStatus.Late && result.Arrival is { } arrival)
        {
            notes.Add($"{Words.Minutes(arrival)} late");
        }

        if (result.Flags.HasFlag(AttendanceFlags.LeftEarly))
        {
            notes.Add($"left {Words.Minutes(result.EarlyLeave!.Value)} early");
        }

        if (result.Flags.HasFlag(AttendanceFlags.Partly))
        {
            notes.Add($"partly, {Words.Plain(decimal.Round(result.Share * 100, 0, MidpointRounding.AwayFromZero))}\u00A0%");
        }

        if (result.Dropouts > 0)
        {
            notes.Add(Words.Count(result.Dropouts, "dropout"));
        }

        if (result.SentOutFor > Duration.Zero)
        {
            notes.Add($"sent out for {Words.Minutes(result.SentOutFor)}");
        }

        if (result.Flags.HasFlag(AttendanceFlags.Open))
        {
            notes.Add("no leaving time");
        }

        if (result.Flags.HasFlag(AttendanceFlags.NoJoin))
        {
            notes.Add("no joining time");
        }

        if (result.Flags.HasFlag(AttendanceFlags.LengthOnly))
        {
            notes.Add("length only");
        }

        if (result.Flags.HasFlag(AttendanceFlags.LengthShorter))
        {
            notes.Add("less than from joining to leaving");
        }

        if (result.Flags.HasFlag(AttendanceFlags.Estimated))
        {
            notes.Add("estimated");
        }

        if (result.Reason is { } reason)
        {
            notes.Add(reason);
        }

        return notes;
    }

    /// <summary>Attendance as one phrase: "present for 47 of 50 min, 1 dropout; measured".</summary>
    public static string InWords(this AttendanceResult result)
    {
        // What was only glimpsed has no length that anybody could stand by.
        var glimpsed = result.Flags.HasFlag(AttendanceFlags.Estimated);
        var there = result.WasThere && !glimpsed ? $" for {Math.Round(result.Present.TotalMinutes, MidpointRounding.AwayFromZero)} of {Words.Minutes(result.Counted)}" : "";
        var notes = string.Join(", ", result.Notes().Where(n => n != "estimated"));
        return $"{result.Status.InWords()}{there}{(notes.Length > 0 ? $", {notes}" : "")}; {result.KnownBy.InWords()}";
    }
}
