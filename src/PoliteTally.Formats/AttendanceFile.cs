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
public sealed record AttendanceRow(
    int Row, string Name, string? Number, string? Email, string Device,
    Instant? Joined, Instant? Left, Duration? Length, IReadOnlyList<string> Problems);

/// <summary>An attendance list as it would be brought in.</summary>
/// <param name="Columns">Its columns, with what they are taken for.</param>
/// <param name="Shape">What its rows say.</param>
/// <param name="NamesZone">Whether its times name their zone; if not, it has to be asked for.</param>
/// <param name="Rows">Its rows.</param>
/// <param name="Problems">What is wrong with the list as a whole.</param>
public sealed record AttendancePreview(
    IReadOnlyList<Column> Columns, AttendanceShape Shape, bool NamesZone, IReadOnlyList<AttendanceRow> Rows,
    IReadOnlyList<string> Problems);

/// <summary>Reads attendance lists that meeting programs give: stretches, events or lengths, any column order and headings.</summary>
public static class AttendanceFile
{
    /// <summary>What a column of an attendance list can be, with the headings it goes by, the likeliest first.</summary>
    public static readonly IReadOnlyDictionary<string, string[]> Fields = new Dictionary<string, string[]>
    {
        ["joined"] = ["jointime", "joined", "joinedat", "joiningtime", "timejoined", "firstjoin", "join", "entered", "enteredat", "from", "start", "starttime", "in", "beitritt", "arrivée", "entrada", "arrival"],
        ["left"] = ["leavetime", "left", "leftat", "leavingtime", "timeleft", "timeexited", "lastleave", "leave", "exited", "exitedat", "to", "end", "endtime", "out", "verlassen", "départ", "salida", "departure"],
        ["event"] = ["event", "action", "activity", "useraction", "what", "status", "ereignis"],
        ["time"] = ["time", "timestamp", "at", "when", "datetime", "eventtime", "zeit"],
        ["length"] = ["duration", "durationminutes", "durationmin", "minutes", "min", "timeinmeeting", "inmeetingduration", "attendanceduration", "totalduration", "totaldurationminutes", "durationseconds", "seconds", "dauer", "durée", "length", "mins", "timeinlesson"],
        ["name"] = ["name", "fullname", "displayname", "participant", "participantname", "participants", "nameoriginalname", "username", "attendee", "student", "who", "teilnehmer", "nom", "nombre", "screenname"],
        ["email"] = ["email", "emailaddress", "useremail", "mail", "participantid", "upn"],
        ["number"] = ["studentnumber", "studentid", "pupilnumber", "number"],
        ["device"] = ["device", "connection", "client", "session", "sessionid", "connectionid"],
    };

    private static readonly HashSet<string> Words = [.. Fields.Values.SelectMany(w => w)];

    private static readonly string[] ComingWords = ["join", "joined", "enter", "entered", "in", "arrived", "connected", "beigetreten", "came in"];

    private static readonly string[] GoingWords = ["leave", "left", "exit", "exited", "out", "departed", "disconnected", "verlassen", "went out"];

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
        var table = Table.Read(bytes, cell => Words.Contains(Columns.Fold(cell)));
        var fields = mapping ?? Columns.Guess(table.Headings, Fields);
        var columns = Columns.Describe(table, fields);
        AttendanceShape? shape = fields.ContainsKey("joined") ? AttendanceShape.Stretches
            : fields.ContainsKey("event") && fields.ContainsKey("time") ? AttendanceShape.Events
            : fields.ContainsKey("length") ? AttendanceShape.Lengths
            : null;
        List<string> missing = [];
        if (!fields.ContainsKey("name") && !fields.ContainsKey("email"))
        {
            missing.Add("Say which column holds the names.");
        }

        if (shape is null)
        {
            missing.Add("Say which column holds the joining times, or the minutes, or an event and its time.");
        }

        if (missing.Count > 0)
        {
            return new AttendancePreview(columns, shape ?? AttendanceShape.Stretches, NamesZone: true, [], missing);
        }

        var near = lessonFrom.InZone(zone).LocalDateTime;
        var firstField = shape == AttendanceShape.Events ? "time" : "joined";
        var cells = table.Rows.SelectMany(r => new[] { Columns.Cell(r, fields, firstField), Columns.Cell(r, fields, "left") }).ToList();
        var (times, namesZone) = TimeText.Read(cells, near, zone);
        var bareUnit = table.Headings.ElementAtOrDefault(fields.GetValueOrDefault("length", -1)) is { } heading
            && heading.Contains("sec", StringComparison.OrdinalIgnoreCase) ? Duration.FromSeconds(1) : Duration.FromMinutes(1);
        var lines = table.Rows.Select((row, i) => LineOf(row, i)).ToList();
        return new AttendancePreview(columns, shape!.Value, namesZone || shape == AttendanceShape.Lengths, lines, FarFrom(lines));

        AttendanceRow LineOf(TableRow row, int index)
        {
            var problems = Columns.Problems(table, row).ToList();
            var email = Columns.Cell(row, fields, "email");
            var name = Columns.Cell(row, fields, "name");
            name = name.Length > 0 ? name : email;
            if (name.Length == 0)
            {
                problems.Add("has no name. Fill it in or delete the row.");
            }

            var (first, second) = (times[2 * index], times[(2 * index) + 1]);
            var (joined, left) = (first, second);
            Duration? length = null;
            switch (shape)
            {
                case AttendanceShape.Stretches:
                    Unreadable("joined", first);
                    Unreadable("left", second);
                    if (first is null && second is null && Columns.Cell(row, fields, "joined").Length == 0)
                    {
                        problems.Add("has no joining time.");
                    }

                    if (second < first)
                    {
                        problems.Add("leaves before it joins. Put the times right or change the columns.");
                    }

                    break;
                case AttendanceShape.Events:
                    Unreadable("time", first);
                    var what = Columns.Cell(row, fields, "event").ToLowerInvariant();
                    var (coming, going) = (Says(what, ComingWords), Says(what, GoingWords));
                    if (coming == going)
                    {
                        problems.Add($"has “{what}” for an event, which is neither joining nor leaving.");
                    }

                    (joined, left) = (coming ? first : null, going ? first : null);
                    break;
                default:
                    var cell = Columns.Cell(row, fields, "length");
                    (joined, left, length) = (null, null, TimeText.Length(cell, bareUnit));
                    if (length is null)
                    {
                        problems.Add($"has “{cell}” for a length, which cannot be read. Write minutes, such as 47.");
                    }

                    break;
            }

            return new AttendanceRow(
                row.Number, name, Columns.OrNull(Columns.Cell(row, fields, "number")), email.Contains('@') ? email : null,
                Columns.Cell(row, fields, "device"), joined, left, length, problems);

            void Unreadable(string field, Instant? read)
            {
                var text = Columns.Cell(row, fields, field);
                if (read is null && text.Length > 0)
                {
                    problems.Add($"has the time “{text}”, which cannot be read. Write it as 2026-11-23 09:31:00.");
                }
            }
        }

        IReadOnlyList<string> FarFrom(List<AttendanceRow> read)
        {
            var known = read.SelectMany(l => new[] { l.Joined, l.Left }).Where(t => t is not null).Select(t => t!.Value).ToList();
            var touching = read.Any(l => (l.Joined ?? Instant.MinValue) < lessonTo && (l.Left ?? Instant.MaxValue) > lessonFrom);
            return known.Count == 0 || (touching && known.Exists(t => t > lessonFrom - Duration.FromHours(1) && t < lessonTo + Duration.FromHours(1)))
                ? []
                : [$"None of its times lie in this lesson; the first is {known.Min().InZone(zone).ToString("uuuu-MM-dd HH:mm", null)}. Is it the list of another lesson, or is the time zone another?"];
        }
    }

    private static bool Says(string text, string[] words) =>
        words.Any(w => text == w || text.Split(' ', StringSplitOptions.RemoveEmptyEntries).Contains(w));
}
