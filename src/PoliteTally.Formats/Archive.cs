using System.IO.Compression;

namespace PoliteTally.Formats;

/// <summary>Opens archives without believing them: what they say of their sizes is not taken on trust.</summary>
internal static class Archive
{
    /// <summary>The most that an archive may unpack to, in bytes: 100 MB.</summary>
    public const long MostUnpacked = 100_000_000;

    private const int MostParts = 2000;

    private const string OfWords = "word/document.xml";
    private const string OfOpenDocument = "content.xml";

    /// <summary>Whether a file begins like a zip archive.</summary>
    public static bool IsOne(byte[] bytes) => bytes is [0x50, 0x4B, 0x03 or 0x05, 0x04 or 0x06, ..];

    /// <summary>Whether an archive is a workbook, by the parts that it names.</summary>
    public static bool IsWorkbook(byte[] bytes)
    {
        try
        {
            using var zip = new ZipArchive(new MemoryStream(bytes), ZipArchiveMode.Read);
            return zip.GetEntry("[Content_Types].xml") is not null && zip.GetEntry("xl/workbook.xml") is not null;
        }
        catch (InvalidDataException)
        {
            throw Broken();
        }
    }

    /// <summary>The part in which a text or an open spreadsheet of an office program stands; null if the archive is none.</summary>
    public static string? DocumentIn(byte[] bytes)
    {
        try
        {
            using var zip = new ZipArchive(new MemoryStream(bytes), ZipArchiveMode.Read);
            return zip.GetEntry("[Content_Types].xml") is not null && zip.GetEntry(OfWords) is not null ? OfWords
                : zip.GetEntry("mimetype") is not null && zip.GetEntry(OfOpenDocument) is not null ? OfOpenDocument
                : null;
        }
        catch (InvalidDataException)
        {
            throw Broken();
        }
    }

    /// <summary>The parts of an archive that are wanted, by their names with the folders, unpacked. Everything is counted while it unpacks, and too much is refused.</summary>
    /// <param name="bytes">The archive.</param>
    /// <param name="isWanted">True of the names of wanted parts, folders left out.</param>
    /// <param name="mostOf">The most that a part may unpack to by its name, in bytes; null for no limit of its own.</param>
    /// <exception cref="FormatProblem">It is broken, or unpacks to more than <see cref="MostUnpacked"/>.</exception>
    public static IReadOnlyDictionary<string, byte[]> Unpack(byte[] bytes, Func<string, bool> isWanted, Func<string, long>? mostOf = null)
    {
        var parts = new Dictionary<string, byte[]>(StringComparer.Ordinal);
        try
        {
            using var zip = new ZipArchive(new MemoryStream(bytes), ZipArchiveMode.Read);
            if (zip.Entries.Count > MostParts)
            {
                throw new FormatProblem($"This archive holds {zip.Entries.Count:N0} files; at most {MostParts:N0} are looked at. Nothing was stored.");
            }

            var buffer = new byte[81_920];
            var unpacked = 0L;
            foreach (var part in zip.Entries.Where(e => e.Name.Length > 0))
            {
                var kept = isWanted(part.Name) ? new MemoryStream() : null;
                var most = Math.Min(MostUnpacked, unpacked + Math.Min(MostUnpacked, mostOf?.Invoke(part.Name) ?? MostUnpacked));
                using var stream = part.Open();
                for (int read; (read = stream.Read(buffer)) > 0;)
                {
                    unpacked += read;
                    if (unpacked > most)
                    {
                        throw new FormatProblem("This archive unpacks to far more than it should hold. Nothing was stored; ask where it comes from.");
                    }

                    kept?.Write(buffer, 0, read);
                }

                if (kept is not null)
                {
                    parts.TryAdd(part.FullName, kept.ToArray());
                }
            }
        }
        catch (Exception broken) when (broken is InvalidDataException or EndOfStreamException or IOException or NotSupportedException)
        {
            throw Broken();
        }

        return parts;
    }

    private static FormatProblem Broken() =>
        new("This archive is broken: its end is missing or it was cut off on the way. Nothing was stored; fetch or save it again.");
}
