namespace PoliteTally.Core.Reports;

/// <summary>What a report says, whatever it is read on: a screen, paper, or a file. Each section has sentences first, then a drawing, then figures.</summary>
/// <param name="Title">What it is about, in a few words.</param>
/// <param name="About">The line above the title: class, days, school.</param>
/// <param name="Sections">Its sections, in the order in which they are read.</param>
public sealed record Document(string Title, string About, IReadOnlyList<Section> Sections);

/// <summary>A part of a document.</summary>
/// <param name="Heading">What it is called; empty where it goes on without a heading.</param>
/// <param name="Says">What is to be known, in sentences.</param>
/// <param name="Drawing">The same as a drawing; null if there is none.</param>
/// <param name="Figures">The same in figures; null if there are none.</param>
/// <param name="Key">By which an edit of its sentences is kept; null if they are not edited.</param>
/// <param name="Plain">What the program would say, where somebody put it in other words; null where nobody did.</param>
/// <param name="OutOfDate">Whether that is another than when it was put in other words.</param>
public sealed record Section(
    string Heading, IReadOnlyList<Sentence> Says, Drawing? Drawing = null, Figures? Figures = null, string? Key = null, string? Plain = null, bool OutOfDate = false);

/// <summary>A sentence that opens to what it rests on.</summary>
/// <param name="Text">The sentence.</param>
/// <param name="Opens">What it rests on; null if that stands beside it.</param>
/// <param name="Marked">The part of the text that is the point of it; null if no part is.</param>
/// <param name="Quiet">Whether it says what may come rather than what was.</param>
public sealed record Sentence(string Text, Opens? Opens = null, string? Marked = null, bool Quiet = false)
{
    /// <summary>A sentence that rests on what stands beside it.</summary>
    public static implicit operator Sentence(string text) => new(text);
}

/// <summary>What a figure opens to: a student over a term, in a lesson, or a lesson at a minute.</summary>
/// <param name="Student">The id of the student.</param>
/// <param name="Lesson">The id of the lesson.</param>
/// <param name="Minute">A minute of the lesson, counted from its planned start; may be negative.</param>
public sealed record Opens(Guid? Student = null, Guid? Lesson = null, int? Minute = null);

/// <summary>A table of figures.</summary>
/// <param name="Name">What it holds, as a sheet of a workbook is called.</param>
/// <param name="Headings">Its columns.</param>
/// <param name="Rows">Its rows.</param>
/// <param name="Fold">Whether it repeats what a drawing shows, so that on a screen it waits to be opened.</param>
public sealed record Figures(string Name, IReadOnlyList<string> Headings, IReadOnlyList<FigureRow> Rows, bool Fold = false);

/// <summary>A row of figures.</summary>
/// <param name="Cells">As many as there are headings.</param>
/// <param name="Opens">What the row opens to; null if to nothing.</param>
public sealed record FigureRow(IReadOnlyList<FigureCell> Cells, Opens? Opens = null);

/// <summary>A cell: words, or a number that stays one in a workbook.</summary>
/// <param name="Text">What is shown.</param>
/// <param name="Number">The number that is shown; null for words.</param>
public sealed record FigureCell(string Text, decimal? Number = null)
{
    /// <summary>Words.</summary>
    public static implicit operator FigureCell(string text) => new(text);

    /// <summary>A number.</summary>
    public static implicit operator FigureCell(decimal number) => Of(number);

    /// <summary>A whole number.</summary>
    public static implicit operator FigureCell(int number) => Of(number);

    /// <summary>A number with as few places as it needs, at most two; nothing for null.</summary>
    public static FigureCell Of(decimal? number) => number is { } given ? new(PoliteTally.Core.Text.Words.Plain(given), given) : new("");
}
