using CsCheck;
using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Meeting;
using PoliteTally.Core.Page;

namespace PoliteTally.Core.Tests;

/// <summary>Where somebody is, by evidence of every kind together: the newest says it, live and afterwards.</summary>
public sealed class PresenceTests
{
    [Fact]
    public void Where_no_device_is_told_presence_is_the_union_of_the_connections_however_they_lie() =>
        Gen.Select(Gen.Int[0, 50], Gen.Int[0, 50]).Select(p => (From: Math.Min(p.Item1, p.Item2), To: Math.Max(p.Item1, p.Item2))).Array[1, 6].Sample(
            stays =>
            {
                var minutes = Enumerable.Range(0, 50).Count(minute => stays.Any(s => s.From <= minute && minute < s.To));
                // Through the entries, as a source without devices tells them.
                var ledger = stays.SelectMany(s => new[] { Given.Noted(s.From, new Joined("Juno", "")), Given.Noted(s.To, new Left("Juno", "")) })
                    .Append(Given.Noted(60, new NameMatched("Juno", Given.Juno)));
                Given.State(ledger).AttendanceOf(Given.Juno, Given.Lesson, AttendancePolicy.Default with { Bridge = Duration.Zero }).Present.ShouldBe(Duration.FromMinutes(minutes));
            },
            print: stays => string.Join(' ', stays.Select(s => $"{s.From}-{s.To}")));

    [Theory]
    // sightings                  marks and roll calls     status     minutes  here   (50 min from 0; in, out: of a roll call; p, q: page opened, closed)
    [InlineData("", "in@2", "Present", 50, true)]                       // a roll call: from the start, for nobody missed them
    [InlineData("", "in@-2", "Present", 50, true)]                      // before the bell it holds into the lesson
    [InlineData("", "out@-2", "Absent", 0, false)]
    [InlineData("", "out@-2 in@1", "Present", 50, true)]  // nobody is missing before it begins
    [InlineData("", "out@2", "Absent", 0, false)]
    [InlineData("", "out@4 in@20", "Present", 46, true)]  // known only by a roll call: they came with the last one that missed them
    [InlineData("", "out@9 in@20", "Late", 41, true)]  // missed after the first 5 min: late
    [InlineData("", "in@2 out@20", "Present", 20, false)]
    [InlineData("", "in@2 out@20 in@30", "Present", 40, true)]
    [InlineData("", "left@10 in@30", "Present", 20, true)]  // a roll call undoes an earlier "left"
    [InlineData("", "here@1 left@10 here@12", "Present", 50, true)]     // gone for 2 min, bridged
    [InlineData("", "in@49", "Present", 50, true)]
    [InlineData("j0 l10", "here@12", "Present", 10, true)]  // the teacher says where they are; minutes stay as measured
    [InlineData("j0 l10", "in@20", "Present", 10, true)]
    [InlineData("j0 l10", "here@5", "Present", 10, false)]              // a later leaving ends it
    [InlineData("j0 l10 j40 l50", "in@20", "Present", 20, false)]
    [InlineData("j0 l50", "out@30", "Present", 50, false)]  // gone on the sheet though connected; in the register it is asked
    [InlineData("j0", "out@30", "Present", 50, false)]
    [InlineData("j0", "out@30 in@35", "Present", 50, true)]
    [InlineData("j0 s40", "out@30", "Present", 50, true)]  // who does something is there again
    [InlineData("phone:j0 phone:l10 laptop:j5", "", "Present", 50, true)]  // a leaving ends its own connection
    [InlineData("phone:j0 laptop:j0 phone:l10", "here@5", "Present", 50, true)]
    [InlineData("j0 l10 p5", "", "Present", 10, false)]  // the page is no connection
    [InlineData("j0 l10 p5 q20", "", "Present", 10, false)]
    [InlineData("j0 p5 q20", "", "Present", 50, true)]                  // closing the page is not leaving the meeting
    [InlineData("p5 q20", "in@10", "Present", 50, true)]                // nor does it unsay what the teacher said
    [InlineData("j0 l10 s20", "", "Present", 10, false)]  // wrote after leaving: a moment, and asked
    [InlineData("j0 l10 s5", "", "Present", 10, false)]
    [InlineData("j8", "", "Late", 42, true)]
    [InlineData("j8", "in@9", "Late", 42, true)]                        // a roll call says where, not since when
    [InlineData("j8", "here@9", "Late", 42, true)]  // nor does a mark touch what was measured
    [InlineData("j8", "in@3", "Late", 42, true)]
    [InlineData("", "late@7 in@20", "Late", 43, true)]
    [InlineData("", "late@7 left@20", "Late", 13, false)]
    [InlineData("", "left@20", "Present", 0, false)]  // who left had been there; nobody says since when
    [InlineData("s5", "left@20", "Present", 15, false)]
    [InlineData("s50", "left@53", "Present", 0, false)]  // seen to leave when it ran over
    [InlineData("s3", "late@7 left@20", "Late", 17, false)]
    [InlineData("j8", "left@20", "Late", 42, false)]
    [InlineData("s12", "out@9 left@20", "Late", 11, false)]  // missed, seen, gone
    [InlineData("s3", "late@7", "Late", 47, true)]                      // "late" does not unsay what they did before
    [InlineData("p5 q18", "here@7 late@25", "Late", 45, true)]
    [InlineData("s20", "out@10", "Late", 10, true)]   // missed, then seen: they came with the roll call that missed them
    [InlineData("s8 s20", "out@10", "Present", 0, true)]
    [InlineData("s-3", "", "Absent", 0, false)]  // a hand before the bell says nothing
    [InlineData("p-3", "", "Present", 50, true)]  // but a page that is open goes on
    [InlineData("p-3 q-1", "", "Absent", 0, false)]
    [InlineData("p-3 q51", "", "Present", 50, true)]  // closing it is no leaving
    [InlineData("p-3 q20", "", "Present", 20, true)]
    [InlineData("p5 q51", "", "Present", 45, true)]
    [InlineData("p-3 q-1", "in@-2", "Present", 50, true)]
    [InlineData("j-5 l-1", "in@-3", "Absent", 0, false)]                // gone before it began
    [InlineData("j-5 l-1", "in@-3 here@0", "Present", 0, true)]
    [InlineData("s10 s30", "", "Present", 20, true)]
    [InlineData("s10 p30", "", "Present", 40, true)]
    [InlineData("s10 p30 q40", "", "Present", 30, true)]
    public void The_newest_evidence_says_where_somebody_is(string sightings, string marks, string status, double minutes, bool here)
    {
        var result = Given.Attendance(sightings, marks);

        (result.Status.ToString(), Math.Round(result.Present.TotalMinutes, 2), result.IsHere).ShouldBe((status, minutes, here));
    }

    [Theory]
    // actual from, to; counted from, to: 50 min planned
    [InlineData(-10.0, null, 0, 50)]
    [InlineData(-15.0, null, 0, 50)]
    [InlineData(-16.0, null, -16, 34)]        // begun long before its time
    [InlineData(-60.0, -20.0, -60, -20)]
    [InlineData(-14.0, -1.0, -14, -1)]        // over before its planned start
    [InlineData(-14.0, 40.0, 0, 40)]
    [InlineData(-60.0, 20.0, -60, -10)]       // never longer than planned
    public void A_lesson_begun_long_before_its_time_counts_from_when_it_began(double began, double? ended, double from, double to)
    {
        var lesson = Given.Lesson with { ActualStart = Given.At(began), ActualEnd = ended is { } end ? Given.At(end) : null };

        (lesson.CountedFrom, lesson.CountedTo).ShouldBe((Given.At(from), Given.At(to)));
    }

    [Fact]
    public void A_roll_call_stands_among_the_marks_of_those_it_names_and_of_those_it_misses()
    {
        var call = Given.Noted(-2, new RollCallTaken([Given.Juno]));
        var state = Given.State(call);

        state.Evidence.MarksOf(Given.Juno).ShouldBe([new MarkMade(Mark.Here, Given.At(-2), call.Id, ByRollCall: true)]);
        state.Evidence.MarksOf(Given.Eino).ShouldBe([new MarkMade(Mark.Left, Given.At(-2), call.Id, ByRollCall: true)]);
        state.AttendanceOf(Given.Juno, Given.Lesson, AttendancePolicy.Default).Entries.ShouldBe([call.Id]);
        Given.State(call, Given.Strike(call)).AttendanceOf(Given.Juno, Given.Lesson, AttendancePolicy.Default).Status.ShouldBe(AttendanceStatus.Absent);
    }

    [Theory]
    // A list that gives only minutes measures them, whatever the teacher said of where somebody was.
    [InlineData("m47", "in@2", "Present", 47, "Measured")]
    [InlineData("m47", "out@10", "Present", 47, "Measured")]
    [InlineData("m47", "here@3", "Present", 47, "Measured")]
    [InlineData("m30", "late@9", "Late", 30, "Declared")]
    [InlineData("m2", "out@10", "Absent", 2, "Measured")]
    public void Minutes_that_a_list_gives_stay_as_measured(string sightings, string marks, string status, double minutes, string knownBy)
    {
        var result = Given.Attendance(sightings, marks);

        (result.Status.ToString(), result.Present.TotalMinutes, result.KnownBy.ToString()).ShouldBe((status, minutes, knownBy));
        result.Flags.HasFlag(AttendanceFlags.LengthOnly).ShouldBeTrue();
    }

    private static readonly Gen<Act> Evidence = Gen.OneOf<Act>(
        Gen.Const<Act>(new Marked(Given.Juno, Mark.Here)), Gen.Const<Act>(new Marked(Given.Juno, Mark.Late)), Gen.Const<Act>(new Marked(Given.Juno, Mark.Left)),
        Gen.Const<Act>(new RollCallTaken([Given.Juno])), Gen.Const<Act>(new RollCallTaken([Given.Eino])),
        Gen.Bool.Select(b => b ? "laptop" : "phone").Select(d => (Act)new Joined("Juno", d)), Gen.Bool.Select(b => b ? "laptop" : "phone").Select(d => (Act)new Left("Juno", d)),
        Gen.Const<Act>(new PageOpened(Given.Juno)), Gen.Const<Act>(new PageClosed(Given.Juno)), Gen.Const<Act>(new HandRaised(Given.Juno)));

    // At moments of their own, so that what is newer is never in doubt.
    private static readonly Gen<List<Entry>> Ledgers = Gen.Select(Evidence, Gen.Int[-10, 49]).List[0, 12].Select(told => (List<Entry>)
    [
        Given.Noted(-11, new NameMatched("Juno", Given.Juno)),
        .. told.DistinctBy(t => t.Item2).Select(t => Given.Noted(t.Item2, t.Item1)),
    ]);

    private static AttendanceResult Of(IEnumerable<Entry> entries) =>
        Given.State(entries).AttendanceOf(Given.Juno, Given.Lesson, AttendancePolicy.Default);

    [Fact]
    public void Saying_here_never_lowers_anything() =>
        Gen.Select(Ledgers, Gen.Int[-10, 49], Gen.Bool).Sample((ledger, minute, byRollCall) =>
        {
            var before = Of(ledger);
            var after = Of([.. ledger, Given.Noted(minute + 0.5, byRollCall ? new RollCallTaken([Given.Juno]) : new Marked(Given.Juno, Mark.Here))]);

            after.Credit!.Value.ShouldBeGreaterThanOrEqualTo(before.Credit!.Value);
            (after.WasThere || !before.WasThere).ShouldBeTrue();
            (after.IsHere || !before.IsHere).ShouldBeTrue();
        });

    [Fact]
    public void The_order_in_which_entries_arrive_does_not_matter() =>
        Ledgers.Sample(ledger =>
        {
            var (there, back) = (Of(ledger), Of(ledger.AsEnumerable().Reverse()));
            (back.Status, back.Present, back.IsHere, back.KnownBy, back.Flags).ShouldBe((there.Status, there.Present, there.IsHere, there.KnownBy, there.Flags));
        });

    /// <summary>Marks, roll calls, pages and acts at moments of their own, connections at any, from 15 min before the lesson to 15 min after.</summary>
    private static readonly Gen<(List<Sighting> Sightings, List<MarkMade> Marks)> Mixtures =
        Gen.Select(Gen.Int[0, 11], Gen.Int[-30, 130], Gen.Int[0, 29], Gen.Int[0, 5]).List[0, 12].Select(told =>
        {
            var (sightings, marks) = (new List<Sighting>(), new List<MarkMade>());
            // Half of them without any connection.
            var isMeasured = told.Count % 2 == 0;
            foreach (var (kind, half, second, device) in told.DistinctBy(t => (t.Item2, t.Item3)))
            {
                var (at, id) = (Given.At((half * 0.5) + (second / 60.0)), Given.Id(sightings.Count + marks.Count + 1));
                var name = device switch { < 2 => "", < 4 => "laptop", _ => "phone" };
                switch (kind)
                {
                    case < 3 when isMeasured:
                        sightings.Add(new JoinAt(Given.At(half * 0.5), id, name));
                        break;
                    case < 6 when isMeasured:
                        sightings.Add(new LeaveAt(Given.At(half * 0.5), id, name));
                        break;
                    case < 3 or 6:
                        sightings.Add(new SeenAt(at, id));
                        break;
                    case 7:
                        sightings.Add(new PageAt(at, id, Opens: device < 4));
                        break;
                    case 8:
                        marks.Add(new MarkMade(device < 3 ? Mark.Here : Mark.Left, at, id, ByRollCall: true));
                        break;
                    default:
                        marks.Add(new MarkMade((Mark)(device % 3), at, id, ByRollCall: false));
                        break;
                }
            }

            return (sightings, marks.OrderBy(m => m.At).ToList());
        });

    /// <summary>The core says the same as the plainest reading of docs/rules.md, second by second.</summary>
    [Fact]
    public void Any_mixture_is_reckoned_as_the_words_of_the_rules_have_it() =>
        Mixtures.Sample(
            told =>
            {
                var (status, seconds) = PlainAttendance.Of(told.Sightings, told.Marks);
                var result = AttendanceRules.Reckon(Given.Lesson, new StudentEvidence(told.Sightings, told.Marks), AttendancePolicy.Default);
                result.Status.ShouldBe(status);
                result.Present.TotalSeconds.ShouldBe(seconds, 1);
            },
            iter: 20_000,
            print: Printed);

    [Fact]
    public void Acts_beside_a_measured_connection_never_change_minutes_or_status_unasked() =>
        Gen.Select(Mixtures, Gen.Int[-900, 3900].Array[1, 4]).Sample(
            (told, acts) =>
            {
                var before = AttendanceRules.Reckon(Given.Lesson, new StudentEvidence(told.Sightings, told.Marks), AttendancePolicy.Default);
                var beside = acts.Select(a => Given.Start + Duration.FromSeconds(a)).Where(a => !before.Stretches.Any(s => s.From - AttendancePolicy.Near <= a && a <= s.To + AttendancePolicy.Near)).Select((a, i) => new SeenAt(a, Given.Id(500 + i))).ToList();
                if (!told.Sightings.Any(s => s is ConnectionEnd))
                {
                    return;
                }

                var after = AttendanceRules.Reckon(Given.Lesson, new StudentEvidence([.. told.Sightings, .. beside], told.Marks), AttendancePolicy.Default);
                (after.Status, after.Present, after.Flags, after.Credit, after.KnownBy).ShouldBe((before.Status, before.Present, before.Flags, before.Credit, before.KnownBy));
                // Whatever of it lies in the lesson and away from every joining and leaving is asked, unless the teacher said something newer of that time.
                after.Contested.OfType<ShownWhileAway>().SelectMany(c => c.Entries).Select(e => e.At).Distinct().ShouldBeSubsetOf([.. beside.Select(b => b.At), .. told.Sightings.Select(s => s.At), .. told.Marks.Select(m => m.At)]);
            },
            iter: 20_000);

    private static string Printed((List<Sighting> Sightings, List<MarkMade> Marks) told) =>
        string.Join("  ", told.Sightings.Select(s => (s.At, $"{s.GetType().Name} {(s as ConnectionEnd)?.Device}{(s as PageAt)?.Opens}")).Concat(told.Marks.Select(m => (m.At, $"{m.Mark}{(m.ByRollCall ? " by roll call" : "")}")))
            .OrderBy(t => t.Item1).Select(t => $"{(t.Item1 - Given.Start).TotalMinutes:0.##} {t.Item2}"));
}
