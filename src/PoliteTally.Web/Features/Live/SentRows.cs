using System.Text.Json;
using PoliteTally.Core.Ledger;
using PoliteTally.Store;
using PoliteTally.Store.Model;

namespace PoliteTally.Web.Features.Live;

/// <summary>What was sent of a lesson last: the position, and each row with how it was written.</summary>
internal sealed class SentRows
{
    private readonly Lesson _lesson;
    private readonly Dictionary<Guid, (LiveRow Row, string Written)> _rows;

    private SentRows(long position, Lesson lesson, Dictionary<Guid, (LiveRow Row, string Written)> rows) => (Position, _lesson, _rows) = (position, lesson, rows);

    /// <summary>The position of the ledger.</summary>
    public long Position { get; }

    public static SentRows Of(LiveView view, OpenLesson open, SentRows? before) => new(view.Head.Position, open.Lesson, view.Rows.ToDictionary(r => r.Id, r =>
        before is not null && before._rows.TryGetValue(r.Id, out var known) && ReferenceEquals(known.Row, r) ? known : (r, JsonSerializer.Serialize(r, Wire.Options))));

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
            switch (entry.Act)
            {
                case Called { By: { } by } handed:
                    touched.UnionWith([state.Whose(by), state.Whose(handed.Student)]);
                    break;
                case StudentAct act:
                    touched.Add(state.Whose(act.Student));
                    break;
                case NameAct act and not (NameMatched or Renamed or Seen):
                    // A name that was struck out meanwhile is not there any more; the strike speaks for itself.
                    if (state.Names.TryGetValue(act.Name, out var name) && state.StudentOf(name) is { } student)
                    {
                        touched.Add(student);
                    }

                    break;
                case ChatAct act when state.MessageOf(act.Message)?.Student is { } writer:
                    touched.Add(writer);
                    break;
                case AnswersMarked marked:
                    touched.UnionWith(marked.Students.Select(state.Whose));
                    break;
                case QuestionOpened or RightRevealed or WordsMerged or ResultsPut or PageKnocked:
                    break;
                case StageMoved or StageExtended or TimerStarted or TimerStopped or BoardPut or BoardTaken or ReminderTicked or GroupsMade or GroupRenamed or GroupsDissolved:
                    break;
                default:
                    return null;
            }
        }

        return touched;
    }
}
