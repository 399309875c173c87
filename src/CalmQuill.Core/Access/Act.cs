namespace CalmQuill.Core.Access;

/// <summary>What somebody may want to do in a space. <see cref="Rights"/> says who may.</summary>
public enum Act : byte
{
    /// <summary>See all that is in it, and who is.</summary>
    Read,

    /// <summary>Say something to a mark, and take back what one said.</summary>
    Answer,

    /// <summary>Write, put in order, bin and have back.</summary>
    Write,

    /// <summary>Put a lock on a notebook of one's own.</summary>
    LockOwn,

    /// <summary>Lock and unlock any notebook.</summary>
    LockAny,

    /// <summary>Share a notebook that one made with somebody from outside, or take that back.</summary>
    ShareOwn,

    /// <summary>Share any folder or notebook, and see all that is shared.</summary>
    ShareAny,

    /// <summary>Open a lectern, from which the others are taught, and show its sheet to a room.</summary>
    Teach,

    /// <summary>Close a lectern that somebody else opened.</summary>
    CloseLectern,

    /// <summary>Say who has which role, let people in and take them out.</summary>
    ManagePeople,

    /// <summary>Name a group, and give it a colour.</summary>
    ChangeGroup,

    /// <summary>Leave a group. The last owner hands it over before, or dissolves it.</summary>
    LeaveGroup,

    /// <summary>Dissolve a group, or have it back.</summary>
    DissolveGroup,
}
