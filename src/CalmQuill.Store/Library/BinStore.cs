using CalmQuill.Core.Library;
using CalmQuill.Core.Operations;
using CalmQuill.Store.Documents;
using Npgsql;

namespace CalmQuill.Store.Library;

/// <summary>Removes the data of what has left the bin for good. A document keeps its row, so that nothing is ever taken for it again.</summary>
/// <remarks>Here, and where dissolved groups end (<see cref="Groups.GroupStore.RemoveOver"/>), and accounts (<see cref="People.LeavingStore.EraseOver"/>) are the only places where anything is ever removed. It goes by when the server was told, never by a time that a device wrote.</remarks>
public sealed class BinStore(Database database)
{
    /// <summary>Removes the data of everything whose time in the bin, and the days of grace after it, are over.</summary>
    /// <param name="now">UTC.</param>
    /// <param name="cancel">Gives up.</param>
    /// <returns>The documents that were emptied.</returns>
    public async Task<List<DocumentRef>> RemoveData(DateTimeOffset now, CancellationToken cancel)
    {
        await using var connection = await database.Connect(cancel);
        await connection.Patiently(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        var removed = await new NpgsqlCommand(
            """
            WITH RECURSIVE times AS (
                SELECT id AS space_id, bin_days, bin_days_since + make_interval(days => @grace) <= @now AS settled FROM spaces
            ), due AS (
                SELECT r.space_id, r.notebook_id, r.id, r.erased FROM bin_receipts r JOIN times t ON t.space_id = r.space_id
                WHERE CASE WHEN r.erased THEN r.received_at + make_interval(days => @grace) <= @now
                    ELSE t.bin_days > 0 AND t.settled AND r.received_at + make_interval(days => t.bin_days + @grace) <= @now END
            ), over AS (
                SELECT n.space_id, n.id, n.kind FROM due d JOIN library_nodes n ON n.space_id = d.space_id AND n.id = d.id
                WHERE d.notebook_id = @library AND NOT d.erased AND n.in_bin
                UNION
                SELECT n.space_id, n.id, n.kind FROM library_nodes n JOIN over o ON o.space_id = n.space_id AND n.parent = o.id
            ), inner_over AS (
                SELECT e.space_id, e.id, e.notebook_id FROM due d
                JOIN notebook_entries e ON e.space_id = d.space_id AND e.notebook_id = d.notebook_id AND e.id = d.id
                WHERE NOT d.erased AND e.in_bin
                UNION
                SELECT e.space_id, e.id, e.notebook_id FROM notebook_entries e
                JOIN inner_over o ON o.space_id = e.space_id AND o.notebook_id = e.notebook_id AND e.parent = o.id
            ), notebooks_gone AS (
                SELECT space_id, id FROM due WHERE notebook_id = @library AND erased
                UNION
                SELECT space_id, id FROM over WHERE kind = 2
            ), gone (space_id, kind, id) AS (
                SELECT space_id, 2, id FROM notebooks_gone
                UNION
                SELECT space_id, 3, id FROM due WHERE notebook_id <> @library AND erased
                UNION
                SELECT space_id, 3, id FROM inner_over
                UNION
                SELECT e.space_id, 3, e.id FROM notebook_entries e JOIN notebooks_gone o ON o.space_id = e.space_id AND o.id = e.notebook_id
            )
            UPDATE documents d SET erased_at = @now, size = 0
            FROM gone g, documents was
            WHERE d.space_id = g.space_id AND d.kind = g.kind AND d.id = g.id AND d.erased_at IS NULL AND was.key = d.key
                -- A page that also stands in a notebook that stays, stays.
                AND (d.kind = 2 OR NOT EXISTS (
                    SELECT 1 FROM notebook_entries e
                    WHERE e.space_id = d.space_id AND e.id = d.id AND NOT e.in_bin
                        AND NOT EXISTS (SELECT 1 FROM notebooks_gone o WHERE o.space_id = e.space_id AND o.id = e.notebook_id)))
            RETURNING d.key, d.space_id, d.kind, d.id, d.last_seq, was.size
            """,
            connection
        ).With(("now", now.UtcDateTime), ("grace", Bin.GraceDays), ("library", Guid.Empty)).Rows(row => (Key: row.GetInt64(0), Document: new DocumentRef(row.GetGuid(1), (DocumentKind)row.GetInt16(2), row.GetGuid(3)), Operations: row.GetInt64(4), Bytes: row.GetInt64(5)), cancel);
        if (removed.Count == 0)
            return [];
        foreach (var table in new[] { "operations", "snapshots" })
            await connection.Execute(
                $"DELETE FROM {table} WHERE document_key = ANY(@keys)",
                cancel,
                ("keys", removed.Select(one => one.Key).ToArray())
            );
        foreach (var space in removed.GroupBy(one => one.Document.Space))
            await Forget(connection, space.Key, [.. space.Select(one => one.Document)], cancel);
        await connection.Execute(
            "INSERT INTO removals (space_id, kind, id, operations, bytes, removed_at) SELECT *, @now FROM unnest(@spaces, @kinds, @ids, @operations, @bytes)",
            cancel,
            ("now", now.UtcDateTime),
            ("spaces", removed.Select(one => one.Document.Space).ToArray()),
            ("kinds", removed.Select(one => (short)one.Document.Kind).ToArray()),
            ("ids", removed.Select(one => one.Document.Id).ToArray()),
            ("operations", removed.Select(one => one.Operations).ToArray()),
            ("bytes", removed.Select(one => one.Bytes).ToArray())
        );
        await transaction.CommitAsync(cancel);
        return [.. removed.Select(one => one.Document)];
    }

    /// <summary>Takes what was removed out of the lists. When a notebook was put into the bin stays noted, since its time there does not begin anew.</summary>
    private static async Task Forget(NpgsqlConnection connection, Guid space, IReadOnlyList<DocumentRef> removed, CancellationToken cancel)
    {
        var notebooks = removed.Where(one => one.Kind == DocumentKind.Notebook).Select(one => one.Id).ToArray();
        var pages = removed.Where(one => one.Kind == DocumentKind.Page).Select(one => one.Id).ToArray();
        await connection.Execute(
            """
            DELETE FROM deeds WHERE space_id = @space AND (target = ANY(@pages) OR target = ANY(@notebooks) OR target IN (
                SELECT id FROM notebook_entries WHERE space_id = @space AND notebook_id = ANY(@notebooks)))
            """,
            cancel,
            ("space", space),
            ("notebooks", notebooks),
            ("pages", pages)
        );
        await connection.Execute(
            "DELETE FROM notebook_entries WHERE space_id = @space AND (notebook_id = ANY(@notebooks) OR id = ANY(@pages))",
            cancel,
            ("space", space),
            ("notebooks", notebooks),
            ("pages", pages)
        );
        await connection.Execute(
            "DELETE FROM notebooks WHERE space_id = @space AND id = ANY(@notebooks)",
            cancel,
            ("space", space),
            ("notebooks", notebooks)
        );
        foreach (var table in new[] { "page_answers", "page_spots", "page_assets" })
            await connection.Execute(
                $"DELETE FROM {table} WHERE space_id = @space AND page_id = ANY(@pages)",
                cancel,
                ("space", space),
                ("pages", pages)
            );
        await connection.Execute(
            "DELETE FROM bin_receipts WHERE space_id = @space AND (notebook_id = ANY(@notebooks) OR id = ANY(@pages))",
            cancel,
            ("space", space),
            ("notebooks", notebooks),
            ("pages", pages)
        );
    }
}
