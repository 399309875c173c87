using Npgsql;

namespace CalmQuill.Store.Library;

/// <summary>What was erased from the bin by hand and waits for its data to be removed.</summary>
internal static class Erasures
{
    public static async Task Note(NpgsqlConnection connection, Guid space, IEnumerable<(Guid Id, long At)> erased, CancellationToken cancel)
    {
        var rows = erased.ToList();
        if (rows.Count == 0) return;
        await connection.Execute(
            "INSERT INTO erasures (space_id, id, at) SELECT @space, * FROM unnest(@ids, @times) ON CONFLICT DO NOTHING",
            cancel, ("space", space), ("ids", rows.Select(row => row.Id).ToArray()), ("times", rows.Select(row => row.At).ToArray()));
    }
}
