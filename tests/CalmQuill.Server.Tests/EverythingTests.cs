using System.IO.Compression;
using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Library;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Spots;
using CalmQuill.Testing;

namespace CalmQuill.Server.Tests;

/// <summary>Taking everything along: all of one's own is in it, under names that every system takes, and nothing that one may not see.</summary>
public sealed class EverythingTests : IAsyncLifetime
{
    private QuillHost host = null!;
    private QuillHost.Group group = null!;
    private Caller writer = null!;
    private Guid own;
    private Replica device = null!;
    private int placed;

    /// <summary>The page that was made last.</summary>
    private Guid latest;

    public async Task InitializeAsync()
    {
        host = await QuillHost.Start();
        group = await host.MakeGroup();
        writer = await host.SignIn(group.Writer);
        device = new Replica(1, group.Writer.Id);
        own = (await writer.Refresh())
            .GetProperty("spaces")
            .EnumerateArray()
            .Single(space => space.GetProperty("personal").GetBoolean())
            .GetProperty("id")
            .GetGuid();
    }

    public async Task DisposeAsync()
    {
        writer.Dispose();
        await host.DisposeAsync();
    }

    [Fact]
    public async Task Notebooks_lie_in_their_folders_as_one_file_and_page_by_page()
    {
        var shop = await Place(own, NodeKind.Folder, "Workshop", Guid.Empty);
        var clocks = await Place(own, NodeKind.Folder, "Clocks", shop);
        await Notebook(own, "Escapements", clocks, "Anchor", "");
        await Notebook(own, "Bench log", Guid.Empty, "Monday");
        await Notebook(group.Space, "Of the group", Guid.Empty, "Together");
        var names = Names(await Take());
        Assert.Equal(
            [
                "My notebooks/Bench log.json",
                "My notebooks/Bench log.pdf",
                "My notebooks/Bench log/001 Monday.svg",
                "My notebooks/Workshop/Clocks/Escapements.json",
                "My notebooks/Workshop/Clocks/Escapements.pdf",
                "My notebooks/Workshop/Clocks/Escapements/001 Anchor.svg",
                "My notebooks/Workshop/Clocks/Escapements/002.svg",
                "My notebooks/contents.json",
                "about.txt",
                "account.json",
            ],
            names
        );
        Assert.Contains("Group/Of the group/001 Together.svg", Names(await Take("?groups=true")));
    }

    [Fact]
    public async Task What_is_in_it_is_what_was_written()
    {
        var notebookId = await Notebook(own, "Escapements", Guid.Empty, "Anchor");
        await TagAndAsk(notebookId);
        var archive = await Take();
        Assert.StartsWith("%PDF-1.", Encoding.ASCII.GetString(Read(archive, "My notebooks/Escapements.pdf")), StringComparison.Ordinal);
        var svg = Encoding.UTF8.GetString(Read(archive, "My notebooks/Escapements/001 Anchor.svg"));
        Assert.Contains("<path", svg, StringComparison.Ordinal);
        var account = JsonSerializer.Deserialize<JsonElement>(Read(archive, "account.json"));
        Assert.Equal(group.Writer.Email, account.GetProperty("email").GetString());
        Assert.DoesNotContain("assword", Encoding.UTF8.GetString(Read(archive, "account.json")), StringComparison.Ordinal);
        Assert.Equal(
            1,
            JsonSerializer.Deserialize<JsonElement>(Read(archive, "My notebooks/contents.json"))[0].GetProperty("pages").GetInt32()
        );
        var page = JsonSerializer.Deserialize<JsonElement>(Read(archive, "My notebooks/Escapements.json"))[0];
        Assert.Equal("Anchor", page.GetProperty("title").GetString());
        Assert.Equal("horology", Assert.Single(page.GetProperty("tags").EnumerateArray()).GetString());
        var mark = Assert.Single(page.GetProperty("marks").EnumerateArray());
        Assert.Equal(("Why two pallets?", group.Writer.Name), (mark.GetProperty("note").GetString(), mark.GetProperty("by").GetString()));
        Assert.Equal("One for each side.", mark.GetProperty("answers")[0].GetProperty("text").GetString());
    }

    /// <summary>No name leads out of the archive's folder or is another's (ZIP, APPNOTE 4.4.17), whatever things are called.</summary>
    [Fact]
    public async Task Whatever_things_are_called_each_is_in_it_once_and_inside()
    {
        string[] wanted =
        [
            "..",
            ".",
            "../../etc",
            "a/b",
            "a\\b",
            "Same",
            "same",
            "Same",
            "Same.pdf",
            "CON:",
            new string('n', 200),
            "dots..",
        ];
        var folder = await Place(own, NodeKind.Folder, "..", Guid.Empty);
        foreach (var name in wanted)
            await Notebook(own, name, folder, "Same", "Same", "../up");
        var names = Names(await Take());
        Assert.Equal(wanted.Length, names.Count(name => name.EndsWith(".pdf", StringComparison.Ordinal)));
        Assert.Equal(wanted.Length * 3, names.Count(name => name.EndsWith(".svg", StringComparison.Ordinal)));
        Assert.Equal(names.Count, names.Distinct(StringComparer.OrdinalIgnoreCase).Count());
        foreach (var parts in names.Select(name => name.Split('/')))
            Assert.All(parts, part => Assert.True(part.Length > 0 && part.Trim('.', ' ').Length > 0 && part.IndexOfAny(['\\', ':']) < 0));
        // None is a file and a folder at once.
        var folders = names.Where(name => name.Contains('/', StringComparison.Ordinal)).Select(name => name[..name.LastIndexOf('/')]);
        Assert.Empty(names.Intersect(folders, StringComparer.OrdinalIgnoreCase));
    }

    [Fact]
    public async Task What_is_locked_is_said_to_be_left_out_and_nothing_of_it_is_in()
    {
        var secret = await Notebook(own, "Diary", Guid.Empty, "Dear");
        using var locked = await writer.Http.PutAsJsonAsync(
            $"/api/spaces/{own}/locks/{secret}",
            new { passphrase = "lantern oil", minutes = 5 }
        );
        locked.EnsureSuccessStatusCode();
        using var other = await host.SignIn(group.Writer);
        var archive = await Take("", other);
        Assert.DoesNotContain(Names(archive), name => name.Contains("Diary", StringComparison.Ordinal));
        Assert.DoesNotContain("Dear", Encoding.UTF8.GetString(Read(archive, "My notebooks/contents.json")), StringComparison.Ordinal);
        Assert.Contains("My notebooks/Diary: It is locked.", Encoding.UTF8.GetString(Read(archive, "about.txt")), StringComparison.Ordinal);
    }

    [Fact]
    public async Task Nobody_gets_what_is_anothers_and_a_stranger_nothing()
    {
        await Notebook(own, "Diary", Guid.Empty, "Dear");
        using var owner = await host.SignIn(group.Owner);
        Assert.DoesNotContain(Names(await Take("?groups=true", owner)), name => name.Contains("Diary", StringComparison.Ordinal));
        using var nobody = await Caller.SignedOut(host.Address);
        Assert.Equal(HttpStatusCode.Unauthorized, (await nobody.Http.GetAsync("/api/people/me/everything.zip")).StatusCode);
    }

    private async Task<byte[]> Take(string query = "", Caller? by = null) =>
        await (by ?? writer).Http.GetByteArrayAsync("/api/people/me/everything.zip" + query);

    private static List<string> Names(byte[] archive)
    {
        using var zip = new ZipArchive(new MemoryStream(archive));
        return [.. zip.Entries.Select(entry => entry.FullName).Order(StringComparer.Ordinal)];
    }

    private static byte[] Read(byte[] archive, string name)
    {
        using var zip = new ZipArchive(new MemoryStream(archive));
        using var entry = zip.GetEntry(name)!.Open();
        using var bytes = new MemoryStream();
        entry.CopyTo(bytes);
        return bytes.ToArray();
    }

    private async Task<Guid> Place(Guid space, NodeKind kind, string name, Guid parent)
    {
        var id = Guid.NewGuid();
        var at = DateTimeOffset.UtcNow.ToUnixTimeMilliseconds();
        using var sent = await writer.Send(
            space,
            DocumentKind.Library,
            space,
            device.Make(new Change.PropertySet(id, Property.Name, name), at),
            device.Make(new Change.NodePlaced(id, kind, parent, $"V{++placed:D3}V"), at)
        );
        Assert.All(await Caller.Results(sent), result => Assert.Null(result.Code));
        return id;
    }

    /// <summary>Puts a tag on the latest page, and a mark that is answered.</summary>
    private async Task TagAndAsk(Guid notebook)
    {
        var tag = await Place(own, NodeKind.Tag, "horology", Guid.Empty);
        var at = DateTimeOffset.UtcNow.ToUnixTimeMilliseconds();
        using var tagged = await writer.Send(own, DocumentKind.Notebook, notebook, device.Make(new Change.TagSet(latest, tag, true), at));
        Assert.All(await Caller.Results(tagged), result => Assert.Null(result.Code));
        var spot = Guid.NewGuid();
        using var asked = await writer.Send(
            own,
            DocumentKind.Page,
            latest,
            device.Make(
                new Change.SpotAdded(
                    spot,
                    SpotKind.Mark,
                    new Box(0, 0, 400, 400),
                    [],
                    [new SpotValue(SpotField.Mark, MarkKinds.Ask), new SpotValue(SpotField.Note, "Why two pallets?")]
                ),
                at
            ),
            device.Make(new Change.AnswerAdded(spot, "One for each side.", [], default), at)
        );
        Assert.All(await Caller.Results(asked), result => Assert.Null(result.Code));
    }

    /// <summary>A notebook whose pages have these titles, each with a stroke on it.</summary>
    private async Task<Guid> Notebook(Guid space, string name, Guid folder, params string[] titles)
    {
        var notebook = await Place(space, NodeKind.Notebook, name, folder);
        var at = DateTimeOffset.UtcNow.ToUnixTimeMilliseconds();
        foreach (var (title, i) in titles.Select((title, i) => (title, i)))
        {
            var page = latest = Guid.NewGuid();
            using var added = await writer.Send(
                space,
                DocumentKind.Notebook,
                notebook,
                device.Make(new Change.PageAdded(page, $"V{i}V", "a4-ruled-710"), at),
                device.Make(new Change.PropertySet(page, Property.Name, title), at)
            );
            Assert.All(await Caller.Results(added), result => Assert.Null(result.Code));
            using var written = await writer.Send(
                space,
                DocumentKind.Page,
                page,
                device.Make(new Change.StrokeAdded(new Pen(PenKind.Ball, 40, 0xFF), at, Generate.Wave(20)), at)
            );
            written.EnsureSuccessStatusCode();
        }

        return notebook;
    }
}
