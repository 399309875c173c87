using System.Security.Claims;
using CalmQuill.Core.Access;
using CalmQuill.Server.People;
using CalmQuill.Store.Documents;
using CalmQuill.Store.Locks;
using CalmQuill.Store.Spaces;

namespace CalmQuill.Server;

/// <summary>Who may enter what: every endpoint and hub call asks here.</summary>
public sealed class Gate(SpaceStore spaces, DocumentStore documents, LockStore locks)
{
    public Task<Role> RoleIn(Guid space, ClaimsPrincipal user, CancellationToken cancel) => spaces.RoleIn(space, user.Id(), cancel);

    /// <summary>Whether the person may read a document as one of a space; one that has not been written in yet is empty, and belongs to whoever asks first.</summary>
    public async Task<bool> MayReadIn(Guid space, Guid document, ClaimsPrincipal user, CancellationToken cancel) =>
        Rights.MayRead(await RoleIn(space, user, cancel)) && await LiesIn(space, document, cancel);

    /// <summary>Whether a document is one of a space, or may still become one. The id of another space is kept for its library.</summary>
    public async Task<bool> LiesIn(Guid space, Guid document, CancellationToken cancel) =>
        await documents.Find(document, cancel) is { } found ? found.Space == space : document == space || !await spaces.Exists(document, cancel);

    /// <summary>The document when the person may read it; null when there is none or it is not theirs to see.</summary>
    public async Task<DocumentRef?> Readable(Guid document, ClaimsPrincipal user, CancellationToken cancel)
    {
        var found = await documents.Find(document, cancel);
        return found is not null && Rights.MayRead(await RoleIn(found.Space, user, cancel)) ? found : null;
    }

    /// <summary>Whether a document is, or lies in, a notebook whose lock is shut on the device that asks.</summary>
    public async Task<bool> IsShut(Guid document, ClaimsPrincipal user, CancellationToken cancel) => await locks.ShutAround(document, user.Device(), cancel) is not null;

    /// <summary>The notebooks whose inside the device that asks may not see.</summary>
    public Task<List<Guid>> Shut(Guid? space, ClaimsPrincipal user, CancellationToken cancel) => locks.ShutOn(user.Device(), space, cancel);
}
