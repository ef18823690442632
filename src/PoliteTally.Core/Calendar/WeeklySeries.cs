using NodaTime;

namespace PoliteTally.Core.Calendar;

/// <summary>Days without lessons.</summary>
/// <param name="Name">What they are called, such as "autumn holiday".</param>
/// <param name="FirstDay">The first of them.</param>
/// <param name="LastDay">The last of them, not before the first.</param>
public sealed record DaysOff(string Name, LocalDate FirstDay, LocalDate LastDay)
{
    /// <summary>Whether a day is one of them.</summary>
    public bool Has(LocalDate day) => FirstDay <= day && day <= LastDay;
}

/// <summary>A day on which a series would have a lesson.</summary>
/// <param name="Day">The day.</param>
/// <param name="Off">Why there is none on it; null if there is.</param>
public sealed record SeriesDay(LocalDate Day, string? Off);

/// <summary>Lessons that come back on days of the week.</summary>
/// <param name="Days">The days of the week, at least one.</param>
/// <param name="EveryWeeks">Every how many weeks, counted from the week of the first day; from 1 up.</param>
/// <param name="FirstDay">No lesson before it.</param>
/// <param name="LastDay">No lesson after it.</param>
public sealed record WeeklySeries(IReadOnlyCollection<IsoDayOfWeek> Days, int EveryWeeks, LocalDate FirstDay, LocalDate LastDay)
{
    /// <summary>The most days that a series may run over: five years.</summary>
    public const int MostDays = 5 * 366;

    /// <summary>The days of the series in order, those that are off among them.</summary>
    public IEnumerable<SeriesDay> On(IReadOnlyCollection<DaysOff> off)
    {
        var firstWeek = FirstDay.With(DateAdjusters.PreviousOrSame(IsoDayOfWeek.Monday));
        for (var day = FirstDay; day <= LastDay; day = day.PlusDays(1))
        {
            var week = Period.DaysBetween(firstWeek, day) / 7;
            if (week % EveryWeeks == 0 && Days.Contains(day.DayOfWeek))
            {
                yield return new SeriesDay(day, off.FirstOrDefault(o => o.Has(day))?.Name);
            }
        }
    }

    /// <summary>
    /// The instant of a time of day on a day of the school. A time that the clocks skip is taken as just after the change, one
    /// that they repeat as the first of the two.
    /// </summary>
    public static Instant At(LocalDate day, LocalTime time, DateTimeZone zone) => zone.AtLeniently(day + time).ToInstant();
}
