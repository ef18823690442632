namespace PoliteTally.Formats;

/// <summary>A file cannot be used. The message says what is wrong, where, and what to do.</summary>
public sealed class FormatProblem(string message) : Exception(message);

/// <summary>Something wrong in one row of a file.</summary>
/// <param name="Row">The row as a spreadsheet counts it, from 1.</param>
/// <param name="Message">What is wrong and what to do.</param>
public sealed record RowProblem(int Row, string Message);
