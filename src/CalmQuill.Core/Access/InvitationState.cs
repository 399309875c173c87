namespace CalmQuill.Core.Access;

/// <summary>Whether an invitation still lets anybody in.</summary>
public enum InvitationState : byte
{
    Open,

    /// <summary>Its last day is over.</summary>
    Over,

    /// <summary>As many came by it as it was for.</summary>
    UsedUp,
}
