using CalmQuill.Server.People;
using System.Security.Claims;
using CalmQuill.Core.Access;
using CalmQuill.Store.Documents;
using CalmQuill.Store.Spaces;

namespace CalmQuill.Server;

/// <summary>Who may enter what: every endpoint and hub call asks here.</summary>
public sealed class Gate(SpaceStore spaces, DocumentStore documents)
{
    public Task<Role> RoleIn(Guid space, ClaimsPrincipal user, CancellationToken cancel) => spaces.RoleIn(space, user.Id(), cancel);

    /// <summary>The document when the person may read it; null when there is none or it is not theirs to see.</summary>
    public async Task<DocumentRef?> Readable(Guid document, ClaimsPrincipal user, CancellationToken cancel)
    {
        var found = await documents.Find(document, cancel);
        return found is not null && Rights.MayRead(await RoleIn(found.Space, user, cancel)) ? found : null;
    }
}
