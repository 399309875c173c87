using System.Net;
using CalmQuill.Core.Assets;
using CalmQuill.Core.Bringing;
using CalmQuill.Core.Operations;
using CalmQuill.Testing;

namespace CalmQuill.Server.Tests;

/// <summary>What the server does for files that are brought in: taking a protection off, and showing their pages to those who may see them, and to nobody else.</summary>
public sealed class BringingTests : IAsyncLifetime
{
    private QuillHost host = null!;
    private QuillHost.Group group = null!;

    public async Task InitializeAsync()
    {
        host = await QuillHost.Start();
        group = await host.MakeGroup();
    }

    public async Task DisposeAsync() => await host.DisposeAsync();

    [Theory]
    [InlineData(new byte[] { })]
    [InlineData(new byte[] { 5 })]
    [InlineData(new byte[] { 5, 0, 65 })]
    [InlineData(new byte[] { 255, 255, 65 })]
    [InlineData(new byte[] { 1, 0, 65 })]
    [InlineData(new byte[] { 1, 0, 65, 37, 80, 68, 70, 45 })]
    public async Task What_is_no_protected_file_is_refused_in_a_sentence(byte[] body)
    {
        using var caller = await host.SignIn(group.Writer);
        using var answer = await caller.Http.PostAsync("/api/unlocked-files", new ByteArrayContent(body));
        Assert.Equal(HttpStatusCode.BadRequest, answer.StatusCode);
        Assert.Contains("Nothing was kept.", await answer.Content.ReadAsStringAsync(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_file_is_unlocked_and_nothing_of_it_stays()
    {
        using var caller = await host.SignIn(group.Writer);
        using var answer = await caller.Http.PostAsync("/api/unlocked-files", new ByteArrayContent([0, 0, .. SlideFile.Write()]));
        answer.EnsureSuccessStatusCode();
        var unlocked = await answer.Content.ReadAsByteArrayAsync();
        Assert.Equal("%PDF-"u8.ToArray(), unlocked[..5]);
        using var kept = await caller.Http.GetAsync($"/api/spaces/{group.Space}/assets/{AssetId.Of(unlocked)}");
        Assert.Equal(HttpStatusCode.NotFound, kept.StatusCode);
    }

    [Fact]
    public async Task A_page_shows_its_leaf_in_files_and_small_and_only_to_those_of_its_library()
    {
        var file = SlideFile.Write();
        var asset = AssetId.Of(file);
        var (notebook, page) = (Guid.NewGuid(), Guid.NewGuid());
        using var writer = await host.SignIn(group.Writer);
        Assert.Equal(asset, await writer.SendAsset(group.Space, file));
        var device = new Replica(1, group.Writer.Id);
        var now = DateTimeOffset.UtcNow.ToUnixTimeMilliseconds();
        var sheet = Imposition.Of([Leaf.OfPage(asset, 1, 720, 540, 0)], Laying.Whole).Single();
        await writer.Send(
            group.Space,
            DocumentKind.Library,
            group.Space,
            device.Make(new Change.NodePlaced(notebook, Core.Library.NodeKind.Notebook, Guid.Empty, "V"), now)
        );
        await writer.Send(
            group.Space,
            DocumentKind.Notebook,
            notebook,
            device.Make(new Change.PageAdded(page, "V", sheet.Paper.ToString()), now)
        );
        await writer.Send(group.Space, DocumentKind.Page, page, [.. sheet.Operations(device, now)]);

        var path = $"/api/spaces/{group.Space}/pages/{page}";
        Assert.Contains("data:image/svg+xml;base64,", await writer.Http.GetStringAsync($"{path}/export.svg"), StringComparison.Ordinal);
        Assert.Contains("data:image/png;base64,", await writer.Http.GetStringAsync($"{path}/thumbnail.svg"), StringComparison.Ordinal);
        Assert.Equal("%PDF-"u8.ToArray(), (await writer.Http.GetByteArrayAsync($"{path}/export.pdf"))[..5]);
        using var stranger = await host.SignIn(group.Stranger);
        foreach (
            var what in new[]
            {
                $"{path}/export.pdf",
                $"{path}/export.svg",
                $"{path}/thumbnail.svg",
                $"/api/spaces/{group.Space}/assets/{asset}",
            }
        )
        {
            using var answer = await stranger.Http.GetAsync(what);
            Assert.Equal(HttpStatusCode.NotFound, answer.StatusCode);
        }
    }
}
