using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Meeting;
using PoliteTally.Core.Merging;

namespace PoliteTally.Core.Hands;

/// <summary>A hand went up.</summary>
/// <param name="Student">The id of the student.</param>
/// <param name="Ready">True if they wrote that they are ready instead of raising a hand.</param>
public sealed record HandRaised(Guid Student, bool Ready = false) : StudentAct(Student)
{
    /// <inheritdoc/>
    public override bool ShowsPresence => true;

    /// <inheritdoc/>
    public override string InWords => Ready ? "said ready" : "hand up";

    internal override void Apply(LessonParts lesson, Guid student, Entry entry) => lesson.Change<HandLine>().Raise(student, entry, Ready);
}

/// <summary>A hand went down without a turn.</summary>
public sealed record HandEnded(Guid Student, HandEnd End) : StudentAct(Student)
{
    /// <inheritdoc/>
    public override string InWords => End switch
    {
        HandEnd.Withdrawn => "hand withdrawn",
        HandEnd.SetDown => "hand set down",
        _ => "hand lapsed",
    };

    internal override void Apply(LessonParts lesson, Guid student, Entry entry) => lesson.Change<HandLine>().End(student, End);
}

/// <summary>A student was given the word.</summary>
/// <param name="Student">The id of the student.</param>
/// <param name="Origin">How they came by it.</param>
/// <param name="Why">Why the draw fell on them; null if they were not drawn.</param>
/// <param name="By">Who handed on to them, whose own turn that ends as a full one; null if nobody did or that is not known.</param>
public sealed record Called(Guid Student, TurnOrigin Origin, string? Why = null, Guid? By = null) : StudentAct(Student)
{
    /// <inheritdoc/>
    public override bool IsOfSeveral => By is not null;

    /// <inheritdoc/>
    public override string InWords => Why is { } why ? $"drawn: {why}" : Origin == TurnOrigin.Invited ? "called" : $"called, {Origin.InWords()}";

    internal override IEnumerable<Guid> About(LessonParts lesson) => By is { } by ? [lesson.Whose(by), lesson.Whose(Student)] : [lesson.Whose(Student)];

    internal override string? WhyRefused(Entry entry, LessonFacts lesson) =>
        TextLimits.TooLong(Why, "reason", TextLimits.LongestName) ?? (By is { } by ? WrongHandingOn(by, entry.Source, lesson) : null);

    internal override Trace? TraceIn(LessonParts lesson) => Traced(TraceKind.Speech, lesson);

    internal override void Apply(LessonParts lesson, Guid student, Entry entry)
    {
        var line = lesson.Change<HandLine>();
        if (By is { } by)
        {
            line.Take(lesson.Whose(by), TurnOutcome.Full, TurnOrigin.Invited, entry);
            lesson.Change<Evidence>().Glimpse(lesson.Whose(by), entry);
        }

        line.Call(student, Origin, Why, entry, SpokenIn(lesson, entry));
    }

    /// <summary>How long they spoke in it, by captions; null if there were none.</summary>
    internal static Duration? SpokenIn(LessonParts lesson, Entry entry) =>
        lesson.See<FilesMerged>().SupportOf(entry.Id).Select(e => e.Act).OfType<NameSpoke>().Select(s => s.Length).ToList() is { Count: > 0 } lengths
            ? lengths.Aggregate(Duration.Zero, (sum, length) => sum + length)
            : null;

    private string? WrongHandingOn(Guid by, Source source, LessonFacts lesson) => lesson.NotOnRoster(by) ??
        (Origin != TurnOrigin.HandedOn || by == Student ? "Somebody hands on to somebody else."
        : source != Source.Page ? null
        : !lesson.StudentsHandOn ? "In this class only the teacher gives the word."
        : lesson.See<HandLine>().Current?.Student != by ? "It is not your turn any more."
        : null);
}

/// <summary>How a turn ended. Without a call before it, it is a whole turn by itself.</summary>
public sealed record TurnTaken(Guid Student, TurnOutcome Outcome, TurnOrigin Origin) : StudentAct(Student)
{
    /// <inheritdoc/>
    public override bool ShowsPresence => Outcome is TurnOutcome.Full or TurnOutcome.Partial or TurnOutcome.Pass;

    /// <inheritdoc/>
    public override string InWords => Outcome.InWords();

    internal override Trace? TraceIn(LessonParts lesson) => Traced(TraceKind.TurnEnd, lesson);

    internal override void Apply(LessonParts lesson, Guid student, Entry entry) => lesson.Change<HandLine>().Take(student, Outcome, Origin, entry, Called.SpokenIn(lesson, entry));
}

/// <summary>A name was heard speaking, as captions have it. By itself it counts for nothing: a turn that was noted gets its length from it, any other is asked about.</summary>
/// <param name="Name">The name exactly as it was shown.</param>
/// <param name="Length">For how long, more than zero.</param>
/// <param name="Said">What was said, if the rules of the class keep that; null if not.</param>
public sealed record NameSpoke(string Name, Duration Length, string? Said = null) : NameAct(Name)
{
    /// <inheritdoc/>
    public override bool ShowsPresence => true;

    /// <inheritdoc/>
    public override string InWords =>
        $"“{Name}” spoke for {Length.TotalSeconds.ToString("0", System.Globalization.CultureInfo.InvariantCulture)} s{(Said is { Length: > 0 } words ? $": “{words}”" : "")}";

    internal override string? WhyRefused(Entry entry, LessonFacts lesson) =>
        Length <= Duration.Zero || Length > Duration.FromHours(12) ? "Nobody speaks for no time, or for more than 12 h."
        : TextLimits.TooLong(Said, "speech", TextLimits.LongestText) ?? base.WhyRefused(entry, lesson);

    internal override Trace? TraceIn(LessonParts lesson) => Traced(TraceKind.Speech, lesson, lasts: Length);

    internal override void Apply(LessonParts lesson, NameShown name, Entry entry)
    {
        if (lesson.See<NamesShown>().StudentOf(name) is { } student)
        {
            lesson.Change<HandLine>().Hear(new SpeechHeard(student, entry.HappenedAt, Length, entry.Id, Said));
        }
        else
        {
            lesson.Change<HandLine>().HearOther(Name, Length);
        }
    }
}

/// <summary>A point that everyone is asked to speak to was covered in the turn of a student.</summary>
/// <param name="Student">The id of the student.</param>
/// <param name="Point">The id of the point in the plan.</param>
public sealed record PointCovered(Guid Student, Guid Point) : StudentAct(Student)
{
    /// <inheritdoc/>
    public override string InWords => "covered a point";

    internal override void Apply(LessonParts lesson, Guid student, Entry entry) => lesson.Change<HandLine>().Cover(student, Point, entry.Id);
}

/// <summary>A student cannot speak today, so the draw passes them over and speaking is not counted; or can again.</summary>
public sealed record SpeakingPaused(Guid Student, bool Paused) : StudentAct(Student)
{
    /// <inheritdoc/>
    public override string InWords => Paused ? "cannot speak today" : "can speak again";

    internal override void Apply(LessonParts lesson, Guid student, Entry entry) => lesson.Change<HandLine>().Pause(student, Paused ? entry.Id : null);
}

/// <summary>The hand of a name went up in the meeting.</summary>
/// <param name="Name">The name exactly as it was shown.</param>
/// <param name="Ready">As in <see cref="HandRaised"/>.</param>
public sealed record NameRaisedHand(string Name, bool Ready = false) : NameAct(Name)
{
    /// <inheritdoc/>
    public override bool ShowsPresence => true;

    /// <inheritdoc/>
    public override string InWords => Ready ? $"“{Name}” said ready" : $"“{Name}” raised a hand";

    // A hand of somebody who is not known yet stands in line under an id of its own, until the name is matched.
    internal override void Apply(LessonParts lesson, NameShown name, Entry entry) =>
        lesson.Change<HandLine>().Raise(lesson.See<NamesShown>().StudentOf(name) ?? name.StandsFor, entry, Ready);
}

/// <summary>The hand of a name went down in the meeting.</summary>
public sealed record NameLoweredHand(string Name, HandEnd End) : NameAct(Name)
{
    /// <inheritdoc/>
    public override string InWords => End == HandEnd.Lapsed ? $"the hand of “{Name}” lapsed" : $"“{Name}” took the hand down";

    internal override void Apply(LessonParts lesson, NameShown name, Entry entry) =>
        lesson.Change<HandLine>().End(lesson.See<NamesShown>().StudentOf(name) ?? name.StandsFor, End);
}
