using NodaTime;
using PoliteTally.Core.Merging;
using PoliteTally.Core.Text;
using PoliteTally.Formats.Lines;

namespace PoliteTally.Formats;

/// <summary>Tells by what is in a file what it is. Whatever it is called says nothing.</summary>
public static class FileRecognition
{
    /// <summary>What a file could be; one kind if it is clear.</summary>
    /// <param name="bytes">The file.</param>
    /// <param name="zone">The zone of times that do not name theirs.</param>
    /// <param name="lessonFrom">When the lesson was to begin.</param>
    /// <param name="lessonTo">When the lesson was to end.</param>
    /// <param name="isNameHere">Whether somebody of the class may be called so.</param>
    /// <exception cref="NothingKnown">Nothing in it is known.</exception>
    /// <exception cref="FormatProblem">It cannot be read at all; says why.</exception>
    public static IReadOnlyList<FileKind> CouldBe(byte[] bytes, DateTimeZone zone, Instant lessonFrom, Instant lessonTo, Func<string, bool> isNameHere)
    {
        using var budget = ReadingBudget.Begin();
        FormatProblem? problem = null;
        bytes = Start(bytes);
        ReadLines? lines = null;
        if (!Archive.IsOne(bytes) && Try(() => FileText.Of(bytes)) is { Whole: { Length: > 0 } text } file)
        {
            if (CaptionsFile.IsOne(text) || CaptionsTable.Of(file, zone, lessonFrom, isNameHere) is not null || ((lines = Quietly(() => ChatLines.Of(text, isNameHere))) is not null && CaptionsFile.CountsFromStart(lines.Table, lessonFrom.InZone(zone).LocalDateTime, lessonTo - lessonFrom)
                && Quietly(() => AttendanceFile.Read(bytes, null, zone, lessonFrom, lessonTo)) is not { Shape: AttendanceShape.Stretches, Problems: [], Unclear: [] }))
            {
                return [FileKind.Captions];
            }
        }

        var chat = Try(() => ChatFile.Read(bytes, null, zone, lessonFrom, isNameHere, lines));
        // What was asked and what was answered are words, too, and whoever answered is a list of people.
        var answers = Quietly(() => AnswersFile.Read(bytes, null, zone, lessonFrom, lessonTo, isNameHere));
        var isAnswers = answers is { Problems: [], IsEven: true } && answers.Questions.Any(q => q.Answers.Count > 0) && IsMostlyRight(answers.People.Select(p => p.Problems));
        var isChat = chat is { Rows.Count: > 0 } && IsMostlyRight(chat.Rows.Select(r => r.Problems));
        // In a line of a chat, too, there may stand a question; but no headings that say so.
        if (isAnswers && answers!.IsClear && !(isChat && chat!.InLines && !answers.IsSaidByHeadings))
        {
            return [FileKind.Answers];
        }

        if (chat is { IsClear: true })
        {
            return [FileKind.Chat];
        }

        // Whoever stands in a list says nothing.
        if (!(isChat && chat!.HasWords) && Quietly(() => PeopleFile.Read(bytes, zone, lessonFrom, lessonTo, isNameHere)) is { IsOne: true })
        {
            return [FileKind.People];
        }

        var list = Try(() => AttendanceFile.Read(bytes, null, zone, lessonFrom, lessonTo));
        var isList = list is { Rows.Count: > 0, Unclear: [] } && IsMostlyRight(list.Rows.Select(r => r.Problems));
        return (isList, isChat) switch
        {
            (true, true) => chat!.HasWords ? [FileKind.Chat] : list!.Shape == AttendanceShape.Lengths ? [FileKind.Attendance, FileKind.Chat] : [FileKind.Attendance],
            // Numbers beside what people said may be points, too.
            (true, false) => isAnswers && list!.Shape == AttendanceShape.Lengths && answers!.Questions.Any(q => q.Answers.Where(a => a.Written.Text.Any(char.IsLetter) && TimeText.Length(a.Written.Text, Duration.FromMinutes(1)) is null).DistinctBy(a => a.Written.Text).Skip(1).Any()) ? [FileKind.Answers, FileKind.Attendance] : [FileKind.Attendance],
            // Names with times and hardly a word.
            (false, true) when !chat!.HasWords && list is { Unclear.Count: > 0 } => isAnswers ? [FileKind.Answers, FileKind.Attendance, FileKind.Chat] : [FileKind.Attendance, FileKind.Chat],
            // Who wrote what and when is a chat, unless its headings are questions.
            (false, true) => isAnswers && !NamesMessages(chat!) && (answers!.Questions.Count > 1 || answers.IsClear || IsOnceEach(chat!)) ? [FileKind.Answers, FileKind.Chat] : [FileKind.Chat],
            // Names beside something that is neither a time nor a question: only the teacher knows.
            _ when isAnswers && !answers!.Anonymous => list is not null && list.Columns.Any(IsOfPresence) ? [FileKind.Answers, FileKind.Attendance] : [FileKind.Answers],
            // A list of which something is to be asked: without any moment, and without names of the class, nothing says that it is one.
            _ when list is { Columns.Count: > 1 } && list.Columns.Any(c => IsOfPresence(c) || (c.Field == "name" && c.Samples.Count(v => !v.Any(char.IsDigit) && isNameHere(v)) * 2 > c.Samples.Count)) => [FileKind.Attendance],
            _ => throw Unknown(),
        };

        // What stands in it is shown, so that whoever chose the wrong file sees it.
        FormatProblem Unknown() => problem is not null && problem.Message != ChatFile.NoMessages ? problem
            : new NothingKnown($"What this file tells is not known: no names with times, words or answers are found in it. It begins: {FirstLines()}. Bring in an attendance list, a saved chat with times, answers to questions, captions, or a list of who was there.");

        string FirstLines() => Archive.IsOne(bytes) ? "a workbook" : string.Join(", ", FileText.Of(bytes).Start.Split('\n', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries).Take(LinesShown).Select(l => $"“{Words.Cut(l, LongestShown)}”"));

        // What one reader cannot read, another may. What lists and chats lack is said if nothing is known.
        T? Try<T>(Func<T?> read)
            where T : class
        {
            ReadingBudget.AskNow();
            try
            {
                return read();
            }
            catch (FormatProblem failure) when (failure is not OtherDays)
            {
                problem ??= failure;
                return null;
            }
        }

        T? Quietly<T>(Func<T?> read)
            where T : class
        {
            var before = problem;
            var found = Try(read);
            problem = before;
            return found;
        }
    }

    private const int LinesShown = 5;
    private const int LongestShown = 60;

    // So many bytes show what a file is; what it says is read once that is known.
    private const int Looked = 200_000;

    // Whole lines from the start of a text. What is no text by lines is looked at whole.
    private static byte[] Start(byte[] bytes)
    {
        if (bytes.Length <= Looked || Archive.IsOne(bytes) || bytes.AsSpan(0, Looked).Contains((byte)0) || bytes.AsSpan().TrimStart((byte)' ') is [(byte)'[' or (byte)'{', ..] or [0xEF, 0xBB, 0xBF, (byte)'[' or (byte)'{', ..])
        {
            return bytes;
        }

        var end = bytes.AsSpan(0, Looked).LastIndexOf((byte)'\n');
        return end > 0 ? bytes[..(end + 1)] : bytes;
    }

    private static bool IsMostlyRight(IEnumerable<IReadOnlyList<string>> problems)
    {
        var all = problems.ToList();
        return all.Count(p => p.All(Columns.IsOfAnotherTime)) * 2 >= all.Count;
    }

    private static bool IsOfPresence(Column column) => column.Field is "joined" or "left" or "length" or "time" or "event";

    // In a chat people write again; to a question each answers once.
    private static bool IsOnceEach(ChatPreview chat) => chat.Rows.Count < ChatFile.Repeated * chat.Rows.DistinctBy(r => r.Name).Count();

    private static bool NamesMessages(ChatPreview chat) => chat.Columns.Any(c => c.Field == "text" && ChatColumns.IsHeading(c.Heading));
}
