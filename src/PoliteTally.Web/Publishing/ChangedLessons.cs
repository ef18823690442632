using System.Diagnostics;
using PoliteTally.Store;

namespace PoliteTally.Web.Publishing;

/// <summary>
/// Sees to it that each lesson that changed is published, for itself and one time after the other: what changes meanwhile goes out together with
/// the next.
/// </summary>
internal sealed class ChangedLessons
{
    private readonly Lock _lock = new();
    private readonly Dictionary<Guid, bool> _going = [];
    private readonly Func<Guid, Task> _publish;
    private readonly Func<TimeSpan, TimeSpan> _rest;
    private readonly CancellationToken _stopping;

    /// <param name="openLessons">They say what changed.</param>
    /// <param name="publish">Publishes one lesson. It does not throw.</param>
    /// <param name="rest">How long to rest after what took so long, so that a busy lesson costs a bounded share of the machine.</param>
    /// <param name="stopping">Ends it.</param>
    public ChangedLessons(OpenLessons openLessons, Func<Guid, Task> publish, Func<TimeSpan, TimeSpan> rest, CancellationToken stopping)
    {
        (_publish, _rest, _stopping) = (publish, rest, stopping);
        openLessons.Changed += Changed;
        stopping.Register(() => openLessons.Changed -= Changed);
    }

    private void Changed(Guid lesson)
    {
        lock (_lock)
        {
            if (_going.ContainsKey(lesson))
            {
                _going[lesson] = true;
                return;
            }

            _going[lesson] = false;
        }

        _ = Task.Run(() => PublishUntilCurrent(lesson), _stopping);
    }

    private async Task PublishUntilCurrent(Guid lesson)
    {
        try
        {
            do
            {
                var took = Stopwatch.StartNew();
                await _publish(lesson);
                await Task.Delay(_rest(took.Elapsed), _stopping);
            }
            while (ChangedMeanwhile(lesson));
        }
        catch (OperationCanceledException)
        {
            // The application ends.
        }
    }

    private bool ChangedMeanwhile(Guid lesson)
    {
        lock (_lock)
        {
            if (_going[lesson])
            {
                _going[lesson] = false;
                return true;
            }

            _going.Remove(lesson);
            return false;
        }
    }
}
