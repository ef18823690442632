using Microsoft.AspNetCore.Http.HttpResults;
using NodaTime;
using PoliteTally.Core.Chat;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Lessons;
using PoliteTally.Core.Names;
using PoliteTally.Store;
using PoliteTally.Store.Model;
using PoliteTally.Store.Writing;
using PoliteTally.Web.Features.Keys;
using PoliteTally.Web.Features.Live;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Features.Help;

/// <summary>What a helper sees: names to choose from, and the hand line or the chat, as far as the key goes. No scores, nothing private.</summary>
public sealed record HelpView(
    Guid LessonId, string Helper, string ClassName, string Title, LessonStage Stage, bool Sweep, bool HandLine, long Position, Instant Now,
    IReadOnlyList<HelpPerson> People, IReadOnlyList<HandWaiting>? Hands, TurnNow? Turn, ChatView? Chat);

/// <summary>A student to choose from.</summary>
public sealed record HelpPerson(Guid Id, string Called, string Rest, string ShortName, string Key);

/// <summary>A helper of one lesson.</summary>
internal static class Helper
{
    /// <summary>Whether a helper with these rights may note an act. What they may strike out is their own.</summary>
    public static bool May(KeyRights rights, string signature, Act act, LessonState state) => act switch
    {
        HandRaised or HandEnded => rights.HasFlag(KeyRights.HandLine),
        ChatAct { Message: var message } =>
            rights.HasFlag(KeyRights.Sweep) && state.Chat.MessageOf(message) is { Private: false },
        ChatSaid => rights.HasFlag(KeyRights.Sweep),
        Struck struck => struck.Entries.ToHashSet() is var wanted && state.Entries.Count(e => wanted.Contains(e.Id) && e.By == signature) == wanted.Count,
        _ => false,
    };
}

internal static class HelpEndpoints
{
    private const KeyRights HelperRights = KeyRights.Sweep | KeyRights.HandLine;

    public static void MapHelp(this RouteGroupBuilder api)
    {
        api.MapGet("/help", async Task<Results<Ok<HelpView>, ProblemHttpResult>> (
            HttpRequest request, LessonKeys keys, OpenLessons openLessons, IClock clock) =>
            await Open(request, keys, openLessons) is var (holder, open) && open is not null
                ? TypedResults.Ok(ViewOf(holder!, open, clock.GetCurrentInstant()))
                : Closed()).WithName("GetHelp").RequireRateLimiting(Limits.Keys);

        api.MapPost("/help/entries", async Task<Results<Ok<WriteResult>, ProblemHttpResult>> (
            EntriesSent sent, HttpRequest request, LessonKeys keys, LedgerWriter ledger, OpenLessons openLessons) =>
        {
            if (await Open(request, keys, openLessons) is not ({ } holder, { } open))
            {
                return Closed();
            }

            if (LiveEndpoints.WrongBatch(sent) is { } wrong)
            {
                return wrong;
            }

            var state = open.State;
            var signature = HelperSignature.Of(holder.Name);
            var allowed = sent.Entries.Where(e => Helper.May(holder.Rights, signature, e.Act, state)).ToList();
            var refused = sent.Entries.Except(allowed).Select(e => new Refusal(e.Id, "This link does not go so far.")).ToList();
            var result = (await ledger.Append(
                holder.Owner, holder.Lesson, Source.Tapped, signature, [.. allowed.Select(e => new NewEntry(e.Id, e.HappenedAt, e.Act, e.Together))]))!;
            return TypedResults.Ok(result with { Refused = [.. result.Refused, .. refused] });
        }).WithName("AddHelperEntries").RequireRateLimiting(Limits.Keys);
    }

    /// <summary>The lesson that a helper's key opens: until the lesson ends.</summary>
    internal static async Task<(KeyHolder? Holder, OpenLesson? OpenLesson)> Open(HttpRequest request, LessonKeys keys, OpenLessons openLessons) =>
        await OpenFor(await keys.HolderOf(request, HelperRights), openLessons);

    /// <summary>As above, with the key in hand.</summary>
    internal static async Task<(KeyHolder? Holder, OpenLesson? OpenLesson)> Open(string key, LessonKeys keys, OpenLessons openLessons) =>
        await OpenFor(await keys.HolderOf(key, HelperRights), openLessons);

    private static async Task<(KeyHolder? Holder, OpenLesson? OpenLesson)> OpenFor(KeyHolder? holder, OpenLessons openLessons) =>
        holder is not null && await openLessons.Find(holder.Owner, holder.Lesson) is { Lesson.Stage: LessonStage.Planned or LessonStage.Live } open
            ? (holder, open)
            : (null, null);

    private static ProblemHttpResult Closed() => TypedResults.Problem(
        "This link opens nothing any more: the lesson is over, or it was taken back. Thank you for helping.",
        statusCode: StatusCodes.Status401Unauthorized);

    private static HelpView ViewOf(KeyHolder holder, OpenLesson open, Instant now)
    {
        var (position, state) = (open.Position, open.State);
        var names = open.ShortNames;
        var (sweep, line) = (holder.Rights.HasFlag(KeyRights.Sweep), holder.Rights.HasFlag(KeyRights.HandLine));
        return new HelpView(
            open.Lesson.Id, holder.Name, open.ClassName, open.Lesson.Title, open.Lesson.Stage, sweep, line, position, now,
            [.. open.Roster.Select(s => new HelpPerson(s.Name.Id, ShortNames.CalledName(s.Name), s.Name.Family, names[s.Name.Id], s.Key.ToString()))],
            line ? LiveView.LineOf(state, names, student => LiveRow.IsGone(student, open, state)) : null, line ? LiveView.TurnOf(state, names) : null,
            sweep ? ChatView.Of(open, state, position, withPrivate: false) : null);
    }
}
