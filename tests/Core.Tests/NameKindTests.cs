using PoliteTally.Core.Names;

namespace PoliteTally.Core.Tests;

/// <summary>Names by the kind of thing that is shown, in many languages: what is taken, what is proposed, and what is nobody's.</summary>
public sealed class NameKindTests
{
    private static NameMatch Match(string roster, string shown)
    {
        var students = roster.Split(';').Select((student, i) => student.Split('|') is var parts
            ? new RosterName(Given.Id(i + 1), parts[0], parts.ElementAtOrDefault(1) ?? "", parts.ElementAtOrDefault(2) is { Length: > 0 } called ? called : null, null, parts.ElementAtOrDefault(3))
            : null!).ToList();
        return new NameMatcher(students, []).Match(new ShownName(shown));
    }

    private static void Is(NameMatch match, Certainty certainty, int? student)
    {
        match.Certainty.ShouldBe(certainty, $"by {match.By}");
        match.Student.ShouldBe(student is { } number ? Given.Id(number) : null);
        if (certainty == Certainty.Likely)
        {
            match.Proposals[0].ShouldBe(match.Student!.Value);
        }
    }

    [Theory]
    // One name only, in either column, once or twice.
    [InlineData("|Pemba", "Pemba")]
    [InlineData("Pemba|", "Pemba")]
    [InlineData("Pemba|", "pemba PEMBA")]
    [InlineData("|Pemba", "Pemba's tablet")]
    // Dots, accents, two ways of writing one letter, scripts.
    [InlineData("İlker|Aksoy", "Ilker Aksoy")]
    [InlineData("İlker|Aksoy", "ilker aksoy")]
    [InlineData("İlker|Aksoy", "İLKER AKSOY")]
    [InlineData("Yaşar|Kılıç", "YASAR KILIC")]
    [InlineData("مریم|کاظمی", "مريم كاظمي")]
    [InlineData("شیرین|علی‌زاده", "شیرین علیزاده")]
    [InlineData("Милена|Ковачева", "Milena Kovacheva")]
    [InlineData("Юлия|Шевченко", "Julia Shevchenko")]
    [InlineData("Юлия|Шевченко", "Yuliya Schewtschenko")]
    [InlineData("Γιώργος|Ανδρέου", "Giorgos Andreou")]
    [InlineData("美玲|王||meiling.wang@pupils.example", "Wang Meiling")]
    [InlineData("美玲|王||meiling.wang@pupils.example", "Mei-Ling Wang")]
    [InlineData("葵|渡辺||aoi.watanabe@pupils.example", "Watanabe Aoi")]
    [InlineData("Thomas|Quist", "Tomas Quist")]
    [InlineData("Sara|Lindholm", "Sarah Lindholm")]
    // An address, or the part of it before its sign.
    [InlineData("Wren|Ashdown||q40217@pupils.example", "q40217")]
    [InlineData("Wren|Ashdown||wren.ashdown@pupils.example", "WREN.ASHDOWN")]
    // Roles that say no more than that somebody takes part.
    [InlineData("Wren|Ashdown", "guest - Wren Ashdown")]
    [InlineData("Wren|Ashdown", "Wren Ashdown (student)")]
    [InlineData("Wren|Ashdown", "Gast: Wren Ashdown")]
    [InlineData("Dr|Ashdown", "Dr Ashdown")]
    [InlineData("Mister|Ashdown;Frau|Holle", "Frau Holle")]
    // Devices, with an owner before or after.
    [InlineData("Wren|Ashdown", "wren-laptop")]
    [InlineData("Wren|Ashdown", "Wren’s old phone 2")]
    [InlineData("Wren|Ashdown", "iPad de Wren")]
    [InlineData("Wren|Ashdown", "téléphone de Wren Ashdown")]
    [InlineData("Wren|Ashdown", "Wren iPhone 12")]
    [InlineData("Agnes|Ashdown", "Agnes' tablet")]
    [InlineData("Wren|Ashdown", "Wren's netbook 3")]
    [InlineData("葵|渡辺", "葵のiPad")]
    // Class tags are not initials.
    [InlineData("Wren|Ashdown;Tove|Bakke", "9A Wren")]
    [InlineData("Wren|Ashdown;Tove|Bakke", "Wren Ashdown 10-b")]
    [InlineData("Wren|Ashdown", "Wren Ashdown (she/her)")]
    // Slips: swapped, doubled, one within a long word.
    [InlineData("Wren|Ashdown", "Wren Ashdwon")]
    [InlineData("Wren|Ashdown", "Wren Ashdovn")]
    [InlineData("Philippa|Farrow", "Philipa Farrow")]
    [InlineData("Bartholomew|Finch", "Bartolomew Finch")]
    // Fewer words than the roster has.
    [InlineData("Ana Lucía|Duarte Prado", "Ana Duarte")]
    [InlineData("Wren|Ashdown", "Wren A.")]
    [InlineData("Wren|Ashdown;Wren|Bakke", "Wren B")]
    [InlineData("Anna|Berg;Anna|Bergqvist", "Anna Berg")]
    public void Taken_without_asking(string roster, string shown)
    {
        var match = Match(roster, shown);
        match.Certainty.ShouldBe(Certainty.Sure, $"by {match.By}");
        // The one meant comes first, but for the second who shares a given name.
        match.Student.ShouldBe(shown is "Wren B" or "Frau Holle" ? Given.Id(2) : Given.Id(1));
    }

    [Theory]
    // What begins alike and ends otherwise is another name.
    [InlineData("Signe|Lund", "Signe Lundgren")]
    [InlineData("Signe|Lundgren", "Signe Lund")]
    [InlineData("Signe|Lundgren", "Signe Lundberg")]
    [InlineData("Jan|Ashdown", "Jana Ashdown")]
    [InlineData("Julia|Ashdown", "Julie Ashdown")]
    [InlineData("Mario|Ashdown", "Maria Ashdown")]
    [InlineData("Gabriel|Ashdown", "Gabriela Ashdown")]
    [InlineData("Marina|Ash", "Mariana Ash")]
    // Another romanisation of a short name, digits for letters, a genitive, a role in charge.
    [InlineData("Wren|Ashdown", "Wr3n Ashd0wn")]
    [InlineData("Robin|Ashdown", "Robins telefon")]
    [InlineData("Robin|Ashdown", "Robinin puhelin")]
    [InlineData("Wren|Ashdown", "Host Wren Ashdown")]
    [InlineData("Wren|Ashdown", "Wren Ashdown (Teacher)")]
    [InlineData("Wren|Ashdown", "Teacher's favourite Wren Ashdown")]
    // Short forms.
    [InlineData("Robert|Ashdown;Tove|Bakke", "Bob Ashdown")]
    [InlineData("Małgorzata|Ashdown;Tove|Bakke", "Gosia")]
    [InlineData("Francisco|Ashdown;Tove|Bakke", "Paco A")]
    [InlineData("Александр|Ashdown;Tove|Bakke", "Sasha Ashdown")]
    [InlineData("Margaret|Ashdown", "Peggy")]
    // A name alone that is another's, too.
    [InlineData("Wren|Ashdown;Tove|Wren", "Wren")]
    [InlineData("Sam|Ashdown;Samuel|Bakke", "Sam")]
    [InlineData("Wren|Ashdown;Wren|Bakke", "Wren 9A")]
    [InlineData("Wren|Ashdown;Wren|Bakke", "Wren's iPad")]
    public void Proposed_first(string roster, string shown) => Is(Match(roster, shown), Certainty.Likely, 1);

    [Theory]
    [InlineData("Samuel|Ashdown;Samira|Ashdown", "Sam Ashdown")]
    [InlineData("Timothea|Ash|Tim;Timo|Ash", "Ti Ash")]
    [InlineData("Wren|Ashdown;Wren|Bakke", "Wren")]
    [InlineData("Alexander|Ashdown;Alexandra|Bakke", "Alex")]
    public void Two_who_could_be_meant_are_both_proposed(string roster, string shown)
    {
        var match = Match(roster, shown);
        match.Certainty.ShouldBe(Certainty.Likely);
        match.Proposals.Order().ShouldBe([Given.Id(1), Given.Id(2)]);
        match.Student.ShouldBe(match.Proposals[0]);
    }

    [Theory]
    [InlineData("Wren's grandmother")]
    [InlineData("Wren's big brother")]
    [InlineData("Wren Ashdown's mum")]
    [InlineData("Mum of Wren")]
    [InlineData("mamá de Wren")]
    [InlineData("Vater von Wren")]
    [InlineData("mère de Wren Ashdown")]
    [InlineData("Wren Ashdown (Papa)")]
    [InlineData("Wrens Mutter")]
    [InlineData("Mrs Ashdown")]
    public void Somebody_of_theirs_is_never_them_and_is_shown_with_whose_they_are(string shown)
    {
        var match = Match("Wren|Ashdown;Tove|Bakke", shown);
        (match.Certainty, match.By, match.Student).ShouldBe((Certainty.Unknown, MatchedBy.SomebodyOf, null));
        match.Proposals.ShouldBe([Given.Id(1)]);
    }

    [Theory]
    [InlineData("iPhone 12")]
    [InlineData("Guest 4417")]
    [InlineData("user")]
    [InlineData("Laptop")]
    [InlineData("Mum")]
    [InlineData("Mrs Whitlock")]
    [InlineData("Odhran Pike")]
    [InlineData("")]
    [InlineData("12")]
    [InlineData("\ud800")]
    public void Nobody_s(string shown) => Is(Match("Wren|Ashdown;Tove|Bakke", shown), Certainty.Unknown, null);

    [Fact]
    public void What_was_said_of_one_name_does_not_spread_to_another()
    {
        var (wren, tove) = (Given.Id(1), Given.Id(2));
        RosterName[] roster = [new(wren, "Wren", "Ashdown"), new(tove, "Tove", "Bakke")];
        var matcher = new NameMatcher(roster, [
            new ConfirmedName("Wren's mum", null), new ConfirmedName("iPhone 12", tove), new ConfirmedName("The Keeper", wren), new ConfirmedName("the  KEEPER", tove),
        ]);
        matcher.Match(new ShownName("Wren")).Student.ShouldBe(wren);
        Is(matcher.Match(new ShownName("Wren's mum")), Certainty.Sure, null);
        // Nobody's in particular: asked again, and last time's answer is proposed.
        Is(matcher.Match(new ShownName("iPhone 12")), Certainty.Likely, 2);
        Is(matcher.Match(new ShownName("iPhone 15")), Certainty.Unknown, null);
        // Of two words on one name the later counts; case, width and spaces do not matter.
        Is(matcher.Match(new ShownName("Ｔhe Keeper")), Certainty.Sure, 2);
        matcher.Match(new ShownName("The Keepers")).Certainty.ShouldBe(Certainty.Unknown);
    }

    [Fact]
    public void A_school_adds_short_forms_and_is_told_what_is_not_understood()
    {
        var forms = ShortForms.Read("# ours\nQuillon: Lon, Quill\nEino: Eni\n", ShortForms.Shipped);
        (forms.IsOf("lon", "quillon"), forms.IsOf("robert", "bob"), ShortForms.Shipped.IsOf("lon", "quillon")).ShouldBe((true, true, false));
        foreach (var wrong in new[] { "Quillon Lon", "Quillon:", ": Lon", "a: b: c" })
        {
            Should.Throw<FormatException>(() => ShortForms.Read($"Eino: Eni\n{wrong}")).Message.ShouldContain("Line 2");
        }
    }
}
