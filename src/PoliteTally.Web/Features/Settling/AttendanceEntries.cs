using NodaTime;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Meeting;
using PoliteTally.Core.Names;
using PoliteTally.Formats;
using PoliteTally.Store;
using PoliteTally.Store.Writing;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Features.Settling;

/// <summary>
/// Turns the lines of an attendance list into entries. Their ids follow from what they say, so that bringing in the same
/// line twice, in the same file or in another, stores it once.
/// </summary>
internal static class AttendanceEntries
{
    public static IReadOnlyList<NewEntry> Of(Guid lesson, AttendancePreview list, IReadOnlyList<ShownName> people, Instant lessonEnd)
    {
        var entries = new List<NewEntry>();
        var lengths = new Dictionary<Attended, int>();
        foreach (var (line, person) in Usable(list).Zip(people))
        {
            var beside = person.Beside;
            // A row that holds a whole stretch is a connection by itself, so that its two ends stay together.
            var device = list.Shape == AttendanceShape.Stretches ? $"{line.Device} {line.Joined} {line.Left}" : line.Device;
            if (line.Joined is { } joined)
            {
                Add(joined, new Joined(line.Name, device) { Beside = beside });
            }

            if (line.Left is { } left)
            {
                Add(left, new Left(line.Name, device) { Beside = beside });
            }

            if (line.Length is { } length)
            {
                // Two rows of 20 min are 40 min: only where a time stands with it are equal rows one.
                var attended = new Attended(line.Name, length) { Beside = beside };
                var before = lengths[attended] = lengths.GetValueOrDefault(attended, -1) + 1;
                Add(lessonEnd, attended, before);
            }
        }

        return [.. entries.DistinctBy(e => e.Id)];

        void Add(Instant at, Act act, int before = 0) => entries.Add(new NewEntry(IdOf(lesson, at, act, before), at, act));
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
    public static IEnumerable<NewEntry> Sure(Guid lesson, IReadOnlyList<NameMatch> matches, Instant now) =>
        from match in matches
        where match.Certainty == Certainty.Sure
        let act = new NameMatched(match.Shown.Name, match.Student) { Beside = match.Shown.Beside }
        select new NewEntry(IdOf(lesson, Instant.MinValue, act), now, act);

    private static IEnumerable<AttendanceRow> Usable(AttendancePreview list) => list.Rows.Where(r => r.Problems.Count == 0);

    // Whether two connections of one name overlap. One person may have two devices, so this alone says nothing.
    private static bool AreTwoAtOnce(IReadOnlyList<AttendanceRow> rows)
    {
        var stays = rows.GroupBy(r => r.Device).Where(g => g.Key.Length > 0)
            .Select(g => (From: g.Min(r => r.Joined ?? Instant.MaxValue), To: g.Max(r => r.Left ?? Instant.MinValue))).OrderBy(s => s.From).ToList();
        return stays.Zip(stays.Skip(1)).Any(pair => pair.First.To > pair.Second.From);
    }

    /// <param name="before">How many equal ones the file has before it.</param>
    private static Guid IdOf(Guid lesson, Instant at, Act act, int before = 0) => DerivedId.Of($"{lesson}\n{at}\n{ActJson.Write(act)}{(before > 0 ? $"\n{before}" : "")}");
}
