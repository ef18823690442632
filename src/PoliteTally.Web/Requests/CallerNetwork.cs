using System.Net;
using System.Net.Sockets;

namespace PoliteTally.Web.Requests;

/// <summary>
/// Where a request comes from, for whatever is counted by that: an address of IPv4, or the network of an address of IPv6. Whoever has one of the latter has all of its
/// 2⁶⁴ (RFC 4291, 2.5.4), and would be as many.
/// </summary>
internal static class CallerNetwork
{
    private const int NetworkBytes = 8;

    /// <summary>Of a request.</summary>
    public static string Of(HttpContext http) => Of(http.Connection.RemoteIpAddress);

    /// <summary>Of an address; empty if it is not known.</summary>
    public static string Of(IPAddress? address)
    {
        if (address is null)
        {
            return "";
        }

        if (address.IsIPv4MappedToIPv6 || address.AddressFamily == AddressFamily.InterNetwork)
        {
            return address.MapToIPv4().ToString();
        }

        var bytes = address.GetAddressBytes();
        bytes.AsSpan(NetworkBytes).Clear();
        return $"{new IPAddress(bytes)}/64";
    }
}
