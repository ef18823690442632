using System.Text;
using NodaTime;
using PoliteTally.Core.Merging;

namespace PoliteTally.Formats.Tests;

/// <summary>The most ordinary attendance list of all, name, coming and going in hours and minutes, is one in every form that a spreadsheet gives, and nothing is asked.</summary>
public sealed class PlainestListTests
{
    private static readonly DateTimeZone Zone = DateTimeZoneProviders.Tzdb["Atlantic/Faroe"];
    private static readonly LocalDate Day = new(2026, 11, 24);
    private static readonly string[] Students =
    [
        "Juno Quillfeather", "Eino Rautio", "Zainab Usman", "Birkir Árnason", "Ingvild Sørbø", "Tiago D'Ambrosio-Lund", "Anahit Petrosyan", "Wojtek Grzelak", "Dewi Suharto", "Saga Eriksdotter", "Cormac Bellweather",
        "Rowan Bellweather", "Ximena Castellanos Ruiz", "Philippa Farrow", "Tobias Hollis", "Meenakshi Iyengar", "Liezel Jansen van Wyk", "Nohea Kalaniʻōpuʻu", "Rowan Lindqvist", "Catriona MacAskill",
        "Sipho Mbeki-Thorne", "Bảo Trâm Nguyễn", "Diarmuid Ó Flannagáin", "Kensa Tremayne", "Barnaby Whitlock", "Çağla Yıldız", "Ifeoma Abernethy-Okafor",
    ];

    private sealed record Form(string Between, string Clock, string? Headings, string LineEnd, bool Quotes, Encoding Encoding)
    {
        public override string ToString() => $"“{Between}” {Clock} {Headings ?? "no headings"} {(LineEnd == "\n" ? "LF" : "CRLF")} {(Quotes ? "quoted" : "plain")} {Encoding.EncodingName}";
    }

    private static IEnumerable<Form> Forms() =>
        from between in new[] { ",", ";", "\t" }
        from clock in new[] { "HH:mm", "H:mm", "HH:mm:ss", "h:mm tt" }
        from headings in new[] { null, "Name,Join time,Leave time", "Name,From,To", "Student,Joined at,Left at" }
        from quotes in new[] { false, true }
        let number = between.Length + clock.Length + (headings?.Length ?? 0)
        select new Form(between, clock, headings, number % 2 == 0 ? "\n" : "\r\n", quotes, quotes ? new UTF8Encoding(encoderShouldEmitUTF8Identifier: true) : number % 5 == 0 ? Encoding.Unicode : new UTF8Encoding(false));

    private static (LocalTime Joined, LocalTime Left) Stay(int i, LocalTime begins) => (begins.PlusMinutes((i % 9) - 2), begins.PlusMinutes(49 + (i % 3)));

    private static byte[] Written(Form form, LocalTime begins)
    {
        var rows = Students.Select((name, i) => (string[])[name, Said(Stay(i, begins).Joined), Said(Stay(i, begins).Left)]);
        var all = form.Headings is { } headings ? rows.Prepend(headings.Split(',')) : rows;
        var text = string.Concat(all.Select(r => string.Join(form.Between, r.Select(c => form.Quotes ? $"\"{c}\"" : c)) + form.LineEnd));
        return [.. form.Encoding.Preamble, .. form.Encoding.GetBytes(text)];

        string Said(LocalTime time) => NodaTime.Text.LocalTimePattern.CreateWithInvariantCulture(form.Clock).Format(time);
    }

    [Theory]
    [InlineData(8, 0)]
    [InlineData(9, 30)]
    [InlineData(11, 45)]
    [InlineData(14, 50)]
    [InlineData(19, 15)]
    public void It_is_taken_for_what_it_is_and_read_to_the_minute(int hour, int minute)
    {
        var begins = new LocalTime(hour, minute);
        var (from, to) = ((Day + begins).InZoneStrictly(Zone).ToInstant(), (Day + begins.PlusMinutes(50)).InZoneStrictly(Zone).ToInstant());
        foreach (var form in Forms())
        {
            var bytes = Written(form, begins);
            FileRecognition.CouldBe(bytes, Zone, from, to, Students.Contains).ShouldBe([FileKind.Attendance], $"{form}");
            var list = AttendanceFile.Read(bytes, null, Zone, from, to);
            list.Unclear.Concat(list.Problems).ShouldBeEmpty($"{form}");
            list.Rows.Select((r, i) => (r.Name, r.Joined, r.Left)).ShouldBe(
                Students.Select((name, i) => (name, (Instant?)(Day + Stay(i, begins).Joined).InZoneStrictly(Zone).ToInstant(), (Instant?)(Day + Stay(i, begins).Left).InZoneStrictly(Zone).ToInstant())), $"{form}");
        }
    }

    /// <summary>And what counts from the start of a recording still does.</summary>
    [Theory]
    [InlineData("m:ss")]
    [InlineData("mm:ss")]
    [InlineData("H:mm:ss")]
    public void A_transcript_that_counts_from_its_start_is_still_one(string counted)
    {
        var (from, to) = (Instant.FromUtc(2026, 11, 24, 9, 30), Instant.FromUtc(2026, 11, 24, 10, 20));
        var lines = Enumerable.Range(0, 90).Select(i => $"{NodaTime.Text.DurationPattern.CreateWithInvariantCulture(counted == "H:mm:ss" ? "H:mm:ss" : counted.Length == 4 ? "M:ss" : "MM:ss").Format(Duration.FromSeconds(5 + (i * 31)))} {Students[i % 9]}: low water is at number {i}");
        FileRecognition.CouldBe(Encoding.UTF8.GetBytes(string.Join('\n', lines)), Zone, from, to, Students.Contains).ShouldBe([FileKind.Captions]);
    }
}
