using CsCheck;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Chat;
using PoliteTally.Core.Groups;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Meeting;
using PoliteTally.Core.Notes;
using PoliteTally.Core.Questions;
using PoliteTally.Core.Scoring;
using PoliteTally.Core.Signals;

namespace PoliteTally.Core.Tests;

/// <summary>
/// Being there for less never pays: without an excuse, cutting off a student's presence at either end, with all that they did in the part cut off, never raises or removes
/// their score.
/// </summary>
public sealed class LessNeverPaysTests
{
    private static Question Quiz(int id) => new()
    {
        Id = Given.Id(id),
        Kind = QuestionKind.TrueFalse,
        Purpose = QuestionPurpose.Quiz,
        Text = "Fog is a cloud.",
        Options = [new QuestionOption(Given.Id(900), "true", Right: true), new QuestionOption(Given.Id(901), "false")],
    };

    /// <summary>What others did, and what the lesson offered: it stays, whoever was there.</summary>
    private static IEnumerable<Entry> Around(int seed)
    {
        var random = new Random(seed);
        yield return Given.Noted(-1, new NameMatched("Juno", Given.Juno));
        yield return Given.Noted(0, new Marked(Given.Eino, Mark.Here));
        yield return Given.Noted(0, new GroupsMade([new StudentGroup(Given.Id(600), "Nort", [Given.Juno, Given.Eino])]));
        for (var i = random.Next(3); i > 0; i--)
        {
            var at = random.Next(50);
            yield return Given.Noted(at, new HandRaised(Given.Eino));
            yield return Given.Noted(at + 0.5, new Called(Given.Eino, TurnOrigin.Hand, null));
            yield return Given.Noted(at + 0.7, Given.Turn(Given.Eino));
        }

        for (var i = random.Next(3); i > 0; i--)
        {
            yield return Given.Noted(random.Next(50), new SatIn(Given.Eino, Given.Id(600), Contribution.Some));
        }
    }

    /// <summary>What one student was offered and did, if they were there then; every act at its minute.</summary>
    private static IEnumerable<Entry> Of(int seed, double came, double left)
    {
        var random = new Random(seed + 1);
        yield return Given.Noted(came, new Joined("Juno", "laptop"));
        yield return Given.Noted(left, new Left("Juno", "laptop"));
        // Drawn alike whenever they were there.
        var things = Enumerable.Range(0, random.Next(7)).Select(i => (i, random.Next(50), random.Next(6), random.Next(2) == 0, random.Next(2) == 0)).ToList();
        foreach (var (i, at, kind, does, right) in things)
        {
            var isThere = came <= at && at < left;
            switch (kind)
            {
                case 0:
                    // A round is held whoever is there; who is not has no part in it.
                    yield return Given.Noted(at, new SignalRoundHeld("Fog is a cloud.", isThere && does ? [Given.Juno, Given.Eino] : [Given.Eino], isThere && !does ? [Given.Juno] : []));
                    break;
                case 1:
                    var opened = Given.Noted(at, new QuestionOpened(Quiz(500 + i), null, null, [], NodaTime.Duration.Zero));
                    yield return opened;
                    if (came <= at + 1 && at + 1 < left && does)
                    {
                        yield return Given.Noted(at + 1, new AnswerGiven(Given.Juno, opened.Id, new Answer { Options = [Given.Id(right ? 900 : 901)] }));
                    }

                    yield return Given.Noted(at + 3, new QuestionClosed(opened.Id));
                    break;
                case 2 when isThere:
                    yield return Given.Noted(at, Given.Turn(Given.Juno));
                    break;
                case 3 when isThere:
                    yield return Given.Noted(at, new ChatSaid(Given.Juno, ChatKind.Idea, $"low water at {at}"));
                    break;
                case 4 when isThere:
                    yield return Given.Noted(at, new HandRaised(Given.Juno));
                    break;
                case 5 when isThere:
                    yield return does ? Given.Noted(at, new NodGiven(Given.Juno, "helped")) : Given.Noted(at, new SatIn(Given.Juno, Given.Id(600), Contribution.Contributed));
                    break;
            }
        }
    }

    private static decimal? Score(int seed, double came, double left, Scheme scheme) =>
        LessonScore.Of(Given.State([.. Around(seed), .. Of(seed, came, left)]).ParticipationOf(Given.Juno, Given.Lesson, scheme), scheme).Total?.Value;

    [Fact]
    public void Cutting_off_either_end_never_raises_or_removes_a_score() =>
        Gen.Select(Gen.Int, Gen.Int[0, 49], Gen.Int[0, 1000], Gen.Int[0, 1000], Gen.Int[0, 1000], Gen.Bool).Sample(
            (seed, came, stays, cutOff, cutShort, byShare) =>
            {
                var left = came + 1 + (stays % (50 - came));
                var later = cutOff % (left - came);
                var earlier = cutShort % (left - came - later);
                var scheme = Scheme.Default with { Attendance = AttendancePolicy.Default with { CreditBy = byShare ? CreditBy.Share : CreditBy.Status } };
                var (whole, less) = (Score(seed, came, left, scheme), Score(seed, came + later, left - earlier, scheme));
                less.ShouldNotBeNull();
                less.Value.ShouldBeLessThanOrEqualTo(whole!.Value + 0.0001m, $"{came} to {left}: {whole}; {came + later} to {left - earlier}: {less}");
            },
            iter: 5_000);
}
