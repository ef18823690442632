using System.Net;
using System.Net.Http.Json;
using PoliteTally.Core.Questions;
using PoliteTally.Web.Features.Classes;
using PoliteTally.Web.Features.StudentPage;

namespace PoliteTally.Web.Tests;

/// <summary>A student's browser on the page of a lesson: it has the code, and a pass or a name.</summary>
public sealed class Pupil(string address, string code) : IDisposable
{
    public CookieContainer Cookies { get; } = new();

    public HttpClient Http => field ??= new HttpClient(new HttpClientHandler { CookieContainer = Cookies })
    {
        BaseAddress = new Uri(address),
    };

    public string Code => code;

    public static async Task<string> CodeOf(Classroom room) => (await room.Teacher.Get<WayIn>($"/api/lessons/{room.Lesson}/way-in")).Code;

    /// <summary>New passes for the whole class, by what each student is called.</summary>
    public static async Task<Dictionary<string, string>> Passes(Classroom room) =>
        (await room.Teacher.Post<List<PassSlip>>($"/api/classes/{room.Class}/passes", new PassesWanted([.. room.Students.Values]))).ToDictionary(s => s.Called, s => s.Pass);

    /// <summary>A browser without anybody.</summary>
    public static async Task<Pupil> Before(Classroom room) => new(room.Teacher.Http.BaseAddress!.ToString(), await CodeOf(room));

    /// <summary>A student who came in with their pass.</summary>
    public static async Task<Pupil> In(Classroom room, string pass)
    {
        var pupil = await Before(room);
        await Visitor.Read<PageView>(await pupil.Enter(pass));
        return pupil;
    }

    public Task<HttpResponseMessage> Enter(string? pass, string? name = null, bool remember = false) =>
        Http.PostAsJsonAsync($"/api/page/{code}/enter", new PageEntry(pass, name, remember), Visitor.Json);

    public async Task<PageView> See() => (await Http.GetFromJsonAsync<PageView>($"/api/page/{code}", Visitor.Json))!;

    public Task<HttpResponseMessage> Send(PageAct act) => Http.PostAsJsonAsync($"/api/page/{code}/acts", act, Visitor.Json);

    public async Task<PageOwn> Do(PageDoing doing, Guid? asking = null, Answer? answer = null, string? text = null, Core.Chat.ChatKind? kind = null, Guid? id = null) =>
        await Visitor.Read<PageOwn>(await Send(new PageAct(id ?? Guid.CreateVersion7(), doing, asking, answer, text, kind)));

    /// <summary>Hands on to somebody.</summary>
    public Task<HttpResponseMessage> HandOn(Guid to) => Send(new PageAct(Guid.CreateVersion7(), PageDoing.HandOn, To: to));

    /// <summary>What is said to an act that is not taken.</summary>
    public async Task<string> Refused(PageDoing doing, Guid? asking = null, Answer? answer = null, string? text = null, Core.Chat.ChatKind? kind = null, Guid? id = null)
    {
        var response = await Send(new PageAct(id ?? Guid.CreateVersion7(), doing, asking, answer, text, kind));
        response.StatusCode.ShouldBe(HttpStatusCode.Conflict);
        return await response.Content.ReadAsStringAsync();
    }

    public void Dispose() => Http.Dispose();
}
