using NodaTime;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Merging;
using PoliteTally.Core.Questions;

namespace PoliteTally.Core.Chat;

/// <summary>The messages of a lesson, as its entries tell them.</summary>
public sealed class ChatLog : LessonPart
{
    private readonly SharedIndex<Guid, SaidOfMessage> _saidOf;
    private readonly SharedIndex<Guid, ChatMessage> _byEntry;
    private readonly ListsBy<Guid, ChatMessage> _byStudent;
    private readonly Strokes _strokes;
    private GrowingList<ChatMessage> _messages;

    internal ChatLog() => (_saidOf, _byEntry, _byStudent, _strokes, _messages) = (new(), new(), new(), new(), new([]));

    private ChatLog(ChatLog from) =>
        (_saidOf, _byEntry, _byStudent, _strokes, _messages) = (from._saidOf.Copy(), from._byEntry.Copy(), from._byStudent.Copy(), from._strokes.Copy(), from._messages);

    /// <summary>Messages in the chat, in order.</summary>
    public IReadOnlyList<ChatMessage> Messages => _messages;

    /// <summary>Contributions of a student, in order.</summary>
    public IReadOnlyList<ChatMessage> Of(Guid student) => _byStudent[student];

    /// <summary>The message that an entry brought; null if it brought none.</summary>
    public ChatMessage? MessageOf(Guid entry) => _byEntry.TryGet(entry, out var message) ? message : null;

    /// <summary>Takes what is said of a message, whether it has come already or not.</summary>
    internal void Learn(Guid message, Func<SaidOfMessage, SaidOfMessage> more) =>
        _saidOf[message] = more(_saidOf.TryGet(message, out var said) ? said : new SaidOfMessage());

    /// <summary>Takes that there is a message of the meeting, or that the teacher noted one by its kind alone.</summary>
    internal void Learn(Entry entry) => _strokes.Learn(entry);

    /// <summary>Whether a message stands here that another one, told of the same student at a time, may be: one of the two was noted by hand and the other came by itself.</summary>
    internal bool HasOtherHalf(Guid student, Instant at, bool byHand) =>
        Before(_messages, at, SameActs.Within).Any(m => m.Student == student && m.Stroke is null && (byHand ? m.IsFromFeed : m is { Text: "", IsFromFeed: false }));

    internal void Say(Said said, Entry entry, LessonParts lesson)
    {
        _strokes.Pair(lesson);
        if (_strokes.IsMet(entry.Id))
        {
            return;
        }

        var words = _saidOf.TryGet(entry.Id, out var known) ? known : null;
        // Of a tap the words may stand in a file.
        var text = said.Text.Length > 0 ? said.Text : lesson.See<FilesMerged>().SupportOf(entry.Id).Select(e => e.Act).OfType<NameWrote>().FirstOrDefault()?.Text ?? "";
        var stroke = _strokes.Of(entry.Id);
        var noted = stroke?.Kind ?? said.Noted;
        var message = new ChatMessage(
            entry.Id, entry.HappenedAt, said.Student, said.Name, text, said.IsPrivate, words?.Sorted?.Kind ?? noted,
            words?.Sorted?.By ?? (noted == ChatKind.Unsorted ? null : stroke?.Entry ?? entry.Id), words?.Hidden, words?.DealtWith,
            text.Length > 0 && IsRepeat(said, text, entry.HappenedAt), said.Chosen, words?.Shown,
            lesson.See<QuestionsAsked>().WasOneOpenAt(entry.HappenedAt), words is { WithoutName: true },
            entry.Act is NameWrote && entry.Source != Source.File, stroke?.Entry);
        _messages = _messages.With(message);
        _byEntry[message.Entry] = message;
        if (said.Student is { } student)
        {
            _byStudent.Add(student, message);
        }
    }

    internal override LessonPart Copy() => new ChatLog(this);

    private bool IsRepeat(Said said, string text, Instant at)
    {
        var messages = said.Student is { } student ? Of(student) : _messages;
        for (var i = messages.Count - 1; i >= 0 && messages[i] is var m && at - m.At <= ChatMessage.RepeatWithin; i--)
        {
            if (m.Student == said.Student && m.Text == text && m.Name == said.Name)
            {
                return true;
            }
        }

        return false;
    }

    // Backwards and only so far, so that a long lesson does not make each message dearer.
    private static IEnumerable<ChatMessage> Before(GrowingList<ChatMessage> messages, Instant at, Duration within)
    {
        for (var i = messages.Count - 1; i >= 0 && at - messages[i].At <= within; i--)
        {
            yield return messages[i];
        }
    }
}

/// <summary>A message as it was said.</summary>
/// <param name="Student">Whose it is; null if the name belongs to nobody yet, or to no student.</param>
/// <param name="Name">The name shown; empty if it was typed in.</param>
/// <param name="Text">The message; empty if only its kind was noted.</param>
/// <param name="IsPrivate">Whether only the teacher could read it.</param>
/// <param name="Noted">What it was, as it was noted.</param>
/// <param name="Chosen">What its writer says it is; null if they were not asked.</param>
internal sealed record Said(Guid? Student, string Name, string Text, bool IsPrivate, ChatKind Noted, ChatKind? Chosen = null);

/// <summary>What was said of a message since.</summary>
internal sealed record SaidOfMessage(
    (ChatKind Kind, Guid By)? Sorted = null, Guid? Hidden = null, Guid? DealtWith = null, Guid? Shown = null, bool WithoutName = false);
