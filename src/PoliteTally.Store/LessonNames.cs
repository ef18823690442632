using PoliteTally.Core.Ledger;
using PoliteTally.Core.Names;

namespace PoliteTally.Store;

/// <summary>
/// Whose the names in the meeting of a lesson are, as far as they tell by themselves. A name is looked at once. It has a lock of its own: nobody
/// who notes something waits for a comparison.
/// </summary>
internal sealed class LessonNames(OpenLesson lesson)
{
    private readonly Lock _lock = new();
    private readonly Dictionary<(ShownName Shown, bool Several), NameMatch> _matches = [];
    private NameMatcher? _matcher;

    public NameMatch Of(ShownName shown, bool several)
    {
        lock (_lock)
        {
            var key = (shown, Several: several || IsOfSeveral(shown));
            return _matches.GetValueOrDefault(key) ?? (_matches[key] = Matcher().Match(shown, key.Several));
        }
    }

    public IReadOnlyList<NameMatch> Of(IReadOnlyList<ShownName> list)
    {
        lock (_lock)
        {
            return Matcher().Match(list, IsOfSeveral);
        }
    }

    private bool IsOfSeveral(ShownName shown) => lesson.State.Names.AreSeveral(shown.Name, shown.Beside);

    private NameMatcher Matcher() => _matcher ??= new NameMatcher(lesson.Roster.Select(s => s.Name), lesson.Ground.Confirmed.Concat(ConfirmedHere()), lesson.Ground.ShortForms);

    // What the teacher said of a name in this lesson counts for it in other capitals and spaces, too.
    private IEnumerable<ConfirmedName> ConfirmedHere() => lesson.State.Names.All.Values
        .Where(n => n.Match is { Source: Source.Tapped })
        .Select(n => new ConfirmedName(n.Name, n.Match!.Student is { } id ? lesson.Whose(id) : null, lesson.State.Names.TellingApart(n.Name, n.Beside)));
}
