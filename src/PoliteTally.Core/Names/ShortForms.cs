namespace PoliteTally.Core.Names;

/// <summary>
/// Which names are called what for short. The table ships with the application and a school adds to it. A short form is never sure: it names one of several
/// names as a rule.
/// </summary>
public sealed class ShortForms
{
    private const char EndOfName = ':';
    private const char Comment = '#';

    private readonly Dictionary<string, HashSet<string>> _forms = new(StringComparer.Ordinal);

    private ShortForms()
    {
    }

    /// <summary>The table that ships with the application.</summary>
    public static ShortForms Shipped { get; } = Read(ShortFormsFile.Text);

    /// <summary>Reads a table: a name a line, a colon, its short forms; what follows a # is left out.</summary>
    /// <param name="table">The text of the table.</param>
    /// <param name="and">A table to add to; null for none.</param>
    /// <exception cref="FormatException">A line has no name, no colon or no short form; the message says which.</exception>
    public static ShortForms Read(string table, ShortForms? and = null)
    {
        var read = new ShortForms();
        foreach (var (name, forms) in and?._forms ?? [])
        {
            read._forms[name] = [.. forms];
        }

        foreach (var (line, number) in table.ReplaceLineEndings("\n").Split('\n').Select((line, i) => (line.Split(Comment)[0].Trim(), i + 1)).Where(l => l.Item1.Length > 0))
        {
            if (line.Split(EndOfName) is not [var whole, var forms] || NameFolding.Tokens(whole) is not { Count: > 0 } words || NameFolding.Tokens(forms) is not { Count: > 0 } shorts)
            {
                throw new FormatException($"Line {number} of the short forms is not understood: write a name, a colon, and its short forms.");
            }

            foreach (var form in shorts)
            {
                (read._forms.TryGetValue(string.Concat(words), out var known) ? known : read._forms[string.Concat(words)] = []).Add(form);
            }
        }

        return read;
    }

    /// <summary>Whether one folded word is a short form of the other.</summary>
    public bool IsOf(string one, string other) => Has(one, other) || Has(other, one);

    private bool Has(string whole, string form) => _forms.TryGetValue(whole, out var forms) && forms.Contains(form);
}
