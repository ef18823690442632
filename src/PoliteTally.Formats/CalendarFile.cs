using System.Text;
using Ical.Net;
using Ical.Net.CalendarComponents;
using Ical.Net.DataTypes;
using Ical.Net.Evaluation;
using Ical.Net.Serialization;
using NodaTime;

namespace PoliteTally.Formats;

/// <summary>One event of a calendar on one day.</summary>
/// <param name="Uid">Which it is, the same each time the calendar is read: the UID of the event and the start it was first meant to have.</param>
/// <param name="Start">When it begins.</param>
/// <param name="End">When it ends.</param>
/// <param name="Cancelled">Whether the calendar says that it does not take place.</param>
/// <param name="Link">An address to open, if the event names one.</param>
public sealed record CalendarDate(string Uid, Instant Start, Instant End, bool Cancelled, string? Link);

/// <summary>All events of a calendar with one title.</summary>
/// <param name="Title">The title; empty if they have none.</param>
/// <param name="Endless">Whether a rule of it goes on without end, so that it has to be said until when.</param>
/// <param name="Dates">Its dates in order; up to the day that was given, if one was.</param>
/// <param name="Problems">What is wrong with it.</param>
public sealed record CalendarTitle(string Title, bool Endless, IReadOnlyList<CalendarDate> Dates, IReadOnlyList<string> Problems);

/// <summary>A lesson as it goes into a calendar.</summary>
/// <param name="Uid">By which a calendar knows it again.</param>
/// <param name="Title">What it is called.</param>
/// <param name="Start">When it is to begin.</param>
/// <param name="End">When it is to end.</param>
/// <param name="Link">Where it is held; null if nowhere in particular.</param>
/// <param name="Cancelled">Whether it is not held.</param>
/// <param name="Note">What else there is to say of it; empty for nothing.</param>
public sealed record CalendarLesson(string Uid, string Title, Instant Start, Instant End, string? Link, bool Cancelled, string Note = "");

/// <summary>Reads and writes calendars (iCalendar, RFC 5545).</summary>
public static class CalendarFile
{
    /// <summary>The most dates that a calendar may come to: 20,000.</summary>
    public const int MostDates = 20_000;

    private const int MostEvents = 20_000;
    private const int MostAtOnce = 2_000;
    private const int MostRules = 10;
    private static readonly LocalDate Earliest = new(2000, 1, 1);

    /// <summary>Reads a calendar: events, rules, exceptions, moved and cancelled dates, and time zones that it brings along.</summary>
    /// <param name="bytes">The file.</param>
    /// <param name="school">The zone of times that name none.</param>
    /// <param name="until">The last day to read rules without end up to; null if nobody has said.</param>
    /// <exception cref="FormatProblem">The file is no calendar.</exception>
    public static IReadOnlyList<CalendarTitle> Read(byte[] bytes, DateTimeZone school, LocalDate? until)
    {
        using var budget = ReadingBudget.Begin();
        var (calendar, zones) = Load(bytes);
        var titles = new Dictionary<string, (bool Endless, List<CalendarDate> Dates, List<string> Problems)>(StringComparer.Ordinal);
        if (calendar.Events.Count > MostEvents)
        {
            throw new FormatProblem($"This calendar has more than {MostEvents:N0} events. Take only those of this year out of the other program and bring in that.");
        }

        var total = 0;
        foreach (var same in calendar.Events.GroupBy(e => e.Uid, StringComparer.Ordinal))
        {
            ReadingBudget.Ask();
            var zoneOfRule = same.FirstOrDefault(e => e.RecurrenceIdentifier is null)?.Start?.TzId;
            var moved = new Lazy<HashSet<DateTime>>(() => same.Where(e => e.RecurrenceIdentifier is not null).Select(e => OriginalOf(e, zoneOfRule)).ToHashSet());
            foreach (var one in same)
            {
                var title = one.Summary?.Trim() ?? "";
                if (!titles.TryGetValue(title, out var held))
                {
                    titles[title] = held = (false, [], []);
                }

                if (one.Start is null)
                {
                    AddOnce(held.Problems, "Events with a time that cannot be read are left out.");
                    continue;
                }

                if (!one.Start.HasTime)
                {
                    AddOnce(held.Problems, "Events that last whole days are left out: a lesson has a time.");
                    continue;
                }

                if (WhyNot(one) is { } why)
                {
                    AddOnce(held.Problems, why);
                    continue;
                }

                var endless = one.RecurrenceIdentifier is null && HasNoEnd(one);
                titles[title] = held with { Endless = held.Endless || endless };
                if (endless && until is null)
                {
                    AddOnce(held.Problems, "It goes on without end. Say until which day it is to be read.");
                    continue;
                }

                try
                {
                    // One more than there may be: then it is said.
                    List<CalendarDate> dates =
                    [
                        .. DatesOf(one, zoneOfRule, moved.Value, until).Take(MostDates - total + 1).Select(d => new CalendarDate(
                            $"{one.Uid}/{d.Original:yyyyMMdd'T'HHmm}", InstantOf(d.Start, one), InstantOf(d.End, one),
                            string.Equals(one.Status, "CANCELLED", StringComparison.OrdinalIgnoreCase), LinkOf(one))),
                    ];
                    held.Dates.AddRange(dates);
                    total += dates.Count;
                }
                catch (Exception odd) when (odd is not (FormatProblem or OperationCanceledException))
                {
                    // A length, a zone or a day that the calendar library, or the calendar itself, has no room for.
                    AddOnce(held.Problems, "Events with a time, a length or a zone that cannot be read are left out.");
                }

                if (total > MostDates)
                {
                    throw new FormatProblem($"This calendar comes to more than {MostDates:N0} dates. Choose an earlier last day, or take fewer events out of the other program.");
                }
            }
        }

        return titles.Count == 0
            ? throw new FormatProblem("This calendar has no events. Nothing was stored; choose another file.")
            : [.. titles.Select(t => new CalendarTitle(
                t.Key, t.Value.Endless, [.. t.Value.Dates.OrderBy(d => d.Start)], t.Value.Problems)).OrderBy(t => t.Title, StringComparer.Ordinal)];

        Instant InstantOf(CalDateTime time, CalendarEvent of)
        {
            if (!time.IsFloating)
            {
                return Instant.FromDateTimeUtc(DateTime.SpecifyKind(time.AsUtc, DateTimeKind.Utc));
            }

            var local = LocalDateTime.FromDateTime(time.Value);
            return zones.GetValueOrDefault(of.Uid ?? "") is { } brought
                ? local.WithOffset(brought.At(local)).ToInstant()
                : school.AtLeniently(local).ToInstant();
        }
    }

    /// <summary>Writes lessons as a calendar that other programs can take in or subscribe to. Times are in UTC, and so right everywhere.</summary>
    public static byte[] Write(string name, IEnumerable<CalendarLesson> lessons, Instant now)
    {
        var calendar = new Calendar { ProductId = "-//Polite Tally//Lessons//EN", Method = "PUBLISH" };
        calendar.AddProperty("X-WR-CALNAME", name);
        foreach (var lesson in lessons)
        {
            var made = new CalendarEvent
            {
                Uid = lesson.Uid,
                Summary = lesson.Title,
                DtStart = Utc(lesson.Start),
                DtEnd = Utc(lesson.End),
                DtStamp = Utc(now),
                Status = lesson.Cancelled ? "CANCELLED" : "CONFIRMED",
            };
            if (lesson.Link is { } link)
            {
                made.Url = new Uri(link);
                made.Location = link;
            }

            if (lesson.Note.Length > 0)
            {
                made.Description = lesson.Note;
            }

            calendar.Events.Add(made);
        }

        return Encoding.UTF8.GetBytes(new CalendarSerializer().SerializeToString(calendar)!);

        static CalDateTime Utc(Instant at) => new(at.ToDateTimeUtc(), "UTC", hasTime: true);
    }

    private static (Calendar Calendar, Dictionary<string, BroughtZone> Zones) Load(byte[] bytes)
    {
        FileSize.Check(bytes.Length, "Take only the events of this year out of the other program and bring in that.");
        var text = Encoding.UTF8.GetString(bytes).TrimStart('\uFEFF');
        if (!text.TrimStart().StartsWith("BEGIN:VCALENDAR", StringComparison.OrdinalIgnoreCase))
        {
            throw new FormatProblem("This is not a calendar. It must be an iCalendar file, as calendar programs give it, often ending in .ics.");
        }

        if (!text.TrimEnd().EndsWith("END:VCALENDAR", StringComparison.OrdinalIgnoreCase))
        {
            throw new FormatProblem("This calendar is cut off: its end is missing. Nothing was stored; fetch it again.");
        }

        try
        {
            var (plain, zones) = BroughtZone.Split(text);
            return (Calendar.Load(plain) ?? throw new FormatProblem("This calendar is empty."), zones);
        }
        catch (Exception broken) when (broken is not FormatProblem)
        {
            throw new FormatProblem("This calendar is broken and cannot be read. Nothing was stored; fetch it again from the program it comes from.");
        }
    }

    private static IEnumerable<(CalDateTime Start, CalDateTime End, DateTime Original)> DatesOf(
        CalendarEvent one, string? zoneOfRule, HashSet<DateTime> moved, LocalDate? until)
    {
        if (one.RecurrenceIdentifier is not null)
        {
            yield return (one.Start!, EndOf(one), OriginalOf(one, zoneOfRule));
            yield break;
        }

        if (one.RecurrenceRule is null && one.RecurrenceDates.GetAllDates().FirstOrDefault() is null)
        {
            if (!moved.Contains(one.Start!.Value))
            {
                yield return (one.Start, EndOf(one), one.Start.Value);
            }

            yield break;
        }

        var except = Exceptions(one, until);
        foreach (var occurrence in OccurrencesOf(one))
        {
            ReadingBudget.AskNow();
            var start = occurrence.Period.StartTime;
            if (until is { } last && start.Value.Date > last.ToDateTimeUnspecified())
            {
                yield break;
            }

            if (!moved.Contains(start.Value) && !except.Contains(start.Value))
            {
                yield return (start, occurrence.Period.EffectiveEndTime ?? start, start.Value);
            }
        }
    }

    // Rules of what is left out are worked out like any other, date by date: the library looks for a date that is left in, if need be to the end of all calendars.
    private static HashSet<DateTime> Exceptions(CalendarEvent one, LocalDate? until)
    {
        var except = new HashSet<DateTime>();
        foreach (var rule in TakeExceptionRules(one))
        {
            foreach (var date in OccurrencesOf(Following(one, rule)).Select(o => o.Period.StartTime.Value))
            {
                ReadingBudget.AskNow();
                if (except.Count > MostDates || (until is { } last && date.Date > last.ToDateTimeUnspecified()))
                {
                    break;
                }

                except.Add(date);
            }
        }

        return except;
    }

    private static IEnumerable<Occurrence> OccurrencesOf(CalendarEvent one)
    {
        using var occurrences = one.GetOccurrences(null, new EvaluationOptions { MaxUnmatchedIncrementsLimit = 5000 }).GetEnumerator();
        while (true)
        {
            try
            {
                if (!occurrences.MoveNext())
                {
                    yield break;
                }
            }
            catch (Exception end) when (end is EvaluationLimitExceededException or ArgumentOutOfRangeException or OverflowException)
            {
                // A rule that never comes true again, such as 30 February, or that runs off the end of the calendar.
                yield break;
            }

            yield return occurrences.Current;
        }
    }

    // Which date of the rule this is instead of, by the clock of the rule, whatever zone it is written in.
    private static DateTime OriginalOf(CalendarEvent one, string? zoneOfRule)
    {
        var original = one.RecurrenceIdentifier!.StartTime;
        return zoneOfRule is null || original.IsFloating ? original.Value : original.ToTimeZone(zoneOfRule).Value;
    }

    private static CalDateTime EndOf(CalendarEvent one) => one.DtEnd ?? one.Start!.Add(one.EffectiveDuration);

    // Rules that come back within a day are no lessons, and can take for ever to work out; what they leave out is no other matter.
    private static string? WhyNot(CalendarEvent one) => Rules(one) switch
    {
        var rules when rules.Count > MostRules || rules.Exists(r => DatesAtOnce(r) > MostAtOnce) => "Its rule makes so many dates at once that no lesson can be meant, and is left out.",
        var rules when rules.Exists(r => r.Frequency is FrequencyType.Secondly or FrequencyType.Minutely or FrequencyType.Hourly) =>
            "It comes back within the same day, as no lesson does, and is left out.",
        _ when LocalDate.FromDateTime(one.Start!.Value) < Earliest => "It begins before the year 2000 and is left out.",
        _ => null,
    };

    // Several rules and rules of exceptions are of an older edition of the standard (RFC 2445), and calendar programs still write them.
#pragma warning disable CS0618
    private static List<RecurrencePattern> Rules(CalendarEvent one) => [.. one.RecurrenceRules, .. one.ExceptionRules];

    private static bool HasNoEnd(CalendarEvent one) => one.RecurrenceRules.Any(r => r is { Count: null, Until: null });

    private static List<RecurrencePattern> TakeExceptionRules(CalendarEvent one)
    {
        List<RecurrencePattern> rules = [.. one.ExceptionRules];
        one.ExceptionRules.Clear();
        return rules;
    }

    private static CalendarEvent Following(CalendarEvent one, RecurrencePattern rule) => new() { Start = one.Start, RecurrenceRules = [rule] };
#pragma warning restore CS0618

    // What the lists of a rule come to together, before anything of it is worked out: the library makes all dates of a year at once.
    private static long DatesAtOnce(RecurrencePattern rule) =>
        new long[] { rule.BySecond.Count, rule.ByMinute.Count, rule.ByHour.Count, rule.ByDay.Count, rule.ByMonthDay.Count, rule.ByYearDay.Count, rule.ByWeekNo.Count, rule.ByMonth.Count }
            .Aggregate(1L, (all, list) => all * Math.Max(1, list));

    private static string? LinkOf(CalendarEvent one)
    {
        var words = $"{one.Url} {one.Location} {one.Description}".Split([' ', '\n', '\r', '\t', '<', '>', '"'], StringSplitOptions.RemoveEmptyEntries);
        return words.FirstOrDefault(w => Uri.TryCreate(w, UriKind.Absolute, out var address) && address.Scheme is "https" or "http" && w.Length <= 500 && w.StartsWith("http", StringComparison.OrdinalIgnoreCase));
    }

    private static void AddOnce(List<string> problems, string problem)
    {
        if (!problems.Contains(problem))
        {
            problems.Add(problem);
        }
    }
}
