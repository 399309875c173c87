using System.Globalization;
using System.Runtime.InteropServices.JavaScript;
using CalmQuill.Core.Changing;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;

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

    /// <summary>Between the call with true and that with false nothing counts: what is made is signed by nobody, and the session's own numbers and clock stay as they are.</summary>
    [JSExport]
    public static void Rehearse(bool on) => Session.Rehearse(on);

    /// <summary>Opens an empty document of a kind (see <see cref="DocumentKind"/>) and returns its handle.</summary>
    [JSExport]
    public static int Open(int kind) =>
        Session.Add(
            (DocumentKind)kind switch
            {
                DocumentKind.Library => new OpenLibrary(),
                DocumentKind.Notebook => new OpenNotebook(),
                DocumentKind.Page or DocumentKind.Aside => new OpenPage((DocumentKind)kind),
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

    /// <summary>The operation of a batch with a fresh stamp, when the server refused its own as ahead of its clock; empty for one that it may have taken.</summary>
    [JSExport]
    public static byte[] RestampAhead(byte[] batch, double serverNow, double now)
    {
        var operation = OperationCodec.Decode(batch)[0];
        return operation.Time.UnixMilliseconds <= serverNow + OperationRules.MostAhead
            ? []
            : OperationCodec.Encode(Session.Replica.Restamp(operation, (long)now));
    }

    /// <summary>Gives operations a fresh number, after the server refused theirs as another's.</summary>
    /// <param name="refused">Those that were refused: batches of one operation, each framed by its length in four bytes.</param>
    /// <param name="waiting">All of their document that wait, those among them, framed too.</param>
    /// <param name="replica">The fresh number, 16 hexadecimal digits.</param>
    /// <returns>All that wait in the same order: those refused renumbered, the others naming them as they are called now.</returns>
    [JSExport]
    public static byte[] Renumber(byte[] refused, byte[] waiting, string replica)
    {
        var which = Session.Unframed(refused).Select(batch => OperationCodec.Decode(batch)[0].Id).ToHashSet();
        var fresh = Number(replica);
        var renumbering = new Renumbering(which, fresh);
        foreach (var old in which.Select(id => id.Replica).Distinct())
            RenewIf(old, fresh);
        return Session.Framed([
            .. Session.Unframed(waiting).Select(batch => OperationCodec.Encode(renumbering.Of(OperationCodec.Decode(batch)[0]))),
        ]);
    }

    /// <summary>When the latest operation of a batch was made, UTC milliseconds since 1970; 0 for a batch that cannot be read.</summary>
    [JSExport]
    public static double WrittenAt(byte[] batch) => Readable(batch).Max(operation => operation?.Time.UnixMilliseconds ?? 0);

    /// <summary>The number that a batch's first operation is signed with, 16 hexadecimal digits.</summary>
    [JSExport]
    public static string NumberOf(byte[] batch) => OperationCodec.Decode(batch)[0].Id.Replica.ToString("x16", CultureInfo.InvariantCulture);

    /// <summary>The ids of operations that can be taken back, for <see cref="PageBridge.Switch"/>.</summary>
    /// <param name="batches">Batches, each framed by its length in four bytes.</param>
    [JSExport]
    public static string[] IdsOf(byte[] batches) =>
        [
            .. Session
                .Unframed(batches)
                .SelectMany(batch => OperationCodec.Decode(batch))
                .Where(operation => operation.Change.IsStep)
                .Select(operation => operation.Id.ToString()),
        ];

    /// <summary>What operations are, for a person: words with their counts, as JSON. What cannot be read is a word of its own.</summary>
    /// <param name="batches">Batches, each framed by its length in four bytes.</param>
    [JSExport]
    public static string About(byte[] batches) =>
        Json.List(
            Session.Unframed(batches).SelectMany(Readable).Select(operation => WordFor(operation?.Change)).CountBy(word => word),
            (json, counted) =>
            {
                json.WriteStartObject();
                json.WriteString("word", counted.Key);
                json.WriteNumber("count", counted.Value);
                json.WriteEndObject();
            }
        );

    /// <summary>The ink among operations on a page as a piece that can be laid down; empty when there is none.</summary>
    /// <param name="batches">Batches, each framed by its length in four bytes.</param>
    [JSExport]
    public static byte[] PieceOf(byte[] batches)
    {
        var page = new PageDocument();
        foreach (var operation in Session.Unframed(batches).SelectMany(Readable).OfType<Operation>())
            page.Apply(operation);
        var ink = page.Items.Where(item => item.Shown).Select(item => item.Id).ToHashSet();
        return ink.Count > 0 ? Cutting.Of(page, ink) : [];
    }

    /// <summary>The operations of a batch; one null for a batch that cannot be read.</summary>
    private static IReadOnlyList<Operation?> Readable(byte[] batch)
    {
        try
        {
            return OperationCodec.Decode(batch);
        }
        catch (OperationFormatException)
        {
            return [null];
        }
    }

    private static string WordFor(Change? change) =>
        change switch
        {
            Change.ItemAdded added => added.Word,
            Change.SpotAdded or Change.SpotSet => "mark or link",
            Change.AnswerAdded => "answer",
            Change.NodePlaced or Change.PageAdded => "thing put in its place",
            Change.PropertySet { Property: Property.Name } => "name",
            Change.TagSet => "tag",
            Change.LayerSet => "layer",
            null => "thing that cannot be read",
            _ => "change",
        };

    /// <summary>The number this application signs with.</summary>
    [JSExport]
    public static string Number() => Session.Replica.Id.ToString("x16", CultureInfo.InvariantCulture);

    /// <summary>Goes on under a fresh number when the one given is this application's.</summary>
    [JSExport]
    public static void Renew(string old, string fresh) => RenewIf(Number(old), Number(fresh));

    private static ulong Number(string replica) => ulong.Parse(replica, NumberStyles.HexNumber, CultureInfo.InvariantCulture);

    private static void RenewIf(ulong old, ulong fresh)
    {
        if (Session.Replica.Id == old)
            Session.Replica.Renumber(fresh);
    }
}
