using System.Text;
using NodaTime;
using PoliteTally.Core.Merging;

namespace PoliteTally.Formats.Tests;

/// <summary>A list of who was there is read whether it was copied from a window, typed, or read from a picture.</summary>
public sealed class PeopleFileTests
{
    private static readonly Instant From = Instant.FromUtc(2026, 11, 2, 9, 30);
    private static readonly Instant To = From + Duration.FromMinutes(50);
    private static readonly DateTimeZone Faroe = DateTimeZoneProviders.Tzdb["Atlantic/Faroe"];
    private static readonly string[] Class = ["Ana P", "Eino R.", "Saga Eriksdotter"];

    private static PeoplePreview Read(string text) => PeopleFile.Read(Encoding.UTF8.GetBytes(text), Faroe, From, To, Class.Contains);

    [Theory]
    [InlineData("one a line", "Ana P\nEino R.\nSaga Eriksdotter\n")]
    [InlineData("numbered", "1. Ana P\n2. Eino R.\n3. Saga Eriksdotter\n")]
    [InlineData("bullets", "• Ana P\n• Eino R.\n• Saga Eriksdotter")]
    [InlineData("in one line", "Ana P, Eino R., Saga Eriksdotter")]
    [InlineData("a grid", "Ana P\tEino R.\nSaga Eriksdotter\tAna P\n")]
    [InlineData("cells", "Ana P\tEino R.\nSaga Eriksdotter\t\n")]
    [InlineData("under a heading", "Participants (3)\nAna P\nEino R. (you)\nSaga Eriksdotter\n")]
    [InlineData("with a word beside each", "Ana P\nmuted\nEino R.\nmuted\nSaga Eriksdotter\nmuted\n")]
    [InlineData("read from a picture, with badges", "® Ana P\n@® Eino R.\nÆ Saga Eriksdotter\n")]
    [InlineData("twice", "Ana P\nEino R.\nAna P\nSaga Eriksdotter\n")]
    public void Layout(string what, string text)
    {
        Read(text).Rows.Select(r => r.Name).ShouldBe(Class, ignoreOrder: true, what);
        FileRecognition.CouldBe(Encoding.UTF8.GetBytes(text), Faroe, From, To, Class.Contains).ShouldBe([FileKind.People], what);
    }

    [Fact]
    public void The_moment_stands_in_it_or_is_asked()
    {
        Read("10:02\nAna P\nEino R.\n").At.ShouldBe(From + Duration.FromMinutes(32));
        Read("Ana P\nEino R.\n").At.ShouldBeNull();
        // Not every time of day is one of this lesson.
        Read("23:02\nAna P\nEino R.\n").At.ShouldBeNull();
    }

    [Theory]
    [InlineData("Name,Minutes\nAna P,47\nEino R.,12\nSaga Eriksdotter,50\n")]
    [InlineData("09:41 Ana P: why?\n09:42 Eino R.: because\n")]
    [InlineData("Ana P,yes\nEino R.,no\n")]
    [InlineData("Name;Joined;Left\nAna P;2026-11-02 09:28:00;2026-11-02 10:20:00\nEino R.;2026-11-02 09:31:00;2026-11-02 10:20:00\nSaga Eriksdotter;2026-11-02 09:31:00;2026-11-02 10:20:00\n")]
    [InlineData("Name;A;B\nAna P;x;y\nEino R.;x;y\n")]
    [InlineData("Ana P\t47\nEino R.\t12\nSaga Eriksdotter\t50\n")]
    [InlineData("somebody\nsomebody else\nnobody\n")]
    public void What_is_none(string text) => Read(text).IsOne.ShouldBeFalse();

    [Fact]
    public void What_is_wrong_is_said()
    {
        Should.Throw<FormatProblem>(() => Read("12\n13\n")).Message.ShouldContain("No names");
        Should.Throw<FormatProblem>(() => Read(string.Join('\n', Enumerable.Range(0, 2001).Select(i => $"Somebody {i}")))).Message.ShouldContain("2,000");
        Read($"Ana P\n{new string('x', 10_000)}\n").Rows[1].Problems.Single().ShouldContain("10,000 letters");
    }
}
