using CalmQuill.Core.Access;

namespace CalmQuill.Store.Sharing;

/// <summary>What a link or an address leads to.</summary>
/// <param name="Passphrase">The hash of what is asked for; null for nothing.</param>
/// <param name="IsFolder">Whether it is a folder, else a notebook.</param>
public sealed record FoundShare(
    Guid Id,
    Guid Space,
    Guid Node,
    string Name,
    Guid? Page,
    ShareWith With,
    string? Passphrase,
    bool Writes,
    bool Copies,
    string By,
    bool IsFolder
);
