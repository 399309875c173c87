using CalmQuill.Core.Library;
using CalmQuill.Core.Notebooks;
using CalmQuill.Core.Operations;
using Npgsql;
using NpgsqlTypes;

namespace CalmQuill.Store.Documents;

/// <summary>The tables that lists read, brought up to date in the transaction that stores the operations.</summary>
internal static class Projections
{
    /// <param name="connection">The connection, within the transaction.</param>
    /// <param name="document">The document that changed.</param>
    /// <param name="news">The operations that are new.</param>
    /// <param name="all">Reads all operations of the document, the new ones included.</param>
    /// <param name="cancel">Gives up.</param>
    public static Task Write(
        NpgsqlConnection connection, DocumentRef document, IReadOnlyList<Operation> news, Func<Task<List<Operation>>> all, CancellationToken cancel) =>
        document.Kind switch
        {
            DocumentKind.Library => WriteLibrary(connection, document.Space, all, cancel),
            DocumentKind.Notebook => WriteNotebook(connection, document.Id, all, cancel),
            _ => WritePage(connection, document.Id, news, cancel),
        };

    private static async Task WriteLibrary(NpgsqlConnection connection, Guid space, Func<Task<List<Operation>>> all, CancellationToken cancel)
    {
        var library = new LibraryDocument();
        foreach (var operation in await all()) library.Apply(operation);
        await connection.Execute("DELETE FROM library_nodes WHERE space_id = @space", cancel, ("space", space));
        await using var copy = await connection.BeginBinaryImportAsync(
            "COPY library_nodes (space_id, id, kind, parent, order_key, name, colour, cover, binned_at, in_bin) FROM STDIN (FORMAT binary)", cancel);
        foreach (var node in library.Nodes())
        {
            await copy.StartRowAsync(cancel);
            await copy.WriteAsync(space, NpgsqlDbType.Uuid, cancel);
            await copy.WriteAsync(node.Id, NpgsqlDbType.Uuid, cancel);
            await copy.WriteAsync((short)node.Kind, NpgsqlDbType.Smallint, cancel);
            await copy.WriteAsync(node.Parent, NpgsqlDbType.Uuid, cancel);
            await copy.WriteAsync(node.Order, NpgsqlDbType.Text, cancel);
            await copy.WriteAsync(node.Name, NpgsqlDbType.Text, cancel);
            await copy.WriteAsync(node.Colour, NpgsqlDbType.Text, cancel);
            await copy.WriteAsync(node.Cover, NpgsqlDbType.Text, cancel);
            await WriteNullable(copy, node.BinnedAt, cancel);
            await copy.WriteAsync(node.InBin, NpgsqlDbType.Boolean, cancel);
        }

        await copy.CompleteAsync(cancel);
    }

    private static async Task WriteNotebook(NpgsqlConnection connection, Guid notebookId, Func<Task<List<Operation>>> all, CancellationToken cancel)
    {
        var notebook = new NotebookDocument();
        foreach (var operation in await all()) notebook.Apply(operation);
        await connection.Execute("DELETE FROM notebook_pages WHERE notebook_id = @notebook", cancel, ("notebook", notebookId));
        await using var copy = await connection.BeginBinaryImportAsync(
            "COPY notebook_pages (notebook_id, id, number, title, paper, binned_at) FROM STDIN (FORMAT binary)", cancel);
        var number = 0;
        foreach (var page in notebook.Pages(withBinned: true))
        {
            if (page.BinnedAt is null) number++;
            await copy.StartRowAsync(cancel);
            await copy.WriteAsync(notebookId, NpgsqlDbType.Uuid, cancel);
            await copy.WriteAsync(page.Id, NpgsqlDbType.Uuid, cancel);
            await copy.WriteAsync(number, NpgsqlDbType.Integer, cancel);
            await copy.WriteAsync(page.Title, NpgsqlDbType.Text, cancel);
            await copy.WriteAsync(page.Paper, NpgsqlDbType.Text, cancel);
            await WriteNullable(copy, page.BinnedAt, cancel);
        }

        await copy.CompleteAsync(cancel);
    }

    private static async Task WritePage(NpgsqlConnection connection, Guid page, IReadOnlyList<Operation> news, CancellationToken cancel)
    {
        foreach (var own in news.GroupBy(operation => operation.Author))
        {
            await connection.Execute(
                """
                INSERT INTO page_writers (page_id, person_id, written_at) VALUES (@page, @person, least(now(), to_timestamp(@at / 1000.0)))
                ON CONFLICT (page_id, person_id) DO UPDATE SET written_at = greatest(page_writers.written_at, excluded.written_at)
                """,
                cancel, ("page", page), ("person", own.Key), ("at", own.Max(operation => operation.Time.UnixMilliseconds)));
        }
    }

    private static Task WriteNullable(NpgsqlBinaryImporter copy, long? value, CancellationToken cancel) =>
        value is { } number ? copy.WriteAsync(number, NpgsqlDbType.Bigint, cancel) : copy.WriteNullAsync(cancel);
}
