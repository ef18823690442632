using Microsoft.EntityFrameworkCore;
using NodaTime;
using PoliteTally.Core.GroundRules;
using PoliteTally.Core.Names;
using PoliteTally.Core.Scoring;
using PoliteTally.Store;
using PoliteTally.Store.Model;

namespace PoliteTally.Web.Features.Scores;

/// <summary>The scheme of a class.</summary>
/// <param name="Version">The number of the version that lessons to come are scored by.</param>
/// <param name="Versions">All versions, the newest first.</param>
/// <param name="Lessons">Settled lessons, each with the version it is scored by.</param>
/// <param name="Prepared">Schemes to start from.</param>
public sealed record SchemeView(
    string Name, int Version, Scheme Scheme, IReadOnlyList<VersionLine> Versions, IReadOnlyList<SchemeLesson> Lessons, IReadOnlyList<PreparedScheme> Prepared,
    IReadOnlyList<RuleExample> Examples)
{
    internal static async Task<SchemeView> Of(SchoolClass row, SchoolDb db)
    {
        var rules = RulesJson.Of(row);
        var versions = await Schemes.Of(db, row.Id).ToListAsync();
        var lessons = await db.Lessons.AsNoTracking().Where(l => l.ClassId == row.Id && l.Stage == LessonStage.Settled).OrderBy(l => l.PlannedStart).ToListAsync();
        var newest = versions.Count == 0 ? 1 : versions[^1].Number;
        return new SchemeView(
            row.Name, newest, rules.Scheme,
            [.. versions.Select(v => new VersionLine(v.Number, v.MadeAt, v.By, v.Why, lessons.Count(l => l.ScoredBy == v.Number), RulesJson.SchemeOf(v.Scheme))).Reverse()],
            [.. lessons.Select(l => new SchemeLesson(l.Id, l.Number, l.Title, l.PlannedStart, l.ScoredBy ?? newest, l.ReckonAgain))],
            PreparedSchemes.From(rules.Scheme), RuleExamples.Of(rules));
    }
}

/// <summary>A version of a scheme.</summary>
/// <param name="Lessons">How many settled lessons are scored by it.</param>
public sealed record VersionLine(int Number, Instant MadeAt, string By, string Why, int Lessons, Scheme Scheme);

/// <summary>A settled lesson.</summary>
/// <param name="Version">The version it is scored by.</param>
/// <param name="Due">Whether its scores are still to be reckoned by it.</param>
public sealed record SchemeLesson(Guid Id, int Number, string Title, Instant PlannedStart, int Version, bool Due);

/// <summary>A scheme that is tried.</summary>
/// <param name="Lessons">Settled lessons that would be scored by it as well; none if it is for lessons to come alone.</param>
public sealed record SchemeTried(Scheme Scheme, IReadOnlyList<Guid> Lessons);

/// <summary>What a scheme that is tried amounts to.</summary>
/// <param name="InWords">What is to be known before it is stored.</param>
/// <param name="Students">The students, the largest loss first.</param>
public sealed record SchemeCompared(int Gain, int Lose, int Stay, IReadOnlyList<string> InWords, IReadOnlyList<ComparedRow> Students, IReadOnlyList<RuleExample> Examples)
{
    internal static SchemeCompared Of(BeforeAfter compared, TermSheet term, ClassRules tried)
    {
        var names = term.Roster.ToDictionary(s => s.Name.Id, s => s.Name);
        return new SchemeCompared(
            compared.Gain, compared.Lose, compared.Stay, compared.InWords,
            [
                .. compared.Students.Select(c => new ComparedRow(
                    c.Student, ShortNames.CalledName(names[c.Student]), names[c.Student].Family, c.Before, c.After, c.Change, c.BandBefore, c.BandAfter, c.Crossed, c.About)),
            ],
            RuleExamples.Of(tried));
    }
}

/// <summary>A student before and after.</summary>
/// <param name="Before">The term score as it is, unrounded; null with too few lessons.</param>
/// <param name="After">As it would be.</param>
/// <param name="Change">By how much what is shown changes.</param>
/// <param name="Crossed">1 if they rise to a higher band, −1 if they drop.</param>
/// <param name="About">What is to be known of them when the change is judged.</param>
public sealed record ComparedRow(
    Guid Id, string Called, string Rest, decimal? Before, decimal? After, decimal? Change, string? BandBefore, string? BandAfter, int Crossed, string About);

/// <summary>A scheme as it is to be.</summary>
/// <param name="Why">Why it is changed.</param>
/// <param name="After">The newest version that the window knows, so that two windows do not write over each other.</param>
/// <param name="Lessons">Settled lessons that are to be scored by it as well.</param>
public sealed record SchemeSent(Scheme Scheme, string Why, int After, IReadOnlyList<Guid> Lessons);

/// <summary>What storing a scheme did.</summary>
/// <param name="Together">What the entries in its lessons share, by which they are taken back; null if there are none.</param>
/// <param name="Lessons">How many settled lessons are scored by it now that were not before.</param>
public sealed record SchemeStored(SchemeView View, Guid? Together, int Lessons);

/// <summary>Entries by which lessons were scored anew, to be taken back.</summary>
public sealed record ScoringTakenBack(Guid Together);
