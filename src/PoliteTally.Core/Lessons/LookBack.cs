using NodaTime;
using PoliteTally.Core.Ledger;

namespace PoliteTally.Core.Lessons;

/// <summary>Something that is known of a student.</summary>
/// <param name="At">When it happened.</param>
/// <param name="Kind">What kind of thing it is, in a word or two.</param>
/// <param name="Text">What happened, in words.</param>
/// <param name="By">Who noted it.</param>
/// <param name="Struck">Whether it was taken back since.</param>
public sealed record KnownOfStudent(Instant At, string Kind, string Text, string By, bool Struck);

/// <summary>What a lesson tells of each of its students, in words: what is searched when somebody looks back.</summary>
public static class LookBack
{
    /// <summary>What it tells of whomever it tells anything of, in the order in which things happened.</summary>
    public static IReadOnlyDictionary<Guid, IReadOnlyList<KnownOfStudent>> Of(LessonState state)
    {
        var of = new Dictionary<Guid, List<KnownOfStudent>>();
        foreach (var entry in state.Entries.Where(e => e.Act is not Ledger.Struck))
        {
            foreach (var student in state.StudentsOf(entry.Act).Distinct())
            {
                if (!of.TryGetValue(student, out var known))
                {
                    of[student] = known = [];
                }

                known.Add(new KnownOfStudent(entry.HappenedAt, KindOf(entry.Act), Wording.For(student, entry, state), entry.By, state.IsStruck(entry.Id)));
            }
        }

        return of.ToDictionary(o => o.Key, o => (IReadOnlyList<KnownOfStudent>)o.Value);
    }

    // By the trade that an act belongs to, which is how people ask.
    private static string KindOf(Act act) => act.GetType().Namespace!.Split('.')[^1] switch
    {
        "Attendance" => "attendance",
        "Hands" => "speaking",
        "Questions" => "questions",
        "Chat" => "chat",
        "Groups" => "groups",
        "Signals" => "signals",
        "Scoring" => "scores",
        "Notes" => "notes",
        "Page" => "student page",
        _ => "names and files",
    };
}
