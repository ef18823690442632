using System.Text;
using NodaTime;
using SkiaSharp;

namespace PoliteTally.Formats.Tests;

/// <summary>Broken files of every kind: each says what is wrong in words, and none throws anything else.</summary>
public sealed class BrokenFileTests
{
    private static readonly byte[] Good = Written.Workbook([["Family name", "Given name"], ["Sørbø", "Ingvild"]]);

    private static byte[] Bomb()
    {
        var zeros = new byte[1 << 20];
        return Written.Zip([.. Enumerable.Range(0, 110).Select(i => ($"users{i}.csv", zeros))]);
    }

    private static byte[] Png(int width, int height)
    {
        using var bitmap = new SKBitmap(width, height);
        using var encoded = bitmap.Encode(SKEncodedImageFormat.Png, 100);
        return encoded.ToArray();
    }

    // A picture that says of itself that it is immense, in 33 bytes and no data.
    private static byte[] Immense()
    {
        var png = Png(1, 1);
        (png[16], png[17], png[20], png[21]) = (0, 2, 0, 2);
        // The check sum of the header, so that nothing but the size is wrong (CRC-32 as in PNG, annex D).
        var crc = 0xFFFFFFFFu;
        foreach (var value in png.AsSpan(12, 17))
        {
            crc ^= value;
            for (var bit = 0; bit < 8; bit++)
            {
                crc = (crc & 1) != 0 ? (crc >> 1) ^ 0xEDB88320u : crc >> 1;
            }
        }

        System.Buffers.Binary.BinaryPrimitives.WriteUInt32BigEndian(png.AsSpan(29), ~crc);
        return png;
    }

    public static TheoryData<string, Func<object>, string> Broken() => new()
    {
        { "a truncated archive", () => RosterFile.Read(Good[..(Good.Length / 2)], null), "archive is broken" },
        { "an archive damaged within", () => RosterFile.Read([.. Good[..60], .. new byte[40], .. Good[100..]], null), "broken" },
        { "an archive that unpacks without end", () => RosterFile.Read(Bomb(), null), "unpacks to far more than" },
        { "an archive of something else", () => RosterFile.Read(Written.Zip(("letter.txt", "hello"u8.ToArray())), null), "neither a workbook nor a rostering bundle" },
        { "a workbook that is no XML", () => RosterFile.Read(Written.Zip(("[Content_Types].xml", "<"u8.ToArray()), ("xl/workbook.xml", "<"u8.ToArray())), null), "workbook is broken" },
        { "an empty workbook", () => RosterFile.Read(Written.Workbook([[]]), null), "empty" },
        { "a table of 70 columns", () => RosterFile.Read(Written.Utf8(string.Join(',', Enumerable.Range(0, 70).Select(i => $"c{i}")) + "\n" + new string(',', 69)), null), "at most 60" },
        { "no calendar", () => CalendarFile.Read("Family name,Given name"u8.ToArray(), DateTimeZone.Utc, null), "not a calendar" },
        { "a calendar cut off", () => CalendarFile.Read("BEGIN:VCALENDAR\r\nBEGIN:VEVENT\r\nDTSTART:2026"u8.ToArray(), DateTimeZone.Utc, null), "cut off" },
        { "a calendar without events", () => CalendarFile.Read("BEGIN:VCALENDAR\r\nVERSION:2.0\r\nEND:VCALENDAR"u8.ToArray(), DateTimeZone.Utc, null), "no events" },
        { "a picture that is none", () => Picture("RIFF and then nothing"u8.ToArray()), "not a picture" },
        { "a drawing with scripts", () => Picture("<svg onload='alert(1)'/>"u8.ToArray()), "not a picture" },
        { "a picture cut off", () => Picture(Png(64, 64)[..40]), "picture" },
        { "a picture of immense size", () => Picture(Immense()), "points" },
    };

    [Theory]
    [MemberData(nameof(Broken))]
    public void Whatever_is_broken_is_said_in_words(string told, Func<object> read, string said)
    {
        var problem = Should.Throw<FormatProblem>(read, told);
        problem.Message.ShouldContain(said, Case.Insensitive, told);
    }

    [Fact]
    public void Markdown_renders_to_what_a_class_may_see()
    {
        MarkdownText.Render("**Twice**, wind < 5 & falling:\n\n- pier\n- [table](https://tides.example/a?b=1&c=2)\n\n`<b>`")
            .ShouldBe("<p><strong>Twice</strong>, wind &lt; 5 &amp; falling:</p>\n<ul>\n<li>pier</li>\n<li><a href=\"https://tides.example/a?b=1&amp;c=2\">table</a></li>\n</ul>\n<p><code>&lt;b&gt;</code></p>\n");
        MarkdownText.Render("").ShouldBe("");
    }

    [Theory]
    [InlineData(3000, 1500, 1280, 640)]
    [InlineData(100, 4000, 32, 1280)]
    [InlineData(64, 48, 64, 48)]
    public void Pictures_are_scaled_down_and_never_up(int width, int height, int keptWidth, int keptHeight)
    {
        var kept = Picture(Png(width, height));
        (kept.Width, kept.Height).ShouldBe((keptWidth, keptHeight));
        Encoding.ASCII.GetString(kept.WebP, 8, 4).ShouldBe("WEBP");
        using var read = SKBitmap.Decode(kept.WebP);
        (read.Width, read.Height).ShouldBe((keptWidth, keptHeight));
    }

    [Theory]
    [InlineData("Read the dial\n\n<script>alert(1)</script>", "Line 3 has a tag")]
    [InlineData("Read <img src=x onerror=alert(1)> twice", "Line 1 has a tag")]
    [InlineData("[here](javascript:alert(1))", "link to “javascript:alert(1)”")]
    [InlineData("<javascript:alert(1)>", "Line 1")]
    [InlineData("![](https://elsewhere.example/x.png)", "has a picture")]
    public void Markdown_that_a_class_may_not_see_is_named_and_shown_as_it_was_written(string text, string said)
    {
        MarkdownText.Problems(text).ShouldHaveSingleItem().ShouldContain(said);
        MarkdownText.Render(text).ShouldBe($"<pre>{System.Net.WebUtility.HtmlEncode(text)}</pre>\n");
    }

    [Theory]
    [InlineData('>', 9000)]
    [InlineData('[', 128)]
    [InlineData('[', 9000)]
    public void Markdown_that_is_nested_too_deeply_to_be_rendered_is_named_and_shown_as_it_was_written(char nested, int deep)
    {
        var text = new string(nested, deep) + "x";
        MarkdownText.Problems(text).ShouldHaveSingleItem().ShouldContain("nested too deeply");
        MarkdownText.Render(text).ShouldStartWith("<pre>");
    }

    private static string Event(string lines) => $"BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:x\r\nBEGIN:VEVENT\r\nUID:a\r\nSUMMARY:Tides\r\n{lines.Replace("\n", "\r\n")}\r\nEND:VEVENT\r\nEND:VCALENDAR";

    /// <summary>Whatever stands in an event: it is read, left out with a reason, or the file is refused with one.</summary>
    [Theory]
    [InlineData("DTSTART:20270111T093000\nDURATION:P999999999D")]
    [InlineData("DTSTART:20270111T093000\nDURATION:-PT50M")]
    [InlineData("DTSTART:20270111T093000\nDURATION:PT")]
    [InlineData("DTSTART:20270111T093000\nDURATION:P1Y2M")]
    [InlineData("DTSTART;TZID=Nowhere/Land:20270111T093000\nDURATION:PT50M")]
    [InlineData("DTSTART;TZID=:20270111T093000\nDURATION:PT50M")]
    [InlineData("DTSTART;TZID=\"a;b:c\":20270111T093000\nDTEND;TZID=Europe/Paris:20270111T103000")]
    [InlineData("DTSTART:99991231T235959Z\nDURATION:PT50M")]
    [InlineData("DTSTART:00010101T000000Z\nDURATION:PT50M\nRRULE:FREQ=YEARLY")]
    [InlineData("DTSTART:20270111T093000\nDURATION:PT50M\nRRULE:FREQ=WEEKLY")]
    [InlineData("DTSTART:20270111T093000\nDURATION:PT50M\nRRULE:FREQ=YEARLY")]
    [InlineData("DTSTART:20270111T093000\nDURATION:PT50M\nRRULE:FREQ=YEARLY;INTERVAL=2147483647")]
    [InlineData("DTSTART:20270111T093000\nDURATION:PT50M\nRRULE:FREQ=DAILY;COUNT=999999999")]
    [InlineData("DTSTART:20270111T093000\nDURATION:PT50M\nRRULE:FREQ=WEEKLY;UNTIL=99999999T999999Z")]
    [InlineData("DTSTART:20270111T093000\nDURATION:PT50M\nRRULE:FREQ=NEVER")]
    [InlineData("DTSTART:20270111T093000\nDURATION:PT50M\nRECURRENCE-ID:x")]
    public void Whatever_stands_in_an_event_is_read_or_left_out_with_a_reason(string lines)
    {
        try
        {
            CalendarFile.Read(Encoding.UTF8.GetBytes(Event(lines)), DateTimeZoneProviders.Tzdb["Atlantic/Faroe"], new LocalDate(9999, 12, 31))
                .ShouldAllBe(t => t.Dates.Count > 0 || t.Problems.Count > 0);
        }
        catch (FormatProblem said)
        {
            said.Message.ShouldNotBeEmpty();
        }
    }

    private static ScaledPicture Picture(byte[] bytes) => PictureFile.Read(bytes, CancellationToken.None).GetAwaiter().GetResult();
}
