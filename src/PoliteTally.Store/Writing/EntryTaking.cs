using NodaTime;
using PoliteTally.Core.Course;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Lessons;
using PoliteTally.Core.Questions;
using PoliteTally.Store.Model;

namespace PoliteTally.Store.Writing;

/// <summary>How one entry is taken: checked, stored, and followed by what it brings with it.</summary>
internal static class EntryTaking
{
    /// <summary>Takes an entry.</summary>
    /// <returns>Why it is not taken; null if it is, now or before.</returns>
    public static string? Take(NewEntry sent, Source source, string by, Draft draft, Instant at)
    {
        if (draft.ActOf(sent.Id) is not null)
        {
            return null;
        }

        var now = draft.NotedAt(at);
        var entry = new Entry(sent.Id, OnTheDisk(sent.HappenedAt), now, source, by, sent.Act, sent.Together);
        if (WhyRefused(entry, draft, now) is { } why)
        {
            return why;
        }

        if (entry.Act is AnswerGiven given)
        {
            var kept = AnswerRules.Kept(draft.State().Questions.Of(given.Asking)!.Question, given.Answer);
            entry = entry with { Act = given with { Answer = kept } };
        }

        if (!draft.Store(entry))
        {
            return "This entry is in another lesson already.";
        }

        Ballots.Follow(entry, draft);
        RememberedNames.Follow(entry, draft);
        LessonCourse.Follow(entry, draft);
        return null;
    }

    /// <summary>A moment as the file keeps it, in milliseconds: what is reckoned from memory must be what will be read back.</summary>
    public static Instant OnTheDisk(Instant at) => Instant.FromUnixTimeMilliseconds(at.ToUnixTimeMilliseconds());

    private static string? WhyRefused(Entry entry, Draft draft, Instant now)
    {
        // To end and to settle is always possible, and so is to take something back.
        if (draft.Before.Count + draft.Stored.Count >= OpenLesson.MostEntries && entry.Act is not (LessonEnded or LessonSettled or Struck))
        {
            return $"This lesson has {OpenLesson.MostEntries:N0} entries, the most that one can have. End it, and go on in a new one.";
        }

        return EntryRules.WhyRefused(
            entry,
            new LessonFacts(
                OpenLesson.TimesOf(draft.Lesson), draft.Before.Ground.RosterIds, draft.Lesson.Stage == LessonStage.Settled, draft.ActOf,
                () => draft.State().Parts, draft.Lesson.CancelledAt is not null, draft.Before.Rules.SignalsAnyTime, draft.Before.Rules.StudentsHandOn,
                draft.Before.Ground.Schemes.Count, draft.Before.Ground.Levels),
            now);
    }
}
