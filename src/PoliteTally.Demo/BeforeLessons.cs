using System.Globalization;
using System.IO.Compression;
using System.Text;
using NodaTime;
using PoliteTally.Core.Calendar;
using PoliteTally.Core.GroundRules;
using PoliteTally.Core.Plans;
using PoliteTally.Store;
using PoliteTally.Store.Model;

namespace PoliteTally.Demo;

/// <summary>The term, the ground rules, the plans, the shelf, and the files that a new teacher would begin with.</summary>
internal static class BeforeLessons
{
    private const string WeatherLink = "https://meet.skerrysound.example/weather-and-tides";

    /// <summary>Sets the term, its classes and their lessons up; nothing is stored yet.</summary>
    public static (Term Term, Series Weekly) Calendar(DemoClass weather, DemoClass botany, DemoClass sky, IReadOnlyList<DemoLesson> lessons, LocalDate today)
    {
        var first = today.PlusWeeks(-8).With(DateAdjusters.PreviousOrSame(IsoDayOfWeek.Monday));
        var term = new Term
        {
            Id = Guid.CreateVersion7(),
            Name = "This term",
            FirstDay = first,
            LastDay = today.PlusWeeks(6).With(DateAdjusters.NextOrSame(IsoDayOfWeek.Friday)),
            DaysOff = OtherJson.Write(
            [
                new DaysOff("Sheep gathering", today.PlusWeeks(3).With(DateAdjusters.NextOrSame(IsoDayOfWeek.Thursday)), today.PlusWeeks(3).With(DateAdjusters.NextOrSame(IsoDayOfWeek.Friday))),
            ]),
        };
        foreach (var made in new[] { weather, botany, sky })
        {
            made.Class.TermId = term.Id;
        }

        weather.Class.Rules = RulesJson.Difference(ClassRules.Default, Plans.WeatherRules);
        botany.Class.Rules = RulesJson.Difference(ClassRules.Default, Plans.BotanyRules);
        var weekly = new Series
        {
            Id = Guid.CreateVersion7(),
            ClassId = weather.Class.Id,
            Title = "Weather and Tides",
            Days = "1,4",
            Time = new LocalTime(9, 30),
            Minutes = 50,
            FirstDay = first,
            LastDay = today.PlusWeeks(2),
            MeetingLink = WeatherLink,
        };
        foreach (var lesson in lessons.Select(l => l.Lesson).Where(l => l.ClassId == weather.Class.Id))
        {
            lesson.MeetingLink = WeatherLink;
            lesson.SeriesId = weekly.Id;
        }

        return (term, weekly);
    }

    /// <summary>The plans of lessons, the shelf and its pictures.</summary>
    public static void Prepare(DemoClass weather, DemoClass botany, IReadOnlyList<DemoLesson> lessons, SchoolDb db, string dataFolder, Instant now)
    {
        var folder = new PictureFolder(Path.Combine(dataFolder, "pictures"));
        var pictures = new Dictionary<string, Guid>
        {
            ["cumulus"] = Kept(CloudPictures.Cumulus()),
            ["cirrus"] = Kept(CloudPictures.Cirrus()),
            ["stratus"] = Kept(CloudPictures.Stratus()),
            ["storm"] = Kept(CloudPictures.Cumulonimbus()),
        };
        var students = new[] { "Cormac", "Dewi", "Tram", "Kensa" }.ToDictionary(name => name, name => weather.Called(name).Id);
        Plan(weather, 5, Plans.AWeeksObservations);
        Plan(weather, 10, Plans.BarometerQuiz);
        Plan(weather, 11, Plans.ReadingATideTable);
        Plan(weather, 13, Plans.TidesInTheSound);
        Plan(weather, 14, Plans.WhyTheWindBacks);
        Plan(weather, 15, Plans.FogAndHaar(students, pictures));
        Plan(weather, 16, Plans.WeatherDiary);
        Plan(botany, 7, Plans.ShortGrowingSeason);

        // The lesson that is going on began before anybody could have sent word of it.
        var live = lessons.Select(l => l.Lesson).Single(l => l.ClassId == weather.Class.Id && l.Number == 14);
        var rules = RulesJson.Of(weather.Class);
        live.Rules = RulesJson.Difference(rules, rules with { WordAhead = rules.WordAhead with { On = false } });
        db.Shelf.AddRange(Plans.Shelf.Select((question, i) => new ShelfQuestion
        {
            Id = Guid.CreateVersion7(),
            Question = PlanJson.Write(question),
            KeptAt = now - Duration.FromDays(20 - (i * 4)),
        }));

        Guid Kept(byte[] webP) => folder.Keep(webP, 640, 480, db, now).GetAwaiter().GetResult().Id;

        void Plan(DemoClass of, int number, Plan plan)
        {
            var lesson = lessons.Select(l => l.Lesson).Single(l => l.ClassId == of.Class.Id && l.Number == number);
            (lesson.Plan, lesson.Prepared, lesson.PlanVersion) = (new LessonPlan { LessonId = lesson.Id, Document = PlanJson.Write(plan) }, true, 1);
        }
    }

    /// <summary>What lies in <c>demo-files</c> for whoever wants to set the school up from nothing: rosters and a calendar.</summary>
    public static void Files(DemoClass weather, DemoClass botany, LocalDate today, string folder)
    {
        Directory.CreateDirectory(folder);
        foreach (var roster in new[] { "roster-weather-and-tides.csv", "roster-island-botany.csv" })
        {
            using var from = typeof(BeforeLessons).Assembly.GetManifestResourceStream(roster)!;
            using var to = File.Create(Path.Combine(folder, roster));
            from.CopyTo(to);
        }

        File.WriteAllBytes(Path.Combine(folder, "school-rosters.zip"), Bundle(weather, botany));
        File.WriteAllText(Path.Combine(folder, "school-calendar.ics"), CalendarText(today));
    }

    private static byte[] Bundle(params DemoClass[] classes)
    {
        using var bytes = new MemoryStream();
        using (var zip = new ZipArchive(bytes, ZipArchiveMode.Create, leaveOpen: true))
        {
            Write("manifest.csv", "propertyName,value\nmanifest.version,1.0\noneroster.version,1.1\nfile.users,bulk\nfile.classes,bulk\nfile.enrollments,bulk\n");
            Write("users.csv", "sourcedId,status,dateLastModified,enabledUser,role,givenName,familyName,identifier,email\n" + string.Concat(
                classes.SelectMany(c => c.Students).Select(s => $"u-{s.Number},,,true,student,{s.Given},{s.Family},{s.Number},{s.Email}\n")));
            Write("classes.csv", "sourcedId,status,dateLastModified,title,courseSourcedId,classCode,classType\n" + string.Concat(
                classes.Select((c, i) => $"c-{i + 1},,,\"{c.Class.Name}\",,,scheduled\n")));
            Write("enrollments.csv", "sourcedId,status,dateLastModified,classSourcedId,schoolSourcedId,userSourcedId,role\n" + string.Concat(
                classes.SelectMany((c, i) => c.Students.Select(s => $"e-{i + 1}-{s.Number},,,c-{i + 1},skerry,u-{s.Number},student\n"))));

            void Write(string name, string text)
            {
                using var part = zip.CreateEntry(name).Open();
                part.Write(Encoding.UTF8.GetBytes(text));
            }
        }

        return bytes.ToArray();
    }

    // As the calendar program of the school gives it: weekly rules, a day off, one lesson moved, one cancelled.
    private static string CalendarText(LocalDate today)
    {
        var monday = today.With(DateAdjusters.Next(IsoDayOfWeek.Monday));
        var tuesday = monday.PlusDays(1);
        var end = Stamp(monday.PlusWeeks(6), "235900") + "Z";
        return string.Join("\r\n",
        [
            "BEGIN:VCALENDAR", "VERSION:2.0", "PRODID:-//Skerry Sound//School calendar//EN",
            "BEGIN:VEVENT", "UID:weather@skerrysound.example", "SUMMARY:Weather and Tides", $"DTSTART;TZID=Atlantic/Faroe:{Stamp(monday, "093000")}", "DURATION:PT50M",
            $"RRULE:FREQ=WEEKLY;BYDAY=MO,TH;UNTIL={end}", $"EXDATE;TZID=Atlantic/Faroe:{Stamp(monday.PlusDays(24), "093000")}", $"URL:{WeatherLink}", "END:VEVENT",
            "BEGIN:VEVENT", "UID:weather@skerrysound.example", "SUMMARY:Weather and Tides", $"RECURRENCE-ID;TZID=Atlantic/Faroe:{Stamp(monday.PlusDays(7), "093000")}",
            $"DTSTART;TZID=Atlantic/Faroe:{Stamp(monday.PlusDays(8), "103000")}", "DURATION:PT50M", "END:VEVENT",
            "BEGIN:VEVENT", "UID:botany@skerrysound.example", "SUMMARY:Island Botany", $"DTSTART;TZID=Atlantic/Faroe:{Stamp(tuesday, "130000")}", "DURATION:PT1H", "RRULE:FREQ=WEEKLY;COUNT=6", "END:VEVENT",
            "BEGIN:VEVENT", "UID:staff@skerrysound.example", "SUMMARY:Staff meeting", $"DTSTART;TZID=Atlantic/Faroe:{Stamp(monday, "153000")}", "DURATION:PT1H", "RRULE:FREQ=WEEKLY", "END:VEVENT",
            "END:VCALENDAR", "",
        ]);

        static string Stamp(LocalDate day, string time) => $"{day.ToString("uuuuMMdd", CultureInfo.InvariantCulture)}T{time}";
    }

    private static string Iso(LocalDate day) => day.ToString("uuuu-MM-dd", CultureInfo.InvariantCulture);
}
