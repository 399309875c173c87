using System.Collections.Concurrent;
using System.Threading.Channels;
using CalmQuill.Server.Access;
using CalmQuill.Store.Documents;
using Microsoft.AspNetCore.SignalR;

namespace CalmQuill.Server.Live;

/// <summary>As what somebody follows a document.</summary>
/// <param name="MayWrite">Whether they may write there.</param>
/// <param name="AsGuest">Whether it was shared with them.</param>
/// <param name="SeesNoPast">Whether its past is closed to them: they are told that something came, and ask for what stands.</param>
public readonly record struct Following(bool MayWrite, bool AsGuest, bool SeesNoPast = false);

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
    private readonly Func<LiveMessage, LiveMessage?>? sees;
    private int messages;
    private long bytes;

    /// <param name="context">The connection.</param>
    /// <param name="device">Where what is passed on goes.</param>
    /// <param name="visitor">Whose device it is.</param>
    /// <param name="sees">Of a screen in a room: what it is told of all that is passed on. Null for a person's device, which is told everything.</param>
    public LiveConnection(
        HubCallerContext context,
        ISingleClientProxy device,
        Visitor visitor,
        Func<LiveMessage, LiveMessage?>? sees = null
    )
    {
        (this.context, this.device, Visitor, this.sees) = (context, device, visitor, sees);
        _ = Pass();
    }

    public string Id => context.ConnectionId;

    public Visitor Visitor { get; }

    /// <summary>Whether it is a screen in a room, which belongs to nobody.</summary>
    public bool IsScreen => sees is not null;

    /// <summary>The documents it follows.</summary>
    public ConcurrentDictionary<DocumentRef, Following> Joined { get; } = new();

    /// <summary>Where its person looks; null while they look at no page.</summary>
    public Standing? Standing { get; set; }

    /// <summary>The lectern that its person stands at; null for none.</summary>
    public Lectern? Lectern { get; set; }

    /// <summary>The hand that its person raised; null while it is down.</summary>
    public RaisedHand? Hand { get; set; }

    /// <summary>What somebody is told who begins to follow a document: where this one's person looks, what they show, and whether they raise a hand.</summary>
    public IEnumerable<LiveMessage> ToldOn(DocumentRef document)
    {
        if (Standing?.ToldOn(document, this) is { } standing)
            yield return standing;
        if (Hand is { } hand && hand.Notebook == document)
            yield return hand.Message(this, isUp: true);
        foreach (var shown in Lectern?.ToldOn(document, this) ?? [])
            yield return shown;
    }

    /// <summary>Ends the connection; the device connects again and is let in by the rights it has then.</summary>
    public void End()
    {
        Joined.Clear();
        context.Abort();
    }

    public void Enqueue(LiveMessage passed)
    {
        if ((sees is null ? passed : sees(passed)) is not { } message)
            return;
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
