using System.Security.Cryptography;
using System.Text;

namespace PoliteTally.Web.Requests;

/// <summary>Ids that follow from what they name, so that the same thing from the same source is stored once.</summary>
internal static class DerivedId
{
    /// <summary>The id of a text. RFC 9562, version 8: the bits are our own, here those of a hash.</summary>
    public static Guid Of(string text)
    {
        var hash = SHA256.HashData(Encoding.UTF8.GetBytes(text));
        hash[6] = (byte)((hash[6] & 0x0F) | 0x80);
        hash[8] = (byte)((hash[8] & 0x3F) | 0x80);
        return new Guid(hash.AsSpan(0, 16), bigEndian: true);
    }
}
