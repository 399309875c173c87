using System.Collections.Concurrent;
using CalmQuill.Store.Documents;

namespace CalmQuill.Server.Live;

/// <summary>
/// Tells all devices that follow a space that something in it was written, so that their lists need not be asked for again and again: at most
/// twice a second, however much is written. What it was is not said.
/// </summary>
public sealed class SpaceNews(LivePassing live, TimeProvider clock)
{
    private static readonly TimeSpan Gathering = TimeSpan.FromMilliseconds(500);

    private readonly ConcurrentDictionary<Guid, byte> waiting = new();

    public void Tell(Guid space)
    {
        if (waiting.TryAdd(space, 0))
            _ = TellLater(space);
    }

    /// <summary>Who follows a space has joined its library, whose id is the space's.</summary>
    private async Task TellLater(Guid space)
    {
        await Task.Delay(Gathering, clock);
        waiting.TryRemove(space, out _);
        live.Pass(new LiveMessage(DocumentRef.Library(space), "news", [], 64));
    }
}
