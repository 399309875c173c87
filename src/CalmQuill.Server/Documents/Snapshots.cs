using System.Threading.Channels;
using CalmQuill.Store.Documents;

namespace CalmQuill.Server.Documents;

/// <summary>Makes snapshots aside from requests. They only speed up opening, so one that is not made is no loss.</summary>
public sealed class Snapshots(DocumentStore documents, ILogger<Snapshots> log) : BackgroundService
{
    private readonly Channel<Guid> waiting = Channel.CreateBounded<Guid>(new BoundedChannelOptions(1024) { FullMode = BoundedChannelFullMode.DropWrite });

    /// <summary>Looks after a document when the number just reached crosses a snapshot boundary.</summary>
    public void Consider(Guid document, AppendResult result)
    {
        if (result.LastSequence / DocumentStore.SnapshotEvery != (result.FirstNew - 1) / DocumentStore.SnapshotEvery) waiting.Writer.TryWrite(document);
    }

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        await foreach (var document in waiting.Reader.ReadAllAsync(stoppingToken))
        {
            try
            {
                await documents.SnapshotIfDue(document, stoppingToken);
            }
            catch (Npgsql.NpgsqlException problem)
            {
                log.LogWarning(problem, "No snapshot was made of {Document}; opening it stays slower until the next one.", document);
            }
        }
    }
}
