namespace PoliteTally.Core.Attendance;

/// <summary>What the credit of attendance rests on.</summary>
/// <param name="Status">The status.</param>
/// <param name="LateCosts">Whether they came late, and nothing excuses it.</param>
/// <param name="LeftEarlyCosts">Whether they left early, and nothing excuses it.</param>
/// <param name="Share">The share of the lesson that was measured, what is excused counted as there; from 0 to 1, 0 if nothing was measured.</param>
/// <param name="IsMeasured">Whether the time was measured, and the teacher has not said what the status is.</param>
public sealed record AttendanceWorth(AttendanceStatus Status, bool LateCosts, bool LeftEarlyCosts, decimal Share, bool IsMeasured)
{
    /// <summary>
    /// What it earns: by status, coming late and leaving early each with its cost, and of what was measured never more than twice the share; or, if the class wishes, by the share
    /// where there is one. What is only declared or estimated earns by status.
    /// </summary>
    /// <param name="policy">How the class counts.</param>
    /// <returns>From 0 to 1; null if the status is not counted.</returns>
    public decimal? Credit(AttendancePolicy policy)
    {
        if (Status is AttendanceStatus.Excused or AttendanceStatus.DidNotCome)
        {
            return null;
        }

        if (Status == AttendanceStatus.Absent)
        {
            return 0;
        }

        if (policy.CreditBy == CreditBy.Share && Share > 0)
        {
            return Math.Min(1m, Share / policy.EnoughShare);
        }

        var byStatus = Math.Max(0m, 1 - (LateCosts ? 1 - policy.LateCredit : 0) - (LeftEarlyCosts ? 1 - policy.LeftEarlyCredit : 0));
        return IsMeasured ? Math.Min(byStatus, 2 * Share) : byStatus;
    }
}
