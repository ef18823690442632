using System.Buffers;
using System.Net;
using System.Text;
using System.Text.Json;
using System.Text.RegularExpressions;
using System.Xml;
using System.Xml.Linq;

namespace PoliteTally.Formats;

/// <summary>Reads what stands between tags: HTML as a reader of the page sees it, other elements (XML) as the objects of JSON.</summary>
/// <remarks>HTML is read in one pass with no tree, so that a page of any size and depth costs no more than its length.</remarks>
internal static partial class TaggedText
{
    // A tree takes many times its text.
    private const int LargestTree = 3_000_000;

    // As deep as JSON is read.
    private const int Deepest = 10;

    private const int MostElements = 60;

    // So much shows what a file is.
    private const int Looked = 20_000;

    private static readonly SearchValues<char> EndsName = SearchValues.Create(" \t\r\n/>");
    private static readonly HashSet<string> Unseen = new(["script", "style", "head", "template", "svg", "noscript"], StringComparer.OrdinalIgnoreCase);
    private static readonly HashSet<string> Cells = new(["td", "th"], StringComparer.OrdinalIgnoreCase);
    private static readonly HashSet<string> Within = new(["a", "abbr", "b", "bdi", "bdo", "code", "data", "em", "font", "i", "img", "label", "mark", "s", "small", "span", "strong", "sub", "sup", "time", "u", "wbr"], StringComparer.OrdinalIgnoreCase);

    /// <summary>What is in a file that begins with an angle; the same bytes if that is no tag.</summary>
    public static byte[] Plain(byte[] bytes)
    {
        var text = FileText.Of(bytes);
        return Html().IsMatch(text.Start[..Math.Min(text.Start.Length, Looked)]) ? Encoding.UTF8.GetBytes(WithoutTags(text.Whole))
            : Closed().IsMatch(text.Start) ? OfElements(text.Whole) ?? bytes
            // "<Juno> hello" is a chat.
            : bytes;
    }

    // What a reader of the page would see: a line for each block, and cells apart.
    private static string WithoutTags(string html)
    {
        var (seen, at) = (new StringBuilder(), 0);
        while (at < html.Length)
        {
            ReadingBudget.Ask();
            var tag = html.IndexOf('<', at);
            if (tag < 0)
            {
                tag = html.Length;
            }

            Put(html.AsSpan(at..tag));
            if (tag == html.Length)
            {
                break;
            }

            if (html.AsSpan(tag).StartsWith("<!--", StringComparison.Ordinal))
            {
                at = html.IndexOf("-->", tag, StringComparison.Ordinal) is >= 0 and var over ? over + 3 : html.Length;
                continue;
            }

            var end = html.IndexOf('>', tag) is >= 0 and var found ? found : html.Length - 1;
            var closes = html.AsSpan(tag).StartsWith("</", StringComparison.Ordinal);
            var name = NameIn(html.AsSpan((tag + (closes ? 2 : 1))..end));
            at = end + 1;
            if (!closes && Unseen.Contains(name))
            {
                at = html.IndexOf($"</{name}", at, StringComparison.OrdinalIgnoreCase) is >= 0 and var closed ? closed : html.Length;
            }
            else if (Cells.Contains(name))
            {
                seen.Append(closes ? '\t' : ' ');
            }
            else if (!Within.Contains(name))
            {
                Break();
            }
            else if (!closes)
            {
                // Two spans beside one another are two places.
                seen.Append(' ');
            }
        }

        return Spaces().Replace(seen.ToString(), " ").Replace("\t\n", "\n", StringComparison.Ordinal);

        void Put(ReadOnlySpan<char> part)
        {
            if (part.IsWhiteSpace())
            {
                seen.Append(part.IsEmpty ? "" : " ");
                return;
            }

            foreach (var letter in WebUtility.HtmlDecode(part.ToString()))
            {
                seen.Append(letter is '\n' or '\r' or '\t' ? ' ' : letter);
            }
        }

        void Break()
        {
            while (seen.Length > 0 && seen[^1] == ' ')
            {
                seen.Length--;
            }

            if (seen.Length > 0 && seen[^1] != '\n')
            {
                seen.Append('\n');
            }
        }

        static string NameIn(ReadOnlySpan<char> inside) => inside[..(inside.IndexOfAny(EndsName) is >= 0 and var cut ? cut : inside.Length)].ToString();
    }

    // As JSON, which other readers know: attributes and what lies inside are properties.
    private static byte[]? OfElements(string text)
    {
        if (text.Length > LargestTree)
        {
            throw new FormatProblem($"This file is longer than {LargestTree / 1_000_000} million letters, which is more than can be read of this kind. Save only what is of this lesson, or a table.");
        }

        try
        {
            CheckDepth(text);
            using var reader = ReaderOf(text);
            var root = XElement.Load(reader);
            using var stream = new MemoryStream();
            using (var json = new Utf8JsonWriter(stream))
            {
                Write(json, root, 0);
            }

            return stream.ToArray();
        }
        catch (XmlException broken)
        {
            // Angles around names are no elements.
            if (!text.AsSpan().TrimStart().StartsWith("<?xml", StringComparison.Ordinal))
            {
                return null;
            }

            throw new FormatProblem($"Line {broken.LineNumber} of this file cannot be read: its elements do not fit together. Save it again, or as a table.");
        }
    }

    private static XmlReader ReaderOf(string text) =>
        XmlReader.Create(new StringReader(text.Trim()), new XmlReaderSettings { DtdProcessing = DtdProcessing.Prohibit, XmlResolver = null, MaxCharactersInDocument = LargestTree });

    // What lies in ever other elements takes far longer than its length to read.
    private static void CheckDepth(string text)
    {
        using var reader = ReaderOf(text);
        while (reader.Read())
        {
            ReadingBudget.Ask();
            if (reader.Depth > MostElements)
            {
                throw new FormatProblem($"In this file more than {MostElements} elements lie inside of one another, which is more than can be read. Save what is of this lesson as a table.");
            }
        }
    }

    private static void Write(Utf8JsonWriter json, XElement element, int depth)
    {
        ReadingBudget.Ask();
        if (!element.HasAttributes && !element.HasElements)
        {
            json.WriteStringValue(element.Value);
            return;
        }

        json.WriteStartObject();
        foreach (var attribute in element.Attributes().Where(a => !a.IsNamespaceDeclaration))
        {
            json.WriteString(attribute.Name.LocalName, attribute.Value);
        }

        foreach (var children in depth < Deepest ? element.Elements().GroupBy(e => e.Name.LocalName) : [])
        {
            json.WritePropertyName(children.Key);
            if (children.Skip(1).Any())
            {
                json.WriteStartArray();
                foreach (var child in children)
                {
                    Write(json, child, depth + 2);
                }

                json.WriteEndArray();
            }
            else
            {
                Write(json, children.First(), depth + 1);
            }
        }

        if (string.Concat(element.Nodes().OfType<XText>().Select(t => t.Value)).Trim() is { Length: > 0 } words)
        {
            json.WriteString("text", words);
        }

        json.WriteEndObject();
    }

    [GeneratedRegex("^\\s*<(?:!doctype html|!--|(?:html|head|body|table|tbody|tr|div|p|ul|ol|li|span|meta|section|article|main|nav|b|i|br|h[1-6]|style|script|dl|pre)(?=[\\s>/]))|<html[\\s>]", RegexOptions.IgnoreCase)]
    private static partial Regex Html();

    [GeneratedRegex(@"^\s*<(?:\?xml|(?<name>[\p{L}_][\p{L}\d_.:-]{0,80})[^>]{0,2000}>[\s\S]{0,100000}</)")]
    private static partial Regex Closed();

    [GeneratedRegex(" {2,}")]
    private static partial Regex Spaces();
}
