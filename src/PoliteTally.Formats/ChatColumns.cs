using NodaTime;
using PoliteTally.Formats.Lines;

namespace PoliteTally.Formats;

/// <summary>Which column of a saved chat holds what: by its heading, else by what stands in it.</summary>
internal static class ChatColumns
{
    /// <summary>What a column can be, with the headings it goes by, the likeliest first.</summary>
    public static readonly IReadOnlyDictionary<string, string[]> Headings = new Dictionary<string, string[]>
    {
        ["text"] = ["message", "text", "content", "body", "messagetext", "chat", "comment", "nachricht", "mensaje", "texte", "what", "said"],
        ["time"] = ["time", "timestamp", "sent", "sentat", "at", "when", "datetime", "createdat", "created", "posted", "postedat", "zeit", "zeitpunkt", "uhrzeit", "hora", "heure"],
        ["date"] = ["date", "day", "datum", "fecha", "jour"],
        ["name"] = ["name", "from", "sender", "sendername", "author", "authorname", "user", "username", "displayname", "fullname", "who", "participant", "student", "von", "absender", "nom", "nombre", "fromname", "by"],
        ["to"] = ["to", "recipient", "receiver", "audience", "an", "empfänger", "toname", "sentto", "à", "para"],
        ["email"] = ["email", "emailaddress", "useremail", "mail", "senderemail"],
    };

    // So many cells show whether names stand in a column.
    private const int ManyNames = 30;

    // Nobody writes “everyone” in every fifth message.
    private const int ShareOfEverybody = 5;

    private static readonly HashSet<string> HeadingWords = [.. Headings.Values.SelectMany(w => w)];

    /// <summary>Whether a cell is a heading that saved chats have.</summary>
    public static bool IsHeading(string cell) => HeadingWords.Contains(Columns.Fold(cell));

    /// <summary>Guesses the columns of a table.</summary>
    /// <param name="table">The table.</param>
    /// <param name="near">When the lesson was to begin, in the zone of its times.</param>
    /// <param name="isNameHere">Whether somebody of the class may be called so.</param>
    public static IReadOnlyDictionary<string, int> Guess(Table table, LocalDateTime near, Func<string, bool> isNameHere)
    {
        // The last part of a heading says what it is: "message.sender.name" is a name.
        var fields = new Dictionary<string, int>(Columns.Guess([.. table.Headings.Select(LastPart)], Headings));
        var holds = table.Headings.Select((_, column) => CellContent.Of(table, column, near)).ToList();
        List<int> Free(Holds what) => [.. Enumerable.Range(0, holds.Count).Where(c => holds[c] == what && !fields.ContainsValue(c))];

        // A heading may promise what the column does not hold.
        foreach (var field in new[] { "time" }.Where(f => fields.TryGetValue(f, out var at) && holds[at] is Holds.Texts or Holds.Addresses))
        {
            fields.Remove(field);
        }

        // A place in which names of the class stand is the name, whatever it is called; of several the one that was named so, then the one with most different names.
        var ofNames = Enumerable.Range(0, holds.Count).Where(c => holds[c] == Holds.Texts && IsOfNames(c)).ToList();
        if (ofNames.Count > 0 && !(fields.TryGetValue("name", out var called) && ofNames.Contains(called)))
        {
            var place = ofNames.Where(c => fields.GetValueOrDefault("to", -1) != c).DefaultIfEmpty(ofNames[0]).MaxBy(c => CellContent.Cells(table, c).Distinct().Count());
            foreach (var (field, _) in fields.Where(f => f.Value == place).ToList())
            {
                fields.Remove(field);
            }

            fields["name"] = place;
        }

        Take("time", Free(Holds.Times));
        Take("date", Free(Holds.Dates));
        Take("email", Free(Holds.Addresses));
        // The longest texts are what was written; what is the same in every row says what kind of row it is.
        Take("text", [.. Free(Holds.Texts).Where(c => CellContent.IsMixed(table, c) || table.Rows.Count == 1).OrderByDescending(c => CellContent.Cells(table, c).Distinct().Sum(t => t.Length))]);
        Take("name", [.. Free(Holds.Texts).OrderBy(ShareOfMostCommon)]);
        Take("to", [.. Free(Holds.Texts).Where(c => (ofNames.Contains(c) && CellContent.IsMixed(table, c)) || CellContent.Cells(table, c) is var cells && cells.Count(Addressing.IsEverybody) * ShareOfEverybody > cells.Count)]);
        return fields;

        void Take(string field, List<int> columns)
        {
            if (columns.Count > 0)
            {
                fields.TryAdd(field, columns[0]);
            }
        }

        bool IsOfNames(int column)
        {
            var different = CellContent.Cells(table, column).Distinct().Take(ManyNames).ToList();
            var addressing = new Addressing(different, isNameHere);
            return different.Count(cell => addressing.Of(cell) is var (name, _) && isNameHere(name)) * 2 > different.Count;
        }

        double ShareOfMostCommon(int column) =>
            CellContent.Cells(table, column) is { Count: > 0 } cells ? cells.GroupBy(c => c).Max(g => g.Count()) / (double)cells.Count : 0;
    }

    private static string LastPart(string heading) => heading[(heading.LastIndexOf('.') + 1)..];
}
