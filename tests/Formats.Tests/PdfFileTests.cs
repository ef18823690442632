using PoliteTally.Core.Reports;
using PoliteTally.Formats.Documents;

namespace PoliteTally.Formats.Tests;

public sealed class PdfFileTests
{
    private static Drawing Drawn()
    {
        var sketch = new Sketch(Sketch.PageWidth);
        sketch.Ribbon(0, 10, 200, [[0, 0.4m], [0.5m, 1]], [0.2m]);
        sketch.Strokes(Pen.Speaking, 4, 40, 14, 7, 1);
        sketch.Field(Pen.Highlight, 300, 10, 340, 30);
        sketch.Words(Pen.Ink, 300, 28, "79", 20, bold: true);
        return sketch.Done("a lesson and some strokes", 60);
    }

    private static Document Of(params IReadOnlyList<Section> sections) => new("Eino Rautio", "Weather and Tides, year 8", sections);

    private static PrintedPdf Printed(Document document, Paper paper = Paper.A4) => PrintedPdf.Read(PdfFile.Write(document.Title, [document], paper));

    [Theory]
    [InlineData("Çağla Yıldız")]
    [InlineData("Nohea Kalaniʻōpuʻu")]
    [InlineData("Bảo Trâm Nguyễn")]
    [InlineData("Birkir Árnason")]
    [InlineData("渡辺 蓮")]
    [InlineData("Оксана Іваненко")]
    [InlineData("Ελένη")]
    public void Names_of_every_script_can_be_copied_out_of_it(string name)
    {
        var text = Printed(Of(new Section("Who", [$"{name} was there."]))).Text;
        // Composed or in parts: what is read is the same name.
        text.Normalize().ShouldContain(name.Split(' ')[0].Normalize());
        text.ShouldContain("was there.");
    }

    [Theory]
    // Of an Arabic letter with dots the reader of this test sees the stem alone.
    [InlineData("زينب عثمان", 'ر')]
    [InlineData("נועם לוי", 'נ')]
    public void Names_that_are_read_from_the_right_are_set_from_the_right(string name, char first)
    {
        using var document = UglyToad.PdfPig.PdfDocument.Open(PdfFile.Write("x", [Of(new Section("", [name]))]));
        // The line of the name, as it lies on the page from left to right.
        var letters = document.GetPage(1).Letters.Where(l => !string.IsNullOrWhiteSpace(l.Value) && l.Value[0] > 0x500).OrderBy(l => l.StartBaseLine.X).Select(l => l.Value.Normalize(System.Text.NormalizationForm.FormKC)[0]).ToList();
        letters.Count.ShouldBeGreaterThan(4);
        letters[^1].ShouldBe(first, string.Join(' ', letters));
    }

    [Fact]
    public void A_number_stays_on_one_line_with_its_sign()
    {
        // Whatever stands before it, so that the end of a line is everywhere once.
        var texts = Enumerable.Range(40, 60).Select(i => new Section($"{i}", [$"{new string('x', i)} 21 % and so on, for many more words than there is room for in a line"])).ToList();
        using var document = UglyToad.PdfPig.PdfDocument.Open(PdfFile.Write("x", [Of([.. texts])]));
        var letters = document.GetPages().SelectMany(p => p.Letters).Where(l => !string.IsNullOrWhiteSpace(l.Value)).ToList();
        var signs = Enumerable.Range(0, letters.Count).Where(i => letters[i].Value == "%").ToList();
        signs.Count.ShouldBe(60);
        signs.ShouldAllBe(i => letters[i - 1].StartBaseLine.Y == letters[i].StartBaseLine.Y);
    }

    [Fact]
    public void It_has_a_title_and_a_language_and_says_how_many_pages_there_are()
    {
        var pdf = Printed(Of(new Section("Lesson by lesson", ["Eino was there in all lessons."], Drawn())));
        pdf.Title.ShouldBe("Eino Rautio");
        pdf.Raw.ShouldContain("/Lang (en-GB)");
        pdf.Text.ShouldContain("page 1 of 1");
        // Strokes and words are drawn as such: there is no picture of pixels in it.
        pdf.Raw.ShouldNotContain("/Subtype /Image");
        pdf.Text.ShouldContain("79");
    }

    [Theory]
    [InlineData(Paper.A4)]
    [InlineData(Paper.Letter)]
    public void No_row_is_cut_and_the_head_stands_on_every_page(Paper paper)
    {
        var rows = Enumerable.Range(1, 150).Select(i => new FigureRow([$"Student {i}.", $"begin{i} {string.Join(' ', Enumerable.Repeat("word", i % 40))} end{i}", i])).ToList();
        var pdf = Printed(Of(new Section("All", [], null, new Figures("All", ["Student", "What was said", "Score"], rows))), paper);
        pdf.Pages.Count.ShouldBeGreaterThan(3);
        for (var i = 1; i <= 150; i++)
        {
            var page = pdf.Pages.Single(p => p.Contains($"Student {i}.", StringComparison.Ordinal));
            (page.Contains($"begin{i} ", StringComparison.Ordinal) || i % 40 == 0, page.Contains($"end{i} ", StringComparison.Ordinal)).ShouldBe((true, true), $"row {i}");
        }

        pdf.Pages.ShouldAllBe(p => p.Contains("What was said") && p.Contains($"of {pdf.Pages.Count}"));
    }

    [Fact]
    public void A_name_of_two_hundred_letters_and_a_table_with_many_columns_stay_on_the_page()
    {
        var name = string.Concat(Enumerable.Repeat("Abernethy", 23));
        using var document = UglyToad.PdfPig.PdfDocument.Open(PdfFile.Write("x",
        [
            new Document(name, name, [new Section(name, [name], null, new Figures("f", [.. Enumerable.Range(1, 20).Select(i => $"Lesson {i}")], [new FigureRow([.. Enumerable.Range(1, 20).Select(i => (FigureCell)$"{name}{i}")])]))]),
        ]));
        foreach (var page in document.GetPages())
        {
            page.Letters.ShouldAllBe(l => l.StartBaseLine.X >= 39 && l.EndBaseLine.X <= page.Width - 20 && l.StartBaseLine.Y >= 30 && l.StartBaseLine.Y <= page.Height - 30);
        }
    }

    [Fact]
    public void A_document_of_nothing_is_a_page_with_its_title() =>
        Printed(Of(new Section("Lesson by lesson", [], new Sketch(10).Done("", 0), new Figures("none", ["Lesson"], [])))).Text.ShouldContain("Eino Rautio");

    [Fact]
    public void A_report_without_figures_is_a_workbook_and_a_table_of_its_sentences()
    {
        var document = Of(new Section("", ["Nobody was there.", "There is nothing to tell."]));
        using var book = DocumentFormat.OpenXml.Packaging.SpreadsheetDocument.Open(new MemoryStream(FiguresFile.Workbook(document)), isEditable: false);
        book.WorkbookPart!.WorksheetParts.Single().Worksheet!.Descendants<DocumentFormat.OpenXml.Spreadsheet.Cell>().Select(c => c.InnerText)
            .ShouldBe(["Eino Rautio", "Nobody was there.", "There is nothing to tell."]);
        System.Text.Encoding.UTF8.GetString(FiguresFile.Csv(document)).ShouldContain("Nobody was there.\r\n");
    }

    [Fact]
    public void A_picture_is_a_file_of_its_own_with_what_it_shows_in_words()
    {
        var svg = System.Text.Encoding.UTF8.GetString(DrawingFile.Svg(Drawn()));
        svg.ShouldContain("<title>a lesson and some strokes</title>");
        svg.ShouldContain(">79</text>");
        System.Xml.Linq.XDocument.Parse(svg).Root!.Elements().Count().ShouldBe(Drawn().Marks.Count + 1);
        DrawingFile.Png(Drawn())[..4].ShouldBe([0x89, (byte)'P', (byte)'N', (byte)'G']);
    }
}
