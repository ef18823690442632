using System.Diagnostics;
using Microsoft.Data.Sqlite;
using NodaTime;
using PoliteTally.Store;
using PoliteTally.Store.Model;

namespace PoliteTally.Bench;

/// <summary>
/// What a teacher waits for before a lesson, over HTTP: a roster of 2,000 rows looked at and brought in, and a week of a calendar
/// of five years with twenty lessons a week. Beside each a bare pass over the same rows.
/// </summary>
internal static class Preparing
{
    private const int Rows = 2000;
    private const int Weeks = 5 * 52;
    private const int LessonsAWeek = 20;
    private static readonly Instant Start = Instant.FromUtc(2026, 8, 31, 8, 30);

    public static async Task Run()
    {
        var folder = Directory.CreateTempSubdirectory("polite-tally-bench");
        await using (var program = await RunningProgram.Start(folder.FullName))
        {
            await Roster(program, folder.FullName);
            await Calendar(program, folder.FullName);
        }

        SqliteConnection.ClearAllPools();
        folder.Delete(recursive: true);
    }

    private static async Task Roster(RunningProgram program, string folder)
    {
        var roster = "Student number,Family name,Given name,E-mail,Tags\n"
            + string.Concat(Enumerable.Range(1, Rows).Select(i => $"S{i:0000},Sound{i},Student{i},student{i}@pupils.skerrysound.example,Harbour\n"));
        var cells = 0;
        var bareSplit = Figures.Milliseconds(() => cells = roster.Split('\n').Select(l => l.Split(',').Length).Sum());
        var bareWrite = Bare(folder);
        var looks = new List<double>();
        var brings = new List<double>();
        for (var run = 0; run < 5; run++)
        {
            var id = (await program.Post("/api/classes", new { name = $"Weather and Tides {run}" })).GetProperty("id").GetString();
            // Each time students who are new to the school: other numbers and addresses.
            var fresh = roster.Replace(",S", $",R{run}S").Replace("\nS", $"\nR{run}S").Replace("student", $"r{run}student");
            looks.Add(await Timed(() => program.Send($"/api/classes/{id}/roster/preview", fresh)));
            brings.Add(await Timed(() => program.Send($"/api/classes/{id}/roster", fresh)));
        }

        Figures.Row($"a roster of {Rows:N0} rows looked at, school of up to {Rows * 5:N0}", Figures.Of(Figures.Median(looks), "ms", "0"), $"cutting it into {cells:N0} cells {Figures.Of(bareSplit, "ms")}", Figures.Median(looks) / bareSplit);
        Figures.Row($"a roster of {Rows:N0} rows brought in", Figures.Of(Figures.Median(brings), "ms", "0"), $"bare inserts in one transaction {Figures.Of(bareWrite, "ms", "0")}", Figures.Median(brings) / bareWrite);
    }

    private static double Bare(string folder)
    {
        using var connection = new SqliteConnection($"Data Source={Path.Combine(folder, "bare-roster.db")};Pooling=False");
        connection.Open();
        using var make = connection.CreateCommand();
        make.CommandText = "PRAGMA journal_mode = WAL; PRAGMA synchronous = FULL; CREATE TABLE Students (Id TEXT PRIMARY KEY, Name TEXT); CREATE TABLE Places (ClassId TEXT, StudentId TEXT, PRIMARY KEY (ClassId, StudentId))";
        make.ExecuteNonQuery();
        return Figures.Milliseconds(() =>
        {
            using var transaction = connection.BeginTransaction();
            using var insert = connection.CreateCommand();
            insert.Transaction = transaction;
            insert.CommandText = "INSERT INTO Students VALUES ($id, 'Sound'); INSERT INTO Places VALUES ('c', $id)";
            insert.Parameters.AddWithValue("$id", "");
            for (var i = 0; i < Rows; i++)
            {
                insert.Parameters[0].Value = Guid.CreateVersion7();
                insert.ExecuteNonQuery();
            }

            transaction.Commit();
        });
    }

    private static async Task Calendar(RunningProgram program, string folder)
    {
        var inClass = Guid.Parse((await program.Post("/api/classes", new { name = "All classes" })).GetProperty("id").GetString()!);
        var file = new SchoolFile(folder);
        Guid owner;
        using (var anybody = file.Open(Guid.Empty))
        {
            owner = anybody.Users.Single().Id;
        }

        using (var db = file.Open(owner))
        {
            db.Lessons.AddRange(Enumerable.Range(0, Weeks * LessonsAWeek).Select(i => new Lesson
            {
                Id = Guid.CreateVersion7(),
                ClassId = inClass,
                Number = i + 1,
                Title = "Reading a tide table",
                PlannedStart = At(i),
                PlannedEnd = At(i) + Duration.FromMinutes(50),
            }));
            await db.SaveChangesAsync();
        }

        var weeks = new List<double>();
        for (var week = 0; week < 20; week++)
        {
            var day = Start.InUtc().Date.PlusWeeks(week * 12);
            weeks.Add(await Timed(() => program.Get($"/api/calendar?from={day:uuuu-MM-dd}&days=7")));
        }

        using var connection = new SqliteConnection($"Data Source={Path.Combine(folder, "polite-tally.db")}");
        connection.Open();
        var all = Figures.Milliseconds(() =>
        {
            using var read = connection.CreateCommand();
            read.CommandText = """SELECT "Id", "Title", "PlannedStart" FROM "Lessons" """;
            using var rows = read.ExecuteReader();
            while (rows.Read())
            {
                rows.GetInt64(2);
            }
        });
        Figures.Row($"a week of a calendar of {Weeks * LessonsAWeek:N0} lessons opened", Figures.Of(Figures.Median(weeks), "ms", "0.0"), $"reading all its rows {Figures.Of(all, "ms", "0.0")}", Figures.Median(weeks) / all);

        // Four lessons a day from Monday to Friday.
        static Instant At(int i) => Start + Duration.FromDays((i / LessonsAWeek * 7) + (i % LessonsAWeek / 4)) + Duration.FromHours(i % 4);
    }

    private static async Task<double> Timed(Func<Task> act)
    {
        var watch = Stopwatch.StartNew();
        await act();
        return watch.Elapsed.TotalMilliseconds;
    }
}
