using System.IO.Compression;
using System.Text;
using NodaTime;

namespace PoliteTally.Formats.Tests;

/// <summary>Small files that would become large: refused with a message, and never by way of the memory of the machine.</summary>
public sealed class LargeFileTests
{
    private const long Most = 600_000_000;

    // Made of parts by hand: the library that writes workbooks would need the memory that is not to be needed.
    private static byte[] Workbook(string sheet, string? texts = null, string styles = "")
    {
        using var bytes = new MemoryStream();
        using (var zip = new ZipArchive(bytes, ZipArchiveMode.Create, leaveOpen: true))
        {
            Add("[Content_Types].xml", """
                <Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="xml" ContentType="application/xml"/>
                <Override PartName="/xl/workbook.xml" ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.sheet.main+xml"/><Override PartName="/xl/worksheets/sheet1.xml" ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.worksheet+xml"/>
                <Override PartName="/xl/sharedStrings.xml" ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.sharedStrings+xml"/><Override PartName="/xl/styles.xml" ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.styles+xml"/></Types>
                """);
            Add("_rels/.rels", """<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="r1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/officeDocument" Target="xl/workbook.xml"/></Relationships>""");
            Add("xl/workbook.xml", """<workbook xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main" xmlns:r="http://schemas.openxmlformats.org/officeDocument/2006/relationships"><sheets><sheet name="8W" sheetId="1" r:id="r1"/></sheets></workbook>""");
            Add("xl/_rels/workbook.xml.rels", """
                <Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="r1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/worksheet" Target="worksheets/sheet1.xml"/>
                <Relationship Id="r2" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/sharedStrings" Target="sharedStrings.xml"/><Relationship Id="r3" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/styles" Target="styles.xml"/></Relationships>
                """);
            Add("xl/worksheets/sheet1.xml", $"""<worksheet xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main"><sheetData>{sheet}</sheetData></worksheet>""");
            Add("xl/sharedStrings.xml", $"""<sst xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main">{texts}</sst>""");
            Add("xl/styles.xml", $"""<styleSheet xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main"><cellXfs>{styles}</cellXfs></styleSheet>""");

            void Add(string name, string content)
            {
                using var to = zip.CreateEntry(name, CompressionLevel.SmallestSize).Open();
                to.Write(Encoding.UTF8.GetBytes(content));
            }
        }

        return bytes.ToArray();
    }

    private const string Names = """<row r="1"><c t="inlineStr"><is><t>Family name</t></is></c><c t="inlineStr"><is><t>Given name</t></is></c></row><row r="2"><c t="inlineStr"><is><t>Rautio</t></is></c><c t="inlineStr"><is><t>Eino</t></is></c></row>""";

    private static string Many(string piece, int count) => new StringBuilder(piece.Length * count).Insert(0, piece, count).ToString();

    private static string Refused(byte[] file)
    {
        var before = GC.GetAllocatedBytesForCurrentThread();
        var said = Should.Throw<FormatProblem>(() => RosterFile.Read(file, null)).Message;
        (GC.GetAllocatedBytesForCurrentThread() - before).ShouldBeLessThan(Most);
        return said;
    }

    [Fact]
    public void Made_of_parts_by_hand_a_workbook_is_one() =>
        RosterFile.Read(Workbook(Names, styles: "<xf/>"), null).Rows.ShouldHaveSingleItem().Given.ShouldBe("Eino");

    [Fact]
    public void Millions_of_empty_cells_in_a_row_are_refused() => Refused(Workbook(Names + "<row>" + Many("<c/>", 12_000_000) + "</row>")).ShouldContain("more than 250,000");

    [Fact]
    public void Millions_of_empty_rows_are_refused() => Refused(Workbook(Names + Many("<row/>", 6_000_000))).ShouldContain("rows");

    [Fact]
    public void Millions_of_texts_are_refused() => Refused(Workbook(Names, texts: Many("<si/>", 10_000_000))).ShouldContain("more than 250,000");

    [Fact]
    public void Millions_of_styles_are_refused() => Refused(Workbook(Names, styles: Many("<xf/>", 10_000_000))).ShouldContain("more than 250,000");

    private static string Calendar(IEnumerable<string> events) =>
        $"BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//Skerry Sound//EN\r\n{string.Concat(events)}END:VCALENDAR\r\n";

    private static readonly Instant Lesson = Instant.FromUtc(2026, 11, 2, 9, 30);

    private static T Frugally<T>(Func<T> read)
    {
        var before = GC.GetAllocatedBytesForCurrentThread();
        var found = read();
        (GC.GetAllocatedBytesForCurrentThread() - before).ShouldBeLessThan(Most);
        return found;
    }

    [Fact]
    public void A_message_that_goes_on_to_the_end_of_a_large_file_is_cut_and_not_put_together_line_by_line()
    {
        var chat = Encoding.UTF8.GetBytes(Many("[09:31:00] Ana P: hello\n", 400) + "[09:32:00] Eino R.: my line is going\n" + Many("and it goes on\n", 500_000));
        Frugally(() => ChatFile.Read(chat, null, DateTimeZone.Utc, Lesson, _ => false)).Rows[^1].Text.Length.ShouldBe(2000);
        var captions = Encoding.UTF8.GetBytes("WEBVTT\n\n00:00:01.000 --> 00:00:02.000\n<v Ana P>hello\n" + Many("and it goes on\n", 500_000));
        Frugally(() => CaptionsFile.Read(captions, DateTimeZone.Utc, Lesson, _ => false, keepsWords: true)).Rows.ShouldHaveSingleItem().Said!.Length.ShouldBe(2000);
    }

    [Fact]
    public void Objects_with_ever_other_properties_are_refused_before_they_fill_the_memory()
    {
        var json = Encoding.UTF8.GetBytes($"[{string.Join(',', Enumerable.Range(0, 90_000).Select(i => $"{{\"p{i}\":1}}"))}]");
        Frugally(() => Should.Throw<FormatProblem>(() => ChatFile.Read(json, null, DateTimeZone.Utc, Lesson, _ => false))).Message.ShouldContain("more than 60 properties");
    }

    [Fact]
    public void Each_of_a_hundred_thousand_answers_of_another_day_is_looked_at_once()
    {
        var answers = Encoding.UTF8.GetBytes("Submitted,Your name,Which way does it back?\n" + string.Concat(Enumerable.Range(0, 99_000).Select(i => $"2026-10-05 09:{i % 60:00}:00,Student {i},left\n")));
        AnswersFile.Read(answers, null, DateTimeZone.Utc, Lesson, Lesson + Duration.FromMinutes(50), _ => false).Problems.ShouldHaveSingleItem().ShouldContain("2026-10-05");
    }

    [Fact]
    public void A_rule_that_makes_millions_of_dates_at_once_is_left_out_with_a_word()
    {
        var all = string.Join(',', Enumerable.Range(0, 60));
        var days = string.Join(',', Enumerable.Range(1, 31));
        var calendar = Calendar([$"BEGIN:VEVENT\r\nUID:a\r\nSUMMARY:Tides\r\nDTSTART:20261123T093000Z\r\nDTEND:20261123T102000Z\r\nRRULE:FREQ=YEARLY;BYMONTH=1,2,3,4,5,6;BYMONTHDAY={days};BYHOUR=1,2,3,4,5;BYMINUTE={all};BYSECOND={all};COUNT=3\r\nEND:VEVENT\r\n"]);
        var before = GC.GetAllocatedBytesForCurrentThread();
        var title = CalendarFile.Read(Encoding.UTF8.GetBytes(calendar), DateTimeZone.Utc, null).ShouldHaveSingleItem();
        (title.Dates.Count, title.Problems.ShouldHaveSingleItem().Contains("so many dates", StringComparison.Ordinal)).ShouldBe((0, true));
        (GC.GetAllocatedBytesForCurrentThread() - before).ShouldBeLessThan(Most);
    }

    [Fact]
    public void Thousands_of_moved_dates_of_one_event_are_looked_at_once_each()
    {
        var first = "BEGIN:VEVENT\r\nUID:a\r\nSUMMARY:Tides\r\nDTSTART:20200101T093000Z\r\nDTEND:20200101T102000Z\r\nRRULE:FREQ=DAILY;COUNT=3000\r\nEND:VEVENT\r\n";
        var moved = Enumerable.Range(0, 3000).Select(i => new LocalDate(2020, 1, 1).PlusDays(i)).Select(day =>
            $"BEGIN:VEVENT\r\nUID:a\r\nSUMMARY:Tides\r\nRECURRENCE-ID:{day:yyyyMMdd}T093000Z\r\nDTSTART:{day:yyyyMMdd}T110000Z\r\nDTEND:{day:yyyyMMdd}T115000Z\r\nEND:VEVENT\r\n");
        var before = GC.GetAllocatedBytesForCurrentThread();
        CalendarFile.Read(Encoding.UTF8.GetBytes(Calendar(moved.Prepend(first))), DateTimeZone.Utc, null).ShouldHaveSingleItem().Dates.Count.ShouldBe(3000);
        // Each looked at for each other would be nine million.
        (GC.GetAllocatedBytesForCurrentThread() - before).ShouldBeLessThan(Most);
    }

    /// <summary>Only one of them has room set aside for it; that shows in nothing but the time it takes.</summary>
    [Fact]
    public async Task Large_files_that_are_read_at_once_are_read_as_if_alone()
    {
        var chat = Encoding.UTF8.GetBytes("Time,From,To,Message\n" + string.Concat(Enumerable.Range(0, 20_000).Select(i => $"2026-11-02 09:{30 + (i % 20)}:00,Student {i % 30},Everyone,the wind backs before the front {i}\n")));
        var all = await Task.WhenAll(Enumerable.Range(0, 6).Select(_ => Task.Run(() => ChatFile.Read(chat, null, DateTimeZone.Utc, Lesson, _ => false))));
        foreach (var read in all)
        {
            read.Rows.Count.ShouldBe(20_000);
            read.Rows.Select(r => (r.Row, r.Name, r.Text, r.At)).SequenceEqual(all[0].Rows.Select(r => (r.Row, r.Name, r.Text, r.At))).ShouldBeTrue();
        }

        all[0].Rows[^1].Text.ShouldBe("the wind backs before the front 19999");
    }
}
