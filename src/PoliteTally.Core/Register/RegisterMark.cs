using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Text;

namespace PoliteTally.Core.Register;

/// <summary>What the register of a lesson says of one student.</summary>
/// <param name="Student">The id of the student.</param>
/// <param name="Number">Their number at the school; null if they have none.</param>
/// <param name="Name">Their whole name.</param>
/// <param name="Status">The status.</param>
/// <param name="MinutesLate">How late they came, in whole minutes, half away from zero; null unless late, and if nobody knows.</param>
/// <param name="Reason">The reason of an excuse that counts; null without one.</param>
public sealed record RegisterMark(Guid Student, string? Number, string Name, AttendanceStatus Status, int? MinutesLate, string? Reason)
{
    /// <summary>What the register says by attendance that was reckoned.</summary>
    public static RegisterMark Of(Guid student, string? number, string name, AttendanceResult attendance) => new(
        student, number, name, attendance.Status,
        attendance is { Status: AttendanceStatus.Late, Arrival: { } arrival } && arrival > Duration.Zero ? Words.WholeMinutes(arrival) : null,
        attendance.Reason);

    /// <summary>The mark in words: "late, 8 min", "excused: ferry cancelled".</summary>
    public string InWords => Status switch
    {
        AttendanceStatus.Late when MinutesLate is { } minutes => $"late, {minutes} min",
        AttendanceStatus.Excused when Reason is { Length: > 0 } reason => $"excused: {reason}",
        _ => Status.InWords(),
    };

    /// <summary>Whether it says something else of the student; how they are called does not matter.</summary>
    public bool SaysOtherThan(RegisterMark other) => (Status, MinutesLate, Reason) != (other.Status, other.MinutesLate, other.Reason);
}

/// <summary>What changed in a register since it was handed in.</summary>
/// <param name="Student">The id of the student.</param>
/// <param name="Number">Their number at the school.</param>
/// <param name="Name">Their whole name.</param>
/// <param name="From">What was handed in; null if they were not in it.</param>
/// <param name="To">What holds now; null if they are not in it any more.</param>
public sealed record RegisterChange(Guid Student, string? Number, string Name, RegisterMark? From, RegisterMark? To)
{
    /// <summary>The changes from one register to another, in the order of the later one; those who are gone come last.</summary>
    public static IReadOnlyList<RegisterChange> Between(IReadOnlyList<RegisterMark> before, IReadOnlyList<RegisterMark> after)
    {
        var (was, now) = (before.ToDictionary(m => m.Student), after.Select(m => m.Student).ToHashSet());
        return
        [
            .. after.Where(m => !was.TryGetValue(m.Student, out var old) || m.SaysOtherThan(old))
                .Select(m => new RegisterChange(m.Student, m.Number, m.Name, was.GetValueOrDefault(m.Student), m)),
            .. before.Where(m => !now.Contains(m.Student)).Select(m => new RegisterChange(m.Student, m.Number, m.Name, m, null)),
        ];
    }

    /// <summary>It in words: "Birkir Árnason: late, 8 min; it was present".</summary>
    public string InWords => (From, To) switch
    {
        (null, { } now) => $"{Name}: {now.InWords}; not in it before",
        ({ } was, null) => $"{Name}: not in it any more; it was {was.InWords}",
        var (was, now) => $"{Name}: {now!.InWords}; it was {was!.InWords}",
    };
}
