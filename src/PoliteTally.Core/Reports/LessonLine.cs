using NodaTime;
using PoliteTally.Core.Plans;
using PoliteTally.Core.Scoring;
using PoliteTally.Core.Text;

namespace PoliteTally.Core.Reports;

/// <summary>A minute of a lesson.</summary>
/// <param name="At">Its end.</param>
/// <param name="Stage">The stage that was on; null without any.</param>
/// <param name="Present">How many were there.</param>
/// <param name="Hands">How many hands were up.</param>
/// <param name="Turns">Turns up to then in which somebody was heard, full or in part.</param>
/// <param name="Messages">Messages up to then.</param>
public sealed record MinuteOfLesson(Instant At, string? Stage, int Present, int Hands, int Turns, int Messages);

/// <summary>A lesson on one line of time: stages, who was there, hands, turns, questions, chat, groups.</summary>
public static class LessonLine
{
    private const int MostMinutes = 240;
    private const decimal Left = 70;
    private static readonly decimal Room = Sketch.PageWidth - Left;

    /// <summary>The minutes of a lesson, from when it began to when it ended; at most 240.</summary>
    public static IReadOnlyList<MinuteOfLesson> MinutesOf(LessonTaught lesson)
    {
        var (from, to) = SpanOf(lesson);
        var minutes = (int)Math.Clamp(Math.Ceiling((to - from).TotalMinutes), 1, MostMinutes);
        var (turns, messages) = (lesson.State.HandLine.Turns, lesson.State.Chat.Messages);
        return
        [
            .. Enumerable.Range(1, minutes).Select(m => from + Duration.FromMinutes(m)).Select(at => new MinuteOfLesson(
                at, StageClock.At(lesson.Plan, lesson.Times.ActualStart, lesson.State.Course.StageMoves, at - Duration.Epsilon)?.Name,
                lesson.Did.Values.Count(d => d.Attendance.WasThereAt(at - Duration.Epsilon, lesson.Scheme.Attendance.Bridge)),
                lesson.Replay.At(at).HandLine.Hands.Count(h => h.InLine), turns.Count(t => t.At < at && Scheme.CreditOf(t.Outcome) > 0), messages.Count(c => c.At < at && !c.Repeat))),
        ];
    }

    /// <summary>The drawing.</summary>
    /// <param name="lesson">The lesson.</param>
    /// <param name="minutes">Its minutes.</param>
    public static Drawing Of(LessonTaught lesson, IReadOnlyList<MinuteOfLesson> minutes)
    {
        var (sketch, (from, to)) = (new Sketch(Sketch.PageWidth), SpanOf(lesson));
        decimal X(Instant at) => Left + (Room * Math.Clamp((decimal)((at - from) / (to - from)), 0, 1));
        var y = 10m;
        for (var at = from; at <= to; at += Duration.FromMinutes(minutes.Count > 90 ? 30 : 10))
        {
            sketch.Words(Pen.Soft, X(at), y, lesson.Clock(at), 7.5m, at + Duration.FromMinutes(2) > to ? Side.End : Side.Start);
            sketch.Line(Pen.Rule, X(at), y + 4, X(at), y + 8, 0.7m);
        }

        y += 20;
        if (lesson.Plan.Stages.Count > 0)
        {
            Stages("planned", lesson.Plan.Timed(lesson.Times.PlannedStart), Pen.Soft);
            Stages("as it was", lesson.StagesHeld(to), Pen.Ink);
        }

        Curve("present", [.. minutes.Select(m => m.Present)], lesson.Roster.Count, Pen.Ink, 30);
        if (minutes.Any(m => m.Hands > 0))
        {
            Curve("hands up", [.. minutes.Select(m => m.Hands)], minutes.Max(m => m.Hands), Pen.Speaking, 18);
        }

        Row("turns");
        foreach (var turn in lesson.State.HandLine.Turns.Where(t => Scheme.CreditOf(t.Outcome) > 0))
        {
            sketch.Line(Pen.Speaking, X(turn.At) + 0.4m, y - 10, X(turn.At), y, 1.5m);
        }

        y += 16;
        foreach (var asking in lesson.State.Questions.All.Take(6))
        {
            Row(asking == lesson.State.Questions.All[0] ? "questions" : "");
            var end = X(asking.ClosedAt ?? to);
            sketch.Line(Pen.Questions, X(asking.OpenedAt), y - 4, Math.Max(end, X(asking.OpenedAt) + 2), y - 4, 3);
            var text = Words.Cut(asking.Question.Text, 40);
            // On the side on which there is room.
            sketch.Words(Pen.Questions, end > Left + (Room * 0.6m) ? X(asking.OpenedAt) - 5 : end + 5, y - 1, text, 7.5m, end > Left + (Room * 0.6m) ? Side.End : Side.Start);
            y += 14;
        }

        var chat = minutes.Select((m, i) => m.Messages - (i == 0 ? 0 : minutes[i - 1].Messages)).ToList();
        if (chat.Any(c => c > 0))
        {
            Row("chat a minute", 16);
            for (var i = 0; i < chat.Count; i++)
            {
                if (chat[i] > 0)
                {
                    var x = Left + (Room * (i + 0.5m) / chat.Count);
                    sketch.Line(Pen.Chat, x, y, x, y - (18m * chat[i] / chat.Max()), Math.Min(3, Room / chat.Count / 2));
                }
            }

            y += 16;
        }

        foreach (var made in lesson.State.Entries.Where(e => e.Act is Groups.GroupsMade && !lesson.State.IsStruck(e.Id)).Select(e => (At: e.HappenedAt, Act: (Groups.GroupsMade)e.Act)).Take(3))
        {
            Row("groups");
            sketch.Line(Pen.Group, X(made.At), y - 8, X(made.At), y + 1, 1.5m);
            sketch.Words(Pen.Group, X(made.At) + 5, y - 1, Words.Count(made.Act.Groups.Count, "group"), 7.5m);
            y += 14;
        }

        return sketch.Done($"Lesson {lesson.Number} from {lesson.Clock(from)} to {lesson.Clock(to)}: stages, who was there, hands, turns, questions and chat. The table says it minute by minute.", y);

        void Row(string name, decimal height = 6)
        {
            y += height;
            sketch.Words(Pen.Soft, 0, y - 1, name, 7.5m);
            sketch.Line(Pen.Rule, Left, y + 1, Sketch.PageWidth, y + 1, 0.5m);
        }

        void Stages(string name, IReadOnlyList<TimedStage> stages, Pen pen)
        {
            sketch.Words(Pen.Soft, 0, y + 3, name, 7.5m);
            foreach (var stage in stages.Where(s => s.To > from && s.From < to))
            {
                var (start, end) = (X(stage.From), X(stage.To));
                sketch.Line(pen, start, y - 4, start, y + 5);
                sketch.Line(pen, start, y + 5, end, y + 5, 0.8m);
                // As much of the name as there is room for.
                var room = (int)((end - start - 4) / 4.2m);
                sketch.Words(pen, start + 3, y + 2, room > 3 || stage.Stage.Name.Length <= room ? Words.Cut(stage.Stage.Name, room) : "", 7.5m);
            }

            y += 17;
        }

        void Curve(string name, IReadOnlyList<int> values, int most, Pen pen, decimal height)
        {
            Row(name, height);
            sketch.Words(Pen.Soft, Left - 4, y - height + 5, $"{most}", 7, Side.End);
            decimal At(int value) => y - ((height - 4) * value / Math.Max(1, most));
            for (var i = 0; i < values.Count; i++)
            {
                var (start, end) = (Left + (Room * i / values.Count), Left + (Room * (i + 1) / values.Count));
                sketch.Line(pen, start, At(values[i]), end, At(values[i]), 1.6m);
                if (i > 0 && values[i] != values[i - 1])
                {
                    sketch.Line(pen, start, At(values[i - 1]), start, At(values[i]), 0.8m);
                }
            }

            y += 10;
        }
    }

    private static (Instant From, Instant To) SpanOf(LessonTaught lesson)
    {
        var (from, to) = (lesson.Times.HeldFrom, lesson.Times.HeldTo);
        return (from, to > from ? to : from + Duration.FromMinutes(1));
    }
}
