using NodaTime;

namespace PoliteTally.Core.Questions;

/// <summary>What kind of answer a question takes.</summary>
public enum QuestionKind
{
    /// <summary>One of several options.</summary>
    SingleChoice,

    /// <summary>Any of several options.</summary>
    MultipleChoice,

    /// <summary>True or false.</summary>
    TrueFalse,

    /// <summary>A step on a scale with two named ends.</summary>
    Scale,

    /// <summary>A number.</summary>
    Number,

    /// <summary>A few words.</summary>
    ShortText,

    /// <summary>Options brought into an order.</summary>
    Ranking,

    /// <summary>Several single words, one after another.</summary>
    WordList,

    /// <summary>One of several pictures.</summary>
    PictureChoice,
}

/// <summary>What a question is for.</summary>
public enum QuestionPurpose
{
    /// <summary>No answer is right: taking part counts.</summary>
    Poll,

    /// <summary>Marked.</summary>
    Quiz,
}

/// <summary>Whom a question goes to.</summary>
public enum QuestionAudience
{
    /// <summary>Everybody in the lesson.</summary>
    WholeClass,

    /// <summary>Members of the group that it is opened for.</summary>
    Group,
}

/// <summary>One option of a question.</summary>
/// <param name="Id">Its id, kept when its text changes.</param>
/// <param name="Text">Its text; may hold placeholders in braces.</param>
/// <param name="Right">Whether it is right, in a quiz.</param>
/// <param name="Picture">Its picture, if it has one.</param>
/// <param name="AlternativeText">What the picture shows, for those who cannot see it.</param>
public sealed record QuestionOption(Guid Id, string Text, bool Right = false, Guid? Picture = null, string AlternativeText = "");

/// <summary>A prepared question.</summary>
public sealed record Question
{
    /// <summary>The longest question, in UTF-16 code units: 1,000.</summary>
    public const int LongestText = 1000;

    /// <summary>The longest option or accepted answer, in UTF-16 code units: 200.</summary>
    public const int LongestOption = 200;

    /// <summary>The most options: 12.</summary>
    public const int MostOptions = 12;

    /// <summary>Its id.</summary>
    public required Guid Id { get; init; }

    /// <summary>What kind of answer it takes.</summary>
    public required QuestionKind Kind { get; init; }

    /// <summary>The question as it is asked; may hold placeholders in braces.</summary>
    public string Text { get; init; } = "";

    /// <summary>What it is for. A poll.</summary>
    public QuestionPurpose Purpose { get; init; } = QuestionPurpose.Poll;

    /// <summary>Options, in the order shown; of a ranking in the right order, which nobody is shown.</summary>
    public IReadOnlyList<QuestionOption> Options { get; init; } = [];

    /// <summary>Whether answers carry no name. Never marked.</summary>
    public bool Anonymous { get; init; }

    /// <summary>Whether that somebody answered an anonymous question counts for taking part; said to students beforehand.</summary>
    public bool CountsTakingPart { get; init; }

    /// <summary>Whom it goes to. The whole class.</summary>
    public QuestionAudience Audience { get; init; } = QuestionAudience.WholeClass;

    /// <summary>Multiple choice: marks only for exactly the right options, instead of right less wrong.</summary>
    public bool AllOrNothing { get; init; }

    /// <summary>Number: the right one; scale: the target. Null for none.</summary>
    public decimal? Target { get; init; }

    /// <summary>How far from the target is still right, from 0 up.</summary>
    public decimal Tolerance { get; init; }

    /// <summary>Scale: its lowest step. 1.</summary>
    public int ScaleFrom { get; init; } = 1;

    /// <summary>Scale: its highest step, from 1 to 10 above the lowest. 5.</summary>
    public int ScaleTo { get; init; } = 5;

    /// <summary>Scale: what the lowest step means.</summary>
    public string ScaleFromLabel { get; init; } = "";

    /// <summary>Scale: what the highest step means.</summary>
    public string ScaleToLabel { get; init; } = "";

    /// <summary>Short text: answers that are right after folding.</summary>
    public IReadOnlyList<string> AcceptedAnswers { get; init; } = [];

    /// <summary>Word list: the most words each student may give, from 1 to 10. 3.</summary>
    public int WordsEach { get; init; } = 3;

    /// <summary>Time to answer, from 5 to 3,600 s; null for as long as it is open.</summary>
    public Duration? TimeLimit { get; init; }

    /// <summary>Whether its answers are chosen from options.</summary>
    public bool TakesOptions => Kind is QuestionKind.SingleChoice or QuestionKind.MultipleChoice or QuestionKind.TrueFalse
        or QuestionKind.Ranking or QuestionKind.PictureChoice;
}
