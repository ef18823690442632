using NodaTime;
using PoliteTally.Core.Board;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Scoring;
using PoliteTally.Core.Text;

namespace PoliteTally.Core.GroundRules;

/// <summary>
/// The ground rules of a class: how it counts, what earns a nod, what yes and no look like, what to remember. A lesson
/// follows those of its class but for what it changes itself.
/// </summary>
public sealed record ClassRules
{
    /// <summary>The defaults.</summary>
    public static readonly ClassRules Default = new();

    /// <summary>The most reasons for nods: 5, one for each of their keys on the live sheet.</summary>
    public const int MostNodReasons = 5;

    /// <summary>The most lines of any list here: 20.</summary>
    public const int MostLines = 20;

    /// <summary>The longest line of any list here, in UTF-16 code units: 120.</summary>
    public const int LongestLine = 120;

    /// <summary>The longest rubric or message, in UTF-16 code units: 10,000.</summary>
    public const int LongestText = 10_000;

    /// <summary>How the class counts and scores.</summary>
    public Scheme Scheme { get; init; } = Scheme.Default;

    /// <summary>Whether somebody who writes "ready" in the chat joins the hand line. On.</summary>
    public bool ReadyJoinsLine { get; init; } = true;

    /// <summary>Whether a student may come to the student page with the code of the lesson and a name, to be let in by the teacher. Off.</summary>
    public bool PageByName { get; init; }

    /// <summary>Whether students see on their page what has been noted of themselves today. Off.</summary>
    public bool PageShowsStrokes { get; init; }

    /// <summary>Whether students who came with their pass read their own scores on the student page, and may say what is wrong in them. Off.</summary>
    public bool PageShowsScores { get; init; }

    /// <summary>Whether students may give a signal of the class on their page at any time, not only in a signal round. Off.</summary>
    public bool SignalsAnyTime { get; init; }

    /// <summary>Whether a student whose turn it is may hand on to another on their page. Off.</summary>
    public bool StudentsHandOn { get; init; }

    /// <summary>The tag of students who have extra time.</summary>
    public const string ExtraTimeTag = "extra time";

    /// <summary>By how much of a question's time it is longer for whoever has extra time, from 0 to 3. 0.5.</summary>
    public decimal ExtraTimeShare { get; init; } = 0.5m;

    /// <summary>Reasons for nods, from one to <see cref="MostNodReasons"/>, in the order of their keys.</summary>
    public IReadOnlyList<string> NodReasons { get; init; } = ["helped someone", "kept going", "on time"];

    /// <summary>Whether the class sees nods on its board, and each student their own on the student page. Never, until the class has agreed.</summary>
    public NodsOnBoard NodsOnBoard { get; init; }

    /// <summary>The gestures that the class has agreed on.</summary>
    public IReadOnlyList<AgreedSignal> Signals { get; init; } =
    [
        new("yes", "a thumb held up to the camera"),
        new("no", "a flat hand across the camera"),
        new("not sure", "a hand on the head"),
    ];

    /// <summary>What good taking part looks like, in the teacher's own words. Markdown; empty if there is none.</summary>
    public string Rubric { get; init; } = "";

    /// <summary>What to remember before the start, in order.</summary>
    public IReadOnlyList<string> BeforeStart { get; init; } =
        ["Close private windows", "Start the recording", "Read the recording notice"];

    /// <summary>What to remember before the end, in order.</summary>
    public IReadOnlyList<string> BeforeEnd { get; init; } = ["Stop the recording", "End the meeting for everyone"];

    /// <summary>
    /// What is read aloud to the class, by the reminder that it belongs to: the notice that the lesson is recorded. Words of a line that is no reminder any more are not read.
    /// </summary>
    public IReadOnlyDictionary<string, string> ReadAloud { get; init; } = new Dictionary<string, string>();

    /// <summary>The longest words to read aloud, in UTF-16 code units: 2,000, about two minutes.</summary>
    public const int LongestReadAloud = TextLimits.LongestText;

    /// <summary>The message that goes to the class before a lesson.</summary>
    public WordAhead WordAhead { get; init; } = new();

    /// <summary>From how long on what somebody was heard to say, and nobody noted, is proposed as a turn; from 0 to 600 s. 20 s.</summary>
    public Duration SpeechFrom { get; init; } = Duration.FromSeconds(20);

    /// <summary>Whether the words of captions are kept with who spoke and for how long. Not, at first: a lesson is no place to be recorded unasked.</summary>
    public bool KeepsSpoken { get; init; }

    /// <summary>How the school wants the registers of the class.</summary>
    public RegisterRules Register { get; init; } = new();

    /// <summary>
    /// What is wrong with these rules, each with its place and what it may be; empty if nothing is. Rules that are wrong are
    /// never stored.
    /// </summary>
    public IReadOnlyList<string> Problems()
    {
        return [.. Scheme.Problems(), .. new (bool Wrong, string Message)[]
        {
            (SpeechFrom.TotalSeconds is < 0 or > 600, "Speech that may be a turn: from 0 to 600 s."),
            (ExtraTimeShare is < 0 or > 3, "Extra time: from 0 to 300 % more."),
            (NodReasons.Count is < 1 or > MostNodReasons, $"Reasons for nods: from 1 to {MostNodReasons}."),
            (NodReasons.Select(r => r.Trim()).Distinct(StringComparer.OrdinalIgnoreCase).Count() < NodReasons.Count, "Reasons for nods: each only once."),
            (NodReasons.Any(IsNoLine), NoLine("Reasons for nods")),
            (Signals.Count > MostLines, $"Agreed signals: at most {MostLines}."),
            (Signals.Any(s => IsNoLine(s.Meaning) || IsNoLine(s.Gesture)), NoLine("Agreed signals")),
            (BeforeStart.Count > MostLines || BeforeEnd.Count > MostLines, $"Reminders: at most {MostLines} in a list."),
            (BeforeStart.Concat(BeforeEnd).Any(IsNoLine), NoLine("Reminders")),
            (BeforeStart.Concat(BeforeEnd).Distinct(StringComparer.Ordinal).Count() < BeforeStart.Count + BeforeEnd.Count, "Reminders: each only once."),
            (ReadAloud.Count > 2 * MostLines || ReadAloud.Keys.Any(IsNoLine), "Words to read aloud: one text for each reminder."),
            (ReadAloud.Values.Any(w => w.Length > LongestReadAloud || !CleanText.IsClean(w)), $"Words to read aloud: at most {LongestReadAloud:N0} characters, all of which can be shown."),
            (Rubric.Length > LongestText, $"The rubric: at most {LongestText:N0} characters."),
        }.Where(p => p.Wrong).Select(p => p.Message), .. WordAhead.Problems(), .. Register.Problems()];
    }

    private static bool IsNoLine(string line) => line.Trim().Length == 0 || line.Length > LongestLine || line.Any(char.IsControl);

    private static string NoLine(string where) => $"{where}: no line may be empty, longer than {LongestLine} characters or broken.";
}

/// <summary>A gesture that a class has agreed on.</summary>
/// <param name="Meaning">What it says, such as "yes".</param>
/// <param name="Gesture">What it looks like on camera.</param>
public sealed record AgreedSignal(string Meaning, string Gesture);
