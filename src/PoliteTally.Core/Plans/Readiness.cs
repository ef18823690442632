using NodaTime;
using PoliteTally.Core.GroundRules;
using PoliteTally.Core.Questions;
using PoliteTally.Core.Text;

namespace PoliteTally.Core.Plans;

/// <summary>What has to be known of a lesson to say whether it is ready.</summary>
/// <param name="Length">Its planned length.</param>
/// <param name="HasLink">Whether the way into the meeting is known.</param>
/// <param name="Students">The students on its roster, with what each is called.</param>
/// <param name="WithoutMail">How many of them have no e-mail address.</param>
public sealed record LessonAhead(Duration Length, bool HasLink, IReadOnlyDictionary<Guid, string> Students, int WithoutMail);

/// <summary>One thing that a plan lacks, or that a teacher would want to know before the lesson.</summary>
/// <param name="Where">The part of the plan it is about.</param>
/// <param name="Text">What it is, in plain words.</param>
/// <param name="Needed">True if something is missing; false if it is only good to know.</param>
public sealed record ReadyNote(PlanPart Where, string Text, bool Needed);

/// <summary>A part of a plan.</summary>
public enum PlanPart
{
    /// <summary>The lesson itself: its roster and its meeting.</summary>
    Lesson,

    /// <summary>Stages and directions.</summary>
    Stages,

    /// <summary>Points to cover.</summary>
    Points,

    /// <summary>Keep together, keep apart.</summary>
    Groups,

    /// <summary>Questions.</summary>
    Questions,

    /// <summary>The message before the lesson.</summary>
    WordAhead,
}

/// <summary>"Is it ready?"</summary>
public static class Readiness
{
    /// <summary>What a plan lacks, most needed first; a plan is ready if nothing is <see cref="ReadyNote.Needed"/>.</summary>
    public static IReadOnlyList<ReadyNote> Of(Plan plan, ClassRules rules, LessonAhead lesson)
    {
        return [.. Notes().OrderByDescending(n => n.Needed)];

        IEnumerable<ReadyNote> Notes()
        {
            if (lesson.Students.Count == 0)
            {
                yield return new(PlanPart.Lesson, "The roster of this class is empty.", true);
            }

            if (!lesson.HasLink)
            {
                yield return new(PlanPart.Lesson, "The link to the meeting is missing.", true);
            }

            foreach (var note in OfStages().Concat(OfGroups()).Concat(OfQuestions()).Concat(OfWord()))
            {
                yield return note;
            }
        }

        IEnumerable<ReadyNote> OfStages()
        {
            var unnamed = plan.Stages.Select((s, i) => (s, i)).Where(s => string.IsNullOrWhiteSpace(s.s.Name)).ToList();
            foreach (var (_, index) in unnamed)
            {
                yield return new(PlanPart.Stages, $"Stage {index + 1} has no name.", true);
            }

            var over = plan.Length - lesson.Length;
            if (over > Duration.Zero)
            {
                yield return new(PlanPart.Stages, $"The stages take {Words.Minutes(plan.Length)}, {over.TotalMinutes:0} more than the lesson has.", true);
            }
            else if (plan.Stages.Count > 0 && over < Duration.Zero)
            {
                yield return new(PlanPart.Stages, $"{-over.TotalMinutes:0} of {Words.Minutes(lesson.Length)} are not planned.", false);
            }

            if (plan.Stages.Count == 0)
            {
                yield return new(PlanPart.Stages, "There are no stages: the lesson runs as one piece.", false);
            }

            foreach (var stage in plan.Stages.Where(s => s.Name.Trim().Length > 0 && s.Directions.Trim().Length == 0))
            {
                yield return new(PlanPart.Stages, $"“{stage.Name}” has no directions for the board.", false);
            }

            foreach (var stage in plan.Stages.Where(s => s.Length == Duration.Zero))
            {
                yield return new(PlanPart.Stages, $"“{stage.Name}” has no minutes.", false);
            }

            if (plan.Points.Any(p => string.IsNullOrWhiteSpace(p.Text)))
            {
                yield return new(PlanPart.Points, "A point to cover is empty.", true);
            }
        }

        IEnumerable<ReadyNote> OfGroups()
        {
            foreach (var set in plan.Together.Concat(plan.Apart).Where(s => s.Students.Distinct().Count() < 2))
            {
                yield return new(PlanPart.Groups, $"Keep {(plan.Together.Contains(set) ? "together" : "apart")}: a wish needs two students at least.", true);
            }

            foreach (var gone in plan.Together.Concat(plan.Apart).Where(s => s.Students.Any(id => !lesson.Students.ContainsKey(id))))
            {
                yield return new(PlanPart.Groups, "A wish for groups names a student who is no longer in the class.", true);
            }

            // Whoever is kept together, by one wish or a chain of them, cannot be kept apart.
            var bound = Bound(plan.Together);
            foreach (var set in plan.Apart)
            {
                var clash = set.Students.Where(bound.ContainsKey).GroupBy(s => bound[s]).FirstOrDefault(g => g.Count() > 1);
                if (clash is not null)
                {
                    var names = clash.Select(s => lesson.Students.GetValueOrDefault(s, "a student who left"));
                    yield return new(PlanPart.Groups, $"{string.Join(" and ", names)} are to be both together and apart.", true);
                }
            }
        }

        IEnumerable<ReadyNote> OfQuestions()
        {
            foreach (var (question, number) in plan.Questions.Select((q, i) => (q, i + 1)))
            {
                foreach (var missing in QuestionRules.Missing(question))
                {
                    yield return new(PlanPart.Questions, $"Question {number}: {missing}.", true);
                }

                if (QuestionRules.Placeholders(question) is { Count: > 0 } blanks)
                {
                    yield return new(PlanPart.Questions, $"Question {number}: {string.Join(", ", blanks.Select(b => $"“{b}”"))} {(blanks.Count == 1 ? "is" : "are")} filled in during the lesson.", false);
                }
            }
        }

        IEnumerable<ReadyNote> OfWord()
        {
            if (rules.WordAhead.On && lesson.WithoutMail > 0)
            {
                yield return new(
                    PlanPart.WordAhead,
                    $"{lesson.WithoutMail} of {lesson.Students.Count} students have no e-mail address, so word ahead does not reach them.", false);
            }
        }
    }

    private static Dictionary<Guid, int> Bound(IReadOnlyList<StudentSet> together)
    {
        var bound = new Dictionary<Guid, int>();
        foreach (var (set, number) in together.Select((s, i) => (s, i)))
        {
            foreach (var old in set.Students.Where(bound.ContainsKey).Select(s => bound[s]).Distinct().ToList())
            {
                foreach (var student in bound.Where(b => b.Value == old).Select(b => b.Key).ToList())
                {
                    bound[student] = number;
                }
            }

            foreach (var student in set.Students)
            {
                bound[student] = number;
            }
        }

        return bound;
    }
}
