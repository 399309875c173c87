using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using CalmQuill.Core.Assets;
using CalmQuill.Core.Library;
using CalmQuill.Core.Operations;
using CalmQuill.FileStore;
using CalmQuill.Store;
using CalmQuill.Store.Assets;
using CalmQuill.Store.Documents;
using CalmQuill.Testing;
using Microsoft.Extensions.DependencyInjection;

namespace CalmQuill.Server.Tests;

/// <summary>Pictures and files on their way to a space, in it, and out of it again.</summary>
public sealed class AssetTests : IAsyncLifetime
{
    private static readonly byte[] Picture = MadePictures.Png(300, 200);
    private QuillHost host = null!;
    private QuillHost.Group group = null!;
    private Caller owner = null!,
        writer = null!,
        reader = null!,
        stranger = null!;

    public async Task InitializeAsync()
    {
        host = await QuillHost.Start();
        group = await host.MakeGroup();
        (owner, writer, reader, stranger) = (
            await host.SignIn(group.Owner),
            await host.SignIn(group.Writer),
            await host.SignIn(group.Reader),
            await host.SignIn(group.Stranger)
        );
    }

    public async Task DisposeAsync() => await host.DisposeAsync();

    [Fact]
    public async Task A_file_whose_sending_broke_goes_on_where_it_was_and_is_whole_in_the_end()
    {
        byte[] file = [.. Enumerable.Range(0, 2_500_000).Select(i => (byte)(i * 7 + i / 251))];
        var asset = AssetId.Of(file);
        const int Piece = 1_000_000;
        Assert.Equal((0, false), await Received(writer, asset));
        Assert.Equal((Piece, false), await Take(writer, asset, 0, file[..Piece], file.Length));
        // The answer was lost: the same again is not taken twice, and what would leave a gap is not taken.
        Assert.Equal((Piece, false), await Take(writer, asset, 0, file[..Piece], file.Length));
        Assert.Equal((Piece, false), await Take(writer, asset, 2 * Piece, file[(2 * Piece)..], file.Length));
        // Another person sends it too: neither comes between the other's pieces.
        Assert.Equal((500, false), await Take(owner, asset, 0, file[..500], file.Length));
        Assert.Equal(HttpStatusCode.NotFound, (await writer.Http.GetAsync(PathOf(asset))).StatusCode);
        Assert.Equal((2 * Piece, false), await Take(writer, asset, Piece, file[Piece..(2 * Piece)], file.Length));
        Assert.Equal((file.Length, true), await Take(writer, asset, 2 * Piece, file[(2 * Piece)..], file.Length));
        Assert.Equal(file, await owner.Http.GetByteArrayAsync(PathOf(asset)));
        // Whoever has it as well need not send it.
        Assert.Equal((file.Length, true), await Received(owner, asset));
        Assert.Equal((file.Length, true), await Take(owner, asset, 0, file[..9], file.Length));
    }

    [Fact]
    public async Task A_server_that_stopped_with_all_of_a_file_in_pieces_puts_it_together_later()
    {
        var asset = AssetId.Of(Picture);
        var assets = host.Services.GetRequiredService<AssetStore>();
        Assert.True(await assets.AddPiece(group.Space, asset, group.Writer.Id, 0, Picture, CancellationToken.None));
        Assert.Equal((Picture.Length, false), await Received(writer, asset));
        // Not for somebody who sent nothing of it, and not before its end.
        Assert.Equal((0, false), await Take(owner, asset, Picture.Length, [], Picture.Length));
        Assert.Contains("at least one byte", await Refused(asset, [], of: Picture.Length), StringComparison.Ordinal);
        Assert.Equal((Picture.Length, true), await Take(writer, asset, Picture.Length, [], Picture.Length));
        Assert.Equal(Picture, await reader.Http.GetByteArrayAsync(PathOf(asset)));
    }

    [Fact]
    public async Task What_comes_is_what_was_named_or_it_is_not_kept()
    {
        var asset = AssetId.Of(Picture);
        byte[] other = [.. Picture];
        other[^20] ^= 1;
        Assert.Contains("not the file", await Refused(asset, other, status: HttpStatusCode.Conflict), StringComparison.Ordinal);
        Assert.Equal((0, false), await Received(writer, asset));
        Assert.Contains("consists of", await Refused(Guid.NewGuid(), Picture), StringComparison.Ordinal);
        Assert.Contains("at most 64 MB", await Refused(asset, [1], of: 65 * 1024 * 1024), StringComparison.Ordinal);
        Assert.Contains("ends where", await Refused(asset, [1, 2], of: 1), StringComparison.Ordinal);
        byte[] talking = [.. Picture.AsSpan(0, 33), .. MadePictures.PngChunk("tEXt", [.. "GPS"u8]), .. Picture.AsSpan(33)];
        Assert.Contains("where, when", await Refused(AssetId.Of(talking), talking), StringComparison.Ordinal);
        var cut = Picture[..^5];
        Assert.Contains("not whole", await Refused(AssetId.Of(cut), cut), StringComparison.Ordinal);
        Assert.Equal(
            HttpStatusCode.RequestEntityTooLarge,
            (await writer.SendPiece(group.Space, asset, 0, 2_000_000, new byte[1_100_000])).StatusCode
        );
        Assert.Equal(asset, await writer.SendAsset(group.Space, Picture));
    }

    [Fact]
    public async Task A_file_is_shown_as_what_it_is_and_to_members_alone()
    {
        var asset = await writer.SendAsset(group.Space, Picture);
        var given = await reader.Http.GetAsync(PathOf(asset));
        Assert.Equal(
            ("image/png", "nosniff", null),
            (
                given.Content.Headers.ContentType!.MediaType,
                given.Headers.GetValues("X-Content-Type-Options").Single(),
                given.Content.Headers.ContentDisposition
            )
        );
        // What a browser would run is only handed over.
        var script = await writer.SendAsset(
            group.Space,
            Encoding.UTF8.GetBytes("<svg xmlns='http://www.w3.org/2000/svg' onload='alert(1)'/>")
        );
        var handed = await reader.Http.GetAsync(PathOf(script));
        Assert.Equal(
            ("application/octet-stream", "attachment"),
            (handed.Content.Headers.ContentType!.MediaType, handed.Content.Headers.ContentDisposition!.DispositionType)
        );
        Assert.Equal(HttpStatusCode.NotFound, (await reader.Http.GetAsync($"{PathOf(script)}/picture")).StatusCode);
        Assert.Equal(HttpStatusCode.NotFound, (await stranger.Http.GetAsync(PathOf(asset))).StatusCode);
        Assert.Equal(HttpStatusCode.Forbidden, (await reader.SendPiece(group.Space, asset, 0, Picture.Length, Picture)).StatusCode);
        // The same bytes in another space are another asset: who knows what it is called does not get it there.
        var elsewhere = await host.MakeGroup();
        var (outside, path) = (await host.SignIn(elsewhere.Owner), $"/api/spaces/{elsewhere.Space}/assets/{asset}");
        Assert.Equal(HttpStatusCode.NotFound, (await outside.Http.GetAsync(path)).StatusCode);
        var told = await outside.Http.GetFromJsonAsync<JsonElement>($"{path}/received");
        Assert.False(told.GetProperty("isWhole").GetBoolean());
    }

    [Fact]
    public async Task A_library_that_is_full_takes_no_piece_and_says_so()
    {
        await using var small = await QuillHost.Start(with: settings =>
            settings with
            {
                Limits = new() { AssetBytesOfASpace = 100, SignInsAMinute = 1_000 },
            }
        );
        var there = await small.MakeGroup();
        var caller = await small.SignIn(there.Writer);
        var answer = await caller.SendPiece(there.Space, AssetId.Of(Picture), 0, Picture.Length, Picture);
        Assert.Equal(HttpStatusCode.InsufficientStorage, answer.StatusCode);
        Assert.Equal((0, false), await Received(caller, AssetId.Of(Picture), there.Space));
    }

    [Fact]
    public async Task What_nothing_names_goes_in_time_and_what_the_bin_holds_stays()
    {
        var assets = host.Services.GetRequiredService<AssetStore>();
        var documents = host.Services.GetRequiredService<DocumentStore>();
        var device = new Replica(7, group.Writer.Id);
        var (paper, kept, dropped) = (
            Guid.NewGuid(),
            await writer.SendAsset(group.Space, Picture),
            await writer.SendAsset(group.Space, MadePictures.Png(10, 10))
        );
        var begun = AssetId.Of(MadePictures.Png(20, 20));
        await Take(writer, begun, 0, [1, 2, 3], 1_000);
        Task Do(params Change[] changes) =>
            documents.Append(
                DocumentRef.Library(group.Space),
                [.. changes.Select(change => device.Make(change, DateTimeOffset.UtcNow.ToUnixTimeMilliseconds()))],
                CancellationToken.None
            );
        await Do(
            new Change.PropertySet(paper, Property.Name, "Waves"),
            new Change.NodePlaced(paper, NodeKind.Paper, Guid.Empty, "X"),
            new Change.PropertySet(paper, Property.Source, kept.ToString()),
            new Change.PropertySet(paper, Property.Binned, "1")
        );
        var now = DateTimeOffset.UtcNow;
        Task<int> Collect(int day) => assets.Collect(now.AddDays(day), CancellationToken.None);
        Assert.Equal(0, await Collect(1));
        Assert.Equal((3, false), await Received(writer, begun));
        Assert.Equal(0, await Collect(AssetStore.GraceDays));
        Assert.Equal((0, false), await Received(writer, begun));
        // Asked for by somebody who is about to send it: its time begins anew.
        Assert.True((await Received(writer, dropped)).IsWhole);
        Assert.Equal(0, await Collect(AssetStore.GraceDays + 2));
        Assert.Equal(1, await Collect(2 * AssetStore.GraceDays + 3));
        Assert.Equal(HttpStatusCode.NotFound, (await writer.Http.GetAsync(PathOf(dropped))).StatusCode);
        Assert.Equal(Picture, await writer.Http.GetByteArrayAsync(PathOf(kept)));
        // Named no more and then named again by a step taken back.
        await Do(new Change.PropertySet(paper, Property.Source, ""));
        Assert.Equal(0, await Collect(2 * AssetStore.GraceDays + 4));
        await Do(new Change.PropertySet(paper, Property.Source, kept.ToString()));
        Assert.Equal(0, await Collect(4 * AssetStore.GraceDays));
        Assert.Equal(Picture, await writer.Http.GetByteArrayAsync(PathOf(kept)));
    }

    [Fact]
    public async Task In_a_bucket_files_lie_outside_the_database_and_older_ones_are_found_all_the_same()
    {
        var before = await writer.SendAsset(group.Space, MadePictures.Png(11, 11));
        await using var shelves = await Shelves.Open(0, "quill", "key-of-quill");
        await using var other = await host.Another(settings =>
            settings with
            {
                Bucket = new Bucket(shelves.Address, "quill", "key-of-quill", "a-secret"),
            }
        );
        var caller = await other.SignIn(group.Writer);
        var asset = await caller.SendAsset(group.Space, Picture);
        Assert.Equal(Picture, shelves.Objects[$"{group.Space}/{asset}"]);
        Assert.Null(await host.Services.GetRequiredService<DatabaseFiles>().Read(group.Space, asset, CancellationToken.None));
        Assert.Equal(Picture, await caller.Http.GetByteArrayAsync(PathOf(asset)));
        Assert.Equal(MadePictures.Png(11, 11), await caller.Http.GetByteArrayAsync(PathOf(before)));
        var assets = other.Services.GetRequiredService<AssetStore>();
        await assets.Collect(DateTimeOffset.UtcNow, CancellationToken.None);
        Assert.Equal(2, await assets.Collect(DateTimeOffset.UtcNow.AddDays(AssetStore.GraceDays + 1), CancellationToken.None));
        Assert.Empty(shelves.Objects);
        Assert.Null(await host.Services.GetRequiredService<DatabaseFiles>().Read(group.Space, before, CancellationToken.None));
    }

    private string PathOf(Guid asset) => $"/api/spaces/{group.Space}/assets/{asset}";

    private async Task<(int Size, bool IsWhole)> Received(Caller caller, Guid asset, Guid? space = null) =>
        Told(await caller.Http.GetFromJsonAsync<JsonElement>($"/api/spaces/{space ?? group.Space}/assets/{asset}/received"));

    private async Task<(int Size, bool IsWhole)> Take(Caller caller, Guid asset, long at, byte[] piece, long of)
    {
        using var answer = await caller.SendPiece(group.Space, asset, at, of, piece);
        answer.EnsureSuccessStatusCode();
        return Told(await answer.Content.ReadFromJsonAsync<JsonElement>());
    }

    private static (int Size, bool IsWhole) Told(JsonElement answer) =>
        (answer.GetProperty("size").GetInt32(), answer.GetProperty("isWhole").GetBoolean());

    private async Task<string> Refused(Guid asset, byte[] piece, long? of = null, HttpStatusCode status = HttpStatusCode.BadRequest)
    {
        using var answer = await writer.SendPiece(group.Space, asset, 0, of ?? piece.Length, piece);
        Assert.Equal(status, answer.StatusCode);
        return (await answer.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("title").GetString()!;
    }
}
