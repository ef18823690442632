using System.Globalization;
using System.IO.Compression;
using NodaTime;

namespace PoliteTally.Formats;

/// <summary>Scores of a class, to be taken to any program that reads the open grade book standard.</summary>
/// <param name="ClassId">The id of the class.</param>
/// <param name="SchoolId">The id of the school.</param>
/// <param name="Items">What is scored.</param>
/// <param name="Results">The scores.</param>
/// <param name="Scale">Named ranges of scores; null if there are none.</param>
public sealed record GradeBundle(string ClassId, string SchoolId, IReadOnlyList<GradedItem> Items, IReadOnlyList<GradedResult> Results, GradeScale? Scale)
{
    private const string Category = "participation";

    // The parts of a bundle by the standard; those of the roster are the school's own to send.
    private static readonly string[] Others =
    [
        "academicSessions", "classResources", "classes", "courseResources", "courses", "demographics", "enrollments", "lineItemLearningObjectiveIds", "orgs", "resources",
        "resultLearningObjectiveIds", "roles", "userProfiles", "userResources", "users",
    ];

    /// <summary>
    /// Writes a bulk CSV bundle (1EdTech OneRoster 1.2, CSV binding, grade book): <c>categories</c>, <c>lineItems</c>, <c>results</c>, and for bands <c>scoreScales</c> and what
    /// has one; and no users or classes, since in bulk they would take the place of those that the reader has.
    /// </summary>
    public byte[] Write()
    {
        string[] parts = ["categories", "lineItems", "results", .. Scale is null ? Array.Empty<string>() : ["scoreScales", "lineItemScoreScales", "resultScoreScales"]];
        using var bytes = new MemoryStream();
        using (var zip = new ZipArchive(bytes, ZipArchiveMode.Create, leaveOpen: true))
        {
            string[][] manifest =
            [
                ["manifest.version", "1.0"], ["oneroster.version", "1.2"],
                .. parts.Select(p => (Part: p, How: "bulk")).Concat(Others.Select(p => (Part: p, How: "absent")))
                    .Concat(Scale is null ? new[] { "scoreScales", "lineItemScoreScales", "resultScoreScales" }.Select(p => (Part: p, How: "absent")) : [])
                    .OrderBy(p => p.Part, StringComparer.Ordinal).Select(p => new[] { $"file.{p.Part}", p.How }),
                ["source.systemName", "Polite Tally"], ["source.systemCode", "polite-tally"],
            ];
            Put(zip, "manifest", ["propertyName", "value"], manifest);
            Put(zip, "categories", ["sourcedId", "status", "dateLastModified", "title", "weight"], [[CategoryId, "", "", "Participation", ""]]);
            Put(
                zip, "lineItems",
                [
                    "sourcedId", "status", "dateLastModified", "title", "description", "assignDate", "dueDate", "classSourcedId", "categorySourcedId", "gradingPeriodSourcedId",
                    "academicSessionSourcedId", "schoolSourcedId", "resultValueMin", "resultValueMax",
                ],
                Items.Select(i => (string[])[i.Id, "", "", i.Title, i.Description, Day(i.Day), Day(i.Day), ClassId, CategoryId, "", "", SchoolId, "0", "100"]));
            Put(
                zip, "results",
                [
                    "sourcedId", "status", "dateLastModified", "lineItemSourcedId", "studentSourcedId", "scoreStatus", "score", "scoreDate", "comment", "textScore", "classSourcedId",
                    "inProgress", "incomplete", "late", "missing",
                ],
                Results.Select(r => (string[])
                [
                    r.Id, "", "", r.Item, r.Student, r.Score is null ? "exempt" : "fully graded", r.Score?.ToString(CultureInfo.InvariantCulture) ?? "", Day(r.Day), r.Comment, r.Band, ClassId,
                    "false", "false", "false", "false",
                ]));
            if (Scale is not null)
            {
                Put(
                    zip, "scoreScales", ["sourcedId", "status", "dateLastModified", "title", "type", "courseSourcedId", "classSourcedId", "scoreScaleValue"],
                    [[Scale.Id, "", "", "Bands", "range", "", ClassId, Scale.Value]]);
                Put(
                    zip, "lineItemScoreScales", ["sourcedId", "status", "dateLastModified", "lineItemSourcedId", "scoreScaleSourcedId"],
                    Items.Where(i => i.HasScale).Select(i => (string[])[$"{i.Id}-scale", "", "", i.Id, Scale.Id]));
                Put(
                    zip, "resultScoreScales", ["sourcedId", "status", "dateLastModified", "resultSourcedId", "scoreScaleSourcedId"],
                    Results.Where(r => r.Band.Length > 0).Select(r => (string[])[$"{r.Id}-scale", "", "", r.Id, Scale.Id]));
            }
        }

        return bytes.ToArray();
    }

    private string CategoryId => $"{ClassId}-{Category}";

    private static string Day(LocalDate day) => day.ToString("uuuu-MM-dd", CultureInfo.InvariantCulture);

    private static void Put(ZipArchive zip, string part, IReadOnlyList<string> headings, IEnumerable<IReadOnlyList<string>> rows)
    {
        using var stream = zip.CreateEntry($"{part}.csv").Open();
        stream.Write(SafeCsv.Write(headings, rows, mark: false));
    }
}

/// <summary>Something that is scored: a lesson, or the term.</summary>
/// <param name="HasScale">Whether its scores are named by the scale.</param>
public sealed record GradedItem(string Id, string Title, string Description, LocalDate Day, bool HasScale);

/// <summary>The score of a student in it.</summary>
/// <param name="Score">From 0 to 100; null if it does not count for them.</param>
/// <param name="Comment">What is to be known of it.</param>
/// <param name="Band">The name of the range it is in; empty for none.</param>
public sealed record GradedResult(string Id, string Item, string Student, decimal? Score, LocalDate Day, string Comment, string Band);

/// <summary>Named ranges of scores, the lowest first.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Ranges">The lowest and the highest score of each, and its name.</param>
public sealed record GradeScale(string Id, IReadOnlyList<(decimal From, decimal To, string Name)> Ranges)
{
    /// <summary>As the standard writes it: pairs of a range and its name.</summary>
    internal string Value => string.Join(',', Ranges.Select(r => string.Create(CultureInfo.InvariantCulture, $"{{{r.From}-{r.To}:{Plain(r.Name)}}}")));

    // These separate the pairs.
    private static string Plain(string name) => string.Concat(name.Select(c => c is '{' or '}' or ':' or ',' ? ' ' : c)).Trim();
}
