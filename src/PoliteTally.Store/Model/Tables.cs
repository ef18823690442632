using Microsoft.AspNetCore.Identity;
using NodaTime;

namespace PoliteTally.Store.Model;

/// <summary>A row that belongs to one teacher. The owner filter of <see cref="SchoolDb"/> covers every such table.</summary>
public interface IOwned
{
    Guid OwnerId { get; set; }
}

/// <summary>A teacher's account.</summary>
public sealed class Teacher : IdentityUser<Guid>
{
    public required string DisplayName { get; set; }

    public required string School { get; set; }

    /// <summary>IANA time zone of the school.</summary>
    public required string TimeZone { get; set; }
}

public sealed class SchoolClass : IOwned
{
    public Guid Id { get; init; }
    public Guid OwnerId { get; set; }
    public required string Name { get; set; }
    public Instant MadeAt { get; init; }
}

public sealed class Student : IOwned
{
    public Guid Id { get; init; }
    public Guid OwnerId { get; set; }
    public string? Number { get; set; }
    public required string Family { get; set; }
    public required string Given { get; set; }
    public string? Preferred { get; set; }
    public string? Email { get; set; }

    /// <summary>Tags, separated by semicolons.</summary>
    public string Tags { get; set; } = "";
}

/// <summary>A student's place in a class.</summary>
public sealed class Enrolment : IOwned
{
    public Guid ClassId { get; init; }
    public Guid StudentId { get; init; }
    public Guid OwnerId { get; set; }

    /// <summary>The letter that picks the student on the live sheet, kept from lesson to lesson.</summary>
    public required char Key { get; set; }

    public SchoolClass? Class { get; init; }
    public Student? Student { get; init; }
}

/// <summary>A name seen in a meeting of a class, and whose it is.</summary>
public sealed class KnownName : IOwned
{
    public Guid ClassId { get; init; }
    public required string Folded { get; init; }
    public Guid OwnerId { get; set; }
    public required string Shown { get; set; }

    /// <summary>Null for "not a student".</summary>
    public Guid? StudentId { get; set; }

    public Instant NotedAt { get; set; }
    public SchoolClass? Class { get; init; }
}

public enum LessonStage
{
    Planned,
    Live,
    Ended,
    Settled,
}

public sealed class Lesson : IOwned
{
    public Guid Id { get; init; }
    public Guid OwnerId { get; set; }
    public Guid ClassId { get; init; }

    /// <summary>Counts the lessons of a class from 1, in the order of their planned starts when they were made.</summary>
    public int Number { get; set; }
    public required string Title { get; set; }
    public Instant PlannedStart { get; set; }
    public Instant PlannedEnd { get; set; }
    public bool DropIn { get; set; }

    // What follows is read off the ledger, in the transaction that stores the entry that changes it.
    public LessonStage Stage { get; set; }
    public Instant? ActualStart { get; set; }
    public Instant? ActualEnd { get; set; }

    public SchoolClass? Class { get; init; }
}

/// <summary>One entry of the ledger.</summary>
public sealed class EntryRow : IOwned
{
    /// <summary>The order in which entries were stored; the position of a lesson's ledger is its highest.</summary>
    public long Seq { get; init; }
    public Guid Id { get; init; }
    public Guid OwnerId { get; set; }
    public Guid LessonId { get; init; }
    public Instant HappenedAt { get; init; }
    public Instant NotedAt { get; init; }
    public Core.Ledger.Source Source { get; init; }
    public required string By { get; init; }

    /// <summary>The act as JSON, its kind in <c>type</c>.</summary>
    public required string Act { get; init; }

    public Lesson? Lesson { get; init; }
}

/// <summary>A file that was brought in for a lesson.</summary>
public sealed class BroughtIn : IOwned
{
    public Guid Id { get; init; }
    public Guid OwnerId { get; set; }
    public Guid LessonId { get; init; }
    public required string FileName { get; init; }

    /// <summary>SHA-256 of its bytes, in hexadecimal.</summary>
    public required string Fingerprint { get; init; }
    public int Entries { get; init; }
    public Instant NotedAt { get; init; }
    public Lesson? Lesson { get; init; }
}

/// <summary>One student in one settled lesson: what term screens read instead of the ledger.</summary>
public sealed class Summary : IOwned
{
    public Guid LessonId { get; init; }
    public Guid StudentId { get; init; }
    public Guid OwnerId { get; set; }
    public Core.Attendance.AttendanceStatus Status { get; init; }
    public Core.Attendance.KnownBy KnownBy { get; init; }

    /// <summary>What stands beside the status, in plain words.</summary>
    public required string Notes { get; init; }
    public int PresentSeconds { get; init; }
    public int CountedSeconds { get; init; }

    /// <summary>0 to 100, unrounded; null if the lesson does not count for the student.</summary>
    public decimal? Score { get; init; }

    public int FullTurns { get; init; }
    public int PartialTurns { get; init; }
    public int ChatCredits { get; init; }
    public int Nods { get; init; }

    /// <summary>Stretches of presence and moments of speaking, for the ribbon: JSON of numbers from 0 to 1.</summary>
    public required string Ribbon { get; init; }

    public Lesson? Lesson { get; init; }
    public Student? Student { get; init; }
}
