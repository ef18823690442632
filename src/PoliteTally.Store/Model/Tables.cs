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

    /// <summary>Fingerprint of the key in the private link to the calendar; null while there is no such link.</summary>
    public string? CalendarKeyHash { get; set; }

    /// <summary>Keys of the live sheet that the teacher changed, as JSON: the name of the act or command, and its key.</summary>
    public string LiveKeys { get; set; } = "{}";
}

/// <summary>A session of a teacher that was ended by signing out, while its cookie could still be shown.</summary>
public sealed class EndedSession
{
    public Guid Id { get; init; }
    public Instant At { get; init; }
}

/// <summary>A term of the school, with the days on which there are no lessons.</summary>
public sealed class Term : IOwned
{
    public Guid Id { get; init; }
    public Guid OwnerId { get; set; }
    public required string Name { get; set; }
    public LocalDate FirstDay { get; set; }
    public LocalDate LastDay { get; set; }

    /// <summary>Days off as JSON: a list of name, first and last day.</summary>
    public string DaysOff { get; set; } = "[]";
}

public sealed class SchoolClass : IOwned
{
    public Guid Id { get; init; }
    public Guid OwnerId { get; set; }
    public required string Name { get; set; }
    public Instant MadeAt { get; init; }
    public Guid? TermId { get; set; }

    /// <summary>When the class was put away; null while it is in use.</summary>
    public Instant? ArchivedAt { get; set; }

    /// <summary>Its ground rules as JSON: what differs from the defaults.</summary>
    public string Rules { get; set; } = "{}";
    public Term? Term { get; init; }
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

    /// <summary>Another address to reach them or their home by. Nobody is known by it.</summary>
    public string? SecondEmail { get; set; }
    public string? Phone { get; set; }

    /// <summary>Tags, separated by semicolons.</summary>
    public string Tags { get; set; } = "";

    /// <summary>The record that this one was merged into, being of the same student; null if it stands for itself.</summary>
    public Guid? MergedIntoId { get; set; }

    /// <summary>Fingerprint of the personal pass; null while there is none.</summary>
    public string? PassHash { get; set; }
    public Instant? PassMadeAt { get; set; }
}

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

/// <summary>A stretch of time in which a student was in a class. What they did stays theirs when it is over.</summary>
public sealed class Stay : IOwned
{
    public Guid ClassId { get; init; }
    public Guid StudentId { get; init; }
    public Guid OwnerId { get; set; }

    /// <summary>When the student came into the class.</summary>
    public Instant From { get; init; }

    /// <summary>When the student left it; null while they are in it.</summary>
    public Instant? To { get; set; }
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

    /// <summary>Where it came from, in words: the lesson or the file in which it was seen.</summary>
    public string Origin { get; set; } = "";

    /// <summary>The lesson in which the teacher decided it; null if it was decided elsewhere.</summary>
    public Guid? LessonId { get; set; }
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

    /// <summary>Counts the lessons of a class from 1: those that have begun, then the planned ones in the order of their starts. 0 for a cancelled one.</summary>
    public int Number { get; set; }
    public required string Title { get; set; }
    public Instant PlannedStart { get; set; }
    public Instant PlannedEnd { get; set; }
    public bool DropIn { get; set; }

    /// <summary>The way into the meeting: an http or https address.</summary>
    public string? MeetingLink { get; set; }
    public Guid? SeriesId { get; set; }

    /// <summary>The day of the series that this lesson stands for, wherever it was moved; null of a lesson of no series, or from before this was kept.</summary>
    public LocalDate? SeriesDay { get; set; }

    /// <summary>True of a lesson of a series that was moved by itself: changes of the series leave it where it is.</summary>
    public bool Moved { get; set; }

    /// <summary>Which event of an imported calendar it is: UID and the day of the occurrence.</summary>
    public string? CalendarUid { get; set; }
    public Instant? CancelledAt { get; set; }

    /// <summary>What of the ground rules differs from those of the class, as JSON.</summary>
    public string Rules { get; set; } = "{}";

    /// <summary>
    /// The code of its student page; null until somebody asked for it. It is an address and opens nothing by itself, so it is kept as it is.
    /// </summary>
    public string? Code { get; set; }

    /// <summary>What is prepared, as JSON; empty for nothing.</summary>
    public string Plan { get; set; } = "";

    /// <summary>Counts the changes of the plan, so that two windows notice each other.</summary>
    public int PlanVersion { get; set; }

    // What follows is read off the ledger, in the transaction that stores the entry that changes it.
    public LessonStage Stage { get; set; }
    public Instant? ActualStart { get; set; }
    public Instant? ActualEnd { get; set; }

    /// <summary>Whether its summaries are to be reckoned anew: something they rest on was changed, and the program has not come to it yet.</summary>
    public bool ReckonAgain { get; set; }

    /// <summary>When the lesson was settled for the first time: whoever joined the class later is not on its roster.</summary>
    public Instant? RosterClosedAt { get; set; }

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

    /// <summary>Shared by the entries that one press noted; null if it noted one alone.</summary>
    public Guid? Together { get; init; }

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

/// <summary>Lessons that come back every week, or every few weeks. Each is a row of its own; this says how they were made.</summary>
public sealed class Series : IOwned
{
    public Guid Id { get; init; }
    public Guid OwnerId { get; set; }
    public Guid ClassId { get; init; }
    public required string Title { get; set; }

    /// <summary>ISO days of the week, from 1 for Monday, separated by commas.</summary>
    public required string Days { get; set; }

    /// <summary>Every how many weeks, from 1 up.</summary>
    public int EveryWeeks { get; set; } = 1;
    public LocalTime Time { get; set; }
    public int Minutes { get; set; }
    public LocalDate FirstDay { get; set; }
    public LocalDate LastDay { get; set; }

    /// <summary>Days that were taken out of it, in ISO form, separated by commas.</summary>
    public string Except { get; set; } = "";
    public bool DropIn { get; set; }
    public string? MeetingLink { get; set; }
    public SchoolClass? Class { get; init; }
}

/// <summary>A question kept for use in any lesson.</summary>
public sealed class ShelfQuestion : IOwned
{
    public Guid Id { get; init; }
    public Guid OwnerId { get; set; }

    /// <summary>The question as JSON.</summary>
    public required string Question { get; set; }
    public Instant KeptAt { get; set; }
}

/// <summary>A picture for questions, scaled down; its bytes lie in the data folder under its fingerprint.</summary>
public sealed class Picture : IOwned
{
    public Guid Id { get; init; }
    public Guid OwnerId { get; set; }

    /// <summary>SHA-256 of the stored bytes, in hexadecimal; the name of the file.</summary>
    public required string Fingerprint { get; init; }
    public int Width { get; init; }
    public int Height { get; init; }
    public Instant AddedAt { get; init; }
}

public enum WordState
{
    /// <summary>Going out now; after a sudden stop, nobody knows whether it went.</summary>
    Going,
    Sent,
    NotSent,

    /// <summary>Could not go yet, for a reason that passes: tried again until the lesson begins.</summary>
    Delayed,
}

/// <summary>The word ahead of one lesson to one student: noted before it goes, so that it never goes twice.</summary>
public sealed class WordSent : IOwned
{
    public Guid LessonId { get; init; }
    public Guid StudentId { get; init; }
    public Guid OwnerId { get; set; }
    public required string Address { get; init; }
    public WordState State { get; set; }
    public Instant At { get; set; }

    /// <summary>Why it did not go; empty if it did.</summary>
    public string Why { get; set; } = "";
    public Lesson? Lesson { get; init; }
    public Student? Student { get; init; }
}

/// <summary>What became of the word ahead of a lesson as a whole.</summary>
public sealed class WordOfLesson : IOwned
{
    public Guid LessonId { get; init; }
    public Guid OwnerId { get; set; }
    public WordState State { get; set; }
    public Instant At { get; set; }

    /// <summary>What happened, in words.</summary>
    public string Said { get; set; } = "";
    public Lesson? Lesson { get; init; }
}

/// <summary>What the holder of a key may do in one lesson.</summary>
[Flags]
public enum KeyRights
{
    None = 0,

    /// <summary>Tell what happens in the meeting, as a program.</summary>
    Feed = 1,

    /// <summary>Sweep the chat.</summary>
    Sweep = 2,

    /// <summary>Keep the hand line.</summary>
    HandLine = 4,
}

/// <summary>A key to one lesson, for a helper or for a program. It is shown once; only its fingerprint is kept.</summary>
public sealed class LessonKey : IOwned
{
    public Guid Id { get; init; }
    public Guid OwnerId { get; set; }
    public Guid LessonId { get; init; }

    /// <summary>Who holds it: a person's or a program's name.</summary>
    public required string Name { get; set; }
    public KeyRights Rights { get; init; }

    /// <summary>SHA-256 of the key, in hexadecimal.</summary>
    public required string KeyHash { get; init; }
    public Instant MadeAt { get; init; }

    /// <summary>When it was taken back; null while it opens the lesson.</summary>
    public Instant? TakenBackAt { get; set; }
    public Lesson? Lesson { get; init; }
}

/// <summary>A browser in which a student's page was entered.</summary>
public sealed class PageSession : IOwned
{
    public Guid Id { get; init; }
    public Guid OwnerId { get; set; }

    /// <summary>Who came with a pass; null for somebody who came with a name, until the lesson's ledger says who they are.</summary>
    public Guid? StudentId { get; init; }

    /// <summary>The one lesson it opens, for somebody who came with a name; null for whoever has a pass.</summary>
    public Guid? LessonId { get; init; }

    /// <summary>SHA-256 of the token in the cookie, in hexadecimal.</summary>
    public required string TokenHash { get; init; }

    /// <summary>What kind of device it seems to be, in a word.</summary>
    public string Device { get; init; } = "";
    public Instant MadeAt { get; init; }
    public Instant? EndedAt { get; set; }
    public Student? Student { get; init; }
    public Lesson? Lesson { get; init; }
}
