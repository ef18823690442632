using System.Text;
using NodaTime;
using PoliteTally.Core.Merging;

namespace PoliteTally.Formats.Tests.MadeUp;

/// <summary>What became of a made-up file.</summary>
public enum Outcome
{
    /// <summary>All of it was read as it was meant, and nothing was asked.</summary>
    Whole,

    /// <summary>It was read as it was meant, after a question.</summary>
    Asked,

    /// <summary>It was refused, or only a part of it could be read, and that was said.</summary>
    Refused,

    /// <summary>Something was read that it does not say, and nobody was told.</summary>
    Wrong,
}

/// <summary>Reads made-up files as a lesson does, and compares.</summary>
public static class MadeUpReading
{
    internal static readonly DateTimeZone Zone = DateTimeZoneProviders.Tzdb["Atlantic/Faroe"];

    private static readonly Duration Lesson = Duration.FromMinutes(50);

    internal static readonly Instant To = MadeUpChats.From + Lesson;

    /// <summary>What a file could be of that lesson.</summary>
    public static IReadOnlyList<FileKind> KindsOf(byte[] bytes, MadeUpClass of) => FileRecognition.CouldBe(bytes, Zone, MadeUpChats.From, To, of.IsNameHere);

    /// <summary>What became of a chat, and what was different.</summary>
    public static (Outcome Outcome, string Why) Of(MadeUpChat chat, MadeUpClass of) =>
        Of(chat.Text, FileKind.Chat, of, chat.Messages.Where(m => m.Text.Any(char.IsLetterOrDigit)).Select(m => Told(m.At, m.Name, m.Text, m.Private)), bytes =>
        {
            var read = ChatFile.Read(bytes, null, Zone, MadeUpChats.From, of.IsNameHere);
            return new WhatIsRead([.. read.Rows.Select(r => r.Problems.Count > 0 ? r.Problems[0] : Told(r.At!.Value, r.Name, r.Text, r.Private))], read.Rows.Any(r => r.Problems.Count > 0), read.Problems, read.Unclear);
        });

    /// <summary>What became of captions, and what was different.</summary>
    public static (Outcome Outcome, string Why) Of(MadeUpCaption captions, MadeUpClass of)
    {
        return Of(captions.Text, FileKind.Captions, of, captions.Speeches.Select(s => Told(s.Name, s.From, s.Length)), bytes =>
        {
            var read = CaptionsFile.Read(bytes, Zone, MadeUpChats.From, of.IsNameHere);
            return new WhatIsRead([.. read.Rows.Select(r => Told(r.Name, (r.From - MadeUpChats.From).TotalSeconds, r.Length.TotalSeconds))], HasWrongRows: false, read.Problems, []);
        });

        static string Told(string name, double begins, double lasts) => $"{name} {begins:0.00}+{lasts:0.00}";
    }

    /// <summary>What became of an attendance list, and what was different.</summary>
    public static (Outcome Outcome, string Why) Of(MadeUpList list, MadeUpClass of) =>
        Of(list.Text, FileKind.Attendance, of, list.Rows, bytes =>
        {
            var read = AttendanceFile.Read(bytes, null, Zone, list.From, list.From + Lesson);
            return new WhatIsRead(
                [.. read.Rows.Select(r => r.Problems.Count > 0 ? r.Problems[0] : read.Shape == AttendanceShape.Lengths ? MadeUpList.Length(r.Name, r.Length) : MadeUpList.Stay(r.Name, r.Joined, r.Left))],
                read.Rows.Any(r => r.Problems.Count > 0), read.Problems, read.Unclear);
        }, list.From);

    /// <summary>What became of a table of answers, and what was different.</summary>
    public static (Outcome Outcome, string Why) Of(MadeUpTable table, MadeUpClass of)
    {
        return Of(table.Text, FileKind.Answers, of, table.Answers.Select(a => Told(a.Question, a.Name, a.Text, a.Share)), bytes =>
        {
            var read = AnswersFile.Read(bytes, null, Zone, MadeUpChats.From, To, of.IsNameHere);
            return new WhatIsRead([.. read.Questions.SelectMany(q => q.Answers.Select(a => Told(q.Text, a.Row.Name, a.Written.Text, a.Written.Share)))], read.People.Any(p => p.Problems.Count > 0), read.Problems, read.Unclear);
        });

        static string Told(string question, string name, string text, decimal? share) => $"{question} {name}: {text}{(share is { } of ? $", {of:0.##}" : "")}";
    }

    private sealed record WhatIsRead(IReadOnlyList<string> Rows, bool HasWrongRows, IReadOnlyList<string> Problems, IReadOnlyList<string> Unclear);

    private static (Outcome Outcome, string Why) Of(string text, FileKind kind, MadeUpClass of, IEnumerable<string> says, Func<byte[], WhatIsRead> reader, Instant? from = null)
    {
        var begins = from ?? MadeUpChats.From;
        var (bytes, meant) = (PlainContent.Of(Encoding.UTF8.GetBytes(text)), says.ToList());
        try
        {
            var kinds = FileRecognition.CouldBe(bytes, Zone, begins, begins + Lesson, of.IsNameHere);
            if (!kinds.Contains(kind))
            {
                return (kinds.Count == 1 ? Outcome.Wrong : Outcome.Refused, $"taken for {string.Join(", ", kinds)}");
            }

            var read = reader(bytes);
            var asked = kinds.Count > 1 || read.Unclear.Count > 0;
            var differ = meant.Except(read.Rows).Take(1).Select(m => $"missing: {m}").Concat(read.Rows.Except(meant).Take(1).Select(r => $"read: {r}")).ToList();
            var outcome = differ.Count == 0 && read.Rows.Count == meant.Count ? (asked ? Outcome.Asked : Outcome.Whole)
                : asked || read.Problems.Count > 0 || read.HasWrongRows ? Outcome.Refused : Outcome.Wrong;
            return (outcome, string.Join("; ", differ.Concat(read.Problems).Concat(read.Unclear)));
        }
        catch (FormatProblem problem)
        {
            return (Outcome.Refused, problem.Message);
        }
    }

    private static string Told(Instant at, string name, string text, bool secret) => $"{at} {name}{(secret ? " in private" : "")}: {text}";
}
