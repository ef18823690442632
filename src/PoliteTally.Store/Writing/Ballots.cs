using NodaTime;
using PoliteTally.Core.Course;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Questions;

namespace PoliteTally.Store.Writing;

/// <summary>
/// Answers without names. While their question is open they are in memory and nowhere else, so that no copy of the data folder tells anything of
/// them; when it is closed they go into the ledger together, as one entry. docs/decisions/0005 says what somebody with every copy can learn, and
/// what a sudden stop can lose.
/// </summary>
internal static class Ballots
{
    /// <summary>Takes an answer, in place of the one of the same id if there is one.</summary>
    /// <returns>Why it is not taken; null if it is.</returns>
    public static string? Take(Draft draft, Ballot ballot, Instant now)
    {
        var state = draft.State();
        var (asked, who) = (state.Questions.Of(ballot.Asking), state.Whose(ballot.Student));
        return asked switch
        {
            null => "This question was not asked in this lesson.",
            { Question.Anonymous: false } => "Answers to this question carry a name.",
            _ when !draft.Before.Ground.RosterIds.Contains(ballot.Student) => "You are not on the roster of this class.",
            _ => AskingRules.OutOfTime(asked, who, state.Groups, now) ?? AnswerRules.WhyRefused(asked.Question, ballot.Answer)
                ?? draft.Box.Cast(ballot with { Student = who, Answer = AnswerRules.Kept(asked.Question, ballot.Answer) }),
        };
    }

    /// <summary>
    /// Counts the answers to questions that an entry closed, in an order that says nothing; of a question that too few answered only how many
    /// did. Answers to a question whose opening was struck out are forgotten, and all that are left when the lesson ends.
    /// </summary>
    public static void Follow(Entry entry, Draft draft)
    {
        if (entry.Act is QuestionClosed or LessonEnded)
        {
            foreach (var asking in draft.State().Questions.All.Where(a => a.Question.Anonymous && !a.IsOpen && !a.IsCounted).ToList())
            {
                var (answers, took) = draft.Box.Take(asking.Id);
                var counted = new BallotsCounted(
                    asking.Id, answers.Count, answers.Count < Asking.FewestAnonymous ? [] : [.. answers.OrderBy(a => a.Written, StringComparer.Ordinal)],
                    asking.Question.CountsTakingPart ? [.. took.Order()] : []);
                draft.Store(new Entry(Guid.CreateVersion7(), entry.HappenedAt, draft.NotedAt(entry.NotedAt), Source.Page, "", counted));
            }
        }
        else if (entry.Act is Struck struck && draft.About(struck).Any(a => a is QuestionOpened))
        {
            draft.Box.Keep(draft.State().Questions.All.Select(a => a.Id).ToHashSet());
        }

        if (entry.Act is LessonEnded)
        {
            draft.Box.Keep(new HashSet<Guid>());
        }
    }
}
