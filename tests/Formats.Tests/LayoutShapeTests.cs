using System.Text;

namespace PoliteTally.Formats.Tests;

/// <summary>A layout is known again by its headings or its cuts, and not by who stands in it.</summary>
public sealed class LayoutShapeTests
{
    private static string? Of(string text) => LayoutShape.Of(Encoding.UTF8.GetBytes(text));

    [Theory]
    [InlineData("Who,In,Out\nJuno Quillfeather,09:31,10:20\n", "who, in ,OUT\r\n\"Árnason, Birkir\",09:40,\r\n")]
    [InlineData("7 ~ Juno Quillfeather ~ swell\n8 ~ Pip ~ ebb\n", "11 ~ Eino R. ~ spring tide, I think\n12 ~ D'Ambrosio-Lund ~ neap\n\n13 ~ X ~ ?\n")]
    [InlineData("Tide diary, Monday\n7 ~ Juno ~ swell\n8 ~ Saga ~ flood\n", "1 ~ Pip ~ ebb\n")]
    [InlineData("[09:41] Juno: why?\n[09:42] Pip: so that\n", "[10:05] Saga Eriksdotter: (nothing)\nand more\n[10:06] Juno: 5\n")]
    public void Files_of_one_layout_are_alike(string one, string other) => Of(one).ShouldNotBeNull().ShouldBe(Of(other));

    [Theory]
    [InlineData("Who,In,Out\nJuno,09:31,10:20\n", "Who,Out,In\nJuno,10:20,09:31\n")]
    [InlineData("7 ~ Juno ~ swell\n", "Juno ~ swell ~ 7\n")]
    [InlineData("[09:41] Juno: why?\n", "(09:41) Juno: why?\n")]
    public void Files_of_two_layouts_are_not(string one, string other) => Of(one).ShouldNotBe(Of(other));

    [Fact]
    public void Of_what_is_no_text_or_nothing_but_words_nothing_is_told()
    {
        Of(" \n\n").ShouldBeNull();
        Of("Juno Quillfeather\nEino R.\n").ShouldBeNull("a list of names is like any letter");
        LayoutShape.Of([0x50, 0x4B, 3, 4, 0]).ShouldBeNull();
        LayoutShape.Of([]).ShouldBeNull();
    }
}
