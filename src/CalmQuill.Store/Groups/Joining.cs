namespace CalmQuill.Store.Groups;

/// <summary>What came of an invitation.</summary>
public enum Joining : byte
{
    /// <summary>There is no such invitation, or not any more.</summary>
    NotThere,
    Joined,

    /// <summary>Somebody in the group already stays what they were.</summary>
    WasIn,

    /// <summary>An owner is asked.</summary>
    Asked,
    Over,
    UsedUp,

    /// <summary>The group has as many members as a group may have.</summary>
    Full,
}
