namespace PoliteTally.Web.Features.Keys;

/// <summary>How entries of a helper are signed.</summary>
internal static class HelperSignature
{
    private const string Mark = " (helper)";

    /// <summary>The signature of a helper of this name.</summary>
    public static string Of(string name) => name + Mark;

    /// <summary>The name of the helper who signed an entry; null if the teacher did.</summary>
    public static string? NameIn(string by) => by.EndsWith(Mark, StringComparison.Ordinal) ? by[..^Mark.Length] : null;
}
