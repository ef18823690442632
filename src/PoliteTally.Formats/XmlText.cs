using System.Xml;

namespace PoliteTally.Formats;

/// <summary>Words in a file that is XML inside.</summary>
internal static class XmlText
{
    /// <summary>Without the characters that XML cannot hold.</summary>
    public static string Clean(string text) => string.Concat(text.EnumerateRunes().Where(r => !r.IsBmp || XmlConvert.IsXmlChar((char)r.Value)));
}
