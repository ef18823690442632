using System.Text;

namespace PoliteTally.Formats.Tests;

public sealed class RosterFileTests
{
    private const string Plain = "Student number,Family name,Given name,E-mail\nS1,Sørbø,Ingvild,i@skerrysound.example\nS2,Yıldız,Çağla,c@skerrysound.example\n";

    public static TheoryData<string, byte[], string, string> Writings()
    {
        CodePagesEncodingProvider.Instance.GetEncoding(1252);
        var western = "Student number;Family name;Given name\nS1;Sørbø;Ingvild\n";
        return new TheoryData<string, byte[], string, string>
        {
            { "UTF-8", Encoding.UTF8.GetBytes(Plain), "UTF-8", "commas" },
            { "UTF-8 with its mark", [.. Encoding.UTF8.Preamble, .. Encoding.UTF8.GetBytes(Plain)], "UTF-8", "commas" },
            { "UTF-16 with its mark", [.. Encoding.Unicode.Preamble, .. Encoding.Unicode.GetBytes(Plain.Replace(',', '\t'))], "UTF-16", "tabs" },
            { "UTF-16 without", Encoding.Unicode.GetBytes(Plain), "UTF-16", "commas" },
            { "UTF-16 the other way round", [.. Encoding.BigEndianUnicode.Preamble, .. Encoding.BigEndianUnicode.GetBytes(Plain)], "UTF-16", "commas" },
            { "Windows-1252", CodePagesEncodingProvider.Instance.GetEncoding(1252)!.GetBytes(western), "Windows-1252", "semicolons" },
            { "bars, CRLF", Encoding.UTF8.GetBytes(Plain.Replace(',', '|').Replace("\n", "\r\n")), "UTF-8", "bars" },
        };
    }

    [Theory]
    [MemberData(nameof(Writings))]
    public void Any_encoding_and_separator(string told, byte[] bytes, string encoding, string separator)
    {
        var preview = RosterFile.Read(bytes, null);

        preview.ReadAs.ShouldBe($"{encoding}, cut at {separator}", told);
        preview.Rows[0].Family.ShouldBe("Sørbø");
        preview.Rows.ShouldAllBe(l => l.Problems.Count == 0);
    }

    [Theory]
    [InlineData("Vorname;Nachname\nIngvild;Sørbø")]
    [InlineData("FIRST NAME,LAST NAME,Group\nIngvild,Sørbø,Westing")]
    [InlineData("e-mail,surname,forename\ni@skerrysound.example,Sørbø,Ingvild")]
    [InlineData("Name\n\"Sørbø, Ingvild\"")]
    [InlineData("Full name,No\nIngvild Sørbø,7")]
    [InlineData("Weather and Tides\nprinted on Monday\n\nGiven name,Family name\nIngvild,Sørbø")] // lines above the table
    public void Any_columns_in_any_order(string text)
    {
        var line = RosterFile.Read(Encoding.UTF8.GetBytes(text), null).Rows.ShouldHaveSingleItem();
        (line.Given, line.Family).ShouldBe(("Ingvild", "Sørbø"));
    }

    [Theory]
    [InlineData("Given name,Family name,E-mail,E-mail 2,Mobile\nIngvild,Sørbø,i@skerrysound.example,home@skerrysound.example,01632 960 117")]
    [InlineData("Given name,Family name,Home e-mail,E-mail,Tel.\nIngvild,Sørbø,home@skerrysound.example,i@skerrysound.example,01632 960 117")]
    [InlineData("Ingvild,Sørbø,i@skerrysound.example,home@skerrysound.example,01632 960 117")] // without headings
    public void A_second_address_and_a_telephone_number(string text)
    {
        var line = RosterFile.Read(Encoding.UTF8.GetBytes(text), null, headless: !text.Contains("name")).Rows.ShouldHaveSingleItem();
        line.Problems.ShouldBeEmpty();
        (line.Email, line.SecondEmail, line.Phone).ShouldBe(("i@skerrysound.example", "home@skerrysound.example", "01632 960 117"));
    }

    [Theory]
    [InlineData("+44 (0)1632 960-117", true)]
    [InlineData("01632/960117", true)]
    [InlineData("112", true)]
    [InlineData("12", false)]
    [InlineData("++44 1632", false)]
    [InlineData("44+1632", false)]
    [InlineData("01632 960 117 ext. 4", false)]
    [InlineData("123456789012345678901", false)]
    public void A_telephone_number_is_written_as_people_write_them(string text, bool isOne) => RosterFile.IsPhone(text).ShouldBe(isOne);

    [Fact]
    public void The_guess_can_be_changed()
    {
        var bytes = Encoding.UTF8.GetBytes("A,B\nSørbø,Ingvild");
        RosterFile.Read(bytes, null).Rows[0].Problems.ShouldNotBeEmpty();
        RosterFile.Read(bytes, new Dictionary<string, int> { ["family"] = 0, ["given"] = 1 }).Rows[0].Given.ShouldBe("Ingvild");
    }

    [Theory]
    [InlineData("Given name,Family name\nPemba,\n")]
    [InlineData("Given name,Family name\n,Pemba\n")]
    [InlineData("Name\nPemba\n")]
    public void Who_has_one_name_only_is_brought_in_like_everybody_else(string text)
    {
        var row = RosterFile.Read(Encoding.UTF8.GetBytes(text), null).Rows.ShouldHaveSingleItem();
        (row.Given, row.Family, row.Problems.Count).ShouldBe(("Pemba", "", 0));
    }

    [Theory]
    // the row that is wrong, what is said of it
    [InlineData("Given name,Family name\nIngvild,Sørbø\nDewi\n", 3, "1 cells where the headings have 2")]
    [InlineData("Given name,Family name\nIngvild,Sørbø,extra\n", 2, "3 cells where the headings have 2")]
    [InlineData("Given name,Family name,No\n,,4\n", 2, "has no name")]
    [InlineData("Given name,Clan,No\nIngvild,Sørbø,4\n", 2, "no column is taken for the other")]
    [InlineData("Given name,Family name,No\nIngvild,Sørbø,1\nDewi,Suharto,1\n", 3, "same student number as row 2")]
    [InlineData("Given name,Family name\nIngvild,Sørbø\nIngvild,Sørbø\n", 3, "same name as row 2")]
    [InlineData("Given name,Family name,email\nIngvild,Sørbø,a@b\nDewi,Suharto,A@b\n", 3, "same e-mail address as row 2")]
    [InlineData("Given name,Family name\n=HYPERLINK(1),Sørbø\n", 2, "formula")]
    [InlineData("Given name,Family name\n@SUM(A1),Sørbø\n", 2, "formula")]
    [InlineData("Given name,Family name\n-cmd(1),Sørbø\n", 2, "formula")]
    [InlineData("Given name,Family name,email\nIngvild,Sørbø,not an address\n", 2, "e-mail")]
    [InlineData("Given name,Family name,second e-mail\nIngvild,Sørbø,at home\n", 2, "second e-mail address")]
    [InlineData("Given name,Family name,telephone\nIngvild,Sørbø,ask at the desk\n", 2, "telephone number")]
    [InlineData("Given name,Family name,telephone\nIngvild,Sørbø,+(1)\n", 2, "formula")]
    [InlineData("Given name,Family name\nIng\uFFFDvild,Sørbø\n", 2, "broken letters")]
    [InlineData("Given name,Family name\n\"Ing\nvild\",Sørbø\n", 2, "line break")]
    public void What_is_wrong_is_said_by_its_row(string text, int row, string part)
    {
        var wrong = RosterFile.Read(Encoding.UTF8.GetBytes(text), null).Rows.Single(l => l.Problems.Count > 0);
        wrong.Row.ShouldBe(row);
        wrong.Problems[0].ShouldContain(part);
    }

    public static TheoryData<string, byte[], string> Unreadable() => new()
    {
        { "empty", [], "empty" },
        { "only white space", "  \n \n"u8.ToArray(), "empty" },
        { "a workbook", [0x50, 0x4B, 3, 4, 20, 0], "archive is broken" },
        { "a document", "%PDF-1.7"u8.ToArray(), "document or a picture" },
        { "a picture", [0x89, 0x50, 0x4E, 0x47, 13, 10], "document or a picture" },
        { "bytes that are no text", [1, 0, 2, 3, 0, 4, 5, 6, 7, 8, 9], "not text" },
        { "a broken encoding", [0xEF, 0xBB, 0xBF, 0x4E, 0xFF, 0xFE, 0x41], "some of its letters are broken" },
        { "an unknown encoding", [0x4E, 0x61, 0x6D, 0x65, 0x0A, 0x81, 0x8D, 0x0A], "Row 2" },
        { "headings only", "Given name,Family name\n"u8.ToArray(), "no rows" },
        { "too wide", Encoding.UTF8.GetBytes("name" + new string(',', 70) + "\nx" + new string(',', 70)), "at most 60" },
    };

    [Theory]
    [MemberData(nameof(Unreadable))]
    public void A_file_that_is_no_table_says_what_to_do(string told, byte[] bytes, string part) =>
        Should.Throw<FormatProblem>(() => RosterFile.Read(bytes, null), told).Message.ShouldContain(part);

    [Fact]
    public void Files_have_an_end()
    {
        var rows = Encoding.UTF8.GetBytes("Given name,Family name\n" + string.Concat(Enumerable.Range(0, 100_000).Select(i => $"A{i},B{i}\n")));
        Should.Throw<FormatProblem>(() => RosterFile.Read(rows, null)).Message.ShouldContain("more than 20,000 rows");
        Should.Throw<FormatProblem>(() => RosterFile.Read(new byte[FileSize.Largest + 1], null)).Message.ShouldContain("larger than 20 MB");
    }
}
