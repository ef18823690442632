using System.Text.RegularExpressions;
using NodaTime;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Questions;
using PoliteTally.Store;

namespace PoliteTally.Web.Tests;

/// <summary>Every kind of act, made of sample words and numbers: it has plain words, and comes back from the file as it went in.</summary>
public sealed partial class WordingTests
{
    public static TheoryData<string> Kinds => [.. ActJson.Kinds.Keys];

    [Theory]
    [MemberData(nameof(Kinds))]
    public void An_act_is_said_in_plain_words(string kind)
    {
        foreach (var act in Samples(ActJson.Kinds[kind]))
        {
            var words = act.InWords;
            words.ShouldNotBeNullOrWhiteSpace();
            NameOfCode().IsMatch(words).ShouldBeFalse(words);
            words.ShouldNotContain(act.GetType().Name, Case.Sensitive);
        }
    }

    [Theory]
    [MemberData(nameof(Kinds))]
    public void An_act_comes_back_from_the_file_as_it_went_in(string kind)
    {
        foreach (var act in Samples(ActJson.Kinds[kind]))
        {
            var written = ActJson.Write(act);
            written.ShouldStartWith($$"""{"type":"{{kind}}""");
            var read = ActJson.Read(written);
            read.ShouldBeOfType(act.GetType());
            ActJson.Write(read).ShouldBe(written);
        }
    }

    [Fact]
    public void No_kind_of_act_is_forgotten() =>
        ActJson.Kinds.Values.ShouldBe(typeof(Act).Assembly.GetTypes().Where(t => t.IsSubclassOf(typeof(Act)) && !t.IsAbstract), ignoreOrder: true);

    /// <summary>Acts of a kind: one of plain values, and for each of its parts one for every other value that matters.</summary>
    private static IEnumerable<Act> Samples(Type kind)
    {
        var made = kind.GetConstructors().MaxBy(c => c.GetParameters().Length)!;
        var values = made.GetParameters().Select(p => ValuesOf(p.ParameterType).ToList()).ToList();
        yield return (Act)made.Invoke([.. values.Select(v => v[0])]);
        for (var part = 0; part < values.Count; part++)
        {
            foreach (var other in values[part].Skip(1))
            {
                yield return (Act)made.Invoke([.. values.Select((v, i) => i == part ? other : v[0])]);
            }
        }
    }

    private static IEnumerable<object?> ValuesOf(Type type)
    {
        if (Nullable.GetUnderlyingType(type) is { } inner)
        {
            return ValuesOf(inner).Append(null);
        }

        return type switch
        {
            _ when type == typeof(Guid) => [Guid.Parse("0193a6f0-0000-7000-8000-000000000001")],
            _ when type == typeof(string) => ["the wind backs", ""],
            _ when type == typeof(bool) => [false, true],
            _ when type == typeof(int) => [5, -5],
            _ when type == typeof(decimal) => [0.5m],
            _ when type == typeof(Duration) => [Duration.FromMinutes(47)],
            _ when type == typeof(Answer) => [new Answer { Text = "it backs" }],
            _ when type == typeof(Question) => [StudentPageTests.Choice()],
            { IsEnum: true } => Enum.GetValues(type).Cast<object>(),
            { IsGenericType: true } => [Array.CreateInstance(type.GetGenericArguments()[0], 0)],
            _ => throw new InvalidOperationException($"No sample of {type.Name}: give one here."),
        };
    }

    // Two humps in a word, or an underscore, are names of the program.
    [GeneratedRegex("[a-z][A-Z]|_")]
    private static partial Regex NameOfCode();
}
