using NodaTime;
using PoliteTally.Core.Chat;
using PoliteTally.Core.Lessons;
using PoliteTally.Core.Plans;
using PoliteTally.Store;

namespace PoliteTally.Web.Features.Live;

/// <summary>The chat as it is swept: every message that has a text and is not hidden, in order.</summary>
public sealed record ChatView(long Position, IReadOnlyList<ChatLine> Messages)
{
    private const int Shown = 2000;

    internal static ChatView Of(OpenLesson open, LessonState state, long position, bool withPrivate)
    {
        var names = open.ShortNames;
        return new ChatView(position,
        [
            .. state.Chat.Messages.Where(m => m.Text.Length > 0 && m.Hidden is null && (withPrivate || !m.Private)).TakeLast(Shown)
                .Select(m => new ChatLine(
                    m.Entry, m.At, m.Student, m.Student is { } id && names.TryGetValue(id, out var name) ? name : m.Name, m.Text, m.Private, m.Kind,
                    m.SortedBy is not null, m.Proposed, m.DealtWith is not null, m.Repeat, m.Chosen is not null, m.Shown,
                    StageClock.At(open.Plan, state.Course.StartedAt, state.Course.StageMoves, m.At)?.Name,
                    m.SortedBy is null && m.Student is { } whose && state.HandLine.PausedBy(whose) is null && ChatProposal.AsksNotToBeCalled(m.Text))),
        ]);
    }
}

/// <summary>A message.</summary>
/// <param name="Student">Who wrote it; null if the name belongs to no student, or to nobody yet.</param>
/// <param name="Who">Their short name, or the name shown.</param>
/// <param name="Private">Only the teacher could read it.</param>
/// <param name="Sorted">Whether its kind is settled.</param>
/// <param name="Proposal">What it probably is.</param>
/// <param name="Repeat">The same by the same within a minute: it does not count.</param>
/// <param name="FromPage">Whether it was written on a student page.</param>
/// <param name="Shown">The entry that shows it to the class; null while it is between the student and the teacher.</param>
/// <param name="CannotSpeak">Whether it asks not to be called today, and nobody has looked at it yet.</param>
/// <param name="Stage">The stage of the plan in which it was written; null before the lesson, or if there are none.</param>
public sealed record ChatLine(
    Guid Entry, Instant At, Guid? Student, string Who, string Text, bool Private, ChatKind Kind, bool Sorted, ChatKind Proposal, bool DealtWith, bool Repeat, bool FromPage,
    Guid? Shown, string? Stage, bool CannotSpeak);
