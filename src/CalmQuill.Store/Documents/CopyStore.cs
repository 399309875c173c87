namespace CalmQuill.Store.Documents;

/// <summary>Copies what is written on pages, operation by operation, so that a copy has the same history and people as its original.</summary>
public sealed class CopyStore(Database database)
{
    /// <summary>Copies pages of one space into a space under new ids. A page that nobody wrote on in that space needs no copy.</summary>
    public async Task Pages(Guid from, Guid into, IReadOnlyList<(Guid From, Guid To)> pages, CancellationToken cancel)
    {
        await using var connection = await database.Connect(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        (string, object?)[] pairs =
        [
            ("source", from),
            ("space", into),
            ("from", pages.Select(page => page.From).ToArray()),
            ("to", pages.Select(page => page.To).ToArray()),
        ];
        await connection.Execute(
            """
            INSERT INTO documents (id, space_id, kind, last_seq, written_at, written_by, size)
            SELECT p.copy, @space, d.kind, d.last_seq, d.written_at, d.written_by, d.size
            FROM unnest(@from, @to) AS p (original, copy) JOIN documents d ON d.space_id = @source AND d.kind = 3 AND d.id = p.original
            WHERE d.erased_at IS NULL
            """,
            cancel,
            pairs
        );
        const string copied = """
            FROM unnest(@from, @to) AS p (original, copy)
            JOIN documents d ON d.space_id = @source AND d.kind = 3 AND d.id = p.original AND d.erased_at IS NULL
            JOIN documents c ON c.space_id = @space AND c.kind = 3 AND c.id = p.copy
            """;
        await connection.Execute(
            $"""
            INSERT INTO operations (document_key, seq, replica, counter, author, bytes, received_at)
            SELECT c.key, o.seq, o.replica, o.counter, o.author, o.bytes, o.received_at
            {copied} JOIN operations o ON o.document_key = d.key
            """,
            cancel,
            pairs
        );
        await connection.Execute(
            $"INSERT INTO snapshots (document_key, seq, bytes) SELECT c.key, s.seq, s.bytes {copied} JOIN snapshots s ON s.document_key = d.key",
            cancel,
            pairs
        );
        await connection.Execute(
            """
            INSERT INTO page_writers (space_id, page_id, person_id, written_at)
            SELECT @space, p.copy, w.person_id, w.written_at
            FROM unnest(@from, @to) AS p (original, copy) JOIN page_writers w ON w.space_id = @source AND w.page_id = p.original
            """,
            cancel,
            pairs
        );
        await connection.Execute(
            """
            INSERT INTO deeds (space_id, kind, target, person_id, quarter, deed, things, at)
            SELECT @space, 3, p.copy, o.person_id, o.quarter, o.deed, o.things, o.at
            FROM unnest(@from, @to) AS p (original, copy) JOIN deeds o ON o.space_id = @source AND o.kind = 3 AND o.target = p.original
            ON CONFLICT DO NOTHING
            """,
            cancel,
            pairs
        );
        await connection.Execute(
            """
            INSERT INTO page_assets (space_id, kind, page_id, asset)
            SELECT @space, 3, p.copy, a.asset
            FROM unnest(@from, @to) AS p (original, copy) JOIN page_assets a ON a.space_id = @source AND a.kind = 3 AND a.page_id = p.original
            ON CONFLICT DO NOTHING
            """,
            cancel,
            pairs
        );
        await transaction.CommitAsync(cancel);
    }
}
