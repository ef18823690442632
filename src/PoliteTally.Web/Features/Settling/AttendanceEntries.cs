using NodaTime;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Lessons;
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
    public static IReadOnlyList<NewEntry> Of(Guid lesson, AttendancePreview list, Instant lessonEnd)
    {
        var entries = new List<NewEntry>();
        var lengths = new Dictionary<Attended, int>();
        foreach (var line in list.Rows.Where(l => l.Problems.Count == 0))
        {
            // A row that holds a whole stretch is a connection by itself, so that its two ends stay together.
            var device = list.Shape == AttendanceShape.Stretches ? $"{line.Device} {line.Joined} {line.Left}" : line.Device;
            if (line.Joined is { } joined)
            {
                Add(joined, new Joined(line.Name, device));
            }

            if (line.Left is { } left)
            {
                Add(left, new Left(line.Name, device));
            }

            if (line.Length is { } length)
            {
                // Two rows of 20 min are 40 min: only where a time stands with it are equal rows one.
                var attended = new Attended(line.Name, length);
                var before = lengths[attended] = lengths.GetValueOrDefault(attended, -1) + 1;
                Add(lessonEnd, attended, before);
            }
        }

        return [.. entries.DistinctBy(e => e.Id)];

        void Add(Instant at, Act act, int before = 0) => entries.Add(new NewEntry(IdOf(lesson, at, act, before), at, act));
    }

    /// <summary>Matches that are taken without asking, for names that nobody has said anything about yet.</summary>
    public static IEnumerable<NewEntry> Sure(
        Guid lesson, LessonState state, IReadOnlyList<NameMatch> matches, Instant now) =>
        from match in matches
        where match.Certainty == Certainty.Sure && state.Names.All.GetValueOrDefault(match.Shown.Name)?.Match is null
        let act = new NameMatched(match.Shown.Name, match.Student)
        select new NewEntry(IdOf(lesson, Instant.MinValue, act), now, act);

    /// <param name="before">How many equal ones the file has before it.</param>
    private static Guid IdOf(Guid lesson, Instant at, Act act, int before = 0) => DerivedId.Of($"{lesson}\n{at}\n{ActJson.Write(act)}{(before > 0 ? $"\n{before}" : "")}");
}
