using CalmQuill.Core.Access;
using CalmQuill.Core.Operations;
using CalmQuill.Store.Spaces;

namespace CalmQuill.Server.Access;

/// <summary>To whom the past of pages is closed.</summary>
internal static class ClosedPast
{
    /// <summary>Whether who was let in at a document sees it as it is alone. Of libraries and notebooks there is nothing written that could be seen.</summary>
    public static async Task<bool> SeesNoPast(this SpaceStore spaces, ReadableDocument readable, CancellationToken cancel) =>
        readable.Document.Kind is DocumentKind.Page && await spaces.SeesNoPast(readable.Document.Space, readable.Role, cancel);

    public static async Task<bool> SeesNoPast(this SpaceStore spaces, Guid space, Role role, CancellationToken cancel) =>
        !Rights.MaySeePast(role, isClosed: true) && await spaces.IsPastClosed(space, cancel);
}
