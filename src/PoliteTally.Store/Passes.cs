using System.Security.Cryptography;
using System.Text;

namespace PoliteTally.Store;

/// <summary>
/// Personal passes: short enough to type from a slip, readable aloud. The file keeps only a keyed fingerprint, so that whoever
/// has the database alone cannot try passes against it; the key lies apart, in the folder of keys.
/// </summary>
public sealed class Passes
{
    private const int Length = 6;

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
    public static string Make() => Syllables.Show(Syllables.Make(Length));

    /// <summary>The fingerprint of a pass as somebody typed it: case, spaces and dashes do not matter.</summary>
    public string FingerprintOf(string typed) => Convert.ToHexString(HMACSHA256.HashData(
        _key, Encoding.UTF8.GetBytes(Syllables.Read(typed))));
}
