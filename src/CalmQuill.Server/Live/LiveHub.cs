using CalmQuill.Server.Access;
using CalmQuill.Server.Limits;
using CalmQuill.Store.Documents;
using CalmQuill.Store.Lecterns;
using CalmQuill.Store.Spaces;
using Microsoft.AspNetCore.SignalR;

namespace CalmQuill.Server.Live;

/// <summary>The live traffic of documents that are open: what was stored, wet ink, pen positions, and who is there.</summary>
/// <remarks>
/// A document is named by its address, <c>space/kind/id</c>. Devices receive <c>stored(document, firstSequence, count, batch)</c> or, where the past is closed
/// to
/// them, <c>later(document, lastSequence)</c>, <c>wet(document, person, connection, bytes)</c>,
/// <c>pen(document, person, connection, x, y)</c>, <c>held(document, person, connection, frame)</c>, <c>present(document, people)</c> and, from the library of a space, <c>news(document)</c>. From a notebook, and from its library without
/// the page, they receive <c>where(document, person, connection, notebook, page)</c>, with empty ids once somebody has gone; from a notebook <c>followed(document, person, connection, leader, on)</c> and
/// <c>view(document, person, connection, page, x, y, width)</c>. All but what was stored is passed on and never kept. When anybody's rights in a space change, the connections on its documents end, and join again what they still may.
/// </remarks>
public sealed partial class LiveHub(
    Gate gate,
    LiveConnections connections,
    LivePassing live,
    LecternStore lecterns,
    SpaceStore spaces,
    QuillLimits limits,
    TimeProvider clock,
    IHubContext<LiveHub> context
) : Hub
{
    private const int MostWetBytes = 32 * 1024;
    private const int FrameBytes = 32;

    /// <summary>The name of a text, or of a letter in it, is no longer.</summary>
    private const int MostName = 60;
    private const int MostJoined = 64;
    private const int MostAddress = 100;

    public override Task OnConnectedAsync()
    {
        var visitor = Visitor.Of(Context.User!);
        if (connections.CountOf(visitor.Person) >= limits.ConnectionsOfAPerson)
            throw new HubException($"Too many devices of this account are connected.");
        connections.Add(new LiveConnection(Context, context.Clients.Client(Context.ConnectionId), visitor));
        // Under this name others know it, and follow it.
        return Clients.Caller.SendAsync("you", Context.ConnectionId);
    }

    public override Task OnDisconnectedAsync(Exception? exception)
    {
        if (connections.Find(Context.ConnectionId) is { } connection)
            GoFrom(connection);
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
        var seesNoPast = await spaces.SeesNoPast(readable, Context.ConnectionAborted);
        connections.Enter(document, connection, new Following(Core.Access.Rights.MayWrite(readable.Role), readable.IsGuest, seesNoPast));
        // What changed while it was looked up has been told to those that were there; this one was not yet.
        if (
            (await gate.ReadableDocument(document, connection.Visitor, Context.ConnectionAborted)).Value?.Role != readable.Role
            || await spaces.SeesNoPast(readable, Context.ConnectionAborted) != seesNoPast
        )
        {
            connections.Leave(document, connection);
            throw new HubException(Denial.NotHere.Sentence.English);
        }

        TellPresence(document);
        if (document.Kind is Core.Operations.DocumentKind.Library or Core.Operations.DocumentKind.Notebook)
            live.TellWhoStands(document, connection);
    }

    public Task Leave(string address)
    {
        var (document, connection) = (Named(address), Own());
        if (connection.Standing?.Notebook == document)
            Leave(connection);
        if (connection.Lectern?.Notebook == document)
            StepDown(connection);
        if (connection.Hand?.Notebook == document)
            TakeHandDown(connection);
        if (connections.Leave(document, connection))
            TellPresence(document);
        return Task.CompletedTask;
    }

    /// <summary>Says which page of a notebook its person looks at, an empty id for none; whoever may read there may say so.</summary>
    public Task Stand(string notebook, string page)
    {
        var connection = Own();
        if (string.IsNullOrEmpty(page))
        {
            Leave(connection);
            return Task.CompletedTask;
        }

        var standing = new Standing(JoinedNotebook(notebook, connection), Guid.TryParse(page, out var id) ? id : Guid.Empty);
        if (connection.Standing is { } before && before.Notebook != standing.Notebook)
            Leave(connection);
        connection.Standing = standing;
        Pass(standing.Told(connection));
        return Task.CompletedTask;
    }

    /// <summary>Begins to follow what somebody looks at in a notebook, or ends it; they are told, and say where they look as long as anybody follows.</summary>
    public Task Follow(string notebook, string leader, bool on)
    {
        var connection = Own();
        var document = JoinedNotebook(notebook, connection);
        if (leader is not { Length: > 0 and <= MostAddress })
            throw new HubException(Denial.NotHere.Sentence.English);
        live.Pass(
            new LiveMessage(
                document,
                "followed",
                [connection.Visitor.Person.ToString(), connection.Id, leader, on ? 1 : 0],
                200,
                connection.Id
            )
        );
        return Task.CompletedTask;
    }

    /// <summary>Says what its person sees of a page: the middle and the width, in 0.01 mm.</summary>
    public Task View(string notebook, string page, int x, int y, int width)
    {
        var connection = Own();
        var document = JoinedNotebook(notebook, connection);
        if (!Guid.TryParse(page, out var id) || width <= 0)
            throw new HubException(Denial.NotHere.Sentence.English);
        var seen = new LiveMessage(
            document,
            "view",
            [connection.Visitor.Person.ToString(), connection.Id, id.ToString(), x, y, width],
            160,
            connection.Id
        );
        if (connection.Lectern is { } lectern && lectern.Notebook == document && lectern.Page == id)
        {
            connection.Lectern = lectern with { View = seen };
            Pass(lectern.ForAll(seen));
        }
        else
            live.Pass(seen);
        return Task.CompletedTask;
    }

    private static DocumentRef JoinedNotebook(string? address, LiveConnection connection)
    {
        var document = Named(address);
        return document.Kind is Core.Operations.DocumentKind.Notebook && connection.Joined.ContainsKey(document)
            ? document
            : throw new HubException($"This document has not been joined.");
    }

    private void GoFrom(LiveConnection connection)
    {
        Leave(connection);
        StepDown(connection);
        TakeHandDown(connection);
    }

    private void Leave(LiveConnection connection)
    {
        if (connection.Standing is not { } standing)
            return;
        connection.Standing = null;
        Pass(standing.Gone(connection));
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

    /// <summary>Passes on what its person has selected, as the corners of its frame in 0.01 mm, and where it is dragged; empty once nothing is. Needs the right to write.</summary>
    public Task Hold(string address, byte[] frame)
    {
        if (frame is not { Length: 0 or FrameBytes })
            throw new HubException(Denial.NotHere.Sentence.English);
        return PassOn(address, "held", [Own().Visitor.Person.ToString(), Context.ConnectionId, frame], 80);
    }

    /// <summary>Passes on where in a text its person types, as the names of letters, and of the text; empty once they do not. Needs the right to write.</summary>
    public Task Caret(string address, string item, string from, string to)
    {
        if (new[] { item, from, to }.Any(name => name is not { Length: <= MostName }))
            throw new HubException(Denial.NotHere.Sentence.English);
        return PassOn(address, "caret", [Own().Visitor.Person.ToString(), Context.ConnectionId, item, from, to], 200);
    }

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
