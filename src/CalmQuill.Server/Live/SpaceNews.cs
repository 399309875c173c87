using System.Collections.Concurrent;
using Microsoft.AspNetCore.SignalR;

namespace CalmQuill.Server.Live;

/// <summary>
/// Tells all devices that follow a space that something in it was written, so that their lists need not be asked for again and again: at most
/// twice a second, however much is written. What it was is not said.
/// </summary>
public sealed class SpaceNews(IHubContext<LiveHub> live, TimeProvider clock, ILogger<SpaceNews> log)
{
    private static readonly TimeSpan Gathering = TimeSpan.FromMilliseconds(500);

    private readonly ConcurrentDictionary<Guid, byte> waiting = new();

    public void Tell(Guid space)
    {
        if (waiting.TryAdd(space, 0)) _ = TellLater(space);
    }

    /// <summary>Who follows a space has joined its library, whose id is the space's.</summary>
    private async Task TellLater(Guid space)
    {
        try
        {
            await Task.Delay(Gathering, clock);
            waiting.TryRemove(space, out _);
            await live.Clients.Group(LiveHub.GroupOf(space)).SendAsync("news", space.ToString());
        }
        catch (Exception problem)
        {
            // Devices ask by themselves once a minute.
            log.LogWarning(problem, "The devices of a space could not be told of news.");
        }
    }
}
