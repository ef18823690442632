namespace PoliteTally.Formats;

/// <summary>How large a file may be.</summary>
public static class FileSize
{
    /// <summary>The largest file that is read, in bytes.</summary>
    public const int Largest = 20_000_000;

    /// <summary>The same, as it is said.</summary>
    public static readonly string Said = FormattableString.Invariant($"{Largest / 1_000_000} MB");

    /// <summary>What to do with a table that is too large.</summary>
    public const string OnlyTheSheet = "Save only the sheet with the names as CSV and bring in that.";

    /// <summary>Refuses what is larger.</summary>
    /// <param name="bytes">The size of the file in bytes.</param>
    /// <param name="instead">What to do, as a sentence.</param>
    /// <exception cref="FormatProblem">The file is larger.</exception>
    public static void Check(long bytes, string instead)
    {
        if (bytes > Largest)
        {
            throw new FormatProblem($"This file is larger than {Said}. {instead}");
        }
    }
}
