using System.Collections.Concurrent;
using CalmQuill.Core.Operations;
using CalmQuill.Store.Documents;
using CalmQuill.Store.Rights;

namespace CalmQuill.Server.Live;

/// <summary>Who is connected live to this server, and who is on which document.</summary>
public sealed class LiveConnections
{
    private readonly ConcurrentDictionary<string, LiveConnection> connections = new();
    private readonly ConcurrentDictionary<DocumentRef, ConcurrentDictionary<string, LiveConnection>> present = new();

    /// <summary>As what a screen in a room follows: it sees no more than guests may.</summary>
    public static readonly Following OfScreen = new(MayWrite: false, AsGuest: true);

    /// <summary>Held while somebody comes or goes, so that nobody is put where the last one has just left.</summary>
    private readonly Lock comingAndGoing = new();

    public void Add(LiveConnection connection) => connections[connection.Id] = connection;

    public LiveConnection? Find(string id) => connections.GetValueOrDefault(id);

    public int CountOf(Guid person) => connections.Values.Count(connection => connection.Visitor.Person == person && !connection.IsScreen);

    public int CountOn(DocumentRef document) => present.TryGetValue(document, out var there) ? there.Count : 0;

    /// <summary>Takes a connection out, and says which documents it was on.</summary>
    public IReadOnlyList<DocumentRef> Remove(string id)
    {
        if (!connections.TryRemove(id, out _))
            return [];
        lock (comingAndGoing)
        {
            var left = present.Where(entry => entry.Value.ContainsKey(id)).Select(entry => entry.Key).ToList();
            foreach (var document in left)
                TakeOut(document, id);
            return left;
        }
    }

    public void Enter(DocumentRef document, LiveConnection connection, Following following)
    {
        lock (comingAndGoing)
        {
            connection.Joined[document] = following;
            present.GetOrAdd(document, _ => new())[connection.Id] = connection;
        }
    }

    /// <summary>False where the connection was not on the document.</summary>
    public bool Leave(DocumentRef document, LiveConnection connection)
    {
        lock (comingAndGoing)
        {
            TakeOut(document, connection.Id);
            return connection.Joined.TryRemove(document, out _);
        }
    }

    /// <summary>Who of this server stands in a notebook, or anywhere in a library, and what is shown there, as those are told who follow it.</summary>
    public IEnumerable<LiveMessage> StandingOn(DocumentRef document) => connections.Values.SelectMany(one => one.ToldOn(document));

    /// <summary>Puts a screen on the page that is shown to it, and takes it off the one before.</summary>
    public void Turn(LiveConnection screen, DocumentRef page)
    {
        foreach (var before in screen.Joined.Keys.Where(joined => joined.Kind is DocumentKind.Page && joined != page))
            Leave(before, screen);
        if (!screen.Joined.ContainsKey(page))
            Enter(page, screen, OfScreen);
    }

    public Guid[] PresentOn(DocumentRef document) =>
        present.TryGetValue(document, out var there)
            ? [.. there.Values.Where(connection => !connection.IsScreen).Select(connection => connection.Visitor.Person).Distinct().Order()]
            : [];

    /// <summary>Passes something on to the connections of this server that follow its document.</summary>
    public void Pass(LiveMessage message)
    {
        if (message.Method == Lectern.ClosedMethod && message.Arguments is [string closed, ..])
            StepDown(closed, "", long.MaxValue);
        if (
            message.Method == Lectern.Method
            && message.Arguments is [_, string leads, string lectern, string { Length: > 0 }, .., long since]
            && !StepDown(lectern, leads, since)
        )
            return;
        if (!present.TryGetValue(message.Document, out var there))
            return;
        foreach (var connection in there.Values)
        {
            if (connection.Id != message.But && connection.Joined.TryGetValue(message.Document, out var following))
                connection.Enqueue(following.SeesNoPast ? message.WithoutPast() : message);
            if (connection.IsScreen)
                Heed(message, connection);
        }
    }

    /// <summary>
    /// A screen goes along with the page that is shown, and hears nothing more once the lectern is closed. While the leader's connection is away it stays where it is.
    /// </summary>
    private void Heed(LiveMessage message, LiveConnection screen)
    {
        if (message is { Method: Lectern.Method, Arguments: [_, _, _, _, string page, ..] } && Guid.TryParse(page, out var shown))
            Turn(screen, new DocumentRef(message.Document.Space, DocumentKind.Page, shown));
        if (message.Method != Lectern.ClosedMethod)
            return;
        foreach (var followed in screen.Joined.Keys)
            Leave(followed, screen);
    }

    /// <summary>
    /// At a lectern stands one connection: those of before stand there no more, such as one that broke and that nobody has noticed; and none once it is closed.
    /// </summary>
    /// <returns>False where somebody stands there since later: what is told of the one from before is over.</returns>
    private bool StepDown(string lectern, string butThis, long since)
    {
        var isLatest = true;
        foreach (var connection in connections.Values)
        {
            if (connection.Lectern is not { } open || connection.Id == butThis || open.Id.ToString() != lectern)
                continue;
            if (open.Since > since)
                isLatest = false;
            else
                connection.Lectern = null;
        }

        return isLatest;
    }

    /// <summary>Ends the connections whose rights may have changed.</summary>
    public void End(RightsChange change)
    {
        foreach (var connection in connections.Values)
        {
            if (
                connection.Visitor.Session == change.Session
                || connection.Visitor.Person == change.Person
                || (change.Space is { } space && connection.Joined.Keys.Any(document => document.Space == space))
                || (change.Guests is { } shared && connection.Joined.Any(joined => joined.Key.Space == shared && joined.Value.AsGuest))
            )
                connection.End();
        }
    }

    /// <summary>Ends all, after a time in which changes of rights may have gone unheard.</summary>
    public void EndAll()
    {
        foreach (var connection in connections.Values)
            connection.End();
    }

    private void TakeOut(DocumentRef document, string id)
    {
        if (present.TryGetValue(document, out var there) && there.TryRemove(id, out _) && there.IsEmpty)
            present.TryRemove(document, out _);
    }
}
