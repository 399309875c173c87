namespace CalmQuill.Core.Papers;

/// <summary>Whether a page grows as it is written on.</summary>
public enum Growth : byte
{
    None,

    /// <summary>At its foot only.</summary>
    Down,

    /// <summary>To all sides.</summary>
    All,
}
