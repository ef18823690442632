using System.Globalization;
using System.Text.Json;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using NodaTime;
using PoliteTally.Core.Chat;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Meeting;
using PoliteTally.Core.Names;
using PoliteTally.Formats;
using PoliteTally.Store;
using PoliteTally.Store.Model;
using PoliteTally.Store.Writing;
using PoliteTally.Web.Features.Keys;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Features.Feed;

/// <summary>What became of a batch.</summary>
/// <param name="Accepted">How many events are on the disk, now or from before.</param>
/// <param name="Refused">Those that are not, each with the reason. The others were kept.</param>
public sealed record FeedAnswer(int Accepted, IReadOnlyList<EventProblem> Refused);

internal static class FeedEndpoints
{
    private const int LargestBatch = 1_000_000;

    public static void MapFeed(this RouteGroupBuilder api)
    {
        api.MapPost("/feed", async Task<Results<Ok<FeedAnswer>, ProblemHttpResult>> (
            [FromBody] JsonElement batch, HttpContext http, LessonKeys keys, LedgerWriter ledger, OpenLessons openLessons, FeedLimits limits, IClock clock) =>
        {
            if (await keys.HolderOf(http.Request, KeyRights.Feed) is not { } holder || await openLessons.Find(holder.Owner, holder.Lesson) is not { } open)
            {
                return TypedResults.Problem(
                    "This token belongs to no lesson, or it was taken back. Make a new one in the lesson's menu.",
                    statusCode: StatusCodes.Status401Unauthorized);
            }

            var (events, problems) = MeetingEvents.Read(batch);
            var now = clock.GetCurrentInstant();
            var count = Math.Max(1, events.Count + problems.Count);
            if (!limits.Takes(holder.Lesson, count))
            {
                limits.Heard(holder.Lesson, now, count, $"{holder.Name} sends more than {FeedLimits.EventsASecond} events a second; it is asked to wait.");
                openLessons.Touch(holder.Lesson);
                http.Response.Headers.RetryAfter = Math.Max(1, count / FeedLimits.EventsASecond).ToString(CultureInfo.InvariantCulture);
                return TypedResults.Problem(
                    $"At most {FeedLimits.EventsASecond} events a second. Nothing of this batch was kept; send it again in a while.",
                    statusCode: StatusCodes.Status429TooManyRequests);
            }

            var entries = events.SelectMany(e => EntriesOf(e, open, now)).ToList();
            var names = SureNames(events, open, now);
            var result = (await ledger.Append(holder.Owner, holder.Lesson, Source.Feed, holder.Name, [.. entries.Select(e => e.Entry), .. names]))!;
            // An event may stand in a batch twice.
            var why = result.Refused.DistinctBy(r => r.Id).ToDictionary(r => r.Id, r => r.Why);
            var refused = entries.Where(e => why.ContainsKey(e.Entry.Id)).Select(e => new EventProblem(e.Event.Id, why[e.Entry.Id])).DistinctBy(p => p.Id).ToList();
            IReadOnlyList<EventProblem> all = [.. problems, .. refused];
            limits.Heard(holder.Lesson, now, all.Count, all is [.., var last] ? last.Why : null);
            if (all.Count > 0)
            {
                openLessons.Touch(holder.Lesson);
            }

            return TypedResults.Ok(new FeedAnswer(events.Count - refused.Count, all));
        }).WithName("Feed").DisableValidation().RequireRateLimiting(Limits.Keys).WithMetadata(new RequestSizeLimitAttribute(LargestBatch))
            .Accepts<JsonElement>("application/cloudevents-batch+json", "application/json");
    }

    private static IEnumerable<(MeetingEvent Event, NewEntry Entry)> EntriesOf(MeetingEvent told, OpenLesson open, Instant now)
    {
        yield return (told, Entry(told.Act, ""));
        if (told.Act is NameWrote wrote && open.Rules.ReadyJoinsLine && ChatProposal.SaysReady(wrote.Text))
        {
            yield return (told, Entry(new NameRaisedHand(wrote.Name, Ready: true), "ready"));
        }

        // The id follows from the event and not from what it says: an event sent again is the same, whatever else is in it.
        NewEntry Entry(Act act, string part) =>
            new(DerivedId.Of($"{open.Lesson.Id}\n{told.Source}\n{told.Id}\n{part}"), told.Time ?? now, act);
    }

    /// <summary>Names that are taken without asking, once: if the teacher takes that back, it is not said again.</summary>
    private static IEnumerable<NewEntry> SureNames(IReadOnlyList<MeetingEvent> events, OpenLesson open, Instant now)
    {
        var names = events.Select(e => e.Shown)
            .Concat(events.Select(e => e.Act).OfType<Renamed>().Select(r => ShownName.Of(r.To, r.Beside))).Distinct().ToList();
        var several = ShownName.OfSeveral(names);
        return
            from shown in names
            where shown.Name.Length <= TextLimits.LongestName && open.State.Names.DecisionOn(shown.Name, shown.Beside) is null
            let match = open.MatchOf(shown, several.Contains(shown.Name))
            where match.Certainty == Certainty.Sure
            select new NewEntry(DerivedId.Of($"{open.Lesson.Id}\nname\n{shown.Name}{(shown.Beside.Length > 0 ? $"\n{shown.Beside}" : "")}"), now,
                new NameMatched(shown.Name, match.Student) { Beside = shown.Beside });
    }
}
