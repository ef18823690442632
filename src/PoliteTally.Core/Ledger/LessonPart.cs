namespace PoliteTally.Core.Ledger;

/// <summary>What one trade keeps of a lesson. Once a lesson is made nobody changes it: whoever makes the next lesson changes a copy.</summary>
public abstract class LessonPart
{
    /// <summary>A copy that can be changed; it may share what neither of the two changes any more.</summary>
    internal abstract LessonPart Copy();
}
