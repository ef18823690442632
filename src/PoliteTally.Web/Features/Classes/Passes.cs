using System.Security.Cryptography;
using System.Text;

namespace PoliteTally.Web.Features.Classes;

/// <summary>
/// Personal passes: short enough to type from a slip, readable aloud. The file keeps only a keyed fingerprint, so that whoever
/// has the database alone cannot try passes against it; the key lies apart, in the folder of keys.
/// </summary>
public sealed class Passes
{
    private const string Consonants = "bdfghklmnprstvz";
    private const string Vowels = "aeiou";
    private const int Syllables = 6;

    private readonly byte[] _key;

    public Passes(string keysFolder)
    {
        Directory.CreateDirectory(keysFolder);
        var path = Path.Combine(keysFolder, "pass.key");
        if (!File.Exists(path))
        {
            var whole = path + ".new";
            File.WriteAllBytes(whole, RandomNumberGenerator.GetBytes(32));
            if (!OperatingSystem.IsWindows())
            {
                File.SetUnixFileMode(whole, UnixFileMode.UserRead | UnixFileMode.UserWrite);
            }

            File.Move(whole, path, overwrite: false);
        }

        _key = File.ReadAllBytes(path);
    }

    /// <summary>A new pass of three pairs of syllables, such as "tavo-kile-muna": one of 75^6, or about 37 bits.</summary>
    public static string Make()
    {
        var pass = new StringBuilder();
        for (var i = 0; i < Syllables; i++)
        {
            if (i is 2 or 4)
            {
                pass.Append('-');
            }

            pass.Append(Consonants[RandomNumberGenerator.GetInt32(Consonants.Length)]).Append(Vowels[RandomNumberGenerator.GetInt32(Vowels.Length)]);
        }

        return pass.ToString();
    }

    /// <summary>The fingerprint of a pass as somebody typed it: case, spaces and dashes do not matter.</summary>
    public string FingerprintOf(string typed) => Convert.ToHexString(HMACSHA256.HashData(
        _key, Encoding.UTF8.GetBytes(string.Concat(typed.ToLowerInvariant().Where(char.IsAsciiLetterLower)))));
}
