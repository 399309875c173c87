using CalmQuill.Store.Documents;
using CalmQuill.Store.Lecterns;
using CalmQuill.Store.Locks;
using CalmQuill.Store.People;
using CalmQuill.Store.Rights;
using CalmQuill.Store.Sharing;

namespace CalmQuill.Server.Live;

/// <summary>Makes changed rights hold on connections that are there already, on every server within a second.</summary>
public sealed class RightsWatcher(
    RightsNews news,
    LiveConnections connections,
    LockStore locks,
    SessionStore sessions,
    ShareStore shares,
    LecternStore lecterns,
    LivePassing live,
    ILogger<RightsWatcher> log
) : BackgroundService
{
    private static readonly TimeSpan Pause = TimeSpan.FromMilliseconds(500);

    protected override Task ExecuteAsync(CancellationToken stoppingToken) => Task.WhenAll(Listen(stoppingToken), Sweep(stoppingToken));

    private async Task Listen(CancellationToken stopping)
    {
        while (!stopping.IsCancellationRequested)
        {
            try
            {
                await news.Listen(connections.EndAll, Heed, stopping);
            }
            catch (Exception problem) when (!stopping.IsCancellationRequested)
            {
                log.LogWarning(problem, "Changed rights are not heard of for a moment; devices join anew once they are again.");
                await Task.Delay(Pause, stopping);
            }
            catch (OperationCanceledException)
            {
                return;
            }
        }
    }

    /// <summary>Where somebody may see less, connections end and are made anew; that somebody came is only told.</summary>
    private void Heed(RightsChange change)
    {
        if (change.Company is { } space)
            connections.Pass(new LiveMessage(DocumentRef.Library(space), "company", [], 64));
        else
            connections.End(change);
    }

    /// <summary>Locks whose time is over shut, and sign-ins whose time is over end, also on connections that are there.</summary>
    private async Task Sweep(CancellationToken stopping)
    {
        using var timer = new PeriodicTimer(Pause);
        try
        {
            while (await timer.WaitForNextTickAsync(stopping))
            {
                try
                {
                    await locks.ShutExpired(stopping);
                    await sessions.EndExpired(stopping);
                    await shares.EndExpired(stopping);
                    foreach (var over in await lecterns.CloseExpired(stopping))
                        live.Close(over);
                }
                catch (Exception problem) when (!stopping.IsCancellationRequested)
                {
                    log.LogWarning(problem, "Locks and sign-ins whose time is over are looked at again in a moment.");
                }
            }
        }
        catch (OperationCanceledException)
        {
            // The server stops.
        }
    }
}
