using CalmQuill.Core.Access;
using CalmQuill.Core.Operations;

namespace CalmQuill.Core.Browser;

/// <summary>What this open application holds on the .NET side: its replica and the documents it has open, each under a number.</summary>
internal static class Session
{
    private static readonly Dictionary<int, IOpenDocument> Open = [];
    private static Replica? replica;
    private static int lastHandle;

    public static Replica Replica => replica ?? throw new InvalidOperationException("The session has not been started.");

    public static void Start(ulong id, Guid author) => replica = new Replica(id, author);

    public static int Add(IOpenDocument document)
    {
        Open[++lastHandle] = document;
        return lastHandle;
    }

    public static IOpenDocument Document(int handle) => Open[handle];

    public static T Document<T>(int handle)
        where T : class =>
        Open[handle].Core as T ?? throw new InvalidOperationException("The document is of another kind.");

    public static void Remove(int handle) => Open.Remove(handle);

    /// <summary>Makes an operation, applies it here, and returns it as a batch of one; a change against the rules throws with their sentence.</summary>
    public static byte[] Do(int handle, Change? change, double now)
    {
        if (change is null) return [];
        var document = Open[handle];
        var operation = Replica.Make(change, (long)now);
        if (OperationRules.Check(operation, document.Kind, Role.Writer, Replica.Author, long.MaxValue - OperationRules.MostAhead) is { } refusal)
            throw new InvalidOperationException(refusal.Sentence);
        document.Apply(operation);
        return OperationCodec.Encode(operation);
    }
}
