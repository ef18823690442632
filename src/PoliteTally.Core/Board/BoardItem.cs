namespace PoliteTally.Core.Board;

/// <summary>What can stand on the class board. It can show nothing else.</summary>
public enum BoardItem
{
    /// <summary>The directions of the current stage.</summary>
    Directions,

    /// <summary>The current stage and how much of its time is left.</summary>
    Stage,

    /// <summary>The time for the task.</summary>
    Timer,

    /// <summary>Whose turn it is.</summary>
    Turn,

    /// <summary>The hand line.</summary>
    HandLine,

    /// <summary>The signals that the class has agreed on.</summary>
    Signals,

    /// <summary>The rubric.</summary>
    Rubric,

    /// <summary>The statement of a signal round, with a count-in.</summary>
    Statement,

    /// <summary>Who is in which group.</summary>
    Groups,

    /// <summary>Questions that are open to the whole class.</summary>
    Question,

    /// <summary>Results of one question.</summary>
    Results,

    /// <summary>The way to the student page, with the code of the lesson.</summary>
    WayIn,

    /// <summary>Messages from student pages that are shown.</summary>
    Messages,
}

/// <summary>Whether the class sees nods on its board, as it has agreed.</summary>
public enum NodsOnBoard
{
    /// <summary>Never.</summary>
    Never,

    /// <summary>Those that the teacher shows, by a press of its own.</summary>
    WhenShown,

    /// <summary>All of them, at once.</summary>
    Always,
}

/// <summary>Items of the class board in plain words.</summary>
public static class BoardWords
{
    /// <summary>The name of an item.</summary>
    public static string InWords(this BoardItem item) => item switch
    {
        BoardItem.HandLine => "hand line",
        BoardItem.WayIn => "way in",
        _ => item.ToString().ToLowerInvariant(),
    };
}
