using System.Collections.Concurrent;

namespace CalmQuill.Store.Documents;

/// <summary>Whose open application signs with which number. The first person and browser to use one have it for good, so nobody can write under another's; the person alone may bring what one of their browsers signed to another.</summary>
public sealed class ReplicaStore(Database database)
{
    private const int MostRemembered = 20_000;
    private readonly ConcurrentDictionary<ulong, Owner> known = new();

    /// <param name="Person">Who used it first.</param>
    /// <param name="Device">In which browser; null for any of theirs.</param>
    private readonly record struct Owner(Guid Person, Guid? Device)
    {
        public bool Is(Guid person, Guid? device) => Person == person && (Device is null || device is null || Device == device);
    }

    /// <summary>Takes the numbers that nobody has used yet for a person in a browser, and says which of them are another's.</summary>
    /// <param name="person">Who signs.</param>
    /// <param name="device">In which browser; null for what was signed in any of theirs.</param>
    /// <param name="replicas">The numbers.</param>
    /// <param name="cancel">Gives up.</param>
    public async Task<IReadOnlySet<ulong>> Bind(Guid person, Guid? device, IReadOnlyCollection<ulong> replicas, CancellationToken cancel)
    {
        if (replicas.All(replica => known.TryGetValue(replica, out var owner) && owner.Is(person, device)))
            return new HashSet<ulong>();
        // In one order, so that two requests never wait for each other.
        var asked = replicas.Select(replica => unchecked((long)replica)).Order().ToArray();
        await using var connection = await database.Connect(cancel);
        await connection.Execute(
            "INSERT INTO replicas (replica, person_id, device_id) SELECT unnest(@replicas), @person, @device::uuid ON CONFLICT DO NOTHING",
            cancel,
            ("replicas", asked),
            ("person", person),
            ("device", device)
        );
        var owners = await new Npgsql.NpgsqlCommand(
            "SELECT replica, person_id, device_id FROM replicas WHERE replica = ANY(@replicas)",
            connection
        )
            .With(("replicas", asked))
            .Rows(
                row =>
                    (Replica: unchecked((ulong)row.GetInt64(0)), Owner: new Owner(row.GetGuid(1), row.IsDBNull(2) ? null : row.GetGuid(2))),
                cancel
            );
        if (known.Count > MostRemembered)
            known.Clear();
        foreach (var (replica, owner) in owners)
            known[replica] = owner;
        return owners.Where(one => !one.Owner.Is(person, device)).Select(one => one.Replica).ToHashSet();
    }
}
