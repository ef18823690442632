using NodaTime;

namespace PoliteTally.Formats;

/// <summary>A row of captions in a table.</summary>
/// <param name="Row">Its row, from 1.</param>
/// <param name="From">When it begins, counted from the start or from 1970.</param>
/// <param name="To">When it ends, counted likewise.</param>
internal readonly record struct CaptionRow(int Row, string Name, Duration From, Duration To, string Words);

/// <summary>
/// Finds captions in a table or in JSON: two columns of times of which the second is soon after the first and the first goes on from row to row, a column of who spoke, and one of words.
/// </summary>
internal static class CaptionsTable
{
    // Nobody goes on for longer in one row.
    private static readonly Duration Longest = Duration.FromMinutes(10);

    // What begins later was counted from no start; what ends later was counted in thousandths.
    private static readonly Duration LatestStart = Duration.FromMinutes(15);
    private static readonly Duration LatestEnd = Duration.FromHours(6);

    private const int FewRows = 3;
    private const double Nearly = 0.9;

    // Words of somebody have spaces between them.
    private const double FewSpaces = 1.5;

    private static readonly HashSet<string> Headings = ["start", "end", "from", "to", "begin", "speaker", "name", "text", "content", "caption", "words", "who", "starttime", "endtime"];

    // When a message was sent and when it was changed are two times, too.
    private static readonly HashSet<string> OfMessages = ["sent", "sentat", "edited", "editedat", "posted", "postedat", "changed", "changedat", "updated", "updatedat", "modified", "modifiedat"];

    /// <summary>The captions; null if the text is no table of them.</summary>
    /// <param name="text">The file.</param>
    /// <param name="zone">The zone of times that do not name theirs.</param>
    /// <param name="lesson">When the lesson was to begin.</param>
    /// <param name="isNameHere">Whether somebody of the class may be called so.</param>
    public static (IReadOnlyList<CaptionRow> Rows, int LeftOut, bool FromStart)? Of(FileText text, DateTimeZone zone, Instant lesson, Func<string, bool> isNameHere)
    {
        // A program may give a time to each word.
        return In(TableOf(text), FewSpaces, zone, lesson, isNameHere)
            ?? (text.BeginsAsJson && In(Quietly(() => JsonTable.Of(text, takeApart: true)), 0, zone, lesson, isNameHere) is { FromStart: true } words ? words : null);
    }

    private static (IReadOnlyList<CaptionRow> Rows, int LeftOut, bool FromStart)? In(Table? found, double fewSpaces, DateTimeZone zone, Instant lesson, Func<string, bool> isNameHere)
    {
        if (found is not { Rows.Count: >= FewRows } table)
        {
            return null;
        }

        var moments = Enumerable.Range(0, table.Headings.Count).Select(c => OfMessages.Contains(Columns.Fold(table.Headings[c])) ? null : MomentsOf([.. table.Rows.Select(r => Columns.CellOf(r, c))], zone, lesson)).ToList();
        var pair = (from start in moments.Index()
                    from end in moments.Index()
                    where start.Item is not null && end.Item is not null && start.Index != end.Index && start.Item.FromStart == end.Item.FromStart && IsPair(start.Item.At, end.Item.At)
                    select (start, end)).FirstOrDefault();
        if (pair.start.Item is null)
        {
            return null;
        }

        List<int> left = [.. Enumerable.Range(0, table.Headings.Count).Where(c => moments[c] is null)];
        // Where names of the class stand are the names.
        var known = left.Where(c => CellContent.Cells(table, c).Distinct().ToList() is { Count: > 0 } cells && cells.Count(isNameHere) * 2 > cells.Count).Select(c => (int?)c).FirstOrDefault();
        // “1 h 5 min” has spaces, and says nothing.
        var words = left.Where(c => c != known && Spaces(c) >= fewSpaces && CellContent.Of(table, c, lesson.InZone(zone).LocalDateTime) == Holds.Texts).OrderByDescending(Spaces).Select(c => (int?)c).FirstOrDefault();
        var name = known ?? left.Where(c => c != words && CellContent.Cells(table, c) is { Count: > 0 } cells && cells.TrueForAll(t => t.Any(char.IsLetter)))
            .OrderByDescending(c => CellContent.Cells(table, c).Distinct().Count(isNameHere)).ThenBy(c => CellContent.Cells(table, c).Distinct().Count()).Select(c => (int?)c).FirstOrDefault();
        if (words is null || name is null)
        {
            return null;
        }

        var (from, to) = (pair.start.Item.At, pair.end.Item!.At);
        List<CaptionRow> rows =
        [
            .. table.Rows.Index().Where(r => from[r.Index] is not null && to[r.Index] is not null && Columns.CellOf(r.Item, name.Value).Length > 0)
                .Select(r => new CaptionRow(r.Item.Number, Columns.CellOf(r.Item, name.Value), from[r.Index]!.Value, to[r.Index]!.Value, Columns.CellOf(r.Item, words.Value))),
        ];
        return (rows, table.Rows.Count - rows.Count, pair.start.Item.FromStart);

        double Spaces(int column) => CellContent.Cells(table, column) is { Count: > 0 } cells ? cells.Average(c => c.Count(l => l == ' ')) : 0;
    }

    private sealed record Moments(IReadOnlyList<Duration?> At, bool FromStart);

    private static Table? TableOf(FileText text) => Quietly(() =>
        {
            if (text.BeginsAsJson)
            {
                return JsonTable.Of(text);
            }

            var table = Table.FromText(text, c => Headings.Contains(Columns.Fold(c)), mostRows: Table.MostOfLesson);
            // One column is no table, and cells of words that were cut at their commas neither.
            return table.Headings.Count < 4 || table.Rows.Count(r => r.Cells.Count == table.Headings.Count) < Nearly * table.Rows.Count ? null
                : table.HeadingsKnown ? table : Table.FromText(text, _ => false, headless: true, Table.MostOfLesson);
        });

    private static Table? Quietly(Func<Table?> read)
    {
        try
        {
            return read();
        }
        catch (FormatProblem)
        {
            return null;
        }
    }

    private static Moments? MomentsOf(List<string> cells, DateTimeZone zone, Instant lesson)
    {
        if (cells.Count(c => c.Length > 0 && char.IsDigit(c[0])) < Nearly * cells.Count)
        {
            return null;
        }

        var counted = cells.ConvertAll(c => TimeText.Length(c.Replace(',', '.') is var plain && plain.LastIndexOf('.') is > 0 and var dot && plain.Contains(':') ? plain[..dot] : plain, Duration.FromSeconds(1)));
        if (counted.Count(c => c is not null) >= Nearly * cells.Count)
        {
            var latest = counted.Max()!.Value;
            var unit = latest > LatestEnd && cells.TrueForAll(c => c.All(char.IsDigit)) ? 1000 : 1;
            return counted.Find(c => c is not null)!.Value / unit <= LatestStart && latest / unit <= LatestEnd ? new Moments(counted.ConvertAll(c => c / unit), FromStart: true) : OfDay();
        }

        return OfDay();

        Moments? OfDay()
        {
            var times = TimeText.Read(cells, lesson, zone).Times;
            return times.Count(t => t is not null) >= Nearly * cells.Count ? new Moments([.. times.Select(t => t - Instant.FromUnixTimeSeconds(0))], FromStart: false) : null;
        }
    }

    private static bool IsPair(IReadOnlyList<Duration?> from, IReadOnlyList<Duration?> to)
    {
        var both = from.Zip(to).Where(p => p is { First: not null, Second: not null }).Select(p => (From: p.First!.Value, To: p.Second!.Value)).ToList();
        return both.Count >= FewRows && both.Count(p => p.To > p.From && p.To - p.From <= Longest) >= Nearly * both.Count
            && both.Zip(both.Skip(1)).Count(p => p.First.From <= p.Second.From) >= Nearly * (both.Count - 1);
    }
}
