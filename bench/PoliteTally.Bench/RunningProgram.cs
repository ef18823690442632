using System.Diagnostics;
using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;

namespace PoliteTally.Bench;

/// <summary>The program in a process of its own on an empty data folder, and a teacher who is signed in.</summary>
internal sealed class RunningProgram : IAsyncDisposable
{
    private readonly Process _process;
    private readonly CookieContainer _cookies = new();
    private readonly HttpClient _http;

    private RunningProgram(Process process, Uri address)
    {
        _process = process;
        Address = address;
        _http = new HttpClient(new SocketsHttpHandler { CookieContainer = _cookies, MaxConnectionsPerServer = 64 }) { BaseAddress = address };
    }

    public Uri Address { get; }

    public CookieContainer Cookies => _cookies;

    /// <summary>What the process holds in memory, in MB.</summary>
    public double Memory
    {
        get
        {
            _process.Refresh();
            return _process.WorkingSet64 / 1_000_000.0;
        }
    }

    /// <summary>The time that the process has had of a core.</summary>
    public TimeSpan Processor
    {
        get
        {
            _process.Refresh();
            return _process.TotalProcessorTime;
        }
    }

    /// <summary>What a request of the teacher carries.</summary>
    public string Headers =>
        $"Cookie: {_cookies.GetCookieHeader(Address)}\r\nSec-Fetch-Site: same-origin\r\n";

    public static async Task<RunningProgram> Start(string folder)
    {
        var process = Process.Start(new ProcessStartInfo(
            "dotnet", [Path.Combine(AppContext.BaseDirectory, "PoliteTally.Web.dll"), "--data", folder, "--port", "0", "--empty"])
        {
            RedirectStandardOutput = true,
        })!;
        var program = new RunningProgram(process, new Uri((await process.StandardOutput.ReadLineAsync())!.Split(' ')[^1]));
        // What it says later is not of interest, but a program whose words nobody takes stands still when the pipe is full.
        _ = process.StandardOutput.BaseStream.CopyToAsync(Stream.Null);
        (await program._http.PostAsJsonAsync("/api/accounts", new
        {
            email = "tamsin@skerrysound.example",
            password = "rule of twelfths",
            name = "Tamsin Vale",
            school = "Skerry Sound",
            timeZone = "Atlantic/Faroe",
        })).EnsureSuccessStatusCode();
        return program;
    }

    public Task<JsonElement> Get(string path) => Read(_http.GetAsync(path));

    public Task<JsonElement> Post(string path, object body) => Read(_http.PostAsJsonAsync(path, body));

    public Task<JsonElement> Put(string path, object body) => Read(_http.PutAsJsonAsync(path, body));

    /// <summary>Sends something that may be refused.</summary>
    public async Task Try(string path, object body)
    {
        using var answer = await _http.PostAsJsonAsync(path, body);
    }

    /// <summary>Sends a file; how many come in a minute is limited, and this waits its turn.</summary>
    public async Task<JsonElement> Send(string path, string file)
    {
        while (true)
        {
            using var response = await _http.PostAsync(path, new MultipartFormDataContent { { new ByteArrayContent(Encoding.UTF8.GetBytes(file)), "file", "list.csv" } });
            if (response.StatusCode != HttpStatusCode.TooManyRequests)
            {
                response.EnsureSuccessStatusCode();
                return JsonDocument.Parse(await response.Content.ReadAsStringAsync()).RootElement;
            }

            await Task.Delay(TimeSpan.FromSeconds(5));
        }
    }

    public async ValueTask DisposeAsync()
    {
        _process.Kill();
        await _process.WaitForExitAsync();
        _process.Dispose();
        _http.Dispose();
    }

    private static async Task<JsonElement> Read(Task<HttpResponseMessage> asked)
    {
        using var response = await asked;
        response.EnsureSuccessStatusCode();
        return JsonDocument.Parse(await response.Content.ReadAsStringAsync()).RootElement;
    }
}
