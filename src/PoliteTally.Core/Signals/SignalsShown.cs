using NodaTime;
using PoliteTally.Core.Ledger;

namespace PoliteTally.Core.Signals;

/// <summary>Signals as the entries of a lesson tell them.</summary>
public sealed class SignalsShown : LessonPart
{
    private readonly List<HeldRound> _rounds;
    private readonly ListsBy<Guid, (bool Answered, Guid Entry)> _roundsOf;
    private readonly ListsBy<Guid, Guid> _ofOwnAccord;
    private readonly Dictionary<Guid, Signalled> _last;
    private readonly Dictionary<Guid, string> _inRound;

    internal SignalsShown() => (_rounds, _roundsOf, _ofOwnAccord, _last, _inRound) = ([], new(), new(), [], []);

    private SignalsShown(SignalsShown from)
    {
        (_rounds, _roundsOf, _ofOwnAccord) = ([.. from._rounds], from._roundsOf.Copy(), from._ofOwnAccord.Copy());
        (_last, _inRound, IsRoundOn) = (new(from._last), new(from._inRound), from.IsRoundOn);
    }

    /// <summary>Signal rounds, in order.</summary>
    public IReadOnlyList<HeldRound> Rounds => _rounds;

    /// <summary>Signals from student pages for the statement that is up, by student.</summary>
    public IReadOnlyDictionary<Guid, string> InRound => _inRound;

    /// <summary>Whether a statement is up.</summary>
    public bool IsRoundOn { get; private set; }

    /// <summary>Signal rounds held while a student was there.</summary>
    public IReadOnlyList<(bool Answered, Guid Entry)> RoundsOf(Guid student) => _roundsOf[student];

    /// <summary>Signals that a student gave of their own accord, outside of signal rounds, in order.</summary>
    public IReadOnlyList<Guid> OfOwnAccord(Guid student) => _ofOwnAccord[student];

    /// <summary>What a student signalled last, in a round, of their own accord or by a reaction in the meeting; null if they did not.</summary>
    public Signalled? LastOf(Guid student) => _last.GetValueOrDefault(student);

    internal void Hold(HeldRound round, IEnumerable<Guid> answered, IEnumerable<Guid> silent)
    {
        _rounds.Add(round);
        foreach (var student in answered)
        {
            _roundsOf.Add(student, (true, round.Entry));
        }

        foreach (var student in silent)
        {
            _roundsOf.Add(student, (false, round.Entry));
        }
    }

    internal void Give(Guid student, Signalled signal)
    {
        Glimpse(student, signal);
        if (IsRoundOn)
        {
            _inRound[student] = signal.What;
        }
        else
        {
            _ofOwnAccord.Add(student, signal.Entry);
        }
    }

    /// <summary>They showed something that does not count.</summary>
    internal void Glimpse(Guid student, Signalled signal) => _last[student] = signal;

    /// <summary>A statement was put up; signals for one before it are none for this.</summary>
    internal void Begin()
    {
        IsRoundOn = true;
        _inRound.Clear();
    }

    /// <summary>The statement was taken down.</summary>
    internal void End() => IsRoundOn = false;

    internal override LessonPart Copy() => new SignalsShown(this);
}

/// <summary>A signal round that was held.</summary>
/// <param name="Statement">The statement.</param>
/// <param name="Answered">How many answered.</param>
/// <param name="Silent">How many were there and did not.</param>
/// <param name="LedBy">The student who led it, if one did.</param>
/// <param name="At">When.</param>
/// <param name="Entry">The entry that says so.</param>
public sealed record HeldRound(string Statement, int Answered, int Silent, Guid? LedBy, Instant At, Guid Entry);

/// <summary>What somebody signalled.</summary>
/// <param name="What">What it means, or the reaction as the meeting calls it.</param>
/// <param name="At">When.</param>
/// <param name="Entry">The entry.</param>
public sealed record Signalled(string What, Instant At, Guid Entry);
