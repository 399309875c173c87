namespace CalmQuill.Store.Documents;

/// <summary>Copies what is written on pages, operation by operation, so that a copy has the same history and people as its original.</summary>
public sealed class CopyStore(Database database)
{
    /// <summary>Copies pages into a space under new ids. A page that nobody wrote on needs no copy.</summary>
    public async Task Pages(Guid space, IReadOnlyList<(Guid From, Guid To)> pages, CancellationToken cancel)
    {
        await using var connection = await database.Connect(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        (string, object?)[] pairs = [("space", space), ("from", pages.Select(page => page.From).ToArray()), ("to", pages.Select(page => page.To).ToArray())];
        await connection.Execute(
            """
            INSERT INTO documents (id, space_id, kind, last_seq, written_at, written_by, size)
            SELECT p.copy, @space, d.kind, d.last_seq, d.written_at, d.written_by, d.size
            FROM unnest(@from, @to) AS p (original, copy) JOIN documents d ON d.id = p.original
            WHERE d.kind = 3 AND d.erased_at IS NULL
            """,
            cancel, pairs);
        await connection.Execute(
            """
            INSERT INTO operations (document_id, seq, replica, counter, author, bytes, received_at)
            SELECT p.copy, o.seq, o.replica, o.counter, o.author, o.bytes, o.received_at
            FROM unnest(@from, @to) AS p (original, copy) JOIN operations o ON o.document_id = p.original
            """,
            cancel, pairs[1..]);
        await connection.Execute(
            """
            INSERT INTO snapshots (document_id, seq, bytes)
            SELECT p.copy, s.seq, s.bytes FROM unnest(@from, @to) AS p (original, copy) JOIN snapshots s ON s.document_id = p.original
            """,
            cancel, pairs[1..]);
        await connection.Execute(
            """
            INSERT INTO page_writers (page_id, person_id, written_at)
            SELECT p.copy, w.person_id, w.written_at FROM unnest(@from, @to) AS p (original, copy) JOIN page_writers w ON w.page_id = p.original
            """,
            cancel, pairs[1..]);
        await transaction.CommitAsync(cancel);
    }
}
