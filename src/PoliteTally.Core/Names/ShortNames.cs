using System.Globalization;

namespace PoliteTally.Core.Names;

/// <summary>What students are called, and the keys that pick them on the live sheet.</summary>
public static class ShortNames
{
    /// <summary>What a student is called: the preferred name, else the given name.</summary>
    public static string CalledName(RosterName student) =>
        string.IsNullOrWhiteSpace(student.Preferred) ? student.Given : student.Preferred;

    /// <summary>The called name with the shortest addition from the family name that tells students apart.</summary>
    public static IReadOnlyDictionary<Guid, string> For(IReadOnlyCollection<RosterName> roster)
    {
        var names = new Dictionary<Guid, string>();
        foreach (var twins in roster.GroupBy(s => NameFolding.Fold(CalledName(s))))
        {
            foreach (var student in twins)
            {
                names[student.Id] = twins.Count() == 1 ? CalledName(student) : Apart(student, [.. twins]);
            }
        }

        return names;
    }

    /// <summary>
    /// Gives each student a key to pick them by. As many as possible get a letter of their own name to themselves; then
    /// free letters are given out, and from the 27th student on the signs <c>[ ] ; '</c>; after 30 students a key is shared, and pressing it
    /// again moves to the next student.
    /// Keys already given are kept.
    /// </summary>
    /// <param name="roster">The students, in the order of the sheet.</param>
    /// <param name="kept">Keys given before, by student.</param>
    public static IReadOnlyDictionary<Guid, char> Keys(
        IReadOnlyList<RosterName> roster, IReadOnlyDictionary<Guid, char> kept)
    {
        var keys = roster.Where(s => kept.ContainsKey(s.Id)).ToDictionary(s => s.Id, s => kept[s.Id]);
        var holders = new Dictionary<char, Guid>();
        var fixedLetters = keys.Values.ToHashSet();
        var wanting = roster.Where(s => !keys.ContainsKey(s.Id)).ToList();
        var wishes = wanting.ToDictionary(s => s.Id, LettersOf);
        foreach (var student in wanting)
        {
            TryPlace(student.Id, []);
        }

        foreach (var (letter, student) in holders)
        {
            keys[student] = letter;
        }

        var free = new Queue<char>(Alphabet().Except(keys.Values));
        var shared = keys.Values.GroupBy(k => k).ToDictionary(g => g.Key, g => g.Count());
        foreach (var student in wanting.Where(s => !keys.ContainsKey(s.Id)))
        {
            var key = free.Count > 0
                ? free.Dequeue()
                : wishes[student.Id].Concat(Alphabet()).MinBy(c => shared.GetValueOrDefault(c));
            keys[student.Id] = key;
            shared[key] = shared.GetValueOrDefault(key) + 1;
        }

        return keys;

        // An augmenting path of bipartite matching (Kuhn 1955): a letter's holder moves on if it has another to go to.
        bool TryPlace(Guid student, HashSet<char> tried)
        {
            foreach (var letter in wishes[student])
            {
                if (fixedLetters.Contains(letter) || !tried.Add(letter))
                {
                    continue;
                }

                if (!holders.TryGetValue(letter, out var holder) || TryPlace(holder, tried))
                {
                    holders[letter] = student;
                    return true;
                }
            }

            return false;
        }
    }

    // The signs lie beside the letters, so that a hand finds them without looking; they come when letters have run out.
    private static IEnumerable<char> Alphabet() => [.. Enumerable.Range('a', 26).Select(c => (char)c), '[', ']', ';', '\''];

    // First letters first: they are what a hand expects.
    private static List<char> LettersOf(RosterName student)
    {
        var called = NameFolding.Fold(CalledName(student));
        var family = NameFolding.Fold(student.Family);
        var initials = string.Concat(called.Take(1)) + string.Concat(family.Take(1));
        return [.. (initials + called + family).Where(c => c is >= 'a' and <= 'z').Distinct()];
    }

    private static string Apart(RosterName student, List<RosterName> twins)
    {
        var family = StringInfo.ParseCombiningCharacters(student.Family);
        for (var length = 1; length <= family.Length; length++)
        {
            var end = length < family.Length ? family[length] : student.Family.Length;
            var part = student.Family[..end];
            if (!twins.Exists(t => t.Id != student.Id && t.Family.StartsWith(part, StringComparison.OrdinalIgnoreCase)))
            {
                return $"{CalledName(student)} {part.TrimEnd()}";
            }
        }

        return student.Number is null
            ? $"{CalledName(student)} {student.Family}"
            : $"{CalledName(student)} {student.Family} {student.Number}";
    }
}
