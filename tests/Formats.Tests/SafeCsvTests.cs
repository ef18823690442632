using System.Text;

namespace PoliteTally.Formats.Tests;

public sealed class SafeCsvTests
{
    private static string Written(string cell) => Encoding.UTF8.GetString(SafeCsv.Write(["Name"], [[cell]]))[1..].Split("\r\n")[1];

    [Theory]
    [InlineData("=1+1", "'=1+1")]
    [InlineData("+1", "'+1")]
    [InlineData("-1", "'-1")]
    [InlineData("@SUM(A1)", "'@SUM(A1)")]
    [InlineData(" =1+1", "' =1+1")]
    [InlineData("＝1+1", "'＝1+1")]
    [InlineData("\t=1", "\"'\t'=1\"")]
    [InlineData("Semi;=1+1", "\"Semi;'=1+1\"")]
    [InlineData("Semi; @SUM(A1)", "\"Semi; '@SUM(A1)\"")]
    [InlineData("two;;-1", "\"two;;'-1\"")]
    [InlineData("Tab\t=1+1", "\"Tab\t'=1+1\"")]
    [InlineData("bar|+1", "\"bar|'+1\"")]
    [InlineData("row\n=1+1", "row\n'=1+1")]
    [InlineData("Semi; one = two", "\"Semi; one = two\"")]
    [InlineData("Juno", "Juno")]
    [InlineData("Sørbø, Ingvild", "\"Sørbø, Ingvild\"")]
    [InlineData("said \"hi\"", "\"said \"\"hi\"\"\"")]
    public void No_cell_can_become_a_formula(string cell, string written) => Written(cell).ShouldBe(written);

    [Fact]
    public void The_file_says_that_it_is_UTF_8() => SafeCsv.Write(["Name"], []).Take(3).ShouldBe([0xEF, 0xBB, 0xBF]);
}
