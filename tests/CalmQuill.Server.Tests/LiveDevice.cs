using System.Collections.Concurrent;
using CalmQuill.Testing;
using Microsoft.AspNetCore.SignalR.Client;
using Microsoft.Extensions.DependencyInjection;

namespace CalmQuill.Server.Tests;

/// <summary>A device on the live connection that takes down all it hears.</summary>
internal sealed class LiveDevice : IAsyncDisposable
{
    private readonly TaskCompletionSource ended = new();
    private readonly TaskCompletionSource<string> name = new();

    private LiveDevice(HubConnection hub)
    {
        Hub = hub;
        hub.Closed += _ =>
        {
            ended.TrySetResult();
            return Task.CompletedTask;
        };
        hub.On<string>("you", said => name.TrySetResult(said));
        hub.On(
            "lectern",
            [.. Enumerable.Repeat(typeof(string), 6), typeof(string[]), typeof(int), typeof(int), typeof(int), typeof(long)],
            told =>
            {
                var lifted = string.Join('+', (string[])told[6]!);
                Heard.Enqueue($"lectern {told[2]} {told[3]} {told[4]} {told[5]} {lifted} {told[7]} {told[8]} {told[9]}");
                return Task.CompletedTask;
            }
        );
        hub.On<string, string>("lectern-closed", (_, lectern) => Heard.Enqueue($"closed {lectern}"));
        hub.On<string, string, string, string, byte[]>(
            "point",
            (_, _, _, page, places) => Heard.Enqueue($"point {page} {string.Join(' ', places)}")
        );
        hub.On<string, string, string, long>(
            "hand",
            (_, person, connection, since) => Heard.Enqueue($"hand {person} {connection} {(since > 0 ? "up" : "down")}")
        );
        hub.On<string, long>("later", (_, last) => Heard.Enqueue($"later {last}"));
        hub.On<string, string, string, string>("lowered", (_, _, _, whose) => Heard.Enqueue($"lowered {whose}"));
        hub.On<string, string, string, string, string>(
            "where",
            (_, person, _, notebook, page) => Heard.Enqueue($"{person} {notebook} {page}")
        );
        hub.On<string, string, string, string, int>(
            "followed",
            (_, _, follower, leader, on) => Heard.Enqueue($"followed {follower} {leader} {on}")
        );
        hub.On<string, string, string, string, int, int, int>(
            "view",
            (_, _, connection, page, x, y, width) => Heard.Enqueue($"view {connection} {page} {x} {y} {width}")
        );
    }

    public HubConnection Hub { get; }

    public ConcurrentQueue<string> Heard { get; } = new();

    public string Name => name.Task.Result;

    public Task Ended => ended.Task;

    public static async Task<LiveDevice> Connect(QuillHost to, Caller caller)
    {
        var device = new LiveDevice(caller.Live(to.Address));
        await device.Hub.StartAsync();
        await device.name.Task.WaitAsync(TimeSpan.FromSeconds(10));
        return device;
    }

    /// <summary>Takes down also what is written, and who is there.</summary>
    public void HearInk()
    {
        Hub.On<string, string, string, byte[]>("wet", (_, _, _, piece) => Heard.Enqueue($"wet {string.Join(' ', piece)}"));
        Hub.On<string>("changed", _ => Heard.Enqueue("changed"));
        Hub.On<string, int, int, byte[]>("stored", (_, _, _, _) => Heard.Enqueue("stored"));
        Hub.On<string, string[]>("present", (_, people) => Heard.Enqueue($"present {people.Length}"));
    }

    /// <summary>A screen in a room, which nobody signed in on.</summary>
    public static async Task<LiveDevice> Screen(QuillHost to, string code)
    {
        var device = new LiveDevice(
            new HubConnectionBuilder().WithUrl(new Uri(to.Address, $"/live/room?code={code}")).AddMessagePackProtocol().Build()
        );
        device.HearInk();
        await device.Hub.StartAsync();
        return device;
    }

    public async Task Hears(string what)
    {
        for (var tries = 0; !Heard.Contains(what); tries++)
        {
            Assert.True(tries < 400, $"“{what}” was not heard, but {string.Join(", ", Heard)}");
            await Task.Delay(25);
        }
    }

    public ValueTask DisposeAsync() => Hub.DisposeAsync();
}
