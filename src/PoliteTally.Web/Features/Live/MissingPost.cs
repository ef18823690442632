using System.Collections.Concurrent;
using NodaTime;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Names;
using PoliteTally.Core.Notes;
using PoliteTally.Store;
using PoliteTally.Store.Model;
using PoliteTally.Store.Writing;
using PoliteTally.Web.Features.WordAhead;
using PoliteTally.Web.Mail;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Features.Live;

/// <summary>
/// Writes to missing students. That a message goes is noted before it does, so that it never goes twice, whoever asks again and whatever stops
/// meanwhile; if it does not get away, the note is struck out and another says why.
/// </summary>
public sealed class MissingPost(LedgerWriter ledger, OpenLessons openLessons, IMail mail, IClock clock, ILogger<MissingPost> log)
{
    // One message of a lesson at a time; lessons do not wait for each other.
    private readonly ConcurrentDictionary<Guid, SemaphoreSlim> _turns = new();

    /// <summary>Sends a message unless one was sent under its id.</summary>
    /// <returns>Why the ledger does not take it; null if it went, now or before, or if the ledger says that it could not.</returns>
    public async Task<string?> SendOnce(
        ReachOne one, RosterName student, IReadOnlyList<string> addresses, Lesson lesson, Core.GroundRules.WordAhead word, Teacher teacher, CancellationToken stopping)
    {
        var turn = _turns.GetOrAdd(lesson.Id, _ => new SemaphoreSlim(1, 1));
        await turn.WaitAsync(stopping);
        try
        {
            if ((await openLessons.Find(lesson.OwnerId, lesson.Id))!.State.Entries.Any(e => e.Id == one.Id))
            {
                return null;
            }

            if (await Note(one.Id, new ContactTried(one.Student, ContactChannel.Email, ContactOutcome.Sent, "")) is { } refused)
            {
                return refused;
            }

            // Not cut short by whoever asked: what is noted is on its way.
            if (await WhyNotSent(one.Id, student, addresses, lesson, word, teacher) is { } why)
            {
                await Note(DerivedId.Of($"{one.Id}\nnot sent"), new Struck(one.Id));
                await Note(
                    DerivedId.Of($"{one.Id}\nwhy"),
                    new ContactTried(one.Student, ContactChannel.Email, ContactOutcome.Failed, why.Length > TextLimits.LongestName ? why[..TextLimits.LongestName] : why));
            }

            return null;
        }
        finally
        {
            turn.Release();
        }

        async Task<string?> Note(Guid id, Act act) =>
            (await ledger.Append(lesson.OwnerId, lesson.Id, Source.Tapped, teacher.UserName ?? "", [new NewEntry(id, clock.GetCurrentInstant(), act)]))?.Refused is [var refused, ..]
                ? refused.Why
                : null;
    }

    private async Task<string?> WhyNotSent(
        Guid id, RosterName student, IReadOnlyList<string> addresses, Lesson lesson, Core.GroundRules.WordAhead word, Teacher teacher)
    {
        try
        {
            using var message = WordAheadSender.MessageTo(student, addresses, lesson, word, teacher, mail, $"{id:N}", clock.GetCurrentInstant());
            await mail.Send(message, teacher.Id, CancellationToken.None);
            return null;
        }
        catch (MailProblem problem)
        {
            return problem.Message;
        }
        catch (Exception failure)
        {
            log.LogWarning(failure, "A message to somebody missing from lesson {Lesson} could not be written.", lesson.Id);
            return $"The message to “{string.Join(", ", addresses)}” could not be written. Check the address on the roster page.";
        }
    }
}
