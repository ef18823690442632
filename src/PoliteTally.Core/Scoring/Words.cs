using System.Globalization;
using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Chat;
using PoliteTally.Core.Hands;

namespace PoliteTally.Core.Scoring;

/// <summary>Results in plain words, the same on the live sheet, in an explanation and in a file.</summary>
public static class Words
{
    /// <summary>A number with as few places as it needs, at most two.</summary>
    public static string Plain(decimal number) => number.ToString("0.##", CultureInfo.InvariantCulture);

    /// <summary>A number rounded as scores are shown: to whole numbers, half away from zero.</summary>
    public static int Shown(decimal score) => (int)Math.Round(score, MidpointRounding.AwayFromZero);

    /// <summary>"1 nod", "2 nods".</summary>
    public static string Count(int count, string noun) => count == 1 ? $"1 {noun}" : $"{count} {noun}s";

    /// <summary>Whole minutes, half away from zero, with the unit.</summary>
    public static string Minutes(Duration length) =>
        $"{Math.Round(length.TotalMinutes, MidpointRounding.AwayFromZero).ToString(CultureInfo.InvariantCulture)} min";

    /// <summary>The name of a strand.</summary>
    public static string Of(Strand strand) => strand switch
    {
        Strand.GroupWork => "group work",
        _ => strand.ToString().ToLowerInvariant(),
    };

    /// <summary>The name of a kind of message.</summary>
    public static string Of(ChatKind kind) => kind switch
    {
        ChatKind.OffTask => "off task",
        _ => kind.ToString().ToLowerInvariant(),
    };

    /// <summary>The name of a status.</summary>
    public static string Of(AttendanceStatus status) => status switch
    {
        AttendanceStatus.DidNotCome => "did not come",
        _ => status.ToString().ToLowerInvariant(),
    };

    /// <summary>The name of an outcome.</summary>
    public static string Of(TurnOutcome outcome) => outcome switch
    {
        TurnOutcome.Full => "full turn",
        TurnOutcome.Partial => "partial turn",
        TurnOutcome.Pass => "pass",
        _ => "could not",
    };

    /// <summary>A turn: its outcome, and how the student came by it.</summary>
    public static string Of(Turn turn) =>
        $"{(turn.Outcome is { } outcome ? Of(outcome) : "called")}, {Of(turn.Origin)}";

    /// <summary>How a student came by a turn.</summary>
    public static string Of(TurnOrigin origin) => origin switch
    {
        TurnOrigin.Hand => "from the line",
        TurnOrigin.HandedOn => "handed on",
        TurnOrigin.Ready => "said ready",
        TurnOrigin.Drawn => "drawn",
        _ => "invited",
    };

    /// <summary>What stands beside a status: how late, how early left, how much missed.</summary>
    public static IReadOnlyList<string> Notes(AttendanceResult result)
    {
        var notes = new List<string>();
        if (result.Status == AttendanceStatus.Late && result.Arrival is { } arrival)
        {
            notes.Add($"{Minutes(arrival)} late");
        }

        if (result.Flags.HasFlag(AttendanceFlags.LeftEarly))
        {
            notes.Add($"left {Minutes(result.EarlyLeave!.Value)} early");
        }

        if (result.Flags.HasFlag(AttendanceFlags.Partly))
        {
            notes.Add($"partly, {Plain(decimal.Round(result.Share * 100, 0, MidpointRounding.AwayFromZero))}\u00A0%");
        }

        if (result.Dropouts > 0)
        {
            notes.Add(Count(result.Dropouts, "dropout"));
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

    /// <summary>How a status is known.</summary>
    public static string Of(KnownBy known) => known switch
    {
        KnownBy.Declared => "declared",
        KnownBy.Measured => "measured",
        KnownBy.Estimated => "estimated",
        _ => "nothing was noted",
    };

    /// <summary>Attendance as one phrase: "present for 47 of 50 min, 1 dropout; measured".</summary>
    public static string Of(AttendanceResult result)
    {
        // What was only glimpsed has no length that anybody could stand by.
        var glimpsed = result.Flags.HasFlag(AttendanceFlags.Estimated);
        var there = result.WasThere && !glimpsed ? $" for {Math.Round(result.Present.TotalMinutes, MidpointRounding.AwayFromZero)} of {Minutes(result.Counted)}" : "";
        var notes = string.Join(", ", Notes(result).Where(n => n != "estimated"));
        return $"{Of(result.Status)}{there}{(notes.Length > 0 ? $", {notes}" : "")}; {Of(result.KnownBy)}";
    }
}
