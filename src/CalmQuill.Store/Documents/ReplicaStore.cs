using System.Collections.Concurrent;

namespace CalmQuill.Store.Documents;

/// <summary>Whose open application signs with which number. The first to use one has it for good, so nobody can write under another's.</summary>
public sealed class ReplicaStore(Database database)
{
    private const int MostRemembered = 20_000;
    private readonly ConcurrentDictionary<ulong, Guid> known = new();

    /// <summary>Takes the numbers that nobody has used yet for a person, and says which of them are another's.</summary>
    public async Task<IReadOnlySet<ulong>> Bind(Guid person, IReadOnlyCollection<ulong> replicas, CancellationToken cancel)
    {
        if (replicas.All(replica => known.TryGetValue(replica, out var owner) && owner == person)) return new HashSet<ulong>();
        // In one order, so that two requests never wait for each other.
        var asked = replicas.Select(replica => unchecked((long)replica)).Order().ToArray();
        await using var connection = await database.Connect(cancel);
        await connection.Execute(
            "INSERT INTO replicas (replica, person_id) SELECT unnest(@replicas), @person ON CONFLICT DO NOTHING", cancel, ("replicas", asked), ("person", person));
        var owners = await new Npgsql.NpgsqlCommand("SELECT replica, person_id FROM replicas WHERE replica = ANY(@replicas)", connection).With(("replicas", asked))
            .Rows(row => (Replica: unchecked((ulong)row.GetInt64(0)), Person: row.GetGuid(1)), cancel);
        if (known.Count > MostRemembered) known.Clear();
        foreach (var (replica, owner) in owners) known[replica] = owner;
        return owners.Where(one => one.Person != person).Select(one => one.Replica).ToHashSet();
    }
}
