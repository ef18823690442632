using System.Text.Json.Nodes;

namespace PoliteTally.Formats.Tests;

public sealed class JsonMergeTests
{
    private const string Origin = """{"name":"Fog","stages":[{"id":"a","m":5},{"id":"b","m":10},{"id":"c","m":15}]}""";

    private static (string Merged, string Conflicts) Merge(string origin, string mine, string theirs)
    {
        var (merged, conflicts) = JsonMerge.Of(JsonNode.Parse(origin), JsonNode.Parse(mine), JsonNode.Parse(theirs));
        return (merged!.ToJsonString(), string.Join(';', conflicts.Select(c => $"{string.Join('/', c.Path)}:{c.Mine}<>{c.Theirs}")));
    }

    private static string Stages(params string[] stages) => $$"""{"name":"Fog","stages":[{{string.Join(',', stages)}}]}""";

    private const string A = """{"id":"a","m":5}""", B = """{"id":"b","m":10}""", C = """{"id":"c","m":15}""", D = """{"id":"d","m":1}""", E = """{"id":"e","m":2}""";

    public static TheoryData<string, string, string, string, string> Changes() => new()
    {
        // told, mine, theirs, merged, conflicts
        { "only I changed", Stages(A, B), Origin, Stages(A, B), "" },
        { "only they changed", Origin, Stages(A, B), Stages(A, B), "" },
        { "both the same", Stages(A), Stages(A), Stages(A), "" },
        { "different places", Stages(A, """{"id":"b","m":12}""", C), """{"name":"Haar","stages":[{"id":"a","m":5},{"id":"b","m":10},{"id":"c","m":15}]}""", """{"name":"Haar","stages":[{"id":"a","m":5},{"id":"b","m":12},{"id":"c","m":15}]}""", "" },
        { "different items", Stages("""{"id":"a","m":6}""", B, C), Stages(A, B, """{"id":"c","m":16}"""), Stages("""{"id":"a","m":6}""", B, """{"id":"c","m":16}"""), "" },
        { "the same place", Stages("""{"id":"a","m":6}""", B, C), Stages("""{"id":"a","m":7}""", B, C), Stages("""{"id":"a","m":6}""", B, C), "stages/1/m:6<>7" },
        { "both added", Stages(A, D, B, C), Stages(A, B, C, E), Stages(A, D, B, C, E), "" },
        { "I took out, they left alone", Stages(A, C), Stages("""{"id":"a","m":9}""", B, C), Stages("""{"id":"a","m":9}""", C), "" },
        { "I took out, they changed: kept", Stages(A, C), Stages(A, """{"id":"b","m":11}""", C), Stages(A, """{"id":"b","m":11}""", C), "" },
        { "I moved, they changed", Stages(C, A, B), Stages(A, """{"id":"b","m":11}""", C), Stages(C, A, """{"id":"b","m":11}"""), "" },
        { "they moved, I changed", Stages(A, """{"id":"b","m":11}""", C), Stages(C, A, B), Stages(C, A, """{"id":"b","m":11}"""), "" },
        { "I moved, they added", Stages(B, A, C), Stages(A, B, C, D), Stages(B, A, C, D), "" },
    };

    [Theory]
    [MemberData(nameof(Changes))]
    public void Two_changes_are_brought_together(string told, string mine, string theirs, string merged, string conflicts)
    {
        var result = Merge(Origin, mine, theirs);
        result.Merged.ShouldBe(merged, told);
        result.Conflicts.ShouldBe(conflicts, told);
    }
}
