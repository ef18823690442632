namespace PoliteTally.Core.Ledger;

/// <summary>What one trade keeps of a lesson. Once a lesson is made nobody changes it: whoever makes the next lesson changes a copy.</summary>
public abstract class LessonPart
{
    /// <summary>A copy that can be changed; it may share what neither of the two changes any more.</summary>
    internal abstract LessonPart Copy();
}

/// <summary>A lesson as acts see it.</summary>
public interface ILesson
{
    /// <summary>The student that an act about this id counts for: the record that stands, if records were merged.</summary>
    Guid Whose(Guid student);

    /// <summary>What a trade keeps of it.</summary>
    T See<T>()
        where T : LessonPart;
}

/// <summary>A lesson while entries are taken into it.</summary>
internal interface ILessonInMaking : ILesson
{
    /// <summary>What a trade keeps of it, to be changed.</summary>
    T Change<T>()
        where T : LessonPart;
}
