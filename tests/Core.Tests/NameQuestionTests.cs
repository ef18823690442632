using NodaTime;
using PoliteTally.Core.Chat;
using PoliteTally.Core.GroundRules;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Meeting;
using PoliteTally.Core.Names;
using PoliteTally.Core.Settling;

namespace PoliteTally.Core.Tests;

/// <summary>Whose a name is gets asked only where the answer changes the register or a count.</summary>
public sealed class NameQuestionTests
{
    private static readonly Guid[] Roster = [Given.Juno, Given.Eino, Given.Zainab];

    private static readonly NameMatch JunoMisread = Likely("Juno Quilfeather", Given.Juno);

    private static NameMatch Likely(string name, params Guid[] proposals) => new(new ShownName(name), Certainty.Likely, MatchedBy.Similar, proposals[0], proposals);

    private static NameMatch Unknown(string name) => new(new ShownName(name), Certainty.Unknown, MatchedBy.Nothing, null, []);

    private static Entry[] Stay(string name, Guid student, double from = 0, double to = 50) =>
        [Given.Noted(from, new Joined(name, "")), Given.Noted(to, new Left(name, "")), Given.Noted(60, new NameMatched(name, student))];

    private static Entry SeenIn(double minute, string name) => Given.Noted(minute, new Seen(name), Source.File);

    private static OpenQuestion[] Asked(IEnumerable<Entry> entries, params NameMatch[] names) =>
        [.. new OpenQuestions(Given.State(entries), Given.Lesson, ClassRules.Default, Roster, DateTimeZone.Utc).All(names).Where(q => q.Asks == Asks.WhoseName)];

    private static readonly Entry[] AllThere = [.. Stay("Juno Quillfeather", Given.Juno), .. Stay("Eino Rautio", Given.Eino), .. Stay("Zainab Usmani", Given.Zainab)];

    [Fact]
    public void A_picture_of_people_whom_a_list_has_there_only_confirms()
    {
        Asked([.. AllThere, SeenIn(20, JunoMisread.Shown.Name)], JunoMisread).ShouldBeEmpty();
        // Nor is anything like noise of anybody's worth a word while everybody is there.
        Asked([.. AllThere, SeenIn(20, "JQ ooo")], Unknown("JQ ooo")).ShouldBeEmpty();
    }

    [Fact]
    public void What_says_something_new_is_asked()
    {
        // Nobody else says that she was there; the list has her away at that time; she has her cost of coming late.
        Asked([SeenIn(20, JunoMisread.Shown.Name)], JunoMisread).ShouldHaveSingleItem();
        Asked([.. Stay("Juno Quillfeather", Given.Juno, to: 10), SeenIn(20, JunoMisread.Shown.Name)], JunoMisread).ShouldHaveSingleItem();
        Asked([.. Stay("Juno Quillfeather", Given.Juno, from: 8), .. Stay("Juno (phone)", Given.Juno)[..2]], Likely("Juno (phone)", Given.Juno)).ShouldHaveSingleItem();
        // One of those who could be meant is not there.
        Asked([.. Stay("Juno Quillfeather", Given.Juno), SeenIn(20, "JE")], Likely("JE", Given.Juno, Given.Eino)).ShouldHaveSingleItem();
        Asked([.. AllThere[..6], SeenIn(20, "JQ ooo")], Unknown("JQ ooo")).ShouldHaveSingleItem().Why.ShouldBe("09:50; nobody else of the class is missing");
    }

    [Fact]
    public void What_counts_otherwise_is_asked_however_well_they_are_known_to_be_there()
    {
        Asked([.. AllThere, Given.Noted(20, new NameWrote("JQ ooo", "low water", false))], Unknown("JQ ooo")).ShouldHaveSingleItem();
        Entry wrote = Given.Noted(20, new NameWrote("JQ ooo", "low water", false));
        Asked([.. AllThere, wrote, SeenIn(21, "JQ ooo"), Given.Strike(wrote)], Unknown("JQ ooo")).ShouldBeEmpty();
    }

    [Fact]
    public void Another_connection_of_somebody_who_is_there_all_the_time_changes_nothing() =>
        Asked([.. AllThere, .. Stay("Juno (phone)", Given.Juno, 5, 40)[..2]], Likely("Juno (phone)", Given.Juno)).ShouldBeEmpty();

    [Fact]
    public void Who_stands_in_the_same_list_already_is_not_proposed_for_another_name_in_it()
    {
        Entry[] list = [SeenIn(20, "Juno Quillfeather"), Given.Noted(60, new NameMatched("Juno Quillfeather", Given.Juno)), SeenIn(20, "J.")];
        var both = Likely("J.", Given.Juno, Given.Zainab);
        Asked(list, both).ShouldHaveSingleItem().Choices.Select(c => c.Student).ShouldBe([Given.Zainab, null]);
        // In another list they may well be the same.
        Asked([.. list[..2], SeenIn(30, "J.")], both).ShouldHaveSingleItem().Choices.Select(c => c.Student).ShouldBe([Given.Juno, Given.Zainab, null]);
    }
}
