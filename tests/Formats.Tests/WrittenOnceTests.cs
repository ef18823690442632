using System.Text;
using NodaTime;
using PoliteTally.Core.Merging;
using PoliteTally.Formats.Tests.MadeUp;

namespace PoliteTally.Formats.Tests;

/// <summary>What a program writes once and means again and again: whose the following messages are, who an id is, of which day a tick is.</summary>
public sealed class WrittenOnceTests
{
    private static readonly Instant From = MadeUpChats.From;
    private static readonly MadeUpClass Class = new();

    private static readonly (string Time, string Name, string Text)[] Said =
    [
        ("09:33", "Juno Quillfeather", "why does the haar come in?"), ("09:34", "Eino Rautio", "the water is cold"), ("09:36", "Birkir Árnason", "two: spring and neap"),
        ("09:37", "Birkir Árnason", "and then again"), ("09:38", "Birkir Árnason", "once more"), ("09:41", "Saga Eriksdotter", "is it 3 - 4 degrees?"), ("09:44", "Juno Quillfeather", "thanks"),
    ];

    private static byte[] Bytes(string text) => PlainContent.Of(Encoding.UTF8.GetBytes(text));

    private static IEnumerable<string> Read(string text)
    {
        MadeUpReading.KindsOf(Bytes(text), Class).ShouldBe([FileKind.Chat]);
        var read = ChatFile.Read(Bytes(text), null, MadeUpReading.Zone, From, Class.IsNameHere);
        read.Rows.ShouldAllBe(r => r.Problems.Count == 0);
        return read.Rows.Select(r => $"{r.At!.Value.InZone(MadeUpReading.Zone).TimeOfDay:HH:mm} {r.Name}: {r.Text}");
    }

    private static string Each(string first, string next) =>
        string.Concat(Said.Select((m, i) => string.Format(System.Globalization.CultureInfo.InvariantCulture, i > 0 && Said[i - 1].Name == m.Name ? next : first, m.Time, m.Name, m.Text)));

    [Theory]
    [InlineData("{1} {0}\n{2}\n", "{0}\n{2}\n")]
    [InlineData("{1}\n{0}\n{2}\n", "{0}\n{2}\n")]
    [InlineData("{0}\n{1}\n{2}\n", "{0}\n{2}\n")]
    [InlineData("{1}\n{2}  {0}\n", "{2}  {0}\n")]
    [InlineData("{1} {0} AM\n{2}\n\n", "{0} AM\n{2}\n\n")]
    public void Whoever_goes_on_is_not_named_again(string first, string next) => Read(Each(first, next)).ShouldBe(Said.Select(m => $"{m.Time} {m.Name}: {m.Text}"));

    [Fact]
    public void A_time_that_is_all_somebody_wrote_is_what_they_wrote() =>
        Read(Each("{1} {0}\n{2}\n", "{1} {0}\n{2}\n").Replace("once more", "9:15")).ShouldBe(Said.Select(m => $"{m.Time} {m.Name}: {m.Text.Replace("once more", "9:15")}"));

    [Fact]
    public void Names_over_all_that_each_of_them_wrote()
    {
        var people = Said.GroupBy(m => m.Name).ToList();
        Read(string.Concat(people.Select(p => $"{p.Key}\n{string.Concat(p.Select(m => $"  {m.Time} {m.Text}\n"))}"))).ShouldBe(people.SelectMany(p => p).Select(m => $"{m.Time} {m.Name}: {m.Text}"));
    }

    [Theory]
    [InlineData("{{\"users\":{{{0}}},\"messages\":[{1}]}}", "\"u{0}\":{{\"name\":\"{1}\",\"role\":\"student\"}}", "{{\"user\":\"u{0}\",\"ts\":\"2026-11-02T{1}:00Z\",\"text\":\"{2}\"}}")]
    [InlineData("{{\"people\":[{0}],\"events\":[{1}]}}", "{{\"id\":{0},\"displayName\":\"{1}\"}}", "{{\"kind\":\"chat\",\"senderId\":{0},\"at\":\"2026-11-02T{1}:00Z\",\"body\":\"{2}\"}}")]
    public void An_id_is_who_has_it(string file, string person, string message)
    {
        static string With(string pattern, params object[] parts) => string.Format(System.Globalization.CultureInfo.InvariantCulture, pattern, parts);
        var names = Said.Select(m => m.Name).Distinct().Concat(MadeUpClass.Students.Skip(10).Take(15).Select(s => $"{s.Given} {s.Family}")).ToList();
        Read(With(file, string.Join(',', names.Select((n, i) => With(person, i, n))), string.Join(',', Said.Select(m => With(message, names.IndexOf(m.Name), m.Time, m.Text)))))
            .ShouldBe(Said.Select(m => $"{m.Time} {m.Name}: {m.Text}"));
    }

    [Theory]
    [InlineData("{\"items\":[{\"id\":1,\"name\":\"Juno\",\"points\":2},{\"id\":2,\"name\":\"Eino\",\"points\":1}]}")]
    [InlineData("{\"Juno\":{\"q1\":\"A\",\"q2\":\"B\"},\"Eino\":{\"q1\":\"B\",\"q2\":\"B\"}}")]
    [InlineData("{\"people\":[{\"id\":1,\"name\":\"Juno\"},{\"id\":2,\"name\":\"Eino\"}],\"rows\":[{\"name\":\"Juno\",\"score\":1},{\"name\":\"Eino\",\"score\":2}]}")]
    [InlineData("{\"Juno\":{\"q1\":\"A\",\"q2\":\"B\"},\"Eino\":{\"q1\":\"B\"},\"Saga\":{\"q2\":\"C\"}}")]
    public void A_number_that_is_no_id_stays(string json) => Bytes(json).ShouldBe(Encoding.UTF8.GetBytes(json));

    [Fact]
    public void Ticks_of_other_days_are_said_to_be_of_those()
    {
        var text = $"Name;26.10.;09.11.\n{string.Concat(Said.Select(m => m.Name).Distinct().Select(n => $"{n};x;\n"))}";
        Should.Throw<OtherDays>(() => MadeUpReading.KindsOf(Bytes(text), Class)).Message.ShouldContain("2026-11-02");
    }

    [Fact]
    public void Who_writes_in_turn_is_no_label() => Read(string.Concat(Said.Take(2).SelectMany((_, i) => Said.Select(m => $"{m.Name}: {m.Text} - {m.Time.Replace(':', '.')}\n").Take(6 - i)))).Count().ShouldBe(11);

    [Fact]
    public void A_number_like_a_time_goes_on_with_what_was_said() =>
        Read(Each("{0} | {1}: {2}\n", "{0} | {1}: {2}\n").Replace(":3", ".3").Replace(":4", ".4").Replace("thanks", "thanks\n1.10 m at the quay")).Last().ShouldBe("09:44 Juno Quillfeather: thanks 1.10 m at the quay");

    [Fact]
    public void A_length_beside_two_times_over_midnight_is_no_time()
    {
        var list = "Juno Quillfeather,23:35,00:15,00:40:00\nEino Rautio,23:31,00:05,00:34:00\nZainab Usman,23:40,23:59,00:19:00\n";
        var late = Instant.FromUtc(2026, 11, 2, 23, 30);
        var read = AttendanceFile.Read(Encoding.UTF8.GetBytes(list), null, MadeUpReading.Zone, late, late + Duration.FromMinutes(50));
        read.Unclear.ShouldBeEmpty();
        read.Rows.Select(r => (r.Left - r.Joined)!.Value.TotalMinutes).ShouldBe([40, 34, 19]);
    }
}
