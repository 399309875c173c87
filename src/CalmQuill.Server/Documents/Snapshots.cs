using System.Threading.Channels;
using CalmQuill.Store.Documents;

namespace CalmQuill.Server.Documents;

/// <summary>Makes snapshots aside from requests. They only speed up opening, so one that is not made is no loss.</summary>
public sealed class Snapshots(DocumentStore documents, ILogger<Snapshots> log) : BackgroundService
{
    private readonly Channel<DocumentRef> waiting = Channel.CreateBounded<DocumentRef>(
        new BoundedChannelOptions(1024) { FullMode = BoundedChannelFullMode.DropWrite }
    );

    /// <summary>Looks after a document when the number just reached crosses a snapshot boundary.</summary>
    public void Consider(DocumentRef document, AppendResult result)
    {
        if (result.LastSequence / DocumentStore.SnapshotEvery != (result.FirstNew - 1) / DocumentStore.SnapshotEvery)
            waiting.Writer.TryWrite(document);
    }

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        await foreach (var document in waiting.Reader.ReadAllAsync(stoppingToken))
        {
            try
            {
                await documents.SnapshotIfDue(document, stoppingToken);
            }
            catch (Exception problem) when (!stoppingToken.IsCancellationRequested)
            {
                // Whatever is wrong with one document, the others are still looked after.
                log.LogWarning(problem, "No snapshot was made of {Document}; opening it stays slower until the next one.", document);
            }
        }
    }
}
