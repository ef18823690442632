using NodaTime;
using NodaTime.Text;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Lessons;
using PoliteTally.Core.Names;

namespace PoliteTally.Core.Tests;

/// <summary>A lesson at the demo school, told in minutes: a Monday from 09:30 to 10:20.</summary>
internal static class Given
{
    public static readonly Instant Start = Instant.FromUtc(2026, 11, 23, 9, 30);
    public static readonly Instant End = Start + Duration.FromMinutes(50);
    public static readonly LessonTimes Lesson = new(Start, End, Start, End, DropIn: false);

    public static readonly Guid Juno = Id(1), Eino = Id(2), Zainab = Id(3), Cormac = Id(4), Ana = Id(5);

    public static Guid Id(int number) => new(number, 0, 0, [0, 0, 0, 0, 0, 0, 0, 0]);

    /// <summary>A moment: minutes into the lesson ("12", "-3", "12.5").</summary>
    public static Instant At(double minutes) => Start + Duration.FromSeconds(Math.Round(minutes * 60));

    private static int _next = 1000;

    public static Entry Noted(double minute, Act act, Source source = Source.Tapped) =>
        new(Id(Interlocked.Increment(ref _next)), At(minute), At(minute), source, "Tamsin Vale", act);

    public static Entry Strike(Entry entry, double minute = 49) => Noted(minute, new Struck(entry.Id));

    public static LessonState State(params IEnumerable<Entry> entries) => LessonState.Fold(entries);

    /// <summary>Sightings in short: "j0 l20 j22.5 l50" on one device, a device in front ("phone:j2"), s12 seen, m47 there for 47 min, p3 q9 page opened, closed.</summary>
    public static IReadOnlyList<Sighting> Sightings(string told)
    {
        var sightings = new List<Sighting>();
        foreach (var word in told.Split(' ', StringSplitOptions.RemoveEmptyEntries))
        {
            var (device, what) = word.Split(':') is [var d, var w] ? (d, w) : ("laptop", word);
            var minutes = double.Parse(what[1..], System.Globalization.CultureInfo.InvariantCulture);
            var entry = Id(sightings.Count + 1);
            sightings.Add(what[0] switch
            {
                'p' => new PageAt(At(minutes), entry, Opens: true),
                'q' => new PageAt(At(minutes), entry, Opens: false),
                'j' => new JoinAt(At(minutes), entry, device),
                'l' => new LeaveAt(At(minutes), entry, device),
                's' => new SeenAt(At(minutes), entry),
                _ => new PresentFor(Duration.FromMinutes(minutes), At(50), entry),
            });
        }

        return sightings;
    }

    public static AttendanceResult Attendance(
        string sightings, string marks = "", LessonTimes? lesson = null, AttendanceStatus? declared = null, string? excuse = null, MissedBy[]? lineFailed = null,
        AttendancePolicy? policy = null) => AttendanceRules.Reckon(
            lesson ?? Lesson,
            new StudentEvidence(
                Sightings(sightings),
                [.. marks.Split(' ', StringSplitOptions.RemoveEmptyEntries).Select(m => m.Split('@'))
                    .Select((m, i) => new MarkMade(
                        m[0] switch { "in" => Mark.Here, "out" => Mark.Left, var word => Enum.Parse<Mark>(word, ignoreCase: true) },
                        At(double.Parse(m[1], System.Globalization.CultureInfo.InvariantCulture)), Id(100 + i), ByRollCall: m[0] is "in" or "out"))])
            {
                Declared = declared is null ? null : new DeclaredStatus(declared.Value, Id(200)),
                Excuse = excuse is null ? null : new ExcuseGiven(excuse, Id(201)),
                LineFailed = (lineFailed ?? []).ToDictionary(m => m, _ => Id(202)),
            },
            policy ?? AttendancePolicy.Default);

    public static TurnTaken Turn(Guid student, TurnOutcome outcome = TurnOutcome.Full) => new(student, outcome, TurnOrigin.Invited);

    public static Instant Utc(string text) => InstantPattern.ExtendedIso.Parse(text).Value;

    /// <summary>The roster of Weather and Tides, as its file has it.</summary>
    public static readonly IReadOnlyList<RosterName> Roster =
    [
        .. new[]
        {
            "Ifeoma|Abernethy-Okafor|Ify|S1001|ifeoma.abernethy", "Birkir|Árnason||S1002|birkir.arnason", "Cormac|Bellweather||S1003|cormac.bellweather",
            "Rowan|Bellweather||S1004|rowan.bellweather", "Ximena|Castellanos Ruiz||S1005|ximena.castellanos", "Tiago|D'Ambrosio-Lund||S1006|tiago.dambrosio",
            "Saga|Eriksdotter||S1007|saga.eriksdotter", "Philippa|Farrow|Pip|S1008|philippa.farrow", "Wojtek|Grzelak||S1009|wojtek.grzelak",
            "Tobias|Hollis|Toby|S1010|tobias.hollis", "Meenakshi|Iyengar|Meenu|S1011|meenakshi.iyengar", "Liezel|Jansen van Wyk||S1012|liezel.jansenvanwyk",
            "Nohea|Kalaniʻōpuʻu||S1013|nohea.kalaniopuu", "Rowan|Lindqvist||S1014|rowan.lindqvist", "Catriona|MacAskill|Cat|S1015|catriona.macaskill",
            "Sipho|Mbeki-Thorne||S1016|sipho.mbekithorne", "Bảo Trâm|Nguyễn|Tram|S1017|baotram.nguyen", "Diarmuid|Ó Flannagáin||S1018|diarmuid.oflannagain",
            "Anahit|Petrosyan|Ana|S1019|anahit.petrosyan", "Juno|Quillfeather||S1020|juno.quillfeather", "Eino|Rautio||S1021|eino.rautio",
            "Ingvild|Sørbø||S1022|ingvild.sorbo", "Dewi|Suharto||S1023|dewi.suharto", "Kensa|Tremayne||S1024|kensa.tremayne",
            "Zainab|Usman||S1025|zainab.usman", "蓮|渡辺|Ren|S1026|ren.watanabe", "Barnaby|Whitlock|Barney|S1027|barnaby.whitlock", "Çağla|Yıldız||S1028|cagla.yildiz",
        }.Select((line, i) => line.Split('|') is [var given, var family, var preferred, var number, var mail]
            ? new RosterName(Id(9000 + i), given, family, preferred.Length > 0 ? preferred : null, number, $"{mail}@pupils.skerrysound.example")
            : throw new InvalidOperationException(line)),
    ];
}
