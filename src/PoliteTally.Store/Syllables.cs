using System.Security.Cryptography;

namespace PoliteTally.Store;

/// <summary>Secrets and addresses that can be read aloud and typed from a slip: pairs of a consonant and a vowel, of which there are 75.</summary>
public static class Syllables
{
    private const string Consonants = "bdfghklmnprstvz";
    private const string Vowels = "aeiou";

    /// <summary>So many syllables by chance.</summary>
    public static string Make(int count) => string.Concat(Enumerable.Range(0, count).Select(_ =>
        $"{Consonants[RandomNumberGenerator.GetInt32(Consonants.Length)]}{Vowels[RandomNumberGenerator.GetInt32(Vowels.Length)]}"));

    /// <summary>As they are shown, a dash after each second one.</summary>
    public static string Show(string syllables) => string.Join('-', syllables.Chunk(4).Select(pair => new string(pair)));

    /// <summary>As somebody typed them: case, spaces and dashes do not matter.</summary>
    public static string Read(string typed) => string.Concat(typed.ToLowerInvariant().Where(char.IsAsciiLetterLower));
}
