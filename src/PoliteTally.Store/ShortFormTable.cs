using PoliteTally.Core.Names;

namespace PoliteTally.Store;

/// <summary>The short forms of names that a school adds in its data folder.</summary>
public static class ShortFormTable
{
    /// <summary>The name of a school's own table, in the data folder.</summary>
    public const string FileName = "short-forms.txt";

    /// <summary>The table that ships with the application, with what the school of a data folder adds.</summary>
    /// <exception cref="StartProblem">The school's table is not understood, or cannot be read.</exception>
    public static ShortForms Of(string dataFolder)
    {
        var own = Path.Combine(dataFolder, FileName);
        try
        {
            return File.Exists(own) ? ShortForms.Read(File.ReadAllText(own), ShortForms.Shipped) : ShortForms.Shipped;
        }
        catch (Exception problem) when (problem is FormatException or IOException or UnauthorizedAccessException)
        {
            throw new StartProblem($"The short forms of names in {own} cannot be used: {problem.Message}");
        }
    }
}
