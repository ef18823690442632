using PoliteTally.Core.Chat;
using PoliteTally.Core.Course;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Lessons;
using PoliteTally.Core.Meeting;
using PoliteTally.Core.Notes;

namespace PoliteTally.Core.Tests;

public sealed class EntryRulesTests
{
    private static readonly LessonFacts Running = new(
        Given.Lesson with { ActualEnd = null }, new HashSet<Guid> { Given.Juno }, Settled: false, _ => null, () => LessonState.Fold([]).Parts);

    private static readonly LessonFacts Ended = Running with { Times = Given.Lesson };

    private static string? Why(double minute, Act act, LessonFacts? lesson = null, double now = 49, Source source = Source.Tapped) =>
        EntryRules.WhyRefused(Given.Noted(minute, act, source), lesson ?? Running, Given.At(now));

    [Theory]
    [InlineData(-60, null)]
    [InlineData(-61, "outside the lesson")]
    [InlineData(10, null)]
    [InlineData(51, null)]                 // two minutes ahead of the server is a clock, three are not
    [InlineData(52, "future")]
    public void The_time_must_lie_close_to_the_lesson(double minute, string? why) => Refused(Why(minute, new HandRaised(Given.Juno)), why);

    [Theory]
    [InlineData(110, null)]
    [InlineData(111, "outside the lesson")]
    public void After_the_end_an_hour_is_left(double minute, string? why) =>
        Refused(Why(minute, new HandRaised(Given.Juno), Ended, now: 300), why);

    [Fact]
    public void A_running_lesson_takes_what_happens_however_long_it_runs_over() =>
        Why(400, new HandRaised(Given.Juno), Running, now: 400).ShouldBeNull();

    [Fact]
    public void A_meeting_may_have_stood_open_all_morning() =>
        Why(-300, new Joined("Juno", ""), Ended, source: Source.File).ShouldBeNull();

    [Fact]
    public void A_decision_has_no_moment_in_the_lesson() =>
        Why(9000, new NameMatched("Juno", Given.Juno), Ended, now: 9000).ShouldBeNull();

    [Fact]
    public void A_student_of_another_class_is_refused() => Refused(Why(5, new HandRaised(Given.Eino)), "roster");

    [Fact]
    public void A_lesson_ends_once()
    {
        Why(49, new LessonEnded()).ShouldBeNull();
        Refused(Why(49, new LessonEnded(), Ended), "ended already");
        Refused(Why(49, new LessonStarted()), "begun already");
        Refused(Why(49, new LessonSettled()), "End the lesson");
    }

    [Fact]
    public void Only_what_stands_can_be_struck_out()
    {
        var target = Given.Noted(5, new HandRaised(Given.Juno));
        Refused(Why(6, new Struck(target.Id)), "not in this lesson");
        Why(6, new Struck(target.Id), Running with { ActOf = _ => target.Act }).ShouldBeNull();
        var struck = LessonState.Fold([target, Given.Noted(6, new Struck(target.Id))]);
        Refused(Why(7, new Struck(target.Id), Running with { ActOf = _ => target.Act, Parts = () => struck.Parts }), "already");
    }

    [Fact]
    public void What_one_press_noted_is_struck_out_as_long_as_some_of_it_stands()
    {
        var all = Enumerable.Range(0, 3).Select(i => Given.Noted(5, new HandRaised(Given.Id(i + 1)))).ToList();
        var one = Given.Noted(6, new Struck(all[0].Id));
        var whole = Given.Noted(7, new Struck(all[0].Id, [all[1].Id, all[2].Id]));
        LessonFacts With(params Entry[] more) => Running with
        {
            ActOf = id => all.Concat(more).FirstOrDefault(e => e.Id == id)?.Act,
            Parts = () => LessonState.Fold(all.Concat(more)).Parts,
        };
        Why(8, whole.Act, With(one)).ShouldBeNull();
        Refused(Why(8, whole.Act, With(one, whole)), "already");
        Refused(Why(8, new Struck(all[0].Id, [Given.Id(99)]), With()), "not in this lesson");
        Refused(Why(8, new Struck(all[0].Id, [.. Enumerable.Repeat(all[1].Id, Struck.Most)]), With()), "At most 500");
    }

    [Fact]
    public void Opening_a_settled_lesson_again_strikes_out_nothing_else_in_passing()
    {
        var (settled, hand) = (Given.Noted(55, new LessonSettled()), Given.Noted(5, new HandRaised(Given.Juno)));
        var facts = Ended with { Settled = true, ActOf = id => id == settled.Id ? settled.Act : hand.Act };
        Why(49, new Struck(settled.Id), facts).ShouldBeNull();
        Refused(Why(49, new Struck(settled.Id, [hand.Id]), facts), "settled");
        Refused(Why(49, new Struck(hand.Id, [settled.Id]), facts), "settled");
    }

    [Fact]
    public void A_settled_lesson_takes_nothing_but_being_opened_again()
    {
        var settled = Ended with { Settled = true, ActOf = _ => new LessonSettled() };
        Refused(Why(10, new HandRaised(Given.Juno), settled), "settled");
        Why(10, new Struck(Given.Id(7)), settled).ShouldBeNull();
    }

    [Fact]
    public void Texts_have_an_end()
    {
        Refused(Why(5, new ChatSaid(Given.Juno, ChatKind.Idea, new string('x', 2001))), "too long");
        Refused(Why(5, new NodGiven(Given.Juno, new string('x', 201))), "too long");
        Refused(Why(5, new NodGiven(Given.Juno, " ")), "reason");
        Refused(Why(5, new Joined(new string('x', 201), "")), "too long");
        Refused(Why(5, new Joined(" ", "")), "empty");
    }

    private static void Refused(string? why, string? part)
    {
        if (part is null)
        {
            why.ShouldBeNull();
        }
        else
        {
            why.ShouldNotBeNull().ShouldContain(part);
        }
    }
}
