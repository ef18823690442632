using System.Text.RegularExpressions;
using NodaTime;
using PoliteTally.Core.Text;

namespace PoliteTally.Formats;

/// <summary>A name in a list of people.</summary>
/// <param name="Row">The line, from 1.</param>
/// <param name="Problems">What is wrong with it; empty if it can be taken.</param>
public sealed record PersonRow(int Row, string Name, IReadOnlyList<string> Problems);

/// <summary>A list of who was there at one moment, as it would be brought in.</summary>
/// <param name="Rows">The names, each once.</param>
/// <param name="At">When it was seen, if it says so.</param>
/// <param name="LeftOut">How many of its lines name nobody: how many they are, what stands beside every name.</param>
/// <param name="IsOne">Whether it looks like one: most of its lines are names, and many of them of this class.</param>
public sealed record PeoplePreview(IReadOnlyList<PersonRow> Rows, Instant? At, int LeftOut, bool IsOne);

/// <summary>Reads lists of people: names one a line or in cells, as they are copied from a window or read from a picture of one.</summary>
public static partial class PeopleFile
{
    /// <summary>The most names that are read: 2,000.</summary>
    public const int MostNames = 2000;

    // Beside each name there may stand a few things more.
    private const int MostCells = 20_000;
    private const int LongestCell = 20_000;

    // Of a list of this class so many are of it: a picture is read with mistakes.
    private const double ShareOfClass = 0.4;

    // Of the lines of a table so many have as many cells; in the others one is empty.
    private const double MostLines = 0.7;

    // So many names show whose list it is.
    private const int Looked = 100;

    // So many in one line are not two parts of one name.
    private const int LongestLabel = 30;
    private const int FewTogether = 3;
    private const int MostTogether = 100;
    private const double Most = 0.6;

    // More than every fifth cell without a letter is a table of something else.
    private const int ShareOfNumbers = 5;

    // What a list on a screen has beside the people, folded.
    private static readonly HashSet<string> Pressed = ["invite", "invitepeople", "addpeople", "muteall", "unmuteall", "lowerallhands", "search", "searchpeople", "more", "close", "showall", "viewall"];

    // What stands this often is a word beside each name, not somebody.
    private const int OftenIsNobody = 3;

    /// <summary>Reads a list of people.</summary>
    /// <param name="bytes">The text, or a workbook with names in its cells.</param>
    /// <param name="zone">The zone of times that do not name theirs.</param>
    /// <param name="lessonFrom">When the lesson was to begin.</param>
    /// <param name="lessonTo">When the lesson was to end.</param>
    /// <param name="isNameHere">Whether somebody of the class may be called so.</param>
    /// <exception cref="FormatProblem">It cannot be read, or has no names.</exception>
    public static PeoplePreview Read(byte[] bytes, DateTimeZone zone, Instant lessonFrom, Instant lessonTo, Func<string, bool> isNameHere)
    {
        using var budget = ReadingBudget.Begin();
        if (PresenceList.Of(bytes, lessonFrom.InZone(zone).Date, isNameHere) is { } present)
        {
            return new PeoplePreview([.. present.Here.Select(p => new PersonRow(p.Row, p.Name, []))], null, present.Away, IsOne: true);
        }

        var (found, away) = CellsOf(bytes, isNameHere);
        var cells = WithoutBadges(found);
        var often = cells.GroupBy(c => Columns.Fold(c.Text)).Where(g => g.Count() >= OftenIsNobody && !isNameHere(g.First().Text)).Select(g => g.Key).ToHashSet();
        var (names, seen, leftOut, at) = (new List<PersonRow>(), new HashSet<string>(StringComparer.Ordinal), away, (Instant?)null);
        foreach (var (row, text) in cells)
        {
            if (MomentIn(text) is { } moment)
            {
                at ??= moment;
            }
            else if (NameIn(text) is not { } name || text.Contains('@') || often.Contains(Columns.Fold(text)) || (Pressed.Contains(Columns.Fold(text)) && !isNameHere(text)) || (names.Count == 0 && AttendanceColumns.IsHeading(text)))
            {
                leftOut++;
            }
            else if (seen.Add(name))
            {
                var (shown, tooLong) = Columns.Checked(name);
                names.Add(new PersonRow(row, shown, tooLong is null ? [] : [tooLong]));
            }
        }

        return names.Count == 0 ? throw new FormatProblem("No names are found in this list. It needs a name in each line.")
            : names.Count > MostNames ? throw new FormatProblem($"This list has {names.Count} names; at most {MostNames:N0} can be read.")
            : new PeoplePreview(
                names, at, leftOut,
                names.Count >= 2 && cells.Count(c => c.Text.Contains('?')) * ShareOfNumbers <= cells.Count && !SaySomething(names, isNameHere) && !HasColumns(cells, isNameHere) && cells.Count(c => !c.Text.Any(char.IsLetter) || IsTime(c.Text)) * ShareOfNumbers <= cells.Count && names.Count(n => Cut().IsMatch(n.Name)) * 2 < names.Count && names.Count(n => n.Name.Any(char.IsDigit)) * 3 <= names.Count && names.Take(Looked).Count(n => isNameHere(n.Name)) >= ShareOfClass * Math.Min(Looked, names.Count));

        // "9:28 AM" has letters, and is no name.
        bool IsTime(string text) => TimeText.Sortable(text, lessonFrom.InZone(zone).LocalDateTime) is not null;

        Instant? MomentIn(string text) =>
            Clock().IsMatch(text) && TimeText.Read([text], lessonFrom, zone).Times[0] is { } moment
            && moment > lessonFrom - Duration.FromHours(1) && moment < lessonTo + Duration.FromHours(1) ? moment : null;
    }

    private static (List<(int Row, string Text)> Cells, int Away) CellsOf(byte[] bytes, Func<string, bool> isNameHere)
    {
        if (Archive.IsOne(bytes))
        {
            return ([.. Workbook.Sheets(bytes, MostNames)[0].Rows.SelectMany(r => r.Cells.Where(c => c.Length > 0).Select(c => (r.Number, c)))], 0);
        }

        FileSize.Check(bytes.Length, "Save only the names and bring in those.");
        var file = FileText.Of(bytes);
        if (file.BeginsAsJson && JsonTable.Of(file) is not null)
        {
            throw new FormatProblem("This is a file of a program, not a list of names. It needs a name in each line.");
        }

        var text = file.Whole;
        var isTicked = TickedList.IsOne(text);
        // Names in one line stand between commas; in a list of lines a comma is part of a name.
        var between = text.AsSpan().Trim().Contains('\n') ? "\t;|" : "\t;|,";
        var (cells, row, isAway, away) = (new List<(int Row, string Text)>(), 0, false, 0);
        foreach (var each in text.AsSpan().EnumerateLines())
        {
            row++;
            var line = each;
            // Under “Not present (2)” stand those who were not, until somebody else is headed.
            if (IsHead(AwayWords(), line) || IsHead(HereWords(), line))
            {
                isAway = IsHead(AwayWords(), line);
                continue;
            }

            if (isAway || (isTicked && !TickedList.IsTicked(ref line)))
            {
                away += line.IsWhiteSpace() ? 0 : 1;
                continue;
            }

            if (TogetherIn(line.ToString(), isNameHere) is { } together)
            {
                cells.AddRange(together.Select(name => (row, name)));
                if (cells.Count > MostCells)
                {
                    throw TooMany();
                }

                continue;
            }

            foreach (var range in line.SplitAny(between))
            {
                if (line[range].Trim().Trim('"') is not { Length: > 0 } cell)
                {
                    continue;
                }

                if (cells.Count == MostCells || cell.Length > LongestCell)
                {
                    throw TooMany();
                }

                cells.Add((row, cell.ToString()));
            }
        }

        return (cells, away);

        static FormatProblem TooMany() => new($"This is more than a list of people: it has more than {MostCells:N0} places, or a place with more than {LongestCell:N0} letters.");
    }

    // “Juno: four” is what somebody wrote.
    private static bool SaySomething(List<PersonRow> names, Func<string, bool> isNameHere) => names.Take(Looked).Count(n =>
        Said().Match(n.Name) is { Success: true } said && isNameHere(said.Groups["who"].Value) && !isNameHere(said.Groups["what"].Value)) * 2 > Math.Min(Looked, names.Count);

    // “Here: Juno, Eino, Zainab” names several in one line; whom “Away:” names are not here.
    private static string[]? TogetherIn(string line, Func<string, bool> isNameHere)
    {
        var colon = line.AsSpan(0, Math.Min(line.Length, LongestLabel)).IndexOf(':');
        var isAway = colon > 0 && AwayWords().IsMatch(line[..colon]);
        var isSaid = isAway || (colon > 0 && HereWords().IsMatch(line[..colon]));
        if (line.Length > LongestCell || line.Count(c => c == ',') > MostTogether || (!isSaid && line.Count(c => c == ',') < FewTogether - 1))
        {
            return null;
        }

        ReadingBudget.AskNow();
        var names = line[(colon + 1)..].Split(',', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries);
        // “Vale, Tamsin” is one name, unless it is said that several follow.
        return names.Count(n => isNameHere(Beside().Replace(n, ""))) < Most * names.Length || (!isSaid && names.Count(n => n.Contains(' ')) * 2 < names.Length) ? null
            : isAway ? [] : Array.ConvertAll(names, n => Beside().Replace(n, ""));
    }

    // “Present (12)”, “— Absent: —”: the words alone, with how many.
    private static bool IsHead(Regex words, ReadOnlySpan<char> line) => line.Length <= LongestLabel && words.IsMatch(line) && Alone().IsMatch(words.Replace(line.ToString(), ""));

    // Where most lines have as many cells, or fewer than the headings, names stand in all of its columns, or it is a table with something beside them.
    private static bool HasColumns(List<(int Row, string Text)> cells, Func<string, bool> isNameHere)
    {
        var lines = cells.GroupBy(c => c.Row).Select(l => l.Select(c => c.Text).ToList()).Take(Looked).ToList();
        var width = lines.CountBy(l => l.Count).MaxBy(w => w.Value).Key;
        var rows = lines.FindAll(l => l.Count == width);
        if (lines.TrueForAll(l => l.Count <= lines[0].Count) && lines.Count(l => l.Count > 1) * 2 >= lines.Count)
        {
            // Cells with nothing in them are not among these.
            (width, rows) = (lines[0].Count, lines);
        }

        var isOfNames = Enumerable.Range(0, width).ToLookup(column => rows.Count(l => l.Count > column && isNameHere(l[column])) >= ShareOfClass * (rows.Count - 1));
        return lines.Count > 1 && width > 1 && rows.Count >= MostLines * lines.Count && (isOfNames[true].Count() < 2 || isOfNames[false].Any(IsFilled));

        // Under its heading.
        bool IsFilled(int column) => rows.Skip(1).Where(l => l.Count > column).Select(l => l[column]).ToList() is var below && below.Count * 2 >= rows.Count && below.Distinct().Count() > 1;
    }

    // In a picture a badge stands before each name, and is read as some letter or sign.
    private static List<(int Row, string Text)> WithoutBadges(List<(int Row, string Text)> cells) => cells.Count(c => Badge().IsMatch(c.Text)) * 2 < cells.Count
        ? cells
        : cells.ConvertAll(c => (c.Row, Badge().Replace(c.Text, "")));

    // Without the number of the line, a bullet, and what is said of somebody behind the name.
    private static string? NameIn(string text)
    {
        var name = CleanText.Of(Before().Replace(Behind().Replace(text, ""), ""));
        return name.Count(char.IsLetter) < 2 || Counted().IsMatch(text) ? null : name;
    }

    [GeneratedRegex(@"^\s*(?:\d{1,3}\s*[.)]\s+|[-–—•·*+>▪●○◦»]+\s*)")]
    private static partial Regex Before();

    // “(you)”, “(host, me)”: one or two short words of the program; what a student says of themselves is a name's part, so only known roles go.
    [GeneratedRegex(@"\s*[(\[](?:(?:host|co-host|cohost|you|me|organiser|organizer|presenter|moderator|teacher|ich|du|vous|moi|tú|yo)(?:,\s*)?)+[)\]]\s*$", RegexOptions.IgnoreCase)]
    private static partial Regex Behind();

    // One letter, or a sign with whatever hangs on it; never two letters, which may be somebody's name.
    [GeneratedRegex(@"^\s*(?:\p{L}\.?|[^\p{L}\d\s(]{1,3}\p{L}?|\p{L}[^\p{L}\d\s.'’-]{1,2})\s+(?=\S)")]
    private static partial Regex Badge();

    [GeneratedRegex(@"\b(?:away|absent|missing|not (?:yet )?(?:here|there|present|attending|joined)|no[ -]shows?|fehlt|fehlend|abwesend|absents?|ausentes?|frånvarande|fraværende|poissa|fjarverandi)\b", RegexOptions.IgnoreCase)]
    private static partial Regex AwayWords();

    [GeneratedRegex(@"\b(?:here|present|there|attending|late|anwesend|verspätet|da|présents?|présentes?|presentes?|närvarande|til stede|tilstede|läsnä|mætt|mættur|mættir)\b", RegexOptions.IgnoreCase)]
    private static partial Regex HereWords();

    [GeneratedRegex(@"^[\W\d]*$")]
    private static partial Regex Alone();

    // Why somebody is away.
    [GeneratedRegex(@"\s*\([^)]*\)\s*$")]
    private static partial Regex Beside();

    [GeneratedRegex(@"^(?<who>[^:–—]{2,60}?)(?::| [–—-] )\s*(?<what>\S.*)$", RegexOptions.ExplicitCapture)]
    private static partial Regex Said();

    // “Suharto, Dewi” is a name, “Dewi,yes” a row of a table.
    [GeneratedRegex(@",\S")]
    private static partial Regex Cut();

    [GeneratedRegex(@"^[^\d]*[(\[:]\s*\d{1,4}\s*[)\]]?\s*$")]
    private static partial Regex Counted();

    [GeneratedRegex(@"^\s*\d{1,2}[:.]\d{2}(?:[:.]\d{2})?(?:\s*[AaPp]\.?[Mm]\.?)?\s*$")]
    private static partial Regex Clock();
}
