using System.Net;
using System.Net.Http.Json;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Library;
using CalmQuill.Core.Operations;
using CalmQuill.Testing;
using Microsoft.AspNetCore.Routing;
using Microsoft.AspNetCore.SignalR;
using Microsoft.AspNetCore.SignalR.Client;
using Microsoft.Extensions.DependencyInjection;
using Person = CalmQuill.Store.People.Person;

namespace CalmQuill.Server.Tests;

/// <summary>No one reads or writes what the roles do not allow: every endpoint and hub method against owner, writer, reader, stranger and signed-out.</summary>
public sealed class RolesTests : IAsyncLifetime
{
    private const int Ok = 200, Done = 204, SignedOut = 401, Forbidden = 403, NotHere = 404;
    private static readonly Guid Page = Guid.NewGuid(), Notebook = Guid.NewGuid(), LockedNotebook = Guid.NewGuid();
    private QuillHost host = null!;
    private QuillHost.Group group = null!;
    private Caller[] callers = [];

    /// <summary>Endpoint, method and path, then the status for owner, writer, reader, stranger, signed out.</summary>
    private static readonly (string Endpoint, string Method, string Path, int[] Expected)[] Table =
    [
        ("/health", "GET", "/health", [Ok, Ok, Ok, Ok, Ok]),
        ("/api/session", "GET", "/api/session", [Ok, Ok, Ok, Ok, Ok]),
        ("/api/spaces/{space:guid}/members/", "GET", "/api/spaces/{space}/members", [Ok, Ok, Ok, NotHere, SignedOut]),
        ("/api/spaces/{space:guid}/members/{person:guid}", "PUT", "/api/spaces/{space}/members/{writer}", [Done, Forbidden, Forbidden, NotHere, SignedOut]),
        ("/api/spaces/{space:guid}/documents/{kind}/{id:guid}/operations/", "GET", "/api/spaces/{space}/documents/page/{page}/operations", [Ok, Ok, Ok, NotHere, SignedOut]),
        ("/api/spaces/{space:guid}/documents/{kind}/{id:guid}/operations/", "POST", "/api/spaces/{space}/documents/page/{page}/operations", [Ok, Ok, Forbidden, NotHere, SignedOut]),
        ("/api/spaces/{space:guid}/summaries", "GET", "/api/spaces/{space}/summaries", [Ok, Ok, Ok, NotHere, SignedOut]),
        ("/api/spaces/{space:guid}/strips", "GET", "/api/spaces/{space}/strips?notebooks={notebook}", [Ok, Ok, Ok, NotHere, SignedOut]),
        ("/api/spaces/{space:guid}/bin", "GET", "/api/spaces/{space}/bin", [Ok, Ok, Ok, NotHere, SignedOut]),
        ("/api/spaces/{space:guid}/entries", "POST", "/api/spaces/{space}/entries", [Ok, Ok, Ok, NotHere, SignedOut]),
        ("/api/spaces/{space:guid}/tag-uses", "GET", "/api/spaces/{space}/tag-uses", [Ok, Ok, Ok, NotHere, SignedOut]),
        ("/api/spaces/{space:guid}/copies", "POST", "/api/spaces/{space}/copies", [Ok, Ok, Forbidden, NotHere, SignedOut]),
        ("/api/desk", "GET", "/api/desk", [Ok, Ok, Ok, Ok, SignedOut]),
        ("/api/often", "GET", "/api/often", [Ok, Ok, Ok, Ok, SignedOut]),
        ("/api/spaces/{space:guid}/locks/", "GET", "/api/spaces/{space}/locks", [Ok, Ok, Ok, NotHere, SignedOut]),
        // The notebook that is locked already: who may lock is told so.
        ("/api/spaces/{space:guid}/locks/{notebook:guid}", "PUT", "/api/spaces/{space}/locks/{locked}", [409, 409, Forbidden, NotHere, SignedOut]),
        ("/api/spaces/{space:guid}/locks/{notebook:guid}/open", "POST", "/api/spaces/{space}/locks/{locked}/open", [400, 400, 400, NotHere, SignedOut]),
        ("/api/spaces/{space:guid}/locks/{notebook:guid}/shut", "POST", "/api/spaces/{space}/locks/{locked}/shut", [Done, Done, Done, NotHere, SignedOut]),
        ("/api/spaces/{space:guid}/locks/{notebook:guid}/remove", "POST", "/api/spaces/{space}/locks/{locked}/remove", [400, Forbidden, Forbidden, NotHere, SignedOut]),
        ("/api/spaces/{space:guid}/pages/{page:guid}/thumbnail.svg", "GET", "/api/spaces/{space}/pages/{page}/thumbnail.svg", [Ok, Ok, Ok, NotHere, SignedOut]),
        ("/api/spaces/{space:guid}/pages/{page:guid}/export.pdf", "GET", "/api/spaces/{space}/pages/{page}/export.pdf", [Ok, Ok, Ok, NotHere, SignedOut]),
        ("/api/spaces/{space:guid}/pages/{page:guid}/export.svg", "GET", "/api/spaces/{space}/pages/{page}/export.svg", [Ok, Ok, Ok, NotHere, SignedOut]),
        ("/api/notebooks/{notebook:guid}/export.pdf", "GET", "/api/notebooks/{notebook}/export.pdf", [Ok, Ok, Ok, NotHere, SignedOut]),
        ("/api/follow-ups", "GET", "/api/follow-ups", [Ok, Ok, Ok, Ok, SignedOut]),
        ("/api/follow-ups.md", "GET", "/api/follow-ups.md", [Ok, Ok, Ok, Ok, SignedOut]),
        ("/api/follow-ups.csv", "GET", "/api/follow-ups.csv", [Ok, Ok, Ok, Ok, SignedOut]),
        ("/api/spaces/{space:guid}/notebooks/{notebook:guid}/spots", "GET", "/api/spaces/{space}/notebooks/{notebook}/spots", [Ok, Ok, Ok, NotHere, SignedOut]),
        ("/api/spaces/{space:guid}/notebooks/{notebook:guid}/pages", "GET", "/api/spaces/{space}/notebooks/{notebook}/pages", [Ok, Ok, Ok, NotHere, SignedOut]),
        ("/api/spaces/{space:guid}/links", "GET", "/api/spaces/{space}/links?notebooks={notebook}", [Ok, Ok, Ok, NotHere, SignedOut]),
        ("/api/spaces/{space:guid}/backlinks", "GET", "/api/spaces/{space}/backlinks?notebook={notebook}", [Ok, Ok, Ok, NotHere, SignedOut]),
        ("/api/spaces/{space:guid}/pages/{page:guid}/part.svg", "GET", "/api/spaces/{space}/pages/{page}/part.svg?area=0,0,5000,2000", [Ok, Ok, Ok, NotHere, SignedOut]),
        // An empty body: whoever may write gets as far as being told that it is no picture.
        ("/api/spaces/{space:guid}/assets", "POST", "/api/spaces/{space}/assets", [400, 400, Forbidden, NotHere, SignedOut]),
        ("/api/spaces/{space:guid}/frozen-pages", "POST", "/api/spaces/{space}/frozen-pages", [NotHere, NotHere, Forbidden, NotHere, SignedOut]),
        ("/api/spaces/{space:guid}/assets/{asset:guid}/picture", "GET", "/api/spaces/{space}/assets/{page}/picture", [NotHere, NotHere, NotHere, NotHere, SignedOut]),
        ("/api/spaces/{space:guid}/assets/{asset:guid}", "GET", "/api/spaces/{space}/assets/{page}", [NotHere, NotHere, NotHere, NotHere, SignedOut]),
        ("/api/spaces/{space:guid}/paper-uses", "GET", "/api/spaces/{space}/paper-uses", [Ok, Ok, Ok, NotHere, SignedOut]),
        ("/api/calendar-entries", "POST", "/api/calendar-entries", [400, 400, 400, 400, SignedOut]),
        ("/api/people/me", "PUT", "/api/people/me", [Done, Done, Done, Done, SignedOut]),
        // An empty form: whoever is signed in gets as far as the wrong old password.
        ("/api/people/me/password", "PUT", "/api/people/me/password", [400, 400, 400, 400, SignedOut]),
        ("/api/people", "POST", "/api/people", [400, 400, 400, 400, 400]),
        ("/api/session", "POST", "/api/session", [SignedOut, SignedOut, SignedOut, SignedOut, SignedOut]),
        ("/api/session", "DELETE", "/api/session", [Done, Done, Done, Done, Done]),
    ];

    public async Task InitializeAsync()
    {
        host = await QuillHost.Start();
        group = await host.MakeGroup();
        callers = [.. await Task.WhenAll(new[] { group.Owner, group.Writer, group.Reader, group.Stranger }.Select(host.SignIn)), await Caller.SignedOut(host.Address)];
        var device = new Replica(1, group.Owner.Id);
        await callers[0].Send(group.Space, DocumentKind.Library, group.Space, device.Make(new Change.NodePlaced(Notebook, NodeKind.Notebook, Guid.Empty, "V"), 1));
        await callers[0].Send(group.Space, DocumentKind.Notebook, LockedNotebook, device.Make(new Change.PageAdded(Guid.NewGuid(), "V", "a4-ruled-710"), 1));
        (await callers[0].Http.PutAsJsonAsync($"/api/spaces/{group.Space}/locks/{LockedNotebook}", new { passphrase = "a-passphrase", minutes = 5 })).EnsureSuccessStatusCode();
        await callers[0].Send(group.Space, DocumentKind.Notebook, Notebook, device.Make(new Change.PageAdded(Page, "V", "a4-ruled-710"), 1));
        (await callers[0].Send(group.Space, DocumentKind.Page, Page, device.Make(Stroke(), 1))).EnsureSuccessStatusCode();
    }

    public async Task DisposeAsync()
    {
        foreach (var caller in callers) caller.Dispose();
        await host.DisposeAsync();
    }

    [Fact]
    public async Task Every_endpoint_lets_in_whom_the_table_says()
    {
        var wrong = new List<string>();
        foreach (var (_, method, path, expected) in Table)
        {
            for (var i = 0; i < callers.Length; i++)
            {
                using var request = new HttpRequestMessage(new HttpMethod(method), Fill(path));
                if (method != "GET") request.Content = path.EndsWith("operations", StringComparison.Ordinal) ? new ByteArrayContent([]) : JsonContent.Create(new { role = "writer", rule = "{\"all\":[]}", node = Notebook, passphrase = "a-passphrase", minutes = 5 });
                using var answer = await callers[i].Http.SendAsync(request);
                if ((int)answer.StatusCode != expected[i]) wrong.Add($"{method} {path} as {i}: {(int)answer.StatusCode}, not {expected[i]}");
            }
        }

        Assert.Empty(wrong);
    }

    [Fact]
    public async Task A_page_nobody_wrote_on_has_a_picture_and_prints_and_a_page_of_another_space_does_not_show()
    {
        var unwritten = Guid.NewGuid();
        foreach (var what in new[] { "thumbnail.svg", "export.pdf", "export.svg" })
        {
            Assert.Equal(HttpStatusCode.OK, (await callers[2].Http.GetAsync($"/api/spaces/{group.Space}/pages/{unwritten}/{what}")).StatusCode);
            var own = (await callers[3].Refresh()).GetProperty("spaces").EnumerateArray().Single().GetProperty("id").GetString();
            Assert.Equal(HttpStatusCode.NotFound, (await callers[3].Http.GetAsync($"/api/spaces/{own}/pages/{Page}/{what}")).StatusCode);
        }
    }

    [Fact]
    public void The_table_names_every_endpoint()
    {
        var served = host.Services.GetRequiredService<EndpointDataSource>().Endpoints.OfType<RouteEndpoint>()
            .Select(endpoint => (Path: "/" + endpoint.RoutePattern.RawText!.TrimStart('/'), Methods: endpoint.Metadata.GetMetadata<HttpMethodMetadata>()?.HttpMethods ?? []))
            .Where(endpoint => !endpoint.Path.StartsWith("/live", StringComparison.Ordinal) && !endpoint.Path.Contains("nonfile", StringComparison.Ordinal))
            .SelectMany(endpoint => endpoint.Methods.Select(method => $"{method} {endpoint.Path}"));
        Assert.Equal(Table.Select(row => $"{row.Method} {row.Endpoint}").Order().Distinct(), served.Order().Distinct());
    }

    [Fact]
    public async Task Every_hub_method_lets_in_whom_the_roles_allow()
    {
        var methods = typeof(Live.LiveHub).GetMethods(System.Reflection.BindingFlags.Public | System.Reflection.BindingFlags.Instance | System.Reflection.BindingFlags.DeclaredOnly)
            .Where(method => !method.IsSpecialName && method.GetBaseDefinition() == method).Select(method => method.Name).Order();
        Assert.Equal(["Join", "Leave", "Pen", "Wet"], methods);

        foreach (var (caller, mayJoin, mayWrite) in new[] { (0, true, true), (1, true, true), (2, true, false), (3, false, false) })
        {
            await using var hub = await Connect(callers[caller]);
            Assert.Equal(mayJoin, await Allowed(() => hub.InvokeAsync("Join", group.Space.ToString(), Page.ToString())));
            Assert.Equal(mayWrite, await Allowed(() => hub.InvokeAsync("Wet", Page.ToString(), new byte[] { 1 })));
            Assert.Equal(mayWrite, await Allowed(() => hub.InvokeAsync("Pen", Page.ToString(), 1, 2)));
            Assert.True(await Allowed(() => hub.InvokeAsync("Leave", Page.ToString())));
            Assert.False(await Allowed(() => hub.InvokeAsync("Wet", Page.ToString(), new byte[] { 1 })));
        }

        await Assert.ThrowsAnyAsync<Exception>(() => Connect(callers[4]));
    }

    [Fact]
    public async Task Who_follows_a_space_hears_that_something_was_written_and_a_stranger_does_not()
    {
        await using var reader = await Connect(callers[2]);
        await using var stranger = await Connect(callers[3]);
        var (heard, strangerHeard) = (new TaskCompletionSource<string>(), false);
        reader.On<string>("news", space => heard.TrySetResult(space));
        stranger.On<string>("news", _ => strangerHeard = true);
        await reader.InvokeAsync("Join", group.Space.ToString(), group.Space.ToString());
        Assert.False(await Allowed(() => stranger.InvokeAsync("Join", group.Space.ToString(), group.Space.ToString())));
        await callers[1].Send(group.Space, DocumentKind.Page, Page, new Replica(5, group.Writer.Id).Make(Stroke(), DateTimeOffset.UtcNow.ToUnixTimeMilliseconds()));
        Assert.Equal(group.Space.ToString(), await heard.Task.WaitAsync(TimeSpan.FromSeconds(10)));
        // What was sent to it before this answer would have come.
        await stranger.InvokeAsync("Leave", Page.ToString());
        Assert.False(strangerHeard);
    }

    [Fact]
    public async Task The_id_of_another_space_is_kept_for_its_library()
    {
        var other = await host.MakeGroup();
        await using var hub = await Connect(callers[0]);
        Assert.False(await Allowed(() => hub.InvokeAsync("Join", group.Space.ToString(), other.Space.ToString())));
        var now = DateTimeOffset.UtcNow.ToUnixTimeMilliseconds();
        var taken = await callers[0].Send(group.Space, DocumentKind.Page, other.Space, new Replica(5, group.Owner.Id).Make(Stroke(), now));
        Assert.Equal(HttpStatusCode.Conflict, taken.StatusCode);
        using var own = await host.SignIn(other.Owner);
        var stored = await own.Send(other.Space, DocumentKind.Library, other.Space, new Replica(6, other.Owner.Id).Make(new Change.NodePlaced(Guid.NewGuid(), NodeKind.Notebook, Guid.Empty, "V"), now));
        Assert.Equal(HttpStatusCode.OK, stored.StatusCode);
    }

    [Fact]
    public async Task Operations_under_anothers_name_or_from_the_future_come_back_with_the_reason()
    {
        var now = DateTimeOffset.UtcNow.ToUnixTimeMilliseconds();
        var own = new Replica(5, group.Writer.Id);
        var answer = await callers[1].Send(group.Space, DocumentKind.Page, Page,
            new Replica(6, group.Owner.Id).Make(Stroke(), now), own.Make(new Change.ItemsRemoved([]), now), own.Make(Stroke(), now), own.Make(Stroke(), now + 90_000));
        var results = await Caller.Results(answer);
        Assert.Equal(["wrong-author", "empty", null, "clock-ahead"], results.Select(result => result.Code));
        Assert.Equal(2, results[2].Sequence);
    }

    [Fact]
    public async Task Malformed_oversized_and_misplaced_sendings_are_refused_and_the_page_stays()
    {
        var random = new Random(1);
        var now = DateTimeOffset.UtcNow.ToUnixTimeMilliseconds();
        for (var i = 0; i < 40; i++)
        {
            var noise = new byte[random.Next(200)];
            random.NextBytes(noise);
            var results = await Caller.Results(await callers[1].SendFrames(group.Space, DocumentKind.Page, Page, [noise]));
            Assert.Equal("malformed", results.Single().Code);
            using var raw = await callers[1].Http.PostAsync(Caller.PathOf(group.Space, DocumentKind.Page, Page), new ByteArrayContent(noise));
            Assert.True((int)raw.StatusCode is 200 or 400);
        }

        using var tooMuch = new HttpRequestMessage(HttpMethod.Post, Caller.PathOf(group.Space, DocumentKind.Page, Page)) { Content = new ByteArrayContent(new byte[9 * 1024 * 1024]) };
        tooMuch.Headers.ExpectContinue = true;
        using var huge = await callers[1].Http.SendAsync(tooMuch);
        Assert.Equal(HttpStatusCode.RequestEntityTooLarge, huge.StatusCode);
        var elsewhere = await callers[1].Send(group.Space, DocumentKind.Notebook, Page, new Replica(7, group.Writer.Id).Make(new Change.PageAdded(Guid.NewGuid(), "V", "a4-ruled-710"), now));
        Assert.Equal(HttpStatusCode.Conflict, elsewhere.StatusCode);
        Assert.Single(await callers[0].After(group.Space, DocumentKind.Page, Page));
    }

    [Fact]
    public async Task A_request_without_the_antiforgery_token_changes_nothing()
    {
        using var request = new HttpRequestMessage(HttpMethod.Put, "/api/people/me") { Content = JsonContent.Create(new { name = "Taken over" }) };
        callers[0].Http.DefaultRequestHeaders.Remove("X-Quill-Antiforgery");
        using var answer = await callers[0].Http.SendAsync(request);
        Assert.Equal(HttpStatusCode.BadRequest, answer.StatusCode);
        Assert.Equal("Owner Person", (await callers[0].Refresh()).GetProperty("person").GetProperty("name").GetString());
    }

    private string Fill(string path) => path.Replace("{space}", group.Space.ToString()).Replace("{page}", Page.ToString()).Replace("{notebook}", Notebook.ToString()).Replace("{locked}", LockedNotebook.ToString()).Replace("{writer}", group.Writer.Id.ToString());

    private async Task<HubConnection> Connect(Caller caller)
    {
        var hub = new HubConnectionBuilder().WithUrl(new Uri(host.Address, "/live"), options => options.Cookies = caller.Cookies).AddMessagePackProtocol().Build();
        await hub.StartAsync();
        return hub;
    }

    private static async Task<bool> Allowed(Func<Task> call)
    {
        try
        {
            await call();
            return true;
        }
        catch (HubException refused) when (refused.Message.Contains("may see", StringComparison.Ordinal) || refused.Message.Contains("not write", StringComparison.Ordinal) || refused.Message.Contains("not been joined", StringComparison.Ordinal))
        {
            return false;
        }
    }

    private static Change.StrokeAdded Stroke() => new(new Pen(PenKind.Ball, 40, 0xFF), 0, Generate.Wave(12));
}
