using CalmQuill.Core.Access;

namespace CalmQuill.Store.Sharing;

/// <summary>A share as it is kept when it is made.</summary>
/// <param name="Space">The library.</param>
/// <param name="Node">The folder or notebook.</param>
/// <param name="Page">The one page that everybody may see; null for all of it.</param>
/// <param name="With">Whom it is for.</param>
/// <param name="To">The person, or the group; null for a link.</param>
/// <param name="Secret">What a link is found by, and the same enciphered; null for no link.</param>
/// <param name="Passphrase">Its hash; null for none.</param>
/// <param name="Writes">Whether guests write, too.</param>
/// <param name="Copies">Whether everybody may save a copy.</param>
/// <param name="By">Who makes it.</param>
/// <param name="Until">When it is over; null until it is taken back.</param>
public sealed record MadeShare(
    Guid Space,
    Guid Node,
    Guid? Page,
    ShareWith With,
    Guid? To,
    (string Plain, byte[] Enciphered)? Secret,
    string? Passphrase,
    bool Writes,
    bool Copies,
    Guid By,
    DateTimeOffset? Until
);
