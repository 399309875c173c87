using CalmQuill.Core.Operations;
using CalmQuill.Store.Assets;
using CalmQuill.Store.History;
using CalmQuill.Store.Library;
using CalmQuill.Store.Spots;
using Npgsql;

namespace CalmQuill.Store.Documents;

/// <summary>The tables that lists read, brought up to date in the transaction that stores the operations.</summary>
internal sealed class Projections
{
    /// <summary>Goes up whenever a projection says more than before, so that a server makes all of them anew once.</summary>
    public const int Version = 4;

    /// <summary>The version from which on what happened is told.</summary>
    public const int DeedsSince = 4;

    private readonly LibraryProjection library = new();

    /// <param name="connection">The connection, within the transaction.</param>
    /// <param name="document">The document that changed.</param>
    /// <param name="news">The operations that are new.</param>
    /// <param name="before">The document's last number before them.</param>
    /// <param name="bytes">What they come to as stored.</param>
    /// <param name="all">Reads all operations of the document, the new ones included.</param>
    /// <param name="cancel">Gives up.</param>
    /// <returns>What to do once the transaction is committed.</returns>
    public async Task<Action> Write(
        NpgsqlConnection connection,
        DocumentRef document,
        IReadOnlyList<Operation> news,
        long before,
        long bytes,
        Func<Task<List<Operation>>> all,
        CancellationToken cancel
    )
    {
        await DeedProjection.Write(connection, document, news, cancel);
        switch (document.Kind)
        {
            case DocumentKind.Library:
                return await library.Write(connection, document.Space, news, before, all, cancel);
            case DocumentKind.Notebook:
                await NotebookProjection.Write(connection, document.Space, document.Id, await all(), cancel);
                await BinReceipts.Renew(
                    connection,
                    document.Space,
                    document.Id,
                    [.. news.Select(operation => operation.Change).OfType<Change.NodePlaced>().Select(placed => placed.Node)],
                    cancel
                );
                break;
            // Of an aside nothing is listed anywhere but the files that it names.
            case DocumentKind.Aside:
                await AssetProjection.Write(connection, document, news, cancel);
                break;
            default:
                await WritePage(connection, document, news, bytes, cancel);
                await SpotProjection.Write(connection, document, news, all, cancel);
                await AssetProjection.Write(connection, document, news, cancel);
                break;
        }

        return () => { };
    }

    private static async Task WritePage(
        NpgsqlConnection connection,
        DocumentRef page,
        IReadOnlyList<Operation> news,
        long bytes,
        CancellationToken cancel
    )
    {
        var standing = await new NpgsqlCommand(
            """
            UPDATE notebook_entries e SET written_at = greatest(written_at, least(@now, @at))
            WHERE id = @page AND space_id = @space
            RETURNING notebook_id, in_bin OR EXISTS (SELECT 1 FROM library_nodes n WHERE n.space_id = @space AND n.id = e.notebook_id AND n.in_bin)
            """,
            connection
        ).With(("page", page.Id), ("space", page.Space), ("now", DateTimeOffset.UtcNow.ToUnixTimeMilliseconds()), ("at", news.Max(operation => operation.Time.UnixMilliseconds))).Rows(row => (Id: row.GetGuid(0), IsInBin: row.GetBoolean(1)), cancel);
        foreach (var (notebook, isInBin) in standing)
        {
            if (isInBin)
                await BinReceipts.Renew(connection, page.Space, notebook, [page.Id], cancel);
        }

        var notebooks = standing.Select(one => one.Id).ToArray();
        if (notebooks.Length > 0)
        {
            await connection.Execute(
                """
                UPDATE notebooks n
                SET written_at = greatest(n.written_at, e.written_at), size = n.size + @bytes, changed_at = now()
                FROM notebook_entries e
                WHERE n.id = ANY(@notebooks) AND n.space_id = @space AND e.space_id = n.space_id AND e.notebook_id = n.id AND e.id = @page
                """,
                cancel,
                ("notebooks", notebooks),
                ("space", page.Space),
                ("page", page.Id),
                ("bytes", bytes)
            );
        }

        foreach (var own in news.GroupBy(operation => operation.Author))
        {
            await connection.Execute(
                """
                INSERT INTO page_writers (space_id, page_id, person_id, written_at) VALUES (@space, @page, @person, least(now(), to_timestamp(@at / 1000.0)))
                ON CONFLICT (space_id, page_id, person_id) DO UPDATE SET written_at = greatest(page_writers.written_at, excluded.written_at)
                """,
                cancel,
                ("space", page.Space),
                ("page", page.Id),
                ("person", own.Key),
                ("at", own.Max(operation => operation.Time.UnixMilliseconds))
            );
            if (notebooks.Length == 0)
                continue;
            await connection.Execute(
                """
                INSERT INTO notebook_people (space_id, notebook_id, person_id, written_at)
                SELECT space_id, id, @person, coalesce(written_at, 0) FROM notebooks WHERE space_id = @space AND id = ANY(@notebooks)
                ON CONFLICT (space_id, notebook_id, person_id) DO UPDATE SET written_at = greatest(notebook_people.written_at, excluded.written_at)
                """,
                cancel,
                ("space", page.Space),
                ("notebooks", notebooks),
                ("person", own.Key)
            );
        }
    }
}
