namespace PoliteTally.Core.Ledger;

/// <summary>Which entries are struck out: those that an entry says so of which is not itself struck out.</summary>
internal static class Strikes
{
    /// <summary>
    /// What is struck out, however long the chains of strikes that strike out strikes are. A strike can only name an entry that was stored before
    /// it, so there are no rings; of a ring in a damaged file no strike counts.
    /// </summary>
    public static HashSet<Guid> In(ReadOnlySpan<Entry> entries)
    {
        var strikes = new Dictionary<Guid, Struck>();
        foreach (var entry in entries)
        {
            if (entry.Act is Struck struck)
            {
                strikes[entry.Id] = struck;
            }
        }

        if (strikes.Count == 0)
        {
            return [];
        }

        // How many strikes on a strike have not been decided yet; a strike is decided when all on it are.
        var open = strikes.Keys.ToDictionary(id => id, _ => 0);
        foreach (var target in strikes.Values.SelectMany(s => s.Entries).Where(open.ContainsKey))
        {
            open[target]++;
        }

        var struckOut = new HashSet<Guid>();
        var decided = new Queue<Guid>(open.Where(o => o.Value == 0).Select(o => o.Key));
        while (decided.TryDequeue(out var strike))
        {
            var counts = !struckOut.Contains(strike);
            foreach (var target in strikes[strike].Entries)
            {
                if (counts)
                {
                    struckOut.Add(target);
                }

                if (open.TryGetValue(target, out var left))
                {
                    open[target] = left - 1;
                    if (left == 1)
                    {
                        decided.Enqueue(target);
                    }
                }
            }
        }

        return struckOut;
    }
}
