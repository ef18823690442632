using System.Text;
using MimeKit;

namespace PoliteTally.Formats.Tests;

/// <summary>Files are taken out of mails and archives, and nothing else of those is kept.</summary>
public sealed class EnclosedFilesTests
{
    private const string List = "Name,Joined,Left\nJuno Quillfeather,09:31,10:20\n";

    private static byte[] Mail(params (string Name, string Content)[] files)
    {
        var body = new BodyBuilder { TextBody = "Here is the list of today." };
        foreach (var (name, content) in files)
        {
            body.Attachments.Add(name, Encoding.UTF8.GetBytes(content), ContentType.Parse("text/csv"));
        }

        var mail = new MimeMessage([new MailboxAddress("Meetings", "meetings@skerrysound.example")], [new MailboxAddress("Tamsin Vale", "tamsin@skerrysound.example")], "Lesson 12", body.ToMessageBody());
        using var written = new MemoryStream();
        mail.WriteTo(written);
        return written.ToArray();
    }

    private static byte[] Archived(params (string Name, string Content)[] files) => Written.Zip([.. files.Select(f => (f.Name, Written.Utf8(f.Content)))]);

    private static IEnumerable<(string, string)> In(byte[] bytes) => EnclosedFiles.In(bytes).Files.Select(f => (f.Name, Encoding.UTF8.GetString(f.Content)));

    [Fact]
    public void Of_a_mail_its_files_are_taken() => In(Mail(("anwesenheit – Tide.csv", List), ("chat.txt", "09:41 Juno: why?"))).ShouldBe([("anwesenheit – Tide.csv", List), ("chat.txt", "09:41 Juno: why?")]);

    [Fact]
    public void Of_an_archive_its_files_are_taken_whatever_folder_they_lie_in() =>
        In(Archived(("lesson 12/list.csv", List), ("lesson 12/.of-a-program", "x"), ("../chat.txt", "09:41 Juno: why?"))).ShouldBe([("list.csv", List), ("chat.txt", "09:41 Juno: why?")]);

    [Theory]
    [InlineData("Name,Joined,Left\n", "neither a mail nor an archive")]
    [InlineData("", "neither a mail nor an archive")]
    public void What_holds_no_files_is_refused(string text, string why) => Should.Throw<FormatProblem>(() => EnclosedFiles.In(Encoding.UTF8.GetBytes(text))).Message.ShouldContain(why);

    [Fact]
    public void Files_of_one_name_in_several_folders_are_all_taken_and_called_by_their_folders() =>
        In(Archived(("room A/list.csv", List), ("room B/list.csv", "x"), ("chat.txt", "y"))).ShouldBe([("room A, list.csv", List), ("room B, list.csv", "x"), ("chat.txt", "y")]);

    [Fact]
    public void Of_a_mail_without_files_its_text_is_taken() => In(Mail()).Select(f => (f.Item1, f.Item2.Trim())).ShouldBe([("Lesson 12", "Here is the list of today.")]);

    [Fact]
    public void A_mail_with_nothing_in_it_is_refused() =>
        Should.Throw<FormatProblem>(() => EnclosedFiles.In(Encoding.UTF8.GetBytes("From: tamsin@skerrysound.example\r\nSubject: Lesson 12\r\n\r\n \r\n"))).Message.ShouldContain("No files");

    [Fact]
    public void Too_many_files_are_refused() =>
        Should.Throw<FormatProblem>(() => EnclosedFiles.In(Archived([.. Enumerable.Range(0, 21).Select(i => ($"{i}.csv", List))]))).Message.ShouldContain("21 files; at most 20");

    [Fact]
    public void Too_much_in_it_is_refused() =>
        Should.Throw<FormatProblem>(() => EnclosedFiles.In(Archived(("a.txt", new string('a', 15_000_000)), ("b.txt", new string('b', 15_000_000))))).Message.ShouldContain("larger than 20 MB");

    [Fact]
    public void A_broken_archive_is_refused() => Should.Throw<FormatProblem>(() => EnclosedFiles.In(Archived(("list.csv", List))[..60])).Message.ShouldContain("broken");
}
