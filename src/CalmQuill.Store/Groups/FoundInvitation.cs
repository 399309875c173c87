using CalmQuill.Core.Access;

namespace CalmQuill.Store.Groups;

/// <summary>What stands at the door of somebody who was given an invitation: into which group, by whom.</summary>
public sealed record FoundInvitation(
    Guid Id,
    Guid Space,
    string Group,
    string Colour,
    string By,
    Role Role,
    bool Asks,
    InvitationState State,
    bool IsIn
);
