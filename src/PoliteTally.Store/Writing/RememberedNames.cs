using PoliteTally.Core.Ledger;
using PoliteTally.Core.Meeting;
using PoliteTally.Core.Names;
using PoliteTally.Store.Model;

namespace PoliteTally.Store.Writing;

/// <summary>
/// The class remembers what the teacher says of a name in a lesson, in the transaction that stores the entry; if that is taken back, it forgets
/// what it had from this lesson.
/// </summary>
internal static class RememberedNames
{
    public static void Follow(Entry entry, Draft draft)
    {
        if (entry.Source != Source.Tapped)
        {
            return;
        }

        var names = draft.State().Names;
        foreach (var (name, beside) in DecisionsIn(entry.Act, draft).Select(d => (d.Name, Beside: names.TellingApart(d.Name, d.Beside))).Distinct())
        {
            // A connection is another in the next lesson: what is said of it ends with this one.
            if (NameFolding.AsShown(name) is { Length: > 0 } folded && ShownName.Of(name, beside).IsLasting)
            {
                Follow(name, beside, folded, entry, draft);
            }
        }
    }

    private static void Follow(string name, string beside, string folded, Entry entry, Draft draft)
    {
        using var db = draft.Database();
        var (lesson, word) = (draft.Lesson, draft.State().Names.DecisionOn(name, beside));
        var known = db.KnownNames.FirstOrDefault(n => n.ClassId == lesson.ClassId && n.Folded == folded && n.Beside == beside);
        if (word is { Source: Source.Tapped })
        {
            if (known is null)
            {
                db.KnownNames.Add(known = new KnownName { ClassId = lesson.ClassId, Folded = folded, Beside = beside, Shown = name });
            }

            (known.Shown, known.StudentId, known.Origin, known.LessonId, known.NotedAt) =
                (name, word.Student, $"lesson {lesson.Number}, {lesson.Title}", lesson.Id, entry.NotedAt);
        }
        else if (known?.LessonId == lesson.Id)
        {
            db.KnownNames.Remove(known);
        }

        db.SaveChanges();
        draft.NamesRemembered = true;
    }

    private static IEnumerable<NameMatched> DecisionsIn(Act act, Draft draft) => act switch
    {
        NameMatched matched => [matched],
        Struck struck => draft.About(struck).OfType<NameMatched>(),
        _ => [],
    };
}
