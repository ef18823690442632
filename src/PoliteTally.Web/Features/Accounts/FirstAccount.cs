using PoliteTally.Store;
using PoliteTally.Web.Hosting;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Features.Accounts;

/// <summary>
/// The making of the first account: by one person, one at a time. Where others than this machine are answered, it takes the word that the program
/// says when it starts, so that it is not whoever comes first.
/// </summary>
public sealed class FirstAccount(Settings settings, SchoolFile file) : IDisposable
{
    private readonly SemaphoreSlim _one = new(1, 1);

    /// <summary>The word; null where none is asked for, or where there is an account already.</summary>
    public string? Word { get; } = settings.Address is not null && IsToBeMade(file) ? Syllables.Show(Syllables.Make(6)) : null;

    /// <summary>Whether a word is the one that was said; true where none is asked for.</summary>
    public bool IsRight(string? word) => Word is null || (word is not null && SecretToken.HashOf(Syllables.Read(word)) == SecretToken.HashOf(Syllables.Read(Word)));

    /// <summary>Does something while nobody else makes an account.</summary>
    public async Task<T> Alone<T>(Func<Task<T>> make)
    {
        await _one.WaitAsync();
        try
        {
            return await make();
        }
        finally
        {
            _one.Release();
        }
    }

    /// <inheritdoc/>
    public void Dispose() => _one.Dispose();

    private static bool IsToBeMade(SchoolFile file)
    {
        using var db = file.Open(Guid.Empty);
        return !db.Users.Any();
    }
}
