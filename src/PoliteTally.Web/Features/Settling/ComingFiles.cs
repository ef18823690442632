using System.Collections.Concurrent;

namespace PoliteTally.Web.Features.Settling;

/// <summary>A file of which something is stored and something is not.</summary>
/// <param name="Name">Its name.</param>
/// <param name="Stored">How many of its entries are on the disk.</param>
/// <param name="Of">How many it has; 0 while it is not read.</param>
/// <param name="Before">How many other large files are read before it.</param>
public sealed record ComingFile(string Name, int Stored, int Of, int Before = 0);

/// <summary>The files that are being brought in right now, so that every window of their lesson can say how far they are.</summary>
internal sealed class ComingFiles
{
    private readonly ConcurrentDictionary<(Guid Lesson, Guid Request), ComingFile> _coming = new();

    /// <summary>Those of one lesson.</summary>
    public IReadOnlyList<ComingFile> Of(Guid lesson) => [.. _coming.Where(c => c.Key.Lesson == lesson).Select(c => c.Value)];

    /// <summary>Counts one in, until what this returns is disposed.</summary>
    /// <param name="lesson">The lesson.</param>
    /// <param name="name">The name of the file.</param>
    /// <param name="of">How many entries it has.</param>
    public Coming Begin(Guid lesson, string name, int of) => new(this, (lesson, Guid.NewGuid()), new ComingFile(name, 0, of));

    /// <summary>One file on its way.</summary>
    internal sealed class Coming : IDisposable
    {
        private readonly ComingFiles _all;
        private readonly (Guid Lesson, Guid Request) _key;
        private ComingFile _file;

        internal Coming(ComingFiles all, (Guid Lesson, Guid Request) key, ComingFile file)
        {
            (_all, _key, _file) = (all, key, file);
            _all._coming[key] = file;
        }

        /// <summary>So many more of its entries are on the disk.</summary>
        public void Stored(int more) => _all._coming[_key] = _file = _file with { Stored = _file.Stored + more };

        /// <inheritdoc/>
        public void Dispose() => _all._coming.TryRemove(_key, out _);
    }
}
