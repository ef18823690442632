namespace PoliteTally.Formats;

/// <summary>A file cannot be used. The message says what is wrong, where, and what to do.</summary>
public class FormatProblem(string message) : Exception(message);

/// <summary>A file is whole and can be read, and nothing that anybody knows is found in it.</summary>
public sealed class NothingKnown(string message) : FormatProblem(message);

/// <summary>Something wrong in one row of a file.</summary>
/// <param name="Row">The row as a spreadsheet counts it, from 1.</param>
/// <param name="Message">What is wrong and what to do.</param>
public sealed record RowProblem(int Row, string Message);

/// <summary>A file tells of other days alone.</summary>
public sealed class OtherDays(string message) : FormatProblem(message);
