using System.Runtime.InteropServices.JavaScript;
using CalmQuill.Core.Operations;

namespace CalmQuill.Core.Browser;

/// <summary>Exported to script: taking back what was done, in a document that need not be shown.</summary>
public static partial class UndoBridge
{
    /// <summary>From now on it is noted how each thing that is done can be taken back, or no longer.</summary>
    [JSExport]
    public static void TakeNote(bool on) => Session.IsTakingNote = on;

    /// <summary>How the last thing done can be taken back, to be given to <see cref="Back"/>; empty when there is nothing.</summary>
    [JSExport]
    public static byte[] Last() =>
        Session.Back is { Count: > 0 } changes
            ? OperationCodec.Encode([
                .. changes.Select((change, i) => new Operation(new OpId(1, (ulong)i + 1), default, Session.Replica.Author, change)),
            ])
            : [];

    /// <summary>Takes it back in its document, by changes made now.</summary>
    [JSExport]
    public static byte[] Back(int document, byte[] changes, double now) =>
        Session.PerformAll(document, [.. OperationCodec.Decode(changes).Select(operation => operation.Change)], now);
}
