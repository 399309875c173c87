using CalmQuill.Core.Access;

namespace CalmQuill.Store.Sharing;

/// <summary>A share as those see it who may take it back.</summary>
/// <param name="To">The name of the person or group; empty for a link.</param>
/// <param name="Guests">Who came by the link.</param>
public sealed record OpenShare(
    Guid Id,
    Guid Node,
    string Name,
    Guid? Page,
    ShareWith With,
    string To,
    byte[]? Secret,
    bool HasPassphrase,
    bool Writes,
    bool Copies,
    Guid MadeBy,
    string By,
    DateTimeOffset? Until,
    IReadOnlyList<string> Guests
);
