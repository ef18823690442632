using System.Collections.Concurrent;
using System.Globalization;
using System.Text.Json;
using CsvHelper;
using CsvHelper.Configuration;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Http;
using Microsoft.Extensions.Logging;

namespace PoliteTally.StandIns;

/// <summary>
/// The register desk of a school, as far as somebody who hands in sees it: it takes a register, or says why not. What it has it keeps in memory, by lesson and version. A school
/// that has a desk of its own builds the same three answers; docs/api.md describes them.
/// </summary>
public static class RegisterDeskStandIn
{
    private static readonly string[] Rosters = ["roster-weather-and-tides.csv", "roster-island-botany.csv"];

    /// <summary>The desk, ready to be started.</summary>
    /// <param name="port">The port on 127.0.0.1; 0 for any free one.</param>
    /// <param name="token">What whoever hands in has to show.</param>
    /// <param name="deadline">Until when registers of the day are taken; null for the whole day.</param>
    /// <param name="away">For how long nobody is there at first.</param>
    /// <param name="time">What tells the time.</param>
    /// <param name="students">The student numbers that it knows; null for those of the demo school.</param>
    public static WebApplication Build(int port, string token, TimeOnly? deadline, TimeSpan away, TimeProvider time, IReadOnlySet<string>? students = null)
    {
        var builder = WebApplication.CreateSlimBuilder();
        builder.WebHost.UseUrls($"http://127.0.0.1:{port}");
        builder.Logging.SetMinimumLevel(LogLevel.Warning);
        var desk = builder.Build();
        var (opened, numbers, taken) = (time.GetUtcNow(), students ?? NumbersOfTheDemo(), new ConcurrentDictionary<string, string>());

        desk.Use(async (context, next) =>
        {
            var wrong = time.GetUtcNow() - opened < away ? StatusCodes.Status503ServiceUnavailable
                : context.Request.Headers.Authorization != $"Bearer {token}" ? StatusCodes.Status401Unauthorized
                : 0;
            if (wrong != 0)
            {
                context.Response.StatusCode = wrong;
                return;
            }

            await next();
        });
        desk.MapGet("/registers/{lesson}/{version:int}", (string lesson, int version) =>
            taken.TryGetValue($"{lesson}/{version}", out var sheet) ? Results.Text(sheet, "application/json") : Results.NotFound());
        desk.MapPut("/registers/{lesson}/{version:int}", (string lesson, int version, JsonElement sheet) =>
        {
            // Whoever sends what is here already has not heard that it arrived.
            if (taken.ContainsKey($"{lesson}/{version}"))
            {
                return Results.Ok(new { lesson, version });
            }

            if (sheet.ValueKind != JsonValueKind.Object || !sheet.TryGetProperty("students", out var lines) || lines.ValueKind != JsonValueKind.Array)
            {
                return Results.Problem("This is not a register: it has no students.", statusCode: StatusCodes.Status400BadRequest);
            }

            var unknown = lines.EnumerateArray().Select(s => s.TryGetProperty("number", out var number) && number.ValueKind == JsonValueKind.String ? number.GetString()! : "nobody's number")
                .Where(n => !numbers.Contains(n)).ToList();
            if (unknown.Count > 0)
            {
                return Results.Problem($"The desk does not know {string.Join(", ", unknown.Take(5))}. Put the number on the roster right and hand it in again.", statusCode: StatusCodes.Status422UnprocessableEntity);
            }

            if (version == 1 && deadline is { } until && TimeOnly.FromDateTime(time.GetLocalNow().DateTime) > until)
            {
                return Results.Problem($"Registers of the day are taken until {until:HH:mm}. Call the office.", statusCode: StatusCodes.Status409Conflict);
            }

            taken[$"{lesson}/{version}"] = sheet.GetRawText();
            return Results.Json(new { lesson, version }, statusCode: StatusCodes.Status201Created);
        });
        return desk;
    }

    private static HashSet<string> NumbersOfTheDemo()
    {
        var numbers = new HashSet<string>();
        foreach (var roster in Rosters)
        {
            using var text = new StreamReader(typeof(RegisterDeskStandIn).Assembly.GetManifestResourceStream(roster)!);
            using var csv = new CsvReader(text, new CsvConfiguration(CultureInfo.InvariantCulture) { HasHeaderRecord = false });
            while (csv.Read())
            {
                numbers.UnionWith(csv.Parser.Record!.Where(c => c.Length > 1 && c[0] == 'S' && c[1..].All(char.IsAsciiDigit)));
            }
        }

        return numbers;
    }
}
