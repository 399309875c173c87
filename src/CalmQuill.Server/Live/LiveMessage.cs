using CalmQuill.Store.Documents;

namespace CalmQuill.Server.Live;

/// <summary>Something passed on to whoever follows a document.</summary>
/// <param name="Document">The document.</param>
/// <param name="Method">What the devices receive it as.</param>
/// <param name="Arguments">What follows after the document's address.</param>
/// <param name="Size">About how many bytes it takes.</param>
/// <param name="But">A connection that is not told, since it was the one that sent it.</param>
public sealed record LiveMessage(DocumentRef Document, string Method, object[] Arguments, int Size, string? But = null)
{
    /// <summary>
    /// What somebody is told to whom a page's past is closed: of what was stored, that it was, with its last number. They ask for what stands.
    /// </summary>
    public LiveMessage WithoutPast() =>
        this is { Method: "stored", Arguments: [long first, int count, ..] }
            ? this with
            {
                Method = "later",
                Arguments = [first + count - 1],
                Size = 64,
            }
            : this;

    /// <summary>How a document is called on the live connection: its space, kind and id.</summary>
    public static string Address(DocumentRef document) => $"{document.Space}/{document.Kind.ToString().ToLowerInvariant()}/{document.Id}";

    /// <summary>Null where the text is no such address.</summary>
    public static DocumentRef? Read(string address)
    {
        var parts = address.Split('/');
        if (parts.Length != 3 || !Guid.TryParse(parts[0], out _) || !Guid.TryParse(parts[2], out _))
            return null;
        return new Access.RouteIds(
            new RouteValueDictionary
            {
                ["space"] = parts[0],
                ["kind"] = parts[1],
                ["id"] = parts[2],
            }
        ).Document;
    }
}
