using System.Runtime.InteropServices.JavaScript;
using CalmQuill.Core.Access;

namespace CalmQuill.Core.Browser;

/// <summary>Exported to script: who may do what.</summary>
public static partial class AccessBridge
{
    /// <summary>Whether a role allows an act, in a group or in a library of one's own.</summary>
    /// <param name="role">Its name, in any case.</param>
    /// <param name="act">Its name.</param>
    /// <param name="own">Whether it is one's own library.</param>
    [JSExport]
    public static bool May(string role, string act, bool own) =>
        Enum.TryParse<Role>(role, true, out var known)
        && Enum.TryParse<Act>(act, out var wished)
        && (own ? Rights.MayInOwn(known, wished) : Rights.May(known, wished));

    /// <summary>Whether somebody may change or remove a thing where a group chose so.</summary>
    /// <param name="touch">What the group chose, in any case.</param>
    /// <param name="role">What they are in it, in any case.</param>
    /// <param name="isTheirs">Whether they made it.</param>
    [JSExport]
    public static bool MayTouch(string touch, string role, bool isTheirs) =>
        Enum.TryParse<Touch>(touch, true, out var chosen)
        && Enum.TryParse<Role>(role, true, out var known)
        && TouchRules.May(chosen, known, isTheirs);

    /// <summary>Whether somebody sees pages as they were.</summary>
    /// <param name="role">Their role, in any case.</param>
    /// <param name="isClosed">Whether that is closed to who only reads.</param>
    [JSExport]
    public static bool MaySeePast(string role, bool isClosed) =>
        Enum.TryParse<Role>(role, true, out var known) && Rights.MaySeePast(known, isClosed);

    /// <summary>Whether a guest may do something with what was shared with them.</summary>
    /// <param name="role">The role they were given, in any case.</param>
    /// <param name="act">Its name.</param>
    [JSExport]
    public static bool MayAsGuest(string role, string act) =>
        Enum.TryParse<Role>(role, true, out var known) && Enum.TryParse<Act>(act, out var wished) && Rights.MayAsGuest(known, wished);

    /// <summary>Whether somebody may share a folder or notebook with people from outside.</summary>
    /// <param name="role">Their role, in any case.</param>
    /// <param name="madeIt">Whether they made it.</param>
    /// <param name="isFolder">Whether it is a folder.</param>
    [JSExport]
    public static bool MayShare(string role, bool madeIt, bool isFolder) =>
        Enum.TryParse<Role>(role, true, out var known) && Rights.MayShare(known, madeIt, isFolder);
}
