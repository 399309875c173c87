using CalmQuill.Core.Changing;
using CalmQuill.Core.Operations;

namespace CalmQuill.Core.Browser;

/// <summary>What this open application holds on the .NET side: its replica and the documents it has open, each under a number.</summary>
internal static class Session
{
    private static readonly Dictionary<int, IOpenDocument> Open = [];
    private static Replica? replica;
    private static Replica? rehearsing;
    private static int lastHandle;

    public static Replica Replica => rehearsing ?? replica ?? throw new InvalidOperationException("The session has not been started.");

    public static void Start(ulong id, Guid author) => replica = new Replica(id, author);

    /// <summary>From here to its end operations are signed by nobody: they are made only so that the runtime has seen how, and are thrown away.</summary>
    public static void Rehearse(bool on) => rehearsing = on ? new Replica(0, Guid.Empty) : null;

    public static int Add(IOpenDocument document)
    {
        Open[++lastHandle] = document;
        return lastHandle;
    }

    public static bool Has(int handle) => Open.ContainsKey(handle);

    public static IOpenDocument Document(int handle) => Open[handle];

    public static T Document<T>(int handle)
        where T : class => Open[handle].Core as T ?? throw new InvalidOperationException("The document is of another kind.");

    public static void Remove(int handle) => Open.Remove(handle);

    /// <summary>Makes an operation, applies it here, and returns it as a batch of one; a change against the rules throws with their sentence.</summary>
    public static byte[] Perform(int handle, Change? change, double now)
    {
        if (change is null)
            return [];
        var operation = For(handle).One(change, (long)now);
        Remember(handle, [operation]);
        Open[handle].Apply(operation);
        return OperationCodec.Encode(operation);
    }

    /// <summary>Makes an operation of each change; each comes as a batch of its own, framed by its length in four bytes, lowest first.</summary>
    /// <param name="handle">The document.</param>
    /// <param name="changes">What is done: all of it, or nothing when one change is against the rules.</param>
    /// <param name="now">The device's clock.</param>
    /// <param name="joined">Whether undo takes them back together, as one step.</param>
    public static byte[] PerformAll(int handle, IReadOnlyList<Change> changes, double now, bool joined = false)
    {
        var operations = For(handle).All(changes, (long)now, joined);
        Remember(handle, operations);
        foreach (var operation in operations)
            Open[handle].Apply(operation);
        return Framed([.. operations.Select(operation => OperationCodec.Encode(operation))]);
    }

    /// <summary>What takes back what was done last in a document, while that is asked for; null otherwise.</summary>
    public static List<Change>? Back { get; private set; }

    /// <summary>Whether what is done is noted in <see cref="Back"/>.</summary>
    public static bool IsTakingNote { get; set; }

    /// <summary>Notes how something that was done in many slices is taken back.</summary>
    public static void NoteBack(List<Change> changes) => Back = IsTakingNote ? changes : null;

    private static void Remember(int handle, IReadOnlyList<Operation> operations) =>
        Back =
            !IsTakingNote ? null
            : Open[handle].Core is IStanding standing
                ? TakingBack.Of(standing, Open[handle].Kind, [.. operations.Select(operation => operation.Change)])
            : TakingBack.OnPage(operations);

    /// <summary>Makes operations for a document.</summary>
    public static Making For(int handle) => new(Replica, Open[handle].Kind);

    /// <summary>A layer as script names it: empty for the first.</summary>
    public static Guid LayerOf(string layer) => Guid.TryParse(layer, out var id) ? id : Guid.Empty;

    /// <summary>The batches of <see cref="Framed"/>.</summary>
    public static List<byte[]> Unframed(byte[] framed)
    {
        var batches = new List<byte[]>();
        for (var at = 0; at < framed.Length; )
        {
            var length = System.Buffers.Binary.BinaryPrimitives.ReadInt32LittleEndian(framed.AsSpan(at));
            batches.Add(framed.AsSpan(at + 4, length).ToArray());
            at += 4 + length;
        }

        return batches;
    }

    /// <summary>Batches one after the other, each after its length in four bytes, lowest first.</summary>
    public static byte[] Framed(IReadOnlyCollection<byte[]> batches)
    {
        var writer = new ByteWriter(batches.Sum(batch => batch.Length + 4) + 16);
        foreach (var batch in batches)
        {
            writer.Fixed32((uint)batch.Length);
            writer.Bytes(batch);
        }

        return writer.ToArray();
    }
}
