namespace PoliteTally.Core.Ledger;

/// <summary>
/// What an entry says. Every kind of act stands in the folder of its trade, with what it needs to be taken, what it does to a lesson, and its words.
/// </summary>
public abstract record Act
{
    private protected Act()
    {
    }

    /// <summary>
    /// A decision is about the lesson but not a moment of it (a name matched, a status declared), so it may be noted at
    /// any time after; everything else must lie close to the lesson.
    /// </summary>
    public virtual bool IsDecision => false;

    /// <summary>Whether a settled lesson takes it as well: it leaves the register as it is.</summary>
    public virtual bool IsTakenWhenSettled => false;

    /// <summary>Whether it is about scores, so that those of a settled lesson are reckoned anew after it.</summary>
    public virtual bool IsOfScores => false;

    /// <summary>Whether it is the teacher's word on somebody's attendance, said when settling.</summary>
    public virtual bool IsOfAttendance => false;

    /// <summary>It in plain words, without saying whose.</summary>
    public abstract string InWords { get; }

    /// <summary>Of whom it may change what is known.</summary>
    public virtual Reach Reach => Reach.Everybody;

    /// <summary>Whether it is about several students at once, so that striking it out changes more than one.</summary>
    public virtual bool IsOfSeveral => false;

    /// <summary>What somebody typed in it; null if nothing.</summary>
    internal virtual string? Typed => null;

    /// <summary>The students it is about, merged records as one.</summary>
    internal virtual IEnumerable<Guid> About(LessonParts lesson) => [];

    /// <summary>What it tells of that another source may tell of, too; null if nothing.</summary>
    /// <param name="lesson">The lesson, in which is known whose every name is.</param>
    internal virtual Trace? TraceIn(LessonParts lesson) => null;

    /// <summary>Why a lesson does not take it; null if it does. What holds for all acts is asked elsewhere.</summary>
    internal virtual string? WhyRefused(Entry entry, LessonFacts lesson) => null;

    /// <summary>Why it cannot be struck out; null if it can.</summary>
    internal virtual string? WhyNotStruckOut(LessonFacts lesson) => null;

    /// <summary>
    /// Whether it says something of entries before it that a lesson has used already, so that all of it is to be folded anew.
    /// </summary>
    /// <param name="lesson">The lesson without it.</param>
    /// <param name="entry">The entry that says it.</param>
    /// <param name="among">The ids of the entries that come together with it.</param>
    internal virtual bool SpeaksOfEarlier(LessonParts lesson, Entry entry, IReadOnlySet<Guid> among) => false;

    /// <summary>Whether it counts for all of its moment, also for what was noted before it in the same millisecond: with it begins or ends a time in which others may lie.</summary>
    internal virtual bool IsOfAllItsMoment => false;

    /// <summary>Takes what it says of names, messages and questions; that counts for what came before it, too.</summary>
    internal virtual void Learn(LessonParts lesson, Entry entry)
    {
    }

    /// <summary>Takes what happened by it.</summary>
    internal abstract void Apply(LessonParts lesson, Entry entry);
}

/// <summary>An act about one student of the roster.</summary>
/// <param name="Student">The id of the student.</param>
public abstract record StudentAct(Guid Student) : Act
{
    /// <summary>
    /// True of what a student can only do while there. Such an act is taken as a sighting, so that nobody who spoke is
    /// marked absent because nobody took the roll.
    /// </summary>
    public virtual bool ShowsPresence => false;

    /// <inheritdoc/>
    public override Reach Reach => Reach.WhoItIsAbout;

    internal override IEnumerable<Guid> About(LessonParts lesson) => [lesson.Whose(Student)];

    /// <summary>What it tells of, as of this student.</summary>
    private protected Trace Traced(TraceKind kind, LessonParts lesson, string? text = null) => new(kind, lesson.Whose(Student).ToString(), Trace.Comparable(text));

    internal sealed override void Apply(LessonParts lesson, Entry entry) => Apply(lesson, lesson.Whose(Student), entry);

    /// <summary>Takes what happened by it.</summary>
    /// <param name="lesson">The lesson.</param>
    /// <param name="student">Whose it is, of merged records the one that stands.</param>
    /// <param name="entry">The entry.</param>
    internal abstract void Apply(LessonParts lesson, Guid student, Entry entry);
}

/// <summary>Of whom an act may change what is known: their row on the sheet, their score.</summary>
public enum Reach
{
    /// <summary>Of no student.</summary>
    Nobody,

    /// <summary>Of those it is about, and nobody else.</summary>
    WhoItIsAbout,

    /// <summary>Of anybody.</summary>
    Everybody,
}
