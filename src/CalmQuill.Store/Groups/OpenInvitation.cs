using CalmQuill.Core.Access;

namespace CalmQuill.Store.Groups;

/// <summary>An open invitation, as the owners of its group see it.</summary>
/// <param name="Id">What it is taken back by.</param>
/// <param name="Secret">Of a link: the secret, enciphered.</param>
/// <param name="For">Of one to a person: their name.</param>
/// <param name="Email">Where the link was sent; empty for nowhere.</param>
/// <param name="Letter">How the letter that carries it goes; null where none was written.</param>
/// <param name="Role">What whoever comes in will be.</param>
/// <param name="Asks">Whether an owner answers first.</param>
/// <param name="Until">When its time is over.</param>
/// <param name="MostUses">How many it lets in.</param>
/// <param name="Uses">How many came by it.</param>
public sealed record OpenInvitation(
    Guid Id,
    byte[]? Secret,
    string? For,
    string Email,
    LetterState? Letter,
    Role Role,
    bool Asks,
    DateTimeOffset Until,
    int MostUses,
    int Uses
);
