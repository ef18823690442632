using System.Collections.Immutable;
using PoliteTally.Core.Questions;

namespace PoliteTally.Store.Writing;

/// <summary>The ballot boxes of all lessons. Only the writer's thread is in here.</summary>
internal sealed class BallotBoxes
{
    private readonly Dictionary<Guid, ImmutableDictionary<Guid, OpenBallots>> _of = [];

    public BallotBox Of(Guid lesson) => new(_of.GetValueOrDefault(lesson) ?? ImmutableDictionary<Guid, OpenBallots>.Empty);

    /// <summary>What was done to a box counts.</summary>
    public void Put(Guid lesson, BallotBox box)
    {
        if (box.Open.Count == 0)
        {
            _of.Remove(lesson);
        }
        else
        {
            _of[lesson] = box.Open;
        }
    }
}

/// <summary>What was answered to one question, by ids that nobody but the browsers knows, and apart from it who answered.</summary>
internal sealed record OpenBallots(ImmutableDictionary<Guid, Answer> Answers, ImmutableHashSet<Guid> Students)
{
    public static readonly OpenBallots None = new(ImmutableDictionary<Guid, Answer>.Empty, []);
}

/// <summary>The anonymous questions of a lesson that are open, each with its answers, while a transaction works on them.</summary>
internal sealed class BallotBox(ImmutableDictionary<Guid, OpenBallots> open)
{
    private readonly HashSet<Guid> _changed = [];

    public ImmutableDictionary<Guid, OpenBallots> Open { get; private set; } = open;

    /// <summary>Questions of which something was put in or taken out.</summary>
    public IReadOnlyCollection<Guid> Changed => _changed;

    public bool IsChanged => _changed.Count > 0;

    /// <summary>Puts an answer in.</summary>
    /// <returns>Why it is not taken; null if it is.</returns>
    public string? Cast(Ballot ballot)
    {
        var before = Open.GetValueOrDefault(ballot.Asking) ?? OpenBallots.None;
        var (hasAnswered, isKnown) = (before.Students.Contains(ballot.Student), before.Answers.ContainsKey(ballot.Id));
        if (hasAnswered != isKnown)
        {
            return hasAnswered
                ? "You have answered this already, on another device or in another window. Nobody can tell which answer is yours, so it stays."
                : "This answer was not taken. Answer once more.";
        }

        Open = Open.SetItem(ballot.Asking, new OpenBallots(before.Answers.SetItem(ballot.Id, ballot.Answer), before.Students.Add(ballot.Student)));
        _changed.Add(ballot.Asking);
        return null;
    }

    /// <summary>Takes the answers to a question out.</summary>
    public (IReadOnlyCollection<Answer> Answers, IReadOnlyCollection<Guid> Students) Take(Guid asking)
    {
        var ballots = Open.GetValueOrDefault(asking) ?? OpenBallots.None;
        Remove(asking);
        return ([.. ballots.Answers.Values], ballots.Students);
    }

    /// <summary>Forgets the answers to all questions but these.</summary>
    public void Keep(IReadOnlySet<Guid> askings)
    {
        foreach (var gone in Open.Keys.Where(a => !askings.Contains(a)).ToList())
        {
            Remove(gone);
        }
    }

    private void Remove(Guid asking)
    {
        Open = Open.Remove(asking);
        _changed.Add(asking);
    }
}
