using System.Globalization;
using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Board;
using PoliteTally.Core.Chat;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Questions;
using PoliteTally.Core.Scoring;
using PoliteTally.Core.Text;

namespace PoliteTally.Core.GroundRules;

/// <summary>One rule shown at work.</summary>
/// <param name="Rule">The name of the rule, as in the record that holds it, in camel case.</param>
/// <param name="Text">What it makes of a lesson of 50 min, in one or two sentences.</param>
public sealed record RuleExample(string Rule, string Text);

/// <summary>
/// Examples of what rules amount to. Nothing is worded from the thresholds themselves: each example is reckoned by the very
/// rules that count lessons, so that an example cannot say what a lesson would not.
/// </summary>
public static class RuleExamples
{
    private const int Length = 50;
    private static readonly Instant Start = Instant.FromUtc(2026, 9, 7, 8, 30);
    private static readonly LessonTimes Lesson =
        new(Start, Start + Duration.FromMinutes(Length), Start, Start + Duration.FromMinutes(Length), DropIn: false);

    /// <summary>An example for each threshold of the rules.</summary>
    /// <param name="rules">Rules with nothing wrong with them.</param>
    public static IReadOnlyList<RuleExample> Of(ClassRules rules)
    {
        var scheme = rules.Scheme;
        var policy = scheme.Attendance;
        return
        [
            new("lateAfter", $"Coming at {Clock(policy.LateAfter)} is {Came(policy.LateAfter)}; a minute later it is {Came(policy.LateAfter + Minutes(1))}."),
            new("lateInDropIn", $"Coming to a drop-in lesson {Words.Minutes(policy.LateAfter + Minutes(1))} after its start is {Came(policy.LateAfter + Minutes(1), dropIn: true)}."),
            new("leftEarlyBefore", LeavingEarly()),
            new("bridge", Dropping()),
            new("absentBelow", ShortStay()),
            new("absentBelowShare", Threshold()),
            new("enoughShare", Partly()),
            new("lateCredit", $"Coming {Words.Minutes(policy.LateAfter + Minutes(1))} late earns {Words.Plain(Credit(policy.LateAfter + Minutes(1), Length))} of 1 for attendance."),
            new("leftEarlyCredit", $"Leaving {Words.Minutes(policy.LeftEarlyBefore + Minutes(1))} before the end earns {Words.Plain(Credit(Duration.Zero, Length - policy.LeftEarlyBefore.TotalMinutes - 1))} of 1 for attendance."),
            new("missedCounts", policy.MissedCounts
                ? "Saga comes at 08:50, and a question was asked at 08:40: asked, and not answered."
                : "Saga comes at 08:50, and a question was asked at 08:40: for Saga there was no question."),
            new("creditBy", $"There for 25 of {Length} min from the start: {Words.Plain(Credit(Duration.Zero, 25))} of 1 for attendance."),
            new("weights", Weighing()),
            new("speakingTarget", $"One full turn: {Percent(Speaking(Turn(TurnOutcome.Full)))} of speaking. A partial one: {Percent(Speaking(Turn(TurnOutcome.Partial)))}. Two full ones: {Percent(Speaking(Turn(TurnOutcome.Full), Turn(TurnOutcome.Full)))}."),
            new("uncalledHand", $"A hand up that nobody got to, while others were called: {Percent(Strands(There() with { LineWasOpen = true, Hands = [Hand()] }, Strand.Speaking))} of speaking."),
            new("signalAnswered", $"Two signal rounds answered, and no turn though the line was open: {Percent(Strands(There() with { LineWasOpen = true, SignalRounds = [new(true, Guid.Empty), new(true, Guid.Empty)] }, Strand.Speaking))} of speaking."),
            new("signalGiven", scheme.SignalGiven == 0
                ? "Çağla shows “not sure” of her own accord: you see it on her row, and it counts for nothing."
                : $"Çağla shows a signal of her own accord, twice, and has no turn though the line was open: {Percent(Strands(There() with { LineWasOpen = true, SignalsGiven = [Guid.Empty, Guid.Empty] }, Strand.Speaking))} of speaking."),
            new("openLineIsChance", Strands(There() with { LineWasOpen = true }, Strand.Speaking) is null
                ? "Others were called from the line, this student raised no hand: no chance, so speaking is left out."
                : "Others were called from the line, this student raised no hand: speaking counts, with nothing earned."),
            new("writtenStandsIn", $"One message that counts, and no turn though the line was open: {Percent(Strands(Wrote(1), Strand.Speaking))} of speaking."),
            new("writtenAtMost", $"Eight messages that count, and no turn: {Percent(Strands(Wrote(8), Strand.Speaking))} of speaking. With a partial turn: {Percent(Strands(Wrote(8) with { Turns = [Turn(TurnOutcome.Partial)] }, Strand.Speaking))}."),
            new("turnInChat", $"One full turn, and nothing in the chat: {Percent(Strands(There() with { Turns = [Turn(TurnOutcome.Full)] }, Strand.Chat))} of chat."),
            new("turnsInChatAtMost", $"Eight full turns, and nothing in the chat: {Percent(Strands(There() with { Turns = [.. Enumerable.Repeat(Turn(TurnOutcome.Full), 8)] }, Strand.Chat))} of chat."),
            new("marksShare", $"All four quiz questions answered, two of them right: {Percent(Strands(There() with { Questions = [Asked(1), Asked(1), Asked(0), Asked(0)] }, Strand.Questions))} of questions."),
            new("chatTarget", $"One message that counts: {Percent(Strands(There() with { Chat = [(ChatKind.Question, Guid.Empty)] }, Strand.Chat))} of chat."),
            new("nodsOnBoard", rules.NodsOnBoard switch
            {
                NodsOnBoard.Never => "Saga helps Eino and gets a nod: you see it, and both see nothing.",
                NodsOnBoard.WhenShown => "Saga helps Eino and gets a nod: it stands on her own page at once, and on the board for a moment if you press.",
                _ => "Saga helps Eino and gets a nod: it stands on her own page at once, and on the board for a moment.",
            }),
            new("pageByName", rules.PageByName ? "Kensa has lost her slip: she gives her name, and you let her in with one press." : "Kensa has lost her slip: she comes in with a new one, or not at all."),
            new("pageShowsScores", rules.PageShowsScores ? "Saga reads on her own page why she has 88, and can say that something is wrong." : "Saga asks you for her scores."),
            new("pageShowsStrokes", rules.PageShowsStrokes ? "Saga sees on her own page that she has spoken once and answered two of three." : "Saga sees her own answers and nothing else."),
            new("signalsAnyTime", rules.SignalsAnyTime ? "Çağla shows “not sure” while you explain: it stands on her row for a minute." : "Çağla can show “not sure” when you ask for signals, and else raise a hand."),
            new("studentsHandOn", rules.StudentsHandOn ? "Juno has said what she saw and gives the word to Eino on her page: a full turn for her, and his begins." : "Juno has said what she saw; who is next, you say."),
            new("speechSeconds", rules.SpeechFrom > Duration.FromSeconds(24)
                ? "Juno is heard for 24 s in the captions and nothing was noted: nothing is asked."
                : "Juno is heard for 24 s in the captions and nothing was noted: you are asked whether it was a turn."),
            new("keepsSpoken", rules.KeepsSpoken
                ? "Juno is heard for 24 s in the captions: her words stand beside it, in settling and in her entries."
                : "Juno is heard for 24 s in the captions: that she spoke is kept, and for how long; what she said is not."),
            new("extraTimeShare", $"Ingvild has the tag “{ClassRules.ExtraTimeTag}”: of a question of 60 s she has {Words.Plain(60 + (60 * rules.ExtraTimeShare))} s."),
            new("readyJoinsLine", rules.ReadyJoinsLine ? "Tram writes “ready” and stands in line behind Ingvild, who wrote it first." : "“ready” is a message like any other; hands alone make the line."),
            new("chatCounts", scheme.ChatCounts ? "A question in the chat earns a stroke that counts." : "The chat is left out of every score; strokes still show who wrote."),
            new("nodPoints", $"One nod: {Plus(1)}. Three nods: {Plus(3)}. Twenty nods: {Plus(20)}."),
            new("absenceScoresZero", $"Absent without excuse from a lesson: {Words.Plain(Score(Missing()) ?? 0)} of 100, reckoned from {CountOfStrands(Missing())}."),
            new("places", $"A score of 71.4286 is shown as {scheme.Shown(71.4286m).ToString($"F{scheme.Places}", CultureInfo.InvariantCulture)}."),
            new("lowestLeftOut", OverTerm()),
            new("lessonsWeighTheSame", ShortAndLong()),
            new("lessonsForTerm", $"With {scheme.LessonsForTerm + scheme.LowestLeftOut - 1} scored lessons there is no term score yet; with {scheme.LessonsForTerm + scheme.LowestLeftOut} there is."),
        ];

        string Came(Duration after, bool dropIn = false) => Present(after, Length, dropIn).Status.InWords();

        string LeavingEarly()
        {
            var at = policy.LeftEarlyBefore;
            var (just, more) = (Present(Duration.Zero, Length - at.TotalMinutes), Present(Duration.Zero, Length - at.TotalMinutes - 1));
            return $"Leaving {Words.Minutes(at)} before the end is {Left(just)}; a minute earlier it is {Left(more)}.";
        }

        static string Left(AttendanceResult result) =>
            result.Flags.HasFlag(AttendanceFlags.LeftEarly) ? "leaving early" : !result.WasThere ? result.Status.InWords() : "staying to the end";

        string Dropping()
        {
            var gap = policy.Bridge + Minutes(1);
            return $"Gone for {Words.Minutes(policy.Bridge)} in the middle: {Words.Minutes(WithGap(policy.Bridge).Present)} count of {Length}. Gone for {Words.Minutes(gap)}: {Words.Minutes(WithGap(gap).Present)}.";
        }

        AttendanceResult WithGap(Duration gap)
        {
            var (out1, in2) = (Start + Minutes(20), Start + Minutes(20) + gap);
            return Reckon([Join(Start), Leave(out1), Join(in2), Leave(Lesson.CountedTo)]);
        }

        string ShortStay()
        {
            var below = Duration.Min(policy.AbsentBelow, Minutes(Length) * (double)policy.AbsentBelowShare);
            var just = Present(Duration.Zero, below.TotalMinutes - 0.5);
            return below <= Duration.Zero
                ? "Whoever was seen at all was there."
                : $"There for {Seconds(below - Duration.FromSeconds(30))}: {just.Status.InWords()}. There for {Seconds(below)}: {Present(Duration.Zero, below.TotalMinutes).Status.InWords()}.";
        }

        string Threshold()
        {
            var shortLesson = Duration.Min(policy.AbsentBelow, Minutes(20) * (double)policy.AbsentBelowShare);
            return $"In a lesson of 20 min the least that counts as being there is {Seconds(shortLesson)}.";
        }

        string Partly()
        {
            var enough = Length * (double)policy.EnoughShare;
            var just = Present(Duration.Zero, enough);
            var less = Present(Duration.Zero, enough - 1);
            return $"{Words.Plain((decimal)enough)} of {Length} min is {PartlyOrNot(just)}; a minute less is {PartlyOrNot(less)}.";
        }

        static string PartlyOrNot(AttendanceResult result) => result.Flags.HasFlag(AttendanceFlags.Partly) ? "there only partly" : "being there";

        string Weighing()
        {
            var did = There() with { Turns = [Turn(TurnOutcome.Full)] };
            return $"There from start to end, one full turn, nothing in the chat, no questions asked: {Words.Plain(Score(did) ?? 0)} of 100.";
        }

        string Plus(int nods)
        {
            var did = There(late: true);
            var (without, with) = (Score(did) ?? 0, Score(did with { Nods = [.. Enumerable.Repeat(Guid.Empty, nods)] }) ?? 0);
            return $"{Words.Plain(with - without)} more";
        }

        string OverTerm()
        {
            decimal[] scores = [40, 60, 80, 100, 100];
            var term = TermScore.Of([.. scores.Select(s => new ScoredLesson("a lesson", s, Length))], scheme with { LessonsForTerm = 1 }).Total;
            return $"Five lessons of {string.Join(", ", scores.Select(Words.Plain))} make a term score of {Words.Plain(term?.Value ?? 0)}.";
        }

        string ShortAndLong()
        {
            var term = TermScore.Of(
                [new("short", 100, 20), new("long", 50, 60), new("long", 50, 60)],
                scheme with { LessonsForTerm = 1, LowestLeftOut = 0 }).Total;
            return $"One short lesson of 20 min with 100 and two of 60 min with 50 each make {Words.Plain(term?.Value ?? 0)}.";
        }

        AttendanceResult Present(Duration after, double untilMinute, bool dropIn = false) => untilMinute * 60 <= after.TotalSeconds
            ? Reckon([], dropIn)
            : Reckon([Join(Start + after), Leave(Start + Minutes(untilMinute))], dropIn);

        AttendanceResult Reckon(IReadOnlyList<Sighting> sightings, bool dropIn = false) =>
            AttendanceRules.Reckon(Lesson with { DropIn = dropIn }, new StudentEvidence(sightings, []), policy);

        decimal Credit(Duration after, double untilMinute) => Present(after, untilMinute).Credit ?? 0;

        Participation There(bool late = false) => new()
        {
            Attendance = Present(late ? policy.LateAfter + Minutes(1) : Duration.Zero, Length),
        };

        Participation Wrote(int messages) => There() with { LineWasOpen = true, Chat = [.. Enumerable.Repeat((ChatKind.Idea, Guid.Empty), messages)] };

        Participation Missing() => new() { Attendance = Reckon([]) };

        decimal? Score(Participation did) => LessonScore.Of(did, scheme).Total?.Value;

        decimal? Strands(Participation did, Strand strand) => LessonScore.Of(did, scheme).Strands.Single(s => s.Strand == strand).Value?.Value;

        decimal? Speaking(params Turn[] turns) => Strands(There() with { Turns = turns }, Strand.Speaking);

        string CountOfStrands(Participation did)
        {
            var count = LessonScore.Of(did, scheme).Strands.Count(s => s.Value is not null);
            return count == 1 ? "attendance alone" : $"{count} strands";
        }
    }

    private static Turn Turn(TurnOutcome outcome) => new(Guid.Empty, TurnOrigin.Invited, Start, null, outcome, []);

    private static Hand Hand() => new(Guid.Empty, Start + Minutes(10), Guid.Empty, HandStage.Up);

    private static QuestionChance Asked(decimal marks) => new(Answered: true, marks, 1, []);

    private static JoinAt Join(Instant at) => new(at, Guid.Empty, "");

    private static LeaveAt Leave(Instant at) => new(at, Guid.Empty, "");

    private static Duration Minutes(double minutes) => Duration.FromMinutes(minutes);

    private static string Clock(Duration after) =>
        (Start.InUtc().LocalDateTime + Period.FromSeconds((long)after.TotalSeconds)).ToString("HH:mm", CultureInfo.InvariantCulture)
        + $" to a lesson at {Start.InUtc().ToString("HH:mm", CultureInfo.InvariantCulture)}";

    private static string Seconds(Duration length) => length.Seconds == 0
        ? Words.Minutes(length)
        : $"{(int)length.TotalMinutes} min {length.Seconds} s";

    private static string Percent(decimal? share) => share is { } value ? $"{Words.Plain(value * 100)} %" : "no chance";
}
