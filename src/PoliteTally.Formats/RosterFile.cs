using PoliteTally.Core.Names;

namespace PoliteTally.Formats;

/// <summary>A student as a roster file gives them.</summary>
public sealed record RosterRow(
    int Row, string? Number, string Family, string Given, string? Preferred, string? Email, string? SecondEmail, string? Phone, string Tags,
    IReadOnlyList<string> Problems);

/// <summary>A roster file as it would be brought in.</summary>
/// <param name="Columns">Its columns, with what they are taken for; empty for a bundle.</param>
/// <param name="Rows">Its rows.</param>
/// <param name="ReadAs">How it was read, in words.</param>
/// <param name="HeadingsRow">The row of its headings; 0 if it has none.</param>
/// <param name="HeadingsKnown">Whether any heading is known, so that there is little doubt that they are headings.</param>
/// <param name="Classes">The classes of a bundle; empty for a table.</param>
/// <param name="ChosenClass">Which of them is looked at; null while it has to be chosen.</param>
public sealed record RosterPreview(
    IReadOnlyList<Column> Columns, IReadOnlyList<RosterRow> Rows, string ReadAs, int HeadingsRow, bool HeadingsKnown,
    IReadOnlyList<BundleClass> Classes, string? ChosenClass);

/// <summary>Reads rosters: one student a row, any column order and headings.</summary>
public static class RosterFile
{
    /// <summary>What a column of a roster can be, with the headings it goes by, the likeliest first.</summary>
    public static readonly IReadOnlyDictionary<string, string[]> Fields = new Dictionary<string, string[]>
    {
        ["number"] = ["studentnumber", "studentid", "studentno", "number", "no", "id", "pupilnumber", "matriculation", "schülernummer"],
        ["family"] = ["familyname", "lastname", "surname", "last", "family", "nachname", "nom", "apellidos", "apellido", "efternavn", "cognome"],
        ["preferred"] = ["preferredname", "preferred", "called", "calledname", "knownas", "nickname", "rufname", "preferredfirstname"],
        ["given"] = ["givenname", "firstname", "forename", "givennames", "first", "given", "vorname", "prénom", "prenom", "nombre", "fornavn", "nome"],
        ["name"] = ["fullname", "name", "studentname", "student", "pupil", "names", "displayname"],
        ["email"] = ["email", "emailaddress", "mail", "schoolemail", "epost", "courriel"],
        ["secondEmail"] = ["secondemail", "secondemailaddress", "email2", "secondaryemail", "otheremail", "homeemail", "parentemail", "guardianemail", "contactemail"],
        ["phone"] = ["phone", "telephone", "phonenumber", "telephonenumber", "mobile", "mobilephone", "tel", "sms", "telefon", "téléphone", "teléfono"],
        ["tags"] = ["tags", "tag", "groups", "group", "labels"],
    };

    private const int LeastDigitsOfPhone = 7;

    private static readonly HashSet<string> Words = [.. Fields.Values.SelectMany(w => w)];

    /// <summary>Reads a roster. Nothing is left out in silence: what is wrong stands beside its row.</summary>
    /// <param name="bytes">The file.</param>
    /// <param name="mapping">Which column holds what, by field; null to guess.</param>
    /// <param name="headless">Whether the first row is a student already.</param>
    /// <param name="bundleClass">Which class of a rostering bundle; null if there is but one, or to choose.</param>
    /// <exception cref="FormatProblem">The file is no roster.</exception>
    public static RosterPreview Read(
        byte[] bytes, IReadOnlyDictionary<string, int>? mapping, bool headless = false, string? bundleClass = null)
    {
        using var budget = ReadingBudget.Begin();
        if (RosterBundle.IsOne(bytes))
        {
            var bundle = RosterBundle.Read(bytes, bundleClass);
            var entered = bundle.Rows.ToList();
            MarkAllRepeats(entered);
            return bundle with { Rows = entered };
        }

        var table = Table.Read(OfficeText.Plain(bytes) ?? bytes, cell => Words.Contains(Columns.Fold(cell)), headless);
        var fields = mapping ?? (headless ? GuessByContent(table) : Columns.Guess(table.Headings, Fields));
        var lines = table.Rows.Select(row => LineOf(table, row, fields)).ToList();
        if (HasNames(fields))
        {
            MarkAllRepeats(lines);
        }

        return new RosterPreview(
            Columns.Describe(table, fields), lines, table.ReadAs, table.HeadingsRow, table.HeadingsKnown, [], null);
    }

    private static bool HasNames(IReadOnlyDictionary<string, int> fields) =>
        fields.ContainsKey("name") || (fields.ContainsKey("family") && fields.ContainsKey("given"));

    private static void MarkAllRepeats(List<RosterRow> lines)
    {
        MarkRepeats(lines, l => l.Number, "student number");
        MarkRepeats(lines, l => l.Email?.ToLowerInvariant(), "e-mail address");
        MarkRepeats(lines, l => l.Number is null && l.Email is null ? $"{l.Given} {l.Family}".ToLowerInvariant() : null, "name");
    }

    // Without headings: addresses have an @, telephone numbers are long, student numbers have digits, and what is left are names, the given name first.
    private static Dictionary<string, int> GuessByContent(Table table)
    {
        var guess = new Dictionary<string, int>();
        var names = new List<int>();
        for (var index = 0; index < table.Headings.Count; index++)
        {
            var cells = table.Rows.Select(r => r.Cells.ElementAtOrDefault(index) ?? "").Where(c => c.Length > 0).ToList();
            if (cells.Count == 0)
            {
                continue;
            }

            if (cells.TrueForAll(c => c.Contains('@')))
            {
                _ = guess.TryAdd("email", index) || guess.TryAdd("secondEmail", index);
            }
            else if (cells.TrueForAll(c => IsPhone(c) && (c[0] is '+' or '0') && c.Count(char.IsDigit) >= LeastDigitsOfPhone))
            {
                guess.TryAdd("phone", index);
            }
            else if (cells.TrueForAll(c => c.Any(char.IsDigit)))
            {
                guess.TryAdd("number", index);
            }
            else
            {
                names.Add(index);
            }
        }

        string[] fields = names.Count == 1 ? ["name"] : ["given", "family"];
        foreach (var (field, index) in fields.Zip(names))
        {
            guess[field] = index;
        }

        return guess;
    }

    /// <summary>
    /// Whether a text is an e-mail address that post can go to: a local part of the signs that need no quotation marks (RFC 5321), one @, and a
    /// domain of labels, in whatever script. At most 254 letters.
    /// </summary>
    public static bool IsAddress(string text) =>
        text.Length <= 254 && text.Split('@') is [{ Length: > 0 and <= 64 } local, { Length: > 0 } domain]
        && !local.StartsWith('.') && !local.EndsWith('.') && local.All(c => char.IsLetterOrDigit(c) || "!#$%&'*+-/=?^_`{|}~.".Contains(c))
        && domain.Split('.').All(label => label.Length is > 0 and <= 63 && !label.StartsWith('-') && !label.EndsWith('-') && label.All(c => char.IsLetterOrDigit(c) || c == '-'));

    /// <summary>
    /// Whether a text is a telephone number: from 3 to 20 digits, with a plus in front, and blanks, strokes, dots and brackets between them as
    /// people write them (ITU-T E.123).
    /// </summary>
    public static bool IsPhone(string text) =>
        text.TrimStart('+').Length >= text.Length - 1 && text.TrimStart('+').All(c => char.IsAsciiDigit(c) || " -./()".Contains(c))
        && text.Count(char.IsAsciiDigit) is >= 3 and <= 20;

    private static RosterRow LineOf(Table table, TableRow row, IReadOnlyDictionary<string, int> fields)
    {
        var (given, family) = (Columns.Cell(row, fields, "given"), Columns.Cell(row, fields, "family"));
        if (given.Length == 0 && family.Length == 0)
        {
            (given, family) = Apart(Columns.Cell(row, fields, "name"));
        }

        (given, family) = RosterName.Placed(given, family);
        var problems = Columns.Problems(table, row).ToList();
        if (given.Length + family.Length == 0)
        {
            problems.Add("has no name. Fill it in or delete the row.");
        }
        else if (!HasNames(fields))
        {
            // One name is enough for a student, but not because half of the table was not understood.
            problems.Add("has only one name, for no column is taken for the other. Say which holds it.");
        }

        var email = Columns.Cell(row, fields, "email");
        if (email.Length > 0 && !IsAddress(email))
        {
            problems.Add($"has “{email}” where an e-mail address should be.");
        }

        var (second, phone) = (Columns.Cell(row, fields, "secondEmail"), Columns.Cell(row, fields, "phone"));
        if (second.Length > 0 && !IsAddress(second))
        {
            problems.Add($"has “{second}” where a second e-mail address should be.");
        }

        if (phone.Length > 0 && !IsPhone(phone))
        {
            problems.Add($"has “{phone}” where a telephone number should be.");
        }

        return new RosterRow(
            row.Number, Columns.OrNull(Columns.Cell(row, fields, "number")), family, given,
            Columns.OrNull(Columns.Cell(row, fields, "preferred")), Columns.OrNull(email), Columns.OrNull(second), Columns.OrNull(phone),
            Columns.Cell(row, fields, "tags"), problems);
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

    private static void MarkRepeats(List<RosterRow> lines, Func<RosterRow, string?> keyOf, string what)
    {
        var firstOf = new Dictionary<string, RosterRow>(StringComparer.Ordinal);
        for (var i = 0; i < lines.Count; i++)
        {
            var line = lines[i];
            if (keyOf(line) is { } key && !firstOf.TryAdd(key, line))
            {
                var first = firstOf[key];
                lines[i] = line with
                {
                    Problems = [.. line.Problems, $"has the same {what} as row {first.Row}, “{first.Given} {first.Family}”. Keep one of them."],
                };
            }
        }
    }
}
