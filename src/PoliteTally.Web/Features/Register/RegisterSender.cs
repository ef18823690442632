using System.Collections.Concurrent;
using Microsoft.EntityFrameworkCore;
using MimeKit;
using NodaTime;
using PoliteTally.Core.Text;
using PoliteTally.Store;
using PoliteTally.Store.Model;
using PoliteTally.Web.Mail;

namespace PoliteTally.Web.Features.Register;

/// <summary>
/// Carries registers to the desk of the school, or to the post. Each is noted as on its way before it goes, so a restart goes on where it stopped: what was on its way then, and what
/// got lost on a broken line, is in doubt until the desk says whether it has it. A desk that is away is tried again and again.
/// </summary>
public sealed class RegisterSender(SchoolFile file, RegisterDesk desk, IMail mail, IClock clock, TimeProvider timers, ILogger<RegisterSender> log) : BackgroundService
{
    private static readonly TimeSpan Pause = TimeSpan.FromSeconds(5);
    private static readonly Duration UntilNextTry = Duration.FromSeconds(30);
    private static readonly HandInState[] Open = [HandInState.Waiting, HandInState.Going, HandInState.InDoubt];

    // A desk that drips holds two of them up and no more, and of one class only one goes at a time.
    private readonly SemaphoreSlim _two = new(2, 2);
    private readonly ConcurrentDictionary<Guid, SemaphoreSlim> _ofClass = new();
    private readonly OnItsOwn _each = new(log, "The register");

    /// <summary>Tries whatever is due now.</summary>
    public async Task SendDue(CancellationToken stopping)
    {
        List<(Guid Owner, Guid Id)> due;
        await using (var all = file.Open(Guid.Empty))
        {
            var earlier = clock.GetCurrentInstant() - UntilNextTry;
            due = [.. (await all.HandIns.IgnoreQueryFilters().AsNoTracking().Where(h => Open.Contains(h.State) && h.At <= earlier).OrderBy(h => h.MadeAt)
                .Select(h => new { h.OwnerId, h.Id }).ToListAsync(stopping)).Select(h => (h.OwnerId, h.Id))];
        }

        await Parallel.ForEachAsync(due, new ParallelOptions { MaxDegreeOfParallelism = 2, CancellationToken = stopping }, async (one, stops) =>
            await _each.Do(one.Id, () => Send(one.Owner, one.Id, stops), stops));
    }

    /// <summary>Sends one, or asks whether it arrived. What has to wait too long for others stays noted, and goes with the next look.</summary>
    public async Task Send(Guid owner, Guid id, CancellationToken stopping)
    {
        await using var db = file.Open(owner);
        if (await db.HandIns.Where(h => h.Id == id).Select(h => (Guid?)h.Lesson!.ClassId).FirstOrDefaultAsync(stopping) is not { } inClass)
        {
            return;
        }

        var ofClass = _ofClass.GetOrAdd(inClass, _ => new SemaphoreSlim(1, 1));
        if (!await ofClass.WaitAsync(RegisterDesk.Patience, stopping))
        {
            return;
        }

        try
        {
            if (await _two.WaitAsync(RegisterDesk.Patience, stopping))
            {
                try
                {
                    await SendNow(owner, id, db, stopping);
                }
                finally
                {
                    _two.Release();
                }
            }
        }
        finally
        {
            ofClass.Release();
        }
    }

    /// <inheritdoc/>
    protected override Task ExecuteAsync(CancellationToken stoppingToken) => _each.Every(Pause, timers, () => SendDue(stoppingToken), stoppingToken);

    private async Task SendNow(Guid owner, Guid id, SchoolDb db, CancellationToken stopping)
    {
        if (await db.HandIns.Include(h => h.Lesson).ThenInclude(l => l!.Class).FirstOrDefaultAsync(h => h.Id == id, stopping) is not { } one || !Open.Contains(one.State))
        {
            return;
        }

        var before = await db.HandIns.AsNoTracking().Where(h => h.LessonId == one.LessonId && h.Version < one.Version && h.State == HandInState.Taken).OrderByDescending(h => h.Version).FirstOrDefaultAsync(stopping);
        var teacher = await db.Users.SingleAsync(u => u.Id == owner, stopping);
        var rules = RulesJson.Of(one.Lesson!, one.Lesson!.Class!).Register;
        var sheet = RegisterSheet.Of(one, before, one.Lesson!, rules, DateTimeZoneProviders.Tzdb[teacher.TimeZone]);
        (one.State, one.Said) = one switch
        {
            // Only the desk can be asked; whether a letter arrived nobody knows.
            { State: HandInState.Going or HandInState.InDoubt, Way: HandInWay.Mail } => (HandInState.Refused, "The program stopped while it went by mail: perhaps it went, perhaps not."),
            { State: HandInState.Going or HandInState.InDoubt } => await desk.Has(sheet, stopping) switch
            {
                true => (HandInState.Taken, "The register desk has it."),
                false => (HandInState.Waiting, "It did not arrive at the register desk, and goes again."),
                null => (HandInState.InDoubt, "The line to the register desk broke off: perhaps it has it, perhaps not. It is asked again."),
            },
            _ => await Carry(one, sheet, teacher, rules.MailTo, db, stopping),
        };
        one.At = clock.GetCurrentInstant();
        // Not cut short by a stop: what has gone must be noted as gone.
        await db.SaveChangesAsync(CancellationToken.None);
    }

    private async Task<(HandInState, string)> Carry(HandIn one, RegisterSheet sheet, Teacher teacher, string mailTo, SchoolDb db, CancellationToken stopping)
    {
        (one.State, one.At) = (HandInState.Going, clock.GetCurrentInstant());
        await db.SaveChangesAsync(stopping);
        if (one.Way == HandInWay.Mail)
        {
            return await Post(one, sheet, teacher, mailTo, stopping);
        }

        var (says, words) = desk.Exists ? await desk.HandIn(sheet, stopping) : (DeskSays.Refused, "This school has no register desk. Save the register as a file.");
        return says switch
        {
            DeskSays.Taken => (HandInState.Taken, words),
            DeskSays.Refused => (HandInState.Refused, words),
            DeskSays.Away => (HandInState.Waiting, $"{words} The register is kept here and tried again."),
            _ => (HandInState.InDoubt, $"{words} It is asked."),
        };
    }

    private async Task<(HandInState, string)> Post(HandIn one, RegisterSheet sheet, Teacher teacher, string mailTo, CancellationToken stopping)
    {
        try
        {
            using var message = new MimeMessage { Subject = CleanText.Of($"Register of {sheet.Class}, {sheet.From:yyyy-MM-dd}, {sheet.Title}{(one.Version > 1 ? $": amendment {one.Version - 1}" : "")}") };
            message.Date = clock.GetCurrentInstant().ToDateTimeOffset();
            message.MessageId = $"{one.Id:N}@polite-tally";
            message.From.Add(mail.From(teacher.DisplayName));
            message.ReplyTo.Add(new MailboxAddress(teacher.DisplayName, teacher.Email!));
            message.To.Add(new MailboxAddress("", mailTo));
            var changes = string.Concat(sheet.Changes.Select(c => $"{c.Name}: {c.To ?? "not in it any more"}; it was {c.From ?? "not in it"}\n"));
            var body = new BodyBuilder { TextBody = $"The register is attached.\n{(one.Why.Length > 0 ? $"\n{one.Why}\n" : "")}{(changes.Length > 0 ? $"\n{changes}" : "")}" };
            body.Attachments.Add($"register-{sheet.From:yyyy-MM-dd}.csv", RegisterSheet.Table([sheet]), new ContentType("text", "csv"));
            message.Body = body.ToMessageBody();
            await mail.Send(message, teacher.Id, stopping);
            return (HandInState.Taken, $"Sent to {mailTo}.");
        }
        catch (MailProblem problem)
        {
            return problem.Passes ? (HandInState.Waiting, $"{problem.Message} It is tried again.") : (HandInState.Refused, problem.Message);
        }
    }
}
