using System.Text;
using NodaTime;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Merging;

namespace PoliteTally.Formats.Tests;

/// <summary>Captions become stretches of speech: who, from when, how long, and what was said only where that is to be kept.</summary>
public sealed class CaptionsFileTests
{
    private static readonly Instant From = Instant.FromUtc(2026, 11, 2, 9, 30);
    private static readonly DateTimeZone Faroe = DateTimeZoneProviders.Tzdb["Atlantic/Faroe"];

    private static CaptionsPreview Read(string text) => CaptionsFile.Read(Encoding.UTF8.GetBytes(text), Faroe, From, _ => false);

    private static string Told(CaptionsPreview captions) => string.Join("; ", captions.Rows.Select(r => $"{r.Name} {(r.From - From).TotalSeconds}+{r.Length.TotalSeconds}"));

    public static readonly TheoryData<string, string, string> Layouts = new()
    {
        { "WebVTT with voices", "WEBVTT\n\n00:01:05.000 --> 00:01:17.500\n<v Ana P>I think that the wind backs\n\n00:01:19.000 --> 00:01:30.000\n<v Ana P>because a low passes.</v>\n\n00:02:00.000 --> 00:02:04.000\n<v Eino R.>yes</v>\n", "Ana P 65+25; Eino R. 120+4" },
        { "voices with classes, numbered, no hours", "WEBVTT - Tides\n\n1\n01:05.000 --> 01:17.500 align:start\n<v.loud Ana P>I think so\n\n2\n02:00.000 --> 02:04.000\n<v Eino R.>yes\n", "Ana P 65+12.5; Eino R. 120+4" },
        { "WebVTT with labels", "WEBVTT\n\n00:01:05.000 --> 00:01:17.500\nAna P: I think that the wind backs\n\n00:02:00.000 --> 00:02:04.000\nEino R.: yes\n", "Ana P 65+12.5; Eino R. 120+4" },
        { "SubRip", "1\r\n00:01:05,000 --> 00:01:17,500\r\nAna P: I think that the wind backs\r\n\r\n2\r\n00:01:18,000 --> 00:01:25,000\r\nand it rains\r\n\r\n3\r\n00:02:00,000 --> 00:02:04,000\r\nEino R.: yes\r\n", "Ana P 65+20; Eino R. 120+4" },
        { "a transcript", "[00:00:05] Tamsin Vale: good morning\n[00:01:05] Ana P: I think that the wind backs\n[00:01:15] Eino R.: yes\n", "Tamsin Vale 5+20; Ana P 65+10; Eino R. 75+5" },
    };

    [Theory]
    [MemberData(nameof(Layouts))]
    public void Layout(string what, string text, string told)
    {
        var captions = Read(text);
        captions.Problems.ShouldBeEmpty(what);
        Told(captions).ShouldBe(told, what);
        captions.FromStart.ShouldBeTrue();
        FileRecognition.CouldBe(Encoding.UTF8.GetBytes(text), Faroe, From, From + Duration.FromMinutes(50), _ => false).ShouldBe([FileKind.Captions], what);
    }

    [Theory]
    [InlineData("WEBVTT\n\n00:01:05.000 --> 00:01:17.500\n<v Ana P>I think that the <i>wind</i> backs\n\n00:01:19.000 --> 00:01:30.000\n<v Ana P>because a low\npasses.</v>\n", "I think that the wind backs because a low passes.")]
    [InlineData("1\n00:01:05,000 --> 00:01:17,500\nAna P: I think: it backs\n\n2\n00:01:18,000 --> 00:01:25,000\nand it\nrains\n", "I think: it backs and it rains")]
    [InlineData("[00:01:05] Ana P: I think that it backs\n[00:01:12] Ana P: and it rains\n", "I think that it backs and it rains")]
    public void What_was_said_is_kept_only_if_the_class_says_so(string text, string said)
    {
        CaptionsFile.Read(Encoding.UTF8.GetBytes(text), Faroe, From, _ => false, keepsWords: true).Rows.ShouldHaveSingleItem().Said.ShouldBe(said);
        Read(text).Rows.ShouldHaveSingleItem().Said.ShouldBeNull();
    }

    [Fact]
    public void Of_a_long_speech_as_many_words_are_kept_as_an_entry_takes()
    {
        var text = new StringBuilder("WEBVTT\n");
        for (var i = 0; i < 200; i++)
        {
            text.Append($"\n00:{i / 60:00}:{i % 60:00}.000 --> 00:{i / 60:00}:{i % 60:00}.900\n<v Ana P>and so the water follows the moon\n");
        }

        CaptionsFile.Read(Encoding.UTF8.GetBytes(text.ToString()), Faroe, From, _ => false, keepsWords: true).Rows.ShouldHaveSingleItem().Said!.Length.ShouldBe(TextLimits.LongestText);
    }

    [Theory]
    [InlineData("1:05.5", "0:01:30,25", 65.5, 24.75)]
    [InlineData("00:00.001", "100:00:00.000", 0.001, 359999.999)]
    public void Times_of_captions_are_read_as_written(string from, string to, double begins, double lasts) =>
        Read($"WEBVTT\n\n{from} --> {to}\n<v Ana>x\n").Rows.ShouldHaveSingleItem().ShouldSatisfyAllConditions(
            s => (s.From - From).TotalSeconds.ShouldBe(begins, 0.0001), s => s.Length.TotalSeconds.ShouldBe(lasts, 0.0001));

    [Fact]
    public void A_chat_by_the_clock_is_no_transcript() =>
        FileRecognition.CouldBe(Encoding.UTF8.GetBytes("[09:41:05] Ana P: I think that the wind backs\n[09:42:15] Eino R.: yes, I think so\n"), Faroe, From, From + Duration.FromMinutes(50), _ => false).ShouldBe([FileKind.Chat]);

    [Fact]
    public void A_caption_that_names_nobody_goes_on_with_whoever_spoke_just_before_and_else_is_nobodys()
    {
        var captions = Read("WEBVTT\n\n00:00:01.000 --> 00:00:03.000\nmusic\n\n00:01:00.000 --> 00:01:05.000\nAna P: I think\n\n00:01:06.000 --> 00:01:10.000\nthat it backs\n\n00:02:00.000 --> 00:02:10.000\nlaughter\n");
        Told(captions).ShouldBe("Ana P 60+10");
        captions.LeftOut.ShouldBe(2);
    }

    [Theory]
    [InlineData("WEBVTT\n\n00:00:01.000 --> 00:00:03.000\nnobody is named\n")]
    [InlineData("WEBVTT\n\n00:00:05.000 --> 00:00:03.000\nAna: it ends before it begins\n")]
    public void Captions_without_names_say_so(string text) => Read(text).Problems.ShouldHaveSingleItem().ShouldContain("who spoke");

    [Theory]
    [InlineData("")]
    [InlineData("WEBVTT\n")]
    public void What_has_no_captions_is_refused(string text) => Should.Throw<FormatProblem>(() => Read(text));

    [Fact]
    public void A_hundred_thousand_captions_are_read_and_one_more_is_refused()
    {
        var text = new StringBuilder("WEBVTT\n");
        for (var i = 0; i < CaptionsFile.MostCues; i++)
        {
            text.Append($"\n{i / 3600:00}:{i / 60 % 60:00}:{i % 60:00}.000 --> {i / 3600:00}:{i / 60 % 60:00}:{i % 60:00}.500\n<v Speaker {i % 7}>x\n");
        }

        Read(text.ToString()).Rows.Count.ShouldBe(CaptionsFile.MostCues);
        Should.Throw<FormatProblem>(() => Read(text.Append("\n40:00:00.000 --> 40:00:01.000\n<v Ana>x\n").ToString())).Message.ShouldContain("100,000");
    }
}
