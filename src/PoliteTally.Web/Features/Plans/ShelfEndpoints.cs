using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PoliteTally.Core.Questions;
using PoliteTally.Store;
using PoliteTally.Store.Model;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Features.Plans;

/// <summary>A question on the shelf.</summary>
public sealed record ShelfLine(Guid Id, Question Question, Instant KeptAt);

/// <summary>A question to keep.</summary>
public sealed record ShelfSent(Question Question);

internal static class ShelfEndpoints
{
    private const int MostQuestions = 2000;

    public static void MapShelf(this RouteGroupBuilder api)
    {
        api.MapGet("/shelf", async (SchoolDb db) => TypedResults.Ok<IReadOnlyList<ShelfLine>>(
            [.. (await db.Shelf.AsNoTracking().ToListAsync()).OrderByDescending(s => s.KeptAt).Where(PlanJson.CanBeRead).Select(LineOf)])).WithName("GetShelf");

        api.MapPost("/shelf", async Task<Results<Ok<ShelfLine>, ProblemHttpResult>> (ShelfSent sent, SchoolDb db, IClock clock) =>
        {
            if (WhyNot(sent.Question) is { } why)
            {
                return why;
            }

            if (await db.Shelf.CountAsync() >= MostQuestions)
            {
                return Refused.Now($"The shelf holds {MostQuestions:N0} questions already. Take some off first.");
            }

            var kept = new ShelfQuestion { Id = Guid.CreateVersion7(), Question = PlanJson.Write(sent.Question), KeptAt = clock.GetCurrentInstant() };
            db.Shelf.Add(kept);
            await db.SaveChangesAsync();
            return TypedResults.Ok(LineOf(kept));
        }).WithName("KeepQuestion");

        api.MapPut("/shelf/{id:guid}", async Task<Results<Ok<ShelfLine>, NotFound, ProblemHttpResult>> (
            Guid id, ShelfSent sent, SchoolDb db, IClock clock) =>
        {
            if (await db.Shelf.FirstOrDefaultAsync(s => s.Id == id) is not { } kept)
            {
                return TypedResults.NotFound();
            }

            if (WhyNot(sent.Question) is { } why)
            {
                return why;
            }

            (kept.Question, kept.KeptAt) = (PlanJson.Write(sent.Question), clock.GetCurrentInstant());
            await db.SaveChangesAsync();
            return TypedResults.Ok(LineOf(kept));
        }).WithName("ChangeKeptQuestion");

        api.MapDelete("/shelf/{id:guid}", async Task<Results<NoContent, NotFound>> (Guid id, SchoolDb db) =>
        {
            if (await db.Shelf.FirstOrDefaultAsync(s => s.Id == id) is not { } kept)
            {
                return TypedResults.NotFound();
            }

            db.Shelf.Remove(kept);
            await db.SaveChangesAsync();
            return TypedResults.NoContent();
        }).WithName("TakeOffShelf");
    }

    private static ShelfLine LineOf(ShelfQuestion kept) => new(kept.Id, PlanJson.ReadQuestion(kept.Question), kept.KeptAt);

    private static ProblemHttpResult? WhyNot(Question question) =>
        QuestionRules.Problems(question).FirstOrDefault() is { } problem ? Refused.Because($"{problem} Nothing was stored.") : null;
}
