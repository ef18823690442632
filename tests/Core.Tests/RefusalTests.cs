using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Board;
using PoliteTally.Core.Chat;
using PoliteTally.Core.Course;
using PoliteTally.Core.Groups;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Lessons;
using PoliteTally.Core.Meeting;
using PoliteTally.Core.Notes;
using PoliteTally.Core.Page;
using PoliteTally.Core.Questions;
using PoliteTally.Core.Signals;

namespace PoliteTally.Core.Tests;

/// <summary>Every act that a running lesson does not take, and what is said of it.</summary>
public sealed class RefusalTests
{
    private static readonly Guid Backs = Given.Id(601), Veers = Given.Id(602), Gulls = Given.Id(700), Visitor = Given.Id(800), Stranger = Given.Id(999);
    private static readonly string Long = new('x', 2001);

    private static Question Asked(int id, QuestionKind kind, bool anonymous = false, QuestionPurpose purpose = QuestionPurpose.Quiz) => new()
    {
        Id = Given.Id(id),
        Kind = kind,
        Purpose = anonymous ? QuestionPurpose.Poll : purpose,
        Anonymous = anonymous,
        Text = "From west to south-west, the wind…",
        Options = kind == QuestionKind.SingleChoice ? [new(Backs, "backs", !anonymous), new(Veers, "veers")] : [],
        AcceptedAnswers = kind == QuestionKind.ShortText ? ["it backs"] : [],
    };

    private static Entry Opened(Question question, Guid? group = null) => Given.Noted(10, new QuestionOpened(question, group, null, [], Duration.Zero));

    // One lesson with something of everything in it.
    private static readonly Entry Open = Opened(Asked(501, QuestionKind.SingleChoice)), Closed = Opened(Asked(502, QuestionKind.SingleChoice)),
        Hidden = Opened(Asked(503, QuestionKind.SingleChoice, anonymous: true)), Short = Opened(Asked(504, QuestionKind.ShortText)),
        Words = Opened(Asked(505, QuestionKind.WordList, purpose: QuestionPurpose.Poll)), ForGulls = Opened(Asked(506, QuestionKind.SingleChoice), Gulls),
        Closing = Given.Noted(12, new QuestionClosed(Closed.Id)), Said = Given.Noted(9, new ChatSaid(Given.Juno, ChatKind.Idea, "it turns")),
        Groups = Given.Noted(5, new GroupsMade([new StudentGroup(Gulls, "Gulls", [Given.Juno])])), Knocked = Given.Noted(6, new PageKnocked(Visitor, "Wojtek G."));

    private static readonly Dictionary<Guid, Entry> Ledger = new[] { Groups, Knocked, Said, Open, Closed, Hidden, Short, Words, ForGulls, Closing }.ToDictionary(e => e.Id);

    private static readonly LessonFacts Lesson = new(
        Given.Lesson with { ActualEnd = null }, new HashSet<Guid> { Given.Juno, Given.Eino }, Settled: false, id => Ledger.GetValueOrDefault(id)?.Act,
        () => LessonState.Fold(Ledger.Values).Parts);

    private static string? Why(Act act, Source source = Source.Tapped, LessonFacts? lesson = null) =>
        EntryRules.WhyRefused(Given.Noted(20, act, source), lesson ?? Lesson, Given.At(21));

    public static TheoryData<Act, string> Wrong => new()
    {
        // Who is not of this class.
        { new Marked(Stranger, Mark.Here), "not on the roster" },
        { new NameMatched("Juno", Stranger), "not on the roster" },
        { new PageAdmitted(Visitor, Stranger), "not on the roster" },
        { new RollCallTaken([Given.Juno, Stranger]), "not on the roster" },
        { new SignalRoundHeld("Fog is a cloud.", [Given.Juno], [Stranger], null), "not on the roster" },
        { new SignalRoundHeld("Fog is a cloud.", [Given.Juno], [], Stranger), "not on the roster" },
        { new GroupsMade([new StudentGroup(Gulls, "Gulls", [Stranger])]), "not on the roster" },
        { new AnswersMarked(Short.Id, [Stranger], 1), "not on the roster" },
        { new ResultsPut(Open.Id, false, false, [Stranger]), "not on the roster" },

        // What shows nothing, or is too long.
        { new NodGiven(Given.Juno, "\u200B"), "needs a reason" },
        { new AsideNoted(Given.Juno, " "), "needs words" },
        { new GroupRenamed(Gulls, "\u2060"), "needs a name" },
        { new GroupsMade([new StudentGroup(Gulls, " ", [])]), "needs a name" },
        { new PageKnocked(Visitor, "\u200D"), "Write your name" },
        { new StudentWrote(Given.Juno, ChatKind.Idea, "\u200B"), "Write something" },
        { new NameWrote("Juno", " ", false), "empty" },
        { new Renamed("Juno", " ", ""), "empty" },
        { new Seen(""), "empty" },
        { new ChatSaid(Given.Juno, ChatKind.Idea, Long), "too long" },
        { new AsideNoted(Given.Juno, Long), "too long" },
        { new NodGiven(Given.Juno, Long), "too long" },
        { new ExcuseRecorded(Given.Juno, Long), "too long" },
        { new ReminderTicked(Long), "too long" },
        { new ReminderTicked("Read the notice", Long), "too long" },
        { new NodsShown([]), "from 1 to 2,000" },
        { new NodsShown(new Guid[NodsShown.Most + 1]), "from 1 to 2,000" },
        { new StudentWrote(Given.Juno, ChatKind.Idea, Long), "too long" },
        { new PageKnocked(Visitor, Long), "too long" },
        { new WordsMerged(Words.Id, Long, "fog"), "too long" },
        { new ContactTried(Given.Juno, ContactChannel.Phone, ContactOutcome.Reached, Long), "too long" },
        { new SignalRoundHeld(Long, [], [], null), "too long" },
        { new TimerStarted(Duration.FromSeconds(60), Long), "too long" },
        { new GroupRenamed(Gulls, Long), "too long" },
        { new GroupsMade([new StudentGroup(Gulls, Long, [])]), "too long" },
        { new BoardPut(BoardItem.Statement, Long), "too long" },
        { new Called(Given.Juno, TurnOrigin.Drawn, Long), "too long" },
        { new NameWrote("Juno", Long, false), "too long" },
        { new NameReacted("Juno", Long), "too long" },
        { new Renamed("Juno", Long, ""), "too long" },
        { new Renamed("Juno", "Juno Q", Long), "too long" },
        { new Joined("Juno", Long), "too long" },

        // What would make other lines say something else.
        { new AsideNoted(Given.Juno, "so \u202Eyas"), "cannot be shown" },
        { new Joined("Juno\u0007", ""), "cannot be shown" },
        { new GroupRenamed(Gulls, "Gu\u2066lls"), "cannot be shown" },

        // Numbers out of their range.
        { new StageExtended(Given.Id(1), Duration.FromMinutes(121)), "120 min" },
        { new StageExtended(Given.Id(1), Duration.FromMinutes(-121)), "120 min" },
        { new TimerStarted(Duration.FromSeconds(4), ""), "5 s to 3 h" },
        { new TimerStarted(Duration.FromSeconds(10_801), ""), "5 s to 3 h" },
        { new TimerStarted(Duration.FromSeconds(60), "", Stranger), "no such group" },
        { new AnswersMarked(Short.Id, [Given.Juno], 1.01m), "from 0 to 1" },
        { new AnswersMarked(Short.Id, [Given.Juno], -0.5m), "from 0 to 1" },

        // Groups.
        { new GroupsMade([]), "1 to" },
        { new GroupsMade([new StudentGroup(Gulls, "Gulls", [Given.Juno]), new StudentGroup(Gulls, "Terns", [])]), "same id" },
        { new GroupsMade([new StudentGroup(Gulls, "Gulls", [Given.Juno]), new StudentGroup(Given.Id(701), "Terns", [Given.Juno])]), "one group at a time" },

        // Messages.
        { new ChatHidden(Given.Id(9)), "not in this lesson" },
        { new ChatHidden(Open.Id), "not in this lesson" },
        { new MessageShown(Said.Id), "Only messages from student pages" },
        { new StudentWrote(Given.Juno, ChatKind.Social, "hello"), "a question, an answer or an idea" },
        { new SignalGiven(Given.Juno, "yes"), "No signal round" },
        { new PageAdmitted(Given.Id(9), Given.Juno), "Nobody of this kind" },

        // Handing on.
        { new Called(Given.Juno, TurnOrigin.HandedOn, By: Stranger), "not on the roster" },
        { new Called(Given.Juno, TurnOrigin.HandedOn, By: Given.Juno), "to somebody else" },
        { new Called(Given.Juno, TurnOrigin.Hand, By: Given.Eino), "to somebody else" },

        // Questions.
        { new QuestionOpened(Asked(501, QuestionKind.SingleChoice), null, null, [], Duration.Zero), "asked already" },
        { new QuestionOpened(Asked(510, QuestionKind.SingleChoice), Given.Id(701), null, [], Duration.Zero), "no such group" },
        { new QuestionOpened(Asked(510, QuestionKind.SingleChoice), null, Given.Id(9), [], Duration.Zero), "not asked" },
        { new QuestionOpened(Asked(510, QuestionKind.SingleChoice), null, null, [Stranger], Duration.FromSeconds(30)), "extra time" },
        { new QuestionOpened(Asked(510, QuestionKind.SingleChoice), null, null, [Given.Juno], Duration.FromSeconds(3601)), "extra time" },
        { new QuestionOpened(Asked(510, QuestionKind.SingleChoice) with { Text = "Where did it blow: {island}?" }, null, null, [], Duration.Zero), "{island}" },
        { new QuestionOpened(Asked(510, QuestionKind.SingleChoice) with { Text = "" }, null, null, [], Duration.Zero), "cannot be opened" },
        { new QuestionOpened(Asked(510, QuestionKind.SingleChoice) with { Text = new string('x', 1001) }, null, null, [], Duration.Zero), "may have 1,000 characters" },
        { new QuestionClosed(Given.Id(9)), "not asked" },
        { new QuestionClosed(Closed.Id), "closed already" },
        { new AnswerGiven(Given.Juno, Given.Id(9), new Answer()), "not asked" },
        { new AnswerGiven(Given.Juno, Hidden.Id, new Answer { Options = [Backs] }), "no name" },
        { new AnswerGiven(Given.Juno, Open.Id, new Answer { Options = [Backs, Veers] }), "Choose one" },
        { new CannotAnswer(Given.Juno, Given.Id(9)), "not asked" },
        { new AnswersMarked(Open.Id, [Given.Juno], 1), "Only short texts" },
        { new KeyCorrected(Words.Id, [], null, 0, []), "Only a quiz" },
        { new KeyCorrected(Open.Id, [Stranger], null, 0, []), "not among the choices" },
        { new KeyCorrected(Open.Id, [], null, 0, []), "cannot be the key" },
        { new WordsMerged(Open.Id, "haar", "fog"), "Only words" },
        { new RightRevealed(Given.Id(9)), "not asked" },
        { new RightRevealed(Open.Id), "Close the question first" },
        { new ResultsPut(Given.Id(9), false, false, []), "not asked" },
        { new ResultsPut(Hidden.Id, false, false, []), "until then nobody sees" },
        { new ResultsPut(Hidden.Id, false, false, [Given.Juno]), "have no names" },
    };

    [Theory]
    [MemberData(nameof(Wrong))]
    public void It_is_refused_in_a_whole_sentence(Act act, string part)
    {
        var why = Why(act).ShouldNotBeNull(act.ToString());
        why.ShouldContain(part);
        why.ShouldMatch(@"^[A-Z].*[^.][.]$");
    }

    public static TheoryData<Act, string> WrongFromAPage => new()
    {
        { new AnswerGiven(Given.Juno, Closed.Id, new Answer { Options = [Backs] }), "too late" },
        { new CannotAnswer(Given.Juno, Closed.Id), "too late" },
        { new AnswerGiven(Given.Eino, ForGulls.Id, new Answer { Options = [Backs] }), "another group" },
    };

    [Theory]
    [MemberData(nameof(WrongFromAPage))]
    public void What_a_student_may_not_do_any_more_the_teacher_may(Act act, string part)
    {
        Why(act, Source.Page).ShouldNotBeNull().ShouldContain(part);
        Why(act).ShouldBeNull();
    }

    [Fact]
    public void At_most_twelve_questions_are_open_at_once()
    {
        var many = Ledger.Values.Concat(Enumerable.Range(520, 7).Select(id => Opened(Asked(id, QuestionKind.SingleChoice)))).ToList();
        var state = LessonState.Fold(many);
        state.Questions.All.Count(a => a.IsOpen).ShouldBe(QuestionOpened.MostOpen);
        Why(new QuestionOpened(Asked(540, QuestionKind.SingleChoice), null, null, [], Duration.Zero), lesson: Lesson with { Parts = () => state.Parts })
            .ShouldNotBeNull().ShouldContain("At most 12");
    }

    [Fact]
    public void An_anonymous_question_that_was_closed_stays_closed()
    {
        var closing = Given.Noted(15, new QuestionClosed(Hidden.Id));
        var all = Ledger.Values.Append(closing).ToList();
        Why(new Struck(closing.Id), lesson: Lesson with { ActOf = id => all.FirstOrDefault(e => e.Id == id)?.Act, Parts = () => LessonState.Fold(all).Parts })
            .ShouldNotBeNull().ShouldContain("cannot be opened again");
        Why(new Struck(Closing.Id)).ShouldBeNull();
    }

    [Fact]
    public void A_lesson_that_has_not_begun_or_is_over_opens_no_question()
    {
        var act = new QuestionOpened(Asked(510, QuestionKind.SingleChoice), null, null, [], Duration.Zero);
        Why(act, lesson: Lesson with { Times = Given.Lesson with { ActualStart = null, ActualEnd = null } }).ShouldNotBeNull().ShouldContain("Begin the lesson");
        Why(act, lesson: Lesson with { Times = Given.Lesson }).ShouldNotBeNull().ShouldContain("has ended");
    }

    [Fact]
    public void A_cancelled_lesson_does_not_begin() =>
        Why(new LessonStarted(), lesson: Lesson with { Times = Given.Lesson with { ActualStart = null, ActualEnd = null }, Cancelled = true }).ShouldNotBeNull().ShouldContain("cancelled");
}
