using System.Net;
using System.Net.Http.Json;
using CalmQuill.Core.Access;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Library;
using CalmQuill.Core.Operations;
using CalmQuill.Testing;
using Microsoft.Extensions.DependencyInjection;

namespace CalmQuill.Server.Tests;

/// <summary>What a group lets its writers do to what others wrote is held by the server, whatever a device sends.</summary>
public sealed class TouchTests : IAsyncLifetime
{
    private readonly Guid notebook = Guid.NewGuid(),
        ownersPage = Guid.NewGuid(),
        writersPage = Guid.NewGuid();
    private QuillHost host = null!;
    private QuillHost.Group group = null!;
    private Caller owner = null!,
        writer = null!;
    private Replica owners = null!,
        writers = null!;
    private Operation theirs = null!,
        mine = null!;

    private static long Now => DateTimeOffset.UtcNow.ToUnixTimeMilliseconds();

    /// <summary>A notebook of the owner's with a page of each, and a stroke of each on the owner's page.</summary>
    public async Task InitializeAsync()
    {
        host = await QuillHost.Start();
        group = await host.MakeGroup();
        (owner, writer) = (await host.SignIn(group.Owner), await host.SignIn(group.Writer));
        (owners, writers) = (new Replica(31, group.Owner.Id), new Replica(32, group.Writer.Id));
        Assert.True(
            await IsTaken(
                owner,
                owners,
                DocumentKind.Library,
                group.Space,
                new Change.NodePlaced(notebook, NodeKind.Notebook, Guid.Empty, "V")
            )
        );
        Assert.True(await IsTaken(owner, owners, DocumentKind.Notebook, notebook, new Change.PageAdded(ownersPage, "V", "a4-ruled-710")));
        Assert.True(
            await IsTaken(writer, writers, DocumentKind.Notebook, notebook, new Change.PageAdded(writersPage, "W", "a4-ruled-710"))
        );
        (theirs, mine) = (owners.Make(Stroke(), Now), writers.Make(Stroke(), Now));
        await owner.Send(group.Space, DocumentKind.Page, ownersPage, theirs);
        await writer.Send(group.Space, DocumentKind.Page, ownersPage, mine);
    }

    public async Task DisposeAsync()
    {
        owner.Dispose();
        writer.Dispose();
        await host.DisposeAsync();
    }

    [Theory]
    [InlineData("everything", true, true)]
    [InlineData("own", false, true)]
    [InlineData("add", false, false)]
    public async Task A_writer_changes_what_the_group_allows_and_an_owner_everything(string touch, bool others, bool own)
    {
        var chosen = await owner.Http.PutAsJsonAsync(
            $"/api/spaces/{group.Space}/group",
            new
            {
                name = "Clock menders",
                colour = "gold",
                touch,
            }
        );
        Assert.Equal(HttpStatusCode.NoContent, chosen.StatusCode);
        // Naming it alone leaves the choice as it is.
        await owner.Http.PutAsJsonAsync($"/api/spaces/{group.Space}/group", new { name = "Clock people", colour = "gold" });
        var told = (await writer.Refresh())
            .GetProperty("spaces")
            .EnumerateArray()
            .Single(one => one.GetProperty("id").GetGuid() == group.Space);
        Assert.Equal(touch, told.GetProperty("touch").GetString());

        Assert.Equal(others, await OnPage(new Change.ItemsShifted([theirs.Id], 5, 5)));
        Assert.Equal(others, await OnPage(new Change.ItemsShifted([mine.Id, theirs.Id], 5, 5)));
        Assert.Equal(own, await OnPage(new Change.ItemsShifted([mine.Id], 5, 5)));
        Assert.Equal(others, await OnPage(new Change.EffectSet(theirs.Id, false)));
        // Of what is not there it is not known whose it is.
        Assert.Equal(others, await OnPage(new Change.ItemsRemoved([new OpId(77, 1)])));
        // Adding, and taking one's own back, one always may; also what comes in the same request.
        Assert.True(await OnPage(Stroke()));
        Assert.True(await OnPage(new Change.EffectSet(mine.Id, false)));
        var fresh = writers.Make(Stroke(), Now);
        var moved = writers.Make(new Change.ItemsShifted([fresh.Id], 9, 9), Now);
        var results = await Caller.Results(await writer.Send(group.Space, DocumentKind.Page, ownersPage, fresh, moved));
        Assert.Equal([true, own], results.Select(result => result.Code is null));

        Assert.Equal(others, await Bins(writersOwn: false));
        Assert.Equal(own, await Bins(writersOwn: true));
        Assert.Equal(
            others,
            await IsTaken(writer, writers, DocumentKind.Library, group.Space, new Change.PropertySet(notebook, Property.Binned, "5"))
        );
        // Out of the bin again anybody who writes may bring it.
        Assert.True(
            await IsTaken(writer, writers, DocumentKind.Library, group.Space, new Change.PropertySet(notebook, Property.Binned, ""))
        );
        // Placing another's page anew, with an early stamp or none, does not make it one's own.
        await IsTaken(writer, writers, DocumentKind.Notebook, notebook, new Change.NodePlaced(ownersPage, NodeKind.Page, Guid.Empty, "A"));
        Assert.Equal(others, await Bins(writersOwn: false));

        Assert.True(await IsTaken(owner, owners, DocumentKind.Page, ownersPage, new Change.ItemsRemoved([mine.Id])));
        Assert.True(
            await IsTaken(owner, owners, DocumentKind.Notebook, notebook, new Change.PropertySet(writersPage, Property.Binned, "5"))
        );
    }

    [Fact]
    public async Task What_is_no_choice_is_refused_and_the_group_stays_as_it_was()
    {
        var refused = await owner.Http.PutAsJsonAsync(
            $"/api/spaces/{group.Space}/group",
            new
            {
                name = "Clock menders",
                colour = "gold",
                touch = "nothing",
            }
        );
        Assert.Equal(HttpStatusCode.BadRequest, refused.StatusCode);
        Assert.Equal(Touch.Everything, await host.Services.GetRequiredService<Store.Spaces.SpaceStore>().TouchIn(group.Space, default));
        Assert.Equal(
            HttpStatusCode.Forbidden,
            (
                await writer.Http.PutAsJsonAsync(
                    $"/api/spaces/{group.Space}/group",
                    new
                    {
                        name = "Mine",
                        colour = "gold",
                        touch = "everything",
                    }
                )
            ).StatusCode
        );
    }

    private Task<bool> OnPage(Change change) => IsTaken(writer, writers, DocumentKind.Page, ownersPage, change);

    private Task<bool> Bins(bool writersOwn) =>
        IsTaken(
            writer,
            writers,
            DocumentKind.Notebook,
            notebook,
            new Change.PropertySet(writersOwn ? writersPage : ownersPage, Property.Binned, "5")
        );

    private async Task<bool> IsTaken(Caller caller, Replica device, DocumentKind kind, Guid id, Change change) =>
        Assert.Single(await Caller.Results(await caller.Send(group.Space, kind, id, device.Make(change, Now)))).Code is null;

    private static Change.StrokeAdded Stroke() =>
        new(new Pen(PenKind.Ball, 40, 0x22302EFF), Now, new StrokeSamples([0, 900], [0, 300], [500, 500], [0, 9]));
}
