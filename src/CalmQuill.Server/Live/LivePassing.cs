using CalmQuill.Core.Operations;
using CalmQuill.Store.Documents;
using CalmQuill.Store.Lecterns;
using StackExchange.Redis;

namespace CalmQuill.Server.Live;

/// <summary>Passes things on to whoever follows a document, on this server and, through Redis, on the others. Nobody waits for it, and it never fails.</summary>
public sealed class LivePassing(LiveConnections connections, Settings settings, ILogger<LivePassing> log) : IHostedService, IAsyncDisposable
{
    private static readonly RedisChannel Channel = RedisChannel.Literal("quill-live");
    private readonly Guid server = Guid.NewGuid();
    private ConnectionMultiplexer? redis;

    public void Stored(DocumentRef document, AppendResult stored)
    {
        var batch = OperationCodec.Encode(stored.New);
        Pass(new LiveMessage(document, "stored", [stored.FirstNew, stored.New.Count, batch], batch.Length));
    }

    /// <summary>Tells all who may know of it that a lectern is closed; screens that showed it end.</summary>
    public void Close(OpenLectern over)
    {
        foreach (var told in Lectern.Closed(over))
            Pass(told);
    }

    public void Pass(LiveMessage message)
    {
        connections.Pass(message);
        if (redis is { } others)
            _ = Publish(others, message);
    }

    /// <summary>Tells somebody who begins to follow a notebook or library who is there already: those of this server at once, those of others as they answer.</summary>
    public void TellWhoStands(DocumentRef document, LiveConnection to)
    {
        foreach (var standing in connections.StandingOn(document).Where(standing => standing.But != to.Id))
            to.Enqueue(standing);
        if (redis is { } others)
            _ = Publish(others, new LiveMessage(document, Standing.Asked, [], 64));
    }

    private void Receive(LiveMessage message)
    {
        if (message.Method != Standing.Asked)
            connections.Pass(message);
        else if (redis is { } others)
        {
            foreach (var standing in connections.StandingOn(message.Document))
                _ = Publish(others, standing);
        }
    }

    public async Task StartAsync(CancellationToken cancellationToken)
    {
        if (settings.Redis is not { } address)
            return;
        redis = await ConnectionMultiplexer.ConnectAsync(address);
        // In their order: ink is written in pieces, and what comes later takes the place of what came before.
        (await redis.GetSubscriber().SubscribeAsync(Channel)).OnMessage(told =>
        {
            if (LiveWire.Read((byte[])told.Message!, server) is { } message)
                Receive(message);
        });
    }

    public Task StopAsync(CancellationToken cancellationToken) => Task.CompletedTask;

    public async ValueTask DisposeAsync()
    {
        if (redis is not null)
            await redis.DisposeAsync();
    }

    private async Task Publish(ConnectionMultiplexer others, LiveMessage message)
    {
        try
        {
            await others.GetSubscriber().PublishAsync(Channel, LiveWire.Write(message, server));
        }
        catch (Exception problem) when (problem is RedisException or TimeoutException or ObjectDisposedException)
        {
            // Devices on the other servers notice the missing number with the next one, or when they ask.
            log.LogWarning(problem, "The other servers could not be told of a change.");
        }
    }
}
