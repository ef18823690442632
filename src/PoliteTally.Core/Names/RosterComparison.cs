namespace PoliteTally.Core.Names;

/// <summary>A student as a roster file gives them.</summary>
/// <param name="Key">Tells the lines of one file apart: its row.</param>
/// <param name="Number">The student number, if given.</param>
/// <param name="Family">The family name.</param>
/// <param name="Given">The given name.</param>
/// <param name="Preferred">What they are called, if not by the given name.</param>
/// <param name="Email">The e-mail address, if given.</param>
/// <param name="Tags">Tags, separated by semicolons.</param>
/// <param name="SecondEmail">Another address to reach them or their home by, if given. Nobody is known by it.</param>
/// <param name="Phone">A telephone number, if given.</param>
public sealed record RosterEntry(
    string Key, string? Number, string Family, string Given, string? Preferred, string? Email, string Tags,
    string? SecondEmail = null, string? Phone = null);

/// <summary>What bringing in a roster would do to one student.</summary>
public enum RosterStep
{
    /// <summary>Joins the class.</summary>
    Joins,

    /// <summary>Was in the class before, and comes back.</summary>
    Returns,

    /// <summary>Stays, with something changed.</summary>
    Changes,

    /// <summary>Stays as they are.</summary>
    Stays,

    /// <summary>Is in the class and not in the file.</summary>
    Leaves,
}

/// <summary>What changes of a student: the field, what it was, what it will be.</summary>
public sealed record FieldChange(string Field, string Was, string Becomes);

/// <summary>One line of the comparison.</summary>
/// <param name="Key">The row of the file, or the id of a student who would leave.</param>
/// <param name="Step">What would happen.</param>
/// <param name="Student">The student it is about; null for one who is new to the school.</param>
/// <param name="Entry">The line of the file; null for one who would leave.</param>
/// <param name="Changes">What changes of them.</param>
public sealed record RosterCompared(
    string Key, RosterStep Step, Guid? Student, RosterEntry? Entry, IReadOnlyList<FieldChange> Changes);

/// <summary>A student of the school, as far as a roster is concerned.</summary>
/// <param name="Name">Names, number and address.</param>
/// <param name="Tags">Tags, separated by semicolons.</param>
/// <param name="InClass">Whether they are in the class now.</param>
/// <param name="WasInClass">Whether they are or ever were in the class.</param>
/// <param name="SecondEmail">Another address to reach them or their home by, if there is one.</param>
/// <param name="Phone">A telephone number, if there is one.</param>
public sealed record RosterStudent(RosterName Name, string Tags, bool InClass, bool WasInClass, string? SecondEmail = null, string? Phone = null);

/// <summary>Holds a roster file against the students there are.</summary>
public static class RosterComparison
{
    /// <summary>
    /// Compares line by line. A student is known by number, else by e-mail address, else by name among those of the class; what
    /// a file does not give is kept. Two lines never take the same student.
    /// </summary>
    /// <param name="school">Every student of the teacher.</param>
    /// <param name="file">The lines of the file, in order.</param>
    public static IReadOnlyList<RosterCompared> Of(IReadOnlyCollection<RosterStudent> school, IReadOnlyList<RosterEntry> file)
    {
        var byNumber = FirstBy(school, s => s.Name.Number);
        var byEmail = FirstBy(school, s => s.Name.Email?.ToLowerInvariant());
        var byName = school.Where(s => s.WasInClass).GroupBy(s => NameFolding.Fold($"{s.Name.Given} {s.Name.Family}"))
            .ToDictionary(g => g.Key, g => new Queue<RosterStudent>(g.OrderByDescending(s => s.InClass)));
        var taken = new HashSet<Guid>();
        var lines = new List<RosterCompared>();
        foreach (var entry in file)
        {
            var known = Known(entry);
            if (known is null || !taken.Add(known.Name.Id))
            {
                lines.Add(new RosterCompared(entry.Key, RosterStep.Joins, null, entry, []));
                continue;
            }

            var changes = Changes(known, entry);
            var step = !known.WasInClass ? RosterStep.Joins
                : !known.InClass ? RosterStep.Returns
                : changes.Count > 0 ? RosterStep.Changes
                : RosterStep.Stays;
            lines.Add(new RosterCompared(entry.Key, step, known.Name.Id, entry, changes));
        }

        return
        [
            .. lines,
            .. school.Where(s => s.InClass && !taken.Contains(s.Name.Id))
                .Select(s => new RosterCompared(s.Name.Id.ToString(), RosterStep.Leaves, s.Name.Id, null, [])),
        ];

        RosterStudent? Known(RosterEntry entry)
        {
            if (entry.Number is not null && byNumber.TryGetValue(entry.Number, out var numbered))
            {
                return numbered;
            }

            // Two different numbers are two students, whatever else they share.
            if (entry.Email is not null && byEmail.TryGetValue(entry.Email.ToLowerInvariant(), out var mailed)
                && (entry.Number is null || mailed.Name.Number is null))
            {
                return mailed;
            }

            return byName.TryGetValue(NameFolding.Fold($"{entry.Given} {entry.Family}"), out var namesakes)
                && namesakes.TryPeek(out var named)
                && (entry.Number is null || named.Name.Number is null)
                && (entry.Email is null || named.Name.Email is null)
                ? namesakes.Dequeue()
                : null;
        }
    }

    private static List<FieldChange> Changes(RosterStudent known, RosterEntry entry)
    {
        var name = known.Name;
        return [.. new[]
        {
            new FieldChange("number", name.Number ?? "", entry.Number ?? name.Number ?? ""),
            new FieldChange("family", name.Family, entry.Family),
            new FieldChange("given", name.Given, entry.Given),
            new FieldChange("preferred", name.Preferred ?? "", entry.Preferred ?? name.Preferred ?? ""),
            new FieldChange("email", name.Email ?? "", entry.Email ?? name.Email ?? ""),
            new FieldChange("secondEmail", known.SecondEmail ?? "", entry.SecondEmail ?? known.SecondEmail ?? ""),
            new FieldChange("phone", known.Phone ?? "", entry.Phone ?? known.Phone ?? ""),
            new FieldChange("tags", known.Tags, entry.Tags.Length > 0 ? entry.Tags : known.Tags),
        }.Where(c => !string.Equals(c.Was, c.Becomes, StringComparison.Ordinal))];
    }

    private static Dictionary<string, RosterStudent> FirstBy(IEnumerable<RosterStudent> school, Func<RosterStudent, string?> keyOf) =>
        school.Where(s => keyOf(s) is not null).GroupBy(s => keyOf(s)!).ToDictionary(g => g.Key, g => g.First());
}
