using NodaTime;

namespace PoliteTally.Core.Attendance;

/// <summary>Where somebody is by what was noted last: the live sheet and the draw ask it, and settling asks what it says otherwise than what was measured.</summary>
/// <param name="IsHere">Whether they are there.</param>
/// <param name="ShownSince">If not: when they did something last after they were seen or said to be gone. Such an act shows a moment.</param>
internal readonly record struct NewestEvidence(bool IsHere, Instant? ShownSince)
{
    /// <summary>Reads everything that was noted.</summary>
    /// <param name="connections">Connections, each from joining to leaving.</param>
    /// <param name="acts">When they did something; a page that opens is something, too.</param>
    /// <param name="marks">The teacher's marks and roll calls.</param>
    public static NewestEvidence Of(IReadOnlyList<Stretch> connections, IEnumerable<Instant> acts, IEnumerable<MarkMade> marks)
    {
        // At one moment an ending comes before a beginning, and the teacher's word last.
        var counted = connections.Where(c => c.To > c.From).ToList();
        List<(Instant At, int Order, MarkMade? Mark)> steps =
        [
            .. counted.Where(c => !c.Open).Select(c => (c.To, 0, (MarkMade?)null)), .. counted.Select(c => (c.From, 1, (MarkMade?)null)),
            .. acts.Select(a => (a, 2, (MarkMade?)null)), .. marks.Select(m => (m.At, 3, (MarkMade?)m)),
        ];
        var (open, isHere, shown) = (0, false, (Instant?)null);
        // Where nothing was measured, who did something is there, unless the teacher saw them leave before.
        var actsShow = connections.Count == 0;
        foreach (var (at, order, mark) in steps.OrderBy(s => s.At).ThenBy(s => s.Order))
        {
            switch (order)
            {
                case 0:
                    open--;
                    // A leaving ends only its own connection. With the last of them the teacher's "here" ends, too.
                    isHere &= open > 0;
                    break;
                case 1:
                    open++;
                    isHere = true;
                    break;
                case 2 when open > 0 || actsShow:
                    isHere = true;
                    break;
                case 2:
                    shown = at;
                    break;
                default:
                    (isHere, shown) = (mark!.Mark != Mark.Left, null);
                    actsShow = connections.Count == 0 && (mark.Mark != Mark.Left || mark.ByRollCall);
                    break;
            }

            shown = isHere || order == 0 ? null : shown;
        }

        return new NewestEvidence(isHere, shown);
    }
}
