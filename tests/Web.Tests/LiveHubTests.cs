using Microsoft.AspNetCore.SignalR;
using Microsoft.AspNetCore.SignalR.Client;
using Microsoft.Extensions.DependencyInjection;
using PoliteTally.Core.Ledger;
using PoliteTally.Web.Features.Live;

namespace PoliteTally.Web.Tests;

public sealed class LiveHubTests(AppUnderTest app) : IClassFixture<AppUnderTest>
{
    private HubConnection Window(Visitor visitor) => new HubConnectionBuilder()
        .WithUrl($"{app.Address}/live", options => options.Cookies = visitor.Cookies)
        .AddJsonProtocol(json => Wire.Configure(json.PayloadSerializerOptions))
        .Build();

    [Fact]
    public async Task A_second_window_hears_of_every_tap()
    {
        var room = await (await app.SignedIn()).Teach();
        await using var window = Window(room.Teacher);
        var heard = new TaskCompletionSource<LivePatch>(TaskCreationOptions.RunContinuationsAsynchronously);
        var wanted = (await room.Sheet()).Head.Position + 1;
        window.On<LivePatch>("patch", patch => _ = patch.Head.Position >= wanted && heard.TrySetResult(patch));
        await window.StartAsync();
        await window.InvokeAsync("Watch", room.Lesson);

        await room.Tap(new HandRaised(room.Students["Zainab"]));

        var patch = await heard.Task.WaitAsync(TimeSpan.FromSeconds(20));
        patch.Head.Hands.ShouldHaveSingleItem().Student.ShouldBe(room.Students["Zainab"]);
        patch.Rows.ShouldContain(r => r.Called == "Zainab");
    }

    [Fact]
    public async Task Nobody_watches_another_teacher_s_lesson()
    {
        var room = await (await app.SignedIn()).Teach();
        await using var window = Window(await app.SignedIn("odhran"));
        await window.StartAsync();
        (await Should.ThrowAsync<HubException>(() => window.InvokeAsync("Watch", room.Lesson))).Message.ShouldContain("no such lesson");
    }
}
