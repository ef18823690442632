using System.Globalization;

namespace PoliteTally.Web;

/// <summary>How the application was asked to start.</summary>
/// <param name="DataFolder">Where everything it writes lies.</param>
/// <param name="Port">The port on 127.0.0.1; 0 for any free one.</param>
/// <param name="Demo">Whether an empty data folder gets the demo school.</param>
public sealed record Settings(string DataFolder, int Port, bool Demo)
{
    /// <summary>Reads <c>--data DIR</c>, <c>--port N</c> and <c>--empty</c>.</summary>
    /// <exception cref="ArgumentException">An argument is not one of these.</exception>
    public static Settings Read(IReadOnlyList<string> arguments)
    {
        var settings = new Settings("data", 5080, Demo: true);
        for (var i = 0; i < arguments.Count; i++)
        {
            settings = (arguments[i], arguments.ElementAtOrDefault(i + 1)) switch
            {
                ("--empty", _) => settings with { Demo = false },
                ("--data", { } folder) when Next(ref i) => settings with { DataFolder = folder },
                ("--port", { } port) when Next(ref i) && int.TryParse(port, CultureInfo.InvariantCulture, out var number)
                    && number is >= 0 and <= 65535 => settings with { Port = number },
                var (other, _) => throw new ArgumentException(
                    $"“{other}” is not understood here. There is --data DIR, --port N (0 to 65535) and --empty."),
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
