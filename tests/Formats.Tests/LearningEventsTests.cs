using System.Text;
using NodaTime;

namespace PoliteTally.Formats.Tests;

public sealed class LearningEventsTests
{
    private static readonly LearningEvent Answer = new(
        Guid.Parse("019a0000-0000-7000-8000-000000000001"), "S1021", "Eino Rautio", LearningVerb.Answered, Guid.Parse("019a0000-0000-7000-8000-000000000002"), "Air has weight.",
        Instant.FromUtc(2026, 11, 16, 9, 41), Guid.Parse("019a0000-0000-7000-8000-000000000003"), Duration.FromMinutes(1), 0.5m, "true");

    [Fact]
    public void An_answer_is_a_valid_statement() =>
        StandardStatements.Read(LearningEvents.Write([Answer])).Single().ShouldBe(new StandardStatement(
            $"{Answer.Id}", "Eino Rautio", "answered", $"https://polite-tally.example/questions/{Answer.About}", $"https://polite-tally.example/lessons/{Answer.Lesson}", 0.5m, "true"));

    [Fact]
    public void Every_verb_is_one_and_nothing_is_written_of_what_is_not_known()
    {
        var all = Enum.GetValues<LearningVerb>().Select((v, i) => Answer with { Id = new Guid(i + 1, 0, 0, new byte[8]), Verb = v, For = null, Scaled = null, Said = null }).ToList();
        StandardStatements.Read(LearningEvents.Write(all)).Select(s => s.Verb).ShouldBe(["attended", "responded", "answered", "asked", "commented", "scored"]);
        Encoding.UTF8.GetString(LearningEvents.Write(all)).ShouldNotContain("result");
    }

    [Fact]
    public void The_reader_of_these_tests_finds_what_breaks_the_standard()
    {
        string With(string from, string to) => Encoding.UTF8.GetString(LearningEvents.Write([Answer])).Replace(from, to, StringComparison.Ordinal);
        foreach (var (from, to) in new[] { ("\"id\": \"019a", "\"id\": \"x19a"), ("http://adlnet.gov/expapi/verbs/", ""), ("0.5", "1.5"), ("PT60S", "60 s"), ("\"timestamp\"", "\"time\""), ("Z\"", "\"") })
        {
            Should.Throw<FormatException>(() => StandardStatements.Read(Encoding.UTF8.GetBytes(With(from, to))), from);
        }
    }

    [Fact]
    public void Of_nothing_there_is_an_empty_list() => StandardStatements.Read(LearningEvents.Write([])).ShouldBeEmpty();
}
