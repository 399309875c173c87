using CalmQuill.Core.Operations;
using CalmQuill.Server.Lecterns;
using CalmQuill.Store.Documents;
using Microsoft.AspNetCore.SignalR;

namespace CalmQuill.Server.Live;

/// <summary>
/// What a screen in the room hears, without signing in: what the leader shows, points at and sees, the wet ink of the page that is shown, and that something
/// on it changed.
/// </summary>
/// <remarks>
/// It says nothing and asks for nothing: which page it follows, the lectern alone decides. Its connection ends whenever rights in the space change; it comes
/// back by its code.
/// </remarks>
public sealed class RoomHub(Rooms rooms, LiveConnections connections, LivePassing live, IHubContext<RoomHub> context) : Hub
{
    /// <summary>Screens of one lectern on one server.</summary>
    public const int MostScreens = 20;

    public override async Task OnConnectedAsync()
    {
        var http = Context.GetHttpContext()!;
        var (open, _) = await rooms.Enter(http.Request.Query["code"], http, Context.ConnectionAborted);
        if (open is null)
            throw new HubException($"No lectern is open under this code.");
        var room = Lectern.Room(open.Space, open.Id);
        if (connections.CountOn(room) >= MostScreens)
            throw new HubException($"No lectern is open under this code.");
        var connection = new LiveConnection(
            Context,
            context.Clients.Client(Context.ConnectionId),
            new Access.Visitor(open.Leader, Guid.Empty, Guid.Empty),
            Seen
        );
        connections.Add(connection);
        connections.Enter(room, connection, LiveConnections.OfScreen);
        if (open.Page is { } page)
            connections.Turn(connection, new DocumentRef(open.Space, DocumentKind.Page, page));
        // What ended while it was looked up has been told to those that were there; this one was not yet.
        if ((await rooms.Enter(http.Request.Query["code"], http, Context.ConnectionAborted)).Open is null)
            connection.End();
        live.TellWhoStands(room, connection);
    }

    public override Task OnDisconnectedAsync(Exception? exception)
    {
        connections.Remove(Context.ConnectionId);
        return Task.CompletedTask;
    }

    /// <summary>What of all that passes a screen is told. What was written goes to it as a picture, without who wrote it and what was there before.</summary>
    private static LiveMessage? Seen(LiveMessage message) =>
        message.Method switch
        {
            "stored" => new LiveMessage(message.Document, "changed", [], 64),
            Lectern.Method or Lectern.ClosedMethod or "view" or "point" or "wet" => message,
            _ => null,
        };
}
