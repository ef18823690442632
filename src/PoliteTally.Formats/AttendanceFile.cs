using NodaTime;

namespace PoliteTally.Formats;

/// <summary>What the rows of an attendance list say.</summary>
public enum AttendanceShape
{
    /// <summary>A joining and a leaving time a row.</summary>
    Stretches,

    /// <summary>One event a row.</summary>
    Events,

    /// <summary>Only how long somebody was there.</summary>
    Lengths,
}

/// <summary>One row of an attendance list.</summary>
/// <param name="Person">What the list calls the person, if it has an id for them beside the name.</param>
/// <param name="Device">What it calls their connection; empty if it does not say.</param>
public readonly record struct AttendanceRow(
    int Row, string Name, string? Number, string? Email, string? Person, string Device,
    Instant? Joined, Instant? Left, Duration? Length, IReadOnlyList<string> Problems);

/// <summary>An attendance list as it would be brought in.</summary>
/// <param name="Columns">Its columns, with what they are taken for.</param>
/// <param name="Shape">What its rows say.</param>
/// <param name="NamesZone">Whether its times name their zone; if not, it has to be asked for.</param>
/// <param name="Rows">Its rows.</param>
/// <param name="Problems">What is wrong with the list as a whole.</param>
/// <param name="Remarks">What does not go together and is worth a look; it keeps nothing from being brought in.</param>
/// <param name="Unclear">What is asked about its columns before it is brought in: whoever says which column holds what has answered.</param>
public sealed record AttendancePreview(
    IReadOnlyList<Column> Columns, AttendanceShape Shape, bool NamesZone, IReadOnlyList<AttendanceRow> Rows,
    IReadOnlyList<string> Problems, IReadOnlyList<string> Unclear, IReadOnlyList<string> Remarks);

/// <summary>Reads attendance lists that meeting programs give: stretches, events or lengths, any column order and headings.</summary>
public static class AttendanceFile
{
    private const int RemarksSaid = 5;

    // Whoever joins so much before or after joins another lesson.
    private static readonly Duration AnotherTime = Duration.FromHours(6);

    // Some programs round to whole minutes, and some round up.
    private static readonly Duration Rounding = Duration.FromMinutes(1.5);

    /// <summary>Reads an attendance list.</summary>
    /// <param name="bytes">The file.</param>
    /// <param name="mapping">Which column holds what, by field; null to guess.</param>
    /// <param name="zone">The zone of times that do not name theirs.</param>
    /// <param name="lessonFrom">When the lesson was to begin.</param>
    /// <param name="lessonTo">When the lesson was to end.</param>
    /// <exception cref="FormatProblem">The file is no attendance list.</exception>
    public static AttendancePreview Read(
        byte[] bytes, IReadOnlyDictionary<string, int>? mapping, DateTimeZone zone, Instant lessonFrom, Instant lessonTo)
    {
        using var budget = ReadingBudget.Begin();
        using var room = ReadingRoom.For(bytes.Length);
        var near = lessonFrom.InZone(zone).LocalDateTime;
        var clocksGoBack = zone.GetUtcOffset(lessonFrom - AnotherTime) > zone.GetUtcOffset(lessonTo + AnotherTime);
        var table = new AttendanceTable(near, clocksGoBack).Of(bytes);
        var (fields, unclear) = mapping is null ? AttendanceColumns.Guess(table, near, clocksGoBack) : new AttendanceColumns(mapping, []);
        var columns = Columns.Describe(table, fields);
        var shape = AttendanceColumns.ShapeOf(fields);
        List<string> missing = [];
        if (!AttendanceColumns.NamePeople(fields))
        {
            missing.Add("Say which column holds the names.");
        }

        if (shape is null)
        {
            missing.Add("Say which column holds the joining times, or the minutes, or an event and its time.");
        }

        if (missing.Count > 0)
        {
            return new AttendancePreview(columns, shape ?? AttendanceShape.Stretches, NamesZone: true, [], missing, [], []);
        }

        int Place(string field) => Columns.Place(fields, field);
        var (named, mailed, number, person, device) = (Place("name"), Place("email"), Place("number"), Place("person"), Place("device"));
        var (comes, goes, time, happened, lasted) = (Place("joined"), Place("left"), Place("time"), Place("event"), Place("length"));
        var firstField = shape == AttendanceShape.Events ? "time" : "joined";
        // All joining times, then all leaving times.
        string[] cells = [.. Columns.Moments(table, fields, firstField), .. Columns.Moments(table, fields, "left")];
        var stated = fields.TryGetValue(firstField, out var column) && column < table.Headings.Count ? AttendanceColumns.OffsetIn(table.Headings[column]) : null;
        var (times, namesZone) = TimeText.Read(cells, lessonFrom, stated is { } offset ? DateTimeZone.ForOffset(offset) : zone);
        // Where some of its times lie in the lesson, those of other days belong to others.
        var isNear = times.Any(IsNear);
        var bareUnit = table.Headings.ElementAtOrDefault(lasted) is { } heading
            && heading.Contains("sec", StringComparison.OrdinalIgnoreCase) ? Duration.FromSeconds(1) : Duration.FromMinutes(1);
        var lines = Enumerable.Range(0, table.Rows.Count).Select(i => LineOf(table.Rows[i], i)).ToList();
        var differ = shape == AttendanceShape.Stretches && fields.ContainsKey("length") ? Differing(lines) : [];
        return new AttendancePreview(
            columns, shape!.Value, namesZone || stated is not null || shape == AttendanceShape.Lengths, differ.Count > 0 ? WithShorter(lines) : lines, FarFrom(lines), unclear, Totals());

        bool IsNear(Instant? at) => at > lessonFrom - AnotherTime && at < lessonTo + AnotherTime;

        AttendanceRow LineOf(TableRow row, int index)
        {
            var problems = new RowProblems(Columns.Problems(table, row));
            var email = Columns.CellOf(row, mailed);
            var name = Columns.CellOf(row, named);
            name = name.Length > 0 ? name : email;
            if (name.Length == 0)
            {
                problems.Add("has no name. Fill it in or delete the row.");
            }

            var (first, second) = (times[index], times[table.Rows.Count + index]);
            // In the hour that comes twice when clocks go back, whoever leaves before joining leaves an hour later.
            if (second < first && zone.MapLocal(second!.Value.InZone(zone).LocalDateTime) is { Count: 2 } twice && twice.Last().ToInstant() is var later && later >= first)
            {
                second = later;
            }

            var (joined, left) = (first, second);
            Duration? length = null;
            switch (shape)
            {
                case AttendanceShape.Stretches:
                    Unreadable(comes, first);
                    Unreadable(goes, second);
                    if (first is null && second is null && Columns.CellOf(row, comes).Length == 0)
                    {
                        problems.Add("has no joining time.");
                    }

                    if (second < first)
                    {
                        problems.Add("leaves before it joins. Put the times right or change the columns.");
                    }

                    break;
                case AttendanceShape.Events:
                    Unreadable(time, first);
                    var what = Columns.CellOf(row, happened);
                    var (coming, going) = AttendanceColumns.Says(what);
                    if (coming == going)
                    {
                        problems.Add($"has “{what}” for an event, which is neither joining nor leaving.");
                    }

                    (joined, left) = (coming ? first : null, going ? first : null);
                    break;
                default:
                    var cell = Columns.CellOf(row, lasted);
                    (joined, left, length) = (null, null, TimeText.Length(cell, bareUnit));
                    if (length is null)
                    {
                        problems.Add($"has “{cell}” for a length, which cannot be read. Write minutes, such as 47.");
                    }

                    break;
            }

            if (isNear && joined is not null && !IsNear(joined) && !IsNear(left ?? joined))
            {
                problems.Add(Columns.OfAnotherTime("is of", joined.Value, zone));
            }

            return new AttendanceRow(
                row.Number, name, Columns.OrNull(Columns.CellOf(row, number)), email.Contains('@') ? email : null, Columns.OrNull(Columns.CellOf(row, person)),
                Columns.CellOf(row, device), joined, left, length, problems.All);

            void Unreadable(int column, Instant? read)
            {
                var text = Columns.CellOf(row, column);
                if (read is null && text.Length > 0)
                {
                    problems.Add(Columns.Unreadable(text));
                }
            }
        }

        // Lengths beside joining and leaving that are neither that of the stay nor of all stays of the person, each with its row.
        List<(AttendanceRow Row, Duration Stated)> Differing(List<AttendanceRow> read)
        {
            var whole = read.Zip(table.Rows).Where(r => r.First is { Joined: not null, Left: not null, Problems: [] }).ToList();
            var stays = whole.GroupBy(r => r.First.Name, StringComparer.Ordinal).ToDictionary(g => g.Key, g => g.Aggregate(Duration.Zero, (sum, r) => sum + StayOf(r.First)), StringComparer.Ordinal);
            return
            [
                .. from line in whole
                   let length = TimeText.Length(Columns.CellOf(line.Second, lasted), bareUnit)
                   where length is { } said && !IsAbout(said, StayOf(line.First)) && !IsAbout(said, stays[line.First.Name])
                   select (line.First, length.Value),
            ];
        }

        // A shorter one is the time that counts: the gaps lie somewhere between.
        List<AttendanceRow> WithShorter(List<AttendanceRow> read)
        {
            var shorter = differ.Where(d => d.Stated < StayOf(d.Row)).ToDictionary(d => d.Row.Row, d => d.Stated);
            var theirs = differ.Where(d => shorter.ContainsKey(d.Row.Row)).Select(d => d.Row.Name).ToHashSet(StringComparer.Ordinal);
            return [.. read.Select(r => theirs.Contains(r.Name) && r is { Joined: not null, Left: not null } ? r with { Length = shorter.TryGetValue(r.Row, out var length) ? length : StayOf(r) } : r)];
        }

        IReadOnlyList<string> Totals()
        {
            var wrong = differ.ConvertAll(d =>
                $"Row {d.Row.Row} says {Minutes(d.Stated)} of {d.Row.Name}; from joining to leaving it is {Minutes(StayOf(d.Row))}. The shorter time counts.");
            return wrong.Count <= RemarksSaid ? wrong : [.. wrong.Take(RemarksSaid), $"The same is true of {wrong.Count - RemarksSaid} more rows."];
        }

        static Duration StayOf(AttendanceRow row) => row.Left!.Value - row.Joined!.Value;

        static bool IsAbout(Duration a, Duration b) => (a > b ? a - b : b - a) <= Rounding;

        static string Minutes(Duration length) => $"{Math.Round(length.TotalMinutes)} min";

        IReadOnlyList<string> FarFrom(List<AttendanceRow> read)
        {
            var (soonest, latest) = (lessonFrom - Duration.FromHours(1), lessonTo + Duration.FromHours(1));
            var touching = read.Exists(l => (l.Joined ?? Instant.MinValue) < lessonTo && (l.Left ?? Instant.MaxValue) > lessonFrom);
            if (touching && read.Exists(l => (l.Joined > soonest && l.Joined < latest) || (l.Left > soonest && l.Left < latest)))
            {
                return [];
            }

            var known = read.Select(l => l.Joined).Concat(read.Select(l => l.Left)).OfType<Instant>().ToList();
            return known.Count == 0
                ? []
                : [$"None of its times lie in this lesson; the first is {known.Min().InZone(zone).ToString("uuuu-MM-dd HH:mm", null)}. Is it the list of another lesson, or is the time zone another?"];
        }
    }
}
