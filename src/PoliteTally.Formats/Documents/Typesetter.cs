using System.Text;
using PoliteTally.Core.Reports;
using SkiaSharp;
using SkiaSharp.HarfBuzz;

namespace PoliteTally.Formats.Documents;

/// <summary>Sets words of any script: letters are shaped, and each is taken from the first face that has it. Not for several threads at once.</summary>
internal sealed class Typesetter : IDisposable
{
    // The face of the application first, then one for each script that it does not have.
    private static readonly Lazy<IReadOnlyList<Face>> Faces = new(() =>
    [
        FaceOf("AtkinsonHyperlegibleNext"), FaceOf("NotoSans"), FaceOf("NotoSansArabic"), FaceOf("NotoSansHebrew"), FaceOf("NotoSansJP"),
    ]);

    private readonly Dictionary<SKTypeface, SKShaper> _shapers = [];

    private sealed record Face(SKTypeface Regular, SKTypeface? Bold);

    private readonly record struct Run(string Text, SKTypeface Face, bool Thicker);

    /// <summary>How wide words are, in points.</summary>
    public float Width(string text, float size, bool bold = false) => RunsOf(text, bold).Sum(r => Shaped(r, size).Shape.Width);

    /// <summary>Draws words on a line.</summary>
    public void Draw(SKCanvas canvas, string text, float x, float y, float size, SKColor colour, bool bold = false, Side side = Side.Start)
    {
        x -= side switch
        {
            Side.Middle => Width(text, size, bold) / 2,
            Side.End => Width(text, size, bold),
            _ => 0,
        };
        using var paint = new SKPaint { Color = colour, IsAntialias = true };
        foreach (var run in RunsOf(text, bold))
        {
            var (shape, font) = Shaped(run, size);
            using (font)
            using (var builder = new SKTextBlobBuilder())
            {
                // With the words that the shapes are of, so that they can be searched and copied.
                var words = Encoding.UTF8.GetBytes(run.Text);
                var glyphs = builder.AllocatePositionedTextRun(font, shape.Codepoints.Length, words.Length);
                glyphs.SetGlyphs([.. shape.Codepoints.Select(c => (ushort)c)]);
                glyphs.SetPositions(shape.Points);
                glyphs.SetText(words);
                glyphs.SetClusters(shape.Clusters);
                using var blob = builder.Build();
                if (blob is not null)
                {
                    canvas.DrawText(blob, x, y, paint);
                }
            }

            x += shape.Width;
        }
    }

    /// <summary>Breaks words into lines that are no wider than there is room; a word that is wider is broken itself.</summary>
    public IReadOnlyList<string> Lines(string text, float size, float room, bool bold = false)
    {
        var lines = new List<string>();
        var line = "";
        foreach (var word in text.Split(' ', StringSplitOptions.RemoveEmptyEntries).SelectMany(w => Broken(w, size, room, bold)))
        {
            var longer = line.Length == 0 ? word : $"{line} {word}";
            if (line.Length > 0 && Width(longer, size, bold) > room)
            {
                lines.Add(line);
                longer = word;
            }

            line = longer;
        }

        return line.Length > 0 || lines.Count == 0 ? [.. lines, line] : lines;
    }

    /// <summary>
    /// Words of which those that are read from the right stay together, for their order is turned as a whole; and a number with the sign or the unit
    /// that stands behind it.
    /// </summary>
    public static IEnumerable<string> Together(IEnumerable<string> words)
    {
        var together = "";
        foreach (var word in words)
        {
            if (together.Length > 0 && (IsUnitOf(together, word) || (EndsFromRight(together) && IsFromRight(word.EnumerateRunes().FirstOrDefault(Rune.IsLetterOrDigit)))))
            {
                together += $" {word}";
                continue;
            }

            if (together.Length > 0)
            {
                yield return together;
            }

            together = word;
        }

        yield return together;

        static bool IsUnitOf(string before, string word) => char.IsAsciiDigit(before[^1]) && (word.StartsWith('%') || word.TrimEnd('.', ',', ';') == "min");

        static bool EndsFromRight(string word) => IsFromRight(word.EnumerateRunes().LastOrDefault(Rune.IsLetterOrDigit));
    }

    /// <summary>A word in pieces that have room.</summary>
    public IEnumerable<string> Broken(string word, float size, float room, bool bold = false)
    {
        if (Width(word, size, bold) <= room)
        {
            return [word];
        }

        var pieces = new List<string> { "" };
        foreach (var letter in word.EnumerateRunes())
        {
            if (pieces[^1].Length > 0 && Width(pieces[^1] + letter, size, bold) > room)
            {
                pieces.Add("");
            }

            pieces[^1] += letter;
        }

        return pieces;
    }

    public void Dispose()
    {
        foreach (var shaper in _shapers.Values)
        {
            shaper.Dispose();
        }
    }

    private (SKShaper.Result Shape, SKFont Font) Shaped(Run run, float size)
    {
        var font = new SKFont(run.Face, size) { Embolden = run.Thicker, Subpixel = true, LinearMetrics = true, Hinting = SKFontHinting.None };
        if (!_shapers.TryGetValue(run.Face, out var shaper))
        {
            _shapers[run.Face] = shaper = new SKShaper(run.Face);
        }

        return (shaper.Shape(run.Text, font), font);
    }

    // Runs of one face, and of one direction: what stands between two letters that are read from the right is read with them.
    private static List<Run> RunsOf(string text, bool bold)
    {
        var runs = new List<Run>();
        var part = new StringBuilder();
        (Face Face, bool FromRight)? now = null;
        var runes = text.EnumerateRunes().Where(r => !Rune.IsControl(r)).ToList();
        for (var i = 0; i < runes.Count; i++)
        {
            var rune = runes[i];
            var fromRight = IsFromRight(rune) || (now is { FromRight: true } && !Rune.IsLetterOrDigit(rune) && NextLetter(runes, i) is { } next && IsFromRight(next));
            var face = now is { } same && (Joins(rune) || (rune.Value == ' ' && same.FromRight == fromRight)) && Has(same.Face, rune) ? same.Face : FaceFor(rune, now?.Face);
            if (now is { } before && (before.Face != face || before.FromRight != fromRight))
            {
                Close();
            }

            now = (face, fromRight);
            part.Append(rune);
        }

        Close();
        return runs;

        void Close()
        {
            if (part.Length > 0 && now is { } last)
            {
                runs.Add(new Run(part.ToString(), bold ? last.Face.Bold ?? last.Face.Regular : last.Face.Regular, bold && last.Face.Bold is null));
                part.Clear();
            }
        }
    }

    private static Rune? NextLetter(List<Rune> runes, int after)
    {
        var at = runes.FindIndex(after, Rune.IsLetterOrDigit);
        return at < 0 ? null : runes[at];
    }

    // A mark that is set on the letter before it.
    private static bool Joins(Rune rune) => Rune.GetUnicodeCategory(rune) is System.Globalization.UnicodeCategory.NonSpacingMark or System.Globalization.UnicodeCategory.Format;

    private static bool IsFromRight(Rune rune) => rune.Value is (>= 0x0590 and <= 0x08FF) or (>= 0xFB1D and <= 0xFDFF) or (>= 0xFE70 and <= 0xFEFC);

    private static Face FaceFor(Rune rune, Face? now) => Faces.Value.FirstOrDefault(f => Has(f, rune)) ?? now ?? Faces.Value[0];

    private static bool Has(Face face, Rune rune) => face.Regular.ContainsGlyph(rune.Value);

    private static Face FaceOf(string name)
    {
        var folder = Path.Combine(AppContext.BaseDirectory, "faces");
        return new(Read("400Regular")!, Read("700Bold"));

        SKTypeface? Read(string weight) => Directory.EnumerateFiles(folder, $"{name}_{weight}.ttf", SearchOption.AllDirectories).FirstOrDefault() is { } file
            ? SKTypeface.FromFile(file) ?? throw new InvalidDataException($"The face {file} cannot be read.")
            : weight == "400Regular" ? throw new FileNotFoundException($"The face {name} is missing in {folder}.") : null;
    }
}
