using Microsoft.AspNetCore.Builder;
using PoliteTally.Web;
using PoliteTally.Web.Hosting;

// Many applications in one warm process, each on a data folder of its own: a browser test gets one in a moment, where a program of its own takes
// seconds to start. Lines in: "open FOLDER", "close FOLDER". Lines out: "> ADDRESS" and "> closed".
var running = new Dictionary<string, WebApplication>();
while (Console.ReadLine() is { } line)
{
    var (verb, folder) = line.Split(' ', 2) is [var first, var second] ? (first, second) : ("", "");
    switch (verb)
    {
        case "open":
            var app = running[folder] = Application.Build(new Settings(folder, 0, Demo: false, Desk: RegisterDeskAddress.FromEnvironment()));
            await app.StartAsync();
            Console.WriteLine($"> {app.Urls.First()}");
            break;
        case "close" when running.Remove(folder, out var done):
            // Windows that are still open do not keep it.
            await done.StopAsync(new CancellationToken(canceled: true));
            await done.DisposeAsync();
            Console.WriteLine("> closed");
            break;
        default:
            return 2;
    }
}

return 0;
