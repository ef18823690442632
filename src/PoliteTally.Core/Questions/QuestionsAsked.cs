using NodaTime;
using PoliteTally.Core.Ledger;

namespace PoliteTally.Core.Questions;

/// <summary>The questions that were opened in a lesson, as its entries tell them.</summary>
public sealed class QuestionsAsked : LessonPart
{
    internal const string NotAsked = "This question was not asked in this lesson.";

    private readonly List<Asking> _askings;
    private readonly HashSet<Guid> _revealed;

    internal QuestionsAsked() => (_askings, _revealed) = ([], []);

    private QuestionsAsked(QuestionsAsked from) =>
        (_askings, _revealed, LastResults, AllClosed) = ([.. from._askings], [.. from._revealed], from.LastResults, from.AllClosed);

    /// <summary>Questions that were opened, in order.</summary>
    public IReadOnlyList<Asking> All => _askings;

    /// <summary>Questions of which students see on their page what was right, by the entries that opened them.</summary>
    public IReadOnlySet<Guid> Revealed => _revealed;

    /// <summary>The results that were put up on the class board last, whether they still are up or not; null if none were.</summary>
    public ResultsPut? LastResults { get; private set; }

    /// <summary>Whether the end of the lesson has closed them all.</summary>
    internal bool AllClosed { get; private set; }

    /// <summary>The question that an entry opened; null if it opened none.</summary>
    public Asking? Of(Guid entry) => _askings.Find(a => a.Id == entry);

    /// <summary>Whether a question to the whole class was open at a moment.</summary>
    internal bool WasOneOpenAt(Instant at)
    {
        // Asked for each message of a lesson, most of which have few questions.
        foreach (var asking in _askings)
        {
            if (asking.Group is null && asking.WasOpenAt(at))
            {
                return true;
            }
        }

        return false;
    }

    /// <summary>The question that an entry opened, to be changed; null if it opened none.</summary>
    internal Asking? Change(Guid entry)
    {
        var index = _askings.FindIndex(a => a.Id == entry);
        return index < 0 ? null : Change(index);
    }

    internal void Open(QuestionOpened opened, Entry entry) => _askings.Add(new Asking(this, opened, entry));

    // Of two versions of a file the one with more answers knows more of the question.
    internal void BringIn(QuestionFromFile brought, Entry entry)
    {
        var asking = new Asking(this, brought, entry);
        switch (_askings.FindIndex(a => a.Id == asking.Id))
        {
            case < 0:
                _askings.Add(asking);
                break;
            case var at when _askings[at].Brought is { } before && before.Cast < brought.Cast:
                _askings[at] = asking;
                break;
        }
    }

    internal void CloseAll(Entry entry)
    {
        AllClosed = true;
        for (var i = 0; i < _askings.Count; i++)
        {
            Change(i).Close(entry);
        }
    }

    internal void Reveal(Guid asking) => _revealed.Add(asking);

    internal void PutUp(ResultsPut results) => LastResults = results;

    internal override LessonPart Copy() => new QuestionsAsked(this);

    private Asking Change(int index) => _askings[index].IsHeldBy(this) ? _askings[index] : _askings[index] = _askings[index].CopyFor(this);
}
