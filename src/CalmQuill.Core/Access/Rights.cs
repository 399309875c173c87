namespace CalmQuill.Core.Access;

/// <summary>What each role allows.</summary>
public static class Rights
{
    public static bool MayRead(Role role) => role >= Role.Reader;

    public static bool MayWrite(Role role) => role >= Role.Writer;

    public static bool MayManagePeople(Role role) => role >= Role.Owner;

    /// <summary>Locks are put on by who made a notebook and may still write there, or by an owner.</summary>
    public static bool MayLock(Role role, bool madeIt) => role >= Role.Owner || (madeIt && MayWrite(role));
}
