using System.Text.Json;
using PoliteTally.Core.Calendar;
using PoliteTally.Core.Register;
using PoliteTally.Store.Model;

namespace PoliteTally.Store;

/// <summary>The small documents: marks that were handed in, days off, keys of the live sheet.</summary>
public static class OtherJson
{
    private static readonly JsonSerializerOptions Options = ActJson.Configure(new JsonSerializerOptions());

    /// <summary>Writes what a register says.</summary>
    public static string Write(IReadOnlyList<RegisterMark> marks) => JsonSerializer.Serialize(marks, Options);

    /// <summary>What was kept of a register.</summary>
    /// <exception cref="JsonException">The text is no register.</exception>
    public static IReadOnlyList<RegisterMark> ReadMarks(string json) => Read<List<RegisterMark>>(json);

    /// <summary>Writes the days off of a term, the first first.</summary>
    public static string Write(IEnumerable<DaysOff> days) => JsonSerializer.Serialize(days.OrderBy(d => d.FirstDay), Options);

    /// <summary>The days off of a term; none if there is no term, or if what is stored cannot be read.</summary>
    public static IReadOnlyList<DaysOff> DaysOffOf(Term? term) => term is null ? [] : Documents.ReadOr([], () => ReadDaysOff(term.DaysOff));

    /// <summary>Writes the keys of the live sheet that a teacher changed.</summary>
    public static string Write(IReadOnlyDictionary<string, string> liveKeys) => JsonSerializer.Serialize(liveKeys);

    /// <summary>The keys of the live sheet that a teacher changed; none if what is stored cannot be read.</summary>
    public static IReadOnlyDictionary<string, string> LiveKeysOf(string json) => Documents.ReadOr(new Dictionary<string, string>(), () => ReadLiveKeys(json));

    internal static IReadOnlyList<DaysOff> ReadDaysOff(string json) => Read<List<DaysOff>>(json);

    internal static Dictionary<string, string> ReadLiveKeys(string json) => Read<Dictionary<string, string>>(json);

    private static T Read<T>(string json)
        where T : class, System.Collections.ICollection => JsonSerializer.Deserialize<T>(json, Options) is { } read && !read.Cast<object?>().Contains(null)
            ? read
            : throw new JsonException("It is empty, or an item of it is missing.");
}
