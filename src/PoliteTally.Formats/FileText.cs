using System.Runtime.InteropServices;
using System.Text;
using System.Text.Json;
using System.Text.Unicode;

namespace PoliteTally.Formats;

/// <summary>A file as text: how its letters are written, its beginning, and all of it to be read. A large file is not made one text unless somebody asks for that.</summary>
internal sealed class FileText
{
    // One zero byte in so many is no other encoding.
    private const int FewZeros = 20;

    // So many letters show what a text is.
    private const int Looked = 100_000;

    // As it stands in the file, if that is UTF-8; else it is one text from the beginning.
    private readonly ReadOnlyMemory<byte> _utf8;
    private string? _whole;

    private FileText(ReadOnlyMemory<byte> utf8)
    {
        var cut = Math.Min(utf8.Length, Looked);
        // Not in the middle of a letter: all bytes of it but the first begin with the bits 10.
        while (cut > 0 && cut < utf8.Length && (utf8.Span[cut] & 0xC0) == 0x80)
        {
            cut--;
        }

        (_utf8, Encoding, Start, HasMore) = (utf8, "UTF-8", System.Text.Encoding.UTF8.GetString(utf8.Span[..cut]), cut < utf8.Length);
    }

    private FileText(string whole, string encoding) =>
        (_whole, Encoding, Start, HasMore) = (whole, encoding, whole.Length > Looked ? whole[..Looked] : whole, whole.Length > Looked);

    /// <summary>What its encoding is called.</summary>
    public string Encoding { get; }

    /// <summary>Its beginning: all of it, unless it is long.</summary>
    public string Start { get; }

    /// <summary>Whether there is more of it than the beginning.</summary>
    public bool HasMore { get; }

    /// <summary>All of it.</summary>
    public string Whole => _whole ??= System.Text.Encoding.UTF8.GetString(_utf8.Span);

    /// <summary>Whether nothing can be seen in it.</summary>
    public bool IsBlank => string.IsNullOrWhiteSpace(Start) && (!HasMore || string.IsNullOrWhiteSpace(Whole));

    /// <summary>Whether it begins as JSON does.</summary>
    public bool BeginsAsJson => Start.AsSpan().TrimStart() is ['{' or '[', ..];

    /// <summary>How many lines it has.</summary>
    public int Lines => 1 + (_utf8.IsEmpty ? Whole.AsSpan().Count('\n') : _utf8.Span.Count((byte)'\n'));

    /// <summary>Reads a file.</summary>
    /// <exception cref="FormatProblem">It is no text, or some of its letters are broken.</exception>
    public static FileText Of(byte[] bytes)
    {
        switch (bytes)
        {
            case [0x25, 0x50, 0x44, 0x46, ..] or [0x89, 0x50, 0x4E, 0x47, ..] or [0xFF, 0xD8, 0xFF, ..]:
                throw new FormatProblem("This is a document or a picture, not a table. Ask the program it comes from for a CSV file.");
            case [0xEF, 0xBB, 0xBF, ..]:
                return Utf8.IsValid(bytes.AsSpan(3)) ? new FileText(bytes.AsMemory(3)) : throw Broken("UTF-8");
            case [0xFF, 0xFE, ..]:
                return Utf16(bytes.AsSpan(2), bigEndian: false);
            case [0xFE, 0xFF, ..]:
                return Utf16(bytes.AsSpan(2), bigEndian: true);
        }

        // Without a mark at the start: UTF-16 shows by its zero bytes, UTF-8 by being valid; what is left is Windows-1252.
        var sample = bytes.AsSpan(0, Math.Min(bytes.Length, 4096));
        var (even, odd) = (0, 0);
        for (var i = 0; i < sample.Length; i++)
        {
            if (sample[i] == 0)
            {
                _ = i % 2 == 0 ? even++ : odd++;
            }
        }

        // A single one is something that somebody wrote, or a program left behind.
        if (even + odd > 0 && !((even + odd) * FewZeros < bytes.Length && Utf8.IsValid(bytes)))
        {
            return Math.Max(even, odd) * 4 < sample.Length || bytes.Length % 2 != 0
                ? throw new FormatProblem("This file is not text. It must be a table saved as CSV.")
                : Utf16(bytes, bigEndian: even > odd);
        }

        return Utf8.IsValid(bytes) ? new FileText(bytes.AsMemory()) : new FileText(WindowsText(bytes), "Windows-1252");
    }

    /// <summary>A part of it that is short, by itself.</summary>
    public FileText With(string part) => new(part, Encoding);

    /// <summary>Begins to read it.</summary>
    public TextReader Open() => _whole is null && MemoryMarshal.TryGetArray(_utf8, out var bytes)
        ? new StreamReader(new MemoryStream(bytes.Array!, bytes.Offset, bytes.Count), System.Text.Encoding.UTF8, detectEncodingFromByteOrderMarks: false)
        : new StringReader(Whole);

    /// <summary>Reads it as JSON.</summary>
    /// <exception cref="JsonException">It is none.</exception>
    public JsonDocument Json(JsonDocumentOptions options) => _utf8.IsEmpty ? JsonDocument.Parse(Whole, options) : JsonDocument.Parse(_utf8, options);

    private static FileText Utf16(ReadOnlySpan<byte> bytes, bool bigEndian)
    {
        try
        {
            return new FileText(new UnicodeEncoding(bigEndian, byteOrderMark: false, throwOnInvalidBytes: true).GetString(bytes), "UTF-16");
        }
        catch (DecoderFallbackException)
        {
            throw Broken("UTF-16");
        }
    }

    private static FormatProblem Broken(string encoding) =>
        new($"This file says that it is {encoding}, but some of its letters are broken. Save it again as “CSV UTF-8” and bring in that.");

    // Five bytes mean nothing in Windows-1252; a file that has them was written by something else.
    private static string WindowsText(byte[] bytes)
    {
        var text = CodePagesEncodingProvider.Instance.GetEncoding(1252)!.GetString(bytes);
        var row = 1;
        foreach (var letter in text)
        {
            row += letter == '\n' ? 1 : 0;
            if (letter is (>= '\u0080' and <= '\u009F') or (< ' ' and not ('\t' or '\r' or '\n' or '\f')))
            {
                throw new FormatProblem($"Row {row} has letters in an encoding that cannot be read. Save the file as “CSV UTF-8” and bring in that.");
            }
        }

        return text;
    }
}
