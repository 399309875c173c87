using CalmQuill.Server.Access;
using CalmQuill.Server.Limits;
using CalmQuill.Store.Documents;
using Microsoft.AspNetCore.SignalR;

namespace CalmQuill.Server.Live;

/// <summary>The live traffic of documents that are open: what was stored, wet ink, pen positions, and who is there.</summary>
/// <remarks>
/// A document is named by its address, <c>space/kind/id</c>. Devices receive <c>stored(document, firstSequence, count, batch)</c>, <c>wet(document, person, connection, bytes)</c>,
/// <c>pen(document, person, connection, x, y)</c>, <c>present(document, people)</c> and, from the library of a space, <c>news(document)</c>. Wet ink and pen positions
/// are passed on and never kept. When anybody's rights in a space change, the connections on its documents end, and join again what they still may.
/// </remarks>
public sealed class LiveHub(Gate gate, LiveConnections connections, LivePassing live, QuillLimits limits, IHubContext<LiveHub> context)
    : Hub
{
    private const int MostWetBytes = 32 * 1024;
    private const int MostJoined = 64;
    private const int MostAddress = 100;

    public override Task OnConnectedAsync()
    {
        var visitor = Visitor.Of(Context.User!);
        if (connections.CountOf(visitor.Person) >= limits.ConnectionsOfAPerson)
            throw new HubException($"Too many devices of this account are connected.");
        connections.Add(new LiveConnection(Context, context.Clients.Client(Context.ConnectionId), visitor));
        return Task.CompletedTask;
    }

    public override Task OnDisconnectedAsync(Exception? exception)
    {
        foreach (var document in connections.Remove(Context.ConnectionId))
            TellPresence(document);
        return Task.CompletedTask;
    }

    /// <summary>Begins to follow a document; needs the right to read it.</summary>
    public async Task Join(string address)
    {
        var (document, connection) = (Named(address), Own());
        var (readable, denied) = await gate.ReadableDocument(document, connection.Visitor, Context.ConnectionAborted);
        if (readable is null)
            throw new HubException(denied!.Sentence.English);
        if (connection.Joined.Count >= MostJoined)
            throw new HubException($"Too many documents are open on one connection.");
        connections.Enter(document, connection, new Following(Core.Access.Rights.MayWrite(readable.Role), readable.IsGuest));
        // What changed while it was looked up has been told to those that were there; this one was not yet.
        if ((await gate.ReadableDocument(document, connection.Visitor, Context.ConnectionAborted)).Value?.Role != readable.Role)
        {
            connections.Leave(document, connection);
            throw new HubException(Denial.NotHere.Sentence.English);
        }

        TellPresence(document);
    }

    public Task Leave(string address)
    {
        var document = Named(address);
        if (connections.Leave(document, Own()))
            TellPresence(document);
        return Task.CompletedTask;
    }

    /// <summary>Passes on a piece of the stroke being written; needs the right to write.</summary>
    public Task Wet(string address, byte[] piece)
    {
        if (piece is null || piece.Length > MostWetBytes)
            throw new HubException($"A piece of wet ink is too large.");
        return PassOn(address, "wet", [Own().Visitor.Person.ToString(), Context.ConnectionId, piece], piece.Length);
    }

    /// <summary>Passes on where the pen is, in 0.01 mm; needs the right to write.</summary>
    public Task Pen(string address, int x, int y) =>
        PassOn(address, "pen", [Own().Visitor.Person.ToString(), Context.ConnectionId, x, y], 64);

    private Task PassOn(string address, string method, object[] arguments, int size)
    {
        var document = Named(address);
        if (!Own().Joined.TryGetValue(document, out var following))
            throw new HubException($"This document has not been joined.");
        if (!following.MayWrite)
            throw new HubException(Denial.MayNotWrite.Sentence.English);
        live.Pass(new LiveMessage(document, method, arguments, size, Context.ConnectionId));
        return Task.CompletedTask;
    }

    private LiveConnection Own() => connections.Find(Context.ConnectionId) ?? throw new HubException($"This connection has ended.");

    /// <summary>Who asks for what there is not is told what strangers are told.</summary>
    private static DocumentRef Named(string? address) =>
        address is { Length: <= MostAddress } && LiveMessage.Read(address) is { } document
            ? document
            : throw new HubException(Denial.NotHere.Sentence.English);

    private void TellPresence(DocumentRef document)
    {
        string[] people = [.. connections.PresentOn(document).Select(person => person.ToString())];
        // Who is on other servers is theirs to say.
        connections.Pass(new LiveMessage(document, "present", [people], 40 * people.Length));
    }
}
