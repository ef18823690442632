using System.Globalization;
using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Chat;
using PoliteTally.Core.GroundRules;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Lessons;
using PoliteTally.Core.Merging;
using PoliteTally.Core.Names;
using PoliteTally.Core.Questions;
using PoliteTally.Core.Register;
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
    /// <summary>The most messages that are sorted by one answer: 400.</summary>
    public const int MostMessages = 400;

    // So much of what was said is enough to know the moment by.
    private const int LongestSaid = 160;

    // A turn whose end nobody noted lasts at least this long.
    private static readonly Duration Shortest = Duration.FromSeconds(1);

    /// <summary>Everything that is asked: names, clocks, then where everybody was, in the order of the register, turns, answers, and messages.</summary>
    /// <param name="names">Whose the names in the meeting could be.</param>
    public IReadOnlyList<OpenQuestion> All(IReadOnlyList<NameMatch> names)
    {
        var attended = roster.ToDictionary(s => s, s => state.AttendanceOf(s, times, rules.Scheme.Attendance));
        return
        [
            .. new NameQuestions(state, times, rules.Scheme.Attendance, attended, zone).All(names),
            .. state.Files.UnsureClocks.Select(OfClocks).OfType<OpenQuestion>(),
            .. new AttendanceQuestions(state, times, rules.Scheme.Attendance, roster, attended, zone).All(),
            .. state.HandLine.Turns.Where(t => t.Outcome is null).Select(OfTurn), .. state.HandLine.Heard.Where(h => h.Length >= rules.SpeechFrom).Select(OfSpeech),
            .. OfAnswers(), .. OfMessages() is { } messages ? [messages] : Array.Empty<OpenQuestion>(),
        ];
    }

    /// <summary>Messages of students that nobody has sorted.</summary>
    public static IReadOnlyList<ChatMessage> Waiting(LessonState state) => [.. state.Chat.Messages.Where(m => m.IsToSweep && m.Student is not null)];

    // Worth asking only if somebody would stand in the register otherwise.
    private OpenQuestion? OfClocks(IReadOnlyList<MergedFile> files)
    {
        var choices = files.Select(f => new Choice("", $"“{f.File.Name}”{(files.Any(o => o != f && o.File.Name == f.File.Name) ? $" with {Words.Count(f.File.Rows, "row")}" : "")} is right", null, [new ClockSet(f.Entry.Id, Duration.Zero)])).ToList();
        var registers = choices.ConvertAll(c => RegisterOf(state.With([new Entry(Guid.Empty, state.Entries[^1].HappenedAt, state.Entries[^1].NotedAt, Source.Tapped, "", c.Acts[0])])));
        return registers.TrueForAll(r => r.SequenceEqual(registers[0])) ? null : new OpenQuestion(
            $"clock {files[0].Entry.Id}", Asks.WhichClock, null, "Clocks", choices, 0,
            $"{Words.Listed(files.Skip(1).Select(f => Apart(f.Clock.Ahead)))} apart, and nothing else tells which is right");
    }

    private List<RegisterMark> RegisterOf(LessonState other) => [.. roster.Select(s => RegisterMark.Of(s, null, "", other.AttendanceOf(s, times, rules.Scheme.Attendance)))];

    private static string Apart(Duration ahead) => Math.Abs(ahead.TotalSeconds) is var seconds && seconds < 120 ? $"{seconds:0} s" : Words.Minutes(Duration.FromSeconds(seconds));

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

    private static string Seconds(Duration length) => length.TotalSeconds.ToString("0", CultureInfo.InvariantCulture);

    private string Clock(Instant at) => Words.Clock(at, zone);
}
