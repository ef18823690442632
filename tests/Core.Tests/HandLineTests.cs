using NodaTime;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Lessons;

namespace PoliteTally.Core.Tests;

public sealed class HandLineTests
{
    private static readonly Dictionary<string, Guid> Students = new()
    {
        ["juno"] = Given.Juno,
        ["eino"] = Given.Eino,
        ["zainab"] = Given.Zainab,
        ["cormac"] = Given.Cormac,
    };

    /// <summary>Entries in short: "1 up juno", "2 call juno", "3 full juno".</summary>
    private static LessonState Play(string script) => Given.State(script.Split(',', StringSplitOptions.TrimEntries).Select(line =>
    {
        var words = line.Split(' ');
        var student = Students[words[2]];
        Act act = words[1] switch
        {
            "up" => new HandRaised(student),
            "withdraw" => new HandEnded(student, HandEnd.Withdrawn),
            "setdown" => new HandEnded(student, HandEnd.SetDown),
            "lapse" => new HandEnded(student, HandEnd.Lapsed),
            "call" => new Called(student, TurnOrigin.Invited),
            "draw" => new Called(student, TurnOrigin.Drawn),
            var outcome => new TurnTaken(student, Enum.Parse<TurnOutcome>(outcome, ignoreCase: true), TurnOrigin.Invited),
        };
        return Given.Noted(double.Parse(words[0]), act);
    }));

    private static string LineOf(LessonState state) => string.Join(' ', state.HandLine.Hands.Where(h => h.InLine)
        .Select(h => Students.Single(s => s.Value == h.Student).Key + (h.Stage == HandStage.Lapsed ? "?" : "")));

    [Theory]
    [InlineData("1 up juno, 2 up eino, 3 up zainab", "juno eino zainab")]
    [InlineData("3 up zainab, 1 up juno, 2 up eino", "juno eino zainab")]                       // by the time raised, not by arrival
    [InlineData("1 up juno, 2 up eino, 3 call juno", "eino")]
    [InlineData("1 up juno, 2 up eino, 3 call eino", "juno")]                                   // anyone may be called
    [InlineData("1 up juno, 2 up eino, 3 withdraw juno, 4 up juno", "eino juno")]               // raising again goes to the back
    [InlineData("1 up juno, 2 up eino, 3 setdown juno, 4 up juno", "eino juno")]
    [InlineData("1 up juno, 2 up eino, 3 call juno, 4 full juno, 5 up juno", "eino juno")]
    [InlineData("1 up juno, 2 lapse juno, 3 up eino", "juno? eino")]                            // lapsed stays in line
    [InlineData("1 up juno, 2 lapse juno, 3 up eino, 4 up juno", "juno eino")]                  // and keeps its place
    [InlineData("1 up juno, 2 lapse juno, 3 setdown juno", "")]
    [InlineData("1 up juno, 2 up juno", "juno")]
    [InlineData("1 withdraw juno", "")]
    [InlineData("1 up juno, 2 full juno", "")]                                                  // an outcome without a call takes the hand
    public void The_line_is_in_order(string script, string line) => LineOf(Play(script)).ShouldBe(line);

    [Theory]
    [InlineData("1 up juno, 3 call juno, 4 full juno", "Hand Full 120")]
    [InlineData("1 call juno, 2 partial juno", "Invited Partial ")]
    [InlineData("1 draw juno, 2 pass juno", "Drawn Pass ")]
    [InlineData("1 up juno, 2 draw juno, 3 full juno", "Drawn Full 60")]
    [InlineData("1 full juno", "Invited Full ")]
    [InlineData("1 up juno, 2 full juno", "Hand Full 60")]
    [InlineData("1 call juno", "Invited  ")]
    public void A_turn_knows_its_origin_outcome_and_waiting_time(string script, string told)
    {
        var turn = Play(script).HandLine.Turns.ShouldHaveSingleItem();
        $"{turn.Origin} {turn.Outcome} {turn.Waited?.TotalSeconds}".ShouldBe(told);
    }

    [Theory]
    [InlineData("1 call juno", "juno")]
    [InlineData("1 call juno, 2 full juno", "")]
    [InlineData("1 call juno, 2 call eino", "eino")]
    [InlineData("1 call juno, 2 call eino, 3 full eino", "")]                                   // who was passed over does not come back
    [InlineData("1 draw juno, 2 draw eino, 3 draw zainab, 4 pass zainab", "")]
    [InlineData("1 call juno, 2 call eino, 3 full eino, 4 full juno", "")]                      // and can still be said to have spoken
    [InlineData("1 call juno, 2 full eino", "juno")]                                            // somebody else's turn meanwhile
    [InlineData("1 call juno, 2 call eino, 3 full juno", "eino")]
    [InlineData("1 call juno, 2 full juno, 3 call juno", "juno")]
    public void The_current_turn_is_the_latest_call_while_nobody_has_said_its_outcome(string script, string whose) =>
        (Play(script).HandLine.Current is { } turn ? Students.Single(s => s.Value == turn.Student).Key : "").ShouldBe(whose);

    [Fact]
    public void Striking_out_a_call_gives_the_word_back_to_whoever_had_it()
    {
        var (juno, eino) = (Given.Noted(1, new Called(Given.Juno, TurnOrigin.Hand)), Given.Noted(2, new Called(Given.Eino, TurnOrigin.Drawn)));
        Given.State(juno, eino, Given.Strike(eino)).HandLine.Current!.Student.ShouldBe(Given.Juno);
    }

    [Fact]
    public void Handing_on_ends_one_turn_as_a_full_one_and_begins_another_and_is_one_entry()
    {
        var (call, on) = (Given.Noted(1, new Called(Given.Juno, TurnOrigin.Invited)), Given.Noted(2, new Called(Given.Eino, TurnOrigin.HandedOn, By: Given.Juno)));
        var state = Given.State(call, on);
        state.HandLine.Turns.Select(t => (t.Student, t.Origin, t.Outcome)).ShouldBe(
            [(Given.Juno, TurnOrigin.Invited, TurnOutcome.Full), (Given.Eino, TurnOrigin.HandedOn, null)]);
        state.HandLine.Current!.Student.ShouldBe(Given.Eino);
        StudentEntries.Of(state, Given.Juno).Select(e => e.Id).ShouldBe([call.Id, on.Id]);
        var undone = Given.State(call, on, Given.Strike(on));
        undone.HandLine.Turns.ShouldHaveSingleItem().Outcome.ShouldBeNull();
        undone.HandLine.Current!.Student.ShouldBe(Given.Juno);
    }

    [Fact]
    public void All_hands_down_in_one_press_come_back_together_in_their_old_order()
    {
        var up = new[] { Given.Eino, Given.Zainab, Given.Juno }.Select((s, i) => Given.Noted(i + 1, new HandRaised(s))).ToList();
        var down = new[] { Given.Juno, Given.Eino, Given.Zainab }.Select(s => Given.Noted(5, new HandEnded(s, HandEnd.SetDown))).ToList();
        var strike = Given.Noted(6, new Struck(down[0].Id, [down[1].Id, down[2].Id]));
        LineOf(Given.State([.. up, .. down])).ShouldBe("");
        LineOf(Given.State([.. up, .. down, strike])).ShouldBe("eino zainab juno");
        LineOf(Given.State([.. up, .. down, strike, Given.Noted(7, new Struck(strike.Id))])).ShouldBe("");
    }

    [Fact]
    public void Striking_out_an_outcome_opens_the_turn_again()
    {
        var (call, full) = (Given.Noted(1, new Called(Given.Juno, TurnOrigin.Invited)), Given.Noted(2, Given.Turn(Given.Juno)));
        Given.State(call, full, Given.Strike(full)).HandLine.Current!.Student.ShouldBe(Given.Juno);
    }

    [Fact]
    public void Waiting_runs_from_raised_to_called() =>
        Play("1 up juno, 2 lapse juno, 6 call juno").HandLine.Turns[0].Waited.ShouldBe(Duration.FromMinutes(5));
}
