using System.Globalization;

namespace PoliteTally.Web.Hosting;

/// <summary>How the application was asked to start.</summary>
/// <param name="DataFolder">Where everything it writes lies.</param>
/// <param name="Port">The port on 127.0.0.1; 0 for any free one.</param>
/// <param name="Demo">Whether an empty data folder gets the demo school.</param>
/// <param name="Mail">The mail server; null for the folder that stands in for it.</param>
/// <param name="Address">
/// The address under which a web server on the same machine passes requests on, so that students reach their page; null while there is none, and
/// only this machine is answered.
/// </param>
/// <param name="Desk">The register desk of the school; null if it has none.</param>
public sealed record Settings(string DataFolder, int Port, bool Demo, MailServer? Mail = null, Uri? Address = null, RegisterDeskAddress? Desk = null)
{
    /// <summary>
    /// Reads <c>--data DIR</c>, <c>--port N</c>, <c>--address URL</c> and <c>--empty</c>, and the mail server from the environment, where its password
    /// is seen by nobody who lists programs.
    /// </summary>
    /// <exception cref="ArgumentException">An argument is not one of these.</exception>
    public static Settings Read(IReadOnlyList<string> arguments)
    {
        var settings = new Settings("data", 5080, Demo: true, MailServer.FromEnvironment(), Desk: RegisterDeskAddress.FromEnvironment());
        for (var i = 0; i < arguments.Count; i++)
        {
            settings = (arguments[i], arguments.ElementAtOrDefault(i + 1)) switch
            {
                ("--empty", _) => settings with { Demo = false },
                ("--data", { } folder) when Next(ref i) => settings with { DataFolder = folder },
                ("--port", { } port) when Next(ref i) && int.TryParse(port, CultureInfo.InvariantCulture, out var number)
                    && number is >= 0 and <= 65535 => settings with { Port = number },
                ("--address", { } address) when Next(ref i) && Uri.TryCreate(address, UriKind.Absolute, out var uri)
                    && uri is { Scheme: "http" or "https", AbsolutePath: "/" } => settings with { Address = uri },
                var (other, _) => throw new ArgumentException(
                    $"“{other}” is not understood here. There is --data DIR, --port N (0 to 65535), --address URL (such as https://tally.school.example) and --empty."),
            };
        }

        return settings;

        static bool Next(ref int i)
        {
            i++;
            return true;
        }
    }
}

/// <summary>A mail server (SMTP).</summary>
/// <param name="Host">Its name or address.</param>
/// <param name="Port">Its port.</param>
/// <param name="Encrypted">Whether it is spoken to over TLS.</param>
/// <param name="User">Who signs in; null for nobody.</param>
/// <param name="Password">With what.</param>
/// <param name="From">The address that messages come from.</param>
public sealed record MailServer(string Host, int Port, bool Encrypted, string? User, string? Password, string From)
{
    /// <summary>
    /// Reads <c>POLITE_TALLY_SMTP</c>, such as <c>smtp://lessons@mail.skerrysound.example:587</c> (<c>smtp+plain://</c> without TLS),
    /// <c>POLITE_TALLY_SMTP_PASSWORD</c> and <c>POLITE_TALLY_MAIL_FROM</c>; null if the first is not set.
    /// </summary>
    /// <exception cref="ArgumentException">One of them is not of this form.</exception>
    public static MailServer? FromEnvironment()
    {
        if (Environment.GetEnvironmentVariable("POLITE_TALLY_SMTP") is not { Length: > 0 } address)
        {
            return null;
        }

        if (!Uri.TryCreate(address, UriKind.Absolute, out var uri) || uri.Scheme is not ("smtp" or "smtp+plain") || uri.Host.Length == 0)
        {
            throw new ArgumentException("POLITE_TALLY_SMTP is not understood. It is such as smtp://user@mail.school.example:587.");
        }

        var user = uri.UserInfo.Length > 0 ? Uri.UnescapeDataString(uri.UserInfo) : null;
        var from = Environment.GetEnvironmentVariable("POLITE_TALLY_MAIL_FROM") is { Length: > 0 } named ? named : user;
        return from is { } sender && sender.Contains('@')
            ? new MailServer(
                uri.Host, uri.Port > 0 ? uri.Port : 587, uri.Scheme == "smtp", user,
                Environment.GetEnvironmentVariable("POLITE_TALLY_SMTP_PASSWORD"), sender)
            : throw new ArgumentException("POLITE_TALLY_MAIL_FROM is missing: the e-mail address that messages come from.");
    }
}

/// <summary>Where the registers of the school are handed in.</summary>
/// <param name="Url">Its address.</param>
/// <param name="Token">What shows that it is us.</param>
public sealed record RegisterDeskAddress(Uri Url, string Token)
{
    /// <summary>
    /// Reads <c>POLITE_TALLY_REGISTER_DESK</c>, such as <c>https://desk.skerrysound.example</c>, and <c>POLITE_TALLY_REGISTER_TOKEN</c>; null if the first is not set.
    /// </summary>
    /// <exception cref="ArgumentException">One of them is not of this form.</exception>
    public static RegisterDeskAddress? FromEnvironment()
    {
        if (Environment.GetEnvironmentVariable("POLITE_TALLY_REGISTER_DESK") is not { Length: > 0 } address)
        {
            return null;
        }

        // Marks of children and a token: in the open only to this machine.
        return Uri.TryCreate(address, UriKind.Absolute, out var url) && (url.Scheme == "https" || url is { Scheme: "http", IsLoopback: true })
            ? Environment.GetEnvironmentVariable("POLITE_TALLY_REGISTER_TOKEN") is { Length: > 0 } token
                ? new RegisterDeskAddress(new Uri(url.AbsoluteUri.TrimEnd('/') + "/"), token)
                : throw new ArgumentException("POLITE_TALLY_REGISTER_TOKEN is missing: what shows the register desk who hands in.")
            : throw new ArgumentException("POLITE_TALLY_REGISTER_DESK is not understood. It is such as https://desk.school.example (http only on this machine).");
    }
}
