using System.Globalization;
using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Chat;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Names;
using PoliteTally.Core.Page;
using PoliteTally.Store.Model;

namespace PoliteTally.Demo;

/// <summary>Year 8, Mondays and Thursdays: twelve settled lessons with a term's story, one to settle, one live, two planned.</summary>
internal static class WeatherAndTides
{
    private const int Settled = 12;
    private const int Minutes = 50;
    private const int FairFrom = 7;

    private static readonly string[] Titles =
    [
        "What the air weighs", "Reading a barometer", "Wind on a chart", "Sea breezes", "A week's own observations",
        "Cloud families", "Spring and neap tides", "The rule of twelfths", "Fronts and squalls", "Barometer quiz", "Reading a tide table",
        "High and low pressure", "Tides in the sound", "Why the wind backs", "Fog and haar", "The term's weather diary",
    ];

    private static readonly string[] Nods = ["helped someone", "kept going", "on time"];

    /// <summary>What the meeting shows for those whose name it does not know.</summary>
    private static readonly IReadOnlyDictionary<string, string> ShownAs = DemoSchool.Table("shown-names.csv").ToDictionary(row => row[0], row => row[1]);

    public static IEnumerable<KnownName> KnownNames(DemoClass weather, Instant at)
    {
        yield return Known("Rowan", weather.Called("Rowan Lindqvist").Id, 1);
        yield return Known("Ify A-O", weather.Called("Ify").Id, 1);
        yield return Known("harbour-office-3", null, 2);
        yield return Known("Mum (Barney)", null, 4);

        KnownName Known(string shown, Guid? student, int lesson) => new()
        {
            ClassId = weather.Class.Id,
            Folded = NameFolding.AsShown(shown),
            Shown = shown,
            StudentId = student,
            NotedAt = at,
            Origin = $"lesson {lesson}, {Titles[lesson - 1]}",
        };
    }

    public static IEnumerable<DemoLesson> Lessons(DemoClass weather, LocalDate today, DateTimeZone zone, Instant now, Random random)
    {
        var days = Enumerable.Range(1, 60).Select(back => today.PlusDays(-back))
            .Where(d => d.DayOfWeek is IsoDayOfWeek.Monday or IsoDayOfWeek.Thursday).Take(Settled + 1).Reverse().ToList();
        for (var number = 1; number <= Settled; number++)
        {
            yield return Held(number, zone.AtLeniently(days[number - 1] + new LocalTime(9, 30)).ToInstant());
        }

        yield return ToSettle(Settled + 1, zone.AtLeniently(days[Settled] + new LocalTime(9, 30)).ToInstant());

        // Begun half an hour ago, on a full five minutes.
        var began = Instant.FromUnixTimeSeconds((now - Duration.FromMinutes(31)).ToUnixTimeSeconds() / 300 * 300);
        yield return LiveNow(Settled + 2, began);
        var coming = Enumerable.Range(1, 14).Select(today.PlusDays)
            .Where(d => d.DayOfWeek is IsoDayOfWeek.Monday or IsoDayOfWeek.Thursday).Take(2).ToList();
        for (var i = 0; i < coming.Count; i++)
        {
            var lesson = LessonAt(Settled + 3 + i, zone.AtLeniently(coming[i] + new LocalTime(9, 30)).ToInstant());
            yield return new DemoLesson(lesson, new Script(lesson), []);
        }

        Lesson LessonAt(int number, Instant start) => new()
        {
            Id = Guid.CreateVersion7(),
            ClassId = weather.Class.Id,
            Number = number,
            Title = Titles[number - 1],
            PlannedStart = start,
            PlannedEnd = start + Duration.FromMinutes(Minutes),
        };

        DemoLesson Held(int number, Instant start)
        {
            var lesson = LessonAt(number, start);
            var script = new Script(lesson);
            var absent = Absent(number);
            var there = weather.Students.Except(absent).ToList();
            script.Start(random.NextDouble());
            Speak(script, number, there);
            Write(script, number, there, number == 9 ? "Odhran Pike" : "Tamsin Vale");
            foreach (var student in there.Where(_ => random.NextDouble() < 0.16))
            {
                script.Nod(random.Next(8, 46), student, Nods[random.Next(Nods.Length)]);
            }

            if (number == 6)
            {
                script.Excuse(4, weather.Called("Zainab"), "dentist");
            }

            script.End(Minutes - 0.5 + random.NextDouble());
            var visits = there.SelectMany(s => Visits(script, s, number)).ToList();
            if (number is 2 or 8)
            {
                visits.Add(new Visit("harbour-office-3", script.At(11), script.At(11.5)));
            }

            if (number == 4)
            {
                visits.Add(new Visit("Mum (Barney)", script.At(-2), script.At(3)));
            }

            var whose = weather.Students.ToDictionary(NameShown, s => (Guid?)s.Id);
            whose["Juno Q (phone)"] = weather.Called("Juno").Id;
            whose["harbour-office-3"] = whose["Mum (Barney)"] = null;
            if (number == 7)
            {
                // The meeting kept no list that day; the roll was called while the class was still coming in.
                script.Tap(-2.5, new RollCallTaken([.. there.Select(s => s.Id)]));
            }
            else
            {
                script.AttendanceList($"attendance-lesson-{number}.csv", visits, whose);
            }

            script.Settle();
            return new DemoLesson(lesson, script, []);
        }

        IReadOnlyList<Student> Absent(int number) =>
        [
            .. number is 8 or 9 ? new[] { weather.Called("Wojtek") } : [],
            .. number == 6 ? new[] { weather.Called("Zainab") } : [],
            .. number == 3 ? new[] { weather.Called("Saga") } : [],
            .. number == 11 ? new[] { weather.Called("Tiago") } : [],
        ];

        // Early in the term hands decide, and Cormac's is always up; from lesson 7 on the teacher draws the least heard.
        void Speak(Script script, int number, List<Student> there)
        {
            var ana = weather.Called("Ana");
            var cormac = weather.Called("Cormac");
            var heard = new HashSet<Guid>();
            var turns = random.Next(13, 17);
            for (var i = 0; i < turns; i++)
            {
                var minute = 4 + (i * 42.0 / turns) + random.NextDouble();
                var loud = number < FairFrom && random.NextDouble() < 0.21;
                var drawn = number >= FairFrom && random.NextDouble() < 0.7;
                var others = there.Where(s => s != ana && s != cormac && !heard.Contains(s.Id)).ToList();
                var student = loud ? cormac
                    : i == 3 && number is 4 or 11 && i == 3 ? ana
                    : number >= FairFrom && i == turns / 2 ? cormac
                    : others[random.Next(others.Count)];
                heard.Add(student.Id);
                var outcome = random.NextDouble() switch
                {
                    < 0.72 => TurnOutcome.Full,
                    < 0.90 => TurnOutcome.Partial,
                    < 0.96 => TurnOutcome.Pass,
                    _ => TurnOutcome.CouldNot,
                };
                script.Turn(
                    minute, student, drawn && student != cormac ? TurnOrigin.Drawn : TurnOrigin.Hand,
                    student == cormac ? TurnOutcome.Full : outcome, waited: 0.3 + random.NextDouble());
            }

            // Hands that nobody got to.
            foreach (var student in there.Where(s => s != ana && !heard.Contains(s.Id)).OrderBy(_ => random.Next()).Take(2))
            {
                script.HandUp(46 + random.NextDouble(), student);
            }
        }

        void Write(Script script, int number, List<Student> there, string sweptBy)
        {
            var ana = weather.Called("Ana");
            for (var i = 0; i < 2 + (number % 2); i++)
            {
                script.Chat(9 + (i * 13) + random.NextDouble(), ana, ChatKind.Question, ChatTexts.Questions[(number + (i * 5)) % ChatTexts.Questions.Length], sweptBy);
            }

            foreach (var student in there.Where(s => s != ana && random.NextDouble() < 0.45))
            {
                var kind = random.NextDouble() switch { < 0.3 => ChatKind.Question, < 0.75 => ChatKind.Answer, _ => ChatKind.Idea };
                script.Chat(6 + (random.NextDouble() * 38), student, kind, ChatTexts.Of(kind, random), sweptBy);
                if (random.NextDouble() < 0.3)
                {
                    script.Chat(45 + random.NextDouble(), student, ChatKind.Social, "bye everyone", sweptBy);
                }
            }
        }

        IEnumerable<Visit> Visits(Script script, Student student, int number)
        {
            var name = NameShown(student);
            var joined = script.At(-3 + (random.NextDouble() * 4));
            var left = script.At(Minutes + random.NextDouble());
            switch (student.Preferred ?? student.Given)
            {
                // The line is weak when it blows.
                case "Eino" when number is 3 or 7 or 9:
                    yield return new Visit(name, joined, script.At(9));
                    yield return new Visit(name, script.At(10.3), script.At(18));
                    yield return new Visit(name, script.At(number == 9 ? 32 : 22), left);
                    break;
                case "Zainab" when number is 4 or 10:
                    yield return new Visit(name, script.At(number + 4.2), left);
                    break;
                case "Juno":
                    yield return new Visit(name, joined, left);
                    yield return new Visit("Juno Q (phone)", script.At(2), script.At(31));
                    break;
                case "Tram" when number == 5:
                    yield return new Visit(name, joined, script.At(33));
                    break;
                default:
                    yield return new Visit(name, joined, left);
                    break;
            }
        }

        // Taught and ended, with the attendance list still lying there: 31 names for 27 students, three others and one unknown.
        DemoLesson ToSettle(int number, Instant start)
        {
            var lesson = LessonAt(number, start);
            var script = new Script(lesson);
            var there = weather.Students.Where(s => s.Given != "Ingvild").ToList();
            var zainab = weather.Called("Zainab");
            script.Start(0.4);
            foreach (var student in there.Where(s => s != zainab && s.Given != "Eino"))
            {
                script.Here(1 + (random.NextDouble() * 3), student);
            }

            script.Excuse(2, weather.Called("Ingvild"), "ferry cancelled");
            script.Late(7.5, zainab);
            Speak(script, number, there);
            var saved = new Script(lesson);
            Write(saved, number, there, "Tamsin Vale");
            script.End(Minutes);
            var came = there.ToDictionary(s => s, s => s.Given switch
                {
                    "Zainab" => new Visit("Zainab U", script.At(6.8), script.At(50.3)),
                    "Birkir" => new Visit("Birkir Árnason", script.At(8.1), script.At(50.2)),
                    "Eino" => new Visit("Eino R.", script.At(-1), script.At(47)),
                    "Anahit" => new Visit("Ana P", script.At(-2.5), script.At(50.5)),
                    "Saga" => new Visit("saga eriksdoter", script.At(-0.5), script.At(50.1)),
                    "Meenakshi" => new Visit("Meenu's phone", script.At(0.2), script.At(50.4)),
                    _ => new Visit(NameShown(s), script.At(-3 + (random.NextDouble() * 4)), script.At(Minutes + random.NextDouble())),
                });
            List<Visit> visits =
            [
                .. came.Values,
                new Visit("harbour-office-3", script.At(14), script.At(14.4)),
                new Visit("Mum (Barney)", script.At(-1), script.At(2)),
                new Visit("Odhran Pike", script.At(5), script.At(49)),
                new Visit("Guest 4417", script.At(3), script.At(41)),
            ];

            // Most have the page of the lesson open beside the meeting, from about when they come until they leave.
            foreach (var (visit, i) in there.Where(s => s.Given is not ("Eino" or "Birkir" or "Zainab")).Take(23).Select((s, i) => (Of: (Student: s, Visit: came[s]), i)))
            {
                script.Page((visit.Visit.Joined - script.From).TotalMinutes + (((i % 5) - 2) / 60.0), new PageOpened(visit.Student.Id));
                script.Page((visit.Visit.Left - script.From).TotalMinutes, new PageClosed(visit.Student.Id));
            }

            return new DemoLesson(lesson, script,
            [
                WaitingFiles.AttendanceList(number, visits, Duration.FromSeconds(40), zone),
                WaitingFiles.Chat(number, script, WaitingFiles.Told(saved, taps: 9, script, weather.Students, s => came[s].Name), zone),
                WaitingFiles.Captions(
                    number, script, [weather.Called("Juno"), weather.Called("Kensa"), weather.Called("Barney")], s => came[s].Name, weather.Students, Duration.FromMinutes(2)),
                new WaitingFile($"people-lesson-{number}.png", PeoplePicture.Of(
                    script.At(25).InZone(zone).ToString("HH:mm", CultureInfo.InvariantCulture),
                    [.. visits.Where(v => v.Joined < script.At(25) && v.Left > script.At(25)).Select(v => v.Name).Order(StringComparer.OrdinalIgnoreCase)])),
            ]);
        }

        DemoLesson LiveNow(int number, Instant start)
        {
            var lesson = LessonAt(number, start);
            var script = new Script(lesson);
            var so = (now - start).TotalMinutes;
            foreach (var (reminder, i) in Plans.WeatherRules.BeforeStart.Select((r, i) => (r, i)))
            {
                script.Remembered(-1 + (i * 0.3), reminder, Plans.WeatherRules.ReadAloud.GetValueOrDefault(reminder));
            }

            var (wojtek, ingvild, zainab) = (weather.Called("Wojtek"), weather.Called("Ingvild"), weather.Called("Zainab"));
            script.Start(0.2);
            script.Excuse(1, ingvild, "ferry cancelled");
            var there = weather.Students.Where(s => s != wojtek && s != ingvild && s != zainab).ToList();
            foreach (var student in there)
            {
                script.Here(0.5 + (random.NextDouble() * 2), student);
            }

            script.Late(7.2, zainab);
            string[] speakers = ["Cormac", "Dewi", "Liezel", "Rowan Bellweather", "Birkir", "Ify", "Cormac", "Diarmuid", "Nohea", "Sipho", "Kensa", "Juno", "Dewi", "Tram"];
            for (var i = 0; i < speakers.Length; i++)
            {
                var outcome = i % 5 == 3 ? TurnOutcome.Partial : TurnOutcome.Full;
                script.Turn(3.5 + (i * 1.8), weather.Called(speakers[i]), i % 3 == 1 ? TurnOrigin.Drawn : TurnOrigin.Hand, outcome, waited: 0.6);
            }

            var left = weather.Called("Tram");
            foreach (var student in there.Where(s => random.NextDouble() < 0.5 || s.Given == "Anahit"))
            {
                var kind = student.Given == "Anahit" ? ChatKind.Question : random.NextDouble() < 0.5 ? ChatKind.Answer : ChatKind.Idea;
                script.Chat(5 + (random.NextDouble() * 22), student, kind, ChatTexts.Of(kind, random));
            }

            script.Chat(19, weather.Called("Ana"), ChatKind.Question, "so does low pressure mean it always rains?");
            script.Chat(24, weather.Called("Ana"), ChatKind.Question, "why does the needle jump when you tap the glass?");
            foreach (var name in new[] { "Meenu", "Toby", "Ify", "Saga" })
            {
                script.Nod(10 + (random.NextDouble() * 14), weather.Called(name), Nods[random.Next(2)]);
            }

            script.Left(so - 3, left);
            script.HandUp(so - 2.7, weather.Called("Juno"));
            script.HandUp(so - 1.9, weather.Called("Meenu"));
            script.HandUp(so - 1.2, weather.Called("Sipho"));
            script.HandUp(so - 0.9, weather.Called("Kensa"));
            script.HandUp(so - 0.8, weather.Called("Ren"));
            script.HandLapsed(so - 0.4, weather.Called("Kensa"));
            script.HandUp(so - 0.2, weather.Called("Rowan Bellweather"));
            script.Call(so - 0.15, weather.Called("Meenu"), TurnOrigin.Hand);
            return new DemoLesson(lesson, script, []);
        }
    }

    private static string NameShown(Student student)
    {
        var called = student.Preferred ?? student.Given;
        return ShownAs.GetValueOrDefault(called) ?? ShownAs.GetValueOrDefault($"{student.Given} {student.Family}") ?? $"{called} {student.Family}";
    }

}
