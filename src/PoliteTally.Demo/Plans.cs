using NodaTime;
using PoliteTally.Core.Board;
using PoliteTally.Core.GroundRules;
using PoliteTally.Core.Plans;
using PoliteTally.Core.Questions;

namespace PoliteTally.Demo;

/// <summary>What Tamsin Vale has prepared: plans, questions and the ground rules of her classes.</summary>
internal static class Plans
{
    public static ClassRules WeatherRules => ClassRules.Default with
    {
        StudentsHandOn = true,
        PageShowsScores = true,
        NodsOnBoard = NodsOnBoard.WhenShown,
        ReadAloud = new Dictionary<string, string>
        {
            ["Read the recording notice"] = "This lesson is recorded: the sound, the shared screen, and whoever has the camera on. Only this class can watch the recording, and on the last day of the term the recording is deleted. If you would rather not be in the recording, turn your camera off now and write in the chat.",
        },
        Signals =
        [
            new("yes", "a thumb held up to the camera"),
            new("no", "a flat hand across the camera"),
            new("not sure", "a hand on the head, like a hat in the wind"),
        ],
        Rubric = """
            **Taking part** in Weather and Tides looks like this:

            - You say what you *saw* before you say what you think.
            - You build on what somebody else said, and say whose it was.
            - You ask when a word is new. Somebody else is glad you did.
            - A question in the chat counts as much as one aloud.
            """,
        WordAhead = new WordAhead { On = true },
    };

    public static ClassRules BotanyRules => ClassRules.Default with
    {
        NodReasons = ["helped someone", "careful drawing", "good question", "on time"],
        Rubric = "Look twice, draw once. Say what you are **not** sure of.",
    };

    /// <summary>The lesson that is ready, with a question of every kind.</summary>
    public static Plan FogAndHaar(IReadOnlyDictionary<string, Guid> students, IReadOnlyDictionary<string, Guid> pictures) => new()
    {
        Stages =
        [
            Stage("Arriving", 5, "Write in the chat: **how far can you see** from your window today?\n\n- the pier\n- the next island\n- no further than the garden"),
            Stage("What fog is", 12, "Listen for three words: *dew point*, *haar*, *advection*.\n\nWrite down what you think each one means **before** we say it."),
            Stage("Readings", 15, "1. Read the wet and the dry thermometer twice, a minute apart.\n2. Say both readings when it is your turn.\n3. The others: how far apart are they?"),
            Stage("In groups: will there be haar?", 12, "Each group has one island. Decide **together**, and be ready to say why.\n\nUse the tide table and the wind of this morning."),
            Stage("Looking back", 6, "One thing you saw, one thing you wonder."),
        ],
        Points = [Point("What you saw, with the number"), Point("What it means for the ferry"), Point("How sure you are")],
        Statements = [Point("Fog is a cloud that lies on the ground."), Point("Haar comes with a wind from the land."), Point("I could explain the dew point to my family.")],
        Apart = [new StudentSet(Guid.CreateVersion7(), [students["Cormac"], students["Dewi"]])],
        Together = [new StudentSet(Guid.CreateVersion7(), [students["Tram"], students["Kensa"]])],
        Questions =
        [
            new()
            {
                Id = Guid.CreateVersion7(),
                Kind = QuestionKind.SingleChoice,
                Text = "Who read the thermometer closest to the true {dew point}?",
                Options = [Option("{the first reading}"), Option("{the second reading}"), Option("they agree")],
            },
            new()
            {
                Id = Guid.CreateVersion7(),
                Kind = QuestionKind.MultipleChoice,
                Purpose = QuestionPurpose.Quiz,
                Text = "What does haar need?",
                Options = [Option("warm, damp air", true), Option("a cold sea", true), Option("a light wind from the sea", true), Option("thunder")],
            },
            Quiz(QuestionKind.TrueFalse, "Fog is a cloud.", Option("true", true), Option("false")),
            new()
            {
                Id = Guid.CreateVersion7(),
                Kind = QuestionKind.Scale,
                Text = "How sure are you that there will be haar tomorrow?",
                ScaleFromLabel = "not at all",
                ScaleToLabel = "I would keep the ferry in",
            },
            new()
            {
                Id = Guid.CreateVersion7(),
                Kind = QuestionKind.Number,
                Purpose = QuestionPurpose.Quiz,
                Text = "Dry 9.5 °C, wet 8.0 °C: how many degrees apart?",
                Target = 1.5m,
                Tolerance = 0.1m,
                TimeLimit = Duration.FromSeconds(60),
            },
            new()
            {
                Id = Guid.CreateVersion7(),
                Kind = QuestionKind.ShortText,
                Purpose = QuestionPurpose.Quiz,
                Text = "What do we call sea fog on this coast?",
                AcceptedAnswers = ["haar", "a haar", "sea haar"],
            },
            Quiz(QuestionKind.Ranking, "Put these in order, the furthest you can see first.", Option("mist"), Option("fog"), Option("thick fog")),
            new()
            {
                Id = Guid.CreateVersion7(),
                Kind = QuestionKind.WordList,
                Text = "Words for weather that you cannot see through",
                WordsEach = 3,
            },
            new()
            {
                Id = Guid.CreateVersion7(),
                Kind = QuestionKind.PictureChoice,
                Purpose = QuestionPurpose.Quiz,
                Text = "Which of these could lie on the water as fog?",
                Options =
                [
                    new(Guid.CreateVersion7(), "A", false, pictures["cumulus"], "Round white heaps of cloud in a blue sky"),
                    new(Guid.CreateVersion7(), "B", true, pictures["stratus"], "A low grey layer without any shape, over the whole sky"),
                    new(Guid.CreateVersion7(), "C", false, pictures["cirrus"], "Thin white hairs of cloud, very high"),
                    new(Guid.CreateVersion7(), "D", false, pictures["storm"], "A dark tower of cloud with a flat top and rain under it"),
                ],
            },
        ],
    };

    /// <summary>Begun on Sunday evening, and not ready.</summary>
    public static Plan WeatherDiary => new()
    {
        Stages = [Stage("Reading from the diaries", 20, "Two readers, two minutes each. The others note **one question**."), Stage("What the diaries agree on", 25, ""), Stage("", 10, "")],
        Points = [Point("The day you remember best"), Point("What surprised you")],
        Questions = [Quiz(QuestionKind.SingleChoice, "On which day did the barometer fall fastest?", Option("Tuesday"), Option("Wednesday"), Option("Friday"))],
    };

    public static Plan WhyTheWindBacks => new()
    {
        Stages =
        [
            Stage("Hands and readings", 8, "Barometer reading and wind direction, one after the other."),
            Stage("Why the wind backs", 15, "Draw the wind as an arrow **before** and **after** the front."),
            Stage("From the line", 17, "Your island, your wind: what did it do last night?"),
            Stage("Looking back", 10, "Backs or veers? Say it with your arm."),
        ],
        Points = [Point("Where the wind came from"), Point("Where it comes from now")],
        Statements = [Point("A backing wind turns against the clock.")],
        Questions =
        [
            Quiz(QuestionKind.SingleChoice, "The wind goes from west to south-west. What does it do?", Option("it backs", true), Option("it veers"), Option("it drops")),
            new() { Id = Guid.CreateVersion7(), Kind = QuestionKind.SingleChoice, Text = "Where did it blow hardest last night: {island} or {other island}?", Options = [Option("{island}"), Option("{other island}"), Option("about the same")] },
            new() { Id = Guid.CreateVersion7(), Kind = QuestionKind.WordList, Text = "Words for wind in your family", WordsEach = 3 },
            new() { Id = Guid.CreateVersion7(), Kind = QuestionKind.Scale, Text = "How sure are you which way is backing?", Anonymous = true, CountsTakingPart = true, ScaleFromLabel = "I mix them up", ScaleToLabel = "I could teach it" },
        ],
    };

    /// <summary>The quiz of lesson 10.</summary>
    public static Plan BarometerQuiz => new()
    {
        Stages = [Stage("Looking over the notes", 10, "Ten minutes with your own notes, microphones off."), Stage("Six questions", 25, "One after the other. Nobody is in a hurry."), Stage("Talking it over", 15, "")],
        Questions =
        [
            Quiz(QuestionKind.TrueFalse, "Air has weight.", Option("true", true), Option("false")),
            Quiz(QuestionKind.SingleChoice, "The needle falls quickly. What comes?", Option("wind and rain", true), Option("a calm day"), Option("frost")),
            new() { Id = Guid.CreateVersion7(), Kind = QuestionKind.Number, Purpose = QuestionPurpose.Quiz, Text = "What is normal pressure at sea level, in hPa?", Target = 1013, Tolerance = 2, TimeLimit = Duration.FromSeconds(60) },
            Quiz(QuestionKind.MultipleChoice, "Which of these can a barometer not tell?", Option("temperature", true), Option("wind direction", true), Option("whether pressure falls")),
            new() { Id = Guid.CreateVersion7(), Kind = QuestionKind.ShortText, Purpose = QuestionPurpose.Quiz, Text = "Lines of equal pressure are called…", AcceptedAnswers = ["isobars", "isobar"] },
            Quiz(QuestionKind.Ranking, "From lowest to highest pressure", Option("a deep low"), Option("a shallow low"), Option("a ridge"), Option("a high")),
        ],
    };

    /// <summary>Lesson 13, which ends with three questions in the school's form.</summary>
    public static Plan TidesInTheSound => new()
    {
        Stages = [Stage("Hands and readings", 8, "Water mark and time, one after the other."), Stage("Through the sound", 32, "Why does the stream turn before the water does?"), Stage("Looking back", 10, "The first question here, then all three in the school's form.")],
        Points = [Point("When the stream turns"), Point("What the moon has to do with it")],
        Questions =
        [
            Quiz(QuestionKind.SingleChoice, "How long is it from one high water to the next?", Option("about six hours"), Option("about twelve and a half hours", true), Option("about a day")),
            Quiz(QuestionKind.TrueFalse, "At neap tides the water rises highest.", Option("true"), Option("false", true)),
            new() { Id = Guid.CreateVersion7(), Kind = QuestionKind.Number, Purpose = QuestionPurpose.Quiz, Text = "How many tides does the sound have in a week?", Target = 14, Tolerance = 1 },
        ],
    };

    /// <summary>Lesson 5: how the week was, without names.</summary>
    public static Plan AWeeksObservations => new()
    {
        Stages = [Stage("How was your week?", 5, "Nobody sees who answered."), Stage("What you observed", 30, "Three numbers and one thing that has no number."), Stage("One table for all islands", 15, "")],
        Questions =
        [
            new() { Id = Guid.CreateVersion7(), Kind = QuestionKind.Scale, Text = "How was your week?", Anonymous = true, CountsTakingPart = true, ScaleFromLabel = "heavy weather", ScaleToLabel = "fair winds" },
        ],
    };

    /// <summary>Lesson 11: group work.</summary>
    public static Plan ReadingATideTable => new()
    {
        Stages = [Stage("Together", 10, "Find high water at your harbour for Saturday."), Stage("In groups", 28, "When can you walk to Lantern Rock and be back?"), Stage("One of each group", 12, "Say the time, and how you found it.")],
        Points = [Point("Which tide"), Point("How much time is left over")],
    };

    public static Plan ShortGrowingSeason => new()
    {
        Stages = [Stage("What still grows", 15, "Bring one leaf, or a picture of one."), Stage("Counting the days", 30, "From the last frost to the first: count on the calendar of your island."), Stage("Drawing", 15, "")],
        Points = [Point("Where it grew"), Point("What it needs")],
    };

    /// <summary>Questions that come in useful in any lesson.</summary>
    public static IEnumerable<Question> Shelf =>
    [
        new() { Id = Guid.CreateVersion7(), Kind = QuestionKind.Scale, Text = "How was your week?", Anonymous = true, CountsTakingPart = true, ScaleFromLabel = "heavy weather", ScaleToLabel = "fair winds" },
        new() { Id = Guid.CreateVersion7(), Kind = QuestionKind.SingleChoice, Text = "Which reading do you trust more?", Options = [Option("{the first reading}"), Option("{the second reading}"), Option("neither")] },
        new() { Id = Guid.CreateVersion7(), Kind = QuestionKind.WordList, Text = "Words for the sea today", WordsEach = 3 },
        Quiz(QuestionKind.TrueFalse, "Spring tides come at new moon and at full moon.", Option("true", true), Option("false")),
    ];

    private static PlannedStage Stage(string name, int minutes, string directions) => new(Guid.CreateVersion7(), name, Duration.FromMinutes(minutes), directions);

    private static PointToCover Point(string text) => new(Guid.CreateVersion7(), text);

    // Ids at random: those of options must not give away an order.
    private static QuestionOption Option(string text, bool right = false) => new(Guid.NewGuid(), text, right);

    private static Question Quiz(QuestionKind kind, string text, params QuestionOption[] options) =>
        new() { Id = Guid.CreateVersion7(), Kind = kind, Purpose = QuestionPurpose.Quiz, Text = text, Options = options };
}
