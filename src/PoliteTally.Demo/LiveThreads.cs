using PoliteTally.Core.Chat;
using PoliteTally.Core.Course;
using PoliteTally.Core.Groups;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Meeting;
using PoliteTally.Core.Notes;
using PoliteTally.Core.Signals;
using PoliteTally.Store;

namespace PoliteTally.Demo;

/// <summary>What the lessons of Weather and Tides hold beside turns and taps: stages, groups, the meeting, a helper, and who had to be reached.</summary>
internal static class LiveThreads
{
    private const string Helper = "Odhran Pike (helper)";

    public static void Tell(DemoClass weather, IReadOnlyList<DemoLesson> lessons)
    {
        DemoLesson Lesson(int number) => lessons.Single(l => l.Lesson.ClassId == weather.Class.Id && l.Lesson.Number == number);
        Reach(Lesson(8).Script, Lesson(9).Script, weather);
        Sweep(Lesson(9).Script, weather);
        InGroups(Lesson(11), weather);
        Now(Lesson(14), weather);
    }

    /// <summary>Wojtek fades: a message without an answer, then somebody picks up.</summary>
    private static void Reach(Script first, Script then, DemoClass weather)
    {
        var wojtek = weather.Called("Wojtek").Id;
        first.Tap(6.5, new ContactTried(wojtek, ContactChannel.Email, ContactOutcome.Sent, ""));
        then.Tap(5.2, new ContactTried(wojtek, ContactChannel.Phone, ContactOutcome.NoAnswer, ""));
        then.Tap(14, new ContactTried(wojtek, ContactChannel.Phone, ContactOutcome.Reached, "his aunt: the router, he comes on Thursday"));
    }

    /// <summary>Odhran sweeps the chat in lesson 9, and hides what should not stay visible.</summary>
    private static void Sweep(Script script, DemoClass weather)
    {
        var number = script.Chat(21, weather.Called("Barney"), Core.Chat.ChatKind.Unsorted, "my new number is 55 01 47 if anyone wants to play later");
        script.By(23, Helper, new ChatSorted(number, Core.Chat.ChatKind.OffTask));
        script.By(23.05, Helper, new ChatHidden(number));
    }

    /// <summary>Groups of four over the tide table; three of them were sat in on.</summary>
    private static void InGroups(DemoLesson lesson, DemoClass weather)
    {
        var (script, students) = (lesson.Script, weather.Students.Where(s => s.Given is not ("Tiago" or "Wojtek")).Select(s => s.Id).ToList());
        var made = GroupMaking.Make(new GroupWish(students, 7, [], [], [], Seed: 11)).Groups
            .Select((members, i) => new StudentGroup(Guid.CreateVersion7(), $"Group {i + 1}", members)).ToList();
        script.Tap(10.2, new GroupsMade(made));
        foreach (var (group, minute) in new[] { (made[0], 14.0), (made[2], 20.0), (made[4], 27.0) })
        {
            foreach (var (member, i) in group.Members.Select((m, i) => (m, i)))
            {
                script.Tap(minute + (i * 0.4), new SatIn(member, group.Id, (Contribution)(i == 3 ? 2 : i == 2 ? 1 : 0)));
            }
        }

        script.Tap(38, new GroupsDissolved());
    }

    /// <summary>The lesson that is going on: stages, a signal round, points covered, and a chat that waits to be swept.</summary>
    private static void Now(DemoLesson lesson, DemoClass weather)
    {
        var script = lesson.Script;
        var plan = PlanJson.Of(lesson.Lesson);
        script.Tap(8.6, new StageMoved(plan.Stages[1].Id));
        script.Tap(24.9, new StageMoved(plan.Stages[2].Id));
        script.Tap(26, new PointCovered(weather.Called("Dewi").Id, plan.Points[0].Id));
        script.Tap(26.2, new PointCovered(weather.Called("Dewi").Id, plan.Points[1].Id));
        var here = weather.Students.Where(s => s.Given is not ("Wojtek" or "Ingvild")).Select(s => s.Id).ToList();
        var silent = new[] { weather.Called("Eino").Id, weather.Called("Barney").Id };
        script.Tap(15, new SignalRoundHeld(plan.Statements[0].Text, [.. here.Except(silent)], silent));
        script.Tap(18, new AsideNoted(weather.Called("Eino").Id, "line bad again, ask about the router at Lantern Rock"));

        (double Minute, string Shown, string? Whose, string Text)[] written =
        [
            (20.4, "Meenu 🌊", "Meenu", "so it veered after the front on Tuesday?"), (21.6, "Nohea Kalaniopuu", "Nohea", "we could put a stick in the sand and mark the tide every hour"),
            (22.3, "Cagla Yildiz", "Çağla", "anticlockwise"), (23.5, "Kensa Tremayne", "Kensa", "at ours it went from west to south in the night"),
            (24.2, "Barney Whitlock", "Barney", "lol"), (25.8, "galaxy tab 7", null, "hi, it is me, my laptop died"),
        ];
        foreach (var (minute, shown, whose, text) in written)
        {
            script.Meeting(minute, new NameWrote(shown, text, Private: false));
            if (whose is not null)
            {
                script.Meeting(minute, new NameMatched(shown, weather.Called(whose).Id));
            }
        }
    }
}
