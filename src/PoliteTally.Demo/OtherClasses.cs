using NodaTime;
using PoliteTally.Core.Chat;
using PoliteTally.Core.Hands;
using PoliteTally.Store.Model;

namespace PoliteTally.Demo;

/// <summary>Year 10, Tuesdays: six settled lessons and one planned.</summary>
internal static class IslandBotany
{
    private const int Minutes = 60;

    private static readonly string[] Titles =
        ["Salt and leaves", "Lichens on the pier", "Dune grasses", "Seaweed zones", "Who pollinates out here", "Peat and its plants", "The short growing season"];

    public static IEnumerable<DemoLesson> Lessons(DemoClass botany, LocalDate today, DateTimeZone zone, Random random)
    {
        var last = today.With(DateAdjusters.Previous(IsoDayOfWeek.Tuesday));
        for (var number = 1; number <= Titles.Length; number++)
        {
            var start = zone.AtLeniently(last.PlusWeeks(number - (Titles.Length - 1)) + new LocalTime(13, 0)).ToInstant();
            var lesson = new Lesson
            {
                Id = Guid.CreateVersion7(),
                ClassId = botany.Class.Id,
                Number = number,
                Title = Titles[number - 1],
                PlannedStart = start,
                PlannedEnd = start + Duration.FromMinutes(Minutes),
            };
            var script = new Script(lesson);
            if (number < Titles.Length)
            {
                Play(script, number);
            }

            yield return new DemoLesson(lesson, script, []);
        }

        void Play(Script script, int number)
        {
            script.Start(random.NextDouble());
            var there = botany.Students.Where(_ => random.NextDouble() > 0.04).ToList();
            foreach (var (student, i) in there.OrderBy(_ => random.Next()).Take(12).Select((s, i) => (s, i)))
            {
                var outcome = random.NextDouble() < 0.75 ? TurnOutcome.Full : TurnOutcome.Partial;
                script.Turn(5 + (i * 4), student, TurnOrigin.Drawn, outcome, waited: 0);
            }

            foreach (var student in there.Where(_ => random.NextDouble() < 0.4))
            {
                script.Chat(6 + (random.NextDouble() * 48), student, random.NextDouble() < 0.5 ? ChatKind.Question : ChatKind.Answer, "");
            }

            script.End(Minutes);
            var visits = there.Select(s => new Visit(
                $"{s.Preferred ?? s.Given} {s.Family}", script.At(-2 + (random.NextDouble() * (random.NextDouble() < 0.05 ? 14 : 4))),
                script.At(Minutes - (random.NextDouble() < 0.05 ? 12 : 0) + random.NextDouble())));
            script.AttendanceList(
                $"attendance-botany-{number}.csv", visits, botany.Students.ToDictionary(s => $"{s.Preferred ?? s.Given} {s.Family}", s => (Guid?)s.Id));
            script.Settle();
        }
    }
}

/// <summary>Wednesday evenings, open to both classes: four held, three to nine came, one guest.</summary>
internal static class NightSkyHours
{
    private const int Minutes = 45;

    private static readonly string[] Titles = ["Finding north", "The winter triangle", "A moon diary", "Why planets wander"];

    private static readonly int[] Came = [9, 3, 6, 5];

    public static IEnumerable<DemoLesson> Lessons(DemoClass sky, LocalDate today, DateTimeZone zone, Random random)
    {
        var last = today.With(DateAdjusters.Previous(IsoDayOfWeek.Wednesday));
        for (var number = 1; number <= Titles.Length; number++)
        {
            var start = zone.AtLeniently(last.PlusWeeks(number - Titles.Length) + new LocalTime(19, 30)).ToInstant();
            var lesson = new Lesson
            {
                Id = Guid.CreateVersion7(),
                ClassId = sky.Class.Id,
                Number = number,
                Title = Titles[number - 1],
                DropIn = true,
                PlannedStart = start,
                PlannedEnd = start + Duration.FromMinutes(Minutes),
            };
            var script = new Script(lesson);
            script.Start();
            var there = sky.Students.OrderBy(_ => random.Next()).Take(Came[number - 1]).ToList();
            foreach (var (student, i) in there.Select((s, i) => (s, i)))
            {
                script.Turn(6 + (i * 3.5), student, TurnOrigin.Invited, TurnOutcome.Full, waited: 0);
            }

            script.End(Minutes);
            var whose = sky.Students.ToDictionary(s => $"{s.Given} {s.Family}", s => (Guid?)s.Id);
            whose["Keeper of Lantern Rock"] = null;
            var visits = there.Select(s => new Visit($"{s.Given} {s.Family}", script.At(random.Next(-3, 9)), script.At(Minutes))).ToList();
            if (number == 2)
            {
                visits.Add(new Visit("Keeper of Lantern Rock", script.At(4), script.At(40)));
            }

            script.AttendanceList($"attendance-sky-{number}.csv", visits, whose);
            script.Settle();
            yield return new DemoLesson(lesson, script, []);
        }
    }
}
