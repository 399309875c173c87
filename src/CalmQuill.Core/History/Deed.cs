namespace CalmQuill.Core.History;

/// <summary>What somebody did, as history tells of it. The numbers are part of the stored form and are never used again.</summary>
public enum Deed : byte
{
    /// <summary>Wrote strokes.</summary>
    Wrote = 1,

    /// <summary>Put a shape, a mark, a link, a heading there, or a page, section, notebook or folder; or had it again.</summary>
    Added = 2,

    /// <summary>Moved things, or changed how they look or what is said of them.</summary>
    Moved = 3,

    /// <summary>Removed or rubbed out, took back, or put into the bin.</summary>
    Removed = 4,

    /// <summary>Answered a mark.</summary>
    Said = 5,

    /// <summary>Typed letters.</summary>
    Typed = 6,
}
