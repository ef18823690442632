using System.Security.Cryptography;
using System.Text;

namespace PoliteTally.Web.Requests;

/// <summary>Secrets that open something by themselves: 256 random bits, shown once. The file keeps their SHA-256, which for so many bits needs no salt.</summary>
internal static class SecretToken
{
    /// <summary>A new one, fit for an address or a header.</summary>
    public static string Make() => Convert.ToBase64String(RandomNumberGenerator.GetBytes(32)).TrimEnd('=').Replace('+', '-').Replace('/', '_');

    /// <summary>What the file knows it by: its SHA-256 in hexadecimal.</summary>
    public static string HashOf(string token) => Convert.ToHexString(SHA256.HashData(Encoding.UTF8.GetBytes(token)));
}
