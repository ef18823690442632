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
        watch.Right(School, Guid.NewGuid());
        watch.WaitOf(School).ShouldBe(TimeSpan.Zero);
    }

    /// <summary>Somebody with a pass, who enters with it again and again between guesses at the passes of others.</summary>
    [Fact]
    public void Whoever_enters_rightly_again_and_again_makes_good_once()
    {
        var (watch, clock) = After(0);
        var own = Guid.NewGuid();
        for (var guess = 0; guess < GuessWatch.RefusedFrom + GuessWatch.MadeGood; guess++)
        {
            watch.Right(School, own);
            watch.Wrong(School, Lesson);
        }

        watch.RefusedFor(School).ShouldBeGreaterThan(Duration.Zero);
        clock.Now += GuessWatch.Window + Duration.FromSeconds(1);
        watch.RefusedFor(School).ShouldBe(Duration.Zero);
    }

    [Theory]
    [InlineData("203.0.113.7", "203.0.113.7")]
    [InlineData("::ffff:203.0.113.7", "203.0.113.7")]
    [InlineData("2001:db8:1:2:3:4:5:6", "2001:db8:1:2::/64")]
    [InlineData("2001:db8:1:2:ffff:ffff:ffff:ffff", "2001:db8:1:2::/64")]
    [InlineData("2001:db8:1:3::1", "2001:db8:1:3::/64")]
    public void All_addresses_of_one_network_are_one_guesser(string address, string counted) => Requests.CallerNetwork.Of(System.Net.IPAddress.Parse(address)).ShouldBe(counted);

    [Fact]
    public void A_password_is_guessed_a_few_times_from_one_network_whether_there_is_such_an_account_or_not()
    {
        var clock = new Clock();
        var watch = new Features.Accounts.SignInWatch(clock);
        for (var i = 0; i < Features.Accounts.SignInWatch.FromOne; i++)
        {
            watch.Takes("tamsin@skerrysound.example", School).ShouldBeTrue();
            watch.Wrong(i % 2 == 0 ? " Tamsin@skerrysound.example" : "tamsin@SKERRYSOUND.example", School);
        }

        watch.Takes("tamsin@skerrysound.example", School).ShouldBeFalse();
        watch.Takes("tamsin@skerrysound.example", "198.51.100.1").ShouldBeTrue();
        watch.Takes("odhran@skerrysound.example", School).ShouldBeTrue();
        clock.Now += Features.Accounts.SignInWatch.Window + Duration.FromSeconds(1);
        watch.Takes("tamsin@skerrysound.example", School).ShouldBeTrue();
        for (var i = 0; i < Features.Accounts.SignInWatch.FromAll; i++)
        {
            watch.Wrong("tamsin@skerrysound.example", $"198.51.100.{i}");
        }

        watch.Takes("tamsin@skerrysound.example", "192.0.2.1").ShouldBeFalse();
    }

    [Fact]
    public void The_teacher_is_told_of_many_and_not_of_a_few()
    {
        After(GuessWatch.ToldFrom - 1).Watch.In(Lesson).ShouldBe(0);
        After(GuessWatch.ToldFrom).Watch.In(Lesson).ShouldBe(GuessWatch.ToldFrom);
    }
}
