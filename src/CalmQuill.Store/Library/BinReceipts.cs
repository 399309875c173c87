using Npgsql;

namespace CalmQuill.Store.Library;

/// <summary>When the server was told that a thing is in the bin or erased. What was put back is no longer noted, so its time begins anew.</summary>
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
}
