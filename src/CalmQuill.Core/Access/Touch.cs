namespace CalmQuill.Core.Access;

/// <summary>What whoever writes in a group may do to what is there already. The numbers are part of the stored form. Owners may do everything.</summary>
public enum Touch : byte
{
    /// <summary>Change, move and remove everything, also what others wrote.</summary>
    Everything = 0,

    /// <summary>Only what they wrote themselves.</summary>
    Own = 1,

    /// <summary>Nothing: they add, and take their own back at most.</summary>
    Add = 2,
}
