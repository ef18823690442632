using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Chat;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Lessons;
using PoliteTally.Core.Meeting;
using PoliteTally.Core.Merging;
using PoliteTally.Core.Names;
using PoliteTally.Core.Settling;
using PoliteTally.Store;
using PoliteTally.Web.Features.Lessons;

namespace PoliteTally.Web.Features.Settling;

/// <summary>A lesson as it is settled: files in, names matched, presence reckoned beside what was tapped.</summary>
public sealed record SettlingView(
    LessonLine Lesson, Instant CountedFrom, Instant CountedTo, IReadOnlyList<FileIn> Files, IReadOnlyList<NameLine> Names,
    IReadOnlyList<RegisterLine> Register, IReadOnlyList<Person> People, int TurnsWithoutOutcome, Guid? SettledBy, Instant Now,
    int ChatWaiting, IReadOnlyList<PutAway> PutAway, IReadOnlyList<GuestLine> Guests, IReadOnlyList<OpenQuestion> Questions);

/// <summary>Somebody who came to a drop-in lesson and stands on no roster.</summary>
/// <param name="Decided">Whether it is said that they are no student; else nobody has said anything of the name.</param>
public sealed record GuestLine(string Name, string Beside, bool Decided, double PresentSeconds, IReadOnlyList<decimal[]> Ribbon);

/// <summary>Something that stands here and nowhere else: a message that was hidden, or an aside.</summary>
/// <param name="Entry">The entry that hid it, or that noted it.</param>
/// <param name="Who">The short name of the student, or the name shown.</param>
/// <param name="IsAside">Whether it is an aside.</param>
public sealed record PutAway(Guid Entry, Instant At, string Who, string Text, bool IsAside);

/// <summary>A file that was brought in.</summary>
/// <param name="Rows">How many rows or messages were read in it.</param>
/// <param name="From">When the first thing it tells happened, by the clock of the lesson; null if it tells no time, or was taken out.</param>
/// <param name="AheadSeconds">How far its clock is ahead, negative if behind.</param>
/// <param name="ClockBy">What its clock is known by; null if nothing told it or the teacher set it.</param>
/// <param name="Known">How many of its acts were known already from something else.</param>
/// <param name="TakenOutBy">The entry that took it out again, so that it counts for nothing; null while it counts.</param>
public sealed record FileIn(
    Guid Id, FileKind Kind, string Name, int Rows, Instant NotedAt, Instant? From, Instant? To, double AheadSeconds, TraceKind? ClockBy, int ClockPairs, bool ClockByHand,
    int Known, Guid? TakenOutBy);

/// <summary>A name seen in the meeting.</summary>
/// <param name="Beside">What tells it apart from others of the same name; empty if there is none.</param>
/// <param name="Decided">Whether the ledger says whose it is.</param>
/// <param name="ByTeacher">Whether the teacher said so.</param>
public sealed record NameLine(
    string Name, string Beside, Instant? First, Instant? Last, double? Seconds, Certainty Certainty, MatchedBy By, bool Decided, bool ByTeacher,
    Guid? Student, IReadOnlyList<Guid> Proposals);

/// <summary>A student in the register.</summary>
/// <param name="MissedAt">The roll call that they were missing from, if that is the teacher's last word; null else.</param>
/// <param name="SentOutSince">Since when they are sent out and not let back in.</param>
/// <param name="Disagree">Whether marks and what was measured differ, so that it is asked which of them it was.</param>
public sealed record RegisterLine(
    Guid Student, string Called, string Rest, AttendanceStatus Status, KnownBy KnownBy, string Words, double PresentSeconds,
    IReadOnlyList<decimal[]> Ribbon, bool Declared, bool Disagree, string? Excuse, Instant? MissedAt, Instant? SentOutSince);

internal static class SettlingViews
{
    /// <summary>The view of a lesson in the zone of its school.</summary>
    public static async Task<SettlingView> Of(OpenLesson open, SchoolDb db, Owner owner, Instant now) => Of(open, await LessonEndpoints.ZoneOf(db, owner), now);

    private static SettlingView Of(OpenLesson open, DateTimeZone zone, Instant now)
    {
        var state = open.State;
        var shown = state.Names.All.Values.Where(n => n.Sightings.Count > 0 || n.Answered).ToList();
        var matches = open.MatchesOf([.. shown.Select(n => ShownName.Of(n.Name, n.Beside))]);
        var names = open.ShortNames;
        var questions = new OpenQuestions(state, open.Times, open.Rules, [.. open.Roster.Select(s => s.Name.Id)], zone).All(matches);
        var asked = questions.Where(q => q.Asks == Asks.WhichStatus).Select(q => q.Student!.Value).ToHashSet();
        return new SettlingView(
            LessonLine.Of(open.Lesson, open.ClassName), open.Times.CountedFrom, open.Times.CountedTo,
            [.. FilesOf(state)],
            [.. shown.Zip(matches, (name, match) => LineOf(name, match, state)).OrderBy(n => n.Decided).ThenBy(n => n.Name, StringComparer.OrdinalIgnoreCase)],
            [.. open.Roster.Select(s => LineOf(s, state, open.Times, open.Rules.Scheme.Attendance, asked.Contains(s.Name.Id)))],
            [.. open.Roster.Select(s => new Person(s.Name.Id, names[s.Name.Id], s.Name.Whole))],
            state.HandLine.Turns.Count(t => t.Outcome is null), state.Course.SettledBy, now,
            OpenQuestions.Waiting(state).Count, PutAwayIn(state, names),
            open.Lesson.DropIn ? [.. GuestsOf(state, open.Times, open.Rules.Scheme.Attendance)] : [],
            questions);
    }

    private static IEnumerable<FileIn> FilesOf(LessonState state)
    {
        var merged = state.Files.Files.ToDictionary(f => f.Entry.Id);
        var strikes = state.StrikesOn();
        var rows = state.Entries.Where(e => e is { Source: Source.File, Together: not null } && !e.Act.IsDecision).ToLookup(e => e.Together!.Value);
        foreach (var (entry, file) in state.Entries.Where(e => e.Act is FileBroughtIn).Select(e => (e, (FileBroughtIn)e.Act)).OrderBy(f => f.e.NotedAt))
        {
            var told = rows[entry.Id].ToList();
            var clock = merged.GetValueOrDefault(entry.Id)?.Clock;
            var times = clock is null ? [] : told.Where(e => e.Act is not Attended).Select(e => e.HappenedAt).ToList();
            yield return new FileIn(
                entry.Id, file.Kind, file.Name, file.Rows, entry.NotedAt, times.Count == 0 ? null : times.Min(), times.Count == 0 ? null : times.Max(),
                clock?.Ahead.TotalSeconds ?? 0, clock?.By, clock?.Pairs ?? 0, clock?.ByHand ?? false, told.Count(e => state.Files.CountsBy(e.Id) is not null),
                clock is null ? strikes[entry.Id].FirstOrDefault() : null);
        }
    }

    private static IEnumerable<GuestLine> GuestsOf(LessonState state, LessonTimes times, AttendancePolicy policy) => state.Guests(times, policy).Select(g => new GuestLine(
        g.Shown.Name, state.Names.TellingApart(g.Shown.Name, g.Shown.Beside), g.Shown.Match is not null, g.Stay.Present.TotalSeconds, RibbonOf(g.Stay, times)));

    private static IReadOnlyList<decimal[]> RibbonOf(AttendanceResult attendance, LessonTimes times)
    {
        var whole = times.CountedTo - times.CountedFrom;
        return [.. attendance.Stretches.Select(s => new[] { At(s.From), At(s.To) })];

        decimal At(Instant moment) => whole <= Duration.Zero ? 0 : (decimal)((moment - times.CountedFrom) / whole);
    }

    private static IReadOnlyList<PutAway> PutAwayIn(LessonState state, IReadOnlyDictionary<Guid, string> names)
    {
        var hidden = state.Chat.Messages.Where(m => m.Hidden is not null)
            .Select(m => new PutAway(m.Hidden!.Value, m.At, m.Student is { } id ? names.GetValueOrDefault(id, "A former student") : m.Name, m.Text, IsAside: false));
        var asides = names.SelectMany(n => state.Notes.AsidesOf(n.Key).Select(a => new PutAway(a.Entry.Id, a.Entry.HappenedAt, n.Value, a.Aside.Text, IsAside: true)));
        return [.. hidden.Concat(asides).OrderBy(p => p.At)];
    }

    private static NameLine LineOf(NameShown name, NameMatch match, LessonState state)
    {
        var times = name.Sightings.Where(s => s is not PresentFor).Select(s => s.At).ToList();
        var length = name.Sightings.OfType<PresentFor>().Select(p => p.Length.TotalSeconds).DefaultIfEmpty().Sum();
        return new NameLine(
            name.Name, state.Names.TellingApart(name.Name, name.Beside), times.Count > 0 ? times.Min() : null, times.Count > 0 ? times.Max() : null, length > 0 ? length : null,
            match.Certainty, match.By, name.Match is not null, name.Match?.Source == Source.Tapped,
            name.Match is null ? match.Student : name.Match.Student is { } whose ? state.Whose(whose) : null, match.Proposals);
    }

    private static RegisterLine LineOf(OnSheet student, LessonState state, LessonTimes times, AttendancePolicy policy, bool disagree)
    {
        var id = student.Name.Id;
        var declared = state.Evidence.DeclaredOf(id) is not null;
        var result = state.AttendanceOf(id, times, policy);
        var marks = state.Evidence.MarksOf(id);
        return new RegisterLine(
            id, ShortNames.CalledName(student.Name), student.Name.Family, result.Status, result.KnownBy, result.InWords(),
            result.Present.TotalSeconds,
            RibbonOf(result, times),
            declared, disagree,
            state.Evidence.ExcuseOf(id)?.Reason, marks is [.., { ByRollCall: true, Mark: Mark.Left } call] ? call.At : null, result.SentOutSince);
    }
}
