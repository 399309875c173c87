using System.Collections.Concurrent;
using System.Threading.Channels;
using CalmQuill.Server.Access;
using CalmQuill.Store.Documents;
using Microsoft.AspNetCore.SignalR;

namespace CalmQuill.Server.Live;

/// <summary>As what somebody follows a document.</summary>
/// <param name="MayWrite">Whether they may write there.</param>
/// <param name="AsGuest">Whether it was shared with them.</param>
public readonly record struct Following(bool MayWrite, bool AsGuest);

/// <summary>One device's live connection: what it follows, and what waits to be passed on to it.</summary>
/// <remarks>
/// What is passed on waits here, so that a device that stops reading keeps nobody waiting. When too much waits, the connection is ended: the device
/// comes back and asks for what it missed by number.
/// </remarks>
public sealed class LiveConnection
{
    private const int MostMessages = 2_000;
    private const int MostBytes = 8 * 1024 * 1024;
    private readonly Channel<LiveMessage> waiting = Channel.CreateUnbounded<LiveMessage>(
        new UnboundedChannelOptions { SingleReader = true }
    );
    private readonly HubCallerContext context;
    private readonly ISingleClientProxy device;
    private int messages;
    private long bytes;

    public LiveConnection(HubCallerContext context, ISingleClientProxy device, Visitor visitor)
    {
        (this.context, this.device, Visitor) = (context, device, visitor);
        _ = Pass();
    }

    public string Id => context.ConnectionId;

    public Visitor Visitor { get; }

    /// <summary>The documents it follows.</summary>
    public ConcurrentDictionary<DocumentRef, Following> Joined { get; } = new();

    /// <summary>Where its person looks; null while they look at no page.</summary>
    public Standing? Standing { get; set; }

    /// <summary>Ends the connection; the device connects again and is let in by the rights it has then.</summary>
    public void End()
    {
        Joined.Clear();
        context.Abort();
    }

    public void Enqueue(LiveMessage message)
    {
        if (Interlocked.Increment(ref messages) > MostMessages || Interlocked.Add(ref bytes, message.Size) > MostBytes)
            End();
        else
            waiting.Writer.TryWrite(message);
    }

    private async Task Pass()
    {
        try
        {
            await foreach (var message in waiting.Reader.ReadAllAsync(context.ConnectionAborted))
            {
                await device.SendCoreAsync(
                    message.Method,
                    [LiveMessage.Address(message.Document), .. message.Arguments],
                    context.ConnectionAborted
                );
                Interlocked.Decrement(ref messages);
                Interlocked.Add(ref bytes, -message.Size);
            }
        }
        catch (Exception problem)
            when (problem is OperationCanceledException or IOException or InvalidOperationException or ObjectDisposedException)
        {
            // The device is gone; it asks for what it missed when it is back.
            context.Abort();
        }
    }
}
