using PoliteTally.Core.Names;

namespace PoliteTally.Web.Requests;

/// <summary>What a file that is saved is called.</summary>
internal static class SavedAs
{
    /// <summary>The name of a class as a part of the name of a file: letters and digits, with dashes between.</summary>
    public static string PartOf(string className) => string.Join('-', NameFolding.Tokens(className)) is { Length: > 0 } safe ? safe : "class";
}
