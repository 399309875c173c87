using CalmQuill.Core.Access;
using CalmQuill.Core.Operations;
using CalmQuill.Store.Documents;

namespace CalmQuill.Server.Access;

/// <summary>A space that the one who asks may read. Only <see cref="Gate"/> makes these values, so a handler that takes one has been asked for nothing else.</summary>
public sealed record ReadableSpace(Guid Id, Role Role, Visitor Visitor) : Entrance<ReadableSpace>, IEntrance<ReadableSpace>
{
    public static Task<Entry<ReadableSpace>> Enter(Gate gate, RouteIds ids, Visitor visitor, CancellationToken cancel) =>
        gate.ReadableSpace(ids.Space, visitor, cancel);
}

/// <summary>A space in which the one who asks may write.</summary>
public sealed record WritableSpace(Guid Id, Role Role, Visitor Visitor) : Entrance<WritableSpace>, IEntrance<WritableSpace>
{
    public static Task<Entry<WritableSpace>> Enter(Gate gate, RouteIds ids, Visitor visitor, CancellationToken cancel) =>
        gate.WritableSpace(ids.Space, visitor, cancel);
}

/// <summary>A group that the one who asks looks after.</summary>
public sealed record OwnedGroup(Guid Id, Visitor Visitor) : Entrance<OwnedGroup>, IEntrance<OwnedGroup>
{
    public static Task<Entry<OwnedGroup>> Enter(Gate gate, RouteIds ids, Visitor visitor, CancellationToken cancel) =>
        gate.OwnedGroup(ids.Space, visitor, cancel);
}

/// <summary>A group that the one who asks is in.</summary>
public sealed record JoinedGroup(Guid Id, Visitor Visitor) : Entrance<JoinedGroup>, IEntrance<JoinedGroup>
{
    public static Task<Entry<JoinedGroup>> Enter(Gate gate, RouteIds ids, Visitor visitor, CancellationToken cancel) =>
        gate.JoinedGroup(ids.Space, visitor, cancel);
}

/// <summary>A page of a space that the one who asks may see: no lock is shut around it.</summary>
/// <param name="Space">The space.</param>
/// <param name="Id">The page.</param>
/// <param name="Role">What they are there.</param>
/// <param name="IsLocked">Whether its notebook has a lock, which is open for this sign-in.</param>
/// <param name="Visitor">Who asks.</param>
public sealed record ReadablePage(Guid Space, Guid Id, Role Role, bool IsLocked, Visitor Visitor)
    : Entrance<ReadablePage>,
        IEntrance<ReadablePage>
{
    public static Task<Entry<ReadablePage>> Enter(Gate gate, RouteIds ids, Visitor visitor, CancellationToken cancel) =>
        gate.ReadablePage(ids.Space, ids.Page, visitor, cancel);
}

/// <summary>A notebook of a space whose inside the one who asks may see.</summary>
/// <param name="Space">The space.</param>
/// <param name="Id">The notebook.</param>
/// <param name="Role">What they are there.</param>
/// <param name="IsGuest">Whether it was shared with them: then they see its own pages, and none that are at home elsewhere.</param>
/// <param name="Visitor">Who asks.</param>
public sealed record ReadableNotebook(Guid Space, Guid Id, Role Role, bool IsGuest, Visitor Visitor)
    : Entrance<ReadableNotebook>,
        IEntrance<ReadableNotebook>
{
    public static Task<Entry<ReadableNotebook>> Enter(Gate gate, RouteIds ids, Visitor visitor, CancellationToken cancel) =>
        gate.ReadableNotebook(ids.Space, ids.Notebook, visitor, cancel);
}

/// <summary>A notebook with a lock, open or shut, in a space that the one who asks may read.</summary>
public sealed record LockedNotebook(Store.Locks.NotebookLock Lock, Role Role, Visitor Visitor)
    : Entrance<LockedNotebook>,
        IEntrance<LockedNotebook>
{
    public static Task<Entry<LockedNotebook>> Enter(Gate gate, RouteIds ids, Visitor visitor, CancellationToken cancel) =>
        gate.LockedNotebook(ids.Space, ids.Notebook, visitor, cancel);
}

/// <summary>A notebook that the one who asks may put a lock on: their own, or one of a group they look after.</summary>
public sealed record OwnedNotebook(Guid Space, Guid Id, Visitor Visitor) : Entrance<OwnedNotebook>, IEntrance<OwnedNotebook>
{
    public static Task<Entry<OwnedNotebook>> Enter(Gate gate, RouteIds ids, Visitor visitor, CancellationToken cancel) =>
        gate.OwnedNotebook(ids.Space, ids.Notebook, visitor, cancel);
}

/// <summary>A file that the one who asks may see.</summary>
public sealed record ReadableAsset(Guid Space, Guid Id) : Entrance<ReadableAsset>, IEntrance<ReadableAsset>
{
    public static Task<Entry<ReadableAsset>> Enter(Gate gate, RouteIds ids, Visitor visitor, CancellationToken cancel) =>
        gate.ReadableAsset(ids.Space, ids.Asset, visitor, cancel);
}

/// <summary>A document whose operations the one who asks may read.</summary>
public sealed record ReadableDocument(DocumentRef Document, Role Role, bool IsGuest, Visitor Visitor)
    : Entrance<ReadableDocument>,
        IEntrance<ReadableDocument>
{
    public static async Task<Entry<ReadableDocument>> Enter(Gate gate, RouteIds ids, Visitor visitor, CancellationToken cancel) =>
        ids.Document is { } document
            ? await gate.ReadableDocument(document, visitor, cancel)
            : await DocumentDoor.Refuse(gate, ids, visitor, cancel);
}

/// <summary>A document into which the one who asks may write, also while a lock is shut around it: writing reveals nothing, and what a device wrote before must not be lost.</summary>
public sealed record WritableDocument(DocumentRef Document, Role Role, bool IsGuest, Visitor Visitor)
    : Entrance<WritableDocument>,
        IEntrance<WritableDocument>
{
    public static async Task<Entry<WritableDocument>> Enter(Gate gate, RouteIds ids, Visitor visitor, CancellationToken cancel) =>
        ids.Document is { } document
            ? await gate.WritableDocument(document, visitor, cancel)
            : await DocumentDoor.Refuse(gate, ids, visitor, cancel);
}

/// <summary>The ids that an address names.</summary>
/// <param name="Values">The route's values.</param>
public readonly record struct RouteIds(RouteValueDictionary Values)
{
    public Guid Space => Id("space");

    public Guid Page => Id("page");

    public Guid Notebook => Id("notebook");

    public Guid Asset => Id("asset");

    /// <summary>Null where the address names no document: a kind that there is not, no id, or a library under another id than its space's.</summary>
    public DocumentRef? Document =>
        DocumentDoor.Kind(Values["kind"] as string) is { } kind
        && Id("id") is var id
        && id != Guid.Empty
        && (kind != DocumentKind.Library || id == Space)
            ? new DocumentRef(Space, kind, id)
            : null;

    private Guid Id(string name) => Guid.TryParse(Values[name] as string, out var id) ? id : Guid.Empty;
}

internal static class DocumentDoor
{
    private static readonly Denial NoDocument = new(
        StatusCodes.Status400BadRequest,
        "bad-input",
        $"A document is a library, a notebook, a page or an aside, under an id of its own; a space has one library, under the space's own id."
    );

    public static DocumentKind? Kind(string? name) =>
        name switch
        {
            "library" => DocumentKind.Library,
            "notebook" => DocumentKind.Notebook,
            "page" => DocumentKind.Page,
            "aside" => DocumentKind.Aside,
            _ => null,
        };

    /// <summary>Strangers learn nothing, not even what is well formed.</summary>
    public static async Task<Denial> Refuse(Gate gate, RouteIds ids, Visitor visitor, CancellationToken cancel) =>
        (await gate.ReadableSpace(ids.Space, visitor, cancel)).Denied ?? NoDocument;
}
