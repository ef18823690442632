using System.Collections.Concurrent;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PoliteTally.Store;
using PoliteTally.Store.Model;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Features.StudentPage;

/// <summary>A lesson that a student's browser has opened, and who it is.</summary>
/// <param name="Session">The session of the browser.</param>
/// <param name="OpenLesson">The lesson.</param>
/// <param name="Student">Who it is; null for somebody who gave a name and whom the teacher has not let in.</param>
/// <param name="Name">The name they gave; empty for whoever came with a pass.</param>
/// <param name="TurnedAway">Whether the teacher turned them away.</param>
public sealed record PageGuest(Guid Session, OpenLesson OpenLesson, Guid? Student, string Name, bool TurnedAway)
{
    /// <summary>Whether they came with a pass; a name that was let in is good for the lesson and no more.</summary>
    public bool ByPass => Student is not null && Name.Length == 0;

    /// <summary>Whether they may read their own scores.</summary>
    public bool SeesScores => ByPass && OpenLesson.Rules.PageShowsScores;
}

/// <summary>
/// Browsers in which a student's page was entered. The token is 256 random bits in a cookie that scripts cannot read; the file keeps its
/// SHA-256, which for so many bits needs no salt.
/// </summary>
public sealed class PageSessions(SchoolFile file, OpenLessons openLessons, IClock clock)
{
    public const string Cookie = "polite-tally-page";

    /// <summary>How long a device remembers who it belongs to.</summary>
    private static readonly TimeSpan Remembered = TimeSpan.FromDays(120);

    /// <summary>How long a session is kept that opens nothing any more, or was for one lesson only.</summary>
    private static readonly TimeSpan KeptAfter = TimeSpan.FromDays(7);

    private readonly ConcurrentDictionary<string, bool> _known = new();

    /// <summary>Stages of a lesson in which its student page takes part in it.</summary>
    public static bool IsOn(LessonStage stage) => stage is LessonStage.Planned or LessonStage.Live;

    /// <summary>Whether a cookie was seen to belong to a session since the program started; a made-up one never was.</summary>
    public bool Knows(string? token) => token is not null && _known.ContainsKey(SecretToken.HashOf(token));

    /// <summary>Takes sessions out of the file that open nothing any more.</summary>
    public async Task TidyUp()
    {
        var now = clock.GetCurrentInstant();
        var (remembered, after) = (now - Duration.FromTimeSpan(Remembered), now - Duration.FromTimeSpan(KeptAfter));
        await using var all = file.Open(Guid.Empty);
        await all.PageSessions.IgnoreQueryFilters()
            .Where(s => s.MadeAt < remembered || s.EndedAt < after || (s.LessonId != null && s.MadeAt < after)).ExecuteDeleteAsync();
        // Whoever comes again is known again.
        _known.Clear();
    }

    /// <summary>The lesson of a code as somebody typed it; null if there is none.</summary>
    public async Task<OpenLesson?> Find(string code)
    {
        var typed = Syllables.Read(code);
        await using var db = file.Open(Guid.Empty);
        var found = await db.Lessons.IgnoreQueryFilters().AsNoTracking().Where(l => l.Code == typed).Select(l => new { l.Id, l.OwnerId }).FirstOrDefaultAsync();
        return found is null ? null : await openLessons.Find(found.OwnerId, found.Id);
    }

    /// <summary>Begins a session and leaves its token with the browser.</summary>
    /// <param name="http">The request.</param>
    /// <param name="open">The lesson.</param>
    /// <param name="student">Who came with a pass; null for somebody who gave a name.</param>
    /// <param name="remember">Whether the device is to remember it.</param>
    public async Task<Guid> Begin(HttpContext http, OpenLesson open, Guid? student, bool remember)
    {
        var token = SecretToken.Make();
        var session = new PageSession
        {
            Id = Guid.CreateVersion7(),
            StudentId = student,
            LessonId = student is null ? open.Lesson.Id : null,
            TokenHash = SecretToken.HashOf(token),
            Device = DeviceOf(http.Request.Headers.UserAgent.ToString()),
            MadeAt = clock.GetCurrentInstant(),
        };
        await using var db = file.Open(open.Lesson.OwnerId);
        db.PageSessions.Add(session);
        await db.SaveChangesAsync();
        http.Response.Cookies.Append(Cookie, token, new CookieOptions
        {
            HttpOnly = true,
            SameSite = SameSiteMode.Strict,
            Secure = http.Request.IsHttps,
            MaxAge = remember ? Remembered : null,
        });
        return session.Id;
    }

    /// <summary>Who came with a request to a lesson; null if their browser has no session that opens it.</summary>
    public async Task<PageGuest?> GuestOf(HttpContext http, string code)
    {
        if (http.Request.Cookies[Cookie] is not { Length: > 0 } token || await Find(code) is not { } open)
        {
            return null;
        }

        var hash = SecretToken.HashOf(token);
        await using var db = file.Open(open.Lesson.OwnerId);
        var oldest = clock.GetCurrentInstant() - Duration.FromTimeSpan(Remembered);
        var session = await db.PageSessions.AsNoTracking().FirstOrDefaultAsync(s => s.TokenHash == hash && s.EndedAt == null && s.MadeAt > oldest);
        if (session is null)
        {
            return null;
        }

        _known[hash] = true;
        return GuestOf(session.Id, session.StudentId, open);
    }

    /// <summary>Ends the sessions of students whose pass opens nothing any more. Part of whatever is stored with the context.</summary>
    /// <returns>The sessions that were ended, whose pages are to be closed.</returns>
    public async Task<IReadOnlyList<Guid>> EndAllOf(IReadOnlyList<Guid> students, SchoolDb db)
    {
        var sessions = await db.PageSessions.Where(s => s.EndedAt == null && s.StudentId != null && students.Contains(s.StudentId.Value)).ToListAsync();
        foreach (var session in sessions)
        {
            session.EndedAt = clock.GetCurrentInstant();
        }

        return [.. sessions.Select(s => s.Id)];
    }

    /// <summary>Ends the session of a browser.</summary>
    public async Task<Guid?> End(HttpContext http)
    {
        http.Response.Cookies.Delete(Cookie);
        if (http.Request.Cookies[Cookie] is not { Length: > 0 } token)
        {
            return null;
        }

        var hash = SecretToken.HashOf(token);
        await using var all = file.Open(Guid.Empty);
        var found = await all.PageSessions.IgnoreQueryFilters().AsNoTracking().FirstOrDefaultAsync(s => s.TokenHash == hash && s.EndedAt == null);
        if (found is null)
        {
            return null;
        }

        await using var db = file.Open(found.OwnerId);
        (await db.PageSessions.SingleAsync(s => s.Id == found.Id)).EndedAt = clock.GetCurrentInstant();
        await db.SaveChangesAsync();
        return found.Id;
    }

    /// <summary>Whoever has a session as of now in a lesson: a student of its roster, or somebody with a name who came to this lesson.</summary>
    internal static PageGuest? GuestOf(Guid session, Guid? student, OpenLesson open)
    {
        if (student is { } known)
        {
            return open.OnSheetOf(open.Whose(known)) is { } one ? new PageGuest(session, open, one.Name.Id, "", TurnedAway: false) : null;
        }

        return open.State.Page.Visitors.GetValueOrDefault(session) is { } visitor
            ? new PageGuest(session, open, visitor.Student, visitor.Name, visitor is { Word: not null, Student: null })
            : null;
    }

    private static string DeviceOf(string agent) => agent switch
    {
        _ when agent.Contains("iPad", StringComparison.Ordinal) || agent.Contains("Tablet", StringComparison.Ordinal) => "tablet",
        _ when agent.Contains("Mobi", StringComparison.Ordinal) || agent.Contains("Android", StringComparison.Ordinal) => "phone",
        _ => "computer",
    };
}
