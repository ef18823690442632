using System.Text;
using NodaTime;
using PoliteTally.Core.Merging;

namespace PoliteTally.Formats.Tests;

/// <summary>Answers are read whatever their table looks like: every form here says the same of two questions and three people.</summary>
public sealed class AnswersFileTests
{
    private static readonly Instant From = Instant.FromUtc(2026, 11, 2, 9, 30);
    private static readonly Instant To = From + Duration.FromMinutes(50);
    private static readonly DateTimeZone Faroe = DateTimeZoneProviders.Tzdb["Atlantic/Faroe"];
    private static readonly string[] Class = ["Ana P", "Eino R.", "Saga Eriksdotter"];

    private static AnswersPreview Read(string text, IReadOnlyDictionary<string, int>? mapping = null) =>
        AnswersFile.Read(Encoding.UTF8.GetBytes(text), mapping, Faroe, From, To, Class.Contains);

    private static IReadOnlyList<FileKind> CouldBe(string text) => FileRecognition.CouldBe(Encoding.UTF8.GetBytes(text), Faroe, From, To, Class.Contains);

    /// <summary>Which way does the needle go: down, down, up; what is normal pressure: 1013, 1000, and Saga says nothing.</summary>
    public static readonly TheoryData<string, string> Layouts = new()
    {
        { "a row a person", "Timestamp,Your name,Which way does the needle go?,What is normal pressure?\n2026-11-02 10:12:05,Ana P,down,1013\n2026-11-02 10:12:40,Eino R.,down,1000\n2026-11-02 10:13:00,Saga Eriksdotter,up,\n" },
        { "tabs, and days first", "Submitted at\tName\tWhich way does the needle go?\tWhat is normal pressure?\n02/11/2026 10:12\tAna P\tdown\t1013\n02/11/2026 10:12\tEino R.\tdown\t1000\n02/11/2026 10:13\tSaga Eriksdotter\tup\t\n" },
        { "given and family name, with the points beside", "First name,Last name,Which way does the needle go?,Points - Which way does the needle go?,What is normal pressure?,Points - What is normal pressure?\nAna,P,down,1 / 1,1013,1 / 1\nEino,R.,down,1 / 1,1000,0 / 1\nSaga,Eriksdotter,up,0 / 1,,0 / 1\n" },
        { "points after each", "Name;Total points;Which way does the needle go?;Score;What is normal pressure?;Score\nAna P;4;down;2,00;1013;2,00\nEino R.;2;down;2,00;1000;0,00\nSaga Eriksdotter;0;up;0,00;-;-\n" },
        { "a row an answer", "Student,Question,Response,Points\nAna P,Which way does the needle go?,down,1\nAna P,What is normal pressure?,1013,1\nEino R.,Which way does the needle go?,down,1\nEino R.,What is normal pressure?,1000,0\nSaga Eriksdotter,Which way does the needle go?,up,0\nSaga Eriksdotter,What is normal pressure?,,0\n" },
        { "JSON, a row an answer", """[{"who":"Ana P","question":"Which way does the needle go?","answer":"down"},{"who":"Ana P","question":"What is normal pressure?","answer":1013},{"who":"Eino R.","question":"Which way does the needle go?","answer":"down"},{"who":"Eino R.","question":"What is normal pressure?","answer":1000},{"who":"Saga Eriksdotter","question":"Which way does the needle go?","answer":"up"}]""" },
        { "a name column that is called something else", "Zeitstempel,Crew,Which way does the needle go?,What is normal pressure?\n02.11.2026 10:12:05,Ana P,down,1013\n02.11.2026 10:12:40,Eino R.,down,1000\n02.11.2026 10:13:00,Saga Eriksdotter,up,\n" },
        { "two tries", "Completion time,Name,Which way does the needle go?,What is normal pressure?\n2026-11-02 10:14:00,Ana P,down,1013\n2026-11-02 10:11:00,Ana P,up,7\n2026-11-02 10:12:40,Eino R.,down,1000\n2026-11-02 10:13:00,Saga Eriksdotter,up,\n" },
        { "people across", "Question,Ana P,Eino R.,Saga Eriksdotter\nWhich way does the needle go?,down,down,up\nWhat is normal pressure?,1013,1000,\n" },
        { "a part for each question", "Which way does the needle go?\nName;Chosen\nAna P;down\nEino R.;down\nSaga Eriksdotter;up\n\nWhat is normal pressure?\nName;Chosen\nAna P;1013\nEino R.;1000\n" },
        { "a row an answer, in words of another language", "Kuka\tKysymys\tVastaus\nAna P\tWhich way does the needle go?\tdown\nAna P\tWhat is normal pressure?\t1013\nEino R.\tWhich way does the needle go?\tdown\nEino R.\tWhat is normal pressure?\t1000\nSaga Eriksdotter\tWhich way does the needle go?\tup\n" },
        { "JSON with the answers inside", """{"quiz":{"results":[{"user":{"name":"Ana P"},"answers":[{"item":{"text":"Which way does the needle go?"},"value":"down","correct":true},{"item":{"text":"What is normal pressure?"},"value":1013,"correct":true}]},{"user":{"name":"Eino R."},"answers":[{"item":{"text":"Which way does the needle go?"},"value":"down","correct":true},{"item":{"text":"What is normal pressure?"},"value":1000,"correct":false}]},{"user":{"name":"Saga Eriksdotter"},"answers":[{"item":{"text":"Which way does the needle go?"},"value":"up","correct":false}]}]}}""" },
        { "what a program notes beside", "Id,Start time,Completion time,Email,Name,Total points,Quiz feedback,Which way does the needle go?,What is normal pressure?\n1,2026-11-02 10:11:05,2026-11-02 10:12:05,ana@skerrysound.example,Ana P,2,,down,1013\n2,2026-11-02 10:11:05,2026-11-02 10:12:40,eino@skerrysound.example,Eino R.,1,,down,1000\n3,2026-11-02 10:11:05,2026-11-02 10:13:00,saga@skerrysound.example,Saga Eriksdotter,0,,up,\n" },
    };

    [Theory]
    [MemberData(nameof(Layouts))]
    public void Layout(string what, string text)
    {
        var read = Read(text);
        read.Problems.ShouldBeEmpty(what);
        read.People.ShouldAllBe(p => p.Problems.Count == 0, what);
        read.Anonymous.ShouldBeFalse(what);
        read.Questions.Select(q => q.Text).ShouldBe(["Which way does the needle go?", "What is normal pressure?"], what);
        read.Questions[0].Answers.Select(a => (a.Row.Name, a.Written.Text)).ShouldBe([("Ana P", "down"), ("Eino R.", "down"), ("Saga Eriksdotter", "up")], ignoreOrder: true, what);
        read.Questions[1].Answers.Select(a => (a.Row.Name, a.Written.Text)).ShouldBe([("Ana P", "1013"), ("Eino R.", "1000")], ignoreOrder: true, what);
        if (read.Questions[0].Answers.Any(a => a.Written.Share is not null))
        {
            read.Questions[0].Answers.OrderBy(a => a.Row.Name).Select(a => a.Written.Share).ShouldBe([1, 1, 0], what);
        }

        CouldBe(text).ShouldBe([FileKind.Answers], what);
    }

    [Fact]
    public void Responses_numbered_with_what_was_right_beside()
    {
        var read = Read("Surname,First name,Started on,Grade/2.00,Response 1,Right answer 1,Response 2,Right answer 2\nP,Ana,2026-11-02 10:10,2.00,down,down,1013,1013\nR.,Eino,2026-11-02 10:10,1.00,down,down,1000,1013\n");
        read.Questions.Select(q => (q.Text, Right: string.Join(",", q.Right))).ShouldBe([("Response 1", "down"), ("Response 2", "1013")]);
        read.Questions[0].Answers.Select(a => a.Row.Name).ShouldBe(["Ana P", "Eino R."]);
    }

    [Fact]
    public void Only_points_are_marks_of_so_many()
    {
        var read = Read("First name,Surname,Grade/10.00,Q. 1 /2.50,Q. 2 /7.50\nAna,P,10.00,2.50,7.50\nEino,R.,2.50,1.25,-\n");
        read.Questions.ShouldAllBe(q => q.OnlyPoints);
        read.Questions[0].Answers.Select(a => a.Written.Share).ShouldBe([1m, 0.5m]);
        read.Questions[1].Answers.Select(a => a.Written.Share).ShouldBe([1m]);
    }

    [Fact]
    public void Without_names_nobody_is_known()
    {
        var read = Read("Timestamp,How was the week?,What was hard?\n2026-11-02 10:12:05,4,the tides\n2026-11-02 10:12:40,5,nothing\n");
        read.Anonymous.ShouldBeTrue();
        read.Questions.ShouldAllBe(q => q.Answers.All(a => a.Row.Name.Length == 0));
    }

    /// <summary>What is wrong is said of the row that it is wrong in.</summary>
    [Theory]
    [InlineData("2026-11-02 10:12:05,,down", "has no name.")]
    [InlineData("2026-11-02 23:12:05,Ana P,down", "was answered at 2026-11-02 23:12, which is not in this lesson.")]
    [InlineData("soon,Ana P,down", "has the time “soon”, which cannot be read. Write it as 2026-11-23 09:31:00.")]
    public void A_row_that_cannot_be_taken(string row, string problem) =>
        Read($"Timestamp,Your name,Which way does the needle go?\n2026-11-02 10:12:05,Eino R.,down\n2026-11-02 10:12:06,Eino R.,down\n2026-11-02 10:12:07,Eino R.,down\n2026-11-02 10:12:08,Eino R.,down\n{row}\n").People[^1].Problems.ShouldBe([problem]);

    /// <summary>Rows are never stored as tries of one question without a word.</summary>
    [Fact]
    public void Rows_that_would_count_for_nothing_are_asked_about() =>
        Read("Name,A,B\nAna P,x,1\nAna P,x,2\nAna P,y,3\nEino R.,x,4\nEino R.,y,5\nEino R.,y,6\n").Unclear.ShouldHaveSingleItem().ShouldContain("4 rows of 6");

    [Fact]
    public void Two_columns_that_could_be_the_answers_are_asked_about()
    {
        const string Rows = "Ana P,Which way?,down,sure\nAna P,How much?,1013,a guess\nEino R.,Which way?,up,no idea\nEino R.,How much?,1000,easy\n";
        Read($"Name,Question,Said,Felt\n{Rows}").Unclear.ShouldHaveSingleItem().ShouldContain("could be the answers, too");
        Read($"Name,Question,Answer,Felt\n{Rows}").Unclear.ShouldBeEmpty();
    }

    [Fact]
    public void Answers_of_another_day_are_of_another_lesson() =>
        Read("Timestamp,Your name,Which way does the needle go?\n2026-10-05 10:12:05,Eino R.,down\n").Problems.Single().ShouldContain("another lesson");

    [Theory]
    [InlineData("Name,Joined,Left\nAna P,2026-11-02 09:28:00,2026-11-02 10:20:00\nEino R.,2026-11-02 09:31:00,2026-11-02 10:20:00\n", FileKind.Attendance)]
    [InlineData("Name,Minutes\nAna P,47\nEino R.,12\n", FileKind.Attendance)]
    [InlineData("Time,From,To,Message\n09:41:22,Ana P,Everyone,why does the wind back here?\n09:41:40,Eino R.,Everyone,because a low passes north of us\n", FileKind.Chat)]
    public void What_is_no_answer(string text, FileKind kind) => CouldBe(text).ShouldBe([kind]);

    [Fact]
    public void An_apostrophe_against_formulas_is_no_part_of_the_answer() =>
        Read("Your name,How cold was it?\nAna P,'-4\n").Questions[0].Answers[0].Written.Text.ShouldBe("-4");

    [Fact]
    public void What_could_be_two_things_is_asked()
    {
        CouldBe("Name;A;Minutes\nAna P;x;40\nEino R.;y;47\n").ShouldBe([FileKind.Answers, FileKind.Attendance]);
        // Where nothing is a time or a length, nobody came or went.
        CouldBe("Name;A;B\nAna P;x;y\nEino R.;x;y\n").ShouldBe([FileKind.Answers]);
    }

    [Fact]
    public void Columns_can_be_put_right()
    {
        var read = Read("a,b,c\nAna P,down,1013\nEino R.,down,1000\n", new Dictionary<string, int> { ["name"] = 0 });
        read.Questions.Select(q => q.Text).ShouldBe(["b", "c"]);
    }
}
