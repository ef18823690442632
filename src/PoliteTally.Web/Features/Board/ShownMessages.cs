using PoliteTally.Core.Chat;
using PoliteTally.Core.Lessons;
using PoliteTally.Store;

namespace PoliteTally.Web.Features.Board;

/// <summary>A message that is shown to the class.</summary>
/// <param name="Who">Who wrote it; null if that is not shown.</param>
public sealed record PageMessage(Guid Message, string? Who, ChatKind Kind, string Text);

internal static class ShownMessages
{
    /// <summary>Messages from student pages that are shown to the class.</summary>
    public static IEnumerable<PageMessage> In(OpenLesson open, LessonState state) => state.Chat.Messages
        .Where(m => m.Shown is not null && m.Hidden is null && m.Student is { } id && open.ShortNames.ContainsKey(id))
        .Select(m => new PageMessage(m.Entry, m.WithoutName ? null : open.ShortNames[m.Student!.Value], KindOf(m), m.Text));

    public static ChatKind KindOf(ChatMessage message) => message.SortedBy is null ? message.Chosen ?? message.Kind : message.Kind;
}
