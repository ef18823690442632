using System.Globalization;
using System.Text;
using System.Text.Json;
using CsvHelper;
using CsvHelper.Configuration;
using NodaTime;
using PoliteTally.Formats;

namespace PoliteTally.Bench;

/// <summary>How long files of 100,000 rows take to be known and read, beside a bare pass of the library over the same file.</summary>
internal static class Readers
{
    private const int Rows = 100_000;
    private static readonly Instant From = Instant.FromUtc(2026, 11, 2, 9, 30);
    private static readonly Instant To = From + Duration.FromMinutes(50);
    private static readonly DateTimeZone Zone = DateTimeZone.Utc;

    public static void Run()
    {
        var chat = Bytes("Time,From,To,Message\n", i => $"{Time(i)},Student {i % 400},Everyone,because the wind backs before the front number {i}\n");
        Row("chat as a table", chat, Csv, () => ChatFile.Read(chat, null, Zone, From, _ => false));
        var attendance = Bytes("Name,Joined,Left\n", i => $"Student {i % 400},{Time(i)},{Time(i + 40)}\n");
        Row("attendance list", attendance, Csv, () => AttendanceFile.Read(attendance, null, Zone, From, To));
        var answers = Bytes("Submitted,Your name,Which way does it back?,What is normal pressure?\n", i => $"{Time(i)},Student {i},against the clock,10{i % 30}\n");
        Row("answers, 200,000 of them", answers, Csv, () => AnswersFile.Read(answers, null, Zone, From, To, _ => false));
        var json = Bytes("[", i => $$"""{{(i > 0 ? "," : "")}}{"sent":"2026-11-02T09:{{30 + (i % 30)}}:{{i % 60:00}}Z","sender":{"name":"Student {{i % 400}}"},"text":"because the wind backs before the front number {{i}}"}""", "]");
        Row("chat as JSON", json, Json, () => ChatFile.Read(json, null, Zone, From, _ => false));
        var lines = Bytes("", i => $"{Time(i)} From Student {i % 400} to Everyone: because the wind backs before the front number {i}\n");
        Row("chat in lines", lines, Csv, () => ChatFile.Read(lines, null, Zone, From, _ => false));
        var captions = Bytes("WEBVTT\n", i => $"\n{i / 36000:00}:{i / 600 % 60:00}:{i / 10 % 60:00}.{i % 10}00 --> {i / 36000:00}:{i / 600 % 60:00}:{i / 10 % 60:00}.{i % 10}90\n<v Student {i % 400}>because\n");
        Row("captions", captions, Csv, () => CaptionsFile.Read(captions, Zone, From, _ => false));
        foreach (var (what, file) in new[] { ("chat as a table", chat), ("attendance list", attendance), ("answers", answers), ("captions", captions), ("chat in lines", lines) })
        {
            Row($"knowing what it is: {what}", file, Csv, () => FileRecognition.CouldBe(file, Zone, From, To, _ => false));
        }
    }

    private static string Time(int i) => (From + Duration.FromMilliseconds(i * 29)).ToString("uuuu-MM-dd HH:mm:ss", CultureInfo.InvariantCulture);

    private static byte[] Bytes(string head, Func<int, string> row, string tail = "") =>
        Encoding.UTF8.GetBytes(Enumerable.Range(0, Rows).Aggregate(new StringBuilder(head), (text, i) => text.Append(row(i))).Append(tail).ToString());

    private static void Row(string what, byte[] file, Action<byte[]> bare, Action read)
    {
        var (reading, pass) = (Figures.Milliseconds(read, times: 9), Figures.Milliseconds(() => bare(file), times: 9));
        Figures.Row($"{Rows:N0} rows, {what}", Figures.Of(reading, "ms", "0"), $"a bare pass {Figures.Of(pass, "ms", "0")}", reading / pass);
    }

    // Every cell as a text, which is what a reader begins with.
    private static void Csv(byte[] file)
    {
        using var parser = new CsvParser(new StreamReader(new MemoryStream(file)), new CsvConfiguration(CultureInfo.InvariantCulture) { BadDataFound = null });
        while (parser.Read())
        {
            _ = parser.Record;
        }
    }

    private static void Json(byte[] file)
    {
        using var document = JsonDocument.Parse(file);
        foreach (var row in document.RootElement.EnumerateArray())
        {
            Texts(row);
        }

        static void Texts(JsonElement row)
        {
            foreach (var property in row.EnumerateObject())
            {
                if (property.Value.ValueKind == JsonValueKind.Object)
                {
                    Texts(property.Value);
                }
                else
                {
                    _ = (property.Name, property.Value.GetString());
                }
            }
        }
    }
}
