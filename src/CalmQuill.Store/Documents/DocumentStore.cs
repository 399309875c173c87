using System.Collections.Frozen;
using System.IO.Compression;
using CalmQuill.Core.Operations;
using CalmQuill.Store.History;
using CalmQuill.Store.Library;
using Npgsql;
using NpgsqlTypes;

namespace CalmQuill.Store.Documents;

/// <summary>Operations: numbered in the order in which they arrive, never changed, answered for only after the commit.</summary>
public sealed class DocumentStore(Database database, DocumentLimits limits)
{
    /// <summary>How many operations may follow a snapshot before the next one is due.</summary>
    public const int SnapshotEvery = 256;

    /// <summary>What is answered where a document was removed after its time in the bin.</summary>
    public static readonly Refusal Erased = new("erased", $"This was erased from the bin. What you wrote is kept on this device only.");

    private readonly Projections projections = new();

    public DocumentStore(Database database)
        : this(database, DocumentLimits.Usual) { }

    /// <summary>Null when there is no such document yet.</summary>
    public Task<DocumentState?> Find(DocumentRef document, CancellationToken cancel) =>
        database
            .Command("SELECT last_seq, erased_at IS NOT NULL FROM documents WHERE space_id = @space AND kind = @kind AND id = @id")
            .Of(document)
            .Row(row => new DocumentState(row.GetInt64(0), row.GetBoolean(1)), cancel);

    /// <inheritdoc cref="Append(DocumentRef, IReadOnlyList{Operation}, IReadOnlySet{ulong}, CancellationToken)"/>
    public Task<AppendResult> Append(DocumentRef document, IReadOnlyList<Operation> operations, CancellationToken cancel) =>
        Append(document, operations, FrozenSet<ulong>.Empty, cancel);

    /// <summary>Stores what is new of a batch together with the projections, in one transaction. The first operation makes the document.</summary>
    /// <param name="document">The document.</param>
    /// <param name="operations">The batch. What is stored already is answered for by its number, whoever brings it.</param>
    /// <param name="foreign">Numbers that the sender may not sign with: nothing new is stored under them.</param>
    /// <param name="cancel">Gives up, until it is stored.</param>
    public async Task<AppendResult> Append(
        DocumentRef document,
        IReadOnlyList<Operation> operations,
        IReadOnlySet<ulong> foreign,
        CancellationToken cancel
    )
    {
        await using var connection = await database.Connect(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        var (key, before, bytesBefore, isErased) = await Lock(connection, document, cancel);
        if (isErased || await BinReceipts.IsErased(connection, document, cancel))
            return AppendResult.Not(Erased);

        var known = await Known(connection, key, operations, cancel);
        var sequences = new long[operations.Count];
        var news = new List<Operation>();
        for (var i = 0; i < operations.Count; i++)
        {
            var bytes = OperationCodec.Encode(operations[i]);
            if (known.TryGetValue(operations[i].Id, out var standing))
                sequences[i] = standing.Bytes.AsSpan().SequenceEqual(bytes) ? standing.Sequence : 0;
            else if (!foreign.Contains(operations[i].Id.Replica))
            {
                news.Add(operations[i]);
                sequences[i] = before + news.Count;
                known[operations[i].Id] = (sequences[i], bytes);
            }
        }

        Action committed = () => { };
        var size = news.Sum(operation => (long)known[operation.Id].Bytes.Length);
        var fullness = limits.Fullness(before + news.Count, bytesBefore + size);
        if (news.Count > 0)
        {
            if (fullness > 1)
                return AppendResult.Not(DocumentLimits.Full(document.Kind));
            await Insert(connection, key, before, news.Select(operation => (operation, known[operation.Id].Bytes)), cancel);
            await connection.Execute(
                """
                UPDATE documents
                SET last_seq = @last, size = size + @size, written_at = greatest(written_at, least(now(), to_timestamp(@at / 1000.0))), written_by = @author
                WHERE key = @key
                """,
                cancel,
                ("key", key),
                ("last", before + news.Count),
                ("size", size),
                ("author", news[^1].Author),
                ("at", news.Max(operation => operation.Time.UnixMilliseconds))
            );
            committed = await projections.Write(connection, document, news, before, size, () => Read(connection, key, 0, cancel), cancel);
        }

        await transaction.CommitAsync(cancel);
        committed();
        return new AppendResult(sequences, before + 1, news, before + news.Count) { Fullness = fullness };
    }

    /// <summary>Makes all projections of libraries and notebooks anew when this server's say more than those in the database.</summary>
    public async Task BringProjectionsUpToDate(CancellationToken cancel)
    {
        await using var connection = await database.Connect(cancel);
        await connection.Patiently(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        var version = await new NpgsqlCommand("SELECT version FROM projections FOR UPDATE", connection).Row(row => row.GetInt32(0), cancel);
        if (version >= Projections.Version)
            return;
        var documents = await new NpgsqlCommand(
            "SELECT key, space_id, kind, id, last_seq FROM documents WHERE kind < 3 AND erased_at IS NULL ORDER BY kind, key",
            connection
        ).Rows(
            row =>
                (
                    Key: row.GetInt64(0),
                    Document: new DocumentRef(row.GetGuid(1), (DocumentKind)row.GetInt16(2), row.GetGuid(3)),
                    Last: row.GetInt64(4)
                ),
            cancel
        );
        if (version < Projections.DeedsSince)
            await TellOfAll(connection, cancel);
        // The cache is not filled from here: what it would hold is not committed yet.
        foreach (var (key, document, last) in documents)
            await projections.Write(connection, document, [], last, 0, () => Read(connection, key, 0, cancel), cancel);
        await connection.Execute("UPDATE projections SET version = @version", cancel, ("version", Projections.Version));
        await transaction.CommitAsync(cancel);
    }

    /// <summary>Tells of all that was done before that was told of at all.</summary>
    private static async Task TellOfAll(NpgsqlConnection connection, CancellationToken cancel)
    {
        var documents = await new NpgsqlCommand(
            "SELECT key, space_id, kind, id FROM documents WHERE kind < 4 AND erased_at IS NULL",
            connection
        ).Rows(
            row => (Key: row.GetInt64(0), Document: new DocumentRef(row.GetGuid(1), (DocumentKind)row.GetInt16(2), row.GetGuid(3))),
            cancel
        );
        await connection.Execute("DELETE FROM deeds", cancel);
        foreach (var (key, document) in documents)
            await DeedProjection.WriteAll(connection, document, await Read(connection, key, 0, cancel), cancel);
    }

    /// <summary>All operations after a number, in their order, with the document's last number; none and 0 when there is no such document.</summary>
    public async Task<(List<Operation> Operations, long LastSequence)> After(DocumentRef document, long after, CancellationToken cancel)
    {
        await using var connection = await database.Connect(cancel);
        await using var transaction = await connection.BeginTransactionAsync(System.Data.IsolationLevel.RepeatableRead, cancel);
        var (key, last) = await new NpgsqlCommand(
            "SELECT key, last_seq FROM documents WHERE space_id = @space AND kind = @kind AND id = @id",
            connection
        )
            .Of(document)
            .Row(row => (row.GetInt64(0), row.GetInt64(1)), cancel);
        return (last > after ? await Read(connection, key, after, cancel) : [], last);
    }

    /// <summary>Those of some operations of a document that a person wrote.</summary>
    public async Task<List<OpId>> WrittenBy(DocumentRef document, Guid person, IReadOnlyCollection<OpId> ids, CancellationToken cancel) =>
        ids.Count == 0
            ? []
            : await database
                .Command(
                    """
                    SELECT o.replica, o.counter FROM unnest(@replicas, @counters) AS asked (replica, counter)
                    JOIN documents d ON d.space_id = @space AND d.kind = @kind AND d.id = @id
                    JOIN operations o ON o.document_key = d.key AND o.replica = asked.replica AND o.counter = asked.counter
                    WHERE o.author = @person
                    """
                )
                .Of(document)
                .With(
                    ("person", person),
                    ("replicas", ids.Select(id => unchecked((long)id.Replica)).ToArray()),
                    ("counters", ids.Select(id => (long)id.Counter).ToArray())
                )
                .Rows(row => new OpId(unchecked((ulong)row.GetInt64(0)), (ulong)row.GetInt64(1)), cancel);

    /// <summary>Makes a snapshot when enough has come since the last one.</summary>
    public async Task SnapshotIfDue(DocumentRef document, CancellationToken cancel)
    {
        var (key, due) = await database
            .Command(
                """
                SELECT d.key, d.last_seq - coalesce(s.seq, 0) >= @every FROM documents d LEFT JOIN snapshots s ON s.document_key = d.key
                WHERE d.space_id = @space AND d.kind = @kind AND d.id = @id
                """
            )
            .Of(document)
            .With(("every", SnapshotEvery))
            .Row(row => (row.GetInt64(0), row.GetBoolean(1)), cancel);
        if (!due)
            return;
        var (operations, last) = await After(document, 0, cancel);
        await using var connection = await database.Connect(cancel);
        await connection.Execute(
            """
            INSERT INTO snapshots (document_key, seq, bytes) VALUES (@key, @seq, @bytes)
            ON CONFLICT (document_key) DO UPDATE SET seq = excluded.seq, bytes = excluded.bytes WHERE snapshots.seq < excluded.seq
            """,
            cancel,
            ("key", key),
            ("seq", last),
            ("bytes", Compress(OperationCodec.Encode(operations)))
        );
    }

    /// <summary>The stored form of a snapshot: Brotli at its best, since it is made aside and read often.</summary>
    public static byte[] Compress(byte[] batch)
    {
        using var packed = new MemoryStream();
        using (var brotli = new BrotliStream(packed, CompressionLevel.SmallestSize))
            brotli.Write(batch);
        return packed.ToArray();
    }

    private static byte[] Decompress(byte[] packed)
    {
        using var brotli = new BrotliStream(new MemoryStream(packed), CompressionMode.Decompress);
        using var batch = new MemoryStream();
        brotli.CopyTo(batch);
        return batch.ToArray();
    }

    /// <summary>Takes the document's row for this transaction, making it when it is new.</summary>
    private static async Task<(long Key, long LastSequence, long Bytes, bool IsErased)> Lock(
        NpgsqlConnection connection,
        DocumentRef document,
        CancellationToken cancel
    )
    {
        const string sql =
            "SELECT key, last_seq, size, erased_at IS NOT NULL FROM documents WHERE space_id = @space AND kind = @kind AND id = @id FOR UPDATE";
        Task<(long, long, long, bool)?> Find() =>
            new NpgsqlCommand(sql, connection)
                .Of(document)
                .Row(row => ((long, long, long, bool)?)(row.GetInt64(0), row.GetInt64(1), row.GetInt64(2), row.GetBoolean(3)), cancel);
        if (await Find() is { } standing)
            return standing;
        await using var insert = new NpgsqlCommand(
            "INSERT INTO documents (space_id, kind, id) VALUES (@space, @kind, @id) ON CONFLICT DO NOTHING",
            connection
        ).Of(document);
        await insert.ExecuteNonQueryAsync(cancel);
        return (await Find())!.Value;
    }

    private static async Task<List<Operation>> Read(NpgsqlConnection connection, long key, long after, CancellationToken cancel)
    {
        var operations = new List<Operation>();
        var from = after;
        if (after == 0)
        {
            var snapshot = await new NpgsqlCommand("SELECT seq, bytes FROM snapshots WHERE document_key = @key", connection)
                .With(("key", key))
                .Row(row => (Seq: row.GetInt64(0), Bytes: row.GetFieldValue<byte[]>(1)), cancel);
            if (snapshot.Bytes is not null)
            {
                operations.AddRange(OperationCodec.Decode(Decompress(snapshot.Bytes)));
                from = snapshot.Seq;
            }
        }

        var rows = await new NpgsqlCommand(
            "SELECT bytes FROM operations WHERE document_key = @key AND seq > @from ORDER BY seq",
            connection
        )
            .With(("key", key), ("from", from))
            .Rows(row => row.GetFieldValue<byte[]>(0), cancel);
        foreach (var row in rows)
            operations.AddRange(OperationCodec.Decode(row));
        return operations;
    }

    private static async Task<Dictionary<OpId, (long Sequence, byte[] Bytes)>> Known(
        NpgsqlConnection connection,
        long key,
        IReadOnlyList<Operation> operations,
        CancellationToken cancel
    )
    {
        var rows = await new NpgsqlCommand(
            """
            SELECT o.replica, o.counter, o.seq, o.bytes
            FROM unnest(@replicas, @counters) AS asked (replica, counter)
            JOIN operations o ON o.document_key = @key AND o.replica = asked.replica AND o.counter = asked.counter
            """,
            connection
        ).With(("key", key), ("replicas", operations.Select(operation => unchecked((long)operation.Id.Replica)).ToArray()), ("counters", operations.Select(operation => (long)operation.Id.Counter).ToArray())).Rows(row => (Id: new OpId(unchecked((ulong)row.GetInt64(0)), (ulong)row.GetInt64(1)), Seq: row.GetInt64(2), Bytes: row.GetFieldValue<byte[]>(3)), cancel);
        return rows.DistinctBy(row => row.Id).ToDictionary(row => row.Id, row => (row.Seq, row.Bytes));
    }

    private static async Task Insert(
        NpgsqlConnection connection,
        long key,
        long before,
        IEnumerable<(Operation Operation, byte[] Bytes)> news,
        CancellationToken cancel
    )
    {
        await using var copy = await connection.BeginBinaryImportAsync(
            "COPY operations (document_key, seq, replica, counter, author, bytes) FROM STDIN (FORMAT binary)",
            cancel
        );
        foreach (var (operation, bytes) in news)
        {
            await copy.StartRowAsync(cancel);
            await copy.WriteAsync(key, NpgsqlDbType.Bigint, cancel);
            await copy.WriteAsync(++before, NpgsqlDbType.Bigint, cancel);
            await copy.WriteAsync(unchecked((long)operation.Id.Replica), NpgsqlDbType.Bigint, cancel);
            await copy.WriteAsync((long)operation.Id.Counter, NpgsqlDbType.Bigint, cancel);
            await copy.WriteAsync(operation.Author, NpgsqlDbType.Uuid, cancel);
            await copy.WriteAsync(bytes, NpgsqlDbType.Bytea, cancel);
        }

        await copy.CompleteAsync(cancel);
    }
}
