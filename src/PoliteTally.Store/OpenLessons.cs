using System.Collections.Concurrent;
using PoliteTally.Store.Model;

namespace PoliteTally.Store;

/// <summary>
/// Keeps the lessons that are being worked on, each as it stands now. A lesson is read once, however many ask for it at the same time; what was read
/// before something changed is not kept.
/// </summary>
public sealed class OpenLessons(SchoolFile file)
{
    private const int MostOpen = 500;

    private readonly ConcurrentDictionary<(Guid Owner, Guid Lesson), Place> _places = new();

    /// <summary>A lesson has new entries on the disk, or its roster, rules or plan changed.</summary>
    public event Action<Guid>? Changed;

    /// <summary>A lesson as it stands; null if this owner has no such lesson.</summary>
    public async ValueTask<OpenLesson?> Find(Guid owner, Guid lesson) => Now(owner, lesson).Lesson ?? await Load(owner, lesson);

    /// <summary>Says that there is something new to show of a lesson though its ledger is as it was.</summary>
    public void Touch(Guid lesson) => Changed?.Invoke(lesson);

    /// <summary>Lets lessons be read anew: their row, roster, rules or plan changed.</summary>
    public void Forget(Func<Lesson, bool> which)
    {
        foreach (var (key, place) in _places)
        {
            if (place.Outdate(which))
            {
                Touch(key.Lesson);
            }
        }
    }

    /// <summary>A lesson that is open, with the generation of what it stands on; null if it is to be read first.</summary>
    internal (OpenLesson? Lesson, long Generation) Now(Guid owner, Guid lesson) =>
        _places.TryGetValue((owner, lesson), out var place) ? place.Now() : (null, 0);

    /// <summary>Puts a lesson in place of itself at an earlier position. Only the writer does, one at a time.</summary>
    /// <param name="next">The lesson with what is on the disk now.</param>
    /// <param name="generation">The generation that it was made from.</param>
    internal void Put(OpenLesson next, long generation)
    {
        if (_places.TryGetValue((next.Lesson.OwnerId, next.Lesson.Id), out var place))
        {
            place.Put(next, generation);
        }
    }

    /// <summary>Lets go of a lesson, ledger and all: what is known of it may not be what is on the disk.</summary>
    internal void Drop(Guid owner, Guid lesson)
    {
        if (_places.TryGetValue((owner, lesson), out var place))
        {
            place.Clear();
        }
    }

    /// <summary>Lets go of lessons that nobody works on, if there are many. Only the writer does, between two transactions.</summary>
    internal void MakeRoom()
    {
        if (_places.Count <= MostOpen)
        {
            return;
        }

        foreach (var (key, place) in _places)
        {
            if (place.Now().Lesson is { Lesson.Stage: not LessonStage.Live })
            {
                place.Clear();
                _places.TryRemove(new(key, place));
            }
        }
    }

    private async Task<OpenLesson?> Load(Guid owner, Guid lesson)
    {
        var place = _places.GetOrAdd((owner, lesson), _ => new Place());
        var found = await place.Loading(had =>
        {
            using var db = file.Open(owner);
            if (had is null)
            {
                return OpenLesson.Load(db, lesson, file.ShortForms);
            }

            using var moment = Moment.Of(db);
            return LessonGround.Load(db, lesson, file.ShortForms) is { } ground ? had.On(ground) : null;
        });
        if (found is null)
        {
            _places.TryRemove(new((owner, lesson), place));
        }

        return found;
    }

    /// <summary>The place of one lesson.</summary>
    private sealed class Place
    {
        private readonly Lock _lock = new();
        private OpenLesson? _now;
        private bool _outdated;
        private long _generation;
        private Task<OpenLesson?>? _loading;

        public (OpenLesson? Lesson, long Generation) Now()
        {
            lock (_lock)
            {
                return (_outdated ? null : _now, _generation);
            }
        }

        /// <summary>What is on the disk is this; if the ground changed meanwhile, it is read anew all the same.</summary>
        public void Put(OpenLesson next, long generation)
        {
            lock (_lock)
            {
                if (generation == _generation)
                {
                    _now = next;
                    return;
                }

                // What was being read lacks these entries, and what they were made from is out of date.
                (_now, _outdated) = (_now is null ? null : next, true);
                _generation++;
            }
        }

        /// <returns>Whether a lesson was open that is to be read anew.</returns>
        public bool Outdate(Func<Lesson, bool> which)
        {
            lock (_lock)
            {
                if (_now is { } now && !which(now.Lesson))
                {
                    return false;
                }

                // Of one that is being read nobody knows yet whether it is meant.
                _generation++;
                _outdated = true;
                return _now is not null;
            }
        }

        public void Clear()
        {
            lock (_lock)
            {
                (_now, _outdated) = (null, true);
                _generation++;
            }
        }

        /// <summary>Reads the lesson, once for all who ask meanwhile.</summary>
        public Task<OpenLesson?> Loading(Func<OpenLesson?, OpenLesson?> read)
        {
            lock (_lock)
            {
                if (_now is { } now && !_outdated)
                {
                    return Task.FromResult<OpenLesson?>(now);
                }

                return _loading ??= Task.Run(() => ReadUntilCurrent(read));
            }
        }

        private OpenLesson? ReadUntilCurrent(Func<OpenLesson?, OpenLesson?> read)
        {
            try
            {
                while (true)
                {
                    long generation;
                    OpenLesson? had;
                    lock (_lock)
                    {
                        (generation, had) = (_generation, _now);
                    }

                    var found = read(had);
                    lock (_lock)
                    {
                        if (generation == _generation)
                        {
                            (_now, _outdated, _loading) = (found, false, null);
                            return found;
                        }
                    }
                }
            }
            catch
            {
                lock (_lock)
                {
                    _loading = null;
                }

                throw;
            }
        }
    }
}
