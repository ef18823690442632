using Microsoft.AspNetCore.Identity;

namespace PoliteTally.Store.Model;

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
