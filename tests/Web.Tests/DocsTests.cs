using System.Text.RegularExpressions;

namespace PoliteTally.Web.Tests;

/// <summary>The plan of the house and the ways through it lead to rooms that are there.</summary>
public sealed partial class DocsTests
{
    [Theory]
    [InlineData("architecture.md", 60)]
    [InlineData("ways.md", 10)]
    public void Whatever_it_names_is_there(string page, int least)
    {
        var text = File.ReadAllText(Path.Combine(FloorTests.Root(), "docs", page));
        var named = NamedPath().Matches(text).Select(m => m.Groups[1].Value).Distinct().ToList();
        named.Count.ShouldBeGreaterThan(least);
        named.Where(path => !Exists(path)).ShouldBeEmpty();
    }

    [Fact]
    public void A_path_that_is_not_there_would_be_seen() => Exists("Core/Hands/Feet.cs").ShouldBeFalse();

    /// <summary>From the root, from a project of ours, or, in the way of something, from the folder or by the name alone.</summary>
    private static bool Exists(string path)
    {
        var root = FloorTests.Root();
        var floor = path.Split('/') is [var first, .. var rest] && rest.Length > 0 ? Path.Combine(root, "src", $"PoliteTally.{first}", Path.Combine(rest)) : "";
        return File.Exists(Path.Combine(root, path)) || File.Exists(floor)
            || Everything.Value.Any(file => file.EndsWith($"/{path}", StringComparison.Ordinal));
    }

    private static readonly Lazy<IReadOnlyList<string>> Everything = new(() =>
    [
        .. new[] { "src", "web/src" }.SelectMany(folder => Directory.EnumerateFiles(Path.Combine(FloorTests.Root(), folder), "*.*", SearchOption.AllDirectories))
            .Where(f => !f.Contains("/obj/", StringComparison.Ordinal) && !f.Contains("/bin/", StringComparison.Ordinal)),
    ]);

    [GeneratedRegex(@"`([\w./-]+\.(?:cs|ts|vue|css|csv|sh|txt))`")]
    private static partial Regex NamedPath();
}
