using PoliteTally.Core.Attendance;
using PoliteTally.Core.Text;

namespace PoliteTally.Core.Reports;

/// <summary>
/// A student over some lessons in sentences: only what the count knows, each with its figure, kind and exact. No pronoun is used, for none was given, and nobody is
/// compared with anybody.
/// </summary>
public static class StudentInWords
{
    /// <summary>By how many points the last lessons differ from those before them to be spoken of: 5.</summary>
    public const decimal WorthSaying = 5;

    /// <summary>The summary: being there, speaking, questions, writing, groups, nods, how it moved.</summary>
    public static IReadOnlyList<Sentence> Of(StudentTerm student)
    {
        if (student.Lessons.Count == 0)
        {
            return [new($"No lesson of these days has anything of {student.Called}.")];
        }

        var opens = new Opens(student.Id);
        List<Sentence> all = [.. Presence(student), .. Speaking(student), .. Questions(student), .. Writing(student), .. Groups(student), .. Moved(student)];
        // One thing is the point of it: that something moved, or else what was said.
        var point = all.FindLastIndex(s => s.Marked is not null);
        return [.. all.Select((s, i) => s with { Opens = opens, Marked = i == point ? s.Marked : null })];
    }

    /// <summary>What went well, at most three things, the clearest first; one if there is little to go by.</summary>
    public static IReadOnlyList<Sentence> WentWell(StudentTerm student)
    {
        var (asked, answered, came) = (student.Sum(t => t.Asked), student.Sum(t => t.Answered), student.Came.Count);
        var well = new List<string>();
        if (student.Moved is { } moved && moved.Lately - moved.Before >= WorthSaying)
        {
            well.Add($"The last three lessons went better than those before: {Shown(moved.Lately)} after {Shown(moved.Before)}");
        }

        if (student.SpokeIn * 2 >= came && student.SpokeIn > 0)
        {
            well.Add(student.SpokeIn == came ? $"Speaking in every lesson, {Words.Count(student.Sum(t => t.Turns()), "turn")} in all" : $"Speaking in {student.SpokeIn} of {came} lessons");
        }

        if (asked > 0 && answered * 10 >= asked * 9)
        {
            well.Add(answered == asked ? $"An answer to every question, {answered} of {asked}" : $"An answer to nearly every question, {answered} of {asked}");
        }

        if (student.Sum(t => t.ChatQuestions) is > 1 and var questions)
        {
            well.Add($"{questions} questions put in the chat");
        }

        if (student.Sum(t => t.SitIns) is > 0 and var seen && student.Sum(t => t.GroupCredits) >= seen * 0.75m)
        {
            well.Add($"Working in groups, seen {Words.Times(seen)}");
        }

        if (student.Sum(t => t.Nods) is > 0 and var nods)
        {
            well.Add($"{Words.Count(nods, "nod")} for something well done");
        }

        if (came > 0 && student.Count(AttendanceStatus.Absent) == 0 && student.Count(AttendanceStatus.Late) == 0)
        {
            well.Add($"Being there on time, {came} of {came} lessons");
        }

        if (well.Count == 0 && student.Sum(t => t.Contributions()) is > 0 and var wrote)
        {
            well.Add($"{Words.Count(wrote, "contribution")} in the chat");
        }

        if (well.Count == 0 && came > 0)
        {
            well.Add($"Coming to {Words.Several(came, "lesson")}");
        }

        return [.. well.Take(3).Select(w => new Sentence($"{w}.", new Opens(student.Id)))];
    }

    /// <summary>One thing to try next: what the figures say would help most, and nothing that the student could not do.</summary>
    public static Sentence Next(StudentTerm student)
    {
        var (came, asked, answered) = (student.Came.Count, student.Sum(t => t.Asked), student.Sum(t => t.Answered));
        return new(NextStep(), new Opens(student.Id), Quiet: true);

        string NextStep()
        {
            if (came == 0)
            {
                return "Next: one lesson from the beginning to the end.";
            }

            if (student.Count(AttendanceStatus.Absent) * 4 >= student.Lessons.Count)
            {
                return $"Next: to be there, or a word beforehand when that cannot be; {Words.Several(student.Count(AttendanceStatus.Absent), "lesson")} went by without {student.Called}.";
            }

            if (student.Lessons.Count(l => l.Did.Dropouts > 0) * 4 >= came)
            {
                return "Next: another place or another device, to see whether the line holds.";
            }

            if (student.Sum(t => t.HandNeverCalled ? 1 : 0) is > 1 and var uncalled)
            {
                return $"Next: the teacher calls on {student.Called} early, for a hand stayed up uncalled in {Words.Several(uncalled, "lesson")}.";
            }

            if (student.SpokeIn * 3 < came && student.Lessons.All(l => !l.Did.SpeakingPaused))
            {
                return student.Sum(t => t.ChatQuestions) > 0 ? "Next: one of the questions from the chat aloud, in each of the next two lessons."
                    : student.Sum(t => t.Contributions()) > 0 ? "Next: one thought that would go into the chat said aloud instead."
                    : "Next: one turn in each of the next two lessons; a short one is enough.";
            }

            if (asked > 0 && answered * 4 < asked * 3)
            {
                return $"Next: an answer to each question before it closes; {Words.Several(asked - answered, "question")} went by without one.";
            }

            if (student.Count(AttendanceStatus.Late) * 4 >= came)
            {
                return $"Next: to be there when the lesson begins; {Words.Several(student.Count(AttendanceStatus.Late), "lesson")} began without {student.Called}.";
            }

            return student.Sum(t => t.Contributions()) * 2 < came && student.Scheme.ChatCounts
                ? "Next: a question in the chat when something is not clear."
                : "Next: to take up what somebody else said, and go on from there.";
        }
    }

    private static IEnumerable<Sentence> Presence(StudentTerm student)
    {
        var (all, came) = (student.Lessons.Where(l => !l.DropIn).ToList(), student.Came.Count(l => !l.DropIn));
        if (student.Came.Count(l => l.DropIn) is > 0 and var hours)
        {
            var minutes = (int)Math.Round(student.Came.Where(l => l.DropIn).Sum(l => l.There.TotalMinutes), MidpointRounding.AwayFromZero);
            yield return $"{student.Called} came to {Words.Several(hours, "drop-in lesson")}, for {minutes} minutes in all.";
        }

        if (all.Count > 0)
        {
            var excused = student.Count(AttendanceStatus.Excused);
            var asked = all.Count - excused;
            var there = excused == all.Count ? $"was excused from {(excused == 1 ? "the one lesson" : $"all {Words.InLetters(excused)} lessons")}"
                : came == asked ? $"was there in {(asked == 1 ? "the one lesson" : $"all {Words.InLetters(asked)} lessons")}"
                : $"was there in {Words.InLetters(came)} of {Words.InLetters(asked)} lessons";
            var late = student.Count(AttendanceStatus.Late) is > 0 and var times ? $", late in {Words.InLetters(times)}" : "";
            var apart = excused > 0 && excused < all.Count ? $"; {Words.Several(excused, "lesson")} with an excuse {(excused == 1 ? "does" : "do")} not count" : "";
            yield return $"{student.Called} {there}{late}{apart}.";
        }

        if (student.Lessons.Count(l => l.Did.Dropouts > 0) is > 0 and var dropped)
        {
            yield return $"The line dropped in {Words.Several(dropped, "lesson")}, {Words.Times(student.Sum(t => t.Dropouts))} in all.";
        }
    }

    private static IEnumerable<Sentence> Speaking(StudentTerm student)
    {
        var (full, partial, passes) = (student.Sum(t => t.FullTurns), student.Sum(t => t.PartialTurns), student.Sum(t => t.Passes));
        if (student.Came.Count == 0)
        {
            yield break;
        }

        if (full + partial > 0)
        {
            var turns = Words.Listed([full > 0 ? Words.Several(full, "full turn") : "", partial > 0 ? Words.Several(partial, "partial turn") : ""]);
            yield return new($"{student.Called} spoke in {Words.Several(student.SpokeIn, "lesson")}: {turns}{(passes > 0 ? $", {Words.Several(passes, "turn")} passed on" : "")}.", Marked: $"spoke in {Words.Several(student.SpokeIn, "lesson")}");
        }
        else
        {
            yield return passes > 0 ? $"{Words.Capital(Words.Several(passes, "turn"))} {(passes == 1 ? "was" : "were")} passed on; none was taken yet." : $"There was no turn for {student.Called} yet.";
        }

        if (student.Lessons.Count(l => l.Did.HandNeverCalled) is > 0 and var uncalled)
        {
            yield return $"In {Words.Several(uncalled, "lesson")} a hand stayed up and was not called.";
        }

        if (student.Lessons.Count(l => l.Did.SpeakingPaused) is > 0 and var paused)
        {
            yield return $"In {Words.Several(paused, "lesson")} speaking was not possible, and is not counted.";
        }

        if (student.Sum(t => t.SignalRounds) is > 0 and var rounds)
        {
            yield return $"{student.Called} answered {(student.Sum(t => t.SignalsAnswered) is var signals && signals == rounds ? $"all {Words.InLetters(rounds)}" : $"{Words.InLetters(student.Sum(t => t.SignalsAnswered))} of {Words.InLetters(rounds)}")} signal {(rounds == 1 ? "round" : "rounds")}.";
        }
    }

    private static IEnumerable<Sentence> Questions(StudentTerm student)
    {
        var (asked, answered) = (student.Sum(t => t.Asked), student.Sum(t => t.Answered));
        if (asked > 0)
        {
            var marks = student.Sum(t => t.MarksPossible) is > 0 and var possible ? $", for {Words.Plain(student.Sum(t => t.MarksGot))} of {Words.Plain(possible)} marks" : "";
            yield return $"{(answered == asked ? asked == 1 ? "The one question was" : $"All {Words.InLetters(asked)} questions were" : $"{Words.Capital(Words.InLetters(answered))} of {Words.Several(asked, "question")} {(answered == 1 ? "was" : "were")}")} answered{marks}.";
        }
    }

    private static IEnumerable<Sentence> Writing(StudentTerm student)
    {
        var (wrote, questions) = (student.Sum(t => t.Contributions()), student.Sum(t => t.ChatQuestions));
        if (!student.Scheme.ChatCounts || student.Came.Count == 0)
        {
            yield break;
        }

        yield return wrote == 0 ? "Nothing was written in the chat."
            : questions == 0 ? $"{Words.Capital(Words.Several(wrote, "contribution"))} stood in the chat."
            : questions == wrote ? $"{Words.Capital(Words.Several(wrote, "contribution"))} stood in the chat, {(wrote == 1 ? "a question" : "all of them questions")}."
            : $"{Words.Capital(Words.Several(wrote, "contribution"))} stood in the chat, {Words.InLetters(questions)} of them {(questions == 1 ? "a question" : "questions")}.";
    }

    private static IEnumerable<Sentence> Groups(StudentTerm student)
    {
        if (student.Sum(t => t.SitIns) is > 0 and var seen)
        {
            yield return $"In groups {student.Called} was seen {Words.Times(seen)}, contributing at {Words.Plain(Math.Round(student.Sum(t => t.GroupCredits) / seen * 100, MidpointRounding.AwayFromZero))} %.";
        }

        if (student.Sum(t => t.Nods) is > 0 and var nods)
        {
            yield return $"{Words.Capital(Words.Several(nods, "nod"))} {(nods == 1 ? "was" : "were")} given.";
        }
    }

    private static IEnumerable<Sentence> Moved(StudentTerm student)
    {
        if (student.Moved is { } moved && Math.Abs(moved.Lately - moved.Before) >= WorthSaying)
        {
            yield return moved.Lately > moved.Before
                ? new($"The last three lessons stand higher than those before, at {Shown(moved.Lately)} after {Shown(moved.Before)}.", Marked: "stand higher")
                : new($"The last three lessons stand lower than those before, at {Shown(moved.Lately)} after {Shown(moved.Before)}; the count does not know why.", Marked: "stand lower");
        }
    }

    private static string Shown(decimal score) => $"{Words.Shown(score)}";
}
