using CalmQuill.Store.Documents;
using Npgsql;

namespace CalmQuill.Store.Library;

/// <summary>When the server was told that a thing is in the bin or erased. What was put back is no longer noted, so its time begins anew; it does so, too, when somebody
/// who had not heard of it writes in it.</summary>
internal static class BinReceipts
{
    /// <summary>Notes what is in the bin now, or erased now, of one notebook or of the library itself.</summary>
    /// <param name="connection">The connection, within the transaction.</param>
    /// <param name="space">The space.</param>
    /// <param name="notebook">The notebook; the empty id for what lies in the library itself.</param>
    /// <param name="erased">Whether it is erased, or in the bin.</param>
    /// <param name="now">All that is so now.</param>
    /// <param name="cancel">Gives up.</param>
    public static async Task Keep(
        NpgsqlConnection connection,
        Guid space,
        Guid notebook,
        bool erased,
        IReadOnlyCollection<Guid> now,
        CancellationToken cancel
    )
    {
        (string, object?)[] parameters = [("space", space), ("notebook", notebook), ("erased", erased), ("ids", now.ToArray())];
        await connection.Execute(
            "DELETE FROM bin_receipts WHERE space_id = @space AND notebook_id = @notebook AND erased = @erased AND id <> ALL(@ids)",
            cancel,
            parameters
        );
        if (now.Count == 0)
            return;
        await connection.Execute(
            "INSERT INTO bin_receipts (space_id, notebook_id, id, erased) SELECT @space, @notebook, unnest(@ids), @erased ON CONFLICT DO NOTHING",
            cancel,
            parameters
        );
    }

    /// <summary>Lets the time of all begin anew that is in the bin and holds some sections and pages of a notebook.</summary>
    /// <param name="connection">The connection, within the transaction.</param>
    /// <param name="space">The space.</param>
    /// <param name="notebook">The notebook, which may itself be in the bin, or lie in a folder that is.</param>
    /// <param name="entries">Where somebody wrote.</param>
    /// <param name="cancel">Gives up.</param>
    public static Task<int> Renew(
        NpgsqlConnection connection,
        Guid space,
        Guid notebook,
        IReadOnlyCollection<Guid> entries,
        CancellationToken cancel
    ) =>
        connection.Execute(
            """
            WITH RECURSIVE inner_up AS (
                SELECT e.id, e.parent FROM notebook_entries e WHERE e.space_id = @space AND e.notebook_id = @notebook AND e.id = ANY(@entries)
                UNION
                SELECT e.id, e.parent FROM notebook_entries e JOIN inner_up u ON e.space_id = @space AND e.notebook_id = @notebook AND e.id = u.parent
            ), up AS (
                SELECT n.id, n.parent FROM library_nodes n WHERE n.space_id = @space AND n.id = @notebook
                UNION
                SELECT n.id, n.parent FROM library_nodes n JOIN up u ON n.space_id = @space AND n.id = u.parent
            )
            UPDATE bin_receipts r SET received_at = now()
            WHERE r.space_id = @space AND NOT r.erased
                AND (r.notebook_id = @notebook AND r.id IN (SELECT id FROM inner_up) OR r.notebook_id = @library AND r.id IN (SELECT id FROM up))
            """,
            cancel,
            ("space", space),
            ("notebook", notebook),
            ("library", Guid.Empty),
            ("entries", entries.ToArray())
        );

    /// <summary>Whether a notebook was erased, or a page with every notebook it stands in or by itself: nothing more is taken for it.</summary>
    public static Task<bool> IsErased(NpgsqlConnection connection, DocumentRef document, CancellationToken cancel) => new NpgsqlCommand(
            """
            SELECT EXISTS (SELECT 1 FROM bin_receipts r WHERE r.space_id = @space AND r.notebook_id = @library AND r.id = @id AND r.erased AND @kind = 2)
                OR @kind = 3
                    AND EXISTS (
                        SELECT 1 FROM page_homes h JOIN bin_receipts r ON r.space_id = h.space_id AND r.erased
                            AND (r.notebook_id = h.notebook_id AND r.id = h.page_id OR r.notebook_id = @library AND r.id = h.notebook_id)
                        WHERE h.space_id = @space AND h.page_id = @id)
                    AND NOT EXISTS (
                        SELECT 1 FROM notebook_entries e WHERE e.space_id = @space AND e.id = @id AND NOT EXISTS (
                            SELECT 1 FROM bin_receipts r WHERE r.space_id = e.space_id AND r.notebook_id = @library AND r.id = e.notebook_id AND r.erased))
            """,
            connection
        ).Of(document).With(("library", Guid.Empty)).Row(row => row.GetBoolean(0), cancel);
}
