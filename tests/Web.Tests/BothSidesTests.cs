using System.Globalization;
using System.Text.RegularExpressions;
using PoliteTally.Formats;
using PoliteTally.Web.Features.StudentPage;

namespace PoliteTally.Web.Tests;

/// <summary>What browser and server must say alike, and each says for itself.</summary>
public sealed partial class BothSidesTests
{
    [Fact]
    public void The_largest_file() => NumberIn("api/client.ts", LargestFile()).ShouldBe([FileSize.Largest]);

    [Fact]
    public void How_far_apart_the_signs_of_life_of_a_student_page_are() =>
        NumberIn("live/hubConnection.ts", SignsOfLife()).ShouldBe([(int)PageHub.SignOfLife.TotalMilliseconds, (int)PageHub.GivenUp.TotalMilliseconds]);

    private static IEnumerable<int> NumberIn(string file, Regex where) =>
        where.Match(File.ReadAllText(Path.Combine(FloorTests.Root(), "web", "src", file))).Groups.Values.Skip(1)
            .Select(number => int.Parse(number.Value.Replace("_", "", StringComparison.Ordinal), CultureInfo.InvariantCulture));

    [GeneratedRegex(@"largestFile = ([\d_]+)")]
    private static partial Regex LargestFile();

    [GeneratedRegex(@"serverTimeoutInMilliseconds\] = \[([\d_]+), ([\d_]+)\]")]
    private static partial Regex SignsOfLife();
}
