using System.Text.RegularExpressions;
using NodaTime;
using PoliteTally.Core.Text;

namespace PoliteTally.Core.GroundRules;

/// <summary>What a message ahead of a lesson can speak of.</summary>
/// <param name="Name">What the student is called.</param>
/// <param name="Class">The name of the class.</param>
/// <param name="Title">What the lesson is about.</param>
/// <param name="Day">The day in words.</param>
/// <param name="Time">The time of its start in the zone of the school.</param>
/// <param name="Link">The way into the meeting; empty if there is none.</param>
/// <param name="Teacher">The teacher's name.</param>
public sealed record WordFacts(string Name, string Class, string Title, string Day, string Time, string Link, string Teacher);

/// <summary>The message that goes to the students of a class before a lesson.</summary>
public sealed partial record WordAhead
{
    /// <summary>Whether it goes out by itself. Off.</summary>
    public bool On { get; init; }

    /// <summary>How long before the start it goes, from 1 to 1,440 min. 10 min.</summary>
    public Duration Ahead { get; init; } = Duration.FromMinutes(10);

    /// <summary>Its subject; may hold the names of facts in braces.</summary>
    public string Subject { get; init; } = "{class} at {time}: {title}";

    /// <summary>Its text; may hold the names of facts in braces.</summary>
    public string Text { get; init; } =
        "Hello {name},\n\nour lesson “{title}” starts at {time}. The door opens five minutes before.\n\n{link}\n\nSee you there,\n{teacher}\n";

    /// <summary>The names that may stand in braces.</summary>
    public static IReadOnlyList<string> FactNames { get; } = ["name", "class", "title", "day", "time", "link", "teacher"];

    /// <summary>When it is due for a lesson that starts then.</summary>
    public Instant DueAt(Instant start) => start - Ahead;

    /// <summary>Whether it goes now: it is due, and the lesson has not come yet.</summary>
    public bool GoesNow(Instant start, Instant now) => On && DueAt(start) <= now && now < start;

    /// <summary>The subject for one student, on one line.</summary>
    public string SubjectFor(WordFacts facts) => CleanText.Of(Fill(Subject, facts));

    /// <summary>The text for one student. A line that held nothing but a link which the lesson lacks is left out.</summary>
    public string TextFor(WordFacts facts) =>
        string.Join('\n', Text.ReplaceLineEndings("\n").Split('\n')
            .Where(line => facts.Link.Length > 0 || line.Trim() != "{link}")
            .Select(line => Fill(line, facts)));

    /// <summary>What is wrong with the message; empty if nothing is.</summary>
    public IEnumerable<string> Problems()
    {
        if (Ahead < Duration.FromMinutes(1) || Ahead > Duration.FromMinutes(1440))
        {
            yield return "Word ahead: from 1 to 1,440 min before the lesson.";
        }

        if (Subject.Trim().Length == 0 || Subject.Length > 200 || Subject.Any(char.IsControl))
        {
            yield return "Word ahead: the subject is one line of at most 200 characters.";
        }

        if (Text.Trim().Length == 0 || Text.Length > ClassRules.LongestText)
        {
            yield return $"Word ahead: the message is not empty and has at most {ClassRules.LongestText:N0} characters.";
        }

        foreach (var unknown in Braces().Matches($"{Subject}\n{Text}").Select(m => m.Groups[1].Value).Except(FactNames).Distinct())
        {
            yield return $"Word ahead: nobody knows what {{{unknown}}} stands for. There is {string.Join(", ", FactNames.Select(f => $"{{{f}}}"))}.";
        }
    }

    private static string Fill(string template, WordFacts facts) => Braces().Replace(template, match => match.Groups[1].Value switch
    {
        "name" => facts.Name,
        "class" => facts.Class,
        "title" => facts.Title,
        "day" => facts.Day,
        "time" => facts.Time,
        "link" => facts.Link,
        "teacher" => facts.Teacher,
        _ => match.Value,
    });

    [GeneratedRegex(@"\{([^{}\n]{1,40})\}")]
    private static partial Regex Braces();
}
