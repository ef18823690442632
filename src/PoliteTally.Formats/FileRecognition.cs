using NodaTime;
using PoliteTally.Core.Merging;

namespace PoliteTally.Formats;

/// <summary>Tells by what is in a file what it is. Whatever it is called says nothing.</summary>
public static class FileRecognition
{
    /// <summary>What a file could be; one kind if it is clear, none if nothing in it is known.</summary>
    /// <param name="bytes">The file.</param>
    /// <param name="zone">The zone of times that do not name theirs.</param>
    /// <param name="lessonFrom">When the lesson was to begin.</param>
    /// <param name="lessonTo">When the lesson was to end.</param>
    /// <exception cref="FormatProblem">It cannot be read at all; says why.</exception>
    public static IReadOnlyList<FileKind> CouldBe(byte[] bytes, DateTimeZone zone, Instant lessonFrom, Instant lessonTo)
    {
        FormatProblem? problem = null;
        if (!Archive.IsOne(bytes) && Try(() => Table.TextOf(bytes).Text) is { Length: > 0 } text)
        {
            var near = lessonFrom.InZone(zone).LocalDateTime;
            if (CaptionsFile.IsOne(text) || (ChatLines.TableOf(text, out _) is { } lines && CaptionsFile.CountsFromStart(lines, near)))
            {
                return [FileKind.Captions];
            }
        }

        var list = Try(() => AttendanceFile.Read(bytes, null, zone, lessonFrom, lessonTo));
        var chat = Try(() => ChatFile.Read(bytes, null, zone, lessonFrom));
        var isList = list is { Rows.Count: > 0, Unclear: [] } && IsMostlyRight(list.Rows.Select(r => r.Problems));
        var isChat = chat is { Rows.Count: > 0 } && IsMostlyRight(chat.Rows.Select(r => r.Problems));
        return (isList, isChat) switch
        {
            (true, true) => HasWords(chat!) ? [FileKind.Chat] : list!.Shape == AttendanceShape.Lengths ? [FileKind.Attendance, FileKind.Chat] : [FileKind.Attendance],
            (true, false) => [FileKind.Attendance],
            (false, true) => [FileKind.Chat],
            // A list of which something is to be asked.
            _ when list is { Columns.Count: > 0 } => [FileKind.Attendance],
            _ => throw problem ?? new FormatProblem("What this file tells is not known. Bring in an attendance list, a saved chat or captions."),
        };

        // What one reader cannot read, another may.
        T? Try<T>(Func<T> read)
            where T : class
        {
            try
            {
                return read();
            }
            catch (FormatProblem failure)
            {
                problem ??= failure;
                return null;
            }
        }
    }

    private static bool IsMostlyRight(IEnumerable<IReadOnlyList<string>> problems)
    {
        var all = problems.ToList();
        return all.Count(p => p.Count == 0) * 2 >= all.Count;
    }

    // A message has a few words; a role or a device has one or two.
    private static bool HasWords(ChatPreview chat) => chat.Rows.Average(r => r.Text.Count(c => c == ' ')) >= 2;
}
