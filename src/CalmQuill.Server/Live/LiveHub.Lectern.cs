using CalmQuill.Core.Access;
using CalmQuill.Server.Access;
using CalmQuill.Store.Lecterns;
using Microsoft.AspNetCore.SignalR;

namespace CalmQuill.Server.Live;

/// <remarks>
/// From a notebook that is taught from, devices receive
/// <c>lectern(document, leader, connection, lectern, notebook, page, lifted, x, y, radius, since)</c>, with an empty notebook once the leader's connection has gone,
/// <c>lectern-closed(document, lectern)</c>, <c>point(document, leader, connection, page, places)</c>,
/// <c>hand(document, person, connection, since)</c>, 0 once it is down, and <c>lowered(document, leader, connection, whose)</c>.
/// </remarks>
public sealed partial class LiveHub
{
    private const int MostLifted = 200;
    private const int MostPointed = 800;

    /// <summary>Says that its person stands at the lectern of a notebook, which they have opened before.</summary>
    public async Task Teach(string notebook, string lectern)
    {
        var connection = Own();
        var document = JoinedNotebook(notebook, connection);
        if (!connection.Joined.TryGetValue(document, out var following) || !following.MayWrite || following.AsGuest)
            throw new HubException(Denial.MayNotWrite.Sentence.English);
        var open = Guid.TryParse(lectern, out var id)
            ? await lecterns.Stand(id, connection.Visitor.Person, clock.GetUtcNow(), Context.ConnectionAborted)
            : null;
        if (open is null || open.Space != document.Space || open.Notebook != document.Id)
            throw new HubException(Denial.NotHere.Sentence.English);
        if (connection.Lectern is { } before && before.Id != open.Id)
            StepDown(connection);
        // Who says so again, so that it is not taken for left, shows what they showed.
        if (connection.Lectern?.Id == open.Id)
            return;
        connection.Lectern = Lectern.Of(open, clock.GetUtcNow());
        Pass(connection.Lectern.Told(connection));
    }

    /// <summary>
    /// Says what is shown from the lectern: the page, the curtains that are lifted, and the spotlight in 0.01 mm, whose radius is 0 where there is none.
    /// </summary>
    public async Task Show(string page, string[] lifted, int x, int y, int radius)
    {
        var connection = Own();
        var lectern = AtLectern(connection);
        if (
            !Guid.TryParse(page, out var id)
            || radius < 0
            || lifted is not { Length: <= MostLifted }
            || !lifted.All(one => Guid.TryParse(one, out _))
        )
            throw new HubException(Denial.NotHere.Sentence.English);
        if (id != lectern.Page && !await Turn(lectern, connection, id))
            throw new HubException(Denial.NotHere.Sentence.English);
        // It may have been closed meanwhile.
        if (connection.Lectern is not { } now || now.Id != lectern.Id)
            return;
        connection.Lectern = now with { Page = id, Lifted = lifted, Spot = (x, y, radius), View = id == now.Page ? now.View : null };
        Pass(connection.Lectern.Shown(connection));
    }

    /// <summary>Passes on where the leader points, places of 0.01 mm; nothing of it is kept.</summary>
    public Task Point(byte[] places)
    {
        var connection = Own();
        var lectern = AtLectern(connection);
        if (places is not { Length: > 0 and <= MostPointed })
            throw new HubException($"A piece of what is pointed at is too large.");
        Pass(
            lectern.ForAll(
                new LiveMessage(
                    lectern.Notebook,
                    "point",
                    [connection.Visitor.Person.ToString(), connection.Id, lectern.Page.ToString(), places],
                    places.Length + 120,
                    connection.Id
                )
            )
        );
        return Task.CompletedTask;
    }

    /// <summary>Raises a hand in a notebook, or takes it down.</summary>
    public Task Hand(string notebook, bool isUp)
    {
        var connection = Own();
        var document = JoinedNotebook(notebook, connection);
        TakeHandDown(connection);
        if (!isUp)
            return Task.CompletedTask;
        connection.Hand = new RaisedHand(document, clock.GetUtcNow().ToUnixTimeMilliseconds());
        live.Pass(connection.Hand.Message(connection, isUp: true));
        return Task.CompletedTask;
    }

    /// <summary>From the lectern, asks somebody to take their hand down, since it was seen.</summary>
    public Task Lower(string whose)
    {
        var connection = Own();
        var lectern = AtLectern(connection);
        if (whose is not { Length: > 0 and <= MostAddress })
            throw new HubException(Denial.NotHere.Sentence.English);
        live.Pass(
            new LiveMessage(lectern.Notebook, "lowered", [connection.Visitor.Person.ToString(), connection.Id, whose], 160, connection.Id)
        );
        return Task.CompletedTask;
    }

    private static Lectern AtLectern(LiveConnection connection) =>
        connection.Lectern is { } lectern && connection.Joined.TryGetValue(lectern.Notebook, out var following) && following.MayWrite
            ? lectern
            : throw new HubException($"You do not stand at a lectern.");

    /// <summary>Shown is what is at home in the notebook; a page made in this moment is at home nowhere yet.</summary>
    private async Task<bool> Turn(Lectern lectern, LiveConnection connection, Guid page)
    {
        var home = await gate.HomeOf(lectern.Notebook.Space, page, Context.ConnectionAborted);
        return (home is null || home == lectern.Notebook.Id)
            && await lecterns.Turn(lectern.Id, connection.Visitor.Person, page, Context.ConnectionAborted);
    }

    private void StepDown(LiveConnection connection)
    {
        if (connection.Lectern is not { } lectern)
            return;
        connection.Lectern = null;
        Pass(lectern.Gone(connection));
    }

    private void TakeHandDown(LiveConnection connection)
    {
        if (connection.Hand is not { } hand)
            return;
        connection.Hand = null;
        live.Pass(hand.Message(connection, isUp: false));
    }

    private void Pass(IEnumerable<LiveMessage> messages)
    {
        foreach (var message in messages)
            live.Pass(message);
    }
}
