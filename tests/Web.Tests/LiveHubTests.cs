using System.Threading.Channels;
using Microsoft.AspNetCore.SignalR;
using Microsoft.AspNetCore.SignalR.Client;
using Microsoft.Extensions.DependencyInjection;
using PoliteTally.Core.Hands;
using PoliteTally.Web.Features.Classes;
using PoliteTally.Web.Features.GroundRules;
using PoliteTally.Web.Features.Live;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Tests;

public sealed class LiveHubTests(AppUnderTest app) : IClassFixture<AppUnderTest>
{
    private HubConnection Window(Visitor visitor) => new HubConnectionBuilder()
        .WithUrl($"{app.Address}/live", options => options.Cookies = visitor.Cookies)
        .AddJsonProtocol(json => JsonFormat.Configure(json.PayloadSerializerOptions))
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
    public async Task An_open_window_hears_of_changed_rules_and_of_who_joins_and_leaves()
    {
        var room = await (await app.SignedIn()).Teach();
        await using var window = Window(room.Teacher);
        var patches = Channel.CreateUnbounded<LivePatch>();
        window.On<LivePatch>("patch", patch => patches.Writer.TryWrite(patch));
        await window.StartAsync();
        await window.InvokeAsync("Watch", room.Lesson);

        var rules = await room.Teacher.Get<RulesView>($"/api/classes/{room.Class}/rules");
        await room.Teacher.Put<RulesStored>($"/api/classes/{room.Class}/rules", new RulesSent(rules.Rules with { NodReasons = ["careful drawing"] }));
        (await Heard(p => p.Head.NodReasons is ["careful drawing"])).Order.Count.ShouldBe(3);

        var pip = await room.Teacher.Post<StudentLine>($"/api/classes/{room.Class}/students", new StudentRecord(null, "Farrow", "Pip", null, null, null, null, null, true));
        (await Heard(p => p.Order.Count == 4)).Rows.ShouldContain(r => r.Id == pip.Id);

        async Task<LivePatch> Heard(Func<LivePatch, bool> wanted)
        {
            using var patience = new CancellationTokenSource(TimeSpan.FromSeconds(20));
            while (true)
            {
                if (await patches.Reader.ReadAsync(patience.Token) is var patch && wanted(patch))
                {
                    return patch;
                }
            }
        }
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
