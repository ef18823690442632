using System.Globalization;
using System.IO.Compression;
using System.Text.RegularExpressions;
using CsvHelper;

namespace PoliteTally.Formats.Tests;

/// <summary>Reads and checks a grade book by the open standard (1EdTech OneRoster 1.2, CSV binding): which files there are, their columns, and what may stand in them.</summary>
internal sealed partial class StandardGradeBook
{
    private static readonly string[] First = ["sourcedId", "status", "dateLastModified"];

    private static readonly Dictionary<string, string[]> Columns = new()
    {
        ["categories"] = [.. First, "title", "weight"],
        ["lineItems"] =
        [
            .. First, "title", "description", "assignDate", "dueDate", "classSourcedId", "categorySourcedId", "gradingPeriodSourcedId", "academicSessionSourcedId", "schoolSourcedId",
            "resultValueMin", "resultValueMax",
        ],
        ["results"] =
        [
            .. First, "lineItemSourcedId", "studentSourcedId", "scoreStatus", "score", "scoreDate", "comment", "textScore", "classSourcedId", "inProgress", "incomplete", "late", "missing",
        ],
        ["scoreScales"] = [.. First, "title", "type", "courseSourcedId", "classSourcedId", "scoreScaleValue"],
        ["lineItemScoreScales"] = [.. First, "lineItemSourcedId", "scoreScaleSourcedId"],
        ["resultScoreScales"] = [.. First, "resultSourcedId", "scoreScaleSourcedId"],
    };

    private static readonly Dictionary<string, string> PointTo = new()
    {
        ["categorySourcedId"] = "categories",
        ["lineItemSourcedId"] = "lineItems",
        ["resultSourcedId"] = "results",
        ["scoreScaleSourcedId"] = "scoreScales",
    };

    private static readonly string[] Needed = ["sourcedId", "title", "assignDate", "dueDate", "classSourcedId", "categorySourcedId", "lineItemSourcedId", "studentSourcedId", "scoreStatus", "scoreDate"];

    private static readonly string[] Statuses = ["exempt", "fully graded", "not submitted", "partially graded", "submitted"];

    private readonly Dictionary<string, List<Dictionary<string, string>>> _files = [];
    private readonly List<string> _problems = [];

    public IReadOnlyList<string> Problems => _problems;

    public IEnumerable<string> Files => _files.Keys;

    public IReadOnlyList<Dictionary<string, string>> Rows(string file) => _files[file];

    public static StandardGradeBook Read(byte[] bundle)
    {
        var book = new StandardGradeBook();
        using var zip = new ZipArchive(new MemoryStream(bundle));
        foreach (var entry in zip.Entries)
        {
            using var csv = new CsvReader(new StreamReader(entry.Open()), CultureInfo.InvariantCulture);
            csv.Read();
            csv.ReadHeader();
            var name = entry.FullName.Replace(".csv", "", StringComparison.Ordinal);
            if (name != "manifest" && !(Columns.TryGetValue(name, out var columns) && columns.SequenceEqual(csv.HeaderRecord!)))
            {
                book._problems.Add($"{name}: not the columns of the standard");
            }

            var rows = new List<Dictionary<string, string>>();
            while (csv.Read())
            {
                rows.Add(csv.HeaderRecord!.ToDictionary(h => h, h => csv.GetField(h)!));
            }

            book._files[name] = rows;
        }

        book.CheckManifest();
        book.CheckRows();
        return book;
    }

    private void CheckManifest()
    {
        var manifest = _files["manifest"].ToDictionary(r => r["propertyName"], r => r["value"]);
        Wrong(manifest["manifest.version"] != "1.0" || manifest["oneroster.version"] != "1.2", "manifest: not version 1.2");
        foreach (var (key, value) in manifest.Where(m => m.Key.StartsWith("file.", StringComparison.Ordinal)))
        {
            Wrong(value is not ("absent" or "bulk" or "delta"), $"manifest: {key} is {value}");
            Wrong(value != "absent" != _files.ContainsKey(key[5..]), $"manifest: {key} is {value}, and the file says otherwise");
        }

        foreach (var file in _files.Keys.Where(f => f != "manifest"))
        {
            Wrong(!manifest.ContainsKey($"file.{file}"), $"manifest: says nothing of {file}");
        }
    }

    private void CheckRows()
    {
        foreach (var (file, rows) in _files.Where(f => f.Key != "manifest"))
        {
            foreach (var twice in rows.GroupBy(r => r["sourcedId"]).Where(g => g.Count() > 1))
            {
                _problems.Add($"{file}: “{twice.Key}” stands there twice");
            }

            foreach (var (column, value) in rows.SelectMany(r => r))
            {
                Wrong(value.Length == 0 && Needed.Contains(column), $"{file}: {column} is empty");
                Wrong(column is "status" or "dateLastModified" && value.Length > 0, $"{file}: {column} is for changes alone");
                Wrong(column.EndsWith("Date", StringComparison.Ordinal) && !Iso().IsMatch(value), $"{file}: {value} is no day");
                Wrong(column is "inProgress" or "incomplete" or "late" or "missing" && value is not ("true" or "false"), $"{file}: {column} is {value}");
                Wrong(column == "scoreStatus" && !Statuses.Contains(value), $"{file}: {value} is no status");
                Wrong(
                    column == "score" && value.Length > 0 && !(decimal.TryParse(value, CultureInfo.InvariantCulture, out var score) && score is >= 0 and <= 100),
                    $"{file}: {value} is no score from 0 to 100");
                Wrong(column == "scoreScaleValue" && !Pairs().IsMatch(value), $"{file}: {value} are no ranges with names");
                Wrong(
                    PointTo.TryGetValue(column, out var other) && !(_files.TryGetValue(other, out var others) && others.Exists(o => o["sourcedId"] == value)),
                    $"{file}: {column} “{value}” stands in no {other}");
            }

            Wrong(file == "results" && rows.Exists(r => r["scoreStatus"] == "exempt" != (r["score"].Length == 0)), "results: who is exempt has no score, and everybody else has one");
        }
    }

    private void Wrong(bool isWrong, string what)
    {
        if (isWrong)
        {
            _problems.Add(what);
        }
    }

    [GeneratedRegex(@"^\d{4}-\d\d-\d\d$")]
    private static partial Regex Iso();

    [GeneratedRegex(@"^\{[\d.]+-[\d.]+:[^{}:,]+\}(,\{[\d.]+-[\d.]+:[^{}:,]+\})*$")]
    private static partial Regex Pairs();
}
