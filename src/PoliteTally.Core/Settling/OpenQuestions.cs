using System.Globalization;
using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Chat;
using PoliteTally.Core.GroundRules;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Lessons;
using PoliteTally.Core.Meeting;
using PoliteTally.Core.Merging;
using PoliteTally.Core.Names;
using PoliteTally.Core.Questions;
using PoliteTally.Core.Text;

namespace PoliteTally.Core.Settling;

/// <summary>What a lesson still asks of its teacher before it is settled; nothing that its sources agree on is asked.</summary>
/// <param name="state">The lesson.</param>
/// <param name="times">When it was meant to be, and when it was.</param>
/// <param name="rules">The rules of the class.</param>
/// <param name="roster">The ids of its students, in the order of the register.</param>
/// <param name="zone">The zone in which times are said.</param>
public sealed class OpenQuestions(LessonState state, LessonTimes times, ClassRules rules, IReadOnlyList<Guid> roster, DateTimeZone zone)
{
    /// <summary>The most students who are proposed for one name.</summary>
    private const int MostProposals = 3;

    /// <summary>The most messages that are sorted by one answer: 400.</summary>
    public const int MostMessages = 400;

    // So much of what was said is enough to know the moment by.
    private const int LongestSaid = 160;

    // A turn whose end nobody noted lasts at least this long.
    private static readonly Duration Shortest = Duration.FromSeconds(1);

    /// <summary>Everything that is asked: names, then where everybody was, in the order of the register, turns, answers, and messages.</summary>
    /// <param name="names">Whose the names in the meeting could be.</param>
    public IReadOnlyList<OpenQuestion> All(IReadOnlyList<NameMatch> names) =>
    [
        .. names.Select(OfName).OfType<OpenQuestion>(), .. new AttendanceQuestions(state, times, rules.Scheme.Attendance, roster, zone).All(),
        .. state.HandLine.Turns.Where(t => t.Outcome is null).Select(OfTurn), .. state.HandLine.Heard.Where(h => h.Length >= rules.SpeechFrom).Select(OfSpeech),
        .. OfAnswers(), .. OfMessages() is { } messages ? [messages] : Array.Empty<OpenQuestion>(),
    ];

    /// <summary>Messages of students that nobody has sorted.</summary>
    public static IReadOnlyList<ChatMessage> Waiting(LessonState state) => [.. state.Chat.Messages.Where(m => m.IsToSweep && m.Student is not null)];

    private OpenQuestion? OfName(NameMatch match)
    {
        var (name, beside) = (match.Shown.Name, state.Names.TellingApart(match.Shown.Name, match.Shown.Beside));
        if (state.Names.All.GetValueOrDefault(state.Names.WhoIs(name, match.Shown.Beside)) is not { Match: null } shown)
        {
            return null;
        }

        // Somebody's relation is nobody of the class, however well the name fits.
        var isRelation = match.By == MatchedBy.SomebodyOf;
        List<Guid> likely = isRelation ? [] : [.. match.Proposals.Take(MostProposals)];
        var missing = likely.Count == 0 && !isRelation && shown.Sightings.Count > 0 && Missing() is [var only] ? only : (Guid?)null;
        if (missing is { } one)
        {
            likely.Add(one);
        }

        var none = new Choice("", "not a student", null, [new NameMatched(name, null) { Beside = beside }]);
        var why = missing is not null ? "nobody else of the class is missing"
            : isRelation ? "somebody of theirs, by the name"
            : likely.Count > 0 ? "the likest name"
            : "like nobody’s name here";
        return new OpenQuestion(
            $"name {state.Names.WhoIs(name, match.Shown.Beside)}", Asks.WhoseName, null, name,
            [.. likely.Select(s => new Choice("", "", s, [new NameMatched(name, s) { Beside = beside }])), none],
            isRelation ? likely.Count : match.Certainty == Certainty.Unknown ? null : 0, Seen(shown) is { Length: > 0 } seen ? $"{seen}; {why}" : why);
    }

    // Never counted by itself: a caption does not know an answer from a chat with the neighbour.
    private OpenQuestion OfSpeech(SpeechHeard heard) => new(
        $"speech {heard.Entry}", Asks.WasItATurn, heard.Student, "",
        [
            new Choice("", "a turn, full", null, [new TurnTaken(heard.Student, TurnOutcome.Full, TurnOrigin.Invited)], heard.At),
            new Choice("", "no turn", null, [new Struck(heard.Entry)]),
        ],
        0, $"captions: spoke for {Seconds(heard.Length)} s at {Clock(heard.At)}, and nothing was noted{(heard.Said is { Length: > 0 } said ? $": “{Words.Cut(said, LongestSaid)}”" : "")}");

    private OpenQuestion OfTurn(Turn turn)
    {
        var heard = turn is { IsMeasured: true, Length: { } length } ? length : (Duration?)null;
        var ended = turn.At + (heard is { } spoke && spoke > Shortest ? spoke : Shortest);
        Choice Ended(TurnOutcome outcome) => new("", outcome.InWords(), null, [new TurnTaken(turn.Student, outcome, turn.Origin)], ended);
        return new OpenQuestion(
            $"turn {turn.Entries[0]}", Asks.HowItEnded, turn.Student, "", [Ended(TurnOutcome.Full), Ended(TurnOutcome.Partial), Ended(TurnOutcome.Pass), Ended(TurnOutcome.CouldNot)],
            heard >= rules.SpeechFrom ? 0 : null,
            $"called at {Clock(turn.At)}, and nobody said how it ended{(heard is { } spokeFor ? $"; captions: spoke for {Seconds(spokeFor)} s" : "")}");
    }

    // What the page took at that moment is better known, unless the file has a later answer.
    private IEnumerable<OpenQuestion> OfAnswers() =>
        from asking in state.Questions.All
        from answer in asking.Answers
        let given = answer.Value
        where !given.ByTeacher && roster.Contains(answer.Key)
        let other = state.Files.SupportOf(given.Entry).LastOrDefault(e => e.Act is NameAnswered told && told.Answer.Written != given.Answer.Written)
        where other is not null
        let told = (NameAnswered)other.Act
        where AnswerRules.WhyRefused(asking.Question, told.Answer) is null
        let isLater = told.Timed && other.HappenedAt > given.At + SameActs.Within
        select new OpenQuestion(
            $"answer {asking.Id} {answer.Key}", Asks.WhichAnswer, answer.Key, "",
            [
                new Choice("the page", given.Answer.InWords(asking.Question), null, [new AnswerGiven(answer.Key, asking.Id, given.Answer)]),
                new Choice("the file", told.Answer.InWords(asking.Question), null, [new AnswerGiven(answer.Key, asking.Id, told.Answer)]),
            ],
            isLater ? 1 : 0,
            $"“{asking.Question.Text}”; {(isLater ? $"the file has it of {Clock(other.HappenedAt)}, the page of {Clock(given.At)}" : "the page took it at that moment")}");

    // All that a look at the words can sort is one answer; what it cannot stays to be swept.
    private OpenQuestion? OfMessages()
    {
        var waiting = Waiting(state);
        var all = waiting.Where(m => m.Proposed != ChatKind.Unsorted).ToList();
        // What is noted at once is sent at once; of more messages the others are asked about next.
        var proposed = all.Take(MostMessages).ToList();
        return proposed.Count == 0 ? null : new OpenQuestion(
            "messages", Asks.WhatMessages, null, Words.Count(waiting.Count, "message"),
            [
                new Choice(
                    "by their words", string.Join(", ", proposed.CountBy(m => m.Proposed).OrderBy(k => k.Key).Select(k => k.Key.Counted(k.Value))), null,
                    [.. proposed.Select(m => new ChatSorted(m.Entry, m.Proposed))]),
            ],
            0, waiting.Count > all.Count ? $"{waiting.Count - all.Count} more cannot be told by their words" : "by their form alone; a look at each is better");
    }

    private List<Guid> Missing() => [.. roster.Where(s => state.EvidenceOf(s) is { Sightings.Count: 0, Marks.Count: 0, Excuse: null })];

    private string Seen(NameShown shown)
    {
        var at = shown.Sightings.Where(s => s is not PresentFor).Select(s => s.At).ToList();
        return at.Count == 0 ? "" : at.Min() == at.Max() ? Clock(at.Min()) : $"{Clock(at.Min())} to {Clock(at.Max())}";
    }

    private static string Seconds(Duration length) => length.TotalSeconds.ToString("0", CultureInfo.InvariantCulture);

    private string Clock(Instant at) => Words.Clock(at, zone);
}
