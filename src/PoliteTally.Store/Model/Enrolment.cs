namespace PoliteTally.Store.Model;

/// <summary>A student's place in a class.</summary>
public sealed class Enrolment : IOwned
{
    public Guid ClassId { get; init; }
    public Guid StudentId { get; init; }
    public Guid OwnerId { get; set; }

    /// <summary>The letter that picks the student on the live sheet, kept from lesson to lesson.</summary>
    public required char Key { get; set; }

    /// <summary>When the student was in the class: whoever left and came back has two stays.</summary>
    public List<Stay> Stays { get; init; } = [];

    public SchoolClass? Class { get; init; }
    public Student? Student { get; init; }
}
