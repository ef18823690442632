using PoliteTally.Core.Reports;
using SkiaSharp;

namespace PoliteTally.Formats.Documents;

/// <summary>Lays a document out on pages. What is laid out is drawn when all pages are known, so that each can say how many there are.</summary>
internal sealed class PageSetter
{
    private const float Margin = 40;
    private const float Foot = 30;
    private const float Body = 10;
    private const float Leading = 14.5f;
    private const float Small = 8.5f;
    private const float RowPadding = 3;
    private const float Gutter = 10;

    private readonly Typesetter _setter;
    private readonly SKSize _paper;
    private readonly List<List<Action<SKCanvas>>> _pages = [];
    private string _title = "";
    private float _y;

    public PageSetter(Typesetter setter, Paper paper)
    {
        (_setter, _paper) = (setter, paper == Paper.A4 ? new SKSize(595, 842) : new SKSize(612, 792));
        NewPage();
    }

    private float Room => _paper.Width - (2 * Margin);

    private float Bottom => _paper.Height - Margin - Foot;

    public PageSetter Set(Document document)
    {
        _title = document.Title;
        Paragraph([new(document.About)], Small, 12, Pen.Soft);
        foreach (var line in _setter.Lines(document.Title, 22, Room, bold: true))
        {
            Line(line, 22, 27, Pen.Ink, bold: true);
        }

        _y += 8;
        foreach (var section in document.Sections)
        {
            Section(section);
        }

        // What repeats a drawing stands at the end, where whoever wants it finds it.
        foreach (var figures in document.Sections.Select(s => s.Figures).OfType<Figures>().Where(f => f.Fold && f.Rows.Count > 0))
        {
            Section(new Section($"{figures.Name}, in figures", [], null, figures with { Fold = false }));
        }

        return this;
    }

    public void Write(SKDocument pdf)
    {
        for (var i = 0; i < _pages.Count; i++)
        {
            var canvas = pdf.BeginPage(_paper.Width, _paper.Height);
            _pages[i].ForEach(draw => draw(canvas));
            var y = _paper.Height - Margin;
            var title = _setter.Lines(_title, Small, Room - 90)[0];
            _setter.Draw(canvas, title, Margin, y, Small, Inks.OnPaper(Pen.Soft));
            _setter.Draw(canvas, $"page {i + 1} of {_pages.Count}", _paper.Width - Margin, y, Small, Inks.OnPaper(Pen.Soft), side: Side.End);
            pdf.EndPage();
        }
    }

    private void Section(Section section)
    {
        if (section.Heading.Length > 0)
        {
            // A heading never stands alone at the end of a page.
            var follows = section is { Says.Count: 0, Drawing: { } drawing } ? (float)drawing.Height : 3 * Leading;
            Need(Math.Min(30 + follows, Bottom - Margin));
            _y += 10;
            foreach (var line in _setter.Lines(section.Heading, Body, Room, bold: true))
            {
                Line(line, Body, 14, Pen.Ink, bold: true);
            }

            var y = _y - 8;
            Add(c => Rule(c, Pen.Ink, Margin, Margin + Room, y, 0.9f));
            _y += 6;
        }

        if (section.Says.Count > 0)
        {
            Paragraph(section.Says, section.Heading.Length > 0 ? Body : 12, section.Heading.Length > 0 ? Leading : 18, Pen.Ink);
            _y += 4;
        }

        if (section.Drawing is { } drawn)
        {
            Drawing(drawn);
        }

        if (section.Figures is { Rows.Count: > 0, Fold: false } figures)
        {
            Table(figures);
        }
    }

    private void Drawing(Drawing drawing)
    {
        // Smaller where it is wider or higher than a page; it is never cut.
        var scale = Math.Min(1, Math.Min(Room / (float)drawing.Width, (Bottom - Margin) / (float)drawing.Height));
        var height = (float)drawing.Height * scale;
        Need(height);
        var y = _y - Body;
        Add(canvas =>
        {
            canvas.Save();
            canvas.Translate(Margin, y);
            canvas.Scale(scale);
            Inks.Draw(drawing, canvas, _setter);
            canvas.Restore();
        });
        _y += height + 6;
    }

    private void Paragraph(IReadOnlyList<Sentence> sentences, float size, float leading, Pen pen)
    {
        var line = new List<(string Text, float X, Pen Pen, bool Marked)>();
        var space = _setter.Width(" ", size);
        var x = 0f;
        foreach (var (text, colour, marked) in sentences.SelectMany(s => Words(s, pen)))
        {
            foreach (var word in _setter.Broken(text, size, Room))
            {
                var width = _setter.Width(word, size);
                if (x > 0 && x + width > Room)
                {
                    Close();
                }

                line.Add((word, x, colour, marked));
                x += width + space;
            }
        }

        Close();

        void Close()
        {
            if (line.Count == 0)
            {
                return;
            }

            Need(leading);
            var (words, y) = (line, _y);
            Add(canvas =>
            {
                for (var i = 0; i < words.Count; i++)
                {
                    var (word, at, colour, marked) = words[i];
                    if (marked)
                    {
                        // Under the words, and on to the next if that is marked, too.
                        var on = i + 1 < words.Count && words[i + 1].Marked ? space : 0;
                        using var yellow = new SKPaint { Color = Inks.OnPaper(Pen.Highlight) };
                        canvas.DrawRect(new SKRect(Margin + at, y - (size * 0.3f), Margin + at + _setter.Width(word, size) + on, y + (size * 0.22f)), yellow);
                    }

                    _setter.Draw(canvas, word, Margin + at, y, size, Inks.OnPaper(colour));
                }
            });
            _y += leading;
            (line, x) = ([], 0);
        }
    }

    private static IEnumerable<(string Text, Pen Pen, bool Marked)> Words(Sentence sentence, Pen pen)
    {
        var from = sentence.Marked is { Length: > 0 } marked ? sentence.Text.IndexOf(marked, StringComparison.Ordinal) : -1;
        var to = from < 0 ? -1 : from + sentence.Marked!.Length;
        var at = 0;
        foreach (var word in Typesetter.Together(sentence.Text.Split(' ')))
        {
            if (word.Length > 0)
            {
                yield return (word, sentence.Quiet ? Pen.Soft : pen, at >= from && at < to);
            }

            at += word.Length + 1;
        }
    }

    private void Table(Figures figures)
    {
        var widths = WidthsOf(figures);
        var head = Cells(figures.Headings, bold: true);
        Row(head, Pen.Ink, keep: 2 * Leading);
        foreach (var row in figures.Rows)
        {
            var cells = Cells([.. row.Cells.Select(c => c.Text)], bold: false);
            if (_y + HeightOf(cells) > Bottom)
            {
                NewPage();
                Row(head, Pen.Ink, keep: 0);
            }

            Row(cells, Pen.Rule, keep: 0);
        }

        _y += 6;

        IReadOnlyList<IReadOnlyList<string>> Cells(IReadOnlyList<string> texts, bool bold) =>
            [.. texts.Select((t, i) => _setter.Lines(t, Small, widths[i], bold).Take(12).ToList())];

        void Row(IReadOnlyList<IReadOnlyList<string>> cells, Pen rule, float keep)
        {
            var height = HeightOf(cells);
            Need(height + keep);
            var (top, isHead) = (_y, ReferenceEquals(cells, head));
            Add(canvas =>
            {
                var x = Margin;
                for (var i = 0; i < cells.Count; i++)
                {
                    // Numbers stand below each other.
                    var end = IsOfNumbers(figures, i);
                    for (var n = 0; n < cells[i].Count; n++)
                    {
                        _setter.Draw(canvas, cells[i][n], end ? x + widths[i] : x, top + (n * 11), Small, Inks.OnPaper(Pen.Ink), isHead, end ? Side.End : Side.Start);
                    }

                    x += widths[i] + Gutter;
                }

                Rule(canvas, rule, Margin, Margin + Room, top + height - 8 - RowPadding, isHead ? 0.9f : 0.5f);
            });
            _y += height;
        }
    }

    private static float HeightOf(IReadOnlyList<IReadOnlyList<string>> cells) => (11 * cells.Max(c => c.Count)) + (2 * RowPadding);

    // As wide as what stands in them; where that is more than the page, what is wide gives way.
    private float[] WidthsOf(Figures figures)
    {
        var room = Room - (Gutter * (figures.Headings.Count - 1));
        var widths = figures.Headings.Select((h, i) => figures.Rows.Select(r => _setter.Width(r.Cells[i].Text, Small)).Append(_setter.Width(h, Small, bold: true)).Max() + 1).ToArray();
        while (widths.Sum() > room + 1)
        {
            var (widest, second) = (widths.Max(), widths.Where(w => w < widths.Max()).DefaultIfEmpty(0).Max());
            var many = widths.Count(w => w >= widest);
            var to = Math.Max(second, widest - ((widths.Sum() - room) / many));
            widths = [.. widths.Select(w => w >= widest ? to : w)];
        }

        return widths;
    }

    private static bool IsOfNumbers(Figures figures, int column) => figures.Rows.Any(r => r.Cells[column].Number is not null);

    private void Line(string text, float size, float leading, Pen pen, bool bold = false)
    {
        Need(leading);
        var y = _y + (size > Body ? size - Body : 0);
        Add(canvas => _setter.Draw(canvas, text, Margin, y, size, Inks.OnPaper(pen), bold));
        _y += leading;
    }

    private static void Rule(SKCanvas canvas, Pen pen, float from, float to, float y, float width)
    {
        using var paint = new SKPaint { Color = Inks.OnPaper(pen), StrokeWidth = width, IsAntialias = true };
        canvas.DrawLine(from, y, to, y, paint);
    }

    private void Add(Action<SKCanvas> draw) => _pages[^1].Add(draw);

    private void Need(float height)
    {
        if (_y + height > Bottom && _y > Margin + Body + 1)
        {
            NewPage();
        }
    }

    private void NewPage()
    {
        _pages.Add([]);
        _y = Margin + Body;
    }
}
