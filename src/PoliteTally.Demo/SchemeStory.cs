using NodaTime;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Scoring;
using PoliteTally.Store;
using PoliteTally.Store.Model;
using PoliteTally.Store.Writing;

namespace PoliteTally.Demo;

/// <summary>What became of the scheme of Weather and Tides over the term: one change in its middle, two corrections, and a rubric marked in two lessons, and what students said is wrong.</summary>
internal static class SchemeStory
{
    /// <summary>The lesson before which the scheme was changed.</summary>
    public const int ChangedBefore = 7;

    private static readonly Criterion Listens = new(
        new Guid("5c4e3e00-0000-4000-8000-000000000001"), "builds on what others said",
        [
            new(new Guid("5c4e3e00-0000-4000-8000-000000000011"), "and says whose it was", 1),
            new(new Guid("5c4e3e00-0000-4000-8000-000000000012"), "now and then", 0.6m),
            new(new Guid("5c4e3e00-0000-4000-8000-000000000013"), "not yet", 0),
        ]);

    /// <summary>By what they were judged: the number of the lesson, who, and the level counted from the best.</summary>
    private static readonly (int Lesson, string Who, int Level)[] Judged =
    [
        (8, "Cormac", 1), (8, "Juno", 0), (8, "Eino", 1), (8, "Tiago", 2), (8, "Saga", 1),
        (11, "Cormac", 0), (11, "Juno", 0), (11, "Birkir", 1), (11, "Pip", 0),
    ];

    /// <summary>The scheme is changed for the lessons to come.</summary>
    public static void Change(SchoolFile file, DemoClass weather, Guid owner, string by, Instant at)
    {
        using var db = file.Open(owner);
        var row = db.Classes.Single(c => c.Id == weather.Class.Id);
        var scheme = RulesJson.Of(row).Scheme;
        Schemes.Change(
            db, row,
            scheme with
            {
                Weights = scheme.Weights.ToDictionary(w => w.Key, w => w.Key switch { Strand.Chat => 2, Strand.Rubric => 1, _ => w.Value }),
                Criteria = [Listens],
                Bands = [new(0, "finding a way in"), new(55, "taking part"), new(75, "carrying the lesson")],
            },
            by, "this class writes as much as it talks, and listens better than the count can see", at);
        db.SaveChanges();
    }

    /// <summary>What students said is wrong in their scores: one is answered, one waits on the desk.</summary>
    public static async Task Object(SchoolFile file, OpenLessons openLessons, IReadOnlyList<DemoLesson> lessons, DemoClass weather, Guid owner, string by)
    {
        await using var db = file.Open(owner);
        var (fifth, eleventh) = (LessonOf(5), LessonOf(11));
        db.Objections.Add(new Objection
        {
            Id = Guid.CreateVersion7(),
            LessonId = fifth.Id,
            StudentId = weather.Called("Eino").Id,
            About = "",
            Text = "I wanted to speak but nobody heard me, my microphone was broken",
            MadeAt = fifth.PlannedEnd + Duration.FromHours(3),
            Answer = "You are right. I have left speaking out of this lesson for you.",
            AnsweredBy = by,
            AnsweredAt = fifth.PlannedEnd + Duration.FromHours(5),
        });
        var zainab = weather.Called("Zainab").Id;
        var turn = (await openLessons.Find(owner, eleventh.Id))!.State.Entries.Last(e => e.Act is TurnTaken taken && taken.Student == zainab);
        db.Objections.Add(new Objection
        {
            Id = Guid.CreateVersion7(),
            LessonId = eleventh.Id,
            StudentId = zainab,
            EntryId = turn.Id,
            About = turn.Act.InWords,
            Text = "My line went away in the middle. I said the other half when I was back, after Birkir",
            MadeAt = eleventh.PlannedEnd + Duration.FromHours(20),
        });
        await db.SaveChangesAsync();

        Lesson LessonOf(int number) => lessons.Single(l => l.Lesson.ClassId == weather.Class.Id && l.Lesson.Number == number).Lesson;
    }

    /// <summary>What was put right and judged after lessons were settled.</summary>
    public static async Task Tell(IReadOnlyList<DemoLesson> lessons, DemoClass weather, LedgerWriter ledger, Guid owner, string by, Action<Instant> at)
    {
        await Note(5, "Eino", student => new ScoreCorrected(student, CorrectionKind.StrandLeftOut, Strand.Speaking, null, "his microphone was broken; he showed me afterwards"));
        await Note(9, "Saga", student => new ScoreCorrected(student, CorrectionKind.StrandSet, Strand.Speaking, 1, "explained the neap tide to me by telephone after the lesson"));
        foreach (var (number, who, level) in Judged)
        {
            await Note(number, who, student => new CriterionMarked(student, Listens.Id, Listens.Levels[level].Id));
        }

        async Task Note(int number, string who, Func<Guid, Act> act)
        {
            var lesson = lessons.Single(l => l.Lesson.ClassId == weather.Class.Id && l.Lesson.Number == number).Lesson;
            var when = lesson.PlannedEnd + Duration.FromHours(5);
            at(when);
            var result = await ledger.Append(owner, lesson.Id, Source.Tapped, by, [new NewEntry(Guid.CreateVersion7(), when, act(weather.Called(who).Id))]);
            if (result is not { Refused.Count: 0 })
            {
                throw new InvalidOperationException($"The demo school does not follow the rules: {result?.Refused[0].Why ?? "no such lesson"}");
            }
        }
    }
}
