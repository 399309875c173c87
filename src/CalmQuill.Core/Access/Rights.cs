namespace CalmQuill.Core.Access;

/// <summary>What each role allows.</summary>
public static class Rights
{
    public static bool MayRead(Role role) => role >= Role.Reader;

    public static bool MayWrite(Role role) => role >= Role.Writer;

    public static bool MayManagePeople(Role role) => role >= Role.Owner;
}
