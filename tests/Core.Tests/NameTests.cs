using PoliteTally.Core.Names;

namespace PoliteTally.Core.Tests;

public sealed class NameTests
{
    private static readonly NameMatcher Matcher = new(Given.Roster, [
        new ConfirmedName("Ify A-O", Id("Ify")), new ConfirmedName("harbour-office-3", null),
    ]);

    private static Guid Id(string called) => Given.Roster.Single(r => (r.Preferred ?? r.Given) == called || $"{r.Given} {r.Family}" == called).Id;

    private static string CalledOf(Guid? id) => Given.Roster.FirstOrDefault(r => r.Id == id) is { } r ? $"{r.Preferred ?? r.Given} {r.Family}" : "";

    [Theory]
    [InlineData("  JUNO   Quillfeather ", "juno quillfeather")]
    [InlineData("Sørbø, Ingvild", "ingvild sorbo")]
    [InlineData("Çağla Yıldız", "cagla yildiz")]
    [InlineData("Nguyễn Bảo Trâm", "nguyen bao tram")]
    [InlineData("Kalaniʻōpuʻu", "kalaniopuu")]
    [InlineData("Tiago D'Ambrosio-Lund", "tiago dambrosio lund")]
    [InlineData("Tiago D’Ambrosio–Lund", "tiago dambrosio lund")]
    [InlineData("Cat MacAskill (she/her)", "cat macaskill")]
    [InlineData("Cat MacAskill she/her", "cat macaskill")]
    [InlineData("[Student] Cat MacAskill", "cat macaskill")]
    [InlineData("Meenu 🌊✨", "meenu")]
    [InlineData("Ｊｕｎｏ　Ｑｕｉｌｌｆｅａｔｈｅｒ", "juno quillfeather")]
    [InlineData("sipho_mbeki.thorne2011", "sipho mbeki thorne")]
    [InlineData("渡辺 蓮", "渡辺 蓮")]
    [InlineData("🌊", "")]
    [InlineData("(Juno)", "juno")]
    public void Folding(string shown, string folded) => NameFolding.Fold(shown).ShouldBe(folded);

    [Theory]
    // taken without asking
    [InlineData("Juno Quillfeather", "Juno Quillfeather", "SameName")]
    [InlineData("quillfeather juno", "Juno Quillfeather", "SameName")]
    [InlineData("SUHARTO, Dewi", "Dewi Suharto", "SameName")]
    [InlineData("Tram Nguyen", "Tram Nguyễn", "SameName")]
    [InlineData("Nguyen Bao Tram", "Tram Nguyễn", "SameName")]
    [InlineData("BaoTram Nguyen", "Tram Nguyễn", "SameName")]
    [InlineData("Ren Watanabe", "Ren 渡辺", "SameName")]
    [InlineData("渡辺 蓮", "Ren 渡辺", "SameName")]
    [InlineData("Nohea Kalaniopuu", "Nohea Kalaniʻōpuʻu", "SameName")]
    [InlineData("Cagla Yildiz", "Çağla Yıldız", "SameName")]
    [InlineData("Ingvild Soerboe", "Ingvild Sørbø", "SameName")]
    [InlineData("Diarmuid O'Flannagain", "Diarmuid Ó Flannagáin", "SameName")]
    [InlineData("Liezel Jansen VanWyk", "Liezel Jansen van Wyk", "SameName")]
    [InlineData("CatMacAskill", "Cat MacAskill", "SameName")]
    [InlineData("Philippa F.", "Pip Farrow", "Similar")]
    [InlineData("Toby's tablet", "Toby Hollis", "OnlyOneSoNamed")]
    [InlineData("Meenu's phone", "Meenu Iyengar", "OnlyOneSoNamed")]
    [InlineData("juno", "Juno Quillfeather", "OnlyOneSoNamed")]
    [InlineData("Rowan B", "Rowan Bellweather", "Similar")]
    [InlineData("Rowan L.", "Rowan Lindqvist", "Similar")]
    [InlineData("R. Bellweather", "Rowan Bellweather", "Similar")]
    [InlineData("saga eriksdoter", "Saga Eriksdotter", "Similar")]
    [InlineData("S1009", "Wojtek Grzelak", "Identity")]
    [InlineData("zainab.usman@pupils.skerrysound.example", "Zainab Usman", "Identity")]
    [InlineData("Ify A-O", "Ify Abernethy-Okafor", "ConfirmedBefore")]
    public void Sure(string shown, string student, string by)
    {
        var match = Matcher.Match(new ShownName(shown));
        match.Certainty.ShouldBe(Certainty.Sure, $"{match.By}: {string.Join("; ", match.Proposals.Select(p => CalledOf(p)))}");
        CalledOf(match.Student).ShouldBe(student);
        match.By.ToString().ShouldBe(by);
    }

    [Theory]
    // proposed, never taken: another student of that name may be meant
    [InlineData("Rowan", "Rowan Bellweather|Rowan Lindqvist")]
    [InlineData("Bellweather", "Cormac Bellweather|Rowan Bellweather")]
    [InlineData("Petrosyan", "Ana Petrosyan")]
    [InlineData("Catrin", "Cat MacAskill")]
    public void Likely(string shown, string proposals)
    {
        var match = Matcher.Match(new ShownName(shown));
        match.Certainty.ShouldBe(Certainty.Likely);
        string.Join('|', match.Proposals.Select(p => CalledOf(p)).Order()).ShouldBe(proposals);
    }

    [Theory]
    [InlineData("Mum (Barney)")]
    [InlineData("Mrs Whitlock")]
    [InlineData("Barney's mum")]
    [InlineData("Guest 4417")]
    [InlineData("Odhran Pike")]
    [InlineData("?")]
    [InlineData("J Q")]
    public void Unknown(string shown) => Matcher.Match(new ShownName(shown)).Certainty.ShouldBe(Certainty.Unknown);

    [Fact]
    public void A_name_confirmed_as_nobody_s_stays_nobody_s()
    {
        var match = Matcher.Match(new ShownName("Harbour-Office-3"));
        match.Certainty.ShouldBe(Certainty.Sure);
        match.Student.ShouldBeNull();
    }

    [Fact]
    public void One_taken_for_sure_is_proposed_last_for_the_others()
    {
        var matches = Matcher.Match([new ShownName("Rowan B"), new ShownName("Rowan")]);
        CalledOf(matches[1].Proposals[0]).ShouldBe("Rowan Lindqvist");
    }

    [Fact]
    public void A_shared_name_is_sure_for_nobody()
    {
        var twins = new NameMatcher([new RosterName(Given.Id(1), "Ada", "Moss"), new RosterName(Given.Id(2), "Ada", "Moss")], []);
        twins.Match(new ShownName("Ada Moss")).Certainty.ShouldBe(Certainty.Likely);
        twins.Match(new ShownName("Ada")).Certainty.ShouldBe(Certainty.Likely);
    }

    [Fact]
    public void Twins_are_told_apart_by_the_shortest_addition()
    {
        var names = ShortNames.For(Given.Roster);
        names[Id("Rowan Bellweather")].ShouldBe("Rowan B");
        names[Id("Rowan Lindqvist")].ShouldBe("Rowan L");
        names[Id("Ana")].ShouldBe("Ana");
        names.Values.Distinct().Count().ShouldBe(Given.Roster.Count);
    }

    [Fact]
    public void Every_letter_is_given_out_before_a_sign_is()
    {
        var keys = ShortNames.Keys(Given.Roster, new Dictionary<Guid, char>());
        keys.Values.Distinct().Count().ShouldBe(28);
        keys.Values.Where(k => !char.IsAsciiLetterLower(k)).ShouldBe(['[', ']'], ignoreOrder: true);
        keys.Count(k => NameFolding.Fold(CalledOf(k.Key)).Contains(k.Value)).ShouldBeGreaterThanOrEqualTo(25);
    }

    [Theory]
    [InlineData(30, 30)]
    [InlineData(34, 30)]
    public void Thirty_students_have_a_key_each_and_only_then_is_one_shared(int students, int keys) => ShortNames.Keys(
        [.. Enumerable.Range(1, students).Select(i => new RosterName(Given.Id(i), $"Student{i}", $"Sound{i}"))], new Dictionary<Guid, char>())
        .Values.Distinct().Count().ShouldBe(keys);

    [Fact]
    public void Keys_are_kept_when_somebody_joins()
    {
        var before = ShortNames.Keys([.. Given.Roster.Take(10)], new Dictionary<Guid, char>());
        var after = ShortNames.Keys(Given.Roster, before);
        foreach (var (student, key) in before)
        {
            after[student].ShouldBe(key);
        }
    }
}
