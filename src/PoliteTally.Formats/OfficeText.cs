using System.Globalization;
using System.Text;
using System.Xml;

namespace PoliteTally.Formats;

/// <summary>
/// What is written in a document or a spreadsheet of an office program: OpenDocument text and spreadsheet (ISO/IEC 26300), and Office Open XML text (ISO/IEC 29500). A line for each
/// paragraph and each row; cells stand between tabs.
/// </summary>
/// <remarks>Read in one pass with no tree; whatever it can make large is counted.</remarks>
internal static class OfficeText
{
    private const int MostLetters = 20_000_000;
    private const int MostRepeated = 60;

    /// <summary>The text in a document; null if the archive is none of these.</summary>
    /// <param name="bytes">The archive.</param>
    /// <exception cref="FormatProblem">It is broken, or holds too much.</exception>
    public static byte[]? Plain(byte[] bytes)
    {
        if (!Archive.IsOne(bytes) || Archive.DocumentIn(bytes) is not { } part)
        {
            return null;
        }

        using var budget = ReadingBudget.Begin();
        try
        {
            using var reader = XmlReader.Create(new MemoryStream(Archive.Unpack(bytes, name => part.EndsWith(name, StringComparison.Ordinal))[part]), new XmlReaderSettings { DtdProcessing = DtdProcessing.Prohibit, XmlResolver = null });
            return Encoding.UTF8.GetBytes(new Written(reader).Text());
        }
        catch (Exception broken) when (broken is XmlException or KeyNotFoundException)
        {
            throw new FormatProblem("This document is broken and cannot be read. Nothing was stored; open it, save it again, and bring in that.");
        }
    }

    /// <summary>A document while it is read.</summary>
    private sealed class Written(XmlReader reader)
    {
        private readonly StringBuilder _all = new();
        private readonly StringBuilder _line = new();
        private readonly StringBuilder _cell = new();
        private readonly List<(int From, int Rows)> _sheets = [];

        // Inside of a cell a paragraph ends no line.
        private int _cells;
        private int _repeated;
        private string? _value;

        public string Text()
        {
            while (reader.Read())
            {
                ReadingBudget.Ask();
                switch (reader.NodeType)
                {
                    case XmlNodeType.Element:
                        var isEmpty = reader.IsEmptyElement;
                        Begin();
                        if (isEmpty)
                        {
                            End(reader.LocalName);
                        }

                        break;
                    case XmlNodeType.EndElement:
                        End(reader.LocalName);
                        break;
                    case XmlNodeType.Text or XmlNodeType.SignificantWhitespace or XmlNodeType.CDATA:
                        Put(reader.Value);
                        break;
                }

                if (_all.Length + _line.Length + _cell.Length > MostLetters)
                {
                    throw new FormatProblem("This document is longer than can be read. Save only what is of this lesson, and bring in that.");
                }
            }

            // Of a spreadsheet the sheet with most rows.
            var (from, _) = _sheets.Count == 0 ? (0, 0) : _sheets.MaxBy(s => s.Rows);
            var to = _sheets.Where(s => s.From > from).Select(s => (int?)s.From).FirstOrDefault() ?? _all.Length;
            return _all.ToString(from, to - from);
        }

        private void Begin()
        {
            switch (reader.LocalName)
            {
                case "table" when reader.NamespaceURI.Contains("opendocument", StringComparison.Ordinal) && _cells == 0:
                    _sheets.Add((_all.Length, 0));
                    break;
                case "table-cell" or "covered-table-cell" or "tc":
                    _cells++;
                    _repeated = int.TryParse(Said("number-columns-repeated"), CultureInfo.InvariantCulture, out var times) ? times : 1;
                    _value = Said("value-type") switch
                    {
                        "date" => Said("date-value")?.Replace('T', ' '),
                        "time" => Clock(Said("time-value")),
                        _ => null,
                    };
                    break;
                case "tab":
                    Put(_cells > 0 ? " " : "\t");
                    break;
                case "s":
                    Put(" ");
                    break;
                case "br" or "cr" or "line-break" when _cells > 0:
                    Put(" ");
                    break;
                case "br" or "cr" or "line-break":
                    EndLine();
                    break;
            }
        }

        private void End(string name)
        {
            switch (name)
            {
                case "p" or "h" when _cells > 0:
                    Put(" ");
                    break;
                case "p" or "h":
                    EndLine();
                    break;
                case "table-cell" or "covered-table-cell" or "tc" when _cells == 1:
                    var text = PlainContent.Cell(_value ?? _cell.ToString().Trim());
                    // What is repeated to the edge of a sheet has nothing in it.
                    for (var i = 0; i < (_repeated > MostRepeated ? text.Length > 0 ? 1 : 0 : _repeated); i++)
                    {
                        _line.Append(text).Append('\t');
                    }

                    _cell.Clear();
                    _cells--;
                    break;
                case "table-cell" or "covered-table-cell" or "tc":
                    _cells--;
                    break;
                case "table-row" or "tr" when _cells == 0:
                    EndLine();
                    if (_sheets.Count > 0 && _all.Length > 0)
                    {
                        _sheets[^1] = _sheets[^1] with { Rows = _sheets[^1].Rows + 1 };
                    }

                    break;
            }
        }

        private void EndLine()
        {
            var line = _line.ToString().TrimEnd('\t', ' ');
            _line.Clear();
            if (line.Length > 0 || (_all.Length > 0 && _cells == 0))
            {
                _all.Append(line).Append('\n');
            }
        }

        private void Put(string text) => (_cells > 0 ? _cell : _line).Append(text);

        private string? Said(string name)
        {
            for (var at = 0; at < reader.AttributeCount; at++)
            {
                reader.MoveToAttribute(at);
                if (reader.LocalName == name)
                {
                    var value = reader.Value;
                    reader.MoveToElement();
                    return value;
                }
            }

            reader.MoveToElement();
            return null;
        }

        // “PT09H28M05S” as a time of day, or as a length that a reader of lengths knows.
        private static string? Clock(string? length)
        {
            try
            {
                return length is null ? null : XmlConvert.ToTimeSpan(length) is var span ? $"{(int)span.TotalHours:00}:{span.Minutes:00}:{span.Seconds:00}" : null;
            }
            catch (Exception wrong) when (wrong is FormatException or OverflowException)
            {
                return null;
            }
        }
    }
}
