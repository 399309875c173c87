using CalmQuill.Core.Library;
using CalmQuill.Core.Operations;
using CalmQuill.Testing;
using Microsoft.AspNetCore.SignalR.Client;
using Microsoft.Extensions.DependencyInjection;

namespace CalmQuill.Server.Tests;

/// <summary>Who looks at which page is told to those who may know it, whichever server they are on, and ends with the connection.</summary>
public sealed class WhereaboutsTests : IAsyncLifetime
{
    private readonly Guid notebook = Guid.NewGuid(),
        page = Guid.NewGuid();
    private RedisProcess redis = null!;
    private QuillHost host = null!,
        another = null!;
    private QuillHost.Group group = null!;
    private Caller writer = null!,
        reader = null!;

    private string Notebook => $"{group.Space}/notebook/{notebook}";

    private string Library => $"{group.Space}/library/{group.Space}";

    public async Task InitializeAsync()
    {
        redis = await RedisProcess.Start();
        host = await QuillHost.Start(with: settings => settings with { Redis = redis.Address });
        another = await host.Another();
        group = await host.MakeGroup();
        writer = await host.SignIn(group.Writer);
        reader = await Caller.SignIn(another.Address, group.Reader.Email, QuillHost.Password);
        var device = new Replica(21, group.Writer.Id);
        var now = DateTimeOffset.UtcNow.ToUnixTimeMilliseconds();
        await writer.Send(
            group.Space,
            DocumentKind.Library,
            group.Space,
            device.Make(new Change.NodePlaced(notebook, NodeKind.Notebook, Guid.Empty, "V"), now)
        );
        await writer.Send(group.Space, DocumentKind.Notebook, notebook, device.Make(new Change.PageAdded(page, "V", "a4-ruled-710"), now));
    }

    public async Task DisposeAsync()
    {
        writer.Dispose();
        reader.Dispose();
        await another.DisposeAsync();
        await host.DisposeAsync();
        redis.Dispose();
    }

    [Fact]
    public async Task Whoever_comes_later_on_another_server_hears_who_is_there_and_that_they_went()
    {
        await using var stands = await LiveDevice.Connect(host, writer);
        await stands.Hub.InvokeAsync("Join", Notebook);
        await stands.Hub.InvokeAsync("Stand", Notebook, page.ToString());

        await using var sameServer = await LiveDevice.Connect(host, writer);
        await sameServer.Hub.InvokeAsync("Join", Notebook);
        await using var inLibrary = await LiveDevice.Connect(another, reader);
        await inLibrary.Hub.InvokeAsync("Join", Library);
        await using var inNotebook = await LiveDevice.Connect(another, reader);
        await inNotebook.Hub.InvokeAsync("Join", Notebook);
        var here = $"{group.Writer.Id} {notebook} {page}";
        await sameServer.Hears(here);
        await inNotebook.Hears(here);
        // Which page it is, those who follow the library alone are not told: the notebook may be locked to them.
        await inLibrary.Hears($"{group.Writer.Id} {notebook} ");
        Assert.DoesNotContain(inLibrary.Heard, heard => heard.Contains(page.ToString(), StringComparison.Ordinal));
        Assert.Empty(stands.Heard);

        // Following, and what is seen, goes to those in the notebook.
        await inNotebook.Hub.InvokeAsync("Follow", Notebook, stands.Name, true);
        await stands.Hears($"followed {inNotebook.Name} {stands.Name} 1");
        await stands.Hub.InvokeAsync("View", Notebook, page.ToString(), 100, 200, 21_000);
        await inNotebook.Hears($"view {stands.Name} {page} 100 200 21000");
        Assert.DoesNotContain(inLibrary.Heard, heard => heard.StartsWith("view", StringComparison.Ordinal));

        await stands.Hub.DisposeAsync();
        await sameServer.Hears($"{group.Writer.Id}  ");
        await inNotebook.Hears($"{group.Writer.Id}  ");
        await inLibrary.Hears($"{group.Writer.Id}  ");
    }

    [Fact]
    public async Task Whose_right_to_read_ends_is_there_no_more_and_hears_of_nobody()
    {
        await using var stands = await LiveDevice.Connect(host, writer);
        await stands.Hub.InvokeAsync("Join", Notebook);
        await using var leaves = await LiveDevice.Connect(another, reader);
        await leaves.Hub.InvokeAsync("Join", Notebook);
        await leaves.Hub.InvokeAsync("Stand", Notebook, page.ToString());
        await stands.Hears($"{group.Reader.Id} {notebook} {page}");
        await host
            .Services.GetRequiredService<Store.Spaces.SpaceStore>()
            .SetRole(group.Space, group.Reader.Id, Core.Access.Role.None, default);
        await leaves.Ended.WaitAsync(TimeSpan.FromSeconds(10));
        await using var again = await LiveDevice.Connect(another, reader);
        await Assert.ThrowsAnyAsync<Exception>(() => again.Hub.InvokeAsync("Join", Notebook));
        await Assert.ThrowsAnyAsync<Exception>(() => again.Hub.InvokeAsync("Stand", Notebook, page.ToString()));
        Assert.Empty(again.Heard);
    }
}
