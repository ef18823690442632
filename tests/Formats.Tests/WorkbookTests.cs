namespace PoliteTally.Formats.Tests;

public sealed class WorkbookTests
{
    private static readonly string?[][] Roster =
    [
        ["Weather and Tides", null, null],
        ["Student number", "Family name", "Given name"],
        ["S1", "Sørbø", "Ingvild"],
        [null, null, null],
        ["S2", "渡辺", "蓮"],
    ];

    [Fact]
    public void A_workbook_is_read_like_a_table()
    {
        var preview = RosterFile.Read(Written.Workbook(Roster), null);
        preview.ReadAs.ShouldBe("sheet “8W” of a workbook");
        preview.HeadingsRow.ShouldBe(2);
        preview.Rows.Select(l => (l.Row, l.Number, l.Family, l.Given)).ShouldBe([(3, "S1", "Sørbø", "Ingvild"), (5, "S2", "渡辺", "蓮")]);
        preview.Rows.ShouldAllBe(l => l.Problems.Count == 0);
    }

    [Fact]
    public void Of_several_sheets_the_one_with_known_headings_is_taken() =>
        RosterFile.Read(Written.Workbook(Roster, before: [["To do"], ["call the ferry"], ["tidy up"]]), null).ReadAs.ShouldContain("8W");

    [Fact]
    public void A_cell_that_is_not_there_does_not_move_its_neighbours()
    {
        var preview = RosterFile.Read(Written.Workbook([["Number", "Family name", "Given name", "E-mail"], [null, "Sørbø", "Ingvild", null]]), null);
        preview.Rows.ShouldHaveSingleItem().Given.ShouldBe("Ingvild");
    }

    [Fact]
    public void A_formula_is_pointed_out_with_its_place() =>
        RosterFile.Read(Written.Workbook([["Family name", "Given name"], ["Sørbø", "=A2&\"x\""], ["Rautio", "Eino"]]), null)
            .Rows.Select(l => l.Problems.Count).ShouldBe([1, 0]);

    [Fact]
    public void Merged_cells_are_named()
    {
        var problem = Should.Throw<FormatProblem>(() => RosterFile.Read(Written.Workbook(Roster, merged: "A3:B3"), null));
        problem.Message.ShouldContain("A3:B3");
        problem.Message.ShouldContain("8W");
    }

    [Fact]
    public void A_title_over_the_columns_is_no_harm() => RosterFile.Read(Written.Workbook(Roster, merged: "A1:C1"), null).Rows.Count.ShouldBe(2);

    [Fact]
    public void Dates_are_read_whatever_way_they_are_shown()
    {
        var list = Written.Workbook([["Name", "Joined", "Left"], ["Juno Quillfeather", "#46349.395833333", "#46349.430555556"]]);
        var from = NodaTime.Instant.FromUtc(2026, 11, 23, 9, 30);
        var line = AttendanceFile.Read(list, null, NodaTime.DateTimeZone.Utc, from, from + NodaTime.Duration.FromMinutes(50)).Rows.ShouldHaveSingleItem();
        line.Joined.ShouldBe(from);
        line.Left.ShouldBe(from + NodaTime.Duration.FromMinutes(50));
    }

    [Theory]
    // cells as they are pasted, what is made of them
    [InlineData("Juno\tQuillfeather\nEino\tRautio", "Juno|Quillfeather||;Eino|Rautio||")]
    [InlineData("S1\tJuno\tQuillfeather\tjuno@skerrysound.example", "Juno|Quillfeather|S1|juno@skerrysound.example;")]
    [InlineData("Quillfeather, Juno\nRautio, Eino", "Juno|Quillfeather||;Eino|Rautio||")]
    public void Cells_without_headings_are_guessed_by_what_they_hold(string cells, string told)
    {
        var preview = RosterFile.Read(Written.Utf8(cells.Contains(", ") ? $"\"{cells.Replace("\n", "\"\n\"")}\"" : cells), null, headless: true);
        preview.HeadingsRow.ShouldBe(0);
        string.Join(';', preview.Rows.Select(l => $"{l.Given}|{l.Family}|{l.Number}|{l.Email}")).ShouldBe(told.TrimEnd(';'));
    }
}
