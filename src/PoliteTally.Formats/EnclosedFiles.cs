using System.Text;
using MimeKit;
using NodaTime;
using PoliteTally.Core.Text;

namespace PoliteTally.Formats;

/// <summary>A file that lay in another.</summary>
/// <param name="Name">What it is called there, without folders.</param>
/// <param name="Content">What is in it.</param>
public sealed record EnclosedFile(string Name, byte[] Content);

/// <summary>What was in a mail or an archive.</summary>
/// <param name="Files">The files.</param>
/// <param name="Subject">What the mail says that it is about; null of an archive.</param>
/// <param name="SentAt">When the mail was sent; null of an archive, or if it does not say.</param>
public sealed record Enclosed(IReadOnlyList<EnclosedFile> Files, string? Subject, Instant? SentAt);

/// <summary>Takes the files out of a mail (RFC 5322 with MIME) or of an archive (ZIP); of a mail without any its text. Its subject and its date help to find the lesson. Nothing else of a mail is kept, and files inside of files inside are left where they are.</summary>
public static class EnclosedFiles
{
    /// <summary>The most files that are taken out of one: 20.</summary>
    public const int Most = 20;

    private const int LongestName = 120;

    // Deeper lies nothing that anybody attached.
    private const int Deepest = 20;

    private static readonly ParserOptions Options = new() { MaxMimeDepth = Deepest };

    /// <summary>The files in a mail or an archive.</summary>
    /// <param name="bytes">The mail or the archive.</param>
    /// <exception cref="FormatProblem">It is neither, is broken, or holds no files, too many, or too large ones.</exception>
    public static Enclosed In(byte[] bytes)
    {
        using var budget = ReadingBudget.Begin();
        using var room = ReadingRoom.For(bytes.Length);
        FileSize.Check(bytes.Length, "Take out what is needed and bring in that.");
        var enclosed = Archive.IsOne(bytes) ? new Enclosed(InArchive(bytes), null, null) : InMail(bytes);
        var files = enclosed.Files;
        return files.Count switch
        {
            0 => throw new FormatProblem("No files are in this mail or archive. Nothing was stored; save what is needed as a file and bring in that."),
            > Most => throw new FormatProblem($"This holds {files.Count} files; at most {Most} are taken at once. Nothing was stored; bring in those of this lesson."),
            _ when files.Sum(f => (long)f.Content.Length) > FileSize.Largest => throw new FormatProblem($"What is in this is larger than {FileSize.Said}. Nothing was stored; bring in the files of this lesson one by one."),
            _ => enclosed,
        };
    }

    private static List<EnclosedFile> InArchive(byte[] bytes)
    {
        // Programs leave files of their own, which begin with a dot.
        var parts = Archive.Unpack(bytes, name => !name.StartsWith('.')).Where(part => part.Value.Length > 0).ToList();
        var several = parts.CountBy(part => NameOf(part.Key), StringComparer.OrdinalIgnoreCase).Where(name => name.Value > 1).Select(name => name.Key).ToHashSet(StringComparer.OrdinalIgnoreCase);
        // The lists of two rooms may both be called "list.csv".
        return parts.ConvertAll(part => new EnclosedFile(NameOf(part.Key) is var name && several.Contains(name) ? NameOf(part.Key.Replace('\\', '/').Replace("/", ", ", StringComparison.Ordinal)) : name, part.Value));
    }

    private static Enclosed InMail(byte[] bytes)
    {
        try
        {
            using var stream = new MemoryStream(bytes);
            using var mail = MimeMessage.Load(Options, stream);
            if (mail.From.Count == 0)
            {
                throw Unreadable();
            }

            var files = new List<EnclosedFile>();
            foreach (var part in mail.BodyParts.OfType<MimePart>().Where(p => p.IsAttachment || !string.IsNullOrEmpty(p.FileName)))
            {
                ReadingBudget.Ask();
                using var content = new MemoryStream();
                part.Content?.DecodeTo(content);
                if (content.Length > 0)
                {
                    files.Add(new EnclosedFile(NameOf(part.FileName ?? ""), content.ToArray()));
                }
            }

            // Where nothing is attached, what was pasted into the mail may be the list itself.
            List<EnclosedFile> all = files.Count == 0 && (mail.HtmlBody ?? mail.TextBody) is { } text && !string.IsNullOrWhiteSpace(text)
                ? [new EnclosedFile(NameOf(mail.Subject ?? ""), Encoding.UTF8.GetBytes(text))]
                : files;
            return new Enclosed(all, mail.Subject, mail.Headers.Contains(HeaderId.Date) && mail.Date.Year > 1 ? Instant.FromDateTimeOffset(mail.Date) : null);
        }
        catch (Exception broken) when (broken is FormatException or ParseException or IOException)
        {
            throw Unreadable();
        }
    }

    private static FormatProblem Unreadable() => new("This is neither a mail nor an archive, or it is broken. Nothing was stored; save the mail again, or the files in it.");

    private static string NameOf(string name) => CleanText.Of(Path.GetFileName(name.Replace('\\', '/'))) is { Length: > 0 } clean ? clean.Length > LongestName ? clean[^LongestName..] : clean : "file";
}
