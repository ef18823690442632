using NodaTime;

namespace PoliteTally.Formats;

/// <summary>What the cells of a column hold.</summary>
internal enum Holds
{
    Nothing,
    Times,
    Dates,
    Lengths,
    Addresses,
    Actions,
    Texts,
}

/// <summary>Says what a column holds by what stands in it, whatever its heading is.</summary>
internal static class CellContent
{
    /// <summary>How many cells of a column are looked at.</summary>
    public const int Looked = 60;

    /// <summary>How large a part of them has to hold the same.</summary>
    public const double Most = 0.8;

    private static readonly Duration Near = Duration.FromHours(4);

    /// <summary>What a column holds.</summary>
    /// <param name="table">The table.</param>
    /// <param name="column">The place of the column.</param>
    /// <param name="near">When the lesson was to begin, in the zone of its times.</param>
    public static Holds Of(Table table, int column, LocalDateTime near) => Of(Cells(table, column), near);

    /// <summary>Whether a cell holds what never stands among headings, and is no answer: a time, a day, or an address.</summary>
    public static bool IsData(string cell, LocalDateTime near) => IsData(Of([cell], near));

    /// <summary>As the other, of what a column holds.</summary>
    public static bool IsData(Holds holds) => holds is Holds.Times or Holds.Dates or Holds.Addresses;

    /// <summary>Whether not all of the first cells of a column are the same.</summary>
    public static bool IsMixed(Table table, int column) => Cells(table, column).Distinct().Skip(1).Any();

    /// <summary>The first cells of a column that are not empty.</summary>
    public static List<string> Cells(Table table, int column) =>
        [.. table.Rows.Take(10 * Looked).Select(r => Columns.CellOf(r, column)).Where(c => c.Length > 0).Take(Looked)];

    /// <summary>What cells hold, most of them.</summary>
    public static Holds Of(List<string> cells, LocalDateTime near)
    {
        if (cells.Count == 0)
        {
            return Holds.Nothing;
        }

        bool Mostly(Func<string, bool> holds) => cells.Count(holds) >= Most * cells.Count;
        // 00:47:30 is three quarters of an hour or shortly after midnight: a time of day only if the lesson is near it.
        // 09.10.26 is a day, unless some of them are none.
        return Mostly(TimeText.IsDotted) && Mostly(TimeText.IsDate) ? Holds.Dates
            : Mostly(c => TimeText.Sortable(c, near) is { } time && (!(TimeText.IsClock(c) || TimeText.IsDotted(c)) || Period.Between(time, near, PeriodUnits.Ticks).ToDuration() is var gap && gap < Near && gap > -Near)) ? Holds.Times
            : Mostly(TimeText.IsDate) ? Holds.Dates
            : Mostly(c => c.Contains('@') && c.Contains('.')) ? Holds.Addresses
            : Mostly(c => AttendanceColumns.Says(c) is (true, false) or (false, true)) ? Holds.Actions
            : Mostly(c => !IsBareNumber(c) && TimeText.Length(c, Duration.FromMinutes(1)) is not null) ? Holds.Lengths
            : Mostly(c => c.Any(char.IsLetter) && c.Count(char.IsDigit) * 2 < c.Length) ? Holds.Texts
            : Holds.Nothing;
    }

    private static bool IsBareNumber(string cell) => cell.All(c => char.IsDigit(c) || c is '.' or ',');
}
