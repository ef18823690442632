using System.Text;
using PoliteTally.Core.Merging;
using PoliteTally.Formats.Lines;

namespace PoliteTally.Formats.Tests;

/// <summary>One line is marked by hand, and the others are cut the same way.</summary>
public sealed class MarkedLinesTests
{
    private static MarkedPart Mark(string text, MarkedField field, string part)
    {
        var at = text.IndexOf(part, StringComparison.Ordinal);
        var line = text[..at].Count(c => c == '\n');
        var from = at - (text.LastIndexOf('\n', at) + 1);
        return new MarkedPart(field, line, from, from + part.Length);
    }

    private static MarkedExample Example(string text, params (MarkedField Field, string Part)[] marks)
    {
        var parts = marks.Select(m => Mark(text, m.Field, m.Part)).ToList();
        var (first, last) = (parts.Min(p => p.Line), parts.Max(p => p.Line));
        return new MarkedExample(text.Split('\n')[first..(last + 1)], parts.ConvertAll(p => p with { Line = p.Line - first }));
    }

    private static (string[] Rows, FileKind Kind) Cut(string text, params (MarkedField Field, string Part)[] marks)
    {
        var (table, kind) = MarkedLines.Cut(Encoding.UTF8.GetBytes(text), Example(text, marks).Blanked());
        return ([.. Encoding.UTF8.GetString(table).Split("\"\n\"").Skip(1).Select(r => r.Trim('"').Replace("\"\t\"", " | "))], kind);
    }

    [Fact]
    public void A_message_in_a_line_is_cut_as_the_marked_one()
    {
        const string Chat = "msg 1 ~~ Juno Quillfeather ~~ low water ~~ 09:41\nmsg 22 ~~ Pip ~~ why? ~~ 9:42\nand when\n";
        var (rows, kind) = Cut(Chat, (MarkedField.Name, "Juno Quillfeather"), (MarkedField.Words, "low water"), (MarkedField.Time, "09:41"));
        kind.ShouldBe(FileKind.Chat);
        rows.ShouldBe(["Juno Quillfeather | low water | 09:41", "Pip | why? | 9:42"]);
    }

    [Fact]
    public void Lines_that_are_cut_otherwise_go_on_with_the_message_before()
    {
        var (rows, _) = Cut("(9:41 AM) Juno => low water\n(10:02 AM) Pip => why?\nand when\n\n(1:00 PM) Saga => now", (MarkedField.Time, "9:41 AM"), (MarkedField.Name, "Juno"), (MarkedField.Words, "low water"));
        rows.ShouldBe(["9:41 AM | Juno | low water", "10:02 AM | Pip | why?\nand when", "1:00 PM | Saga | now"]);
    }

    [Fact]
    public void A_message_may_stand_in_lines_under_one_another()
    {
        var (rows, _) = Cut("Juno (student)\nlow water\nat 09:41\n\nPip (student)\nwhy?\nat 09:42\n", (MarkedField.Name, "Juno"), (MarkedField.Words, "low water"), (MarkedField.Time, "09:41"));
        rows.ShouldBe(["Juno | low water | 09:41", "Pip | why? | 09:42"]);
    }

    [Fact]
    public void Marks_say_what_kind_it_is()
    {
        Cut("* Juno, in at 09:31, out at 10:20\n* Pip, in at 09:35, out at 10:19\n", (MarkedField.Name, "Juno"), (MarkedField.Joined, "09:31"), (MarkedField.Left, "10:20"))
            .ShouldSatisfyAllConditions(c => c.Kind.ShouldBe(FileKind.Attendance), c => c.Rows.ShouldBe(["Juno | 09:31 | 10:20", "Pip | 09:35 | 10:19"]));
        Cut("Juno has tide\nPip has ebb\n", (MarkedField.Name, "Juno"), (MarkedField.Answer, "tide")).Kind.ShouldBe(FileKind.Answers);
        Cut("- Juno (in)\n- Pip Farrow (in)\n", (MarkedField.Name, "Juno")).ShouldSatisfyAllConditions(c => c.Kind.ShouldBe(FileKind.People), c => c.Rows.ShouldBe(["Juno", "Pip Farrow"]));
    }

    [Theory]
    [InlineData(MarkedField.Time, 0, 0, 5, "The name is not marked")]
    [InlineData(MarkedField.Name, 0, 6, 400, "Mark them again")]
    [InlineData(MarkedField.Name, 9, 0, 4, "Mark them again")]
    [InlineData(MarkedField.Name, -1, 0, 4, "Mark them again")]
    [InlineData(MarkedField.Name, 0, 6, 6, "Mark them again")]
    public void Marks_that_fit_nothing_are_refused(MarkedField field, int line, int from, int to, string why) =>
        Should.Throw<FormatProblem>(() => MarkedLines.Cut("09:41 Juno: low water"u8.ToArray(), new MarkedExample(["09:41 Juno: low water"], [new MarkedPart(field, line, from, to)]))).Message.ShouldContain(why);

    [Fact]
    public void Marks_over_each_other_or_one_thing_twice_are_refused()
    {
        static string Refused(params MarkedPart[] parts) => Should.Throw<FormatProblem>(() => MarkedLines.Cut("x"u8.ToArray(), new MarkedExample(["09:41 Juno: low water"], parts))).Message;
        Refused(new(MarkedField.Name, 0, 6, 10), new(MarkedField.Answer, 0, 8, 15)).ShouldContain("over each other");
        Refused(new(MarkedField.Name, 0, 6, 10), new(MarkedField.Name, 0, 12, 15)).ShouldContain("twice");
        Refused().ShouldContain("not understood");
    }

    [Fact]
    public void Of_an_example_that_is_kept_nobody_can_tell_whom_it_was_about()
    {
        const string Line = "09:41 Juno => low water";
        Example(Line, (MarkedField.Time, "09:41"), (MarkedField.Name, "Juno"), (MarkedField.Words, "low water")).Blanked().Lines.ShouldBe(["09:41 xxxx => xxxxxxxxx"]);
    }

    [Fact]
    public void A_long_line_of_nothing_but_signs_costs_little()
    {
        var text = "09:41 ((((((((((((((((((((Juno))))))))) low water\n" + string.Join('\n', Enumerable.Repeat(new string('(', 4_000), 200));
        Cut(text, (MarkedField.Time, "09:41"), (MarkedField.Name, "Juno"), (MarkedField.Words, "low water")).Rows.Length.ShouldBe(1);
    }

    [Fact]
    public void Lines_to_be_marked_are_those_of_a_text()
    {
        MarkedLines.Of("a\r\nb\n"u8.ToArray()).ShouldBe(["a", "b", ""]);
        MarkedLines.Of([0x50, 0x4B, 3, 4, 0]).ShouldBeEmpty();
    }
}
