using PoliteTally.Core.Attendance;
using PoliteTally.Core.Chat;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Text;

namespace PoliteTally.Core.Scoring;

/// <summary>
/// What each strand gives a student in a lesson: a value from 0 to 1 with its parts, or none if there was no chance, and either in words. Words are made when somebody
/// asks for them, for scores are reckoned by the thousand.
/// </summary>
internal static class StrandRules
{
    /// <summary>The value of a strand.</summary>
    /// <returns>The value, in words, and whether it counts only where that raises the score.</returns>
    public static (Figure? Value, Func<string> Because, bool OnlyIfItRaises) Of(Strand strand, Participation did, Scheme scheme) => strand switch
    {
        Strand.Attendance => Attendance(did.Attendance),
        Strand.Speaking => Speaking(did, scheme),
        Strand.Questions => Questions(did, scheme),
        Strand.Chat => Chat(did, scheme),
        Strand.GroupWork => GroupWork(did),
        Strand.Rubric => Rubric(did, scheme),
        _ => throw new ArgumentOutOfRangeException(nameof(strand), strand, "no such strand"),
    };

    /// <summary>What somebody who was absent without excuse missed.</summary>
    public static (Figure? Value, Func<string> Because, bool OnlyIfItRaises) Missed(Scheme scheme) => scheme.AbsenceScoresZero
        ? (Figure.Given("absent", 0), () => "absent", false)
        : NoChance("absent: no chance, left out");

    private static (Figure?, Func<string>, bool) NoChance(string because) => (null, () => because, false);

    private static (Figure?, Func<string>, bool) Attendance(AttendanceResult attendance) => attendance.Credit is { } credit
        ? (Figure.Given("attendance", credit, attendance.Entries), attendance.InWords, false)
        : NoChance("not counted");

    // min(1, credits / target). What was written fills a part of what is missing to a full turn, so it never makes a full strand by itself.
    private static (Figure?, Func<string>, bool) Speaking(Participation did, Scheme scheme)
    {
        var turns = did.Turns.Where(t => Scheme.CreditOf(t.Outcome) is not null).ToList();
        var uncalled = did.Hands.FirstOrDefault(h => h.NeverCalled);
        // What counts for nothing is no chance either.
        var given = scheme.SignalGiven > 0 ? did.SignalsGiven : [];
        var earned = turns.Any(t => Scheme.CreditOf(t.Outcome) > 0);
        var couldNot = !earned && (did.SpeakingPausedBy is not null || (turns.Count == 0 && did.Turns.Count > 0));
        if (ChanceToSpeak(did, scheme, turns.Count, earned, couldNot, uncalled is not null || given.Count > 0) is not { } chance)
        {
            return NoChance(did.SpeakingPausedBy is not null ? "cannot speak today: not counted"
                : couldNot ? "called, but could not or not noted how it went: not counted"
                : "never called and no hand waiting: no chance, left out");
        }

        var parts = turns.ConvertAll(t => Figure.Given(t.InWords(), Scheme.CreditOf(t.Outcome)!.Value, t.Entries));
        if (uncalled is not null)
        {
            parts.Add(Figure.Given("hand raised and never called", scheme.UncalledHand, uncalled.Entry));
        }

        if (did.SignalRounds.Count > 0)
        {
            var answered = did.SignalRounds.Where(s => s.Answered).ToList();
            parts.Add(UpTo(1, "signal rounds answered", Figure.Given(Words.Count(answered.Count, "round"), answered.Count * scheme.SignalAnswered, [.. answered.Select(s => s.Entry)])));
        }

        if (given.Count > 0)
        {
            parts.Add(UpTo(1, "signals given", Figure.Given(Words.Count(given.Count, "signal"), given.Count * scheme.SignalGiven, given)));
        }

        var credits = Figure.Of("turn credits", Reckoning.Sum, parts);
        var written = Written(did, scheme);
        var stoodIn = written.Count * scheme.WrittenStandsIn * scheme.WrittenAtMost > 0 && credits.Value < 1;
        var all = stoodIn ? Figure.Of("turn credits and what was written", Reckoning.Sum, credits, StandIn(credits, written, scheme)) : credits;
        return (OfTarget("speaking", all, scheme.SpeakingTarget), Because, chance == Chance.IfItRaises);

        string Because()
        {
            var noted = parts.GroupBy(p => p.Label).Select(g => g.Count() > 1 ? $"{g.Count()} × {g.Key}" : g.Key).ToList();
            var did = noted.Count > 0 ? string.Join(", ", noted) : "no turn, though the line was open";
            return $"{did}{(stoodIn ? $"; {Words.Count(written.Count, "message")} in the chat, in place of a part of a turn" : "")}; target {Words.Plain(scheme.SpeakingTarget)}";
        }
    }

    // A turn, an open line and a round that was let pass are chances. A hand or a round is one that lowers nothing, and for who was called and could not speak so is what they wrote.
    private static Chance? ChanceToSpeak(Participation did, Scheme scheme, int turns, bool earned, bool couldNot, bool showed)
    {
        var rounds = did.SignalRounds.Count;
        var answered = did.SignalRounds.Count(r => r.Answered);
        var mustCount = (turns > 0 && (earned || did.SpeakingPausedBy is null)) || (answered < rounds && did.SpeakingPausedBy is null) || (scheme.OpenLineIsChance && did.LineWasOpen && !couldNot);
        return mustCount ? Chance.Counts
            : showed || answered > 0 || (couldNot && Written(did, scheme).Count > 0) ? Chance.IfItRaises
            : null;
    }

    private static Figure StandIn(Figure credits, List<Guid> written, Scheme scheme) => Figure.Of(
        "written in place of a turn", Reckoning.Product,
        UpTo(scheme.WrittenAtMost, "of a turn", Figure.Given(Words.Count(written.Count, "contribution"), written.Count * scheme.WrittenStandsIn, written)),
        Figure.Of(
            "missing to a full turn", Reckoning.Sum,
            Figure.Given("a full turn", 1), Figure.Of("less turn credits", Reckoning.Product, Figure.Given("taken away", -1), credits)));

    private static List<Guid> Written(Participation did, Scheme scheme) =>
        scheme.ChatCounts ? [.. did.Chat.Where(c => Scheme.CreditOf(c.Kind) > 0).Select(c => c.Entry)] : [];

    private static (Figure?, Func<string>, bool) Questions(Participation did, Scheme scheme)
    {
        if (did.Questions.Count == 0)
        {
            return NoChance("no question asked: no chance, left out");
        }

        var answers = did.Questions.Where(q => q.Answered).ToList();
        var answered = Figure.Of(
            "answered of asked", Reckoning.Quotient,
            Figure.Given("answered", answers.Count, [.. answers.SelectMany(q => q.Entries)]),
            Figure.Given("asked", did.Questions.Count));
        var possible = did.Questions.Sum(q => q.Possible);
        if (possible == 0)
        {
            return (answered, Said, false);
        }

        var marks = did.Questions.Sum(q => q.Marks);
        var marked = Figure.Of(
            "marks of possible", Reckoning.Quotient, Figure.Given("marks", marks), Figure.Given("possible", possible));
        var value = Figure.Of(
            "questions", Reckoning.Sum,
            Figure.Of("for answering", Reckoning.Product, Figure.Given("share", 1 - scheme.MarksShare), answered),
            Figure.Of("for marks", Reckoning.Product, Figure.Given("share", scheme.MarksShare), marked));
        return (value, () => $"{Said()}, {Words.Plain(marks)} of {Words.Plain(possible)} marks", false);

        string Said()
        {
            var missed = did.Questions.Count(q => q.Missed);
            return $"{answers.Count} of {did.Questions.Count} answered{(missed > 0 ? $", {missed} missed by coming late or leaving early" : "")}";
        }
    }

    // min(1, credits / target). Who spoke has not to write as much: full turns fill a part of the target.
    private static (Figure?, Func<string>, bool) Chat(Participation did, Scheme scheme)
    {
        if (!scheme.ChatCounts)
        {
            return NoChance("chat does not count: no chance, left out");
        }

        var counted = did.Chat.Where(c => Scheme.CreditOf(c.Kind) > 0).ToList();
        var parts = counted.ConvertAll(c => Figure.Given(c.Kind.InWords(), Scheme.CreditOf(c.Kind), c.Entry));
        var turns = scheme.TurnInChat > 0 ? did.Turns.Where(t => t.Outcome == TurnOutcome.Full).ToList() : [];
        if (turns.Count > 0)
        {
            parts.Add(UpTo(
                scheme.TurnsInChatAtMost * scheme.ChatTarget, "spoken in place of messages",
                Figure.Given(Words.Count(turns.Count, "full turn"), turns.Count * scheme.TurnInChat, [.. turns.SelectMany(t => t.Entries)])));
        }

        return (OfTarget("chat", Figure.Of("chat credits", Reckoning.Sum, parts), scheme.ChatTarget), Because, false);

        string Because()
        {
            var kinds = counted.GroupBy(c => c.Kind).OrderBy(g => g.Key).Select(g => Words.Count(g.Count(), g.Key.InWords()));
            var waits = did.ChatNotSwept > 0 ? $"{Words.Count(did.ChatNotSwept, "message")}, not swept" : null;
            var written = counted.Count == 0 ? waits ?? "nothing in the chat" : string.Join(", ", kinds) + (waits is null ? "" : $"; {waits}");
            return $"{written}{(turns.Count > 0 ? $"; {Words.Count(turns.Count, "full turn")} in place of a part" : "")}; target {Words.Plain(scheme.ChatTarget)}";
        }
    }

    private static (Figure?, Func<string>, bool) GroupWork(Participation did)
    {
        if (did.SitIns.Count == 0)
        {
            return NoChance("not observed in a group: no chance, left out");
        }

        var value = Figure.Of(
            "group work", Reckoning.Quotient,
            Figure.Of("credits", Reckoning.Sum, [.. did.SitIns.Select(s => Figure.Given("seen in a group", s.Credit, s.Entry))]),
            Figure.Given("times seen", did.SitIns.Count));
        return (value, () => $"seen {Words.Count(did.SitIns.Count, "time")} in a group", false);
    }

    // A mark by a criterion that the scheme does not have any more counts for nothing, and is no chance.
    private static (Figure?, Func<string>, bool) Rubric(Participation did, Scheme scheme)
    {
        var marks = did.Marks.Select(m => (Worth: scheme.WorthOf(m.Criterion, m.Level), Mark: m)).Where(m => m.Worth is not null).ToList();
        if (marks.Count == 0)
        {
            return NoChance("not judged: no chance, left out");
        }

        var value = Figure.Of(
            "rubric", Reckoning.Quotient,
            Figure.Of("worth", Reckoning.Sum, marks.ConvertAll(m => Figure.Given(NameOf(m.Mark), m.Worth!.Value, m.Mark.Entry))),
            Figure.Given("criteria judged", marks.Count));
        return (value, () => string.Join(", ", marks.Select(m => NameOf(m.Mark))), false);

        string NameOf(CriterionMark mark)
        {
            var criterion = scheme.Criteria.First(c => c.Id == mark.Criterion);
            return $"{criterion.Name}: {criterion.Levels.First(l => l.Id == mark.Level).Name}";
        }
    }

    private static Figure UpTo(decimal most, string label, Figure figure) => Figure.Of(label, Reckoning.Least, figure, Figure.Given("at most", most));

    private static Figure OfTarget(string label, Figure credits, decimal target) =>
        UpTo(1, label, Figure.Of("of the target", Reckoning.Quotient, credits, Figure.Given("target", target)));

    private enum Chance
    {
        Counts,
        IfItRaises,
    }
}
