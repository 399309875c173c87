using System.Buffers.Binary;
using System.Collections.Concurrent;
using System.Diagnostics;
using System.Text.Json;
using CalmQuill.Core.Access;
using CalmQuill.Store.Spaces;
using CalmQuill.Testing;
using Microsoft.AspNetCore.SignalR.Client;
using Microsoft.Extensions.DependencyInjection;

namespace CalmQuill.Bench;

/// <summary>
/// A lesson with a hundred live connections: how long it takes from the leader saying what they see, and where they point, until each of those who follow has
/// heard it. Beside it the same with one follower, in the same run. Server, leader and followers share one machine and one clock.
/// </summary>
internal sealed class LessonBench(QuillHost host, QuillHost.Group group)
{
    private const int Followers = 100;
    private const int People = 5;
    private const int Steps = 200;

    /// <summary>As often as a leader's device tells it.</summary>
    private static readonly TimeSpan Between = TimeSpan.FromMilliseconds(40);

    private readonly List<Caller> pupils = [];
    private readonly long began = Stopwatch.GetTimestamp();

    public async Task<List<Row>> Run(Guid notebook, Guid page)
    {
        for (var i = 0; i < People; i++)
            pupils.Add(await host.SignIn(await host.Person(group.Space, Role.Reader)));
        using var owner = await host.SignIn(group.Owner);
        var answer = await owner.Http.PostAsync($"/api/spaces/{group.Space}/notebooks/{notebook}/lectern", null);
        var lectern = JsonDocument.Parse(await answer.Content.ReadAsStringAsync()).RootElement.GetProperty("id").GetString()!;
        var address = $"{group.Space}/notebook/{notebook}";
        await using var leader = await Connect(owner, address);
        await leader.InvokeAsync("Teach", address, lectern);
        await leader.InvokeAsync("Show", page.ToString(), Array.Empty<string>(), 0, 0, 0);
        var alone = await Measure(leader, address, page, 1);
        var all = await Measure(leader, address, page, Followers);
        pupils.ForEach(pupil => pupil.Dispose());
        return
        [
            new Row(
                $"a lesson followed on {Followers} live connections: view and pointer, from the leader's device to each follower's, p95",
                $"{InterfaceBench.Percentile(all, 0.95):0.0} ms ({all.Count} of {Followers * Steps * 2} heard)",
                $"one follower in the same run: {InterfaceBench.Percentile(alone, 0.95):0.0} ms",
                $"{InterfaceBench.Percentile(all, 0.95) / InterfaceBench.Percentile(alone, 0.95):0.0}",
                "none named; all heard",
                all.Count == Followers * Steps * 2
            ),
        ];
    }

    private async Task<List<double>> Measure(HubConnection leader, string address, Guid page, int followers)
    {
        var times = new ConcurrentBag<double>();
        var first = Now();
        // Who comes is told what was seen last, from before.
        void Heard(int sent)
        {
            if (sent >= first)
                times.Add((Now() - sent) / 100.0);
        }

        var hubs = await Task.WhenAll(
            Enumerable
                .Range(0, followers)
                .Select(async i =>
                {
                    var hub = await Connect(pupils[i % People], address);
                    hub.On<string, string, string, string, int, int, int>("view", (_, _, _, _, sent, _, _) => Heard(sent));
                    hub.On<string, string, string, string, byte[]>(
                        "point",
                        (_, _, _, _, places) => Heard(BinaryPrimitives.ReadInt32BigEndian(places))
                    );
                    return hub;
                })
        );
        // When it was sent, in 0.01 ms since the beginning, goes as the place that is seen and pointed at.
        for (var step = 0; step < Steps; step++)
        {
            var piece = new byte[8];
            BinaryPrimitives.WriteInt32BigEndian(piece, Now());
            await leader.SendAsync("View", address, page.ToString(), Now(), 0, 21_000);
            await leader.SendAsync("Point", piece);
            await Task.Delay(Between);
        }

        for (var waited = 0; times.Count < followers * Steps * 2 && waited < 100; waited++)
            await Task.Delay(50);
        foreach (var hub in hubs)
            await hub.DisposeAsync();
        return [.. times];
    }

    private int Now() => (int)(Stopwatch.GetElapsedTime(began).TotalMilliseconds * 100);

    private async Task<HubConnection> Connect(Caller caller, string address)
    {
        var hub = caller.Live(host.Address);
        await hub.StartAsync();
        await hub.InvokeAsync("Join", address);
        return hub;
    }
}
