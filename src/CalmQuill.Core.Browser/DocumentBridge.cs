using System.Globalization;
using System.Runtime.InteropServices.JavaScript;
using CalmQuill.Core.Operations;

namespace CalmQuill.Core.Browser;

/// <summary>Exported to script: opening documents and passing operations in and out.</summary>
public static partial class DocumentBridge
{
    /// <summary>Starts the session under a random replica of 16 hexadecimal digits, for the person signed in.</summary>
    [JSExport]
    public static void Start(string replica, string author) =>
        Session.Start(ulong.Parse(replica, NumberStyles.HexNumber, CultureInfo.InvariantCulture), Guid.Parse(author));

    [JSExport]
    public static void CorrectClock(double serverNow, double deviceNow) => Session.Replica.CorrectClock((long)serverNow, (long)deviceNow);

    /// <summary>Opens an empty document of a kind (1 library, 2 notebook, 3 page) and returns its handle.</summary>
    [JSExport]
    public static int Open(int kind) =>
        Session.Add(
            (DocumentKind)kind switch
            {
                DocumentKind.Library => new OpenLibrary(),
                DocumentKind.Notebook => new OpenNotebook(),
                DocumentKind.Page => new OpenPage(),
                _ => throw new ArgumentOutOfRangeException(nameof(kind)),
            }
        );

    [JSExport]
    public static void Close(int handle) => Session.Remove(handle);

    /// <summary>Applies a batch and returns how many of its operations were new.</summary>
    [JSExport]
    public static int Apply(int handle, byte[] batch)
    {
        var document = Session.Document(handle);
        var applied = 0;
        foreach (var operation in OperationCodec.Decode(batch))
        {
            Session.Replica.Observe(operation.Time);
            if (document.Apply(operation))
                applied++;
        }

        return applied;
    }

    [JSExport]
    public static byte[] EncodeState(int handle) => Session.Document(handle).EncodeState();

    /// <summary>All operations of the document as one batch.</summary>
    [JSExport]
    public static byte[] Snapshot(int handle) => OperationCodec.Encode(Session.Document(handle).Operations());

    /// <summary>The same operations with fresh stamps; only for what nobody else has seen.</summary>
    [JSExport]
    public static byte[] Restamp(byte[] batch, double now) =>
        OperationCodec.Encode([.. OperationCodec.Decode(batch).Select(operation => Session.Replica.Restamp(operation, (long)now))]);

    /// <summary>Gives what waits to be sent a fresh number, after the server refused the number of one of it as another's.</summary>
    /// <param name="refused">A batch of the operation that was refused.</param>
    /// <param name="waiting">All that waits, as batches of one operation, each framed by its length in four bytes.</param>
    /// <param name="replica">The fresh number, 16 hexadecimal digits.</param>
    /// <returns>The same batches in the same order, renumbered.</returns>
    [JSExport]
    public static byte[] Renumber(byte[] refused, byte[] waiting, string replica)
    {
        var old = OperationCodec.Decode(refused)[0].Id.Replica;
        var fresh = ulong.Parse(replica, NumberStyles.HexNumber, CultureInfo.InvariantCulture);
        var operations = Session.Unframed(waiting).Select(batch => OperationCodec.Decode(batch)[0]).ToList();
        var renumbering = new Renumbering(operations.Select(operation => operation.Id).Where(id => id.Replica == old).ToHashSet(), fresh);
        RenewIf(old, fresh);
        return Session.Framed([.. operations.Select(operation => OperationCodec.Encode(renumbering.Of(operation)))]);
    }

    /// <summary>The number this application signs with.</summary>
    [JSExport]
    public static string Number() => Session.Replica.Id.ToString("x16", CultureInfo.InvariantCulture);

    /// <summary>Goes on under a fresh number when the one given is this application's.</summary>
    [JSExport]
    public static void Renew(string old, string fresh) =>
        RenewIf(
            ulong.Parse(old, NumberStyles.HexNumber, CultureInfo.InvariantCulture),
            ulong.Parse(fresh, NumberStyles.HexNumber, CultureInfo.InvariantCulture)
        );

    private static void RenewIf(ulong old, ulong fresh)
    {
        if (Session.Replica.Id == old)
            Session.Replica.Renumber(fresh);
    }
}
