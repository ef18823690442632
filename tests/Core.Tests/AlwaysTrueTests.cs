using CsCheck;
using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Chat;
using PoliteTally.Core.Groups;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Lessons;
using PoliteTally.Core.Meeting;
using PoliteTally.Core.Notes;
using PoliteTally.Core.Scoring;
using PoliteTally.Core.Signals;

namespace PoliteTally.Core.Tests;

/// <summary>What is always true, whatever a lesson was like.</summary>
public sealed class AlwaysTrueTests
{
    private static readonly Guid[] Students = [Given.Juno, Given.Eino, Given.Zainab];

    private static readonly Criterion Listens = new(Given.Id(310), "listens", [new(Given.Id(311), "always", 1), new(Given.Id(312), "at times", 0.5m)]);

    /// <summary>Schemes that see attendance as the default one does.</summary>
    private static readonly Gen<Scheme> Schemes = Gen.Select(Gen.Int[0, 4].Array[6], Gen.Int[1, 4], Gen.Int[0, 4], Gen.Int[0, 4], Gen.Bool, Gen.Bool, Gen.Int[1, 4]).Select(
        (weights, target, part, most, first, second, chat) => Scheme.Default with
        {
            Weights = Enum.GetValues<Strand>().ToDictionary(s => s, s => (decimal)weights[(int)s]),
            SpeakingTarget = target / 2m,
            WrittenStandsIn = part / 4m,
            WrittenAtMost = most / 4m,
            TurnInChat = most / 4m,
            TurnsInChatAtMost = part / 4m,
            ChatTarget = chat / 2m,
            OpenLineIsChance = first,
            AbsenceScoresZero = second,
            ChatCounts = first || second,
            UncalledHand = part / 4m,
            SignalGiven = most / 8m,
            MarksShare = part / 4m,
            Criteria = first ? [Listens] : [],
            Attendance = AttendancePolicy.Default with { LateCredit = part / 4m, CreditBy = second ? CreditBy.Share : CreditBy.Status },
        });

    private static readonly Gen<Act> Acts =
        from student in Gen.Int[0, 2].Select(i => Students[i])
        from kind in Gen.Int[0, 22]
        select (Act)(kind switch
        {
            0 => new Marked(student, Mark.Here),
            1 => new Marked(student, Mark.Late),
            2 => new Marked(student, Mark.Left),
            3 => new HandRaised(student),
            4 => new HandEnded(student, (HandEnd)(student.GetHashCode() & 1)),
            5 => new Called(student, TurnOrigin.Drawn),
            6 => new TurnTaken(student, TurnOutcome.Partial, TurnOrigin.Invited),
            7 => new TurnTaken(student, TurnOutcome.Full, TurnOrigin.Invited),
            8 => new ChatSaid(student, ChatKind.Question, null),
            9 => new NodGiven(student, "on time"),
            10 => new Joined($"name of {student}", "laptop"),
            11 => new SignalRoundHeld("Fog is a cloud.", [student], [.. Students.Where(s => s != student)]),
            12 => new SatIn(student, Given.Id(301), (Contribution)(student.GetHashCode() & 1)),
            13 => new SpeakingPaused(student, (student.GetHashCode() & 1) == 0),
            14 => new RollCallTaken([student]),
            15 => new NameRaisedHand($"name of {student}"),
            16 => new NameWrote($"name of {student}", "low water at four", false),
            18 => new CriterionMarked(student, Listens.Id, Listens.Levels[student.GetHashCode() & 1].Id),
            19 => new ScoreCorrected(student, CorrectionKind.StrandLeftOut, (Strand)((student.GetHashCode() & 7) % 6), null, "the line failed"),
            20 => new ScoreCorrected(student, CorrectionKind.StrandSet, (Strand)((student.GetHashCode() & 7) % 6), 0.4m, "spoke by telephone"),
            21 => new ScoreCorrected(student, CorrectionKind.ScoreSet, null, 64, "as agreed"),
            22 => new AwayJudged(student, 600, (student.GetHashCode() & 1) == 0),
            17 => new Renamed($"name of {student}", $"name of {Students[0]}", "laptop"),
            _ => new Left($"name of {student}", "laptop"),
        });

    private static readonly Gen<Entry[]> Lessons =
        from entries in Gen.Select(Acts, Gen.Int[-300, 3300], (act, second) => (act, second)).Array[0, 40]
        from ids in Gen.Guid.Array[entries.Length]
        select (Entry[])[
            .. entries.Select((e, i) => new Entry(ids[i], Given.Start + Duration.FromSeconds(e.second), Given.Start, Source.Tapped, "", e.act)),
            .. Students.Select((s, i) => new Entry(Given.Id(500 + i), Given.End, Given.End, Source.Tapped, "", new NameMatched($"name of {s}", s))),
        ];

    private static string Told(IEnumerable<Entry> entries) => Told(LessonState.Fold(entries));

    private static string Told(LessonState state) => string.Join('\n', Students.Select(s =>
    {
        var did = state.ParticipationOf(s, Given.Lesson, Scheme.Default);
        var score = LessonScore.Of(did, Scheme.Default);
        return $"{did.Attendance.InWords()} {did.Turns.Count} {did.Hands.Count} {did.Nods.Count} {score.Total?.Value} {state.HandLine.Current?.Student}";
    }));

    private static decimal? Score(IEnumerable<Entry> entries, Guid student, Scheme? scheme = null) => LessonScore.Of(
        LessonState.Fold(entries).ParticipationOf(student, Given.Lesson, Scheme.Default), scheme ?? Scheme.Default).Total?.Value;

    [Fact]
    public void The_order_in_which_entries_arrive_does_not_matter() =>
        Gen.Select(Lessons, Gen.Int).Sample((entries, seed) =>
            Told(entries.OrderBy(e => HashCode.Combine(e.Id, seed))) == Told(entries));

    [Fact]
    public void The_same_entry_twice_is_one_entry() => Lessons.Sample(entries => Told(entries.Concat(entries)) == Told(entries));

    [Fact]
    public void A_struck_out_entry_leaves_no_trace() => Gen.Select(Lessons, Gen.Int[0, 1000]).Sample((entries, pick) =>
    {
        var target = entries[pick % entries.Length];
        return Told([.. entries, Given.Strike(target)]) == Told(entries.Where(e => e != target));
    });

    [Fact]
    public void Striking_out_a_strike_puts_the_entry_back() => Gen.Select(Lessons, Gen.Int[0, 1000]).Sample((entries, pick) =>
    {
        var strike = Given.Strike(entries[pick % entries.Length]);
        return Told([.. entries, strike, Given.Strike(strike)]) == Told(entries);
    });

    [Fact]
    public void A_lesson_replayed_to_a_moment_is_what_had_happened_by_then_without_what_was_struck_out() =>
        Gen.Select(Lessons, Gen.Int[0, 1000], Gen.Int[-400, 3400]).Sample((entries, pick, second) =>
        {
            var (struck, moment) = (entries[pick % entries.Length], Given.Start + Duration.FromSeconds(second));
            var replay = new Replay(LessonState.Fold([.. entries, Given.Strike(struck)]));
            return Told(replay.At(moment)) == Told(entries.Where(e => e != struck && e.HappenedAt <= moment));
        });

    [Fact]
    public void A_long_lesson_is_replayed_to_any_moment_in_whatever_order_it_is_asked()
    {
        List<Entry> entries = [.. Enumerable.Range(0, 9000).Select(i =>
            Given.Noted(i / 150.0, i % 2 == 0 ? new HandRaised(Students[i / 2 % 3]) : new Called(Students[i / 2 % 3], TurnOrigin.Hand)))];
        var replay = new Replay(LessonState.Fold(entries));
        foreach (var minute in new[] { 59, 3, 40, 26, 27, 60, 0 })
        {
            var moment = Given.Start + Duration.FromMinutes(minute);
            Told(replay.At(moment)).ShouldBe(Told(entries.Where(e => e.HappenedAt <= moment)), $"minute {minute}");
        }
    }

    [Fact]
    public void Adding_a_full_turn_never_lowers_a_score() => Lessons.Sample(entries =>
        Score(entries, Given.Juno) is not { } before
        || !LessonState.Fold(entries).AttendanceOf(Given.Juno, Given.Lesson, AttendancePolicy.Default).WasThere
        || Score([.. entries, Given.Noted(50, Given.Turn(Given.Juno))], Given.Juno) >= before - 0.0000001m);

    [Fact]
    public void An_excused_lesson_never_changes_a_term_score() => Gen.Decimal[0, 100].Array[3, 12].Sample(scores =>
    {
        var lessons = scores.Select(s => new ScoredLesson("a lesson", s, 50)).ToList();
        var excused = LessonScore.Of(new Participation { Attendance = Given.Attendance("", excuse: "dentist") }, Scheme.Default).Total;
        var with = excused is null ? lessons : [.. lessons, new ScoredLesson("excused", excused.Value, 50)];
        return TermScore.Of(with, Scheme.Default).Total!.Value == TermScore.Of(lessons, Scheme.Default).Total!.Value;
    });

    [Fact]
    public void What_is_kept_of_a_lesson_gives_any_scheme_the_score_that_its_entries_give() => Gen.Select(Lessons, Schemes, Schemes).Sample((entries, kept, tried) =>
    {
        var state = LessonState.Fold(entries);
        return Students.All(student => Tally.CountsAlike(kept.Attendance, tried.Attendance)
            && LessonScore.Of(Tally.Of(state.ParticipationOf(student, Given.Lesson, kept)).ToScore(tried), tried) is var fromTally
            && LessonScore.Of(state.ParticipationOf(student, Given.Lesson, tried), tried) is var fromEntries
            && fromTally.Total?.Value == fromEntries.Total?.Value && fromTally.RestsOn == fromEntries.RestsOn);
    });

    [Fact]
    public void A_correction_touches_one_student() => Gen.Select(Lessons, Gen.Int[0, 100]).Sample((entries, to) =>
    {
        Entry[] corrected = [.. entries, Given.Noted(55, new ScoreCorrected(Given.Juno, CorrectionKind.ScoreSet, null, to, "as agreed"))];
        return Score(corrected, Given.Juno) == to && Students.Where(s => s != Given.Juno).All(s => Score(corrected, s) == Score(entries, s));
    });

    [Fact]
    public void Weights_times_ten_change_nothing() => Lessons.Sample(entries =>
    {
        var tenfold = Scheme.Default with { Weights = Scheme.Default.Weights.ToDictionary(w => w.Key, w => w.Value * 10) };
        return Students.All(s => Score(entries, s) is var a && Score(entries, s, tenfold) is var b
            && (a is null ? b is null : Math.Abs(a.Value - b!.Value) < 0.0000001m));
    });

    [Fact]
    public void Every_figure_recomputes_exactly_from_its_parts() => Lessons.Sample(entries => Students.All(student =>
    {
        var score = LessonScore.Of(
            LessonState.Fold(entries).ParticipationOf(student, Given.Lesson, Scheme.Default), Scheme.Default);
        return score.Total is null || (score.Total.Recompute() == score.Total.Value && AllParts(score.Total).All(f => f.Recompute() == f.Value));
    }));

    [Fact]
    public void Leaves_are_entries_of_the_lesson_and_scores_lie_between_0_and_100() => Lessons.Sample(entries => Students.All(student =>
    {
        var total = LessonScore.Of(
            LessonState.Fold(entries).ParticipationOf(student, Given.Lesson, Scheme.Default), Scheme.Default).Total;
        var ids = entries.Select(e => e.Id).ToHashSet();
        return total is null || (total.Value is >= 0 and <= 100 && AllParts(total).SelectMany(f => f.Entries).All(ids.Contains));
    }));

    [Fact]
    public void Presence_lies_within_the_lesson() => Lessons.Sample(entries => Students.All(student =>
    {
        var result = LessonState.Fold(entries).AttendanceOf(student, Given.Lesson, AttendancePolicy.Default);
        return result.Present >= Duration.Zero && result.Present <= result.Counted && result.Share is >= 0 and <= 1
            && result.Stretches.All(s => s.From >= Given.Start && s.To <= Given.End && s.From <= s.To)
            && result.Stretches.Zip(result.Stretches.Skip(1)).All(p => p.First.To < p.Second.From);
    }));

    private static IEnumerable<Figure> AllParts(Figure figure) => figure.Parts.SelectMany(AllParts).Prepend(figure);
}
