using System.Diagnostics;
using System.Globalization;
using System.Net.Sockets;
using System.Text;

namespace PoliteTally.Bench;

/// <summary>One connection to the program. A plain socket: what is measured is the program, and both share the machine.</summary>
internal sealed class Line : IDisposable
{
    public const string Json = "Content-Type: application/json\r\n";

    private readonly Socket _socket = new(SocketType.Stream, ProtocolType.Tcp) { NoDelay = true };
    private readonly byte[] _got = new byte[65_536];
    private int _length;

    public Line(Uri address) => _socket.Connect(address.Host, address.Port);

    /// <summary>What came last, headers and all.</summary>
    public string Answer => Encoding.UTF8.GetString(_got, 0, _length);

    public static string Request(Uri address, string method, string path, string headers, string body) =>
        $"{method} {path} HTTP/1.1\r\nHost: {address.Authority}\r\n{headers}Content-Length: {body.Length}\r\n\r\n{body}";

    /// <summary>Sends a request and waits for the whole answer; how long that took in milliseconds.</summary>
    /// <exception cref="InvalidOperationException">Another status came back.</exception>
    public double Ask(string request, int status)
    {
        var sent = Encoding.ASCII.GetBytes(request);
        var watch = Stopwatch.StartNew();
        _socket.Send(sent);
        _length = 0;
        do
        {
            var part = _socket.Receive(_got, _length, _got.Length - _length, SocketFlags.None);
            _length += part > 0 ? part : throw new IOException("The program hung up.");
        }
        while (!IsWhole());

        var took = watch.Elapsed.TotalMilliseconds;
        return _got.AsSpan(9, 3).SequenceEqual(Encoding.ASCII.GetBytes($"{status}")) ? took : throw new InvalidOperationException(Answer);
    }

    public void Dispose() => _socket.Dispose();

    // In chunks, of which the last is empty, or of a length that is said.
    private bool IsWhole()
    {
        var got = _got.AsSpan(0, _length);
        var body = got.IndexOf("\r\n\r\n"u8) + 4;
        if (body < 4)
        {
            return false;
        }

        var length = got[..body].IndexOf("Content-Length: "u8);
        return length < 0
            ? got.EndsWith("0\r\n\r\n"u8)
            : _length >= body + int.Parse(Encoding.ASCII.GetString(got[(length + 16)..body]).Split('\r')[0], CultureInfo.InvariantCulture);
    }
}
