using System.Text.RegularExpressions;
using ArchUnitNET.Domain;
using ArchUnitNET.Fluent.Slices;
using ArchUnitNET.Loader;
using Assembly = System.Reflection.Assembly;

namespace PoliteTally.Web.Tests;

/// <summary>Four floors, each of which imports only from below; and on each floor rooms without a circle.</summary>
public sealed partial class FloorTests
{
    private static readonly Architecture House = new ArchLoader().LoadAssemblies(
        [.. new[] { "Core", "Formats", "Store", "Demo", "Web" }.Select(floor => Assembly.Load($"PoliteTally.{floor}"))]).Build();

    [Theory]
    [InlineData("PoliteTally.Core", "PoliteTally.(Formats|Store|Demo|Web)|Microsoft.(EntityFrameworkCore|AspNetCore|Data)|System.Text.Json|System.IO|System.Net")]
    [InlineData("PoliteTally.Formats", "PoliteTally.(Store|Demo|Web)|Microsoft.(EntityFrameworkCore|AspNetCore|Data)")]
    [InlineData("PoliteTally.Store", "PoliteTally.(Formats|Demo|Web)|Microsoft.AspNetCore.(Http|SignalR)")]
    [InlineData("PoliteTally.Demo", "PoliteTally.Web|Microsoft.AspNetCore.Http")]
    public void A_floor_imports_only_from_below(string floor, string above)
    {
        var types = House.Types.Where(t => IsIn(t.FullName, floor)).ToList();
        types.ShouldNotBeEmpty();
        var reaching = from type in types
                       from dependency in type.Dependencies
                       where IsIn(dependency.Target.FullName, above)
                       select $"{type.FullName} → {dependency.Target.FullName}";
        reaching.ShouldBeEmpty();
    }

    [Theory]
    [InlineData("PoliteTally.Core.(*)")]
    [InlineData("PoliteTally.Formats.(*)")]
    [InlineData("PoliteTally.Store.(*)")]
    [InlineData("PoliteTally.Demo.(*)")]
    [InlineData("PoliteTally.Web.(*)")]
    [InlineData("PoliteTally.Web.Features.(*)")]
    public void No_rooms_of_a_floor_stand_in_a_circle(string rooms)
    {
        var rule = SliceRuleDefinition.Slices().Matching(rooms).Should().BeFreeOfCycles();
        rule.Evaluate(House).Where(r => !r.Passed).Select(r => r.Description).ShouldBeEmpty();
    }

    [Fact]
    public void A_circle_would_be_found()
    {
        var tests = new ArchLoader().LoadAssemblies(typeof(FloorTests).Assembly).Build();
        SliceRuleDefinition.Slices().Matching("PoliteTally.Web.Tests.Circle.(*)").Should().BeFreeOfCycles().HasNoViolations(tests).ShouldBeFalse();
    }

    [Fact]
    public void The_core_asks_no_clock()
    {
        var asking = from type in House.Types.Where(t => IsIn(t.FullName, "PoliteTally.Core"))
                     from dependency in type.Dependencies
                     where dependency.Target.FullName is "NodaTime.SystemClock" or "System.DateTime" or "System.DateTimeOffset" or "System.TimeProvider"
                     select $"{type.FullName} → {dependency.Target.FullName}";
        asking.ShouldBeEmpty();
    }

    [Fact]
    public void The_stand_ins_know_nothing_of_the_application() =>
        File.ReadAllText(Path.Combine(Root(), "src", "PoliteTally.StandIns", "PoliteTally.StandIns.csproj")).ShouldNotContain("ProjectReference");

    /// <summary>The front end has rooms, too: the folders of <c>web/src</c>, and each feature.</summary>
    [Fact]
    public void No_rooms_of_the_front_end_stand_in_a_circle()
    {
        var source = Path.Combine(Root(), "web", "src");
        var files = Directory.EnumerateFiles(source, "*", SearchOption.AllDirectories).Where(f => f.EndsWith(".ts", StringComparison.Ordinal) || f.EndsWith(".vue", StringComparison.Ordinal))
            .Where(f => !f.EndsWith(".test.ts", StringComparison.Ordinal));
        var arrows = files.SelectMany(file => ImportOf().Matches(File.ReadAllText(file))
            .Select(m => (From: RoomOf(file), To: RoomOf(Path.GetFullPath(Path.Combine(Path.GetDirectoryName(file)!, m.Groups[1].Value))))))
            .Where(a => a.From != a.To).ToLookup(a => a.From, a => a.To);
        arrows.ShouldNotBeEmpty();
        arrows.Select(a => CircleThrough(a.Key, [])).Where(c => c is not null).ShouldBeEmpty();

        string RoomOf(string file) => string.Join('/', Path.GetRelativePath(source, file).Split('/') is ["features", var feature, ..]
            ? ["features", feature]
            : Path.GetRelativePath(source, file).Split('/')[..^1] is [var room, ..] ? [room] : ["its root"]);

        string? CircleThrough(string room, string[] way) =>
            way.Contains(room) ? (way[0] == room ? string.Join(" → ", way.Append(room)) : null)
            : arrows[room].Distinct().Select(next => CircleThrough(next, [.. way, room])).FirstOrDefault(c => c is not null);
    }

    private static bool IsIn(string type, string namespaces) => Regex.IsMatch(type, $"^({namespaces.Replace(".", @"\.", StringComparison.Ordinal)})\\.");

    internal static string Root()
    {
        var root = new DirectoryInfo(AppContext.BaseDirectory);
        while (!File.Exists(Path.Combine(root!.FullName, "PoliteTally.slnx")))
        {
            root = root.Parent;
        }

        return root.FullName;
    }

    [GeneratedRegex(@"(?:from|import)\s*\(?\s*'(\.{1,2}/[^']+)'")]
    private static partial Regex ImportOf();
}
