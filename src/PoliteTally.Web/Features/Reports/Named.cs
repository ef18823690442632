using PoliteTally.Core.Names;
using PoliteTally.Store;

namespace PoliteTally.Web.Features.Reports;

/// <summary>What students are called in a report: by name, or by a number whose key is kept apart.</summary>
internal sealed class Named
{
    private readonly Dictionary<Guid, (string Called, string Whole)> _names;

    /// <param name="roster">Who can stand in it.</param>
    /// <param name="hidden">Whether they are numbered.</param>
    public Named(IReadOnlyList<OnSheet> roster, bool hidden)
    {
        // In an order that says nothing of names, and is the same in each report of the class.
        Numbered = [.. roster.OrderBy(s => s.Name.Id)];
        // Two of one name are told apart, as on the sheet.
        var shortly = ShortNames.For([.. roster.Select(s => s.Name)]);
        _names = hidden
            ? Numbered.Select((s, i) => (s.Name.Id, Name: NumberedAs(i))).ToDictionary(s => s.Id, s => (s.Name, s.Name))
            : roster.ToDictionary(s => s.Name.Id, s => (shortly[s.Name.Id], s.Name.Whole));
    }

    /// <summary>Students in the order of their numbers: the key.</summary>
    public IReadOnlyList<OnSheet> Numbered { get; }

    /// <summary>What a student is called by their place in the key.</summary>
    public static string NumberedAs(int place) => FormattableString.Invariant($"Student {place + 1}");

    /// <summary>What a student is called.</summary>
    public string Called(Guid student) => _names.TryGetValue(student, out var name) ? name.Called : "a former student";

    /// <summary>The whole name of a student.</summary>
    public string Whole(Guid student) => _names.TryGetValue(student, out var name) ? name.Whole : "a former student";
}
