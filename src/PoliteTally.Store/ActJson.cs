using System.Text.Json;
using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;
using NodaTime;
using NodaTime.Text;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Board;
using PoliteTally.Core.Chat;
using PoliteTally.Core.Course;
using PoliteTally.Core.Groups;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Meeting;
using PoliteTally.Core.Merging;
using PoliteTally.Core.Notes;
using PoliteTally.Core.Page;
using PoliteTally.Core.Plans;
using PoliteTally.Core.Questions;
using PoliteTally.Core.Scoring;
using PoliteTally.Core.Signals;

namespace PoliteTally.Store;

/// <summary>How acts are written as JSON, in the file and between browser and server. The kinds stand here once.</summary>
public static class ActJson
{
    /// <summary>Every kind of act and its name in JSON. A name, once given, stays: it is in people's files.</summary>
    public static readonly IReadOnlyDictionary<string, Type> Kinds = new Dictionary<string, Type>
    {
        ["lessonStarted"] = typeof(LessonStarted),
        ["lessonEnded"] = typeof(LessonEnded),
        ["lessonSettled"] = typeof(LessonSettled),
        ["struck"] = typeof(Struck),
        ["criterionMarked"] = typeof(CriterionMarked),
        ["scoreCorrected"] = typeof(ScoreCorrected),
        ["scoredAnew"] = typeof(ScoredAnew),
        ["marked"] = typeof(Marked),
        ["statusDeclared"] = typeof(StatusDeclared),
        ["awayJudged"] = typeof(AwayJudged),
        ["connectionJudged"] = typeof(ConnectionJudged),
        ["sentOut"] = typeof(SentOut),
        ["letBackIn"] = typeof(LetBackIn),
        ["excuseRecorded"] = typeof(ExcuseRecorded),
        ["handRaised"] = typeof(HandRaised),
        ["handEnded"] = typeof(HandEnded),
        ["called"] = typeof(Called),
        ["turnTaken"] = typeof(TurnTaken),
        ["chatSaid"] = typeof(ChatSaid),
        ["nodGiven"] = typeof(NodGiven),
        ["nodsShown"] = typeof(NodsShown),
        ["reminderTicked"] = typeof(ReminderTicked),
        ["joined"] = typeof(Joined),
        ["left"] = typeof(Left),
        ["seen"] = typeof(Seen),
        ["attended"] = typeof(Attended),
        ["nameMatched"] = typeof(NameMatched),
        ["askedLater"] = typeof(AskedLater),
        ["renamed"] = typeof(Renamed),
        ["nameRaisedHand"] = typeof(NameRaisedHand),
        ["nameLoweredHand"] = typeof(NameLoweredHand),
        ["nameWrote"] = typeof(NameWrote),
        ["nameReacted"] = typeof(NameReacted),
        ["nameOnline"] = typeof(NameOnline),
        ["rollCallTaken"] = typeof(RollCallTaken),
        ["pointCovered"] = typeof(PointCovered),
        ["speakingPaused"] = typeof(SpeakingPaused),
        ["signalRoundHeld"] = typeof(SignalRoundHeld),
        ["chatSorted"] = typeof(ChatSorted),
        ["chatHidden"] = typeof(ChatHidden),
        ["chatDealtWith"] = typeof(ChatDealtWith),
        ["asideNoted"] = typeof(AsideNoted),
        ["contactTried"] = typeof(ContactTried),
        ["stageMoved"] = typeof(StageMoved),
        ["stageExtended"] = typeof(StageExtended),
        ["timerStarted"] = typeof(TimerStarted),
        ["timerStopped"] = typeof(TimerStopped),
        ["groupsMade"] = typeof(GroupsMade),
        ["groupJoined"] = typeof(GroupJoined),
        ["groupRenamed"] = typeof(GroupRenamed),
        ["groupsDissolved"] = typeof(GroupsDissolved),
        ["satIn"] = typeof(SatIn),
        ["questionOpened"] = typeof(QuestionOpened),
        ["questionClosed"] = typeof(QuestionClosed),
        ["answerGiven"] = typeof(AnswerGiven),
        ["cannotAnswer"] = typeof(CannotAnswer),
        ["ballotsCounted"] = typeof(BallotsCounted),
        ["answersMarked"] = typeof(AnswersMarked),
        ["keyCorrected"] = typeof(KeyCorrected),
        ["wordsMerged"] = typeof(WordsMerged),
        ["rightRevealed"] = typeof(RightRevealed),
        ["resultsPut"] = typeof(ResultsPut),
        ["signalGiven"] = typeof(SignalGiven),
        ["studentWrote"] = typeof(StudentWrote),
        ["messageShown"] = typeof(MessageShown),
        ["pageOpened"] = typeof(PageOpened),
        ["pageClosed"] = typeof(PageClosed),
        ["pageKnocked"] = typeof(PageKnocked),
        ["pageAdmitted"] = typeof(PageAdmitted),
        ["boardPut"] = typeof(BoardPut),
        ["nameSpoke"] = typeof(NameSpoke),
        ["fileBroughtIn"] = typeof(FileBroughtIn),
        ["questionFromFile"] = typeof(QuestionFromFile),
        ["nameAnswered"] = typeof(NameAnswered),
        ["clockSet"] = typeof(ClockSet),
        ["actsCompared"] = typeof(ActsCompared),
        ["boardTaken"] = typeof(BoardTaken),
    };

    /// <summary>The names of some kinds, as <see cref="Model.EntryRow.Kind"/> has them.</summary>
    /// <exception cref="KeyNotFoundException">One of the types is no kind of act.</exception>
    public static IReadOnlyList<string> NamesOf(params IEnumerable<Type> kinds)
    {
        var names = Kinds.ToDictionary(k => k.Value, k => k.Key);
        return [.. kinds.Select(kind => names[kind])];
    }

    private static readonly JsonSerializerOptions Options = Configure(new JsonSerializerOptions());

    /// <summary>Adds the ways of this project to options: camel case, names for enums, types for acts.</summary>
    public static JsonSerializerOptions Configure(JsonSerializerOptions options)
    {
        options.PropertyNamingPolicy = JsonNamingPolicy.CamelCase;
        options.AllowOutOfOrderMetadataProperties = true;
        options.RespectNullableAnnotations = true;
        options.RespectRequiredConstructorParameters = true;
        options.Converters.Add(new JsonStringEnumConverter(JsonNamingPolicy.CamelCase, allowIntegerValues: false));
        options.Converters.Add(new Seconds());
        options.Converters.Add(new Iso<LocalDate>(LocalDatePattern.Iso, "a day such as 2026-11-26"));
        options.TypeInfoResolver = new DefaultJsonTypeInfoResolver().WithAddedModifier(AddKinds).WithAddedModifier(WholeLengths.In).WithAddedModifier(NoGaps.In);
        return options;
    }

    /// <summary>Writes an answer.</summary>
    public static string Write(Answer answer) => JsonSerializer.Serialize(answer, Options);

    /// <summary>Reads an answer.</summary>
    /// <exception cref="JsonException">The text is not an answer.</exception>
    public static Answer ReadAnswer(string json) =>
        JsonSerializer.Deserialize<Answer>(json, Options) ?? throw new JsonException("An answer is missing.");

    /// <summary>Writes an act.</summary>
    public static string Write(Act act) => JsonSerializer.Serialize(act, Options);

    /// <summary>Reads an act.</summary>
    /// <exception cref="JsonException">The text is not an act.</exception>
    public static Act Read(string json) =>
        JsonSerializer.Deserialize<Act>(json, Options) ?? throw new JsonException("An act is missing.");

    private static void AddKinds(JsonTypeInfo type)
    {
        if (type.Type == typeof(Act))
        {
            type.PolymorphismOptions = new JsonPolymorphismOptions { TypeDiscriminatorPropertyName = "type" };
            foreach (var (name, kind) in Kinds)
            {
                type.PolymorphismOptions.DerivedTypes.Add(new JsonDerivedType(kind, name));
            }
        }

        // What follows from the rest is not written beside it: it would be one more thing to disagree.
        if (typeof(Act).IsAssignableFrom(type.Type) || type.Type == typeof(Plan) || type.Type == typeof(Question) || type.Type == typeof(Answer))
        {
            foreach (var derived in type.Properties.Where(p => p.Set is null && p.AssociatedParameter is null).ToList())
            {
                type.Properties.Remove(derived);
            }
        }

        // Most sources give nothing beside a name. What follows from an act, such as the id of an entry, stays what it was before there was such a thing.
        if (typeof(NameAct).IsAssignableFrom(type.Type))
        {
            type.Properties.Single(p => p.Name == "beside").ShouldSerialize = (_, value) => value is string { Length: > 0 };
        }
    }

    private sealed class Seconds : JsonConverter<Duration>
    {
        // Some thirty years: no length that anybody could mean is longer.
        private const double MostSeconds = 1e9;

        public override Duration Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options) =>
            reader.GetDouble() is var seconds && Math.Abs(seconds) < MostSeconds ? Duration.FromSeconds(seconds) : throw new JsonException("A length of time is out of range.");

        public override void Write(Utf8JsonWriter writer, Duration value, JsonSerializerOptions options) =>
            writer.WriteNumberValue(value.TotalSeconds);
    }
}
