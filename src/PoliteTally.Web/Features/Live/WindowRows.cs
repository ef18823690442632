using System.Text.Json;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Lessons;
using PoliteTally.Core.Meeting;
using PoliteTally.Store;
using PoliteTally.Store.Model;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Features.Live;

/// <summary>What was sent of a lesson last: the position, and each row with how it was written.</summary>
internal sealed class WindowRows
{
    private readonly Lesson _lesson;
    private readonly Dictionary<Guid, (LiveRow Row, string Written)> _rows;

    private WindowRows(long position, Lesson lesson, Dictionary<Guid, (LiveRow Row, string Written)> rows) => (Position, _lesson, _rows) = (position, lesson, rows);

    /// <summary>The position of the ledger.</summary>
    public long Position { get; }

    public static WindowRows Of(LiveView view, OpenLesson open, WindowRows? before) => new(view.Head.Position, open.Lesson, view.Rows.ToDictionary(r => r.Id, r =>
        before is not null && before._rows.TryGetValue(r.Id, out var known) && ReferenceEquals(known.Row, r) ? known : (r, JsonSerializer.Serialize(r, JsonFormat.Options))));

    public string? WrittenOf(Guid student) => _rows.TryGetValue(student, out var row) ? row.Written : null;

    /// <summary>
    /// Rows that the entries since then leave as they were: a tap or an event is about one student, and in a class of 500 that spares the
    /// reckoning of all the others.
    /// </summary>
    public Dictionary<Guid, LiveRow> Unchanged(OpenLesson now)
    {
        // Another row of the lesson: its times, its rules or its roster may be others, too.
        if (now.Lesson != _lesson || now.Position < Position || TouchedBy(now.EntriesAfter(Position), now.State) is not { } touched)
        {
            return [];
        }

        return _rows.Where(r => !touched.Contains(r.Key)).ToDictionary(r => r.Key, r => r.Value.Row);
    }

    /// <summary>The students whose rows entries may change; null if that is all of them. A test holds this to what rows say, for every kind of act.</summary>
    internal static HashSet<Guid>? TouchedBy(IEnumerable<Entry> entries, LessonState state)
    {
        var touched = new HashSet<Guid>();
        foreach (var entry in entries)
        {
            switch (entry.Act.Reach)
            {
                case Reach.Everybody:
                    return null;
                // Two of one name are told apart from now on: what was seen under the name may be somebody else's.
                case Reach.WhoItIsAbout when entry.Act is NameAct { Beside.Length: > 0 } name && state.Names.AreSeveral(name.Name):
                    return null;
                case Reach.WhoItIsAbout:
                    touched.UnionWith(state.StudentsOf(entry.Act));
                    break;
            }
        }

        return touched;
    }
}
