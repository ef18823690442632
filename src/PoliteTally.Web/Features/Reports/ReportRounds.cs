using System.Collections.Concurrent;
using System.IO.Compression;
using Microsoft.EntityFrameworkCore;
using MimeKit;
using NodaTime;
using PoliteTally.Core.Reports;
using PoliteTally.Core.Text;
using PoliteTally.Formats.Documents;
using PoliteTally.Store;
using PoliteTally.Store.Model;
using PoliteTally.Web.Mail;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Features.Reports;

/// <summary>How the reports of many students leave.</summary>
public enum RoundBy
{
    /// <summary>By mail, each to their own address or that of their home.</summary>
    Mail,

    /// <summary>In one archive.</summary>
    Zip,
}

/// <summary>How far a round of reports has come.</summary>
/// <param name="Done">Students who are done, of <paramref name="Of"/>.</param>
/// <param name="Said">What became of it, in words; empty while it goes on.</param>
/// <param name="Problems">Whose report did not go, and why.</param>
/// <param name="HasFile">Whether there is an archive to be fetched.</param>
public sealed record RoundView(Guid Id, int Done, int Of, string Said, IReadOnlyList<string> Problems, bool HasFile);

/// <summary>
/// Writes the reports of many students, one round after the other, beside everything else. A round of an id is made once, however often it is asked for; an archive is
/// kept for half an hour.
/// </summary>
internal sealed class ReportRounds(SchoolFile file, IMail mail, IClock clock, IHostApplicationLifetime program, ILogger<ReportRounds> log) : IDisposable
{
    private static readonly Duration Kept = Duration.FromMinutes(30);
    private static readonly Duration HadAlready = Duration.FromHours(1);

    private readonly ConcurrentDictionary<(Guid Owner, Guid Id), Round> _rounds = new();
    private readonly SemaphoreSlim _one = new(1, 1);

    /// <summary>What is asked for.</summary>
    internal sealed record Asked(Guid Id, Guid Owner, SchoolClass Class, IReadOnlyList<Guid> Students, RoundBy By, AskedReport Report, Paper Paper);

    private sealed class Round(Asked asked, Instant at)
    {
        public Asked Asked { get; } = asked;

        public Instant At { get; } = at;

        public int Done { get; set; }

        public int Gone { get; set; }

        public int Had { get; set; }

        public string Said { get; set; } = "";

        public ConcurrentQueue<string> Problems { get; } = new();

        public FileStream? File { get; set; }

        public RoundView View => new(Asked.Id, Done, Asked.Students.Count, Said, [.. Problems], Said.Length > 0 && File is not null);
    }

    /// <summary>Begins a round, or says how far it has come if it was begun before.</summary>
    public RoundView Begin(Asked asked)
    {
        Forget();
        var made = new Round(asked, clock.GetCurrentInstant());
        var round = _rounds.GetOrAdd((asked.Owner, asked.Id), made);
        if (round == made)
        {
            _ = Task.Run(() => Run(round, program.ApplicationStopping));
        }

        return round.View;
    }

    /// <summary>How far a round has come; null if the class has none of this id.</summary>
    public RoundView? Of(Guid owner, Guid inClass, Guid id) => Find(owner, inClass, id)?.View;

    /// <summary>The archive of a round; null while there is none.</summary>
    public byte[]? FileOf(Guid owner, Guid inClass, Guid id)
    {
        if (Find(owner, inClass, id) is not { Said.Length: > 0, File: { } kept })
        {
            return null;
        }

        lock (kept)
        {
            var bytes = new byte[kept.Length];
            kept.Position = 0;
            kept.ReadExactly(bytes);
            return bytes;
        }
    }

    private Round? Find(Guid owner, Guid inClass, Guid id) => _rounds.GetValueOrDefault((owner, id)) is { } round && round.Asked.Class.Id == inClass ? round : null;

    private async Task Run(Round round, CancellationToken stopping)
    {
        try
        {
            await _one.WaitAsync(stopping);
            try
            {
                await using var db = file.Open(round.Asked.Owner);
                await (round.Asked.By == RoundBy.Zip ? Pack(round, db, stopping) : Post(round, db, stopping));
            }
            finally
            {
                _one.Release();
            }
        }
        catch (OperationCanceledException)
        {
            round.Said = "The program was stopped; what had gone by then is noted.";
        }
        catch (Exception failure)
        {
            log.LogError(failure, "A round of reports could not be finished.");
            round.Said = "It could not be finished; what had gone by then is noted. Try once more.";
        }
    }

    private static async Task Pack(Round round, SchoolDb db, CancellationToken stopping)
    {
        var kept = new FileStream(Path.Combine(Path.GetTempPath(), $"polite-tally-{Guid.NewGuid():N}"), FileMode.CreateNew, FileAccess.ReadWrite, FileShare.None, 81920, FileOptions.DeleteOnClose);
        using (var archive = new ZipArchive(kept, ZipArchiveMode.Create, leaveOpen: true))
        {
            await Each(round, db, async (student, document) =>
            {
                // By number, so that two of one name are two files.
                await using var entry = archive.CreateEntry($"{round.Done + 1:D3}-{SavedAs.PartOf(document.Title)}.pdf", CompressionLevel.NoCompression).Open();
                await entry.WriteAsync(PdfFile.Write(document.Title, [document], round.Asked.Paper), stopping);
                return null;
            }, stopping);
        }

        round.File = kept;
        round.Said = $"{Words.Capital(Words.Several(round.Gone, "report"))}, in one archive.";
    }

    private async Task Post(Round round, SchoolDb db, CancellationToken stopping)
    {
        var teacher = await db.Users.SingleAsync(u => u.Id == round.Asked.Owner, stopping);
        var stopped = await Each(round, db, async (student, document) =>
        {
            var address = round.Asked.Report.Reader == Reader.Guardian ? student.SecondEmail : student.Email;
            if (string.IsNullOrWhiteSpace(address))
            {
                round.Problems.Enqueue($"{document.Title}: there is no address to send it to.");
                return null;
            }

            var (lately, about) = (clock.GetCurrentInstant() - HadAlready, $"{round.Asked.Report.Reader}: {document.About}");
            if (await db.SentReports.AnyAsync(s => s.StudentId == student.Id && s.To == address && s.About == about && s.Problem == "" && s.At > lately, stopping))
            {
                round.Had++;
                return null;
            }

            return await SendOne(round, student, address, about, document, teacher, db, stopping);
        }, stopping);
        round.Said = Words.Sentence(string.Join(", ", new[]
        {
            $"{Words.Several(round.Gone, "report")} went out",
            round.Had > 0 ? $"{Words.InLetters(round.Had)} had gone within the last hour and did not go twice" : "",
            round.Problems.IsEmpty ? "" : $"{Words.InLetters(round.Problems.Count)} did not go",
        }.Where(s => s.Length > 0))) + (stopped is null ? "" : $" {stopped} The rest was not tried: send them again when it is back, and nobody gets one twice.");
    }

    /// <returns>Why nobody else would be reached either; null otherwise.</returns>
    private async Task<string?> SendOne(Round round, Student student, string address, string about, Document document, Teacher teacher, SchoolDb db, CancellationToken stopping)
    {
        var now = clock.GetCurrentInstant();
        var problem = "";
        string? stop = null;
        try
        {
            using var message = MessageTo(address, document, teacher, round.Asked, now);
            await mail.Send(message, round.Asked.Owner, stopping);
            round.Gone++;
        }
        catch (MailProblem failed)
        {
            (problem, stop) = (failed.Message, failed.Passes ? failed.Message : null);
        }
        catch (Exception failure) when (failure is not OperationCanceledException)
        {
            // Whatever is wrong with this one: the next is not to wait for it.
            log.LogWarning(failure, "A report could not be sent.");
            problem = $"The message to “{address}” could not be written. Check the address on the roster page.";
        }

        if (problem.Length > 0)
        {
            round.Problems.Enqueue($"{document.Title}: {problem}");
        }

        db.SentReports.Add(new SentReport { Id = Guid.CreateVersion7(), ClassId = round.Asked.Class.Id, StudentId = student.Id, To = address, About = about, At = now, Problem = problem });
        await db.SaveChangesAsync(CancellationToken.None);
        return stop;
    }

    private MimeMessage MessageTo(string address, Document document, Teacher teacher, Asked asked, Instant now)
    {
        var body = new BodyBuilder { TextBody = $"{document.About}\n\n{ReportWriter.TextOf(document.Sections[0])}\n\nThe report is attached.\n\n{teacher.DisplayName}\n" };
        body.Attachments.Add($"{SavedAs.PartOf(document.Title)}.pdf", PdfFile.Write(document.Title, [document], asked.Paper), new ContentType("application", "pdf"));
        var message = new MimeMessage
        {
            Subject = $"{document.Title}: {asked.Class.Name}",
            Date = now.ToDateTimeOffset(),
            MessageId = $"{Guid.NewGuid():N}@polite-tally",
            Body = body.ToMessageBody(),
        };
        message.From.Add(mail.From(teacher.DisplayName));
        message.ReplyTo.Add(new MailboxAddress(teacher.DisplayName, teacher.Email!));
        message.To.Add(new MailboxAddress("", address));
        return message;
    }

    private static async Task<string?> Each(Round round, SchoolDb db, Func<Student, Document, Task<string?>> leave, CancellationToken stopping)
    {
        var (writer, ids) = (new ReportWriter(round.Asked.Class, db, new Owner { Id = round.Asked.Owner }), round.Asked.Students.ToList());
        var students = await db.Students.AsNoTracking().Where(s => ids.Contains(s.Id)).ToDictionaryAsync(s => s.Id, stopping);
        foreach (var id in ids)
        {
            stopping.ThrowIfCancellationRequested();
            if (await writer.Of(round.Asked.Report with { Student = id }) is { } document && students.TryGetValue(id, out var student))
            {
                if (await leave(student, document) is { } stop)
                {
                    return stop;
                }

                round.Gone += round.Asked.By == RoundBy.Zip ? 1 : 0;
            }

            round.Done++;
        }

        return null;
    }

    /// <inheritdoc/>
    public void Dispose()
    {
        foreach (var round in _rounds.Values)
        {
            round.File?.Dispose();
        }

        _one.Dispose();
    }

    private void Forget()
    {
        var old = clock.GetCurrentInstant() - Kept;
        foreach (var (key, round) in _rounds.Where(r => r.Value.At < old && r.Value.Said.Length > 0))
        {
            if (_rounds.TryRemove(key, out _))
            {
                round.File?.Dispose();
            }
        }
    }
}
