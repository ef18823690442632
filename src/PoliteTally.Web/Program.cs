using System.Net.Sockets;
using PoliteTally.Store;
using PoliteTally.Web;
using PoliteTally.Web.Features.Accounts;
using PoliteTally.Web.Features.Plans;
using PoliteTally.Web.Features.Reports;
using PoliteTally.Web.Hosting;

return args switch
{
    ["openapi"] => await WriteApiDescription(),
    ["plan-schema"] => WriteSchema(PlanDocument.Schema()),
    ["report-schema"] => WriteSchema(DocumentJson.Schema()),
    ["check", .. var rest] => Check(Settings.Read(rest)),
    _ => await Serve(args),
};

static async Task<int> Serve(string[] arguments)
{
    const int ThreadsAtOnce = 16;
    Settings settings;
    try
    {
        settings = Settings.Read(arguments);
    }
    catch (ArgumentException problem)
    {
        await Console.Error.WriteLineAsync(problem.Message);
        return 2;
    }

    // Whoever taps gets a thread at once, also while each core is busy with a report: the system shares the cores out far quicker than new threads would come.
    ThreadPool.SetMinThreads(ThreadsAtOnce, ThreadsAtOnce);
    WebApplication app;
    try
    {
        app = Application.Build(settings);
    }
    catch (StartProblem problem)
    {
        await Console.Error.WriteLineAsync(problem.Message);
        return 1;
    }

    try
    {
        await app.StartAsync();
    }
    catch (IOException problem) when (problem.InnerException is SocketException or { InnerException: SocketException })
    {
        await Console.Error.WriteLineAsync($"Port {settings.Port} is taken by another program. Choose another with --port N.");
        return 1;
    }

    Console.WriteLine($"Polite Tally is ready at {app.Urls.First()}");
    if (app.Services.GetRequiredService<FirstAccount>().Word is { } word)
    {
        Console.WriteLine($"Nobody has an account yet. Whoever makes the first one is asked for this word: {word}");
    }

    await app.WaitForShutdownAsync();
    // Why, the host has said.
    if (Application.APartFailed(app.Services.GetServices<IHostedService>()))
    {
        await Console.Error.WriteLineAsync("A part of Polite Tally that works beside the requests has failed, so the program ends. Everything that was acknowledged is stored; start it again.");
        Environment.ExitCode = 1;
    }

    // The writer finishes what it has taken.
    await app.DisposeAsync();
    return Environment.ExitCode;
}

// The description of the API, from which the front end's types are made.
static async Task<int> WriteApiDescription()
{
    var folder = Directory.CreateTempSubdirectory("polite-tally-openapi");
    var app = Application.Build(new Settings(folder.FullName, 0, Demo: false));
    await app.StartAsync();
    using var http = new HttpClient();
    Console.WriteLine(await http.GetStringAsync($"{app.Urls.First()}/openapi/v1.json"));
    await app.StopAsync();
    await app.DisposeAsync();
    folder.Delete(recursive: true);
    return 0;
}

// The description of plan files, kept in docs.
static int WriteSchema(string schema)
{
    Console.WriteLine(schema);
    return 0;
}

// Reckons every settled lesson anew from its ledger and compares with what term screens read.
static int Check(Settings settings)
{
    if (!File.Exists(Path.Combine(settings.DataFolder, SchoolFile.Name)))
    {
        Console.Error.WriteLine($"There is no {SchoolFile.Name} in {settings.DataFolder}. Name its folder with --data DIR.");
        return 1;
    }

    var differences = Summaries.Check(new SchoolFile(settings.DataFolder));
    foreach (var difference in differences)
    {
        Console.WriteLine(difference);
    }

    Console.WriteLine(differences.Count == 0 ? "Every summary says what its ledger says." : $"{differences.Count} summaries differ.");
    return differences.Count == 0 ? 0 : 1;
}
