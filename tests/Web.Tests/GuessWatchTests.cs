using NodaTime;
using PoliteTally.Web.Features.Door;

namespace PoliteTally.Web.Tests;

public sealed class GuessWatchTests
{
    private const string School = "203.0.113.7";
    private static readonly Guid Lesson = Guid.NewGuid();

    private sealed class Clock : IClock
    {
        public Instant Now { get; set; } = Instant.FromUtc(2026, 11, 23, 9, 30);

        public Instant GetCurrentInstant() => Now;
    }

    private static (GuessWatch Watch, Clock Clock) After(int wrong)
    {
        var clock = new Clock();
        var watch = new GuessWatch(clock);
        for (var i = 0; i < wrong; i++)
        {
            watch.Wrong(School, Lesson);
        }

        return (watch, clock);
    }

    [Theory]
    [InlineData(0, 0)]
    [InlineData(7, 0)] // a class that mistypes
    [InlineData(8, 100)]
    [InlineData(9, 200)]
    [InlineData(12, 1600)]
    [InlineData(39, 2000)] // never longer than this
    public void Each_wrong_try_from_the_eighth_on_waits_longer(int wrong, int milliseconds) =>
        After(wrong).Watch.WaitOf(School).ShouldBe(TimeSpan.FromMilliseconds(milliseconds));

    [Fact]
    public void From_the_fortieth_on_nothing_is_taken_for_a_while_and_then_again()
    {
        var (watch, clock) = After(GuessWatch.RefusedFrom);
        watch.RefusedFor(School).ShouldBe(GuessWatch.Window);
        watch.RefusedFor("203.0.113.8").ShouldBe(Duration.Zero);
        clock.Now += GuessWatch.Window + Duration.FromSeconds(1);
        watch.RefusedFor(School).ShouldBe(Duration.Zero);
        watch.WaitOf(School).ShouldBe(TimeSpan.Zero);
    }

    [Fact]
    public void Whoever_enters_rightly_makes_good_for_others_of_the_same_school()
    {
        var (watch, _) = After(GuessWatch.SlowFrom + 2);
        watch.Right(School);
        watch.WaitOf(School).ShouldBe(TimeSpan.Zero);
    }

    [Fact]
    public void The_teacher_is_told_of_many_and_not_of_a_few()
    {
        After(GuessWatch.ToldFrom - 1).Watch.In(Lesson).ShouldBe(0);
        After(GuessWatch.ToldFrom).Watch.In(Lesson).ShouldBe(GuessWatch.ToldFrom);
    }
}
