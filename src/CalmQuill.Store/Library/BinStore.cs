using CalmQuill.Core.Library;

namespace CalmQuill.Store.Library;

/// <summary>Removes the data of what has left the bin for good. A document keeps its row, so that nothing is ever taken for it again.</summary>
public sealed class BinStore(Database database)
{
    /// <summary>Removes the data of everything whose time in the bin, and the days of grace after it, are over.</summary>
    /// <param name="now">UTC milliseconds since 1970.</param>
    /// <param name="cancel">Gives up.</param>
    /// <returns>How many documents were emptied.</returns>
    public async Task<int> RemoveData(long now, CancellationToken cancel)
    {
        await using var connection = await database.Connect(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        var documents = await new Npgsql.NpgsqlCommand(
            """
            WITH RECURSIVE over AS (
                SELECT n.space_id, n.id, n.kind FROM library_nodes n JOIN spaces s ON s.id = n.space_id
                WHERE n.binned_at IS NOT NULL AND s.bin_days > 0 AND n.binned_at + (s.bin_days + @grace) * @day <= @now
                UNION
                SELECT n.space_id, n.id, n.kind FROM library_nodes n JOIN over o ON o.space_id = n.space_id AND n.parent = o.id
            ), inner_over AS (
                SELECT e.space_id, e.id, e.notebook_id FROM notebook_entries e JOIN spaces s ON s.id = e.space_id
                WHERE e.binned_at IS NOT NULL AND s.bin_days > 0 AND e.binned_at + (s.bin_days + @grace) * @day <= @now
                UNION
                SELECT e.space_id, e.id, e.notebook_id FROM notebook_entries e JOIN inner_over o ON o.notebook_id = e.notebook_id AND e.parent = o.id
            ), erased AS (
                SELECT space_id, id FROM erasures WHERE at + @grace * @day <= @now
                UNION
                SELECT space_id, id FROM over WHERE kind = 2
            ), gone AS (
                SELECT space_id, id FROM erased
                UNION
                SELECT space_id, id FROM inner_over
                UNION
                SELECT e.space_id, e.id FROM notebook_entries e JOIN erased o ON o.space_id = e.space_id AND o.id = e.notebook_id
            )
            UPDATE documents d SET erased_at = now(), size = 0
            FROM gone g
            WHERE d.id = g.id AND d.space_id = g.space_id AND d.kind > 1 AND d.erased_at IS NULL
                -- A page that also stands in a notebook that stays, stays.
                AND NOT EXISTS (
                    SELECT 1 FROM notebook_entries e
                    WHERE e.id = d.id AND e.space_id = d.space_id AND NOT e.in_bin
                        AND NOT EXISTS (SELECT 1 FROM erased o WHERE o.id = e.notebook_id))
            RETURNING d.id
            """,
            connection)
            .With(("now", now), ("grace", Bin.GraceDays), ("day", 86_400_000L)).Rows(row => row.GetGuid(0), cancel);
        foreach (var table in new[] { "operations", "snapshots" })
            await connection.Execute($"DELETE FROM {table} WHERE document_id = ANY(@ids)", cancel, ("ids", documents.ToArray()));
        await connection.Execute("DELETE FROM notebook_entries WHERE notebook_id = ANY(@ids) OR id = ANY(@ids)", cancel, ("ids", documents.ToArray()));
        await connection.Execute("DELETE FROM notebook_people WHERE notebook_id = ANY(@ids)", cancel, ("ids", documents.ToArray()));
        await connection.Execute("DELETE FROM notebooks WHERE id = ANY(@ids)", cancel, ("ids", documents.ToArray()));
        await transaction.CommitAsync(cancel);
        return documents.Count;
    }
}
