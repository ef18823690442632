using MailKit.Net.Smtp;
using MailKit.Security;
using MimeKit;
using PoliteTally.Web.Hosting;

namespace PoliteTally.Web.Mail;

/// <summary>How messages leave: into a folder that stands in for the post, or through a mail server.</summary>
public interface IMail
{
    /// <summary>Whether messages only lie ready until somebody sends them.</summary>
    bool OnlyLiesReady { get; }

    /// <summary>The address that messages come from.</summary>
    MailboxAddress From(string name);

    /// <summary>Sends one message on behalf of a teacher; when this returns it is on its way.</summary>
    /// <exception cref="MailProblem">It could not be sent; the message says why.</exception>
    Task Send(MimeMessage message, Guid owner, CancellationToken stopping);
}

/// <summary>A message could not be sent.</summary>
/// <param name="message">Why, in words.</param>
/// <param name="passes">Whether it may work in a while, for this message and for others: nobody was reached at all.</param>
/// <param name="inner">What happened underneath.</param>
public sealed class MailProblem(string message, bool passes, Exception? inner = null) : Exception(message, inner)
{
    /// <summary>Whether it may work in a while.</summary>
    public bool Passes { get; } = passes;
}

/// <summary>A message in the folder.</summary>
public sealed record OutboxLine(string File, string To, string Subject, DateTimeOffset At, string Text);

/// <summary>The stand-in for the post: every message becomes a file (.eml) that any mail program opens.</summary>
public sealed class OutboxFolder(string folder) : IMail
{
    private const int Shown = 200;

    /// <inheritdoc/>
    public bool OnlyLiesReady => true;

    /// <inheritdoc/>
    public MailboxAddress From(string name) => new(name, "lessons@polite-tally.example");

    /// <inheritdoc/>
    public async Task Send(MimeMessage message, Guid owner, CancellationToken stopping)
    {
        var mine = FolderOf(owner);
        // Named by its id, so that the same message twice is one file.
        var path = Path.Combine(mine, $"{message.Date.UtcDateTime:yyyyMMdd'T'HHmmss}-{message.MessageId!.Split('@')[0]}.eml");
        var whole = path + ".part";
        try
        {
            Directory.CreateDirectory(mine);
            await message.WriteToAsync(whole, stopping);
            File.Move(whole, path, overwrite: true);
        }
        catch (Exception failure) when (failure is IOException or UnauthorizedAccessException)
        {
            throw new MailProblem("The outbox folder cannot be written to.", passes: true, failure);
        }
    }

    /// <summary>The messages of a teacher, the newest first.</summary>
    public async Task<IReadOnlyList<OutboxLine>> Read(Guid owner)
    {
        var mine = FolderOf(owner);
        var lines = new List<OutboxLine>();
        foreach (var path in Directory.Exists(mine) ? Directory.GetFiles(mine, "*.eml").OrderDescending().Take(Shown) : [])
        {
            lines.Add(await LineOf(path));
        }

        return lines;
    }

    private static async Task<OutboxLine> LineOf(string path)
    {
        try
        {
            using var message = await MimeMessage.LoadAsync(path);
            return new OutboxLine(
                Path.GetFileName(path), string.Join(", ", message.To.Mailboxes.Select(m => m.Address)), message.Subject ?? "", message.Date,
                message.TextBody ?? "");
        }
        catch (Exception broken) when (broken is FormatException or IOException or UnauthorizedAccessException)
        {
            // One that somebody wrote over does not hide the others.
            return new OutboxLine(Path.GetFileName(path), "", "This message cannot be read.", DateTimeOffset.UnixEpoch, "");
        }
    }

    private string FolderOf(Guid owner) => Path.Combine(folder, owner.ToString());
}

/// <summary>A mail server (SMTP), as the settings name it.</summary>
public sealed class SmtpMail(MailServer server) : IMail
{
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(30);

    /// <summary>How long a message may take as a whole, however diligently the server answers: 90 s.</summary>
    private static readonly TimeSpan Deadline = TimeSpan.FromSeconds(90);

    private const int ImplicitTls = 465;

    /// <inheritdoc/>
    public bool OnlyLiesReady => false;

    /// <inheritdoc/>
    public MailboxAddress From(string name) => new(name, server.From);

    /// <inheritdoc/>
    public async Task Send(MimeMessage message, Guid owner, CancellationToken stopping)
    {
        using var client = new SmtpClient { Timeout = (int)Patience.TotalMilliseconds };
        using var deadline = CancellationTokenSource.CreateLinkedTokenSource(stopping);
        deadline.CancelAfter(Deadline);
        try
        {
            await client.ConnectAsync(server.Host, server.Port, SecurityOf(server), deadline.Token);
            if (server.User is { } user)
            {
                await client.AuthenticateAsync(user, server.Password ?? "", deadline.Token);
            }

            await client.SendAsync(message, deadline.Token);
            await client.DisconnectAsync(quit: true, deadline.Token);
        }
        catch (Exception failure) when (!stopping.IsCancellationRequested)
        {
            // What the server said, never with what we authenticated.
            throw failure switch
            {
                AuthenticationException => new MailProblem("The mail server does not take the user and password of the settings.", passes: true, failure),
                NotSupportedException => new MailProblem(
                    $"The mail server {server.Host}:{server.Port} takes no encrypted connection, so nothing was sent to it. To send without, the settings say smtp+plain://.", passes: true, failure),
                SmtpCommandException refused => new MailProblem($"The mail server refused it: {refused.Message}", passes: false, failure),
                _ => new MailProblem($"The mail server {server.Host}:{server.Port} cannot be reached.", passes: true, failure),
            };
        }
    }

    // Where TLS is wanted a server that has none is refused: the password would go in clear.
    private static SecureSocketOptions SecurityOf(MailServer server) => server switch
    {
        { Encrypted: false } => SecureSocketOptions.None,
        { Port: ImplicitTls } => SecureSocketOptions.SslOnConnect,
        _ => SecureSocketOptions.StartTls,
    };
}
