using CalmQuill.Core.Access;
using CalmQuill.Server.People;
using Microsoft.AspNetCore.SignalR;

namespace CalmQuill.Server.Live;

/// <summary>The live traffic of documents that are open: what was stored, wet ink, pen positions, and who is there.</summary>
/// <remarks>
/// Devices receive <c>stored(document, firstSequence, count, batch)</c>, <c>wet(document, person, connection, bytes)</c>,
/// <c>pen(document, person, connection, x, y)</c>, <c>present(document, people)</c> and, from the library of a space, <c>news(space)</c>. Wet ink and pen positions are passed on and never kept.
/// </remarks>
public sealed class LiveHub(Gate gate, LiveConnections connections) : Hub
{
    private const int MostWetBytes = 32 * 1024;
    private const int MostJoined = 64;

    internal static string GroupOf(Guid document) => "document " + document;

    public override Task OnConnectedAsync()
    {
        connections.Add(Context, Context.User!.Id());
        return Task.CompletedTask;
    }

    public override async Task OnDisconnectedAsync(Exception? exception)
    {
        connections.Remove(Context.ConnectionId);
        foreach (var document in Joined.Keys.ToArray()) await Leave(document);
    }

    /// <summary>Begins to follow a document; needs the right to read it.</summary>
    public async Task Join(Guid space, Guid document)
    {
        var role = await gate.RoleIn(space, Context.User!, Context.ConnectionAborted);
        if (!Rights.MayRead(role) || !await gate.LiesIn(space, document, Context.ConnectionAborted)) throw new HubException("There is nothing here that you may see.");
        if (await gate.IsShut(document, Context.User!, Context.ConnectionAborted)) throw new HubException("This notebook is locked.");
        if (Joined.Count >= MostJoined) throw new HubException("Too many documents are open on one connection.");
        Joined[document] = role;
        await Groups.AddToGroupAsync(Context.ConnectionId, GroupOf(document));
        connections.Enter(document, Context.ConnectionId, Context.User!.Id());
        await TellPresence(document);
    }

    public async Task Leave(Guid document)
    {
        if (!Joined.Remove(document)) return;
        await Groups.RemoveFromGroupAsync(Context.ConnectionId, GroupOf(document));
        connections.Leave(document, Context.ConnectionId);
        await TellPresence(document);
    }

    /// <summary>Passes on a piece of the stroke being written; needs the right to write.</summary>
    public Task Wet(Guid document, byte[] piece)
    {
        if (piece.Length > MostWetBytes) throw new HubException("A piece of wet ink is too large.");
        return Others(document).SendAsync("wet", document.ToString(), Context.User!.Id().ToString(), Context.ConnectionId, piece);
    }

    /// <summary>Passes on where the pen is, in 0.01 mm; needs the right to write.</summary>
    public Task Pen(Guid document, int x, int y) =>
        Others(document).SendAsync("pen", document.ToString(), Context.User!.Id().ToString(), Context.ConnectionId, x, y);

    private Dictionary<Guid, Role> Joined
    {
        get
        {
            if (Context.Items.TryGetValue(nameof(Joined), out var known)) return (Dictionary<Guid, Role>)known!;
            var made = new Dictionary<Guid, Role>();
            Context.Items[nameof(Joined)] = made;
            return made;
        }
    }

    private IClientProxy Others(Guid document)
    {
        if (!Joined.TryGetValue(document, out var role)) throw new HubException("This document has not been joined.");
        if (!Rights.MayWrite(role)) throw new HubException("You may read here, but not write.");
        return Clients.OthersInGroup(GroupOf(document));
    }

    private Task TellPresence(Guid document) =>
        Clients.Group(GroupOf(document)).SendAsync("present", document.ToString(), (string[])[.. connections.PresentOn(document).Select(person => person.ToString())]);
}
