namespace PoliteTally.Web.Requests;

/// <summary>Names of the limits on how often something may be asked.</summary>
internal static class Limits
{
    public const string SignIn = "sign-in";
    public const string Files = "files";
    public const string Reports = "reports";
    public const string Entries = "entries";
    public const string Keys = "keys";
    public const string Page = "page";
}
