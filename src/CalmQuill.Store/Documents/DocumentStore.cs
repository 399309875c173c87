using System.IO.Compression;
using CalmQuill.Core.Operations;
using Npgsql;
using NpgsqlTypes;

namespace CalmQuill.Store.Documents;

/// <summary>Operations: numbered in the order in which they arrive, never changed, answered for only after the commit.</summary>
public sealed class DocumentStore(Database database)
{
    /// <summary>How many operations may follow a snapshot before the next one is due.</summary>
    public const int SnapshotEvery = 256;

    private readonly Projections projections = new();

    /// <summary>Null when there is no such document yet.</summary>
    public Task<DocumentRef?> Find(Guid id, CancellationToken cancel) =>
        database.Command("SELECT space_id, kind, erased_at IS NOT NULL FROM documents WHERE id = @id").With(("id", id))
            .Row(row => new DocumentRef(row.GetGuid(0), (DocumentKind)row.GetInt16(1), id, row.GetBoolean(2)), cancel);

    /// <summary>Stores what is new of a batch together with the projections, in one transaction. The first operation makes the document.</summary>
    /// <returns>Null when the id belongs to a document of another kind or space, or is kept for a space's library.</returns>
    public async Task<AppendResult?> Append(DocumentRef document, IReadOnlyList<Operation> operations, CancellationToken cancel)
    {
        await using var connection = await database.Connect(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        await connection.Execute(
            "INSERT INTO documents (id, space_id, kind) SELECT @id, @space, @kind WHERE @kind = @library OR NOT EXISTS (SELECT 1 FROM spaces WHERE id = @id) ON CONFLICT DO NOTHING",
            cancel, ("id", document.Id), ("space", document.Space), ("kind", (short)document.Kind), ("library", (short)DocumentKind.Library));
        var last = await new NpgsqlCommand("SELECT last_seq FROM documents WHERE id = @id AND space_id = @space AND kind = @kind FOR UPDATE", connection)
            .With(("id", document.Id), ("space", document.Space), ("kind", (short)document.Kind)).Row(row => (long?)row.GetInt64(0), cancel);
        if (last is not { } before) return null;

        var known = await Known(connection, document.Id, operations, cancel);
        var sequences = new long[operations.Count];
        var news = new List<Operation>();
        for (var i = 0; i < operations.Count; i++)
        {
            var bytes = OperationCodec.Encode(operations[i]);
            if (known.TryGetValue(operations[i].Id, out var standing)) sequences[i] = standing.Bytes.AsSpan().SequenceEqual(bytes) ? standing.Sequence : 0;
            else
            {
                news.Add(operations[i]);
                sequences[i] = before + news.Count;
                known[operations[i].Id] = (sequences[i], bytes);
            }
        }

        Action committed = () => { };
        if (news.Count > 0)
        {
            var size = news.Sum(operation => (long)known[operation.Id].Bytes.Length);
            await Insert(connection, document.Id, before, news.Select(operation => (operation, known[operation.Id].Bytes)), cancel);
            await connection.Execute(
                """
                UPDATE documents
                SET last_seq = @last, size = size + @size, written_at = greatest(written_at, least(now(), to_timestamp(@at / 1000.0))), written_by = @author
                WHERE id = @id
                """,
                cancel, ("id", document.Id), ("last", before + news.Count), ("size", size), ("author", news[^1].Author), ("at", news.Max(operation => operation.Time.UnixMilliseconds)));
            committed = await projections.Write(connection, document, news, before, size, () => Read(connection, document.Id, 0, cancel), cancel);
        }

        await transaction.CommitAsync(cancel);
        committed();
        return new AppendResult(sequences, before + 1, news, before + news.Count);
    }

    /// <summary>Makes all projections of libraries and notebooks anew when this server's say more than those in the database.</summary>
    public async Task BringProjectionsUpToDate(CancellationToken cancel)
    {
        await using var connection = await database.Connect(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        var version = await new NpgsqlCommand("SELECT version FROM projections FOR UPDATE", connection).Row(row => row.GetInt32(0), cancel);
        if (version >= Projections.Version) return;
        var documents = await new NpgsqlCommand("SELECT id, space_id, kind, last_seq FROM documents WHERE kind < 3 AND erased_at IS NULL ORDER BY kind", connection)
            .Rows(row => (Document: new DocumentRef(row.GetGuid(1), (DocumentKind)row.GetInt16(2), row.GetGuid(0)), Last: row.GetInt64(3)), cancel);
        // The cache is not filled from here: what it would hold is not committed yet.
        foreach (var (document, last) in documents)
            await projections.Write(connection, document, [], last, 0, () => Read(connection, document.Id, 0, cancel), cancel);
        await connection.Execute("UPDATE projections SET version = @version", cancel, ("version", Projections.Version));
        await transaction.CommitAsync(cancel);
    }

    /// <summary>All operations after a number, in their order, with the document's last number; none and 0 when there is no such document.</summary>
    public async Task<(List<Operation> Operations, long LastSequence)> After(Guid document, long after, CancellationToken cancel)
    {
        await using var connection = await database.Connect(cancel);
        await using var transaction = await connection.BeginTransactionAsync(System.Data.IsolationLevel.RepeatableRead, cancel);
        var last = await new NpgsqlCommand("SELECT last_seq FROM documents WHERE id = @id", connection).With(("id", document)).Row(row => row.GetInt64(0), cancel);
        return (last > after ? await Read(connection, document, after, cancel) : [], last);
    }

    /// <summary>Makes a snapshot when enough has come since the last one.</summary>
    public async Task SnapshotIfDue(Guid document, CancellationToken cancel)
    {
        var due = await database.Command(
            "SELECT d.last_seq - coalesce(s.seq, 0) >= @every FROM documents d LEFT JOIN snapshots s ON s.document_id = d.id WHERE d.id = @id")
            .With(("id", document), ("every", SnapshotEvery)).Row(row => row.GetBoolean(0), cancel);
        if (!due) return;
        var (operations, last) = await After(document, 0, cancel);
        await using var connection = await database.Connect(cancel);
        await connection.Execute(
            """
            INSERT INTO snapshots (document_id, seq, bytes) VALUES (@id, @seq, @bytes)
            ON CONFLICT (document_id) DO UPDATE SET seq = excluded.seq, bytes = excluded.bytes WHERE snapshots.seq < excluded.seq
            """,
            cancel, ("id", document), ("seq", last), ("bytes", Compress(OperationCodec.Encode(operations))));
    }

    /// <summary>The stored form of a snapshot: Brotli at its best, since it is made aside and read often.</summary>
    public static byte[] Compress(byte[] batch)
    {
        using var packed = new MemoryStream();
        using (var brotli = new BrotliStream(packed, CompressionLevel.SmallestSize)) brotli.Write(batch);
        return packed.ToArray();
    }

    private static byte[] Decompress(byte[] packed)
    {
        using var brotli = new BrotliStream(new MemoryStream(packed), CompressionMode.Decompress);
        using var batch = new MemoryStream();
        brotli.CopyTo(batch);
        return batch.ToArray();
    }

    private static async Task<List<Operation>> Read(NpgsqlConnection connection, Guid document, long after, CancellationToken cancel)
    {
        var operations = new List<Operation>();
        var from = after;
        if (after == 0)
        {
            var snapshot = await new NpgsqlCommand("SELECT seq, bytes FROM snapshots WHERE document_id = @id", connection).With(("id", document))
                .Row(row => (Seq: row.GetInt64(0), Bytes: row.GetFieldValue<byte[]>(1)), cancel);
            if (snapshot.Bytes is not null)
            {
                operations.AddRange(OperationCodec.Decode(Decompress(snapshot.Bytes)));
                from = snapshot.Seq;
            }
        }

        var rows = await new NpgsqlCommand("SELECT bytes FROM operations WHERE document_id = @id AND seq > @from ORDER BY seq", connection)
            .With(("id", document), ("from", from)).Rows(row => row.GetFieldValue<byte[]>(0), cancel);
        foreach (var row in rows) operations.AddRange(OperationCodec.Decode(row));
        return operations;
    }

    private static async Task<Dictionary<OpId, (long Sequence, byte[] Bytes)>> Known(
        NpgsqlConnection connection, Guid document, IReadOnlyList<Operation> operations, CancellationToken cancel)
    {
        var rows = await new NpgsqlCommand(
            """
            SELECT o.replica, o.counter, o.seq, o.bytes
            FROM unnest(@replicas, @counters) AS asked (replica, counter)
            JOIN operations o ON o.document_id = @document AND o.replica = asked.replica AND o.counter = asked.counter
            """,
            connection)
            .With(
                ("document", document),
                ("replicas", operations.Select(operation => unchecked((long)operation.Id.Replica)).ToArray()),
                ("counters", operations.Select(operation => (long)operation.Id.Counter).ToArray()))
            .Rows(row => (Id: new OpId(unchecked((ulong)row.GetInt64(0)), (ulong)row.GetInt64(1)), Seq: row.GetInt64(2), Bytes: row.GetFieldValue<byte[]>(3)), cancel);
        return rows.DistinctBy(row => row.Id).ToDictionary(row => row.Id, row => (row.Seq, row.Bytes));
    }

    private static async Task Insert(
        NpgsqlConnection connection, Guid document, long before, IEnumerable<(Operation Operation, byte[] Bytes)> news, CancellationToken cancel)
    {
        await using var copy = await connection.BeginBinaryImportAsync(
            "COPY operations (document_id, seq, replica, counter, author, bytes) FROM STDIN (FORMAT binary)", cancel);
        foreach (var (operation, bytes) in news)
        {
            await copy.StartRowAsync(cancel);
            await copy.WriteAsync(document, NpgsqlDbType.Uuid, cancel);
            await copy.WriteAsync(++before, NpgsqlDbType.Bigint, cancel);
            await copy.WriteAsync(unchecked((long)operation.Id.Replica), NpgsqlDbType.Bigint, cancel);
            await copy.WriteAsync((long)operation.Id.Counter, NpgsqlDbType.Bigint, cancel);
            await copy.WriteAsync(operation.Author, NpgsqlDbType.Uuid, cancel);
            await copy.WriteAsync(bytes, NpgsqlDbType.Bytea, cancel);
        }

        await copy.CompleteAsync(cancel);
    }
}
