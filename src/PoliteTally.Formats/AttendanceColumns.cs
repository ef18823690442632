using System.Text.RegularExpressions;
using NodaTime;
using PoliteTally.Core.Text;

namespace PoliteTally.Formats;

/// <summary>Which column of an attendance list holds what: by its heading, else by what stands in it.</summary>
/// <param name="Fields">The column of each field.</param>
/// <param name="Unclear">What the teacher is asked before the list is read so; empty if nothing is.</param>
internal sealed partial record AttendanceColumns(IReadOnlyDictionary<string, int> Fields, IReadOnlyList<string> Unclear)
{
    /// <summary>What a column can be, with the headings it goes by, the likeliest first.</summary>
    public static readonly IReadOnlyDictionary<string, string[]> Headings = new Dictionary<string, string[]>
    {
        ["joined"] = ["jointime", "joined", "joinedat", "joiningtime", "timejoined", "firstjoin", "join", "entered", "enteredat", "entrytime", "timein", "from", "start", "starttime", "in", "beitritt", "beitrittszeit", "arrivée", "entrada", "arrival", "arrivaltime"],
        ["left"] = ["leavetime", "left", "leftat", "leavingtime", "timeleft", "timeexited", "lastleave", "leave", "exited", "exitedat", "exittime", "timeout", "to", "end", "endtime", "out", "verlassen", "départ", "salida", "departure", "departuretime"],
        ["event"] = ["event", "action", "activity", "useraction", "what", "status", "ereignis", "aktion", "acción", "état"],
        ["time"] = ["time", "timestamp", "at", "when", "datetime", "eventtime", "zeit", "zeitpunkt", "hora", "heure"],
        ["date"] = ["date", "day", "datum", "fecha", "jour"],
        ["length"] = ["duration", "durationminutes", "durationmin", "minutes", "min", "timeinmeeting", "inmeetingduration", "attendanceduration", "totalduration", "totaldurationminutes", "durationseconds", "seconds", "dauer", "durée", "length", "mins", "timeinlesson"],
        ["name"] = ["name", "fullname", "displayname", "participant", "participantname", "participants", "nameoriginalname", "username", "attendee", "student", "who", "teilnehmer", "nom", "nombre", "screenname"],
        ["email"] = ["email", "emailaddress", "useremail", "mail", "upn"],
        ["number"] = ["studentnumber", "studentid", "pupilnumber", "number"],
        ["person"] = ["participantid", "userid", "personid", "attendeeid", "accountid"],
        ["device"] = ["device", "connection", "client", "session", "sessionid", "connectionid"],
    };

    private static readonly HashSet<string> HeadingWords = [.. Headings.Values.SelectMany(w => w)];

    private static readonly List<string> OfPresence = ["joined", "left", "event", "length"];

    // An event is a word or a short sentence.
    private const int LongestEvent = 100;

    // Lengths are rounded to minutes.
    private const long Rounded = 3 * NodaConstants.TicksPerMinute / 2;

    private static readonly int[] Changes = [0, 1, -1];
    private static readonly (int From, int To, int Length)[] Orders = [(0, 1, 2), (1, 2, 0), (0, 2, 1)];
    private static readonly string[] Times = ["joined", "left", "time"];
    private static readonly string[] ComingWords = ["join", "joined", "joins", "enter", "entered", "in", "arrived", "connected", "online", "beigetreten", "betreten", "gekommen", "came in", "came", "rejoint", "entré", "entrée", "arrivé", "arrivée", "entró", "entrou", "unió", "kom", "tiltrådte", "anslöt", "liittyi", "saapui", "entrato", "dołączył", "dołączyła", "вошел", "вошла", "加入"];
    private static readonly string[] GoingWords = ["leave", "left", "leaves", "exit", "exited", "out", "departed", "disconnected", "offline", "verlassen", "went out", "went", "gone", "gegangen", "quitté", "sorti", "sortie", "parti", "partie", "salió", "saiu", "gik", "gikk", "gick", "forlod", "forlot", "lämnade", "fór", "poistui", "lähti", "uscito", "opuścił", "opuściła", "вышел", "вышла", "离开"];

    /// <summary>Whether a cell is a heading that such lists have, whatever zone stands beside it.</summary>
    public static bool IsHeading(string cell) => HeadingWords.Contains(Known(cell));

    /// <summary>Whether a heading is one of comings, goings or lengths, and of nothing else.</summary>
    public static bool IsOfPresence(string heading) => Known(heading) is var known && OfPresence.Exists(f => Headings[f].Contains(known));

    /// <summary>Whether moments are among the fields of a table.</summary>
    public static bool HasTimes(IReadOnlyDictionary<string, int> fields) => Times.Any(fields.ContainsKey);

    /// <summary>What the rows of a table say, by what is known of its columns; null if they do not say when, or how long, anybody was there.</summary>
    public static AttendanceShape? ShapeOf(IReadOnlyDictionary<string, int> fields) =>
        fields.ContainsKey("joined") ? AttendanceShape.Stretches
        : fields.ContainsKey("event") && fields.ContainsKey("time") ? AttendanceShape.Events
        : fields.ContainsKey("length") ? AttendanceShape.Lengths
        : null;

    /// <summary>Whether it is known of whom a table tells.</summary>
    public static bool NamePeople(IReadOnlyDictionary<string, int> fields) => fields.ContainsKey("name") || fields.ContainsKey("email");

    /// <summary>Whether an event is a coming or a going, in words; neither and both are unclear.</summary>
    public static (bool Coming, bool Going) Says(string what)
    {
        if (what.Length > LongestEvent)
        {
            return (false, false);
        }

        var text = what.ToLowerInvariant();
        var words = text.Split(' ', StringSplitOptions.RemoveEmptyEntries);
        return (Has(ComingWords), Has(GoingWords));

        bool Has(string[] said) => said.Any(w => text == w || words.Contains(w));
    }

    /// <summary>The offset from UTC that a heading names, as in “Joined (UTC+1)” or “at_utc”; null if it names none.</summary>
    public static Offset? OffsetIn(string heading)
    {
        if (ZoneWords().Match(Digits.Plain(heading)) is not { Success: true } zone)
        {
            return null;
        }

        var hours = zone.Groups["hours"] is { Success: true } h ? int.Parse(h.Value, System.Globalization.CultureInfo.InvariantCulture) : 0;
        var minutes = zone.Groups["minutes"] is { Success: true } m ? int.Parse(m.Value, System.Globalization.CultureInfo.InvariantCulture) : 0;
        return hours > 14 || minutes > 59 ? null : Offset.FromSeconds((zone.Groups["sign"].Value is "-" or "−" ? -1 : 1) * ((hours * 3600) + (minutes * 60)));
    }

    /// <summary>Guesses the columns of a table.</summary>
    /// <param name="table">The table.</param>
    /// <param name="near">When the lesson was to begin, in the zone of its times.</param>
    /// <param name="clocksGoBack">Whether an hour of the lesson comes twice.</param>
    public static AttendanceColumns Guess(Table table, LocalDateTime near, bool clocksGoBack)
    {
        var fields = new Dictionary<string, int>(Columns.Guess([.. table.Headings.Select(Known)], Headings));
        var holds = table.Headings.Select((_, column) => CellContent.Of(table, column, near)).ToList();
        // “Time in” can be a moment or a length.
        foreach (var field in Times.Where(f => fields.TryGetValue(f, out var at) && holds[at] == Holds.Lengths))
        {
            fields.Remove(field, out var column);
            fields.TryAdd("length", column);
        }

        // An id of the person may be their address.
        if (fields.TryGetValue("person", out var person) && holds[person] == Holds.Addresses && fields.TryAdd("email", person))
        {
            fields.Remove("person");
        }

        List<int> Free(Holds what) => [.. Enumerable.Range(0, holds.Count).Where(c => holds[c] == what && !fields.ContainsValue(c))];

        Take("date", Free(Holds.Dates));
        Take("email", Free(Holds.Addresses));
        Take("name", [.. Free(Holds.Texts).OrderByDescending(c => table.Rows.Take(CellContent.Looked).Select(r => Columns.CellOf(r, c)).Distinct().Count())]);
        var moments = Free(Holds.Times);
        if (!fields.ContainsKey("joined") && !fields.ContainsKey("left"))
        {
            Take("event", Free(Holds.Actions) is [var action] ? [action] : []);
            Take("time", fields.ContainsKey("event") && moments is [var when] ? [when] : []);
        }

        moments = Free(Holds.Times);
        List<string> unclear = [];
        if (!fields.ContainsKey("joined") && !(fields.ContainsKey("event") && fields.ContainsKey("time")))
        {
            TakeMoments();
        }

        // Of a heading in words that are not known here: a time that is never before the joining is the leaving.
        if (!fields.ContainsKey("left") && fields.TryGetValue("joined", out var comes) && unclear.Count == 0 && Free(Holds.Times) is { Count: > 0 } free)
        {
            fields["left"] = free[0];
            if (free.Count > 1 || !IsBefore(comes, free[0]))
            {
                unclear.Add($"{Named(free)} times, and it is not clear of what: “{Columns.TitleOf(table, free[0])}” is taken for when somebody left.");
            }
        }

        Take("length", Free(Holds.Lengths));
        // “seconds_in_call” may have numbers without a unit below; but “hours of daylight” are an answer.
        if (ShapeOf(fields) is null && Enumerable.Range(0, holds.Count).Where(c => !fields.ContainsValue(c) && TellsLength(table.Headings[c]) && HoldsNumbers(c)).Select(c => (int?)c).FirstOrDefault() is { } numbers)
        {
            fields["length"] = numbers;
            unclear.Add($"“{Columns.TitleOf(table, numbers)}” is taken for how long somebody was there.");
        }

        if (!Times.Any(fields.ContainsKey))
        {
            fields.Remove("date");
        }

        return new AttendanceColumns(fields, unclear);

        bool HoldsNumbers(int column) => CellContent.Cells(table, column) is { Count: > 0 } cells && cells.TrueForAll(n => TimeText.Length(n, Duration.FromMinutes(1)) is not null);

        void Take(string field, List<int> columns)
        {
            if (columns.Count > 0)
            {
                fields.TryAdd(field, columns[0]);
            }
        }

        void TakeMoments()
        {
            // A time that stands under “time” without an event is a moment like any other.
            List<int> all = [.. (fields.Remove("time", out var bare) ? moments.Append(bare) : moments).Order()];
            switch (all)
            {
                case []:
                    break;
                case [var joined] when fields.ContainsKey("left"):
                    fields["joined"] = joined;
                    break;
                case [var first, var second] when !fields.ContainsKey("left") && IsBefore(first, second):
                    (fields["joined"], fields["left"]) = (first, second);
                    break;
                case [_, _, _] when !fields.ContainsKey("left") && !fields.ContainsKey("length") && StayIn(all) is var (from, to, lasted):
                    (fields["joined"], fields["left"], fields["length"]) = (from, to, lasted);
                    break;
                default:
                    fields["joined"] = all[0];
                    unclear.Add(all.Count == 1
                        ? $"{Named(all)} times, and it is not clear of what: it is taken for when somebody joined."
                        : $"{Named(all)} times, and it is not clear of what: “{Columns.TitleOf(table, all[0])}” is taken for when somebody joined.");
                    break;
            }
        }

        bool IsBefore(int first, int second)
        {
            var pairs = table.Rows.Take(CellContent.Looked).Select(r => (A: TimeText.Sortable(Columns.CellOf(r, first), near), B: TimeText.Sortable(Columns.CellOf(r, second), near)))
                .Where(p => p is { A: not null, B: not null }).ToList();
            return pairs.Count > 0 && pairs.Count(p => p.A <= (clocksGoBack ? p.B!.Value.PlusHours(1) : p.B)) >= CellContent.Most * pairs.Count;
        }

        // Of three times one may be how long it was between the two others, over midnight and a change of the clocks, too.
        (int From, int To, int Length)? StayIn(List<int> three)
        {
            var rows = table.Rows.Take(CellContent.Looked).Select(r => three.Select(c => TimeText.Sortable(Columns.CellOf(r, c), near)?.TimeOfDay).ToList()).Where(r => !r.Contains(null)).ToList();
            foreach (var (from, to, lasted) in Orders)
            {
                if (rows.Count > 0 && rows.Count(r => Array.Exists(Changes, change => IsStay(r[from]!.Value, r[to]!.Value, r[lasted]!.Value, change))) >= CellContent.Most * rows.Count)
                {
                    return (three[from], three[to], three[lasted]);
                }
            }

            return null;
        }

        static bool IsStay(LocalTime from, LocalTime to, LocalTime lasted, int change)
        {
            var apart = Math.Abs(((to.TickOfDay - from.TickOfDay + (change * NodaConstants.TicksPerHour) + NodaConstants.TicksPerDay) % NodaConstants.TicksPerDay) - lasted.TickOfDay);
            return apart <= Rounded;
        }

        string Named(List<int> columns) => $"{string.Join(" and ", columns.Select(c => $"“{Columns.TitleOf(table, c)}”"))} {(columns.Count == 1 ? "holds" : "hold")}";
    }

    // How long something lasted, in words of several languages; not how late somebody came.
    private static bool TellsLength(string heading) => LengthWords().IsMatch(heading.Replace('_', ' ')) && !LateWords().IsMatch(heading);

    private static string Known(string heading) => Columns.Fold(ZoneWords().Replace(heading, ""));

    [GeneratedRegex(@"\b(?:seconds?|secs?|minutes?|mins?|hours?|duration|sekunden|minuten|stunden|dauer|durée|minutos|segundos|duración|minutter|minuter|varaktighed|varighet|kesto|lengd)\b", RegexOptions.IgnoreCase)]
    private static partial Regex LengthWords();

    [GeneratedRegex(@"late|delay|verspät|retard|tarde|sen|forsink|myöh|seint", RegexOptions.IgnoreCase)]
    private static partial Regex LateWords();

    [GeneratedRegex(@"[\s_(\[]*(?<![a-z])(?:utc|gmt)(?![a-z])\s*(?:(?<sign>[+\-−])\s*(?<hours>[0-9]{1,2})(?::?(?<minutes>[0-9]{2}))?)?[\s)\]]*", RegexOptions.IgnoreCase)]
    private static partial Regex ZoneWords();
}
