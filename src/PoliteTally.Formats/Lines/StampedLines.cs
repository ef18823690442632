namespace PoliteTally.Formats.Lines;

/// <summary>A text cut into lines, with the times in them. A text of a hundred thousand lines is not cut up to be looked at: a line is a place in it.</summary>
internal sealed class StampedLines
{
    private readonly List<Range> _lines = [];
    private readonly Dictionary<int, Range?> _atStart = [];
    private readonly Dictionary<int, Range?> _first = [];
    private readonly Dictionary<int, Range?> _last = [];

    /// <summary>Cuts a text.</summary>
    public StampedLines(string text)
    {
        Text = text;
        for (var from = 0; from <= text.Length;)
        {
            var end = text.IndexOf('\n', from) is >= 0 and var found ? found : text.Length;
            var line = text.AsSpan(from..end);
            var begins = from + line.Length - line.TrimStart(Marks).Length;
            _lines.Add(begins..(begins + line.Trim(Marks).Length));
            from = end + 1;
        }

        Clock = WritingOf(_lines.Where(l => !text.AsSpan(l).IsWhiteSpace()).Take(Looked));
        Sample = 0;
        for (var filled = 0; Sample < _lines.Count && filled < Looked; Sample++)
        {
            filled += IsBlank(Sample) ? 0 : 1;
        }
    }

    // So many lines are enough to tell how a file is written.
    private const int Looked = 400;

    // A time with its day is no longer, and a name before a time neither.
    private const int NearStart = 80;
    private const int Far = 400;

    private const string Marks = "\r\u200E\u200F\uFEFF";

    /// <summary>The text.</summary>
    public string Text { get; }

    /// <summary>How many lines there are.</summary>
    public int Count => _lines.Count;

    /// <summary>How times are written in it.</summary>
    public Clock Clock { get; }

    /// <summary>How many lines at its beginning tell how it is written.</summary>
    public int Sample { get; }

    /// <summary>A line.</summary>
    public Range this[int line] => _lines[line];

    /// <summary>Whether a line has nothing in it.</summary>
    public bool IsBlank(int line) => Text.AsSpan(_lines[line]).IsWhiteSpace();

    /// <summary>The time near the beginning of a line; null if none is there.</summary>
    public Range? AtStart(int line) => Found(_atStart, line, Searched.Start);

    /// <summary>The first time in a line; null if it has none.</summary>
    public Range? First(int line) => Found(_first, line, Searched.First);

    /// <summary>The last time in a line; null if it has none.</summary>
    public Range? Last(int line) => Found(_last, line, Searched.Last);

    /// <summary>Whether a part of a line begins with a time.</summary>
    public bool BeginsWithTime(Range part) => Find(part, Clock, Searched.Start) is { } time && time.Start.Equals(part.Start);

    private enum Searched
    {
        Start,
        First,
        Last,
    }

    // What is asked again and again is kept; of the rest there is much.
    private Range? Found(Dictionary<int, Range?> kept, int line, Searched what) =>
        line >= Sample ? Find(_lines[line], Clock, what)
        : kept.TryGetValue(line, out var known) ? known
        : kept[line] = Find(_lines[line], Clock, what);

    private Range? Find(Range line, Clock clock, Searched what)
    {
        var most = what == Searched.Start ? NearStart : Far;
        var part = line.Length() <= most ? line : what == Searched.Last ? (line.End.Value - most)..line.End : line.Start..(line.Start.Value + most);
        return Stamps.Find(Text, part, clock, what == Searched.Last);
    }

    private Clock WritingOf(IEnumerable<Range> lines)
    {
        var looked = lines.ToList();
        var count = Enum.GetValues<Clock>().ToDictionary(c => c, c => looked.Count(l => Find(l, c, Searched.First) is not null));
        // Halves of the day have colons as well; where few times have them they begin names: "09:10 Amund".
        return count[Clock.Halves] * 2 > count[Clock.Colons] ? Clock.Halves : count.Where(c => c.Key != Clock.Halves).MaxBy(c => c.Value).Key;
    }
}
