using System.Text;
using System.Text.Json;
using CsCheck;
using NodaTime;

namespace PoliteTally.Formats.Tests;

/// <summary>Any cell may hold any text: nothing is thrown, and all other rows are read as they would be without it. A student can write whatever they like.</summary>
public sealed class OddCellTests
{
    private static readonly DateTimeZone Zone = DateTimeZoneProviders.Tzdb["Atlantic/Faroe"];
    private static readonly Instant From = Instant.FromUtc(2026, 11, 24, 9, 0);
    private static readonly Instant To = From + Duration.FromMinutes(50);
    private static readonly string[] Students =
        ["Juno Quillfeather", "Eino Rautio", "Zainab Usman", "Birkir Árnason", "Ingvild Sørbø", "Tiago D'Ambrosio-Lund", "Anahit Petrosyan", "Wojtek Grzelak", "Dewi Suharto", "Saga Eriksdotter"];

    private static readonly string[] Odd =
    [
        "٣:٤٥", "۱۲:۳۰:۰۰", "९:१५", "99999999999h", "99999999999999999999m", "1111111111111111111111", "0.00000000000000000000000000001", "9999-12-31T23:59:59-18:00", "9999-12-31 23:59:59",
        "0001-01-01T00:00:00+18:00", "-9999-01-01T00:00:00Z", "2026-11-24T09:10:00+99:99", "25:99:99", "999:99:99", "٩٩٩:٩٩", "NaN", "1e999", "-5", "∞", "½", "=1+1", "+44 (0) 1", "\u0000", "a\u0000b",
        "\uFDD0", "x\uFFFE", "\uFFFF", "\u202Eabc", "\uFEFF", "🌊", "👩‍👩‍👧", "e\u0301", "\u0301", "\u00A0", "null", "true", "{}", "[", "<v Ana>", "-->", "00:00:01.000 --> 00:00:02.000", ">", "\"", "\"\"", "'", ",", ";", "\t",
        "|", ":", "::::", "a:b:c:d:e:f:g", "09:30", "12 11 2026", "24.11.2026 9:30", "1/2/3", "joined", "left", "Everyone", "<script>", "%s%n", "../..", "Q. 1 /2.50", "5 of 0", "٥/٠", "100 %", "99999999999999999999999999999 / 1",
    ];

    private static readonly Gen<string> AnyText = Gen.OneOf(Gen.OneOf(Odd), Gen.String[0, 30], Gen.String[Gen.Char["0123456789:.,-/+TZhms ٣٤٥"], 1, 24], Gen.OneOf(Odd).Array[2, 4].Select(string.Concat), Gen.Int[200, 5_000].Select(n => new string('9', n)));

    private static string Csv(IEnumerable<string[]> rows, char between) => string.Join("\n", rows.Select(r => string.Join(between, r.Select(c => $"\"{c.Replace("\"", "\"\"", StringComparison.Ordinal)}\""))));

    private static string OneLine(string text) => text.ReplaceLineEndings(" ").Replace('\u2028', ' ').Replace('\u2029', ' ').Replace('\v', ' ').Replace('\f', ' ').Replace('\u0085', ' ');

    private static string At(int i) => $"09:{10 + i:00}:{(i * 7) % 60:00}";

    /// <summary>A kind of file: its rows as they should be, how they are written, and how each is read: its row in words, by its number among those written.</summary>
    private sealed record Kind(string Name, string[] Headings, Func<int, string[]> Row, Func<IReadOnlyList<string[]>, string> Write, Func<byte[], IEnumerable<(int Row, string Said)>> Read)
    {
        public override string ToString() => Name;
    }

    private static readonly Kind[] Kinds =
    [
        .. new[] { ',', ';', '\t' }.Select(between => new Kind(
            $"attendance cut at {(int)between}", ["Name", "Joined", "Left"], i => [Students[i % 10], $"2026-11-24 {At(i)}", "2026-11-24 09:49:00"], rows => Csv(rows, between),
            b => AttendanceFile.Read(b, null, Zone, From, To).Rows.Select(r => (r.Row - 1, $"{r.Name} {r.Joined} {r.Left}")))),
        new("lengths", ["Name", "Duration"], i => [Students[i % 10], $"{20 + i} min"], rows => Csv(rows, ','), b => AttendanceFile.Read(b, null, Zone, From, To).Rows.Select(r => (r.Row - 1, $"{r.Name} {r.Length}"))),
        new("chat as a table", ["Time", "From", "Message"], i => [At(i), Students[i % 10], $"low water is at number {i}"], rows => Csv(rows, ','),
            b => ChatFile.Read(b, null, Zone, From, _ => false).Rows.Select(r => (r.Row - 1, $"{r.Name} {r.At} {r.Text}"))),
        new("chat as JSON", ["sentAt", "from", "message"], i => [$"2026-11-24T{At(i)}Z", Students[i % 10], $"low water is at number {i}"],
            rows => JsonSerializer.Serialize(rows.Skip(1).Select(r => rows[0].Zip(r).ToDictionary())), b => ChatFile.Read(b, null, Zone, From, _ => false).Rows.Select(r => (r.Row, $"{r.Name} {r.At} {r.Text}"))),
        new("answers", ["Name", "When does high water come?", "Points"], i => [$"{Students[i % 10]} {(char)('A' + i)}", $"at {i}", $"{i % 3}"], rows => Csv(rows, ','),
            b => AnswersFile.Read(b, null, Zone, From, To, n => Students.Contains(n)) is var read
                ? read.People.Select(p => (p.Row - 1, $"{p.Name} {string.Join("/", read.Questions.SelectMany(q => q.Answers).Where(a => a.Row.Row == p.Row).Select(a => a.Written.Text))}")) : []),
        new("chat in lines", ["", "", ""], i => [At(i), Students[i % 10], $"low water is at number {i}"], rows => string.Join("\n", rows.Skip(1).Select(r => $"{r[0]} {r[1]}: {OneLine(r[2])}")),
            b => ChatFile.Read(b, null, Zone, From, _ => false).Rows.Select(r => (r.Row, $"{r.Name} {r.At} {r.Text}"))),
        new("captions", ["", "", ""], i => [At(i), Students[i % 10], $"low water is at number {i}"],
            rows => "WEBVTT\n\n" + string.Join("\n\n", rows.Skip(1).Select(r => $"00:{r[0][3..]}.000 --> 00:{r[0][3..]}.900\n<v {OneLine(r[1])}>{OneLine(r[2])}")),
            b => CaptionsFile.Read(b, Zone, From, _ => false).Rows.Select(r => (((r.Row - 3) / 3) + 1, $"{r.Name} {r.From} {r.Length}"))),
    ];

    private const int Rows = 30;

    [Fact]
    public void All_other_rows_are_read_as_without_it() => Gen.Select(Gen.OneOf(Kinds), Gen.Int[1, Rows], Gen.Int[0, 2], AnyText).Sample(
        (kind, at, column, text) =>
        {
            // Of lines and captions only the words are anybody's to write.
            column = kind.Headings[0].Length == 0 ? 2 : column % kind.Headings.Length;
            var rows = Enumerable.Range(0, Rows).Select(kind.Row).Prepend(kind.Headings).ToList();
            var without = Said(kind, rows);
            rows[at] = [.. rows[at].Select((cell, i) => i == column ? text : cell)];
            var with = Said(kind, rows);
            without.Where(r => r.Key != at).Except(with).ShouldBeEmpty($"{kind} row {at} column {column}: “{text}”");
        }, iter: 4_000, threads: 2);

    private static Dictionary<int, string> Said(Kind kind, List<string[]> rows) => kind.Read(Encoding.UTF8.GetBytes(kind.Write(rows))).GroupBy(r => r.Row).ToDictionary(g => g.Key, g => string.Join(" + ", g.Select(r => r.Said)));

    /// <summary>And to know what it is does not throw either, whatever stands where.</summary>
    [Fact]
    public void What_it_is_is_known_or_refused_in_words() => Gen.Select(Gen.OneOf(Kinds), AnyText.Array[3], Gen.Int[1, 6]).Sample(
        (kind, texts, at) =>
        {
            var rows = Enumerable.Range(0, 6).Select(kind.Row).Prepend(kind.Headings).ToList();
            rows[at] = kind.Headings[0].Length == 0 ? [rows[at][0], texts[1].Replace('>', ' '), texts[2]] : texts;
            try
            {
                FileRecognition.CouldBe(Encoding.UTF8.GetBytes(kind.Write(rows)), Zone, From, To, n => Students.Contains(n)).ShouldNotBeEmpty();
            }
            catch (FormatProblem said)
            {
                said.Message.ShouldNotBeEmpty();
            }
        }, iter: 1_500, threads: 2);
}
