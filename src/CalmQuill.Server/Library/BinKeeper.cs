using CalmQuill.Store.Assets;
using CalmQuill.Store.Groups;
using CalmQuill.Store.Library;
using CalmQuill.Store.Limits;
using CalmQuill.Store.People;

namespace CalmQuill.Server.Library;

/// <summary>Once in a while removes the data of what has left the bin for good, and pictures and files that nothing names any more.</summary>
public sealed class BinKeeper(
    BinStore bin,
    GroupStore groups,
    LeavingStore leaving,
    AssetStore assets,
    CountStore counts,
    TimeProvider clock,
    ILogger<BinKeeper> log
) : BackgroundService
{
    private static readonly TimeSpan Pause = TimeSpan.FromHours(6);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        using var timer = new PeriodicTimer(Pause, clock);
        do
        {
            try
            {
                // What was counted in minutes that are over limits nothing any more.
                await counts.Forget(clock.GetUtcNow().ToUnixTimeSeconds() / 60 - 1, stoppingToken);
                foreach (var removed in await bin.RemoveData(clock.GetUtcNow(), stoppingToken))
                    log.LogWarning("Removed the data of {Document}, whose time in the bin was over.", removed);
                foreach (var group in await groups.RemoveOver(clock.GetUtcNow(), stoppingToken))
                    log.LogWarning("Removed the group {Group}, dissolved long ago, and all that was in it.", group);
                foreach (var person in await leaving.EraseOver(clock.GetUtcNow(), stoppingToken))
                    log.LogWarning("Erased the account {Person}, deleted long ago, with its own library.", person);
                if (await assets.Collect(clock.GetUtcNow(), stoppingToken) is > 0 and var collected)
                    log.LogInformation("Removed {Count} pictures and files that nothing had named for long.", collected);
            }
            catch (Exception problem) when (!stoppingToken.IsCancellationRequested)
            {
                log.LogWarning(problem, "What has left the bin could not be removed; it is tried again later.");
            }
        } while (await timer.WaitForNextTickAsync(stoppingToken));
    }
}
