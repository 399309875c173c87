using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using CalmQuill.Core.History;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Library;
using CalmQuill.Core.Operations;
using CalmQuill.Store.Documents;
using CalmQuill.Testing;
using Microsoft.Extensions.DependencyInjection;

namespace CalmQuill.Server.Tests;

/// <summary>Notebooks and folders as they were: their bar of time, their pages' pictures of then, and copies of them; for who may see the past, and nobody else.</summary>
public sealed class PastTests : IAsyncLifetime
{
    private const long Minute = 60_000,
        Quarter = Chronicle.Quarter;

    private readonly Guid folder = Guid.NewGuid(),
        notebook = Guid.NewGuid(),
        other = Guid.NewGuid(),
        first = Guid.NewGuid(),
        second = Guid.NewGuid();

    /// <summary>The beginning of a quarter of an hour, a month ago.</summary>
    private readonly long began = (DateTimeOffset.UtcNow.ToUnixTimeMilliseconds() / Quarter - 3_000) * Quarter;
    private QuillHost host = null!;
    private QuillHost.Group group = null!;
    private Caller owner = null!,
        writer = null!,
        reader = null!,
        stranger = null!;
    private Replica owners = null!,
        writers = null!;

    public async Task InitializeAsync()
    {
        host = await QuillHost.Start();
        group = await host.MakeGroup();
        (owner, writer) = (await host.SignIn(group.Owner), await host.SignIn(group.Writer));
        (reader, stranger) = (await host.SignIn(group.Reader), await host.SignIn(group.Stranger));
        (owners, writers) = (new Replica(71, group.Owner.Id), new Replica(72, group.Writer.Id));
        await Library(
            began,
            new Change.NodePlaced(folder, NodeKind.Folder, Guid.Empty, "V"),
            new Change.PropertySet(folder, Property.Name, "Workshop"),
            new Change.NodePlaced(notebook, NodeKind.Notebook, folder, "V"),
            new Change.PropertySet(notebook, Property.Name, "Beats"),
            new Change.NodePlaced(other, NodeKind.Notebook, Guid.Empty, "W"),
            new Change.PropertySet(other, Property.Name, "Elsewhere")
        );
        await Notebook(
            began,
            new Change.PageAdded(first, "V", "a4-ruled-710"),
            new Change.PageAdded(second, "W", "a4-ruled-710"),
            new Change.PropertySet(first, Property.Name, "The pallets")
        );
    }

    public async Task DisposeAsync()
    {
        foreach (var caller in new[] { owner, writer, reader, stranger })
            caller.Dispose();
        await host.DisposeAsync();
    }

    [Fact]
    public async Task A_bar_tells_who_did_how_much_when_in_a_notebook_a_folder_and_a_library()
    {
        await Write(first, began + 40 * Minute, 3);
        await Write(first, began + 26 * 60 * Minute, 2);
        await owner.Send(
            group.Space,
            DocumentKind.Notebook,
            other,
            owners.Make(new Change.PageAdded(Guid.NewGuid(), "V", "a4-ruled-710"), began + 50 * 60 * Minute)
        );
        var bar = await Chart(reader, $"notebooks/{notebook}/chart");
        var people = bar.GetProperty("people").EnumerateArray().Select(one => one.GetGuid()).ToList();
        var wrote = bar.GetProperty("strokes").EnumerateArray().Where(one => one[2].GetInt32() == (int)Deed.Wrote).ToList();
        Assert.Equal(5, wrote.Sum(one => one[3].GetInt64()));
        Assert.All(wrote, one => Assert.Equal(group.Writer.Id, people[one[1].GetInt32()]));
        var sittings = Sittings(bar);
        Assert.Equal(3, sittings.Count);
        // What was written within a quarter of an hour is gone through from its beginning.
        Assert.Equal((began + 30 * Minute, began + 40 * Minute + 2), sittings[1]);
        Assert.Equal(began + 26 * 60 * Minute + 1, sittings[2].To);
        Assert.Equal(sittings, Sittings(await Chart(reader, $"chart?folder={folder}")));
        Assert.Equal(4, Sittings(await Chart(reader, "chart")).Count);
    }

    [Fact]
    public async Task Nothing_of_a_notebook_that_is_shut_is_on_the_bar_and_nothing_at_all_for_a_stranger()
    {
        await Write(first, began + 5 * 60 * Minute, 3);
        using var locked = await owner.Http.PutAsJsonAsync(
            $"/api/spaces/{group.Space}/locks/{notebook}",
            new { passphrase = "seven quiet bells", minutes = 5 }
        );
        locked.EnsureSuccessStatusCode();
        Assert.Equal(HttpStatusCode.Locked, await Status(reader, $"notebooks/{notebook}/chart"));
        Assert.Equal(HttpStatusCode.Locked, await Status(reader, $"notebooks/{notebook}/then?at={began}"));
        Assert.DoesNotContain(Sittings(await Chart(reader, $"chart?folder={folder}")), one => one.To > began + Quarter);
        foreach (var path in new[] { "chart", $"notebooks/{notebook}/chart", $"notebooks/{notebook}/then?at={began}" })
            Assert.Equal(HttpStatusCode.NotFound, await Status(stranger, path));
    }

    [Fact]
    public async Task A_pages_picture_of_then_is_found_by_an_address_that_stays_while_nothing_is_done_to_it()
    {
        await Write(first, began + 20 * Minute, 2);
        await Write(first, began + 65 * Minute, 2);
        await Write(first, began + 300 * Minute, 2);
        var pictures = new Dictionary<long, string>();
        foreach (var at in new long[] { 5, 20, 21, 22, 50, 65, 66, 67, 90, 200, 300, 301, 400 })
        {
            var then = await Then(first, began + at * Minute);
            // Those of a time within a quarter in which it was written on are its own; later ones share one.
            pictures[at] = await Picture(first, $"&at={then ?? long.MaxValue}");
            Assert.Equal(await Picture(first, $"&at={began + at * Minute}"), pictures[at]);
        }

        Assert.Equal(await Then(first, began + 90 * Minute), await Then(first, began + 200 * Minute));
        Assert.Null(await Then(first, began + 400 * Minute));
        Assert.Equal(await Picture(first, ""), pictures[400]);
        // None, and each number of strokes that had been written at one of these times.
        Assert.Equal(7, pictures.Values.Distinct().Count());
        // Nothing was ever written on the other.
        Assert.Null(await Then(second, began));
    }

    [Fact]
    public async Task Where_the_past_is_closed_a_reader_is_shown_nothing_of_it_and_a_writer_all()
    {
        await Write(first, began + 20 * Minute, 2);
        await owner.ClosePast(group.Space);
        string[] paths =
        [
            "chart",
            $"notebooks/{notebook}/chart",
            $"notebooks/{notebook}/then?at={began}",
            $"pages/{first}/thumbnail.svg?at={began}",
        ];
        foreach (var path in paths)
        {
            Assert.Equal(HttpStatusCode.Forbidden, await Status(reader, path));
            Assert.Equal(HttpStatusCode.OK, await Status(writer, path));
        }

        Assert.Equal(HttpStatusCode.OK, await Status(reader, $"pages/{first}/thumbnail.svg"));
        var own = (await host.Services.GetRequiredService<Store.Spaces.SpaceStore>().Of(group.Reader.Id, default))
            .Single(space => space.Personal)
            .Id;
        using var copied = await Copy(
            reader,
            new
            {
                node = notebook,
                toSpace = own,
                at = began,
            }
        );
        Assert.Equal(HttpStatusCode.Forbidden, copied.StatusCode);
    }

    [Fact]
    public async Task A_copy_of_a_notebook_as_it_was_has_its_pages_their_ink_and_its_people_of_then()
    {
        var tag = Guid.NewGuid();
        var gone = Guid.NewGuid();
        await Library(
            began,
            new Change.NodePlaced(tag, NodeKind.Tag, Guid.Empty, "V"),
            new Change.PropertySet(tag, Property.Name, "bench")
        );
        await Notebook(began, new Change.TagSet(first, tag, true), new Change.PageAdded(gone, "X", "a4-ruled-710"));
        await Write(first, began + 20 * Minute, 2);
        await Write(gone, began + 21 * Minute, 1);
        var then = began + 30 * Minute;
        await Write(first, began + 40 * Minute, 3);
        await Notebook(
            began + 60 * Minute,
            new Change.PropertySet(first, Property.Name, "Renamed since"),
            new Change.PropertySet(second, Property.Binned, "1"),
            new Change.PageAdded(Guid.NewGuid(), "Y", "a4-ruled-710"),
            new Change.PropertySet(gone, Property.Erased, Erasings.Alone)
        );
        using var copied = await Copy(
            writer,
            new
            {
                node = notebook,
                parent = folder,
                at = then,
                name = "Beats, as then",
            }
        );
        copied.EnsureSuccessStatusCode();
        var copy = (await copied.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("copy").GetGuid();
        var documents = host.Services.GetRequiredService<DocumentStore>();
        var node = (await documents.Library(group.Space, default)).Nodes().Single(one => one.Id == copy);
        Assert.Equal(("Beats, as then", folder), (node.Name, node.Parent));
        var pages = (await documents.Notebook(group.Space, copy, default)).Outline();
        // The one that was erased since is nowhere to be copied from; the one in the bin is.
        Assert.Equal(["The pallets", ""], pages.Select(page => page.Title));
        Assert.Equal([tag], pages[0].OwnTags.Ids);
        var ink = (await documents.Page(group.Space, pages[0].Id, default)).Operations();
        Assert.Equal(2, ink.Count);
        Assert.All(ink, operation => Assert.Equal(group.Writer.Id, operation.Author));
        // The notebook itself is as it was before.
        Assert.Equal(5, (await documents.Page(group.Space, first, default)).OperationCount);
        Assert.Equal("Renamed since", (await documents.Notebook(group.Space, notebook, default)).Read(first, Property.Name));
    }

    [Fact]
    public async Task A_copy_of_a_folder_as_it_was_has_the_notebooks_that_lay_in_it_then()
    {
        await Write(first, began + 20 * Minute, 2);
        await Library(
            began + 60 * Minute,
            new Change.NodePlaced(notebook, NodeKind.Notebook, Guid.Empty, "X"),
            new Change.NodePlaced(other, NodeKind.Notebook, folder, "V"),
            new Change.PropertySet(folder, Property.Name, "Bench")
        );
        using var copied = await Copy(owner, new { node = folder, at = began + 30 * Minute });
        copied.EnsureSuccessStatusCode();
        var copy = (await copied.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("copy").GetGuid();
        var documents = host.Services.GetRequiredService<DocumentStore>();
        var nodes = (await documents.Library(group.Space, default)).Nodes();
        Assert.Equal("Workshop, copy", nodes.Single(one => one.Id == copy).Name);
        var inside = Assert.Single(nodes, one => one.Parent == copy);
        Assert.Equal("Beats", inside.Name);
        Assert.Equal(2, (await documents.Notebook(group.Space, inside.Id, default)).Outline().Count);
    }

    [Fact]
    public async Task What_is_asked_wrongly_is_refused_with_a_sentence_and_copies_nothing()
    {
        foreach (var at in new[] { "", "?at=-1", "?at=999999999999999" })
            Assert.Equal(HttpStatusCode.BadRequest, await Status(owner, $"notebooks/{notebook}/then{at}"));
        object[] asked =
        [
            new
            {
                node = notebook,
                at = began,
                move = true,
            },
            new
            {
                node = notebook,
                entry = first,
                at = began,
            },
            new
            {
                node = notebook,
                at = began,
                name = "",
            },
        ];
        foreach (var one in asked)
        {
            using var refused = await Copy(owner, one);
            Assert.Equal(HttpStatusCode.BadRequest, refused.StatusCode);
        }

        // Before it was there.
        using var before = await Copy(owner, new { node = notebook, at = began - 1 });
        Assert.Equal(HttpStatusCode.NotFound, before.StatusCode);
        Assert.Equal(
            2,
            (await host.Services.GetRequiredService<DocumentStore>().Library(group.Space, default))
                .Nodes()
                .Count(node => node.Kind is NodeKind.Notebook)
        );
    }

    private static List<(long From, long To)> Sittings(JsonElement bar) =>
        [.. bar.GetProperty("sittings").EnumerateArray().Select(one => ((long)one[0].GetDouble(), (long)one[1].GetDouble()))];

    private Task<JsonElement> Chart(Caller caller, string path) =>
        caller.Http.GetFromJsonAsync<JsonElement>($"/api/spaces/{group.Space}/{path}");

    private async Task<HttpStatusCode> Status(Caller caller, string path)
    {
        using var answer = await caller.Http.GetAsync($"/api/spaces/{group.Space}/{path}");
        return answer.StatusCode;
    }

    private Task<HttpResponseMessage> Copy(Caller caller, object asked) =>
        caller.Http.PostAsJsonAsync($"/api/spaces/{group.Space}/copies", asked);

    /// <summary>By what time a page stood as it did then; null where it stands so now.</summary>
    private async Task<long?> Then(Guid page, long at)
    {
        var pages = await reader.Http.GetFromJsonAsync<List<JsonElement>>($"/api/spaces/{group.Space}/notebooks/{notebook}/then?at={at}");
        var until = pages!.Single(one => one.GetProperty("page").GetGuid() == page).GetProperty("until");
        return until.ValueKind is JsonValueKind.Null ? null : until.GetInt64();
    }

    private Task<string> Picture(Guid page, string at) =>
        reader.Http.GetStringAsync($"/api/spaces/{group.Space}/pages/{page}/thumbnail.svg?paper=a4-blank{at}");

    /// <summary>The writer writes strokes a millisecond apart.</summary>
    private async Task Write(Guid page, long at, int strokes)
    {
        for (var i = 0; i < strokes; i++)
        {
            var stroke = new Change.StrokeAdded(new Pen(PenKind.Ball, 40, 0x1F3D3AFF), at + i, Generate.Wave(3 + (int)(at / Minute % 97)));
            using var sent = await writer.Send(group.Space, DocumentKind.Page, page, writers.Make(stroke, at + i));
            sent.EnsureSuccessStatusCode();
        }
    }

    private Task Library(long at, params Change[] changes) => Send(DocumentKind.Library, group.Space, at, changes);

    private Task Notebook(long at, params Change[] changes) => Send(DocumentKind.Notebook, notebook, at, changes);

    private async Task Send(DocumentKind kind, Guid document, long at, Change[] changes)
    {
        using var sent = await owner.Send(group.Space, kind, document, [.. changes.Select(change => owners.Make(change, at))]);
        sent.EnsureSuccessStatusCode();
    }
}
