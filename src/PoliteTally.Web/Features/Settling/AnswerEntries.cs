using NodaTime;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Names;
using PoliteTally.Core.Questions;
using PoliteTally.Core.Text;
using PoliteTally.Formats;
using PoliteTally.Store;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Features.Settling;

/// <summary>The teacher's word on a question in a table of answers.</summary>
/// <param name="Place">Which, from 0.</param>
/// <param name="As">The question of the lesson or of its plan that it is; null for one of its own.</param>
/// <param name="Leave">Whether it is left out.</param>
/// <param name="Right">What is right, if it is a question of its own; empty to take taking part alone, or what the points of the file say.</param>
/// <param name="ByPoints">Whether the points of the file count instead of marks by the key; null where there is no key.</param>
public sealed record QuestionChoice(int Place, Guid? As = null, bool Leave = false, IReadOnlyList<string>? Right = null, bool? ByPoints = null);

/// <summary>A question in a table of answers, and what it is taken for.</summary>
/// <param name="Written">The answers to it as they are written, each once, for the choice of what is right; empty if they are too many.</param>
/// <param name="HasPoints">Whether the file has points for it.</param>
/// <param name="Anonymous">Whether answers are taken without names.</param>
/// <param name="Answers">How many answers to it are taken.</param>
/// <param name="Unread">Answers that are none to this question.</param>
public sealed record FileQuestion(
    int Place, string Text, Guid? As, bool Leave, QuestionKind Kind, IReadOnlyList<string> Written, IReadOnlyList<string> Right, bool HasPoints, bool ByPoints, bool Anonymous, int Answers,
    IReadOnlyList<string> Unread);

/// <summary>A question that answers could be to.</summary>
/// <param name="Asked">Whether it was asked in the lesson; else it is one of the plan.</param>
public sealed record KnownQuestion(Guid Id, string Text, bool Asked);

/// <summary>A question of a table as it would be brought in.</summary>
/// <param name="Line">How it is shown.</param>
/// <param name="Doubt">What is asked of it; null if nothing is.</param>
/// <param name="Acts">What its answers tell, each with its moment.</param>
internal sealed record TakenQuestion(FileQuestion Line, string? Doubt, IReadOnlyList<(Instant At, Act Act)> Acts);

/// <summary>Turns the answers of a table into acts: each question is laid beside those of the lesson and its plan, or becomes one of its own.</summary>
internal sealed class AnswerEntries(OpenLesson open)
{
    private const int MostWritten = 60;

    private readonly QuestionGuess _guess = new(text => DerivedId.Of($"{open.Lesson.Id}\n{NameFolding.FoldText(text)}"));

    /// <summary>The questions that answers could be to: those asked in the lesson itself, and those of its plan that were not.</summary>
    public IReadOnlyList<KnownQuestion> Known { get; } =
    [
        .. open.State.Questions.All.Where(a => a.Brought is null).Select(a => new KnownQuestion(a.Id, a.Question.Text, Asked: true)),
        .. open.Plan.Questions.Where(q => IsReady(q) && !open.State.Questions.All.Any(a => a.Brought is null && a.Question.Id == q.Id)).Select(q => new KnownQuestion(q.Id, q.Text, Asked: false)),
    ];

    /// <summary>Takes the questions of a table.</summary>
    /// <param name="table">The table.</param>
    /// <param name="chosen">What the teacher says of them; null if nothing yet.</param>
    public IReadOnlyList<TakenQuestion> Of(AnswersPreview table, IReadOnlyList<QuestionChoice>? chosen)
    {
        var free = Known.ToList();
        var choices = chosen?.OfType<QuestionChoice>().DistinctBy(c => c.Place).ToDictionary(c => c.Place);
        var taken = new List<TakenQuestion>();
        foreach (var (question, place) in table.Questions.Select((q, i) => (q, i)))
        {
            var like = choices?.GetValueOrDefault(place) is { } word ? free.Find(k => k.Id == word.As) : free.Find(k => AnswerReading.AreAlike(k.Text, question.Text));
            free.RemoveAll(k => k == like);
            taken.Add(Take(question, place, like, choices?.GetValueOrDefault(place), table.Anonymous));
        }

        return taken;
    }

    private TakenQuestion Take(QuestionRead read, int place, KnownQuestion? like, QuestionChoice? word, bool nameless)
    {
        var asked = like is { Asked: true } ? open.State.Questions.Of(like.Id) : null;
        var made = asked?.Question ?? open.Plan.Questions.FirstOrDefault(q => q.Id == like?.Id)
            ?? _guess.Of(TextOf(read.Text), [.. read.Answers.Select(a => a.Written).Where(w => w.Text.Length > 0)], word?.Right ?? read.Right, nameless);
        // What was to be answered without names is not kept with them.
        var question = nameless && !made.Anonymous ? made with { Anonymous = true, Purpose = QuestionPurpose.Poll } : made;
        var hasPoints = read.Answers.Any(a => a.Written.Share is not null);
        var byKey = question.Purpose == QuestionPurpose.Quiz && (question.Options.Any(o => o.Right) || question.Target is not null || question.AcceptedAnswers.Count > 0 || question.Kind == QuestionKind.Ranking);
        var byPoints = hasPoints && question.Purpose == QuestionPurpose.Quiz && (word?.ByPoints ?? (read.OnlyPoints || !byKey));
        // Of a choice a class gives few different answers.
        var meant = read.Answers.Select(a => a.Written.Text).Distinct(StringComparer.Ordinal).ToDictionary(text => text, text => AnswerReading.Of(question, text), StringComparer.Ordinal);
        var answers = read.Answers.Select(a => (Read: a, Answer: meant[a.Written.Text])).ToList();
        var usable = answers.Where(a => a.Answer is not null).ToList();
        var unread = answers.Where(a => a.Answer is null).Select(a => $"row {a.Read.Row.Row}, “{Short(a.Read.Written.Text)}”").ToList();
        // Answers without names to a question that was asked in the lesson were counted there.
        var leave = word?.Leave ?? (asked is not null && question.Anonymous);
        var written = read.OnlyPoints ? [] : meant.Keys.Order(StringComparer.OrdinalIgnoreCase).ToList();
        var line = new FileQuestion(
            place, read.Text, like?.Id, leave, question.Kind, written.Count <= MostWritten ? written : [], RightOf(question), hasPoints, byPoints, question.Anonymous, leave ? 0 : usable.Count, unread);
        var doubt = word is not null || leave ? null
            : unread.Count > 0 ? $"{Words.Count(unread.Count, "answer")} to “{Short(read.Text)}” {(unread.Count == 1 ? "is" : "are")} none to this question: {string.Join("; ", unread.Take(3))}."
            : like is null && !byKey && !hasPoints ? $"“{Short(read.Text)}” is like no question of the plan: say what it is, and what is right."
            : null;
        return new TakenQuestion(line, doubt, leave || usable.Count == 0 ? [] : [.. ActsOf(question, asked, usable, byPoints)]);
    }

    private IEnumerable<(Instant At, Act Act)> ActsOf(Question question, Asking? asked, List<(AnswerRead Read, Answer? Answer)> answers, bool byPoints)
    {
        var times = answers.Where(a => a.Read.Row.At is not null).Select(a => a.Read.Row.At!.Value).ToList();
        var (from, to) = times.Count > 0 ? (times.Min(), times.Max()) : (open.Times.CountedFrom, open.Times.CountedTo);
        if (asked is null)
        {
            var keepsBallots = question.Anonymous && answers.Count >= Asking.FewestAnonymous;
            // In an order of their own, which says nothing of who answered when.
            var ballots = keepsBallots ? answers.Select(a => a.Answer!).OrderBy(a => a.Written, StringComparer.Ordinal).Take(QuestionFromFile.MostBallots).ToList() : [];
            yield return (from, new QuestionFromFile(question, to - from, answers.Count, ballots));
        }

        foreach (var ((row, written), answer) in question.Anonymous ? [] : answers)
        {
            yield return (
                row.At ?? open.Times.CountedTo,
                new NameAnswered(row.Name, asked?.Id ?? question.Id, answer!, byPoints ? written.Share : null, row.At is not null) { Beside = PersonOf(row).Beside });
        }
    }

    /// <summary>Whose answer it is.</summary>
    public static ShownName PersonOf(AnswersRow row) => new(row.Name, row.Number, row.Email);

    private static bool IsReady(Question question) =>
        !QuestionRules.Problems(question).Any() && !QuestionRules.Missing(question).Any() && QuestionRules.Placeholders(question).Count == 0 && question.Kind != QuestionKind.PictureChoice;

    private static IReadOnlyList<string> RightOf(Question question) =>
    [
        .. question.Options.Where(o => o.Right).Select(o => o.Text), .. question.AcceptedAnswers,
        .. question.Target is { } target ? [target.ToString(System.Globalization.CultureInfo.InvariantCulture)] : Array.Empty<string>(),
    ];

    // Braces are blanks to be filled in; what a file asked has none.
    private static string TextOf(string text)
    {
        var asked = CleanText.Of(text).Replace('{', '(').Replace('}', ')');
        return asked.Length > Question.LongestText ? asked[..Question.LongestText] : asked;
    }

    private static string Short(string text) => text.Length <= 40 ? text : $"{text[..40]}…";
}
