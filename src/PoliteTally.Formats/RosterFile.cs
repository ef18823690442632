namespace PoliteTally.Formats;

/// <summary>A student as a roster file gives them.</summary>
public sealed record RosterLine(
    int Row, string? Number, string Family, string Given, string? Preferred, string? Email, string Tags,
    IReadOnlyList<string> Problems);

/// <summary>A roster file as it would be brought in.</summary>
public sealed record RosterPreview(
    IReadOnlyList<Column> Columns, IReadOnlyList<RosterLine> Lines, string Encoding, char Separator, int HeadingsRow);

/// <summary>Reads rosters: one student a row, any column order and headings.</summary>
public static class RosterFile
{
    /// <summary>What a column of a roster can be, with the headings it goes by, the likeliest first.</summary>
    public static readonly IReadOnlyDictionary<string, string[]> Fields = new Dictionary<string, string[]>
    {
        ["number"] = ["studentnumber", "studentid", "studentno", "number", "no", "id", "pupilnumber", "matriculation", "schülernummer"],
        ["family"] = ["familyname", "lastname", "surname", "last", "family", "nachname", "nom", "apellidos", "apellido", "efternavn", "cognome"],
        ["preferred"] = ["preferredname", "preferred", "calledname", "knownas", "nickname", "rufname", "preferredfirstname"],
        ["given"] = ["givenname", "firstname", "forename", "givennames", "first", "given", "vorname", "prénom", "prenom", "nombre", "fornavn", "nome"],
        ["name"] = ["fullname", "name", "studentname", "student", "pupil", "names", "displayname"],
        ["email"] = ["email", "emailaddress", "mail", "schoolemail", "epost", "courriel"],
        ["tags"] = ["tags", "tag", "groups", "group", "labels"],
    };

    private static readonly HashSet<string> Words = [.. Fields.Values.SelectMany(w => w)];

    /// <summary>Reads a roster. Nothing is left out in silence: what is wrong stands beside its row.</summary>
    /// <param name="bytes">The file.</param>
    /// <param name="mapping">Which column holds what, by field; null to guess.</param>
    /// <exception cref="FormatProblem">The file is no roster.</exception>
    public static RosterPreview Read(byte[] bytes, IReadOnlyDictionary<string, int>? mapping)
    {
        var table = Table.Read(bytes, cell => Words.Contains(Columns.Fold(cell)));
        var fields = mapping ?? Columns.Guess(table.Headings, Fields);
        var lines = table.Rows.Select(row => LineOf(table, row, fields)).ToList();
        var hasNames = fields.ContainsKey("name") || (fields.ContainsKey("family") && fields.ContainsKey("given"));
        if (hasNames)
        {
            MarkRepeats(lines, l => l.Number, "student number");
            MarkRepeats(lines, l => l.Email?.ToLowerInvariant(), "e-mail address");
            MarkRepeats(lines, l => l.Number is null && l.Email is null ? $"{l.Given} {l.Family}".ToLowerInvariant() : null, "name");
        }

        return new RosterPreview(Columns.Describe(table, fields), lines, table.Encoding, table.Separator, table.HeadingsRow);
    }

    private static RosterLine LineOf(Table table, TableRow row, IReadOnlyDictionary<string, int> fields)
    {
        var (given, family) = (Columns.Cell(row, fields, "given"), Columns.Cell(row, fields, "family"));
        if (given.Length == 0 && family.Length == 0)
        {
            (given, family) = Apart(Columns.Cell(row, fields, "name"));
        }

        var problems = Columns.Problems(table, row).ToList();
        if (given.Length == 0 || family.Length == 0)
        {
            problems.Add(given.Length + family.Length == 0 ? "has no name. Fill it in or delete the row." : "has only one name. Fill in the family name and the given name.");
        }

        var email = Columns.Cell(row, fields, "email");
        if (email.Length > 0 && (email.Count(c => c == '@') != 1 || email.StartsWith('@') || email.EndsWith('@') || email.Contains(' ')))
        {
            problems.Add($"has “{email}” where an e-mail address should be.");
        }

        return new RosterLine(
            row.Number, OrNull(Columns.Cell(row, fields, "number")), family, given,
            OrNull(Columns.Cell(row, fields, "preferred")), OrNull(email), Columns.Cell(row, fields, "tags"), problems);
    }

    // "Last, First", or the last word as the family name; the preview shows which.
    private static (string Given, string Family) Apart(string name)
    {
        if (name.Split(',', 2) is [var last, var first])
        {
            return (first.Trim(), last.Trim());
        }

        var space = name.LastIndexOf(' ');
        return space < 0 ? (name, "") : (name[..space].Trim(), name[(space + 1)..]);
    }

    private static void MarkRepeats(List<RosterLine> lines, Func<RosterLine, string?> keyOf, string what)
    {
        foreach (var same in lines.Where(l => keyOf(l) is not null).GroupBy(keyOf).Where(g => g.Count() > 1).ToList())
        {
            var first = same.First();
            foreach (var line in same.Skip(1).ToList())
            {
                lines[lines.IndexOf(line)] = line with
                {
                    Problems = [.. line.Problems, $"has the same {what} as row {first.Row}, “{first.Given} {first.Family}”. Keep one of them."],
                };
            }
        }
    }

    private static string? OrNull(string cell) => cell.Length == 0 ? null : cell;
}
