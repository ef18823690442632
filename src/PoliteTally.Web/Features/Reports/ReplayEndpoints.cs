using Microsoft.AspNetCore.Http.HttpResults;
using NodaTime;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Lessons;
using PoliteTally.Core.Plans;
using PoliteTally.Core.Scoring;
using PoliteTally.Store;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Features.Reports;

/// <summary>The sheet of a lesson as it stood at a moment.</summary>
/// <param name="Planned">When the lesson was to begin.</param>
/// <param name="From">When the lesson began.</param>
/// <param name="To">When it ended.</param>
/// <param name="Stage">The stage that was on; null without any.</param>
/// <param name="Turn">Who had the word; null if nobody had.</param>
/// <param name="Hands">Hands that were up, in their order.</param>
/// <param name="Questions">Questions that were open.</param>
/// <param name="Groups">The groups there were.</param>
public sealed record ReplayView(
    Instant Planned, Instant From, Instant To, Instant At, string? Stage, string? Turn, IReadOnlyList<ReplayHand> Hands, IReadOnlyList<string> Questions, IReadOnlyList<ReplayGroup> Groups, IReadOnlyList<ReplayRow> Rows);

/// <summary>A hand that was up.</summary>
public sealed record ReplayHand(string Name, int WaitedSeconds);

/// <summary>A group, with what its members are called.</summary>
public sealed record ReplayGroup(string Name, IReadOnlyList<string> Members);

/// <summary>A student as the sheet stood.</summary>
/// <param name="Here">Whether they were there.</param>
public sealed record ReplayRow(Guid Id, string Name, bool Here, int FullTurns, int PartialTurns, int Answered, int Chat, int Nods);

/// <summary>Lessons that are replayed, as they stand: whoever moves the slider asks of one lesson many times.</summary>
public sealed class Replays
{
    private const int Most = 4;
    private readonly List<(Guid Lesson, long Position, Replay Replay)> _kept = [];

    internal Replay Of(OpenLesson open)
    {
        lock (_kept)
        {
            var at = _kept.FindIndex(k => k.Lesson == open.Lesson.Id && k.Position == open.Position);
            var found = at >= 0 ? _kept[at] : (open.Lesson.Id, open.Position, new Replay(open.State, open.Merged));
            _kept.RemoveAll(k => k.Lesson == open.Lesson.Id);
            _kept.Add(found);
            _kept.RemoveRange(0, Math.Max(0, _kept.Count - Most));
            return found.Item3;
        }
    }
}

internal static class ReplayEndpoints
{
    public static void MapReplay(this RouteGroupBuilder api) =>
        api.MapGet("/lessons/{id:guid}/replay", Results<Ok<ReplayView>, ProblemHttpResult> (Guid id, OwnLesson own, long? at, Replays replays) =>
        {
            var open = own.Open;
            var (from, to) = (open.Times.HeldFrom, open.Times.HeldTo);
            // Unasked, its middle: at its end people may have gone already.
            var asked = at ?? (from + ((to - from) / 2)).ToUnixTimeMilliseconds();
            // Any moment that a clock can show; outside of the lesson it is its beginning or its end.
            var moment = Instant.FromUnixTimeMilliseconds(Math.Clamp(asked, from.ToUnixTimeMilliseconds(), Math.Max(from.ToUnixTimeMilliseconds(), to.ToUnixTimeMilliseconds())));
            var replay = replays.Of(open);
            LessonState then;
            lock (replay)
            {
                then = replay.At(moment);
            }

            return TypedResults.Ok(Of(open, then, from, to, moment));
        }).WithName("ReplayLesson");

    private static ReplayView Of(OpenLesson open, LessonState then, Instant from, Instant to, Instant at)
    {
        var policy = open.Rules.Scheme.Attendance;
        string Called(Guid student) => open.ShortNames.GetValueOrDefault(student, "A former student");
        var turns = then.HandLine.Turns.ToLookup(t => t.Student);
        return new ReplayView(
            open.Times.PlannedStart, from, to, at, StageClock.At(open.Plan, open.Times.ActualStart, then.Course.StageMoves, at)?.Name, then.HandLine.Current is { } current ? Called(current.Student) : null,
            [.. then.HandLine.Hands.Where(h => h.InLine).OrderBy(h => h.RaisedAt).Select(h => new ReplayHand(Called(h.Student), (int)(at - h.RaisedAt).TotalSeconds))],
            [.. then.Questions.All.Where(q => q.IsOpen).Select(q => q.Question.Text)], [.. then.Groups.Now.Select(g => new ReplayGroup(g.Name, [.. g.Members.Select(m => Called(open.Whose(m)))]))],
            [
                .. open.Roster.Select(s => s.Name.Id).Select(id => new ReplayRow(
                    id, Called(id), open.State.AttendanceOf(id, open.Times, policy).WasThereAt(at, policy.Bridge),
                    turns[id].Count(t => t.Outcome == TurnOutcome.Full), turns[id].Count(t => t.Outcome == TurnOutcome.Partial),
                    then.Questions.All.Count(q => q.Answers.ContainsKey(id)), then.Chat.Of(id).Count(m => Scheme.CreditOf(m.CountsAs) > 0), then.Notes.NodsOf(id).Count)),
            ]);
    }
}
