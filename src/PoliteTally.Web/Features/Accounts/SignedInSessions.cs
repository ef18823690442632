using System.Collections.Concurrent;
using System.Security.Claims;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PoliteTally.Store;
using PoliteTally.Store.Model;
using PoliteTally.Web.Publishing;

namespace PoliteTally.Web.Features.Accounts;

/// <summary>
/// Sessions of teachers. A cookie carries the id of its session; signing out notes that the session is over, for as long as the cookie could be
/// shown again, and closes the windows that were opened with it.
/// </summary>
public sealed class SignedInSessions
{
    /// <summary>How long a cookie is good.</summary>
    public static readonly TimeSpan Lasts = TimeSpan.FromDays(14);

    private const string Claim = "session";

    private readonly SchoolFile _file;
    private readonly OpenWindows _windows;
    private readonly IClock _clock;
    private readonly ConcurrentDictionary<Guid, bool> _over;

    public SignedInSessions(SchoolFile file, OpenWindows windows, IClock clock)
    {
        (_file, _windows, _clock) = (file, windows, clock);
        using var db = file.Open(Guid.Empty);
        _over = new(db.EndedSessions.AsNoTracking().Select(s => s.Id).ToDictionary(id => id, _ => true));
    }

    /// <summary>Signs a teacher in, in a session of its own.</summary>
    public static Task Begin(SignInManager<Teacher> signIn, Teacher teacher) =>
        signIn.SignInWithClaimsAsync(teacher, isPersistent: true, [new Claim(Claim, Guid.CreateVersion7().ToString())]);

    /// <summary>Who somebody is is read anew from time to time; the session is the same one.</summary>
    public static Task GoOn(SecurityStampRefreshingPrincipalContext renewed)
    {
        if (renewed is { CurrentPrincipal: { } before, NewPrincipal.Identity: ClaimsIdentity now } && before.FindFirst(Claim) is { } session)
        {
            now.AddClaim(session.Clone());
        }

        return Task.CompletedTask;
    }

    /// <summary>Whether somebody's session goes on.</summary>
    public bool GoesOn(ClaimsPrincipal? who) => IdOf(who) is { } id && !_over.ContainsKey(id);

    /// <summary>Ends a session on this side, whatever cookie is shown later.</summary>
    public async Task End(ClaimsPrincipal who)
    {
        if (IdOf(who) is not { } id)
        {
            return;
        }

        var now = _clock.GetCurrentInstant();
        await using (var db = _file.Open(Guid.Empty))
        {
            var gone = now - Duration.FromTimeSpan(Lasts);
            await db.EndedSessions.Where(s => s.At < gone).ExecuteDeleteAsync();
            if (!await db.EndedSessions.AnyAsync(s => s.Id == id))
            {
                db.EndedSessions.Add(new EndedSession { Id = id, At = now });
                await db.SaveChangesAsync();
            }
        }

        _over[id] = true;
        _windows.Drop(window => IdOf(window) == id);
    }

    private static Guid? IdOf(ClaimsPrincipal? who) => Guid.TryParse(who?.FindFirstValue(Claim), out var id) ? id : null;
}
