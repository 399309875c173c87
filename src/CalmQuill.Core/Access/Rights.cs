namespace CalmQuill.Core.Access;

/// <summary>What each role allows: the one table that server, devices and screens go by.</summary>
public static class Rights
{
    /// <summary>The least role that an act asks for.</summary>
    private static readonly IReadOnlyDictionary<Act, Role> Least = new Dictionary<Act, Role>
    {
        [Act.Read] = Role.Reader,
        [Act.Answer] = Role.Reader,
        [Act.Write] = Role.Writer,
        [Act.LockOwn] = Role.Writer,
        [Act.LockAny] = Role.Owner,
        [Act.ShareOwn] = Role.Writer,
        [Act.ShareAny] = Role.Owner,
        [Act.Teach] = Role.Writer,
        [Act.CloseLectern] = Role.Owner,
        [Act.ManagePeople] = Role.Owner,
        [Act.ChangeGroup] = Role.Owner,
        [Act.LeaveGroup] = Role.Reader,
        [Act.DissolveGroup] = Role.Owner,
    };

    /// <summary>What is done to a group and cannot be done to a library of one's own.</summary>
    private static readonly IReadOnlySet<Act> OfGroups = new HashSet<Act>
    {
        Act.ManagePeople,
        Act.ChangeGroup,
        Act.LeaveGroup,
        Act.DissolveGroup,
    };

    public static bool May(Role role, Act act) => role >= Least[act];

    /// <summary>The same in one's own library, where there is nobody else.</summary>
    public static bool MayInOwn(Role role, Act act) => May(role, act) && !OfGroups.Contains(act);

    /// <summary>What a guest may: read what was shared and say something to its marks, and write on its pages where the share says so. Nothing of the library it lies in.</summary>
    public static bool MayAsGuest(Role role, Act act) => act is Act.Read or Act.Answer or Act.Write && May(role, act);

    public static bool MayRead(Role role) => May(role, Act.Read);

    public static bool MayWrite(Role role) => May(role, Act.Write);

    /// <summary>Who only reads sees pages as they were unless the group closed that to readers; who writes always does.</summary>
    public static bool MaySeePast(Role role, bool isClosed) => isClosed ? MayWrite(role) : MayRead(role);

    /// <summary>Locks are put on by who made a notebook and may still write there, or by an owner.</summary>
    public static bool MayLock(Role role, bool madeIt) => May(role, Act.LockAny) || (madeIt && May(role, Act.LockOwn));

    /// <summary>A notebook is shared by who made it and may still write there, or by an owner; a folder, in which others' notebooks may lie, by an owner alone.</summary>
    public static bool MayShare(Role role, bool madeIt, bool isFolder) =>
        May(role, Act.ShareAny) || (madeIt && !isFolder && May(role, Act.ShareOwn));
}
