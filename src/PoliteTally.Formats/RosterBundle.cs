using PoliteTally.Core.Names;

namespace PoliteTally.Formats;

/// <summary>A class in a rostering bundle.</summary>
/// <param name="Id">Its id in the bundle.</param>
/// <param name="Title">What it is called there.</param>
/// <param name="Students">How many students are enrolled in it.</param>
public sealed record BundleClass(string Id, string Title, int Students);

/// <summary>
/// Reads a CSV bundle of the open rostering standard (1EdTech OneRoster 1.1 and 1.2): <c>users.csv</c>, <c>classes.csv</c> and
/// <c>enrollments.csv</c> in a zip.
/// </summary>
internal static class RosterBundle
{
    private const int MostRows = 400_000;

    private static readonly string[] Parts = ["users.csv", "classes.csv", "enrollments.csv"];

    /// <summary>Whether an archive is such a bundle.</summary>
    public static bool IsOne(byte[] bytes) =>
        Archive.IsOne(bytes) && !Archive.IsWorkbook(bytes)
        && Archive.Unpack(bytes, name => Parts.Contains(name, StringComparer.OrdinalIgnoreCase)).Count > 0;

    /// <summary>Reads the classes, and the students of the chosen one; of the only one, if there is but one.</summary>
    /// <exception cref="FormatProblem">Part of the bundle is missing or is no table.</exception>
    public static RosterPreview Read(byte[] bytes, string? chosen)
    {
        var parts = Archive.Unpack(bytes, name => Parts.Contains(name, StringComparer.OrdinalIgnoreCase))
            .DistinctBy(part => Path.GetFileName(part.Key), StringComparer.OrdinalIgnoreCase).ToDictionary(part => Path.GetFileName(part.Key), part => part.Value, StringComparer.OrdinalIgnoreCase);
        foreach (var missing in Parts.Where(p => !parts.ContainsKey(p)))
        {
            throw new FormatProblem($"The bundle lacks {missing}. Nothing was stored; ask for a bundle with {string.Join(", ", Parts)}.");
        }

        var (users, classes, enrolments) = (Rows("users.csv", "sourcedid", "givenname", "familyname"), Rows("classes.csv", "sourcedid", "title"), Rows("enrollments.csv", "classsourcedid", "usersourcedid", "role"));
        var students = enrolments.Where(e => IsActive(e) && e["role"].Equals("student", StringComparison.OrdinalIgnoreCase))
            .ToLookup(e => e["classsourcedid"], e => e["usersourcedid"], StringComparer.Ordinal);
        var found = classes.Where(IsActive)
            .Select(c => new BundleClass(c["sourcedid"], c["title"], students[c["sourcedid"]].Distinct().Count()))
            .OrderBy(c => c.Title, StringComparer.CurrentCultureIgnoreCase).ToList();
        if (found.Count == 0)
        {
            throw new FormatProblem("No class stands in classes.csv of this bundle. Nothing was stored.");
        }

        var id = chosen ?? (found is [var only] ? only.Id : null);
        if (id is not null && found.All(c => c.Id != id))
        {
            throw new FormatProblem("The chosen class is not in this bundle. Choose one from the list.");
        }

        var byId = users.Where(IsActive).GroupBy(u => u["sourcedid"]).ToDictionary(g => g.Key, g => g.First());
        var row = 0;
        var lines = id is null ? [] : students[id].Distinct().Select(student => LineOf(student, ++row)).ToList();
        return new RosterPreview([], lines, "rostering bundle", HeadingsRow: 0, HeadingsKnown: true, found, id);

        RosterRow LineOf(string student, int number)
        {
            if (!byId.TryGetValue(student, out var user))
            {
                return new RosterRow(number, null, "", "", null, null, null, null, "", [$"names the user “{student}”, who does not stand in users.csv."]);
            }

            var (given, family) = RosterName.Placed(user["givenname"], user["familyname"]);
            var preferred = user.GetValueOrDefault("preferredgivenname", "");
            return new RosterRow(
                number, Columns.OrNull(user.GetValueOrDefault("identifier", "")), family, given, preferred == given ? null : Columns.OrNull(preferred),
                Columns.OrNull(user.GetValueOrDefault("email", "")), null, PhoneOf(user), "",
                given.Length == 0 ? ["has no name. Fill it in there and take the bundle out of the other program again."] : []);
        }

        // Of the telephone numbers that the bundle has room for, the one that is answered on the way; what is none is not taken for one.
        static string? PhoneOf(Dictionary<string, string> user) =>
            new[] { "sms", "phone" }.Select(field => user.GetValueOrDefault(field, "")).FirstOrDefault(RosterFile.IsPhone);

        List<Dictionary<string, string>> Rows(string part, params string[] needed)
        {
            Table table;
            try
            {
                table = Table.Read(parts[part], heading => needed.Contains(Columns.Fold(heading)), mostRows: MostRows);
            }
            catch (FormatProblem problem)
            {
                throw new FormatProblem($"{part}: {problem.Message}");
            }

            var headings = table.Headings.Select(Columns.Fold).ToList();
            return needed.Except(headings).FirstOrDefault() is { } missing
                ? throw new FormatProblem($"{part} lacks the column {missing}. Nothing was stored.")
                : table.Rows.Select(r => headings.Zip(r.Cells).GroupBy(c => c.First).ToDictionary(c => c.Key, c => c.First().Second)).ToList()
                    .FindAll(r => needed.All(r.ContainsKey));
        }
    }

    // A bundle that only brings changes says "tobedeleted" of what is to go.
    private static bool IsActive(Dictionary<string, string> row) =>
        !row.GetValueOrDefault("status", "").Equals("tobedeleted", StringComparison.OrdinalIgnoreCase);
}
