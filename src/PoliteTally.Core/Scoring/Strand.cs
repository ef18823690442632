namespace PoliteTally.Core.Scoring;

/// <summary>One kind of participation that a score is woven from.</summary>
public enum Strand
{
    /// <summary>Being there.</summary>
    Attendance,

    /// <summary>Turns before the class.</summary>
    Speaking,

    /// <summary>Polls and quizzes.</summary>
    Questions,

    /// <summary>Contributions in the chat.</summary>
    Chat,

    /// <summary>Contributions in groups.</summary>
    GroupWork,

    /// <summary>The teacher's own judgement, by criteria.</summary>
    Rubric,
}

/// <summary>Strands in plain words.</summary>
public static class StrandWords
{
    /// <summary>The name of a strand.</summary>
    public static string InWords(this Strand strand) => strand switch
    {
        Strand.GroupWork => "group work",
        _ => strand.ToString().ToLowerInvariant(),
    };

    /// <summary>What its weight is called in an explanation.</summary>
    public static string WeightInWords(this Strand strand) => $"weight of {strand.InWords()}";
}
