using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PoliteTally.Core.Calendar;
using PoliteTally.Store;
using PoliteTally.Store.Model;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Features.Lessons;

/// <summary>A term with its days off.</summary>
public sealed record TermLine(Guid Id, string Name, LocalDate FirstDay, LocalDate LastDay, IReadOnlyList<DaysOff> DaysOff)
{
    internal static TermLine Of(Term term) => new(term.Id, term.Name, term.FirstDay, term.LastDay, OtherJson.DaysOffOf(term));
}

/// <summary>A term as it is to be.</summary>
public sealed record TermSent(string Name, LocalDate FirstDay, LocalDate LastDay, IReadOnlyList<DaysOff> DaysOff);

internal static class TermEndpoints
{
    private const int LongestName = 100;

    public static void MapTerms(this RouteGroupBuilder api)
    {
        api.MapGet("/terms", async (SchoolDb db) => TypedResults.Ok(await Lines(db))).WithName("GetTerms");

        api.MapPost("/terms", async Task<Results<Ok<TermLine>, ProblemHttpResult>> (TermSent sent, SchoolDb db) =>
        {
            if (WhyNot(sent) is { } why)
            {
                return Refused.Because(why);
            }

            var term = new Term { Id = Guid.CreateVersion7(), Name = "" };
            Write(sent, term);
            db.Terms.Add(term);
            await db.SaveChangesAsync();
            return TypedResults.Ok(TermLine.Of(term));
        }).WithName("MakeTerm");

        api.MapPut("/terms/{id:guid}", async Task<Results<Ok<TermLine>, NotFound, ProblemHttpResult>> (Guid id, TermSent sent, SchoolDb db) =>
        {
            if (await db.Terms.FirstOrDefaultAsync(t => t.Id == id) is not { } term)
            {
                return TypedResults.NotFound();
            }

            if (WhyNot(sent) is { } why)
            {
                return Refused.Because(why);
            }

            Write(sent, term);
            await db.SaveChangesAsync();
            return TypedResults.Ok(TermLine.Of(term));
        }).WithName("ChangeTerm");

        api.MapDelete("/terms/{id:guid}", async Task<Results<NoContent, NotFound>> (Guid id, SchoolDb db) =>
        {
            if (await db.Terms.FirstOrDefaultAsync(t => t.Id == id) is not { } term)
            {
                return TypedResults.NotFound();
            }

            db.Terms.Remove(term);
            await db.SaveChangesAsync();
            return TypedResults.NoContent();
        }).WithName("RemoveTerm");
    }

    private static async Task<IReadOnlyList<TermLine>> Lines(SchoolDb db) =>
        [.. (await db.Terms.AsNoTracking().ToListAsync()).OrderBy(t => t.FirstDay).Select(TermLine.Of)];

    private static string? WhyNot(TermSent sent) => sent switch
    {
        _ when SentText.Line(sent.Name, LongestName) is null => $"A term needs a name of at most {LongestName} letters.",
        _ when sent.LastDay < sent.FirstDay => "The last day of the term lies before its first.",
        _ when Period.DaysBetween(sent.FirstDay, sent.LastDay) > 2 * 366 => "A term lasts at most two years.",
        { DaysOff.Count: > 100 } => "A term has at most 100 days off or holidays.",
        _ when sent.DaysOff.FirstOrDefault(d => d.LastDay < d.FirstDay || SentText.Line(d.Name, LongestName) is null) is { } wrong =>
            $"Days off “{wrong.Name}”: they need a name, and a last day that is not before the first.",
        _ => null,
    };

    private static void Write(TermSent sent, Term term)
    {
        (term.Name, term.FirstDay, term.LastDay) = (sent.Name.Trim(), sent.FirstDay, sent.LastDay);
        term.DaysOff = OtherJson.Write(sent.DaysOff);
    }
}
