using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Http.Features;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Tests;

/// <summary>Large files are read one at a time, in the order in which they came, and each knows its place.</summary>
public sealed class ReadingLineTests
{
    private readonly ReadingLine _line = new();

    private sealed class Answer : HttpResponseFeature
    {
        private readonly List<Func<Task>> _done = [];

        public override void OnCompleted(Func<object, Task> callback, object state) => _done.Add(() => callback(state));

        public async Task Goes()
        {
            foreach (var done in _done)
            {
                await done();
            }
        }
    }

    private (Task Turn, Answer Answer) Comes(string lesson, string name, long bytes = Formats.ReadingRoom.Large, CancellationToken gone = default)
    {
        var answer = new Answer();
        var http = new DefaultHttpContext { RequestAborted = gone };
        http.Features.Set<IHttpResponseFeature>(answer);
        http.Request.RouteValues["id"] = lesson;
        return (_line.Wait(http, bytes, name), answer);
    }

    [Fact]
    public async Task One_after_the_other_and_small_ones_past_all_of_them()
    {
        var (first, second, third) = (Comes("a", "chat.csv"), Comes("b", "list.csv"), Comes("b", "captions.vtt"));
        await first.Turn;
        Comes("b", "small.csv", Formats.ReadingRoom.Large - 1).Turn.IsCompleted.ShouldBeTrue();
        (second.Turn.IsCompleted, third.Turn.IsCompleted).ShouldBe((false, false));
        _line.WaitingFor("a").ShouldBeEmpty();
        _line.WaitingFor("B").ShouldBe([new WaitingFile("list.csv", 1), new WaitingFile("captions.vtt", 2)]);

        await first.Answer.Goes();
        await second.Turn;
        _line.WaitingFor("b").ShouldBe([new WaitingFile("captions.vtt", 1)]);
        await second.Answer.Goes();
        await third.Turn;
        await third.Answer.Goes();
        await Comes("a", "chat.csv").Turn;
    }

    [Fact]
    public async Task Whoever_goes_away_leaves_the_line()
    {
        using var gone = new CancellationTokenSource();
        var (first, second, third) = (Comes("a", "1.csv"), Comes("a", "2.csv", gone: gone.Token), Comes("a", "3.csv"));
        await gone.CancelAsync();
        await Should.ThrowAsync<OperationCanceledException>(second.Turn);
        await second.Answer.Goes();
        third.Turn.IsCompleted.ShouldBeFalse();
        await first.Answer.Goes();
        await third.Turn;
    }
}
