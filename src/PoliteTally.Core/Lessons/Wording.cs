using PoliteTally.Core.Attendance;
using PoliteTally.Core.Chat;
using PoliteTally.Core.Groups;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Notes;
using PoliteTally.Core.Page;
using PoliteTally.Core.Questions;
using PoliteTally.Core.Signals;
using PoliteTally.Core.Text;

namespace PoliteTally.Core.Lessons;

/// <summary>Entries in plain words, the same in the last entries, in an explanation and in settling.</summary>
public static class Wording
{
    private const int MostNamed = 3;

    /// <summary>An entry with the name of the student in front.</summary>
    public static string Of(Entry entry, LessonState state, IReadOnlyDictionary<Guid, string> names) =>
        NameOf(entry, state, names) is { } name ? $"{name}, {Of(entry, state)}" : Of(entry, state);

    /// <summary>What one press noted: the same of several students in one line, "Juno, Eino, hand up".</summary>
    public static string Of(IReadOnlyList<Entry> press, LessonState state, IReadOnlyDictionary<Guid, string> names)
    {
        var all = press.Select(e => (Name: NameOf(e, state, names), Words: Of(e, state))).ToList();
        return all switch
        {
            [var one] => one.Name is null ? one.Words : $"{one.Name}, {one.Words}",
            _ when all.Exists(a => a.Name is null || a.Words != all[0].Words) => string.Join("; ", all.Take(MostNamed).Select(a => a.Name is null ? a.Words : $"{a.Name}, {a.Words}"))
                + (all.Count > MostNamed ? $", and {all.Count - MostNamed} more" : ""),
            { Count: > MostNamed } => $"{all.Count} students, {all[0].Words}",
            _ => $"{string.Join(", ", all.Select(a => a.Name))}, {all[0].Words}",
        };
    }

    /// <summary>An entry as it is told of one student: in a roll call or missing from it, answering in a signal round or not.</summary>
    public static string For(Guid student, Entry entry, LessonState state) => entry.Act switch
    {
        RollCallTaken call => call.Here.Any(s => state.Whose(s) == student) ? "here, in the roll call" : "missing from the roll call",
        SignalRoundHeld round => $"{(round.Answered.Any(s => state.Whose(s) == student) ? "answered" : "no answer")} in the signal round: {round.Statement}",
        GroupsMade made when made.Groups.FirstOrDefault(g => g.Members.Any(s => state.Whose(s) == student)) is { } group => $"in {group.Name}",
        Called { By: { } by } when state.Whose(by) == student => "full turn, handed on",
        // The list stands behind scores, too, which others may see over the shoulder.
        AsideNoted => "an aside",
        AnswersMarked marked => $"answer marked, {Words.Plain(marked.Marks)}",
        _ => Of(entry, state),
    };

    private static string? NameOf(Entry entry, LessonState state, IReadOnlyDictionary<Guid, string> names)
    {
        var student = entry.Act switch
        {
            StudentAct act => act.Student,
            ChatAct { Message: var message } => state.Chat.MessageOf(message)?.Student,
            PageAdmitted admitted => admitted.Student,
            _ => null,
        };
        return student is { } who ? names.GetValueOrDefault(state.Whose(who), "A former student") : null;
    }

    /// <summary>An entry without saying whose; a message with its text, unless it was hidden, and an answer with its question.</summary>
    public static string Of(Entry entry, LessonState state) => entry.Act switch
    {
        _ when state.Chat.MessageOf(entry.Id) is { Text.Length: > 0, Hidden: null } message => $"{entry.Act.InWords}: “{message.Text}”",
        AnswerGiven { Asking: var id } when state.Questions.Of(id) is { } asking => $"answered: {asking.Question.Text}",
        QuestionClosed { Asking: var id } when state.Questions.Of(id) is { } asking => $"question closed: {asking.Question.Text}",
        CannotAnswer { Asking: var id } when state.Questions.Of(id) is { } asking => $"cannot answer: {asking.Question.Text}",
        _ => entry.Act.InWords,
    };
}
