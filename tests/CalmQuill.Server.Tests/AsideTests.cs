using System.Net;
using System.Net.Http.Json;
using System.Text.RegularExpressions;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Library;
using CalmQuill.Core.Operations;
using CalmQuill.Testing;
using Microsoft.AspNetCore.SignalR.Client;

namespace CalmQuill.Server.Tests;

/// <summary>An aside is its writer's and nobody else's, and outlives the page that it was written over.</summary>
public sealed partial class AsideTests : IAsyncLifetime
{
    private readonly Guid notebook = Guid.NewGuid(),
        page = Guid.NewGuid();
    private QuillHost host = null!;
    private QuillHost.Group group = null!;
    private Caller owner = null!,
        writer = null!,
        reader = null!;
    private Replica owners = null!,
        readers = null!;
    private Guid own;
    private Operation word = null!,
        note = null!;

    private static long Now => DateTimeOffset.UtcNow.ToUnixTimeMilliseconds();

    /// <summary>A page of the group's with a word on it, and a reader's note at that word.</summary>
    public async Task InitializeAsync()
    {
        host = await QuillHost.Start();
        group = await host.MakeGroup();
        (owner, writer, reader) = (await host.SignIn(group.Owner), await host.SignIn(group.Writer), await host.SignIn(group.Reader));
        (owners, readers) = (new Replica(41, group.Owner.Id), new Replica(42, group.Reader.Id));
        await owner.Send(
            group.Space,
            DocumentKind.Library,
            group.Space,
            owners.Make(new Change.NodePlaced(notebook, NodeKind.Notebook, Guid.Empty, "V"), Now)
        );
        await owner.Send(group.Space, DocumentKind.Notebook, notebook, owners.Make(new Change.PageAdded(page, "V", "a4-ruled-710"), Now));
        word = owners.Make(Stroke(2000, 2000), Now);
        await owner.Send(group.Space, DocumentKind.Page, page, word);
        own = (await reader.Refresh())
            .GetProperty("spaces")
            .EnumerateArray()
            .First(one => one.GetProperty("personal").GetBoolean())
            .GetProperty("id")
            .GetGuid();
        note = readers.Make(Stroke(2100, 2100), Now);
        Assert.Null(await Refused(reader, own, note));
        Assert.Null(await Refused(reader, own, readers.Make(new Change.ItemsAnchored([note.Id], word.Id, Transform.Identity), Now)));
    }

    public async Task DisposeAsync()
    {
        owner.Dispose();
        writer.Dispose();
        reader.Dispose();
        await host.DisposeAsync();
    }

    [Fact]
    public async Task Nobody_else_reads_writes_or_hears_it_whatever_they_are_in_the_group()
    {
        foreach (var other in new[] { owner, writer })
        {
            Assert.Equal(HttpStatusCode.NotFound, (await other.Http.GetAsync(Caller.PathOf(own, DocumentKind.Aside, page))).StatusCode);
            Assert.Equal(
                HttpStatusCode.NotFound,
                (await other.Send(own, DocumentKind.Aside, page, owners.Make(Stroke(0, 0), Now))).StatusCode
            );
            await using var device = await LiveDevice.Connect(host, other);
            await Assert.ThrowsAnyAsync<Exception>(() => device.Hub.InvokeAsync("Join", $"{own}/aside/{page}"));
        }

        // Nor does a group have any: what is written there would be everybody's.
        Assert.Equal(
            HttpStatusCode.NotFound,
            (await owner.Send(group.Space, DocumentKind.Aside, page, owners.Make(Stroke(0, 0), Now))).StatusCode
        );
        Assert.Equal(2, (await reader.After(own, DocumentKind.Aside, page)).Count);
    }

    [Fact]
    public async Task A_guest_who_names_its_id_in_a_notebook_that_was_shared_with_them_gets_nothing_of_it()
    {
        var shared = Guid.NewGuid();
        await reader.Send(
            own,
            DocumentKind.Library,
            own,
            readers.Make(new Change.NodePlaced(shared, NodeKind.Notebook, Guid.Empty, "V"), Now)
        );
        var answer = await reader.Http.PostAsJsonAsync(
            $"/api/spaces/{own}/shares",
            new
            {
                node = shared,
                with = "person",
                who = group.Writer.Name,
                writes = true,
            }
        );
        Assert.True(answer.IsSuccessStatusCode, await answer.Content.ReadAsStringAsync());
        var guests = new Replica(43, group.Writer.Id);
        var begun = await writer.Send(own, DocumentKind.Page, page, guests.Make(Stroke(0, 0), Now));
        await writer.Send(own, DocumentKind.Notebook, shared, guests.Make(new Change.PageAdded(page, "V", "a4-ruled-710"), Now));
        Assert.Equal(HttpStatusCode.OK, begun.StatusCode);

        // There is a page of that id now, at home in the shared notebook. The aside is another document still.
        Assert.Single(await writer.After(own, DocumentKind.Page, page));
        Assert.Equal(HttpStatusCode.NotFound, (await writer.Http.GetAsync(Caller.PathOf(own, DocumentKind.Aside, page))).StatusCode);
        Assert.Equal(2, (await reader.After(own, DocumentKind.Aside, page)).Count);
    }

    [Fact]
    public async Task It_is_saved_with_the_page_or_alone_where_its_word_now_lies_and_others_get_the_page_without_it()
    {
        var path = $"/api/spaces/{group.Space}/pages/{page}/export.svg";
        var plain = PathsOf(await reader.Http.GetStringAsync(path));
        var over = PathsOf(await reader.Http.GetStringAsync(path + "?aside=over"));
        var alone = PathsOf(await reader.Http.GetStringAsync(path + "?aside=alone"));
        Assert.Equal(plain + 1, over);
        Assert.Equal(plain, alone);
        Assert.Equal(plain, PathsOf(await owner.Http.GetStringAsync(path + "?aside=over")));

        var before = await reader.Http.GetStringAsync(path + "?aside=alone");
        await owner.Send(group.Space, DocumentKind.Page, page, owners.Make(new Change.ItemsShifted([word.Id], 0, 9000), Now));
        var after = await reader.Http.GetStringAsync(path + "?aside=alone");
        Assert.Equal(LowestOf(before) + 9000, LowestOf(after), 1.0);
        var pdf = await reader.Http.GetAsync($"/api/spaces/{group.Space}/pages/{page}/export.pdf?aside=over");
        Assert.Equal("application/pdf", pdf.Content.Headers.ContentType?.MediaType);
        Assert.Equal(HttpStatusCode.BadRequest, (await reader.Http.GetAsync(path + "?aside=under")).StatusCode);
    }

    [Fact]
    public async Task It_outlives_the_page_in_the_bin_and_the_person_who_leaves_the_group()
    {
        await owner.Send(
            group.Space,
            DocumentKind.Notebook,
            notebook,
            owners.Make(new Change.PropertySet(page, Property.Erased, "1"), Now)
        );
        await owner.Http.PutAsJsonAsync($"/api/spaces/{group.Space}/members/{group.Reader.Id}", new { role = "none" });
        Assert.Equal(
            HttpStatusCode.NotFound,
            (await reader.Http.GetAsync($"/api/spaces/{group.Space}/pages/{page}/export.svg")).StatusCode
        );

        Assert.Equal(2, (await reader.After(own, DocumentKind.Aside, page)).Count);
        Assert.Null(await Refused(reader, own, readers.Make(Stroke(4000, 4000), Now)));
        var alone = await reader.Http.GetStringAsync($"/api/asides/{page}/export.svg?paper=a5-blank-710&title=Beats");
        Assert.Contains("<title>Beats</title>", alone, StringComparison.Ordinal);
        Assert.Contains("width=\"148mm\"", alone, StringComparison.Ordinal);
        Assert.Equal(HttpStatusCode.OK, (await reader.Http.GetAsync($"/api/asides/{page}/export.pdf")).StatusCode);
        Assert.Equal(HttpStatusCode.NotFound, (await owner.Http.GetAsync($"/api/asides/{page}/export.svg")).StatusCode);
        Assert.Equal(HttpStatusCode.NotFound, (await owner.Http.GetAsync($"/api/asides/{page}/export.pdf")).StatusCode);
    }

    private async Task<string?> Refused(Caller caller, Guid space, Operation operation) =>
        Assert.Single(await Caller.Results(await caller.Send(space, DocumentKind.Aside, page, operation))).Code;

    /// <summary>How many things are filled in the colour of the ink.</summary>
    private static int PathsOf(string svg) => InkPath().Count(svg);

    /// <summary>The greatest y of the ink's outline.</summary>
    private static double LowestOf(string svg) =>
        Numbers()
            .Matches(InkPath().Match(svg).Value)
            .Select(pair => double.Parse(pair.Groups[1].Value, System.Globalization.CultureInfo.InvariantCulture))
            .Max();

    [GeneratedRegex("<path[^>]*#22302e[^>]*>", RegexOptions.IgnoreCase)]
    private static partial Regex InkPath();

    [GeneratedRegex(@"-?[\d.]+[ ,](-?[\d.]+)")]
    private static partial Regex Numbers();

    private static Change.StrokeAdded Stroke(int x, int y) =>
        new(new Pen(PenKind.Ball, 40, 0x22302EFF), Now, new StrokeSamples([x, x + 900], [y, y + 300], [500, 500], [0, 9]));
}
