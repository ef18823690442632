using DocumentFormat.OpenXml.Packaging;
using DocumentFormat.OpenXml.Spreadsheet;
using DocumentFormat.OpenXml.Validation;

namespace PoliteTally.Formats.Tests;

/// <summary>A workbook that is written is valid by the standard, and says what was put into it.</summary>
public sealed class SheetFileTests
{
    private static readonly byte[] Book = SheetFile.Write(
        "Weather and Tides: year 8 / all of the term", ["Name", "Term", "Lesson 1"],
        [
            [SheetCell.Of("Sørbø"), SheetCell.Of(71.43m, 2), SheetCell.Of(0.5m, 1)],
            [SheetCell.Of("=1+1"), SheetCell.Of("not enough yet"), SheetCell.Of((decimal?)null)],
            [SheetCell.Of("渡辺𠮷\u0001 "), SheetCell.Of(100m), SheetCell.Of("")],
        ],
        frozen: 1);

    private static T Read<T>(Func<WorkbookPart, T> what)
    {
        using var document = SpreadsheetDocument.Open(new MemoryStream(Book), isEditable: false);
        return what(document.WorkbookPart!);
    }

    [Fact]
    public void It_is_valid()
    {
        using var document = SpreadsheetDocument.Open(new MemoryStream(Book), isEditable: false);
        new OpenXmlValidator().Validate(document).Select(e => $"{e.Path?.XPath} {e.Description}").ShouldBeEmpty();
    }

    [Fact]
    public void Numbers_are_numbers_and_text_is_text() => Read(book => string.Join("; ", book.WorksheetParts.Single().Worksheet!.Descendants<Row>().Select(r => string.Join(' ', r.Elements<Cell>()
        .Select(c => c.DataType!.Value == CellValues.Number ? c.CellValue!.Text : $"“{c.InnerText}”")))))
        .ShouldBe("“Name” “Term” “Lesson 1”; “Sørbø” 71.43 0.5; “=1+1” “not enough yet” “”; “渡辺𠮷 ” 100 “”");

    [Fact]
    public void No_cell_is_a_formula() => Read(book => book.WorksheetParts.Single().Worksheet!.Descendants<CellFormula>().Count()).ShouldBe(0);

    [Fact]
    public void The_head_and_the_first_column_stay() => Read(book => book.WorksheetParts.Single().Worksheet!.Descendants<Pane>().Single().TopLeftCell!.Value).ShouldBe("B2");

    [Fact]
    public void The_sheet_has_a_name_that_a_sheet_may_have() => Read(book => book.Workbook!.Descendants<Sheet>().Single().Name!.Value).ShouldBe("Weather and Tides year 8  all o");
}
