using System.Text.Json.Nodes;
using CsCheck;

namespace PoliteTally.Formats.Tests;

public sealed class JsonMergeTests
{
    [Fact]
    public void Members_and_items_of_one_name_spoil_nothing()
    {
        var (merged, conflicts) = JsonMerge.Of(
            JsonNode.Parse("""{"a":1,"list":[{"id":1,"x":1},{"id":1,"x":2}]}"""), JsonNode.Parse("""{"a":1,"a":2,"list":[{"id":1,"x":1},{"id":1,"x":3}]}"""),
            JsonNode.Parse("""{"a":1,"b":null,"list":[{"id":1,"x":1},{"id":1,"x":2}]}"""));
        merged!.ToJsonString().ShouldBe("""{"a":2,"list":[{"id":1,"x":1},{"id":1,"x":3}],"b":null}""");
        conflicts.ShouldBeEmpty();
    }

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

/// <summary>What holds of merging whatever was changed.</summary>
public sealed class JsonMergeAlwaysTrueTests
{
    private static readonly Gen<(string Id, int Value)> Item = Gen.Select(Gen.Int[0, 7], Gen.Int[0, 3]).Select((id, value) => ($"i{id}", value));

    private static readonly Gen<JsonNode> Document = Gen.Select(Gen.Int[0, 2], Item.Array[0, 6]).Select((name, items) => (JsonNode)new JsonObject
    {
        ["name"] = $"n{name}",
        ["items"] = new JsonArray([.. items.DistinctBy(i => i.Id).Select(i => new JsonObject { ["id"] = i.Id, ["value"] = i.Value })]),
    });

    private static HashSet<string> Ids(JsonNode? document) => [.. document!["items"]!.AsArray().Select(i => i!["id"]!.ToString())];

    [Fact]
    public void With_nothing_changed_on_one_side_the_other_side_stands() => Gen.Select(Document, Document).Sample((origin, changed) =>
        JsonNode.DeepEquals(JsonMerge.Of(origin, changed, origin).Merged, changed)
        && JsonNode.DeepEquals(JsonMerge.Of(origin, origin, changed).Merged, changed)
        && JsonMerge.Of(origin, changed, origin).Conflicts.Count == 0);

    [Fact]
    public void The_same_change_twice_is_that_change() => Gen.Select(Document, Document).Sample((origin, changed) =>
        JsonNode.DeepEquals(JsonMerge.Of(origin, changed, changed).Merged, changed) && JsonMerge.Of(origin, changed, changed).Conflicts.Count == 0);

    [Fact]
    public void Nothing_that_anybody_added_or_kept_on_both_sides_is_lost_and_nothing_is_there_twice() => Gen.Select(Document, Document, Document).Sample((origin, mine, theirs) =>
    {
        var merged = JsonMerge.Of(origin, mine, theirs).Merged;
        var (was, here, there, now) = (Ids(origin), Ids(mine), Ids(theirs), Ids(merged));
        var items = merged!["items"]!.AsArray();
        return here.Except(was).All(now.Contains) && there.Except(was).All(now.Contains) && here.Intersect(there).All(now.Contains)
            && now.All(id => here.Contains(id) || there.Contains(id)) && items.Count == now.Count;
    });

    [Fact]
    public void Of_two_values_one_stands_and_the_other_is_handed_back() => Gen.Select(Document, Document, Document).Sample((origin, mine, theirs) =>
    {
        var (merged, conflicts) = JsonMerge.Of(origin, mine, theirs);
        var (a, b, c) = (origin["name"]!.ToString(), mine["name"]!.ToString(), theirs["name"]!.ToString());
        var clash = a != b && a != c && b != c;
        return conflicts.Any(x => x.Path is ["name"] && x.Mine == b && x.Theirs == c) == clash
            && merged!["name"]!.ToString() == (b != a ? b : c);
    });
}
