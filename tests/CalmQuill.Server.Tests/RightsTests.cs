using System.Collections.Concurrent;
using System.Diagnostics;
using System.Net.Http.Json;
using System.Net.WebSockets;
using CalmQuill.Core.Access;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Library;
using CalmQuill.Core.Operations;
using CalmQuill.Store.People;
using CalmQuill.Store.Spaces;
using CalmQuill.Testing;
using Microsoft.AspNetCore.SignalR;
using Microsoft.AspNetCore.SignalR.Client;
using Microsoft.Extensions.DependencyInjection;

namespace CalmQuill.Server.Tests;

/// <summary>Rights hold on connections that are there already, on every server; and a device that stops reading keeps nobody waiting.</summary>
public sealed class RightsTests : IAsyncLifetime
{
    /// <summary>Within a second, and as much again for a machine that is busy.</summary>
    private static readonly TimeSpan Soon = TimeSpan.FromSeconds(2);

    private readonly Guid notebook = Guid.NewGuid(),
        page = Guid.NewGuid();
    private QuillHost host = null!,
        another = null!;
    private QuillHost.Group group = null!;
    private Caller owner = null!;
    private Replica owners = null!;

    public async Task InitializeAsync()
    {
        host = await QuillHost.Start();
        another = await host.Another();
        group = await host.MakeGroup();
        owner = await host.SignIn(group.Owner);
        owners = new Replica(unchecked((ulong)Random.Shared.NextInt64()), group.Owner.Id);
        await owner.Send(
            group.Space,
            DocumentKind.Library,
            group.Space,
            owners.Make(new Change.NodePlaced(notebook, NodeKind.Notebook, Guid.Empty, "V"), Now)
        );
        await owner.Send(group.Space, DocumentKind.Notebook, notebook, owners.Make(new Change.PageAdded(page, "V", "a4-ruled-710"), Now));
    }

    public async Task DisposeAsync()
    {
        owner.Dispose();
        await another.DisposeAsync();
        await host.DisposeAsync();
    }

    /// <summary>What takes a right away, and from whom.</summary>
    public static readonly TheoryData<string> Takings =
    [
        "role",
        "removed",
        "lock",
        "password",
        "ended session",
        "signed out",
        "lock again",
        "time over",
    ];

    [Theory]
    [MemberData(nameof(Takings))]
    public async Task A_right_that_is_taken_away_is_gone_from_every_connection_within_a_second(string taking)
    {
        var locks = $"/api/spaces/{group.Space}/locks/{notebook}";
        using var here = await host.SignIn(group.Writer);
        using var there = await Caller.SignIn(another.Address, group.Writer.Email, QuillHost.Password);
        if (taking is "lock again" or "time over")
        {
            (await owner.Http.PutAsJsonAsync(locks, new { passphrase = "a-passphrase", minutes = 5 })).EnsureSuccessStatusCode();
            foreach (var caller in new[] { here, there })
                (await caller.Http.PostAsJsonAsync(locks + "/open", new { words = "a-passphrase" })).EnsureSuccessStatusCode();
        }

        await using var device = await Device.Join(host, here, Address);
        await using var far = await Device.Join(another, there, Address);
        await device.Wet();
        await far.Wet();
        var spaces = host.Services.GetRequiredService<SpaceStore>();
        switch (taking)
        {
            case "role":
                (
                    await owner.Http.PutAsJsonAsync($"/api/spaces/{group.Space}/members/{group.Writer.Id}", new { role = "reader" })
                ).EnsureSuccessStatusCode();
                break;
            case "removed":
                (
                    await owner.Http.PutAsJsonAsync($"/api/spaces/{group.Space}/members/{group.Writer.Id}", new { role = "none" })
                ).EnsureSuccessStatusCode();
                break;
            case "lock":
                (await owner.Http.PutAsJsonAsync(locks, new { passphrase = "a-passphrase", minutes = 5 })).EnsureSuccessStatusCode();
                break;
            case "password":
                using (var third = await host.SignIn(group.Writer))
                    (
                        await third.Http.PutAsJsonAsync(
                            "/api/people/me/password",
                            new Dictionary<string, string> { ["old"] = QuillHost.Password, ["new"] = "another-password" }
                        )
                    ).EnsureSuccessStatusCode();
                break;
            case "ended session":
                using (var third = await host.SignIn(group.Writer))
                    (await third.Http.DeleteAsync("/api/devices")).EnsureSuccessStatusCode();
                break;
            case "signed out":
                foreach (var caller in new[] { here, there })
                    (await caller.Http.DeleteAsync("/api/session")).EnsureSuccessStatusCode();
                break;
            case "lock again":
                foreach (var caller in new[] { here, there })
                    (await caller.Http.PostAsync(locks + "/shut", null)).EnsureSuccessStatusCode();
                break;
            case "time over":
                await Execute("UPDATE unlocks SET until = now()");
                break;
        }

        foreach (var one in new[] { device, far })
        {
            await one.Ended.WaitAsync(Soon);
            await Assert.ThrowsAnyAsync<Exception>(one.Wet);
        }

        // What is stored now reaches neither of them.
        var heard = device.Heard.Count + far.Heard.Count;
        await owner.Send(group.Space, DocumentKind.Page, page, owners.Make(Stroke(), Now));
        Assert.Equal(heard, device.Heard.Count + far.Heard.Count);
        // Who connects again joins what is still theirs: a reader reads on and does not write.
        if (taking != "role")
            return;
        await using var again = await Device.Join(host, here, Address);
        await Assert.ThrowsAsync<HubException>(again.Wet);
        await owner.Send(group.Space, DocumentKind.Page, page, owners.Make(Stroke(), Now));
        await again.Hears("stored");
    }

    [Fact]
    public async Task Joining_an_id_that_is_not_yet_written_never_delivers_another_spaces_document()
    {
        using var stranger = await host.SignIn(group.Stranger);
        var own = (await stranger.Refresh()).GetProperty("spaces")[0].GetProperty("id").GetGuid();
        var coming = Guid.NewGuid();
        await using var device = await Device.Join(host, stranger, $"{own}/page/{coming}");
        using var reader = await host.SignIn(group.Reader);
        await using var allowed = await Device.Join(host, reader, $"{group.Space}/page/{coming}");
        await owner.Send(group.Space, DocumentKind.Page, coming, owners.Make(Stroke(), Now));
        await allowed.Hears("stored");
        // What was sent to it before this answer would have come.
        await device.Ask();
        Assert.DoesNotContain("stored", device.Heard);
    }

    [Fact]
    public async Task A_device_that_stops_reading_delays_nobody_and_is_let_go()
    {
        using var reader = await host.SignIn(group.Reader);
        using var socket = new ClientWebSocket();
        socket.Options.Cookies = reader.Cookies;
        await socket.ConnectAsync(new UriBuilder(host.Address) { Scheme = "ws", Path = "/live" }.Uri, default);
        await socket.SendAsync(
            System.Text.Encoding.UTF8.GetBytes("{\"protocol\":\"json\",\"version\":1}\u001e"),
            WebSocketMessageType.Text,
            true,
            default
        );
        await socket.SendAsync(
            System.Text.Encoding.UTF8.GetBytes($"{{\"type\":1,\"target\":\"Join\",\"arguments\":[\"{Address}\"]}}\u001e"),
            WebSocketMessageType.Text,
            true,
            default
        );
        var live = host.Services.GetRequiredService<Live.LiveConnections>();
        var document = Store.Documents.DocumentRef.Page(group.Space, page);
        await Until(() => live.PresentOn(document).Length == 1, "the silent device to have joined");
        // From here on it reads nothing. Others write far more than fits into what lies between.
        using var writer = await host.SignIn(group.Writer);
        await using var brisk = await Device.Join(host, writer, Address);
        var longest = TimeSpan.Zero;
        for (var i = 0; i < 60; i++)
        {
            var clock = Stopwatch.StartNew();
            var results = await Caller.Results(
                await owner.Send(group.Space, DocumentKind.Page, page, Enumerable.Range(0, 20).Select(_ => owners.Make(Large(), Now)))
            );
            Assert.All(results, result => Assert.Null(result.Code));
            if (clock.Elapsed > longest)
                longest = clock.Elapsed;
        }

        Assert.True(longest < TimeSpan.FromSeconds(3), $"a post took {longest}");
        await Until(() => brisk.Heard.Count(what => what == "stored") == 60, "the other device to have heard all");
        await Until(() => !live.PresentOn(document).Contains(group.Reader.Id), "the silent device to be let go");
    }

    [Fact]
    public async Task A_flood_of_wet_ink_is_refused_before_it_reaches_the_others()
    {
        using var writer = await host.SignIn(group.Writer);
        await using var flooding = await Device.Join(host, writer, Address);
        await using var other = await Device.Join(host, owner, Address);
        var calls = await Task.WhenAll(
            Enumerable
                .Range(0, 4_000)
                .Select(async _ =>
                {
                    try
                    {
                        await flooding.Wet();
                        return true;
                    }
                    catch (HubException)
                    {
                        return false;
                    }
                })
        );
        // A bucket of 800 that fills by 200 a second.
        Assert.InRange(calls.Count(taken => taken), 800, 3_000);
        Assert.Equal(
            System.Net.HttpStatusCode.OK,
            (await owner.Send(group.Space, DocumentKind.Page, page, owners.Make(Stroke(), Now))).StatusCode
        );
        await other.Hears("stored");
        Assert.False(other.Ended.IsCompleted);
        Assert.InRange(other.Heard.Count(what => what == "wet"), 800, 3_000);
    }

    [Fact]
    public async Task One_person_connects_so_many_devices_and_no_more()
    {
        await using var small = await QuillHost.Start(with: settings =>
            settings with
            {
                Limits = QuillHost.Roomy with { ConnectionsOfAPerson = 2 },
            }
        );
        var own = await small.MakeGroup();
        using var caller = await small.SignIn(own.Writer);
        var address = $"{own.Space}/page/{page}";
        await using var first = await Device.Join(small, caller, address);
        await using var second = await Device.Join(small, caller, address);
        await Assert.ThrowsAnyAsync<Exception>(async () => await Device.Join(small, caller, address));
        using var other = await small.SignIn(own.Reader);
        await using var third = await Device.Join(small, other, address);
    }

    [Fact]
    public async Task Through_Redis_what_is_stored_and_wet_on_one_server_is_heard_on_the_other()
    {
        using var redis = await RedisProcess.Start();
        await using var first = await QuillHost.Start(with: settings => settings with { Redis = redis.Address });
        await using var second = await first.Another();
        var own = await first.MakeGroup();
        using var writer = await first.SignIn(own.Writer);
        using var reader = await Caller.SignIn(second.Address, own.Reader.Email, QuillHost.Password);
        var address = $"{own.Space}/page/{page}";
        await using var here = await Device.Join(first, writer, address);
        await using var there = await Device.Join(second, reader, address);
        await here.Wet();
        await there.Hears("wet");
        var replica = new Replica(unchecked((ulong)Random.Shared.NextInt64()), own.Writer.Id);
        await writer.Send(own.Space, DocumentKind.Page, page, replica.Make(Stroke(), Now));
        await there.Hears("stored");
        // To whoever wrote it wet, it does not come back; and what is stored comes once.
        await here.Hears("stored");
        await here.Ask();
        Assert.Equal(["stored"], here.Heard);
        // Without Redis writing goes on; who is on the other server asks by number.
        redis.Kill();
        var results = await Caller.Results(await writer.Send(own.Space, DocumentKind.Page, page, replica.Make(Stroke(), Now)));
        Assert.Null(Assert.Single(results).Code);
        Assert.Equal(2, (await reader.After(own.Space, DocumentKind.Page, page)).Count);
    }

    [Fact]
    public void A_live_message_comes_through_to_another_server_as_it_was_and_not_back_to_its_own()
    {
        var (here, there) = (Guid.NewGuid(), Guid.NewGuid());
        var message = new Live.LiveMessage(
            Store.Documents.DocumentRef.Page(group.Space, page),
            "wet",
            ["person", 7, 9_000_000_000L, new byte[] { 1, 2, 3 }, new[] { "a", "b" }],
            10,
            "connection"
        );
        var bytes = Live.LiveWire.Write(message, here);
        Assert.Null(Live.LiveWire.Read(bytes, here));
        var read = Live.LiveWire.Read(bytes, there)!;
        Assert.Equal((message.Document, message.Method, message.But), (read.Document, read.Method, read.But));
        Assert.Equal(message.Arguments, read.Arguments);
    }

    private string Address => $"{group.Space}/page/{page}";

    private static long Now => DateTimeOffset.UtcNow.ToUnixTimeMilliseconds();

    private async Task Execute(string sql)
    {
        await using var command = host.Services.GetRequiredService<Store.Database>().Command(sql);
        await command.ExecuteNonQueryAsync();
    }

    private static async Task Until(Func<bool> holds, string what)
    {
        for (var clock = Stopwatch.StartNew(); !holds(); )
        {
            Assert.True(clock.Elapsed < TimeSpan.FromSeconds(20), $"waited for {what}");
            await Task.Delay(20);
        }
    }

    private static Change.StrokeAdded Stroke() => new(new Pen(PenKind.Ball, 40, 0xFF), 0, Generate.Wave(12));

    private static Change.StrokeAdded Large() => new(new Pen(PenKind.Ball, 40, 0xFF), 0, Generate.Wave(4_000, Random.Shared.Next(100_000)));

    /// <summary>A live connection that has joined one document.</summary>
    private sealed class Device : IAsyncDisposable
    {
        private readonly HubConnection hub;
        private readonly string address;
        private readonly TaskCompletionSource ended = new();

        private Device(HubConnection hub, string address)
        {
            (this.hub, this.address) = (hub, address);
            hub.Closed += _ =>
            {
                ended.TrySetResult();
                return Task.CompletedTask;
            };
            hub.On<string, long, int, byte[]>("stored", (_, _, _, _) => Heard.Enqueue("stored"));
            hub.On<string, string, string, byte[]>("wet", (_, _, _, _) => Heard.Enqueue("wet"));
        }

        public ConcurrentQueue<string> Heard { get; } = new();

        public Task Ended => ended.Task;

        public static async Task<Device> Join(QuillHost on, Caller caller, string address)
        {
            var device = new Device(caller.Live(on.Address), address);
            await device.hub.StartAsync();
            await device.hub.InvokeAsync("Join", address);
            return device;
        }

        public Task Wet() => hub.InvokeAsync("Wet", address, new byte[] { 1, 2, 3 });

        public Task Ask() => hub.InvokeAsync("Join", address);

        public async Task Hears(string what) => await Until(() => Heard.Contains(what), what);

        public ValueTask DisposeAsync() => hub.DisposeAsync();
    }
}
