using System.Text;
using NodaTime;
using PoliteTally.Core.Merging;

namespace PoliteTally.Formats.Tests;

/// <summary>A saved chat is read whatever it looks like: every form here says the same three messages.</summary>
public sealed class ChatFileTests
{
    private static readonly Instant From = Instant.FromUtc(2026, 11, 2, 9, 30);
    private static readonly DateTimeZone Faroe = DateTimeZoneProviders.Tzdb["Atlantic/Faroe"];

    private static ChatPreview Read(string text, IReadOnlyDictionary<string, int>? mapping = null) => ChatFile.Read(Encoding.UTF8.GetBytes(text), mapping, Faroe, From, _ => false);

    private static IReadOnlyList<FileKind> CouldBe(string text) =>
        FileRecognition.CouldBe(Encoding.UTF8.GetBytes(text), Faroe, From, From + Duration.FromMinutes(50), _ => false);

    /// <summary>The same chat in many layouts: Ana asks at 09:41:22, Eino answers at 09:41:40 in two lines, Ana writes to the teacher alone at 09:43:05.</summary>
    public static readonly TheoryData<string, string> Layouts = new()
    {
        { "a table", "Time,From,To,Message\n09:41:22,Ana P,Everyone,why does the wind back here?\n09:41:40,Eino R.,Everyone,\"because a low passes north of us, I think\"\n09:43:05,Ana P,Tamsin Vale,may I go now please?\n" },
        { "a table without headings", "2026-11-02 09:41:22;Ana P;Everyone;why does the wind back here?\n2026-11-02 09:41:40;Eino R.;Everyone;because a low passes north of us, I think\n2026-11-02 09:43:05;Ana P;Tamsin Vale;may I go now please?\n" },
        { "headings in German", "Uhrzeit\tVon\tAn\tNachricht\n09:41:22\tAna P\tAlle\twhy does the wind back here?\n09:41:40\tEino R.\tAlle\tbecause a low passes north of us, I think\n09:43:05\tAna P\tTamsin Vale\tmay I go now please?\n" },
        { "from and to in a line", "09:41:22 From Ana P to Everyone: why does the wind back here?\n09:41:40 From Eino R. to Everyone: because a low passes north of us, I think\n09:43:05 From Ana P to Tamsin Vale: may I go now please?\n" },
        { "in German", "09:41:22 Von Ana P an Alle: why does the wind back here?\n09:41:40 Von Eino R. an Alle: because a low passes north of us, I think\n09:43:05 Von Ana P an Tamsin Vale: may I go now please?\n" },
        { "brackets, and a line that goes on", "[09:41:22] Ana P: why does the wind back here?\n[09:41:40] Eino R.: because a low passes north of us,\nI think\n[09:43:05] Ana P to Tamsin Vale: may I go now please?\n" },
        { "date and dash", "02/11/2026, 09:41:22 - Ana P: why does the wind back here?\n02/11/2026, 09:41:40 - Eino R.: because a low passes north of us, I think\n02/11/2026, 09:43:05 - Ana P to Tamsin Vale: may I go now please?\n" },
        { "in UTC", "2026-11-02T09:41:22Z Ana P: why does the wind back here?\n2026-11-02T09:41:40Z Eino R.: because a low passes north of us, I think\n2026-11-02T09:43:05Z Ana P to Tamsin Vale: may I go now please?\n" },
        { "in angles", "09:41:22 <Ana P> why does the wind back here?\n09:41:40 <Eino R.> because a low passes north of us, I think\n09:43:05 <Ana P> may I go now please?\n" },
        { "time after the name", "Ana P (09:41:22): why does the wind back here?\nEino R. (09:41:40): because a low passes north of us, I think\nAna P to Tamsin Vale (09:43:05): may I go now please?\n" },
        { "blocks under name and time", "Ana P  09:41:22\nwhy does the wind back here?\n\nEino R.  09:41:40\nbecause a low passes north of us,\nI think\n\nAna P to Tamsin Vale  09:43:05\nmay I go now please?\n" },
        { "blocks under time and name", "09:41:22 Ana P\n  why does the wind back here?\n09:41:40 Eino R.\n  because a low passes north of us,\n  I think\n09:43:05 Ana P to Tamsin Vale\n  may I go now please?\n" },
        { "JSON", """[{"sent":"2026-11-02T09:41:22Z","sender":{"name":"Ana P"},"text":"why does the wind back here?"},{"sent":"2026-11-02T09:41:40Z","sender":{"name":"Eino R."},"text":"because a low passes north of us, I think"},{"sent":"2026-11-02T09:43:05Z","sender":{"name":"Ana P"},"to":"Tamsin Vale","text":"may I go now please?"}]""" },
        { "JSON, deeper", """{"meeting":{"title":"Tides"},"chat":{"messages":[{"at":"09:41:22","author":"Ana P","body":"why does the wind back here?"},{"at":"09:41:40","author":"Eino R.","body":"because a low passes north of us, I think"},{"at":"09:43:05","author":"Ana P","body":"may I go now please?"}]}}""" },
    };

    [Theory]
    [MemberData(nameof(Layouts))]
    public void Layout(string what, string text)
    {
        var chat = Read(text);
        chat.Problems.ShouldBeEmpty(what);
        chat.Rows.ShouldAllBe(r => r.Problems.Count == 0);
        chat.Rows.Select(r => (r.Name, r.At, r.Text)).ShouldBe(
        [
            ("Ana P", From + Duration.FromSeconds(682), "why does the wind back here?"), ("Eino R.", From + Duration.FromSeconds(700), "because a low passes north of us, I think"),
            ("Ana P", From + Duration.FromSeconds(785), "may I go now please?"),
        ]);
        if (text.Contains("Tamsin"))
        {
            chat.Rows.Select(r => r.Private).ShouldBe([false, false, true], what);
        }

        CouldBe(text).ShouldBe([FileKind.Chat], what);
    }

    /// <summary>What is read of one line among others like it: the name, the words, and whether it was private.</summary>
    [Theory]
    [InlineData("09:41:00 Amund Vik: hi there", "Amund Vik", "hi there", false)]
    [InlineData("13:05:00 Pmela Para: after noon", "Pmela Para", "after noon", false)]
    [InlineData("09:41:00 Ana P > everyone: hi there", "Ana P", "hi there", false)]
    [InlineData("09:41:00 Benta do Carmo: hi there", "Benta do Carmo", "hi there", false)]
    [InlineData("09:41:00 Thi An Pham to Everyone: hi there", "Thi An Pham", "hi there", false)]
    [InlineData("09:41:00 Ana P: what I think:", "Ana P", "what I think:", false)]
    [InlineData("09:41:00 Ana P: done :)", "Ana P", "done :)", false)]
    [InlineData("09:41:00 Ana P: because it backs (edited)", "Ana P", "because it backs", false)]
    [InlineData("09:41:00 Ana P (to Tamsin Vale only): may I go", "Ana P", "may I go", true)]
    [InlineData("09:41:00 Ana P (privately): may I go", "Ana P", "may I go", true)]
    [InlineData("09:41:00 Ana P to Eino R., Everyone: hi there", "Ana P", "hi there", false)]
    [InlineData("09:41:00 Ana P: hi there\n> what somebody else wrote", "Ana P", "hi there", false)]
    [InlineData("09:41:00 Ana P: This message was deleted", null, null, false)]
    [InlineData("09:41:00 Ana P: joined the meeting", null, null, false)]
    [InlineData("09:41:00 Ana P: reacted to “a low passes” with 👍", null, null, false)]
    public void A_line(string line, string? name, string? words, bool isPrivate)
    {
        var rows = Read($"09:40:00 Eino R.: because a low passes\n09:40:30 Eino R.: I think\n{line}\n09:50:00 Eino R.: and so on\n").Rows;
        rows.Select(r => (r.Name, r.Text, r.Private)).Skip(2).SkipLast(1).ShouldBe(name is null ? [] : [(name, words!, isPrivate)]);
    }

    /// <summary>Benta writes as well, and do Carmo is a family name: neither makes a part of somebody's name an addressee.</summary>
    [Fact]
    public void A_short_word_within_a_name_of_the_class_parts_nothing()
    {
        var here = new MadeUp.MadeUpClass();
        var chat = ChatFile.Read(Encoding.UTF8.GetBytes("09:41:00 Benta: hi there\n09:41:30 Benta do Carmo: and me\n09:42:00 Juno Quillfeather: hello\n"), null, Faroe, From, here.IsNameHere);
        chat.Rows.Select(r => (r.Name, r.Private)).ShouldBe([("Benta", false), ("Benta do Carmo", false), ("Juno Quillfeather", false)]);
    }

    /// <summary>Words before the name: where names of the class stand is the name. If nobody of the class is known, it is asked about until the columns are said.</summary>
    [Fact]
    public void Words_before_the_name()
    {
        ChatPreview Of(Func<string, bool> isNameHere, IReadOnlyDictionary<string, int>? mapping = null) =>
            ChatFile.Read(Encoding.UTF8.GetBytes("09:41:00 hi there: Juno Quillfeather\n09:41:30 a low passes: Eino Rautio\n09:42:00 and it rains: Juno Quillfeather\n"), mapping, Faroe, From, isNameHere);
        Of(name => name is "Juno Quillfeather" or "Eino Rautio").Rows.Select(r => (r.Name, r.Text)).ShouldBe([("Juno Quillfeather", "hi there"), ("Eino Rautio", "a low passes"), ("Juno Quillfeather", "and it rains")]);
        Of(_ => false).Unclear.ShouldHaveSingleItem().ShouldBe("“hi there”, “a low passes”, “and it rains” are taken for names, and nobody in the class is called that.");
        Of(_ => false, new Dictionary<string, int> { ["time"] = 0, ["text"] = 1, ["name"] = 3 }).Unclear.ShouldBeEmpty();
    }

    [Fact]
    public void Lines_that_nobody_said_are_left_out_and_counted()
    {
        var chat = Read("09:30:01 Ana P came in\n09:41:22 Ana P: why does the wind back?\n09:41:30 Eino R.: 👍👍\n09:41:40 Eino R.: a low passes\n09:50:00 The recording was paused\n");
        chat.Rows.Select(r => r.Text).ShouldBe(["why does the wind back?", "a low passes"]);
        chat.LeftOut.ShouldBe(3);
    }

    [Theory]
    [InlineData("Name,Joined,Left\nAna P,2026-11-02 09:31:00,2026-11-02 10:20:00\nEino R.,2026-11-02 09:32:00,\n")]
    [InlineData("Timestamp,Participant,Action\n2026-11-02 09:31:00,Ana P,joined\n2026-11-02 10:00:00,Ana P,left\n")]
    [InlineData("Participant,E-mail,Role,Join time,Leave time\nAna P,ana@skerrysound.example,Participant,09:31:00,10:20:00\nEino R.,eino@skerrysound.example,Participant,09:31:30,10:20:00\n")]
    [InlineData("Name,Minutes\nAna P,47\nEino R.,45\n")]
    public void An_attendance_list_is_none(string text) => CouldBe(text).ShouldBe([FileKind.Attendance]);

    [Theory]
    [InlineData("", "empty")]
    [InlineData("Dear all,\n\nthe ferry is cancelled.\n", "name and a time")]
    [InlineData("{\"messages\": []}", "name and a time")]
    public void What_is_no_chat_says_so(string text, string why) => Should.Throw<FormatProblem>(() => Read(text)).Message.ShouldContain(why);

    [Fact]
    public void What_cannot_be_taken_says_which_line_and_why()
    {
        var chat = Read($"09:41:22 Ana P: hello there\n09:99:00 Eino R.: what time is this\n09:42:00 {new string('n', 150)}: a long name\n09:43:00 Ana P:\n");
        chat.Rows.Where(r => r.Problems.Count > 0).Select(r => (r.Row, r.Problems[0].Split(' ')[1])).ShouldContain((2, "the"));
        chat.Rows.Single(r => r.Row == 4).Problems[0].ShouldContain("no words");
    }

    [Fact]
    public void Letters_that_turn_the_line_are_taken_out() =>
        Read("09:41:22 Ana\u202E P: he\u202Dllo there\n09:42:00 Eino: and back\n").Rows[0].ShouldSatisfyAllConditions(r => r.Name.ShouldBe("Ana P"), r => r.Text.ShouldBe("hello there"));

    [Fact]
    public void A_chat_of_another_day_is_said() =>
        Read("2026-10-05 09:41:22 Ana P: hello there\n2026-10-05 09:42:00 Eino: and back\n").Problems.ShouldHaveSingleItem().ShouldContain("2026-10-05 09:41");

    [Fact]
    public void The_columns_can_be_put_right()
    {
        const string Text = "When,A,B\n09:41:22,why does the wind back here?,Ana P\n09:42:00,no idea at all today,Eino R.\n";
        Read(Text, new Dictionary<string, int> { ["time"] = 0, ["text"] = 1, ["name"] = 2 }).Rows[0].Name.ShouldBe("Ana P");
        Read(Text, new Dictionary<string, int> { ["time"] = 0, ["name"] = 2 }).Problems.ShouldBe(["Say which column holds the messages."]);
    }

    /// <summary>Programs cut a message in the middle of a smiley, and leave half a letter behind. What can be read of it is read.</summary>
    [Theory]
    [InlineData("""[{"sender":"Ana P","sent":"2026-11-02T09:41:00Z","text":"a low \ud83c"}]""", "a low \uFFFD")]
    [InlineData("""[{"sender":"Ana P","sent":"2026-11-02T09:41:00Z","text":"a low \udf0a passes"}]""", "a low \uFFFD passes")]
    [InlineData("""[{"sender":"Ana P","sent":"2026-11-02T09:41:00Z","text":"\ud83c\udf0a and \ud83c"}]""", "🌊 and \uFFFD")]
    [InlineData("""[{"sender":"Ana P","sent":"2026-11-02T09:41:00Z","half \ud83c":"?","text":"C:\\ud83c \u00e9"}]""", "C:\\ud83c é")]
    public void Half_a_letter_spoils_no_message(string json, string text) => Read(json).Rows.ShouldHaveSingleItem().Text.ShouldBe(text);

    [Fact]
    public void A_line_of_a_megabyte_and_deep_JSON_are_no_trouble()
    {
        Read($"09:41:22 Ana P: {new string('x', 1_000_000)}\n09:42:00 Eino: and back\n").Rows[0].Text.Length.ShouldBe(2000);
        Should.Throw<FormatProblem>(() => Read(new string('[', 100_000)));
    }
}
