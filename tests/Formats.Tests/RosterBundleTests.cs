namespace PoliteTally.Formats.Tests;

public sealed class RosterBundleTests
{
    private const string Users = "sourcedId,status,enabledUser,role,givenName,familyName,identifier,email\n"
        + "u1,,true,student,Juno,Quillfeather,S1,juno@skerrysound.example\nu2,active,true,student,Eino,Rautio,S2,\nu3,tobedeleted,true,student,Wojtek,Grzelak,S3,\nu9,,true,teacher,Tamsin,Vale,T1,\n";

    private const string Classes = "sourcedId,status,title,classCode\nc1,,\"Weather and Tides, year 8\",8W\nc2,,Island Botany,10B\nc3,tobedeleted,Old,O\n";

    private const string Enrolments = "sourcedId,status,classSourcedId,schoolSourcedId,userSourcedId,role\n"
        + "e1,,c1,s,u1,student\ne2,,c1,s,u2,student\ne3,,c1,s,u9,teacher\ne4,tobedeleted,c2,s,u2,student\ne5,,c2,s,u1,student\n";

    private static byte[] Bundle(string users = Users, string classes = Classes, string enrolments = Enrolments) => Written.Zip(
        ("manifest.csv", Written.Utf8("propertyName,value\noneroster.version,1.1\n")), ("users.csv", Written.Utf8(users)),
        ("classes.csv", Written.Utf8(classes)), ("enrollments.csv", Written.Utf8(enrolments)));

    [Fact]
    public void A_class_is_chosen_and_its_students_are_those_enrolled()
    {
        var all = RosterFile.Read(Bundle(), null);
        all.Classes.Select(c => (c.Title, c.Students)).ShouldBe([("Island Botany", 1), ("Weather and Tides, year 8", 2)]);
        all.ChosenClass.ShouldBeNull();
        all.Rows.ShouldBeEmpty();

        var chosen = RosterFile.Read(Bundle(), null, bundleClass: "c1");
        chosen.Rows.Select(l => $"{l.Given} {l.Family} {l.Number} {l.Email}").ShouldBe(["Juno Quillfeather S1 juno@skerrysound.example", "Eino Rautio S2 "]);
        chosen.Rows.ShouldAllBe(l => l.Problems.Count == 0);
    }

    [Fact]
    public void Preferred_names_of_version_1_2_are_taken()
    {
        var users = "sourcedId,status,givenName,familyName,identifier,email,preferredGivenName\nu1,,Ifeoma,Abernethy-Okafor,S1,,Ify\nu2,,Eino,Rautio,S2,,Eino\n";
        RosterFile.Read(Bundle(users), null, bundleClass: "c1").Rows.Select(l => l.Preferred).ShouldBe(["Ify", null]);
    }

    [Fact]
    public void The_only_class_need_not_be_chosen() =>
        RosterFile.Read(Bundle(classes: "sourcedId,title\nc1,Weather\n"), null).Rows.Count.ShouldBe(2);

    [Fact]
    public void An_enrolment_of_nobody_is_pointed_out() =>
        RosterFile.Read(Bundle(enrolments: Enrolments + "e7,,c1,s,u77,student\n"), null, bundleClass: "c1").Rows[^1].Problems.ShouldHaveSingleItem().ShouldContain("u77");

    [Fact]
    public void A_bundle_that_lacks_a_part_or_a_column_says_which()
    {
        Should.Throw<FormatProblem>(() => RosterFile.Read(Written.Zip(("users.csv", Written.Utf8(Users))), null)).Message.ShouldContain("lacks classes.csv");
        Should.Throw<FormatProblem>(() => RosterFile.Read(Bundle(users: "sourcedId,givenName\nu1,Juno\n"), null)).Message.ShouldContain("users.csv lacks the column familyname");
        Should.Throw<FormatProblem>(() => RosterFile.Read(Bundle(), null, bundleClass: "c3")).Message.ShouldContain("not in this bundle");
    }
}
