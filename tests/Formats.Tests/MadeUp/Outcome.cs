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
    private static readonly DateTimeZone Zone = DateTimeZoneProviders.Tzdb["Atlantic/Faroe"];

    /// <summary>What became of a chat, and what was different.</summary>
    public static (Outcome Outcome, string Why) Of(MadeUpChat chat, MadeUpClass of)
    {
        var (bytes, from, to) = (Encoding.UTF8.GetBytes(chat.Text), MadeUpChats.From, MadeUpChats.From + Duration.FromMinutes(50));
        try
        {
            var kinds = FileRecognition.CouldBe(bytes, Zone, from, to, of.IsNameHere);
            if (!kinds.Contains(FileKind.Chat))
            {
                return (kinds.Count == 1 ? Outcome.Wrong : Outcome.Refused, $"taken for {string.Join(", ", kinds)}");
            }

            var read = ChatFile.Read(bytes, null, Zone, from, of.IsNameHere);
            var told = read.Rows.Select(r => r.Problems.Count > 0 ? r.Problems[0] : Told(r.At!.Value, r.Name, r.Text, r.Private)).ToList();
            var meant = chat.Messages.Where(m => m.Text.Any(char.IsLetterOrDigit)).Select(m => Told(m.At, m.Name, m.Text, m.Private)).ToList();
            var differ = meant.Except(told).Take(1).Select(m => $"missing: {m}").Concat(told.Except(meant).Take(1).Select(t => $"read: {t}")).ToList();
            var asked = kinds.Count > 1 || read.Unclear.Count > 0;
            return (differ.Count == 0 && told.Count == meant.Count ? asked ? Outcome.Asked : Outcome.Whole
                : asked || read.Problems.Count > 0 || read.Rows.Any(r => r.Problems.Count > 0) ? Outcome.Refused : Outcome.Wrong, string.Join("; ", differ.Concat(read.Problems)));
        }
        catch (FormatProblem problem)
        {
            return (Outcome.Refused, problem.Message);
        }
    }

    /// <summary>What became of captions, and what was different.</summary>
    public static (Outcome Outcome, string Why) Of(MadeUpCaption captions, MadeUpClass of)
    {
        var (bytes, from) = (Encoding.UTF8.GetBytes(captions.Text), MadeUpChats.From);
        try
        {
            var kinds = FileRecognition.CouldBe(bytes, Zone, from, from + Duration.FromMinutes(50), of.IsNameHere);
            if (!kinds.Contains(FileKind.Captions))
            {
                return (kinds.Count == 1 ? Outcome.Wrong : Outcome.Refused, $"taken for {string.Join(", ", kinds)}");
            }

            var read = CaptionsFile.Read(bytes, Zone, from, of.IsNameHere);
            var told = read.Rows.Select(r => Told(r.Name, (r.From - from).TotalSeconds, r.Length.TotalSeconds)).ToList();
            var meant = captions.Speeches.Select(s => Told(s.Name, s.From, s.Length)).ToList();
            var differ = meant.Except(told).Take(1).Select(m => $"missing: {m}").Concat(told.Except(meant).Take(1).Select(t => $"read: {t}")).ToList();
            return (differ.Count == 0 && told.Count == meant.Count ? kinds.Count > 1 ? Outcome.Asked : Outcome.Whole : kinds.Count > 1 || read.Problems.Count > 0 ? Outcome.Refused : Outcome.Wrong, string.Join("; ", differ.Concat(read.Problems)));
        }
        catch (FormatProblem problem)
        {
            return (Outcome.Refused, problem.Message);
        }

        static string Told(string name, double begins, double lasts) => $"{name} {begins:0.00}+{lasts:0.00}";
    }

    /// <summary>What became of an attendance list, and what was different.</summary>
    public static (Outcome Outcome, string Why) Of(MadeUpList list, MadeUpClass of)
    {
        var (bytes, from, to) = (Encoding.UTF8.GetBytes(list.Text), MadeUpChats.From, MadeUpChats.From + Duration.FromMinutes(50));
        try
        {
            var kinds = FileRecognition.CouldBe(bytes, Zone, from, to, of.IsNameHere);
            if (!kinds.Contains(FileKind.Attendance))
            {
                return (kinds.Count == 1 ? Outcome.Wrong : Outcome.Refused, $"taken for {string.Join(", ", kinds)}");
            }

            var read = AttendanceFile.Read(bytes, null, Zone, from, to);
            var told = read.Rows.Select(r => r.Problems.Count > 0 ? r.Problems[0] : $"{r.Name} {r.Joined} {r.Left}").ToList();
            var meant = list.Stays.Select(s => $"{s.Name} {s.Joined} {s.Left}").ToList();
            var differ = meant.Except(told).Take(1).Select(m => $"missing: {m}").Concat(told.Except(meant).Take(1).Select(t => $"read: {t}")).ToList();
            var asked = kinds.Count > 1 || read.Unclear.Count > 0;
            return (differ.Count == 0 && told.Count == meant.Count ? asked ? Outcome.Asked : Outcome.Whole
                : asked || read.Problems.Count > 0 || read.Rows.Any(r => r.Problems.Count > 0) ? Outcome.Refused : Outcome.Wrong, string.Join("; ", differ.Concat(read.Problems).Concat(read.Unclear)));
        }
        catch (FormatProblem problem)
        {
            return (Outcome.Refused, problem.Message);
        }
    }

    private static string Told(Instant at, string name, string text, bool secret) => $"{at} {name}{(secret ? " in private" : "")}: {text}";
}
