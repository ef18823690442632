namespace PoliteTally.Core.Ledger;

/// <summary>The order of the entries of a lesson: by when things happened, of one moment by when they were noted.</summary>
internal static class Ordered
{
    /// <summary>Puts entries in order, in place.</summary>
    public static Entry[] ByTime(Entry[] entries)
    {
        // They mostly come in the order in which they happened.
        for (var i = 1; i < entries.Length; i++)
        {
            if (Compare(entries[i - 1], entries[i]) > 0)
            {
                Array.Sort(entries, Compare);
                break;
            }
        }

        return entries;
    }

    /// <summary>Entries in order without those that stand twice. May use the array that it is given.</summary>
    public static Entry[] Once(Entry[] ordered)
    {
        var once = 0;
        for (var i = 0; i < ordered.Length; i++)
        {
            // The same entry twice stands side by side.
            if (once == 0 || ordered[once - 1].Id != ordered[i].Id)
            {
                ordered[once++] = ordered[i];
            }
        }

        return once == ordered.Length ? ordered : ordered[..once];
    }

    /// <summary>Two arrays in order as one.</summary>
    public static Entry[] Merged(Entry[] first, Entry[] second)
    {
        var merged = new Entry[first.Length + second.Length];
        for (int at = 0, a = 0, b = 0; at < merged.Length; at++)
        {
            merged[at] = b == second.Length || (a < first.Length && Compare(first[a], second[b]) <= 0) ? first[a++] : second[b++];
        }

        return merged;
    }

    /// <summary>Below nought if the first comes before the second.</summary>
    public static int Compare(Entry a, Entry b)
    {
        var byTime = a.HappenedAt.CompareTo(b.HappenedAt);
        if (byTime != 0)
        {
            return byTime;
        }

        var byNoted = a.NotedAt.CompareTo(b.NotedAt);
        return byNoted != 0 ? byNoted : a.Id.CompareTo(b.Id);
    }
}
