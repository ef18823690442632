using System.Globalization;
using System.Text;

namespace PoliteTally.Formats.Tests.MadeUp;

/// <summary>A stretch of speech as it was, in seconds from the start of the recording.</summary>
public sealed record TrueSpeech(string Name, double From, double Length);

/// <summary>Captions in a layout that was drawn at random, and what they say.</summary>
public sealed record MadeUpCaption(string Layout, string Text, IReadOnlyList<TrueSpeech> Speeches);

/// <summary>Writes captions in layouts drawn at random: how times and speakers are written, over one line or several.</summary>
public sealed class MadeUpCaptions(int seed)
{
    private static readonly (string Told, Func<string, string, string> Write)[] Marks =
    [
        ("voice", (n, w) => $"<v {n}>{w}</v>"), ("voice, open", (n, w) => $"<v.loud {n}>{w}"), ("colon", (n, w) => $"{n}: {w}"), ("dash and colon", (n, w) => $"- {n}: {w}"), ("arrows and colon", (n, w) => $">> {n}: {w}"),
        ("square", (n, w) => $"[{n}] {w}"), ("square and colon", (n, w) => $"[{n}]: {w}"), ("round", (n, w) => $"({n}) {w}"), ("dash behind", (n, w) => $"{n} - {w}"), ("alone", (n, w) => $"{n}\n{w}"), ("alone with colon", (n, w) => $"{n}:\n{w}"),
    ];

    private static readonly string[] Sentences =
    [
        "I think that the wind backs", "because a low passes", "look: it falls", "yes", "three things: wind, waves, water", "and then (I think) it turns", "well - maybe not", "look at the second map", "is it [nearly] full moon?", "no idea", "the tide is high at ten",
    ];

    private readonly Random _random = new(seed);

    /// <summary>Draws the next one.</summary>
    public MadeUpCaption Draw()
    {
        var (mark, web, numbers, hours, more, tags, twoLines) = (_random.Of(Marks), _random.Next(2) == 0, _random.Next(2) == 0, _random.Next(3) > 0, _random.Next(3) == 0, _random.Next(4) == 0, _random.Next(3) == 0);
        var students = MadeUpClass.Students.ToArray();
        _random.Shuffle(students);
        var names = students.Take(_random.Next(2, 12)).Select(s => $"{s.Given} {s.Family}").Append(MadeUpClass.Teacher).ToList();
        var (text, speeches, at) = (new StringBuilder(web ? "WEBVTT\n\n" : ""), new List<TrueSpeech>(), _random.Next(60) * 1.0);
        for (int i = _random.Next(8, 60), number = 1; i > 0; i--)
        {
            var (name, length) = (_random.Of(names), 1 + (_random.Next(80) / 4.0));
            var words = tags ? $"<i>{_random.Of(Sentences)}</i>" : _random.Of(Sentences);
            Cue(at, at + length, mark.Write(name, twoLines ? $"{words}\n{_random.Of(Sentences)}" : words));
            var whole = length;
            if (more && _random.Next(4) == 0)
            {
                // Who goes on is not named again.
                Cue(at + length + 1, at + length + 3, "and so on");
                whole += 3;
            }

            speeches.Add(new TrueSpeech(name, at, whole));
            at += whole + 4 + _random.Next(20);

            void Cue(double from, double to, string said) => text.Append($"{(numbers || !web ? $"{number++}\n" : "")}{Told(from)} --> {Told(to)}{(web && tags ? " align:start" : "")}\n{said}\n\n");
        }

        return new MadeUpCaption($"{(web ? "WebVTT" : "SubRip")}, {mark.Told}{(more ? ", unnamed go on" : "")}{(twoLines ? ", two lines" : "")}{(tags ? ", tags" : "")}", text.ToString(), speeches);

        string Told(double seconds)
        {
            var time = TimeSpan.FromSeconds(seconds);
            var whole = time.ToString(hours || !web ? @"hh\:mm\:ss\.fff" : @"mm\:ss\.fff", CultureInfo.InvariantCulture);
            return web ? whole : whole.Replace('.', ',');
        }
    }
}
