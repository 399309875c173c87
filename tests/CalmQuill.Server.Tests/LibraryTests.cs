using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Library;
using CalmQuill.Core.Notebooks;
using CalmQuill.Core.Operations;
using CalmQuill.Testing;
using Microsoft.AspNetCore.SignalR;
using Microsoft.AspNetCore.SignalR.Client;
using Microsoft.Extensions.DependencyInjection;

namespace CalmQuill.Server.Tests;

/// <summary>Locks, copies, lists, and what comes back for bad questions.</summary>
public sealed class LibraryTests : IAsyncLifetime
{
    private readonly Guid notebook = Guid.NewGuid();
    private readonly Guid page = Guid.NewGuid();
    private QuillHost host = null!;
    private QuillHost.Group group = null!;
    private Caller owner = null!;
    private Caller writer = null!;
    private Replica device = null!;

    public async Task InitializeAsync()
    {
        host = await QuillHost.Start();
        group = await host.MakeGroup();
        (owner, writer) = (await host.SignIn(group.Owner), await host.SignIn(group.Writer));
        device = new Replica(1, group.Owner.Id);
        await Do(
            DocumentKind.Library,
            group.Space,
            new Change.PropertySet(notebook, Property.Name, "Secrets"),
            new Change.NodePlaced(notebook, NodeKind.Notebook, Guid.Empty, "V")
        );
        await Do(
            DocumentKind.Notebook,
            notebook,
            new Change.PropertySet(page, Property.Name, "First page"),
            new Change.PageAdded(page, "V", "a4-ruled-710")
        );
        await Do(DocumentKind.Page, page, Stroke());
    }

    public async Task DisposeAsync()
    {
        owner.Dispose();
        writer.Dispose();
        await host.DisposeAsync();
    }

    [Fact]
    public async Task A_locked_notebook_sends_nothing_of_its_inside_until_it_is_opened_on_that_device()
    {
        var locks = $"/api/spaces/{group.Space}/locks/{notebook}";
        Assert.Equal(
            HttpStatusCode.NoContent,
            (await owner.Http.PutAsJsonAsync(locks, new { passphrase = "lantern oil", minutes = 5 })).StatusCode
        );
        string[] inside =
        [
            $"/api/spaces/{group.Space}/documents/page/{page}/operations",
            $"/api/spaces/{group.Space}/documents/notebook/{notebook}/operations",
            $"/api/spaces/{group.Space}/pages/{page}/thumbnail.svg",
            $"/api/spaces/{group.Space}/pages/{page}/export.pdf",
            $"/api/spaces/{group.Space}/notebooks/{notebook}/export.pdf",
        ];
        foreach (var caller in new[] { owner, writer })
        {
            foreach (var path in inside)
                Assert.Equal(HttpStatusCode.Locked, (await caller.Http.GetAsync(path)).StatusCode);
            Assert.Empty(await caller.Http.GetFromJsonAsync<JsonElement[]>($"/api/spaces/{group.Space}/strips?notebooks={notebook}") ?? []);
            Assert.Equal(0, (await Entries(caller, """{"kind":"page"}""")).GetProperty("total").GetInt64());
            Assert.Empty((await caller.Http.GetFromJsonAsync<JsonElement>("/api/desk")).GetProperty("leftOff").EnumerateArray());
            await Assert.ThrowsAsync<HubException>(() => Join(caller));
        }

        // Its title stays, and what a device wrote before is still taken.
        Assert.Equal(
            "Secrets",
            (await Entries(writer, """{"kind":"notebook"}""")).GetProperty("entries")[0].GetProperty("title").GetString()
        );
        await Do(DocumentKind.Page, page, Stroke());

        Assert.Equal(
            HttpStatusCode.BadRequest,
            (await writer.Http.PostAsJsonAsync(locks + "/open", new { words = "lamp oil" })).StatusCode
        );
        Assert.Equal(HttpStatusCode.OK, (await writer.Http.PostAsJsonAsync(locks + "/open", new { words = "lantern oil" })).StatusCode);
        foreach (var path in inside)
            Assert.Equal(HttpStatusCode.OK, (await writer.Http.GetAsync(path)).StatusCode);
        await Join(writer);
        // On the writer's other device it is shut.
        using var other = await host.SignIn(group.Writer);
        Assert.Equal(HttpStatusCode.Locked, (await other.Http.GetAsync(inside[0])).StatusCode);
        Assert.Equal(HttpStatusCode.NoContent, (await writer.Http.PostAsJsonAsync(locks + "/shut", new { })).StatusCode);
        Assert.Equal(HttpStatusCode.Locked, (await writer.Http.GetAsync(inside[0])).StatusCode);

        // The way out when the passphrase is forgotten: the owner, with the account's password.
        Assert.Equal(
            HttpStatusCode.BadRequest,
            (await owner.Http.PostAsJsonAsync(locks + "/remove", new { password = "guessed" })).StatusCode
        );
        Assert.Equal(
            HttpStatusCode.NoContent,
            (await owner.Http.PostAsJsonAsync(locks + "/remove", new { password = QuillHost.Password })).StatusCode
        );
        Assert.Equal(HttpStatusCode.OK, (await other.Http.GetAsync(inside[0])).StatusCode);
    }

    [Theory]
    [InlineData("abc", 5)]
    [InlineData("", 5)]
    [InlineData("long enough", 7)]
    public async Task Locks_with_a_short_passphrase_or_an_odd_time_are_refused(string passphrase, int minutes) =>
        Assert.Equal(
            HttpStatusCode.BadRequest,
            (await owner.Http.PutAsJsonAsync($"/api/spaces/{group.Space}/locks/{notebook}", new { passphrase, minutes })).StatusCode
        );

    [Fact]
    public async Task A_copy_has_the_same_ink_under_another_id_also_in_another_library()
    {
        var own = (await owner.Refresh())
            .GetProperty("spaces")
            .EnumerateArray()
            .Single(space => space.GetProperty("personal").GetBoolean())
            .GetProperty("id")
            .GetGuid();
        foreach (var (toSpace, move) in new[] { (group.Space, false), (own, true) })
        {
            var answer = await owner.Http.PostAsJsonAsync(
                $"/api/spaces/{group.Space}/copies",
                new
                {
                    node = notebook,
                    toSpace,
                    move,
                }
            );
            Assert.Equal(HttpStatusCode.OK, answer.StatusCode);
            var copy = (await answer.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("copy").GetGuid();
            var inside = new NotebookDocument();
            foreach (var operation in await owner.After(toSpace, DocumentKind.Notebook, copy))
                inside.Apply(operation);
            var copied = Assert.Single(inside.Pages());
            Assert.Equal("First page", copied.Title);
            Assert.NotEqual(page, copied.Id);
            Assert.Equal(
                OperationCodec.Encode(await owner.After(group.Space, DocumentKind.Page, page)),
                OperationCodec.Encode(await owner.After(toSpace, DocumentKind.Page, copied.Id))
            );
            var library = await Library(toSpace);
            Assert.Equal(move ? "Secrets" : "Secrets, copy", library.Nodes().Single(node => node.Id == copy).Name);
        }

        Assert.True((await Library(group.Space)).Nodes().Single(node => node.Id == notebook).InBin);
    }

    [Fact]
    public async Task A_page_is_copied_after_itself_and_nothing_is_copied_into_a_folder_that_is_gone()
    {
        var answer = await writer.Http.PostAsJsonAsync($"/api/spaces/{group.Space}/copies", new { node = notebook, entry = page });
        Assert.Equal(HttpStatusCode.OK, answer.StatusCode);
        var inside = new NotebookDocument();
        foreach (var operation in await owner.After(group.Space, DocumentKind.Notebook, notebook))
            inside.Apply(operation);
        Assert.Equal(["First page", "First page"], inside.Pages().Select(one => one.Title));
        Assert.Equal(page, inside.Pages()[0].Id);
        Assert.Equal(
            HttpStatusCode.BadRequest,
            (
                await writer.Http.PostAsJsonAsync($"/api/spaces/{group.Space}/copies", new { node = notebook, parent = Guid.NewGuid() })
            ).StatusCode
        );
        Assert.Equal(
            HttpStatusCode.NotFound,
            (await writer.Http.PostAsJsonAsync($"/api/spaces/{group.Space}/copies", new { node = Guid.NewGuid() })).StatusCode
        );
        using var stranger = await host.SignIn(group.Stranger);
        var strangers = (await stranger.Refresh()).GetProperty("spaces")[0].GetProperty("id").GetGuid();
        Assert.Equal(
            HttpStatusCode.NotFound,
            (await stranger.Http.PostAsJsonAsync($"/api/spaces/{strangers}/copies", new { node = notebook, entry = page })).StatusCode
        );
    }

    [Fact]
    public async Task A_page_is_copied_or_moved_into_a_section_elsewhere_and_into_no_place_that_is_not_there_or_not_ones_own()
    {
        Guid other = Guid.NewGuid(),
            section = Guid.NewGuid(),
            gone = Guid.NewGuid(),
            inner = Guid.NewGuid();
        await Do(
            DocumentKind.Library,
            group.Space,
            new Change.PropertySet(other, Property.Name, "Other"),
            new Change.NodePlaced(other, NodeKind.Notebook, Guid.Empty, "W")
        );
        await Do(
            DocumentKind.Notebook,
            other,
            new Change.NodePlaced(section, NodeKind.Section, Guid.Empty, "V"),
            new Change.NodePlaced(gone, NodeKind.Section, Guid.Empty, "W"),
            new Change.PropertySet(gone, Property.Binned, "1"),
            new Change.NodePlaced(inner, NodeKind.Section, section, "V")
        );
        Task<HttpResponseMessage> Ask(Caller caller, Guid entry, Guid? toSpace, Guid toNotebook, Guid? parent, bool move = false) =>
            caller.Http.PostAsJsonAsync(
                $"/api/spaces/{group.Space}/copies",
                new
                {
                    node = notebook,
                    entry,
                    toSpace,
                    toNotebook,
                    parent,
                    move,
                }
            );
        async Task<List<NotebookEntry>> Outline(Guid of)
        {
            var inside = new NotebookDocument();
            foreach (var operation in await owner.After(group.Space, DocumentKind.Notebook, of))
                inside.Apply(operation);
            return inside.Outline(withBinned: true);
        }

        // What is not there, is in the bin, does not hold such a thing, or is somebody else's.
        using var stranger = await host.SignIn(group.Stranger);
        using var reader = await host.SignIn(group.Reader);
        var strangers = (await stranger.Refresh()).GetProperty("spaces")[0].GetProperty("id").GetGuid();
        var before = await Outline(other);
        foreach (
            var (status, answer) in new[]
            {
                (HttpStatusCode.BadRequest, await Ask(writer, page, null, Guid.NewGuid(), null)),
                (HttpStatusCode.BadRequest, await Ask(writer, page, null, other, gone)),
                (HttpStatusCode.BadRequest, await Ask(writer, page, null, other, page)),
                (HttpStatusCode.NotFound, await Ask(writer, Guid.NewGuid(), null, other, section)),
                (HttpStatusCode.NotFound, await Ask(writer, page, strangers, other, null)),
                (HttpStatusCode.NotFound, await Ask(stranger, page, null, other, null)),
                (HttpStatusCode.Forbidden, await Ask(reader, page, null, other, section, move: true)),
            }
        )
            Assert.Equal(status, answer.StatusCode);
        Assert.Equal(before, await Outline(other));
        Assert.False((await Outline(notebook)).Single(entry => entry.Id == page).InBin);

        Assert.Equal(HttpStatusCode.OK, (await Ask(writer, page, null, other, section)).StatusCode);
        Assert.Equal(HttpStatusCode.OK, (await Ask(writer, page, null, other, inner, move: true)).StatusCode);
        var copies = (await Outline(other)).Where(entry => entry.Kind == NodeKind.Page).ToList();
        Assert.Equal([inner, section], copies.Select(entry => entry.Parent));
        Assert.All(copies, copy => Assert.Equal("First page", copy.Title));
        foreach (var copy in copies)
            Assert.Single(await owner.After(group.Space, DocumentKind.Page, copy.Id));
        Assert.True((await Outline(notebook)).Single(entry => entry.Id == page).InBin);
    }

    [Theory]
    [InlineData("""{"rule":"{\"all\":[]}","order":"taste"}""")]
    [InlineData("""{"rule":"{\"all\":[]}","limit":100000}""")]
    [InlineData("""{"rule":"{\"all\":[]}","offset":-1}""")]
    [InlineData("""{"rule":"{\"all\":[]}","clock":[{"since":0,"minutes":100000}]}""")]
    [InlineData("""{"rule":"{\"wished\":true}"}""")]
    [InlineData("""{"rule":null}""")]
    [InlineData("""{"rule":7}""")]
    [InlineData("[]")]
    public async Task Bad_questions_are_refused_with_a_sentence(string body)
    {
        var answer = await writer.Http.PostAsync(
            $"/api/spaces/{group.Space}/entries",
            new StringContent(body, System.Text.Encoding.UTF8, "application/json")
        );
        Assert.Equal(HttpStatusCode.BadRequest, answer.StatusCode);
    }

    [Theory]
    [InlineData("strips?notebooks=7")]
    [InlineData("summaries?after=-5")]
    [InlineData("summaries?after=9999999999999999")]
    public async Task Bad_addresses_are_refused(string path) =>
        Assert.Equal(HttpStatusCode.BadRequest, (await writer.Http.GetAsync($"/api/spaces/{group.Space}/{path}")).StatusCode);

    [Fact]
    public async Task What_was_erased_takes_nothing_any_more_and_says_so()
    {
        await Do(
            DocumentKind.Library,
            group.Space,
            new Change.PropertySet(notebook, Property.Binned, "1"),
            new Change.PropertySet(notebook, Property.Erased, "1")
        );
        Assert.Equal(
            2,
            (
                await host
                    .Services.GetRequiredService<Store.Library.BinStore>()
                    .RemoveData(DateTimeOffset.UtcNow.AddDays(Bin.GraceDays), default)
            ).Count
        );
        var answer = await owner.Send(
            group.Space,
            DocumentKind.Page,
            page,
            device.Make(Stroke(), DateTimeOffset.UtcNow.ToUnixTimeMilliseconds())
        );
        Assert.Equal(HttpStatusCode.Gone, answer.StatusCode);
        Assert.Contains(
            "erased",
            (await answer.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("title").GetString(),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task The_Desk_tells_what_the_others_wrote_and_not_what_one_wrote_oneself()
    {
        var now = DateTimeOffset.UtcNow.ToUnixTimeMilliseconds();
        await writer.Send(group.Space, DocumentKind.Page, page, new Replica(9, group.Writer.Id).Make(Stroke(), now));
        var desk = await owner.Http.GetFromJsonAsync<JsonElement>($"/api/desk?since={now - 60_000}");
        var news = Assert.Single(desk.GetProperty("news").EnumerateArray());
        Assert.Equal(
            ("Writer Person", "Secrets", 1),
            (news.GetProperty("name").GetString(), news.GetProperty("notebookName").GetString(), news.GetProperty("pages").GetInt32())
        );
        Assert.Equal(page, Assert.Single(desk.GetProperty("leftOff").EnumerateArray()).GetProperty("page").GetProperty("id").GetGuid());
        Assert.Empty(
            (await owner.Http.GetFromJsonAsync<JsonElement>($"/api/desk?since={now + 60_000}")).GetProperty("news").EnumerateArray()
        );
    }

    private async Task<JsonElement> Entries(Caller caller, string rule)
    {
        var answer = await caller.Http.PostAsJsonAsync($"/api/spaces/{group.Space}/entries", new { rule });
        answer.EnsureSuccessStatusCode();
        return await answer.Content.ReadFromJsonAsync<JsonElement>();
    }

    private async Task<LibraryDocument> Library(Guid space)
    {
        var library = new LibraryDocument();
        foreach (var operation in await owner.After(space, DocumentKind.Library, space))
            library.Apply(operation);
        return library;
    }

    private async Task Join(Caller caller)
    {
        await using var hub = caller.Live(host.Address);
        await hub.StartAsync();
        await hub.InvokeAsync("Join", $"{group.Space}/page/{page}");
    }

    private async Task Do(DocumentKind kind, Guid id, params Change[] changes)
    {
        var results = await Caller.Results(
            await owner.Send(
                group.Space,
                kind,
                id,
                changes.Select(change => device.Make(change, DateTimeOffset.UtcNow.ToUnixTimeMilliseconds()))
            )
        );
        Assert.All(results, result => Assert.Null(result.Code));
    }

    private static Change.StrokeAdded Stroke() => new(new Pen(PenKind.Ball, 40, 0xFF), 0, Generate.Wave(12));
}
