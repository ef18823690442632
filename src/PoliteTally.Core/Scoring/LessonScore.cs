using PoliteTally.Core.Attendance;
using PoliteTally.Core.Chat;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Text;

namespace PoliteTally.Core.Scoring;

/// <summary>One strand of a score.</summary>
/// <param name="Strand">Which.</param>
/// <param name="Weight">Its weight in the scheme.</param>
/// <param name="Value">From 0 to 1, with its parts; null if there was no chance.</param>
/// <param name="Because">The value in plain words, or why there was no chance.</param>
public sealed record StrandScore(Strand Strand, decimal Weight, Figure? Value, string Because);

/// <summary>The score of one student in one lesson.</summary>
/// <param name="Strands">Every strand, in the order of <see cref="Strand"/>.</param>
/// <param name="Total">From 0 to 100, with its parts; null if the lesson is not scored for this student.</param>
/// <param name="Because">Why there is no score; null if there is one.</param>
public sealed record LessonScore(IReadOnlyList<StrandScore> Strands, Figure? Total, string? Because)
{
    /// <summary>
    /// Scores a lesson: <c>100 · Σ w·v / Σ w</c> over strands with a chance, then nods, kept in 0…100. Chance counts: what a
    /// student could not have done is left out and marks nobody down.
    /// </summary>
    public static LessonScore Of(Participation did, Scheme scheme)
    {
        var status = did.Attendance.Status;
        if (status == AttendanceStatus.Excused)
        {
            return new LessonScore([], null, "Excused: this lesson does not count.");
        }

        if (status == AttendanceStatus.DidNotCome)
        {
            return new LessonScore([], null, "Did not come to a drop-in lesson: this lesson does not count.");
        }

        var absent = status == AttendanceStatus.Absent;
        List<StrandScore> strands =
        [
            Weighed(Strand.Attendance, Attendance(did.Attendance)),
            Weighed(Strand.Speaking, absent ? Missed() : Speaking(did, scheme)),
            Weighed(Strand.Questions, absent ? Missed() : Questions(did, scheme)),
            Weighed(Strand.Chat, absent ? Missed() : Chat(did, scheme)),
            Weighed(Strand.GroupWork, absent ? Missed() : GroupWork(did)),
        ];
        var counted = strands.Where(s => s.Value is not null && s.Weight > 0).ToList();
        if (counted.Count == 0)
        {
            return new LessonScore(strands, null, "There was no chance to take part in anything that counts.");
        }

        var earned = Figure.Of("Earned", Reckoning.Sum, [.. counted.Select(s =>
            Figure.Of(s.Strand.InWords(), Reckoning.Product, s.Value!, Figure.Given("weight", s.Weight)))]);
        var possible = Figure.Of(
            "Possible", Reckoning.Sum, [.. counted.Select(s => Figure.Given($"weight of {s.Strand.InWords()}", s.Weight))]);
        var woven = Figure.Of(
            "Strands, out of 100", Reckoning.Product,
            Figure.Given("hundredths", 100), Figure.Of("Earned of possible", Reckoning.Quotient, earned, possible));
        var nods = Figure.Of(
            "Nods", Reckoning.Least,
            Figure.Given(Words.Count(did.Nods.Count, "nod"), did.Nods.Count * scheme.NodPoints, did.Nods),
            Figure.Given("at most", scheme.NodsAtMost));
        var total = Figure.Of(
            "Score", Reckoning.Least,
            Figure.Given("at most", 100),
            Figure.Of("Strands and nods", Reckoning.Sum, woven, nods));
        return new LessonScore(strands, total, null);

        StrandScore Weighed(Strand strand, (Figure? Value, string Because) reckoned) =>
            new(strand, scheme.Weights.GetValueOrDefault(strand), reckoned.Value, reckoned.Because);

        (Figure?, string) Missed() => scheme.AbsenceScoresZero
            ? (Figure.Given("absent", 0), "absent")
            : (null, "absent: no chance, left out");
    }

    private static (Figure?, string) Attendance(AttendanceResult attendance)
    {
        if (attendance.Credit is not { } credit)
        {
            return (null, "not counted");
        }

        var because = attendance.InWords();
        return (Figure.Given(because, credit, attendance.Entries), because);
    }

    private static (Figure?, string) Speaking(Participation did, Scheme scheme)
    {
        var turns = did.Turns.Where(t => Scheme.CreditOf(t.Outcome) is not null).ToList();
        var uncalled = did.Hands.FirstOrDefault(h => h.NeverCalled);
        if (did.SpeakingPausedBy is not null && turns.All(t => Scheme.CreditOf(t.Outcome) == 0))
        {
            return (null, "cannot speak today: not counted");
        }

        var openLine = scheme.OpenLineIsChance && did.AnybodyCalledFromLine;
        // What counts for nothing is no chance either.
        var given = scheme.SignalGiven > 0 ? did.SignalsGiven : [];
        if (turns.Count == 0 && uncalled is null && did.SignalRounds.Count == 0 && given.Count == 0 && !openLine)
        {
            return (null, did.Turns.Count > 0
                ? "called, but could not or not noted how it went: not counted"
                : "never called and no hand waiting: no chance, left out");
        }

        var parts = turns.Select(t =>
            Figure.Given(t.InWords(), Scheme.CreditOf(t.Outcome)!.Value, t.Entries)).ToList();
        if (uncalled is not null)
        {
            parts.Add(Figure.Given("hand raised and never called", scheme.UncalledHand, uncalled.Entry));
        }

        var signals = did.SignalRounds.Where(s => s.Answered).ToList();
        if (did.SignalRounds.Count > 0)
        {
            parts.Add(Figure.Of(
                "signal rounds answered", Reckoning.Least,
                Figure.Given(Words.Count(signals.Count, "round"), signals.Count * scheme.SignalAnswered, [.. signals.Select(s => s.Entry)]),
                Figure.Given("at most", 1)));
        }

        if (given.Count > 0)
        {
            parts.Add(Figure.Of(
                "signals given", Reckoning.Least,
                Figure.Given(Words.Count(given.Count, "signal"), given.Count * scheme.SignalGiven, given),
                Figure.Given("at most", 1)));
        }

        var credits = Figure.Of("turn credits", Reckoning.Sum, parts);
        var because = parts.Count == 0
            ? "no turn, though the line was open"
            : $"{string.Join(", ", parts.GroupBy(p => p.Label).Select(g => g.Count() > 1 ? $"{g.Count()} × {g.Key}" : g.Key))}; target {Words.Plain(scheme.SpeakingTarget)}";
        return (UpToOne("speaking", credits, scheme.SpeakingTarget), because);
    }

    private static (Figure?, string) Questions(Participation did, Scheme scheme)
    {
        if (did.Questions.Count == 0)
        {
            return (null, "no question asked: no chance, left out");
        }

        var answers = did.Questions.Where(q => q.Answered).ToList();
        var answered = Figure.Of(
            "answered of asked", Reckoning.Quotient,
            Figure.Given("answered", answers.Count, [.. answers.SelectMany(q => q.Entries)]),
            Figure.Given("asked", did.Questions.Count));
        var possible = did.Questions.Sum(q => q.Possible);
        var said = $"{answers.Count} of {did.Questions.Count} answered";
        if (possible == 0)
        {
            return (answered, said);
        }

        var marks = did.Questions.Sum(q => q.Marks);
        var marked = Figure.Of(
            "marks of possible", Reckoning.Quotient, Figure.Given("marks", marks), Figure.Given("possible", possible));
        var value = Figure.Of(
            "questions", Reckoning.Sum,
            Figure.Of("for answering", Reckoning.Product, Figure.Given("share", 1 - scheme.MarksShare), answered),
            Figure.Of("for marks", Reckoning.Product, Figure.Given("share", scheme.MarksShare), marked));
        return (value, $"{said}, {Words.Plain(marks)} of {Words.Plain(possible)} marks");
    }

    private static (Figure?, string) Chat(Participation did, Scheme scheme)
    {
        if (!did.ChatOpen)
        {
            return (null, "chat was closed: no chance, left out");
        }

        var counted = did.Chat.Where(c => Scheme.CreditOf(c.Kind) > 0).ToList();
        var credits = Figure.Of("chat credits", Reckoning.Sum, [.. counted.Select(c =>
            Figure.Given(c.Kind.InWords(), Scheme.CreditOf(c.Kind), c.Entry))]);
        var kinds = counted.GroupBy(c => c.Kind).OrderBy(g => g.Key).Select(g => Words.Count(g.Count(), g.Key.InWords()));
        var waits = did.ChatNotSwept > 0 ? $"{Words.Count(did.ChatNotSwept, "message")}, not swept" : null;
        var because = counted.Count == 0 ? waits ?? "nothing in the chat" : string.Join(", ", kinds) + (waits is null ? "" : $"; {waits}");
        return (UpToOne("chat", credits, scheme.ChatTarget), $"{because}; target {Words.Plain(scheme.ChatTarget)}");
    }

    private static (Figure?, string) GroupWork(Participation did)
    {
        if (did.SitIns.Count == 0)
        {
            return (null, "not observed in a group: no chance, left out");
        }

        var value = Figure.Of(
            "group work", Reckoning.Quotient,
            Figure.Of("credits", Reckoning.Sum, [.. did.SitIns.Select(s => Figure.Given("seen in a group", s.Credit, s.Entry))]),
            Figure.Given("times seen", did.SitIns.Count));
        return (value, $"seen {Words.Count(did.SitIns.Count, "time")} in a group");
    }

    private static Figure UpToOne(string label, Figure credits, decimal target) => Figure.Of(
        label, Reckoning.Least,
        Figure.Of("of the target", Reckoning.Quotient, credits, Figure.Given("target", target)),
        Figure.Given("at most", 1));
}
