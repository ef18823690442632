using NodaTime;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Meeting;
using PoliteTally.Core.Names;
using PoliteTally.Formats;

namespace PoliteTally.Web.Features.Settling;

/// <summary>Turns the rows of an attendance list into acts.</summary>
internal static class AttendanceEntries
{
    /// <summary>What its usable rows tell, each with its moment.</summary>
    /// <param name="list">The list.</param>
    /// <param name="people">Whom the usable rows are about, row by row.</param>
    /// <param name="lessonEnd">Where a length without a time stands.</param>
    public static IReadOnlyList<(Instant At, Act Act)> Of(AttendancePreview list, IReadOnlyList<ShownName> people, Instant lessonEnd)
    {
        var acts = new List<(Instant, Act)>();
        var stays = Usable(list).CountBy(StayOf).ToDictionary();
        foreach (var (line, person) in Usable(list).Zip(people))
        {
            // A row that holds a whole stretch is a connection by itself, so that its two ends stay together; of two that begin at once each is one.
            var device = list.Shape == AttendanceShape.Stretches ? $"{line.Device} {line.Joined} {(stays[StayOf(line)] > 1 ? line.Left : null)}".Trim() : line.Device;
            if (line.Joined is { } joined)
            {
                acts.Add((joined, new Joined(line.Name, device) { Beside = person.Beside }));
            }

            if (line.Left is { } left)
            {
                acts.Add((left, new Left(line.Name, device) { Beside = person.Beside }));
            }

            if (line.Length is { } length)
            {
                acts.Add((lessonEnd, new Attended(line.Name, length) { Beside = person.Beside }));
            }
        }

        return acts;

        static (string, string, Instant?) StayOf(AttendanceRow row) => (row.Name, row.Device, row.Joined);
    }

    /// <summary>
    /// Who the usable rows of a list are about, row by row. What stands beside a name in one row holds for those of the same name that have nothing there; where no
    /// row has anything, two of one name who are there at once and could be two students are told apart by their connections.
    /// </summary>
    /// <param name="list">The list.</param>
    /// <param name="matchOf">Whom a name is taken for.</param>
    public static IReadOnlyList<ShownName> PeopleOf(AttendancePreview list, Func<ShownName, NameMatch> matchOf)
    {
        var rows = Usable(list).ToList();
        var known = rows.Select(r => new ShownName(r.Name, r.Number, r.Email, r.Person)).ToList();
        var only = known.Where(k => k.Beside.Length > 0).DistinctBy(k => (k.Name, k.Beside)).GroupBy(k => k.Name, StringComparer.Ordinal)
            .ToDictionary(g => g.Key, g => g.ToList() is [var one] ? one : null, StringComparer.Ordinal);
        var byConnection = rows.Zip(known).Where(r => !only.ContainsKey(r.Second.Name)).Select(r => r.First).GroupBy(r => r.Name, StringComparer.Ordinal)
            .Where(g => AreTwoAtOnce([.. g]) && matchOf(new ShownName(g.Key)) is { Certainty: not Certainty.Sure, Proposals.Count: > 1 })
            .Select(g => g.Key).ToHashSet(StringComparer.Ordinal);
        return
        [
            .. rows.Zip(known, (row, person) =>
                person.Beside.Length > 0 ? person
                : only.GetValueOrDefault(person.Name) is { } one ? one
                : byConnection.Contains(person.Name) && row.Device.Length > 0 ? person with { Connection = row.Device }
                : person),
        ];
    }

    /// <summary>Matches that are taken without asking.</summary>
    /// <param name="matches">Whose names could be.</param>
    /// <param name="staff">Folded names of those who teach here.</param>
    /// <param name="onlyWhole">Whether only names that are known letter by letter are taken, as of a picture, in which a part of one is easily misread.</param>
    public static IEnumerable<NameMatched> Sure(IReadOnlyList<NameMatch> matches, IReadOnlySet<string> staff, bool onlyWhole) =>
        from match in matches
        let isStaff = match.Certainty == Certainty.Unknown && staff.Contains(NameFolding.AsShown(match.Shown.Name))
        where isStaff || (match.Certainty == Certainty.Sure && (!onlyWhole || match.By is MatchedBy.SameName or MatchedBy.ConfirmedBefore))
        select new NameMatched(match.Shown.Name, isStaff ? null : match.Student) { Beside = match.Shown.Beside };

    private static IEnumerable<AttendanceRow> Usable(AttendancePreview list) => list.Rows.Where(r => r.Problems.Count == 0);

    // Whether two connections of one name overlap. One person may have two devices, so this alone says nothing.
    private static bool AreTwoAtOnce(IReadOnlyList<AttendanceRow> rows)
    {
        var stays = rows.GroupBy(r => r.Device).Where(g => g.Key.Length > 0)
            .Select(g => (From: g.Min(r => r.Joined ?? Instant.MaxValue), To: g.Max(r => r.Left ?? Instant.MinValue))).OrderBy(s => s.From).ToList();
        return stays.Zip(stays.Skip(1)).Any(pair => pair.First.To > pair.Second.From);
    }
}
