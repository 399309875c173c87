using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations.Codecs;

namespace CalmQuill.Core.Operations;

/// <summary>The one binary form of operations, for the network, the device's own store and the database: a batch of them.</summary>
/// <remarks>
/// A version byte, the replicas (8 bytes each), the authors (16 bytes each), the count, the lengths of five columns of samples, the columns, then
/// every operation with its kind, indices into those tables, counter and stamp as differences to the one before, and its payload. See docs/operations.md.
/// </remarks>
public static class OperationCodec
{
    private const byte Version = 1;
    public const int MostOperations = 1_000_000;
    public const int MostItems = 100_000;

    public static byte[] Encode(params IReadOnlyList<Operation> operations)
    {
        var writer = new ByteWriter(64 + operations.Count * 64);
        var replicas = new Dictionary<ulong, int>();
        var authors = new Dictionary<Guid, int>();
        foreach (var operation in operations)
        {
            replicas.TryAdd(operation.Id.Replica, replicas.Count);
            authors.TryAdd(operation.Author, authors.Count);
        }

        writer.Byte(Version);
        writer.Varint((ulong)replicas.Count);
        foreach (var replica in replicas.Keys)
            writer.Fixed64(replica);
        writer.Varint((ulong)authors.Count);
        foreach (var author in authors.Keys)
            writer.Guid(author);
        writer.Varint((ulong)operations.Count);
        var batch = new BatchWriter(operations.Count);
        var head = batch.Head;
        var counters = new ulong[replicas.Count];
        var time = default(Hlc);
        foreach (var operation in operations)
        {
            var replica = replicas[operation.Id.Replica];
            batch.Time = operation.Time;
            head.Byte((byte)operation.Change.Kind);
            head.Varint((ulong)replica);
            head.Signed(unchecked((long)(operation.Id.Counter - counters[replica] - 1)));
            head.Signed(operation.Time.UnixMilliseconds - time.UnixMilliseconds);
            head.Varint((ulong)operation.Time.Logical);
            head.Varint((ulong)authors[operation.Author]);
            var codec =
                ChangeCodec.Of(operation.Change.Kind) ?? throw new InvalidOperationException($"No codec for {operation.Change.Kind}.");
            codec.Write(batch, operation.Change);
            counters[replica] = operation.Id.Counter;
            time = operation.Time;
        }

        var columns = batch.Columns;
        foreach (var column in columns.All)
            writer.Varint((ulong)column.Length);
        foreach (var column in columns.All)
            writer.Bytes(column.Written);
        writer.Bytes(head.Written);
        return writer.ToArray();
    }

    /// <exception cref="OperationFormatException">The bytes are not a batch, or hold more than is allowed.</exception>
    public static List<Operation> Decode(ReadOnlySpan<byte> bytes)
    {
        var reader = new ByteReader(bytes);
        if (reader.Byte() != Version)
            throw new OperationFormatException("The data is of a version that is not known here.");
        var replicas = new ulong[reader.Count(MostOperations, 8, "replicas")];
        for (var i = 0; i < replicas.Length; i++)
            replicas[i] = reader.Fixed64();
        var authors = new Guid[reader.Count(MostOperations, 16, "authors")];
        for (var i = 0; i < authors.Length; i++)
            authors[i] = reader.Guid();
        var count = reader.Count(MostOperations, 6, "operations");
        Span<int> lengths = stackalloc int[5];
        for (var i = 0; i < lengths.Length; i++)
            lengths[i] = reader.Count(int.MaxValue, 1, "bytes of samples");
        var batch = new BatchReader
        {
            Columns = new SampleCodec.Readers
            {
                X = reader.Part(lengths[0]),
                Y = reader.Part(lengths[1]),
                Pressure = reader.Part(lengths[2]),
                Time = reader.Part(lengths[3]),
                Tilt = reader.Part(lengths[4]),
            },
        };
        batch.Head = reader;
        var operations = new List<Operation>(count);
        var counters = new ulong[replicas.Length];
        var milliseconds = 0L;
        for (var i = 0; i < count; i++)
        {
            var kind = (ChangeKind)batch.Head.Byte();
            var replica = Index(batch.Head.Varint(), replicas.Length);
            counters[replica] = unchecked(counters[replica] + (ulong)batch.Head.Signed() + 1);
            milliseconds = unchecked(milliseconds + batch.Head.Signed());
            var logical = batch.Head.Varint();
            if (milliseconds is < 0 or >= 1L << 48 || logical > ushort.MaxValue)
                throw new OperationFormatException("The data holds a time out of range.");
            batch.Time = Hlc.At(milliseconds, (int)logical);
            var author = authors[Index(batch.Head.Varint(), authors.Length)];
            var codec =
                ChangeCodec.Of(kind)
                ?? throw new OperationFormatException($"The data holds a change of kind {(int)kind}, which is not known here.");
            operations.Add(new Operation(new OpId(replicas[replica], counters[replica]), batch.Time, author, codec.Read(ref batch)));
        }

        if (!batch.Head.AtEnd || !batch.Columns.AtEnd)
            throw new OperationFormatException("The data goes on after its end.");
        return operations;
    }

    private static int Index(ulong index, int length) =>
        index < (ulong)length
            ? (int)index
            : throw new OperationFormatException("The data names a replica or author that it does not list.");
}
