using NodaTime;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Text;
using PoliteTally.Formats.Lines;

namespace PoliteTally.Formats;

/// <summary>A message in a saved chat.</summary>
/// <param name="Row">The row or line it begins in, from 1.</param>
/// <param name="Private">Whether it went to one person.</param>
/// <param name="Problems">What is wrong with it; empty if it can be taken.</param>
public readonly record struct ChatRow(int Row, string Name, string? Email, string Text, bool Private, Instant? At, IReadOnlyList<string> Problems);

/// <summary>A saved chat as it would be brought in.</summary>
/// <param name="Columns">Its columns, or the parts of its lines, with what they are taken for.</param>
/// <param name="NamesZone">Whether its times name their zone.</param>
/// <param name="Rows">The messages.</param>
/// <param name="LeftOut">How many lines tell something else: that somebody came, a reaction without a word.</param>
/// <param name="Problems">What is wrong with it as a whole.</param>
/// <param name="Unclear">What is asked of its columns.</param>
public sealed record ChatPreview(
    IReadOnlyList<Column> Columns, bool NamesZone, IReadOnlyList<ChatRow> Rows, int LeftOut, IReadOnlyList<string> Problems, IReadOnlyList<string> Unclear)
{
    // A message has a few words, and so many spaces; a role or a device has one or two.
    private const double FewSpaces = 1.5;

    // So many messages show that.
    private const int Looked = 1000;

    private const int FewWords = 4;

    // One long message makes no chat of the others.
    private const int EnoughSpaces = 6;

    /// <summary>Whether nothing else can be meant: people of the class say something, in words.</summary>
    public bool IsClear { get; init; }

    /// <summary>Whether it was read line by line, not as a table.</summary>
    internal bool InLines { get; init; }

    /// <summary>Whether its messages have words, most of them several.</summary>
    internal bool HasWords => Rows.Count > 0 && Rows.Take(Looked).Count(r => IsOfPresence(r.Text)) * 2 <= Math.Min(Looked, Rows.Count) && Rows.Take(Looked).Average(r => r.Text.Count(char.IsDigit) >= r.Text.Count(char.IsLetter) ? 0 : Math.Min(EnoughSpaces, r.Text.Count(c => c == ' '))) >= FewSpaces;

    // “Joined 9:28 AM  Left” says when somebody came and went.
    private static bool IsOfPresence(string text) => text.Split(' ', StringSplitOptions.RemoveEmptyEntries).Where(w => w.Any(char.IsLetter) && w is not ("AM" or "PM" or "am" or "pm")).ToList() is { Count: > 0 and < FewWords } words
        && words.TrueForAll(w => AttendanceColumns.Says(w) is not (false, false));
}

/// <summary>Reads saved chats: tables, JSON, or text with a message in a line or in a block.</summary>
public static class ChatFile
{
    /// <summary>What is said of a file in which no message is found.</summary>
    internal const string NoMessages = "No messages are found in this file. It must have a name and a time with each message.";

    // Of names that could be anybody's, as of a list of sentences: whoever knows the class is asked.
    private const double Doubtful = 0.5;

    // In a chat people write again; to questions each answers once.
    internal const double Repeated = 1.5;

    // So many messages show how whom they go to is written.
    private const int Looked = 400;

    /// <summary>Reads a saved chat.</summary>
    /// <param name="bytes">The file.</param>
    /// <param name="mapping">Which column holds what, by field; null to guess.</param>
    /// <param name="zone">The zone of times that do not name theirs.</param>
    /// <param name="lessonFrom">When the lesson was to begin.</param>
    /// <param name="isNameHere">Whether somebody of the class may be called so.</param>
    /// <exception cref="FormatProblem">The file is no saved chat.</exception>
    public static ChatPreview Read(byte[] bytes, IReadOnlyDictionary<string, int>? mapping, DateTimeZone zone, Instant lessonFrom, Func<string, bool> isNameHere) =>
        Read(bytes, mapping, zone, lessonFrom, isNameHere, inLines: null);

    /// <summary>As the other, by whoever has read its lines already.</summary>
    internal static ChatPreview Read(byte[] bytes, IReadOnlyDictionary<string, int>? mapping, DateTimeZone zone, Instant lessonFrom, Func<string, bool> isNameHere, ReadLines? inLines)
    {
        using var budget = ReadingBudget.Begin();
        using var room = ReadingRoom.For(bytes.Length);
        var near = lessonFrom.InZone(zone).LocalDateTime;
        var (table, leftOut, sure) = TableOf(bytes, near, isNameHere, inLines);
        var fields = mapping ?? ChatColumns.Guess(table, near, isNameHere);
        var columns = Columns.Describe(table, fields);
        List<string> missing =
        [
            .. fields.ContainsKey("name") || fields.ContainsKey("email") ? Array.Empty<string>() : ["Say which column holds the names."],
            .. fields.ContainsKey("text") ? Array.Empty<string>() : ["Say which column holds the messages."],
            .. fields.ContainsKey("time") ? Array.Empty<string>() : ["Say which column holds the times."],
        ];
        if (missing.Count > 0)
        {
            return new ChatPreview(columns, NamesZone: true, [], leftOut, missing, []);
        }

        int Place(string field) => Columns.Place(fields, field);
        var (time, named, mailed, said, sent) = (Place("time"), Place("name"), Place("email"), Place("text"), Place("to"));
        var (times, namesZone) = TimeText.Read(Columns.Moments(table, fields, "time"), lessonFrom, zone);
        // What is written in the evening before, or later that day, is still of this lesson.
        var (soonest, latest) = (lessonFrom - Duration.FromHours(12), lessonFrom + Duration.FromHours(14));
        var isNear = times.Any(IsNear);
        // "Ana to everyone" in one cell.
        var addressing = sent < 0 ? new Addressing([.. table.Rows.Take(Looked).Select(r => Columns.CellOf(r, named))], isNameHere) : null;
        var edges = new NameEdges([.. table.Rows.Take(Looked).Select(r => Said(r).Name).Where(n => n.Length > 0).ToHashSet(StringComparer.Ordinal)]);
        var addressed = table.Rows.CountBy(r => Who(r).To).ToList();
        // Whom most messages go to is everybody, in a language that is not known here.
        var common = addressed.Exists(to => Addressing.IsEverybody(to.Key)) ? null : addressed.GroupBy(to => Columns.Fold(to.Key)).MaxBy(to => to.Sum(t => t.Value))!.Key;
        var senders = table.Rows.Select(r => Who(r).Name).ToHashSet(StringComparer.OrdinalIgnoreCase);
        var toOne = new Dictionary<string, bool>(StringComparer.Ordinal);
        var messages = new List<ChatRow>(table.Rows.Count);
        foreach (var (row, at) in table.Rows.Zip(times))
        {
            if (RowOf(row, at) is var message && (message.Text.Length == 0 || (ChatLines.HasLetters(message.Text) && !SaidByPrograms.IsAll(message.Text))))
            {
                messages.Add(message);
            }
        }

        // Of a file with ever other names a part tells whose they are.
        var looked = senders.Take(Looked).ToList();
        var unclear = mapping is null && sure < Doubtful && !looked.Exists(n => isNameHere(n)) && senders.Count > 1
            ? [$"“{string.Join("”, “", senders.Take(3))}” are taken for names, and nobody in the class is called that."] : Array.Empty<string>();
        var chat = new ChatPreview(columns, namesZone, messages, leftOut + table.Rows.Count - messages.Count, FarFrom(messages), unclear);
        return chat with { IsClear = unclear.Length == 0 && IsSaid(), InLines = table.ReadAs == ChatLines.ReadAs };

        // People of the class say something, in words; and of a table, again and again, with no other sentences beside.
        bool IsSaid() => chat.HasWords && messages.Count(m => m.Problems.Count == 0) >= CellContent.Most * messages.Count
            && looked.Count(isNameHere) * 2 >= looked.Count
            && (table.ReadAs == ChatLines.ReadAs || (messages.Count >= Repeated * senders.Count && !columns.Any(c => c.Field is null && c.Samples.Any(cell => cell.Count(l => l == ' ') >= 2))));

        (string Name, string To) Who(TableRow row) => Said(row) is var (name, to) ? (edges.Without(name), to) : default;

        (string Name, string To) Said(TableRow row) => addressing is null ? (Columns.CellOf(row, named), Columns.CellOf(row, sent)) : addressing.Of(Columns.CellOf(row, named)) ?? ("", "");

        ChatRow RowOf(TableRow row, Instant? at)
        {
            var problems = new RowProblems();
            var email = Columns.CellOf(row, mailed);
            var (shown, to) = Who(row);
            var name = CleanText.Of(shown.Length > 0 ? shown : email);
            var text = SaidByPrograms.WithoutMarks(CleanText.Of(Columns.CellOf(row, said)));
            if (CleanText.IsBlank(name))
            {
                problems.Add("has no name.");
            }

            (name, var tooLong) = Columns.Checked(name);
            if (tooLong is not null)
            {
                problems.Add(tooLong);
            }

            if (CleanText.IsBlank(text))
            {
                problems.Add("has no words.");
            }

            if (at is null)
            {
                problems.Add(Columns.Unreadable(Columns.CellOf(row, time)));
            }
            else if (isNear && !IsNear(at))
            {
                problems.Add(Columns.OfAnotherTime("was written at", at.Value, zone));
            }

            // What was sent to one person counts; that it was long is no reason to lose it.
            return new ChatRow(
                row.Number, name, email.Contains('@') ? email : null, text.Length > TextLimits.LongestText ? text[..TextLimits.LongestText] : text,
                IsPrivate(to), at, problems.All);
        }

        bool IsPrivate(string to) => toOne.TryGetValue(to, out var known) ? known
            : toOne[to] = !Addressing.IsEverybody(to) && (Columns.Fold(to) != common || Addressing.IsSecret(to) || senders.Contains(to) || isNameHere(to));

        bool IsNear(Instant? at) => at > soonest && at < latest;

        IReadOnlyList<string> FarFrom(List<ChatRow> read)
        {
            return read.TrueForAll(r => r.At is null) || isNear
                ? []
                : [$"None of its messages were written on the day of this lesson; the first is of {read.Min(r => r.At)!.Value.InZone(zone).ToString("uuuu-MM-dd HH:mm", null)}. Is it the chat of another lesson?"];
        }
    }

    /// <summary>The messages of a file as a table; how many of its lines tell something else.</summary>
    private static (Table Table, int LeftOut, double Sure) TableOf(byte[] bytes, LocalDateTime near, Func<string, bool> isNameHere, ReadLines? inLines)
    {
        if (Archive.IsOne(bytes))
        {
            return (Table.Read(bytes, ChatColumns.IsHeading, mostRows: Table.MostOfLesson, isData: IsTime), 0, 1);
        }

        FileSize.Check(bytes.Length, "Save only the messages of this lesson and bring in those.");
        var text = FileText.Of(bytes);
        if (text.IsBlank)
        {
            throw new FormatProblem("This file is empty. Nothing was stored; choose another file.");
        }

        if (text.BeginsAsJson && JsonTable.Of(text) is { } objects)
        {
            return (objects, 0, 1);
        }

        // A text has commas as well. Which it is shows in its first lines: nobody reads a large file twice to know what it is.
        if (Tabular(text.HasMore && text.Start.LastIndexOf('\n') is > 0 and var end ? text.With(text.Start[..end]) : text) is { } headless)
        {
            return (PlainCells.WithTimes(Table.FromText(text, ChatColumns.IsHeading, headless, Table.MostOfLesson, IsTime)), 0, 1);
        }

        return (inLines ?? ChatLines.Of(text.Whole, isNameHere)) is { } lines ? (lines.Table, lines.LeftOut, lines.Sure)
            : throw new FormatProblem(NoMessages);

        // A table is what has headings that are known, or columns that are more than the time and the rest. Whether it is without headings; null if it is none.
        bool? Tabular(FileText start)
        {
            try
            {
                var table = Table.FromText(start, ChatColumns.IsHeading, mostRows: Table.MostOfLesson, isData: IsTime);
                if (table.HeadingsKnown)
                {
                    return table.Headings.Count(ChatColumns.IsHeading) >= 2 || ColumnsOf(table) is not null ? false : null;
                }

                var whole = Table.FromText(start, ChatColumns.IsHeading, headless: true, Table.MostOfLesson);
                // Headings in words that are not known here stand over times and are none.
                return ColumnsOf(whole) is { } fields ? IsTime(Columns.Cell(whole.Rows[0], fields, "time")) : null;
            }
            catch (FormatProblem)
            {
                return null;
            }
        }

        // A row of times is no row of headings, whatever words stand beside: “chat”.
        bool IsTime(string cell) => TimeText.Sortable(cell, near) is not null;

        // Those of time, name and words; null if it has not all of them.
        IReadOnlyDictionary<string, int>? ColumnsOf(Table table) =>
            ChatColumns.Guess(table, near, isNameHere) is var fields && fields.ContainsKey("time") && fields.ContainsKey("name") && fields.ContainsKey("text") && IsEven(table) ? fields : null;
    }

    private static bool IsEven(Table table) => table.Rows.Count(r => r.Cells.Count == table.Headings.Count) >= CellContent.Most * table.Rows.Count;
}
