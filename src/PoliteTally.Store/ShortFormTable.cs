using PoliteTally.Core.Names;

namespace PoliteTally.Store;

/// <summary>The short forms of names: the table that ships with the application, and what a school adds in its data folder.</summary>
public static class ShortFormTable
{
    /// <summary>The name of a school's own table, in the data folder.</summary>
    public const string FileName = "short-forms.txt";

    private static readonly Lazy<ShortForms> OfTheApplication = new(() =>
    {
        using var stream = typeof(ShortFormTable).Assembly.GetManifestResourceStream(FileName)!;
        using var reader = new StreamReader(stream);
        return ShortForms.Read(reader.ReadToEnd());
    });

    /// <summary>The table that ships with the application.</summary>
    public static ShortForms Shipped => OfTheApplication.Value;

    /// <summary>That table with what the school of a data folder adds.</summary>
    /// <exception cref="StartProblem">The school's table is not understood, or cannot be read.</exception>
    public static ShortForms Of(string dataFolder)
    {
        var own = Path.Combine(dataFolder, FileName);
        try
        {
            return File.Exists(own) ? ShortForms.Read(File.ReadAllText(own), Shipped) : Shipped;
        }
        catch (Exception problem) when (problem is FormatException or IOException or UnauthorizedAccessException)
        {
            throw new StartProblem($"The short forms of names in {own} cannot be used: {problem.Message}");
        }
    }
}
