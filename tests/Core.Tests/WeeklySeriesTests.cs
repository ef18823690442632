using NodaTime;
using PoliteTally.Core.Calendar;

namespace PoliteTally.Core.Tests;

public sealed class WeeklySeriesTests
{
    private static readonly LocalDate Monday = new(2026, 10, 12);

    private static string On(WeeklySeries series, params DaysOff[] off) =>
        string.Join(' ', series.On(off).Select(d => d.Day.ToString("MM-dd", null) + (d.Off is null ? "" : $"({d.Off})")));

    [Fact]
    public void Days_of_the_week_between_first_and_last() =>
        On(new([IsoDayOfWeek.Monday, IsoDayOfWeek.Thursday], 1, Monday, Monday.PlusDays(10))).ShouldBe("10-12 10-15 10-19 10-22");

    [Fact]
    public void Every_other_week_counts_from_the_week_of_the_first_day() =>
        // From a Wednesday: the Monday of that week is over, so the first one lies in the next week that counts.
        On(new([IsoDayOfWeek.Monday, IsoDayOfWeek.Friday], 2, Monday.PlusDays(2), Monday.PlusDays(20))).ShouldBe("10-16 10-26 10-30");

    [Fact]
    public void Days_off_are_told_and_not_left_out_in_silence() =>
        On(new([IsoDayOfWeek.Monday], 1, Monday, Monday.PlusDays(14)), new DaysOff("holiday", Monday.PlusDays(7), Monday.PlusDays(7)))
            .ShouldBe("10-12 10-19(holiday) 10-26");

    [Theory]
    // day, time at the school, time in UTC: the clocks go back on 25 October and forward on 28 March
    [InlineData("2026-10-22", "09:30", "2026-10-22T08:30:00Z")]
    [InlineData("2026-10-26", "09:30", "2026-10-26T09:30:00Z")]
    [InlineData("2027-03-29", "09:30", "2027-03-29T08:30:00Z")]
    [InlineData("2027-03-28", "01:30", "2027-03-28T01:30:00Z")] // skipped: just after the change
    [InlineData("2026-10-25", "01:30", "2026-10-25T00:30:00Z")] // twice: the first
    public void The_clock_of_the_school_stays_the_same_across_the_change(string day, string time, string utc) =>
        WeeklySeries.At(NodaTime.Text.LocalDatePattern.Iso.Parse(day).Value, NodaTime.Text.LocalTimePattern.CreateWithInvariantCulture("HH:mm").Parse(time).Value, DateTimeZoneProviders.Tzdb["Atlantic/Faroe"])
            .ShouldBe(NodaTime.Text.InstantPattern.General.Parse(utc).Value);
}
