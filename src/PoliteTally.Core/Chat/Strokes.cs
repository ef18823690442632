using PoliteTally.Core.Ledger;
using PoliteTally.Core.Merging;

namespace PoliteTally.Core.Chat;

/// <summary>
/// Which message of the meeting each message is that the teacher noted by its kind alone. The two are one act if they are of one student and lie within
/// <see cref="SameActs.Within"/>. The first message takes the first stroke, so that nothing that comes later changes what was paired.
/// </summary>
internal sealed class Strokes
{
    private readonly SharedIndex<Guid, (ChatKind Kind, Guid Entry)> _strokeOf;

    // Strokes that stand for a message.
    private readonly SharedIndex<Guid, bool> _met;

    // What was learned and not paired yet; whose a name is is known only when all has been learned.
    private readonly List<Entry> _learned = [];

    public Strokes() => (_strokeOf, _met) = (new(), new());

    private Strokes(Strokes from) => (_strokeOf, _met) = (from._strokeOf.Copy(), from._met.Copy());

    public Strokes Copy() => new(this);

    /// <summary>Takes a message of the meeting or a stroke, in order of time.</summary>
    public void Learn(Entry entry) => _learned.Add(entry);

    /// <summary>The stroke that stands for a message; null if there is none.</summary>
    public (ChatKind Kind, Guid Entry)? Of(Guid message) => _strokeOf.TryGet(message, out var stroke) ? stroke : null;

    /// <summary>Whether a stroke stands for a message.</summary>
    public bool IsMet(Guid stroke) => _met.Has(stroke);

    /// <summary>Pairs what was learned.</summary>
    public void Pair(LessonParts lesson)
    {
        if (_learned.Count == 0)
        {
            return;
        }

        foreach (var of in _learned.SelectMany(e => e.Act.About(lesson).Select(student => (Student: student, Entry: e))).GroupBy(e => e.Student, e => e.Entry))
        {
            var (messages, strokes) = (of.Where(e => e.Act is NameWrote).ToList(), of.Where(e => e.Act is ChatSaid).ToList());
            for (var (i, j) = (0, 0); i < messages.Count && j < strokes.Count;)
            {
                var gap = strokes[j].HappenedAt - messages[i].HappenedAt;
                if (gap > SameActs.Within)
                {
                    i++;
                }
                else if (gap < -SameActs.Within)
                {
                    j++;
                }
                else
                {
                    _met[strokes[j].Id] = true;
                    _strokeOf[messages[i++].Id] = (((ChatSaid)strokes[j].Act).Kind, strokes[j++].Id);
                }
            }
        }

        _learned.Clear();
    }
}
