using PoliteTally.Web.Features.Settling;

namespace PoliteTally.Web.Tests;

/// <summary>How far a large file is can be seen for as long as it is on its way, in its own lesson.</summary>
public sealed class ComingFilesTests
{
    private static readonly Guid Tides = Guid.CreateVersion7(), Fog = Guid.CreateVersion7();

    [Fact]
    public void A_file_is_seen_with_what_is_stored_of_it_until_it_is_in()
    {
        var files = new ComingFiles();
        using (var chat = files.Begin(Tides, "chat.csv", 5000))
        {
            chat.Stored(2000);
            chat.Stored(500);
            files.Of(Tides).ShouldBe([new ComingFile("chat.csv", 2500, 5000)]);
            files.Of(Fog).ShouldBeEmpty();
        }

        files.Of(Tides).ShouldBeEmpty();
    }

    [Fact]
    public void Two_files_of_one_name_do_not_count_for_each_other()
    {
        var files = new ComingFiles();
        using var first = files.Begin(Tides, "chat.csv", 10);
        using (var second = files.Begin(Tides, "chat.csv", 30))
        {
            second.Stored(20);
            files.Of(Tides).OrderBy(f => f.Of).ShouldBe([new ComingFile("chat.csv", 0, 10), new ComingFile("chat.csv", 20, 30)]);
        }

        files.Of(Tides).ShouldBe([new ComingFile("chat.csv", 0, 10)]);
    }
}
