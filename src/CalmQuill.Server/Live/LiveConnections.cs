using System.Collections.Concurrent;
using Microsoft.AspNetCore.SignalR;

namespace CalmQuill.Server.Live;

/// <summary>Who is connected live, and who is on which document.</summary>
public sealed class LiveConnections
{
    private readonly ConcurrentDictionary<string, (HubCallerContext Context, Guid Person)> connections = new();
    private readonly ConcurrentDictionary<Guid, ConcurrentDictionary<string, Guid>> present = new();

    public void Add(HubCallerContext context, Guid person) => connections[context.ConnectionId] = (context, person);

    public void Remove(string connection) => connections.TryRemove(connection, out _);

    /// <summary>Ends a person's connections; their devices connect again and are let in by the rights they have then.</summary>
    public void Drop(Guid person)
    {
        foreach (var (context, owner) in connections.Values)
        {
            if (owner == person) context.Abort();
        }
    }

    /// <summary>Ends the connections that follow a document; their devices connect again and join what they still may.</summary>
    public void DropFrom(Guid document)
    {
        if (!present.TryGetValue(document, out var there)) return;
        foreach (var connection in there.Keys)
        {
            if (connections.TryGetValue(connection, out var known)) known.Context.Abort();
        }
    }

    public void Enter(Guid document, string connection, Guid person) => present.GetOrAdd(document, _ => new())[connection] = person;

    public void Leave(Guid document, string connection)
    {
        if (present.TryGetValue(document, out var there)) there.TryRemove(connection, out _);
    }

    public Guid[] PresentOn(Guid document) => present.TryGetValue(document, out var there) ? [.. there.Values.Distinct().Order()] : [];
}
