using System.Diagnostics.CodeAnalysis;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.ChangeTracking;
using PoliteTally.Core.GroundRules;
using PoliteTally.Store.Model;

namespace PoliteTally.Store;

/// <summary>What is stored cannot be read. The message says what, and what becomes of it.</summary>
public sealed class UnreadableDocument(string message) : Exception(message);

/// <summary>What is to be stored could not be read again, so nothing of it was stored. The message says why.</summary>
public sealed class NotReadBack(string message) : Exception(message);

/// <summary>
/// Every column that holds JSON, and how that is read. Whatever is written there is read back before it is stored: a document that nobody could read again would
/// take all with it that stands beside it.
/// </summary>
public static class Documents
{
    private static readonly Dictionary<(Type Table, string Column), Action<string>> Readers = new()
    {
        [(typeof(SchoolClass), nameof(SchoolClass.Rules))] = json => RulesJson.Read(ClassRules.Default, json),
        [(typeof(Lesson), nameof(Lesson.Rules))] = json => RulesJson.Read(ClassRules.Default, json),
        [(typeof(LessonPlan), nameof(LessonPlan.Document))] = json => PlanJson.ReadPlan(json),
        [(typeof(EntryRow), nameof(EntryRow.Act))] = json => ActJson.Read(json),
        [(typeof(SchemeVersion), nameof(SchemeVersion.Scheme))] = json => RulesJson.ReadScheme(json),
        [(typeof(ShelfQuestion), nameof(ShelfQuestion.Question))] = json => PlanJson.ReadQuestion(json),
        [(typeof(Summary), nameof(Summary.Tally))] = json => Summaries.ReadTally(json),
        [(typeof(Summary), nameof(Summary.Ribbon))] = json => Summaries.ReadRibbon(json),
        [(typeof(LookBackRow), nameof(LookBackRow.Known))] = json => Summaries.ReadKnown(json),
        [(typeof(HandIn), nameof(HandIn.Marks))] = json => OtherJson.ReadMarks(json),
        [(typeof(Term), nameof(Term.DaysOff))] = json => OtherJson.ReadDaysOff(json),
        [(typeof(Teacher), nameof(Teacher.LiveKeys))] = json => OtherJson.ReadLiveKeys(json),
    };

    private static readonly ILookup<Type, (string Column, Action<string> Read)> ReadersOf = Readers.ToLookup(c => c.Key.Table, c => (c.Key.Column, c.Value));

    /// <summary>The columns that hold JSON.</summary>
    public static IReadOnlyCollection<(Type Table, string Column)> Columns => Readers.Keys;

    /// <summary>Reads what a context is about to store.</summary>
    /// <exception cref="NotReadBack">A document could not be read again.</exception>
    internal static void ReadBack(EntityEntry row)
    {
        foreach (var (name, read) in ReadersOf[row.Metadata.ClrType])
        {
            if (row.Property(name) is { CurrentValue: string json } column && (row.State == EntityState.Added || column.IsModified))
            {
                ReadBack(read, json);
            }
        }
    }

    /// <summary>Reads what is to be stored in a column.</summary>
    /// <exception cref="NotReadBack">It could not be read again.</exception>
    internal static void ReadBack(Type table, string column, string written) => ReadBack(Readers[(table, column)], written);

    /// <summary>
    /// Puts right, at the start, what is stored beside a lesson and follows from something else, whoever's it is: settled lessons are due of which something is kept that is
    /// no JSON, and a lesson of which the plan is gone has none.
    /// </summary>
    public static async Task Mend(SchoolDb db)
    {
        await db.Database.ExecuteSqlAsync($"""
            UPDATE "Lessons" SET "ReckonAgain" = 1 WHERE "Stage" = {(int)LessonStage.Settled} AND ("Id" IN (SELECT "LessonId" FROM "Summaries" WHERE NOT json_valid("Tally") OR NOT json_valid("Ribbon"))
                OR "Id" IN (SELECT "LessonId" FROM "LookBack" WHERE NOT json_valid("Known")))
            """);
        await db.Database.ExecuteSqlAsync($"""UPDATE "Lessons" SET "Prepared" = 0 WHERE "Prepared" AND "Id" NOT IN (SELECT "LessonId" FROM "LessonPlans")""");
    }

    /// <summary>What is stored, or something in its place while that cannot be read.</summary>
    internal static T ReadOr<T>(T instead, Func<T> read)
        where T : class => WhyUnreadable(read, out var found) is null ? found! : instead;

    /// <summary>Why something cannot be read; null if it can.</summary>
    internal static string? WhyUnreadable(Action read) => WhyUnreadable<object>(
        () =>
        {
            read();
            return "";
        },
        out _);

    /// <summary>Why something cannot be read; null if it can, with what it says.</summary>
    [SuppressMessage("Design", "CA1031", Justification = "Whatever keeps it from being read.")]
    internal static string? WhyUnreadable<T>(Func<T> read, out T? found)
        where T : class
    {
        try
        {
            found = read();
            return null;
        }
        catch (Exception failure) when (failure is JsonException or InvalidOperationException or FormatException or ArgumentException or OverflowException or NotSupportedException)
        {
            found = null;
            return failure.Message;
        }
    }

    private static void ReadBack(Action<string> read, string written)
    {
        if (WhyUnreadable(() => read(written)) is { } why)
        {
            throw new NotReadBack($"What was sent could not be read again if it were stored, so nothing of it was: {why}");
        }
    }
}
