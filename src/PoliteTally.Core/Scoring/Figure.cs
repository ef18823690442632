namespace PoliteTally.Core.Scoring;

/// <summary>How a figure comes from its parts.</summary>
public enum Reckoning
{
    /// <summary>It is given: by the entries it names, or by the scheme.</summary>
    Given,

    /// <summary>The sum of its parts.</summary>
    Sum,

    /// <summary>The product of its parts.</summary>
    Product,

    /// <summary>The first part divided by the second.</summary>
    Quotient,

    /// <summary>The least of its parts.</summary>
    Least,

    /// <summary>The greatest of its parts.</summary>
    Greatest,
}

/// <summary>
/// A number that opens: it recomputes exactly from its parts, and its leaves are entries or settings of the scheme.
/// </summary>
/// <param name="Label">What the number is, in plain words.</param>
/// <param name="Value">The number, unrounded.</param>
/// <param name="How">How it comes from <paramref name="Parts"/>.</param>
/// <param name="Parts">What it comes from; empty for a given figure.</param>
/// <param name="Entries">The entries that a given figure rests on.</param>
public sealed record Figure(
    string Label, decimal Value, Reckoning How, IReadOnlyList<Figure> Parts, IReadOnlyList<Guid> Entries)
{
    /// <summary>A leaf.</summary>
    public static Figure Given(string label, decimal value, params IReadOnlyList<Guid> entries) =>
        new(label, value, Reckoning.Given, [], entries);

    /// <summary>A figure reckoned from parts.</summary>
    /// <exception cref="DivideByZeroException">A quotient by zero.</exception>
    public static Figure Of(string label, Reckoning how, params IReadOnlyList<Figure> parts) =>
        new(label, Apply(how, parts), how, parts, []);

    /// <summary>The entries that it rests on, each as often as it counts.</summary>
    public IEnumerable<Guid> Leaves() => Entries.Concat(Parts.SelectMany(p => p.Leaves()));

    /// <summary>Reckons the figure anew from its leaves.</summary>
    public decimal Recompute() =>
        How == Reckoning.Given ? Value : Apply(How, [.. Parts.Select(p => p with { Value = p.Recompute() })]);

    private static decimal Apply(Reckoning how, IReadOnlyList<Figure> parts)
    {
        if (how == Reckoning.Sum && parts.Count == 0)
        {
            return 0;
        }

        var value = parts[0].Value;
        for (var i = 1; i < parts.Count; i++)
        {
            var next = parts[i].Value;
            value = how switch
            {
                Reckoning.Sum => value + next,
                Reckoning.Product => value * next,
                Reckoning.Quotient => value / next,
                Reckoning.Least => Math.Min(value, next),
                Reckoning.Greatest => Math.Max(value, next),
                _ => throw new ArgumentOutOfRangeException(nameof(how), how, "a given figure has no parts"),
            };
        }

        return value;
    }
}
