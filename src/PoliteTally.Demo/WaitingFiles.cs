using System.Globalization;
using System.Text;
using NodaTime;
using NodaTime.Text;
using PoliteTally.Core.Chat;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Questions;
using PoliteTally.Formats;
using PoliteTally.Store.Model;

namespace PoliteTally.Demo;

/// <summary>A file that waits beside a lesson.</summary>
internal sealed record WaitingFile(string Name, byte[] Bytes);

/// <summary>What somebody put into the school's form.</summary>
/// <param name="Name">The name as they typed it.</param>
/// <param name="Answers">What they answered, question by question.</param>
internal sealed record FilledForm(Instant At, string Name, IReadOnlyList<string> Answers);

/// <summary>What the meeting program saved of a lesson that is to be settled, with the faults that such files have.</summary>
internal static class WaitingFiles
{
    private static readonly string[] Teaching =
    [
        "Good morning! The barometer page is open.", "Write it as a sentence, with a because.", "That is a good question, hold on to it.", "Two more minutes.",
    ];

    /// <summary>An attendance list, by a clock that is ahead.</summary>
    public static WaitingFile AttendanceList(int lesson, IEnumerable<Visit> visits, Duration ahead, DateTimeZone zone)
    {
        var time = LocalDateTimePattern.CreateWithInvariantCulture("uuuu-MM-dd HH:mm:ss");
        return new WaitingFile(
            $"attendance-lesson-{lesson}.csv",
            SafeCsv.Write(["Name", "Joined", "Left"], visits.Select(v => (IReadOnlyList<string>)[v.Name, Local(v.Joined), Local(v.Left)])));

        string Local(Instant at) => time.Format((at + ahead).InZone(zone).LocalDateTime);
    }

    /// <summary>Answers in the school's form, a row each.</summary>
    public static WaitingFile Answers(int lesson, IReadOnlyList<Question> questions, IReadOnlyList<FilledForm> forms, DateTimeZone zone)
    {
        var time = LocalDateTimePattern.CreateWithInvariantCulture("dd/MM/uuuu HH:mm:ss");
        return new WaitingFile(
            $"answers-lesson-{lesson}.csv",
            SafeCsv.Write(
                ["Submitted", "Your name", .. questions.Select(q => q.Text)],
                forms.OrderBy(f => f.At).Select(f => (IReadOnlyList<string>)[time.Format(f.At.InZone(zone).LocalDateTime), f.Name, .. f.Answers])));
    }

    /// <summary>A saved chat as text: what students wrote, what the teacher did, a word to her alone, and what the program noted itself.</summary>
    public static WaitingFile Chat(int lesson, Script script, IEnumerable<(Instant At, string Name, string Text)> written, DateTimeZone zone)
    {
        var time = LocalTimePattern.CreateWithInvariantCulture("HH:mm:ss");
        List<(Instant At, string Line)> lines =
        [
            .. written.Select(w => (w.At, $"{w.Name} to Everyone: {w.Text}")),
            .. Teaching.Select((text, i) => (script.At(1 + (i * 12)), $"Tamsin Vale to Everyone: {text}")),
            (script.At(-0.8), "Mum (Barney) to Tamsin Vale: he is just finding his headphones"),
            (script.At(33), "Eino R. to Tamsin Vale: my line is going again,\nI write from the phone"),
            (script.At(14), "harbour-office-3 came in"),
            (script.At(14.4), "harbour-office-3 went"),
            (script.At(27), "Cormac Bellweather to Everyone: 👏👏"),
            (script.At(40), "The recording was paused"),
        ];
        var text = new StringBuilder();
        foreach (var (at, line) in lines.OrderBy(l => l.At))
        {
            text.Append(CultureInfo.InvariantCulture, $"{time.Format(at.InZone(zone).TimeOfDay)}  {line}\n");
        }

        return new WaitingFile($"chat-lesson-{lesson}.txt", Encoding.UTF8.GetBytes(text.ToString()));
    }

    /// <summary>
    /// Captions of a recording that was begun late, so that they are behind by as much: every turn as it was spoken, the teacher between them, and three times somebody of whom nothing was noted.
    /// </summary>
    public static WaitingFile Captions(int lesson, Script script, IReadOnlyList<Student> unnoted, Func<Student, string> shown, IReadOnlyList<Student> students, Duration behind)
    {
        var byId = students.ToDictionary(s => s.Id);
        var called = script.InOrder().SelectMany(n => n.Entries).Where(e => e.Act is Called).Select(e => (At: e.HappenedAt, Of: byId[((Called)e.Act).Student])).ToList();
        List<(Instant At, int Seconds, string Name, string Text)> cues = [];
        foreach (var ((at, student), i) in called.Select((c, i) => (c, i)))
        {
            // Two captions with a breath between them are one stretch of speech.
            cues.Add((at - Duration.FromSeconds(4), 3, "Tamsin Vale", "Who has not been heard yet?"));
            cues.Add((at + Duration.FromSeconds(2 + (i % 3)), 12, shown(student), "I think that the water follows the moon,"));
            cues.Add((at + Duration.FromSeconds(16 + (i % 3)), 10 + (i % 4 * 6), shown(student), "and so it comes later every day."));
        }

        foreach (var (student, i) in unnoted.Select((s, i) => (s, i)))
        {
            cues.Add((called[i * 4].At + Duration.FromSeconds(95), i == 2 ? 6 : 41 - (i * 17), shown(student), "Can I add something? On Nort it was the other way round."));
        }

        var text = new StringBuilder("WEBVTT\n");
        foreach (var cue in cues.OrderBy(c => c.At))
        {
            var from = cue.At - script.At(0.4) - behind;
            if (from >= Duration.Zero)
            {
                text.Append(CultureInfo.InvariantCulture, $"\n{Stamp(from)} --> {Stamp(from + Duration.FromSeconds(cue.Seconds))}\n<v {cue.Name}>{cue.Text}\n");
            }
        }

        return new WaitingFile($"captions-lesson-{lesson}.vtt", Encoding.UTF8.GetBytes(text.ToString()));

        static string Stamp(Duration at) => at.ToString("HH:mm:ss.fff", CultureInfo.InvariantCulture);
    }

    /// <summary>The messages of a script, and of some of them that the teacher tapped them a little later, without a word of what they said.</summary>
    /// <param name="saved">The script of all messages.</param>
    /// <param name="taps">How many she tapped.</param>
    /// <param name="into">Where she did.</param>
    /// <param name="students">The class.</param>
    /// <param name="shown">What the meeting calls them.</param>
    public static IReadOnlyList<(Instant At, string Name, string Text)> Told(
        Script saved, int taps, Script into, IReadOnlyList<Student> students, Func<Student, string> shown)
    {
        var byId = students.ToDictionary(s => s.Id);
        var messages = saved.InOrder().SelectMany(n => n.Entries).Where(e => e.Act is ChatSaid).Select(e => (At: e.HappenedAt, Said: (ChatSaid)e.Act)).ToList();
        var every = messages.Where(m => m.Said.Kind != ChatKind.Social).ToList();
        foreach (var (message, i) in every.Where((_, i) => i % (every.Count / taps) == 0).Take(taps).Select((m, i) => (m, i)))
        {
            into.Chat((message.At - into.From).TotalMinutes + ((3 + (i % 4)) / 60.0), byId[message.Said.Student], message.Said.Kind, text: null);
        }

        return [.. messages.Select(m => (m.At, shown(byId[m.Said.Student]), m.Said.Text!))];
    }
}
