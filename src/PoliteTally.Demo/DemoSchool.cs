using Microsoft.Extensions.Logging.Abstractions;
using NodaTime;
using PoliteTally.Core.Names;
using PoliteTally.Formats;
using PoliteTally.Store;
using PoliteTally.Store.Model;
using PoliteTally.Store.Writing;

namespace PoliteTally.Demo;

/// <summary>
/// Skerry Sound Online School, all made up. Made from a fixed seed through the same ledger as real use; dates are counted
/// back from the day on which it is loaded, so that the live lesson is always today's.
/// </summary>
public static class DemoSchool
{
    /// <summary>The demo teacher's address; the account has no password.</summary>
    public const string Email = "tamsin.vale@skerrysound.example";

    private const int Seed = 20_260_903;
    private const string Teacher = "Tamsin Vale";
    private static readonly DateTimeZone Zone = DateTimeZoneProviders.Tzdb["Atlantic/Faroe"];

    /// <summary>Fills a file that has no accounts yet.</summary>
    /// <param name="file">The file, which counts only when all is in it.</param>
    /// <param name="dataFolder">Where the files that wait for settling are put, in <c>demo-files</c>.</param>
    /// <param name="clock">Today.</param>
    public static void LoadInto(SchoolFile file, string dataFolder, IClock clock)
    {
        var now = clock.GetCurrentInstant();
        var teacher = new Teacher
        {
            Id = Guid.CreateVersion7(),
            UserName = Email,
            NormalizedUserName = Email.ToUpperInvariant(),
            Email = Email,
            NormalizedEmail = Email.ToUpperInvariant(),
            SecurityStamp = Guid.NewGuid().ToString(),
            DisplayName = Teacher,
            School = "Skerry Sound Online School",
            TimeZone = Zone.Id,
        };
        using var db = file.Open(teacher.Id);
        var weather = MadeFrom("Weather and Tides, year 8", "roster-weather-and-tides.csv", now);
        var botany = MadeFrom("Island Botany, year 10", "roster-island-botany.csv", now + Duration.FromSeconds(1));
        var sky = new DemoClass(
            new SchoolClass { Id = Guid.CreateVersion7(), Name = "Night Sky Hours", MadeAt = now + Duration.FromSeconds(2) },
            [.. weather.Students, .. botany.Students]);
        var today = now.InZone(Zone).Date;
        var random = new Random(Seed);
        List<DemoLesson> lessons =
        [
            .. WeatherAndTides.Lessons(weather, today, Zone, now, random),
            .. IslandBotany.Lessons(botany, today, Zone, random),
            .. NightSkyHours.Lessons(sky, today, Zone, random),
        ];

        using (var transaction = db.Database.BeginTransaction())
        {
            db.Students.AddRange(sky.Students);
            foreach (var made in new[] { weather, botany, sky })
            {
                db.Classes.Add(made.Class);
                var keys = ShortNames.Keys([.. made.Students.Select(Rosters.NameOf)], new Dictionary<Guid, char>());
                db.Enrolments.AddRange(made.Students.Select(s => new Enrolment
                {
                    ClassId = made.Class.Id,
                    StudentId = s.Id,
                    Key = keys[s.Id],
                    Stays = [new Stay { From = lessons.Min(l => l.Lesson.PlannedStart) - Duration.FromDays(7) }],
                }));
            }

            var (term, weekly) = BeforeLessons.Calendar(weather, botany, sky, lessons, today);
            db.Terms.Add(term);
            db.Series.Add(weekly);
            BeforeLessons.Prepare(weather, botany, lessons, db, dataFolder, now);
            LiveThreads.Tell(weather, lessons);
            AnsweredQuestions.Tell(weather, lessons, Zone);
            GivePasses(weather, new Passes(Path.Combine(dataFolder, "keys")), now);
            db.KnownNames.AddRange(WeatherAndTides.KnownNames(weather, now));
            db.Lessons.AddRange(lessons.Select(l => l.Lesson));
            db.SaveChanges();
            transaction.Commit();
        }

        Play(lessons, weather, file, teacher.Id).GetAwaiter().GetResult();

        db.Users.Add(teacher);
        db.SaveChanges();
        PutWaitingFiles(lessons, Path.Combine(dataFolder, "demo-files"));
        BeforeLessons.Files(weather, botany, today, Path.Combine(dataFolder, "demo-files"));
    }

    /// <summary>Every student of the demo has the pass that is printed beside their number, so that anybody can try a student's page.</summary>
    private static void GivePasses(DemoClass weather, Passes passes, Instant now)
    {
        var printed = Table("passes.csv").ToDictionary(row => row[0], row => row[1]);
        foreach (var student in weather.Students)
        {
            (student.PassHash, student.PassMadeAt) = (passes.FingerprintOf(printed[student.Number!]), now);
        }
    }

    private static DemoClass MadeFrom(string name, string roster, Instant at)
    {
        var students = RosterFile.Read(Bytes(roster), mapping: null).Rows.Select(line => new Student
        {
            Id = Guid.CreateVersion7(),
            Number = line.Number,
            Family = line.Family,
            Given = line.Given,
            Preferred = line.Preferred,
            Email = line.Email,
            SecondEmail = line.SecondEmail,
            Phone = line.Phone,
            Tags = line.Tags,
        });
        return new DemoClass(new SchoolClass { Id = Guid.CreateVersion7(), Name = name, MadeAt = at }, [.. students]);
    }

    /// <summary>The rows of a table of the demo school.</summary>
    internal static IEnumerable<ArraySegment<string>> Table(string name) =>
        Formats.Table.Read(Bytes(name), _ => false).Rows.Select(row => row.Cells);

    private static byte[] Bytes(string name)
    {
        using var stream = typeof(DemoSchool).Assembly.GetManifestResourceStream(name)!;
        using var bytes = new MemoryStream();
        stream.CopyTo(bytes);
        return bytes.ToArray();
    }

    // Entries go in as they did: by whom, from which source, and in the order in which they were noted.
    private static async Task Play(IReadOnlyList<DemoLesson> lessons, DemoClass weather, SchoolFile file, Guid owner)
    {
        var clock = new DemoClock();
        var openLessons = new OpenLessons(file);
        await using var ledger = new LedgerWriter(file, openLessons, clock, NullLogger<LedgerWriter>.Instance);
        foreach (var lesson in lessons)
        {
            if (lesson.Lesson.ClassId == weather.Class.Id && lesson.Lesson.Number == SchemeStory.ChangedBefore)
            {
                SchemeStory.Change(file, weather, owner, Teacher, lesson.Lesson.PlannedStart - Duration.FromHours(14));
            }

            foreach (var noted in lesson.Script.InOrder())
            {
                clock.Now = noted.NotedAt;
                if (noted.Ballot is { } ballot)
                {
                    await ledger.Cast(owner, lesson.Lesson.Id, ballot);
                    continue;
                }

                var result = await ledger.Append(owner, lesson.Lesson.Id, noted.Source, noted.By, noted.Entries);
                if (result is not { Refused.Count: 0 })
                {
                    throw new InvalidOperationException($"The demo school does not follow the rules: {result?.Refused[0].Why ?? "no such lesson"}");
                }
            }
        }

        await SchemeStory.Tell(lessons, weather, ledger, owner, Teacher, at => clock.Now = at);
        await SchemeStory.Object(file, openLessons, lessons, weather, owner, Teacher);
        await using var db = file.Open(owner);
        await Summaries.RenewDue(db);
    }

    private static void PutWaitingFiles(IEnumerable<DemoLesson> lessons, string folder)
    {
        Directory.CreateDirectory(folder);
        foreach (var file in lessons.SelectMany(l => l.Waiting))
        {
            File.WriteAllBytes(Path.Combine(folder, file.Name), file.Bytes);
        }
    }

    private sealed class DemoClock : IClock
    {
        public Instant Now { get; set; }

        public Instant GetCurrentInstant() => Now;
    }
}

/// <summary>A class of the demo school with its students.</summary>
internal sealed record DemoClass(SchoolClass Class, IReadOnlyList<Student> Students)
{
    /// <summary>A student by the name they are called, with the family name where two share it.</summary>
    public Student Called(string name) => Students.Single(s => name == (s.Preferred ?? s.Given) || name == $"{s.Given} {s.Family}");
}

/// <summary>A visit to the meeting, as an attendance list has it.</summary>
internal sealed record Visit(string Name, Instant Joined, Instant Left);

/// <summary>A lesson, what happened in it, and what waits as a file.</summary>
internal sealed record DemoLesson(Lesson Lesson, Script Script, List<WaitingFile> Waiting);
