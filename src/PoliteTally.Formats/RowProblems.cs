namespace PoliteTally.Formats;

/// <summary>What is wrong with a row. With most rows nothing is, and there may be a hundred thousand.</summary>
/// <param name="before">What is known to be wrong with it already.</param>
internal struct RowProblems(IReadOnlyList<string> before)
{
    private List<string>? _more;

    public RowProblems()
        : this([])
    {
    }

    /// <summary>All of it, in the order in which it was found.</summary>
    public readonly IReadOnlyList<string> All => _more ?? before;

    public void Add(string problem) => (_more ??= [.. before]).Add(problem);
}
