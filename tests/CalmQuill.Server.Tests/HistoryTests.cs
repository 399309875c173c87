using System.Net;
using System.Text.Json;
using CalmQuill.Core.History;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Library;
using CalmQuill.Core.Operations;
using CalmQuill.Store;
using CalmQuill.Store.Documents;
using CalmQuill.Store.Library;
using CalmQuill.Testing;
using Microsoft.AspNetCore.SignalR.Client;
using Microsoft.Extensions.DependencyInjection;
using Npgsql;

namespace CalmQuill.Server.Tests;

/// <summary>What happened is told of everything that one may see, and of nothing else.</summary>
public sealed class HistoryTests : IAsyncLifetime
{
    private readonly Guid notebook = Guid.NewGuid(),
        page = Guid.NewGuid();
    private QuillHost host = null!;
    private QuillHost.Group group = null!;
    private Caller owner = null!,
        writer = null!,
        reader = null!,
        stranger = null!;
    private Replica owners = null!,
        writers = null!;

    private static long Now => DateTimeOffset.UtcNow.ToUnixTimeMilliseconds();

    public async Task InitializeAsync()
    {
        host = await QuillHost.Start();
        group = await host.MakeGroup();
        (owner, writer) = (await host.SignIn(group.Owner), await host.SignIn(group.Writer));
        (reader, stranger) = (await host.SignIn(group.Reader), await host.SignIn(group.Stranger));
        (owners, writers) = (new Replica(61, group.Owner.Id), new Replica(62, group.Writer.Id));
        await Library(
            new Change.NodePlaced(notebook, NodeKind.Notebook, Guid.Empty, "V"),
            new Change.PropertySet(notebook, Property.Name, "Beats")
        );
        await Notebook(new Change.PageAdded(page, "V", "a4-ruled-710"), new Change.PropertySet(page, Property.Name, "The pallets"));
    }

    public async Task DisposeAsync()
    {
        foreach (var caller in new[] { owner, writer, reader, stranger })
            caller.Dispose();
        await host.DisposeAsync();
    }

    [Fact]
    public async Task It_says_who_wrote_added_moved_and_removed_and_to_what()
    {
        var stroke = writers.Make(Stroke(), Now);
        await Page(writer, stroke);
        await Page(writer, writers.Make(Stroke(), Now));
        await Page(owner, owners.Make(new Change.ItemsShifted([stroke.Id], 10, 0), Now));
        await Page(owner, owners.Make(new Change.ItemsRemoved([stroke.Id]), Now));
        // What came twice happened once.
        await Page(writer, stroke);
        var onPage = await Deeds(reader, $"notebooks/{notebook}/deeds?page={page}");
        Assert.Equal(
            [
                (group.Owner.Id, 2, Deed.Added, 1),
                (group.Owner.Id, 3, Deed.Moved, 1),
                (group.Owner.Id, 3, Deed.Removed, 1),
                (group.Writer.Id, 3, Deed.Wrote, 2),
            ],
            Told(onPage)
        );
        Assert.All(onPage, deed => Assert.Equal("The pallets", deed.GetProperty("title").GetString()));
        // Its title and its paper were said as it was made, and are no deeds of their own.
        Assert.Contains((group.Owner.Id, 1, Deed.Added, 1), Told(await Deeds(reader, "deeds")));
        Assert.Equal(5, (await Deeds(reader, "deeds")).Count);
        Assert.Empty(await Deeds(reader, $"deeds?before={Now - 3_600_000}"));
    }

    [Fact]
    public async Task Nothing_is_told_as_done_later_than_it_was_received()
    {
        await Page(writer, writers.Make(Stroke(), Now + 30_000));
        Assert.True(
            Assert.Single(await Deeds(owner, $"notebooks/{notebook}/deeds?page={page}"), IsWriters).GetProperty("at").GetInt64() <= Now
        );
    }

    [Fact]
    public async Task What_is_in_the_bin_is_told_of_and_what_was_erased_is_not()
    {
        await Page(writer, writers.Make(Stroke(), Now));
        await Notebook(new Change.PropertySet(page, Property.Binned, "1"));
        var inBin = await Deeds(reader, $"notebooks/{notebook}/deeds");
        Assert.All(
            inBin.Where(deed => deed.GetProperty("kind").GetInt32() > 1),
            deed => Assert.True(deed.GetProperty("isInBin").GetBoolean())
        );
        Assert.Contains((group.Owner.Id, 2, Deed.Removed, 1), Told(inBin));
        await Notebook(new Change.PropertySet(page, Property.Erased, "1"));
        await host.Services.GetRequiredService<BinStore>().RemoveData(DateTimeOffset.UtcNow.AddDays(100), default);
        Assert.DoesNotContain(await Deeds(reader, $"notebooks/{notebook}/deeds"), deed => deed.GetProperty("kind").GetInt32() > 1);
    }

    [Fact]
    public async Task A_page_that_another_notebook_names_is_told_of_in_the_one_where_it_is_at_home()
    {
        await Page(writer, writers.Make(Stroke(), Now));
        var other = Guid.NewGuid();
        await Library(new Change.NodePlaced(other, NodeKind.Notebook, Guid.Empty, "W"));
        await owner.Send(group.Space, DocumentKind.Notebook, other, owners.Make(new Change.PageAdded(page, "V", "a4-ruled-710"), Now));
        Assert.DoesNotContain(await Deeds(reader, $"notebooks/{other}/deeds"), IsWriters);
        Assert.Contains(await Deeds(reader, $"notebooks/{notebook}/deeds"), IsWriters);
        // Nor by asking one notebook for another's page.
        Assert.Empty(await Deeds(reader, $"notebooks/{other}/deeds?page={page}"));
        Assert.Equal(HttpStatusCode.NotFound, (await stranger.Http.GetAsync($"/api/spaces/{group.Space}/deeds")).StatusCode);
    }

    [Fact]
    public async Task A_server_that_did_not_tell_yet_tells_of_all_that_was_done_before()
    {
        var stroke = writers.Make(Stroke(), Now);
        await Page(writer, stroke);
        await Page(owner, owners.Make(new Change.ItemsRemoved([stroke.Id]), Now));
        var before = Told(await Deeds(reader, "deeds"));
        Assert.NotEmpty(before);
        var database = host.Services.GetRequiredService<Database>();
        await using (var connection = await database.Connect(default))
        {
            await new NpgsqlCommand("DELETE FROM deeds; UPDATE projections SET version = 3", connection).ExecuteNonQueryAsync();
        }

        Assert.Empty(await Deeds(reader, "deeds"));
        await host.Services.GetRequiredService<DocumentStore>().BringProjectionsUpToDate(default);
        Assert.Equal(before, Told(await Deeds(reader, "deeds")));
    }

    [Fact]
    public async Task Where_the_past_is_closed_a_reader_gets_what_stands_and_a_writer_all_of_it()
    {
        var (stays, goes) = (writers.Make(Stroke(), Now), writers.Make(Stroke(), Now));
        await Page(writer, stays);
        await Page(writer, goes);
        await Page(writer, writers.Make(new Change.ItemsRemoved([goes.Id]), Now));
        Assert.Contains(goes.Id, (await Read(reader, 0)).Select(operation => operation.Id));
        await owner.ClosePast(group.Space);
        Assert.Equal([stays.Id], (await Read(reader, 0)).Select(operation => operation.Id));
        // Whatever a device says that it holds: all that stands, and nothing where nothing came.
        Assert.Equal([stays.Id], (await Read(reader, 1)).Select(operation => operation.Id));
        Assert.Empty(await Read(reader, 3));
        Assert.Equal(3, (await Read(writer, 0)).Count);
        Assert.Equal(3, (await Read(owner, 0)).Count);
        var spaces = JsonDocument.Parse(await reader.Http.GetStringAsync("/api/session")).RootElement.GetProperty("spaces");
        Assert.Contains(spaces.EnumerateArray(), space => space.GetProperty("isPastClosed").GetBoolean());
        await Page(writer, writers.Make(new Change.EffectSet(goes.Id, false), Now));
        Assert.Equal([stays.Id], (await Read(reader, 3)).Select(operation => operation.Id));
        await owner.ClosePast(group.Space, isClosed: false);
        Assert.Equal(4, (await Read(reader, 0)).Count);
    }

    [Fact]
    public async Task Where_the_past_is_closed_a_reader_hears_that_something_came_and_not_what()
    {
        await owner.ClosePast(group.Space);
        var address = $"{group.Space}/page/{page}";
        await using var reads = await LiveDevice.Connect(host, reader);
        await using var writes = await LiveDevice.Connect(host, owner);
        reads.HearInk();
        writes.HearInk();
        await reads.Hub.InvokeAsync("Join", address);
        await writes.Hub.InvokeAsync("Join", address);
        await Page(writer, writers.Make(Stroke(), Now));
        await writes.Hears("stored");
        await reads.Hears("later 1");
        Assert.DoesNotContain(reads.Heard, heard => heard == "stored");
    }

    [Fact]
    public async Task Where_the_past_is_closed_a_readers_copy_has_none()
    {
        var (stays, goes) = (writers.Make(Stroke(), Now), writers.Make(Stroke(), Now));
        await Page(writer, stays);
        await Page(writer, goes);
        await Page(writer, writers.Make(new Change.ItemsRemoved([goes.Id]), Now));
        await owner.ClosePast(group.Space);
        var own = (await host.Services.GetRequiredService<Store.Spaces.SpaceStore>().Of(group.Reader.Id, default))
            .Single(space => space.Personal)
            .Id;
        using var copied = await System.Net.Http.Json.HttpClientJsonExtensions.PostAsJsonAsync(
            reader.Http,
            $"/api/spaces/{group.Space}/copies",
            new
            {
                node = notebook,
                toSpace = own,
                move = false,
            }
        );
        copied.EnsureSuccessStatusCode();
        var documents = host.Services.GetRequiredService<DocumentStore>();
        var copy = JsonDocument.Parse(await copied.Content.ReadAsStringAsync()).RootElement.GetProperty("copy").GetGuid();
        var inside = Assert.Single((await documents.Notebook(own, copy, default)).Outline());
        Assert.Equal([stays.Id], (await documents.Page(own, inside.Id, default)).Operations().Select(operation => operation.Id));
    }

    private async Task<List<Operation>> Read(Caller caller, long after) =>
        OperationCodec.Decode(
            await caller.Http.GetByteArrayAsync($"/api/spaces/{group.Space}/documents/page/{page}/operations?after={after}")
        );

    private bool IsWriters(JsonElement deed) => deed.GetProperty("person").GetGuid() == group.Writer.Id;

    private List<(Guid Person, int Kind, Deed Deed, int Things)> Told(List<JsonElement> deeds) =>
        [
            .. deeds
                .Select(deed =>
                    (
                        deed.GetProperty("person").GetGuid(),
                        deed.GetProperty("kind").GetInt32(),
                        (Deed)deed.GetProperty("deed").GetInt32(),
                        deed.GetProperty("things").GetInt32()
                    )
                )
                .OrderBy(deed => deed.Item1 == group.Writer.Id)
                .ThenBy(deed => deed.Item2)
                .ThenBy(deed => deed.Item3),
        ];

    private async Task<List<JsonElement>> Deeds(Caller caller, string path) =>
        JsonSerializer.Deserialize<List<JsonElement>>(await caller.Http.GetStringAsync($"/api/spaces/{group.Space}/{path}"))!;

    private static Change Stroke() => new Change.StrokeAdded(new Pen(PenKind.Ball, 40, 0x1F3D3AFF), Now, Generate.Wave(3));

    private async Task Library(params Change[] changes) => await Send(DocumentKind.Library, group.Space, changes);

    private async Task Notebook(params Change[] changes) => await Send(DocumentKind.Notebook, notebook, changes);

    private async Task Send(DocumentKind kind, Guid document, Change[] changes)
    {
        using var sent = await owner.Send(group.Space, kind, document, [.. changes.Select(change => owners.Make(change, Now))]);
        sent.EnsureSuccessStatusCode();
    }

    private async Task Page(Caller caller, Operation operation)
    {
        using var sent = await caller.Send(group.Space, DocumentKind.Page, page, operation);
        sent.EnsureSuccessStatusCode();
    }
}
