using System.Runtime.CompilerServices;

namespace PoliteTally.Core.Ledger;

/// <summary>What all trades keep of a lesson, as acts see it. What the ledger need not know, such as which trades there are, it does not.</summary>
public sealed class LessonParts
{
    private readonly LessonPart[] _parts;

    /// <summary>Which parts were made here, so that they may be changed.</summary>
    private readonly bool[] _mine;

    /// <param name="fresh">A part of every kind, of a lesson in which nothing has happened; always in the same order.</param>
    /// <param name="merged">As in <see cref="Merged"/>.</param>
    internal LessonParts(LessonPart[] fresh, IReadOnlyDictionary<Guid, Guid> merged)
    {
        (_parts, Merged, _mine) = (fresh, merged, new bool[fresh.Length]);
        Array.Fill(_mine, true);
    }

    private LessonParts(LessonParts from) => (_parts, Merged, _mine) = ([.. from._parts], from.Merged, new bool[from._parts.Length]);

    /// <summary>Records that turned out to be of one student: what is said of the key counts for the value.</summary>
    internal IReadOnlyDictionary<Guid, Guid> Merged { get; }

    /// <summary>The student that an act about this id counts for: the record that stands, if records were merged.</summary>
    public Guid Whose(Guid student) => Merged.GetValueOrDefault(student, student);

    /// <summary>What a trade keeps.</summary>
    public T See<T>()
        where T : LessonPart => Unsafe.As<T>(_parts[PlaceOf<T>()]);

    /// <summary>What a trade keeps, to be changed.</summary>
    internal T Change<T>()
        where T : LessonPart
    {
        var place = PlaceOf<T>();
        if (!_mine[place])
        {
            (_parts[place], _mine[place]) = (_parts[place].Copy(), true);
        }

        return Unsafe.As<T>(_parts[place]);
    }

    /// <summary>The parts of a lesson that goes on from this one: they are shared until one is changed.</summary>
    internal LessonParts Next() => new(this);

    // The order is always the same, so each kind is looked for once.
    private int PlaceOf<T>()
    {
        var place = Place<T>.Known;
        return place >= 0 ? place : Place<T>.Known = Array.FindIndex(_parts, p => p is T);
    }

    private static class Place<T>
    {
        public static int Known = -1;
    }
}
