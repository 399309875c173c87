using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using CalmQuill.Core.Changing;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Library;
using CalmQuill.Core.Notebooks;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Stamps;
using CalmQuill.Core.Writing;
using CalmQuill.Store.Assets;
using CalmQuill.Testing;
using Microsoft.Extensions.DependencyInjection;

namespace CalmQuill.Server.Tests;

/// <summary>The files of pictures on pages: how long they stay, who gets them, and that they go along with what shows them.</summary>
public sealed class PagePictureTests : IAsyncLifetime
{
    private static readonly byte[] Photo = MadePictures.Png(300, 200);
    private readonly Guid notebook = Guid.NewGuid(),
        page = Guid.NewGuid(),
        other = Guid.NewGuid(),
        otherPage = Guid.NewGuid();
    private QuillHost host = null!;
    private QuillHost.Group group = null!;
    private Caller owner = null!,
        guest = null!;
    private Replica device = null!;

    public async Task InitializeAsync()
    {
        host = await QuillHost.Start();
        group = await host.MakeGroup();
        (owner, guest) = (await host.SignIn(group.Owner), await host.SignIn(group.Stranger));
        device = new Replica(11, group.Owner.Id);
        foreach (var (book, inside) in new[] { (notebook, page), (other, otherPage) })
        {
            await Write(
                DocumentKind.Library,
                group.Space,
                new Change.NodePlaced(book, NodeKind.Notebook, Guid.Empty, "V"),
                new Change.PropertySet(book, Property.Name, "Photographs")
            );
            await Write(DocumentKind.Notebook, book, new Change.PageAdded(inside, "V", "a4-ruled-710"));
        }
    }

    public async Task DisposeAsync()
    {
        owner.Dispose();
        guest.Dispose();
        await host.DisposeAsync();
    }

    [Fact]
    public async Task What_a_page_shows_or_ever_showed_stays_and_goes_once_the_page_is_gone_for_good()
    {
        var (shown, removed, cleared) = (
            await owner.SendAsset(group.Space, Photo),
            await owner.SendAsset(group.Space, MadePictures.Png(20, 10)),
            await owner.SendAsset(group.Space, MadePictures.Png(30, 10))
        );
        await Write(DocumentKind.Page, page, Picture(shown));
        var gone = device.Make(Picture(removed), Now);
        await Caller.Results(await owner.Send(group.Space, DocumentKind.Page, page, gone));
        await Write(
            DocumentKind.Page,
            page,
            new Change.ItemsSet([gone.Id], [new ItemValue(ItemField.Source, cleared.ToString())]),
            new Change.ItemsRemoved([gone.Id])
        );
        var assets = host.Services.GetRequiredService<AssetStore>();
        var now = DateTimeOffset.UtcNow;
        Task<int> Collect(int day) => assets.Collect(now.AddDays(day), CancellationToken.None);
        Assert.Equal(0, await Collect(1));
        Assert.Equal(0, await Collect(3 * AssetStore.GraceDays));
        foreach (var asset in new[] { shown, removed, cleared })
            Assert.Equal(HttpStatusCode.OK, await Status(owner, asset));
        Assert.Equal(
            new[] { shown, removed, cleared }.Order(),
            (await owner.Http.GetFromJsonAsync<List<Guid>>($"/api/spaces/{group.Space}/notebooks/{notebook}/assets"))!.Order()
        );
        // A page that was frozen to be a paper shows it, too.
        var frozen = await Frozen();
        await Write(DocumentKind.Notebook, notebook, new Change.PropertySet(page, Property.Erased, "1"));
        await host.Services.GetRequiredService<Store.Library.BinStore>().RemoveData(now.AddDays(400), CancellationToken.None);
        await Collect(4 * AssetStore.GraceDays);
        // The page is gone: no paper names the frozen one, which still holds the pictures until it goes.
        Assert.Equal(1, await Collect(5 * AssetStore.GraceDays + 1));
        Assert.Equal(HttpStatusCode.NotFound, await Status(owner, frozen));
        Assert.Equal(HttpStatusCode.OK, await Status(owner, removed));
        await Collect(5 * AssetStore.GraceDays + 2);
        Assert.Equal(3, await Collect(6 * AssetStore.GraceDays + 3));
        Assert.Equal(HttpStatusCode.NotFound, await Status(owner, removed));
    }

    [Fact]
    public async Task A_guest_gets_the_pictures_of_what_was_shared_and_no_other()
    {
        var (here, elsewhere) = (await owner.SendAsset(group.Space, Photo), await owner.SendAsset(group.Space, MadePictures.Png(9, 9)));
        await Write(DocumentKind.Page, page, Picture(here));
        await Write(DocumentKind.Page, otherPage, Picture(elsewhere));
        Assert.Equal(HttpStatusCode.NotFound, await Status(guest, here));
        await ShareWithGuest();
        Assert.Equal(HttpStatusCode.OK, await Status(guest, here));
        Assert.Equal(HttpStatusCode.NotFound, await Status(guest, elsewhere));
        var path = $"/api/spaces/{group.Space}/notebooks/{notebook}/assets";
        Assert.Equal([here], await guest.Http.GetFromJsonAsync<List<Guid>>(path));
        Assert.Equal(
            HttpStatusCode.NotFound,
            (await guest.Http.GetAsync($"/api/spaces/{group.Space}/notebooks/{other}/assets")).StatusCode
        );
    }

    [Fact]
    public async Task A_stamp_keeps_what_it_shows_and_no_guest_gets_it()
    {
        var shown = await owner.SendAsset(group.Space, Photo);
        var piece = new Piece();
        piece.Add(Picture(shown));
        var file = await owner.SendAsset(group.Space, PageStamp.File(OperationCodec.Encode(piece.Operations)));
        var stamp = Guid.NewGuid();
        await Write(
            DocumentKind.Library,
            group.Space,
            new Change.NodePlaced(stamp, NodeKind.Stamp, Guid.Empty, "V"),
            new Change.PropertySet(stamp, Property.Name, "Pallet"),
            new Change.PropertySet(stamp, Property.Source, file.ToString())
        );
        await ShareWithGuest();
        foreach (var asset in new[] { shown, file })
            Assert.Equal((HttpStatusCode.OK, HttpStatusCode.NotFound), (await Status(owner, asset), await Status(guest, asset)));
        var told = await guest.Http.GetStringAsync("/api/shared");
        Assert.DoesNotContain(stamp.ToString(), told, StringComparison.OrdinalIgnoreCase);
        // On no page any more, and kept all the same as long as there is the stamp.
        var assets = host.Services.GetRequiredService<AssetStore>();
        var now = DateTimeOffset.UtcNow;
        foreach (var day in new[] { 1, AssetStore.GraceDays + 2, 3 * AssetStore.GraceDays })
            Assert.Equal(0, await assets.Collect(now.AddDays(day), CancellationToken.None));
        Assert.Equal(HttpStatusCode.OK, await Status(owner, shown));
        await Write(DocumentKind.Library, group.Space, new Change.PropertySet(stamp, Property.Source, ""));
        foreach (var day in new[] { 4, 6, 8, 10 })
            await assets.Collect(now.AddDays(day * AssetStore.GraceDays), CancellationToken.None);
        Assert.Equal((HttpStatusCode.NotFound, HttpStatusCode.NotFound), (await Status(owner, shown), await Status(owner, file)));
    }

    [Fact]
    public async Task A_copy_in_another_library_has_its_pictures_there()
    {
        var asset = await owner.SendAsset(group.Space, Photo);
        await Write(DocumentKind.Page, page, Picture(asset));
        var own = (await owner.Refresh())
            .GetProperty("spaces")
            .EnumerateArray()
            .Single(space => space.GetProperty("personal").GetBoolean())
            .GetProperty("id")
            .GetGuid();
        Assert.Equal(HttpStatusCode.NotFound, (await owner.Http.GetAsync($"/api/spaces/{own}/assets/{asset}")).StatusCode);
        var copied = await owner.Http.PostAsJsonAsync($"/api/spaces/{group.Space}/copies", new { node = notebook, toSpace = own });
        Assert.Equal(HttpStatusCode.OK, copied.StatusCode);
        Assert.Equal(Photo, await owner.Http.GetByteArrayAsync($"/api/spaces/{own}/assets/{asset}"));
        var copy = (await copied.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("copy").GetGuid();
        Assert.Equal([asset], await owner.Http.GetFromJsonAsync<List<Guid>>($"/api/spaces/{own}/notebooks/{copy}/assets"));
        // And keeps them, whatever becomes of the first.
        var assets = host.Services.GetRequiredService<AssetStore>();
        await assets.Collect(DateTimeOffset.UtcNow, CancellationToken.None);
        await assets.Collect(DateTimeOffset.UtcNow.AddDays(AssetStore.GraceDays + 1), CancellationToken.None);
        Assert.Equal(Photo, await owner.Http.GetByteArrayAsync($"/api/spaces/{own}/assets/{asset}"));
    }

    [Fact]
    public async Task A_small_picture_of_a_page_whose_photograph_is_on_its_way_is_not_kept_and_then_shows_it()
    {
        var asset = Core.Assets.AssetId.Of(Photo);
        await Write(DocumentKind.Page, page, Picture(asset));
        var path = $"/api/spaces/{group.Space}/pages/{page}/thumbnail.svg";
        var before = await owner.Http.GetAsync(path);
        Assert.True(before.Headers.CacheControl!.NoStore);
        Assert.DoesNotContain("<image", await before.Content.ReadAsStringAsync(), StringComparison.Ordinal);
        await owner.SendAsset(group.Space, Photo);
        var after = await owner.Http.GetAsync(path);
        Assert.False(after.Headers.CacheControl!.NoStore);
        Assert.Contains("<image", await after.Content.ReadAsStringAsync(), StringComparison.Ordinal);
        var pdf = await owner.Http.GetByteArrayAsync($"/api/spaces/{group.Space}/pages/{page}/export.pdf");
        Assert.Contains("/SMask", System.Text.Encoding.Latin1.GetString(pdf), StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("export.pdf")]
    [InlineData("export.svg")]
    public async Task Pictures_are_as_fine_in_a_file_as_is_wished_and_never_finer_than_they_came(string file)
    {
        var asset = await owner.SendAsset(group.Space, Photo);
        await Write(DocumentKind.Page, page, Picture(asset));
        var path = $"/api/spaces/{group.Space}/pages/{page}/{file}";
        var sizes = new List<int>();
        foreach (var dots in new[] { 72, 150, 300, 600, 1_200 })
            sizes.Add((await owner.Http.GetByteArrayAsync($"{path}?dots={dots}")).Length);
        Assert.Equal(sizes.Order(), sizes);
        Assert.True(sizes[0] < sizes[^1], string.Join(' ', sizes));
        Assert.Equal(sizes[2], (await owner.Http.GetByteArrayAsync(path)).Length);
        foreach (var dots in new[] { "71", "1201", "-300", "0", "many", "99999999999", "3e2" })
        {
            var refused = await owner.Http.GetAsync($"{path}?dots={dots}");
            Assert.Equal(HttpStatusCode.BadRequest, refused.StatusCode);
            Assert.Contains("dots an inch", await refused.Content.ReadAsStringAsync(), StringComparison.Ordinal);
        }
    }

    private async Task ShareWithGuest()
    {
        var shared = await owner.Http.PostAsJsonAsync(
            $"/api/spaces/{group.Space}/shares",
            new
            {
                node = notebook,
                with = "person",
                who = group.Stranger.Name,
            }
        );
        Assert.True(shared.IsSuccessStatusCode);
    }

    private async Task<Guid> Frozen()
    {
        var document = new PageDocument();
        foreach (var operation in await owner.After(group.Space, DocumentKind.Page, page))
            document.Apply(operation);
        return await owner.SendAsset(group.Space, FrozenPage.Write(document, "a4-ruled-710"));
    }

    private static Change.ThingAdded Picture(Guid asset) =>
        new(
            ThingKind.Picture,
            Transform.Shift(2_000, 3_000),
            6_000,
            4_000,
            new Passage("", []),
            [new ItemValue(ItemField.Source, asset.ToString())]
        );

    private async Task<HttpStatusCode> Status(Caller caller, Guid asset) =>
        (await caller.Http.GetAsync($"/api/spaces/{group.Space}/assets/{asset}")).StatusCode;

    private static long Now => DateTimeOffset.UtcNow.ToUnixTimeMilliseconds();

    private async Task Write(DocumentKind kind, Guid id, params Change[] changes)
    {
        var results = await Caller.Results(await owner.Send(group.Space, kind, id, changes.Select(change => device.Make(change, Now))));
        Assert.All(results, result => Assert.Null(result.Code));
    }
}
