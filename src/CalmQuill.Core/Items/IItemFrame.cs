using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Writing;

namespace CalmQuill.Core.Items;

/// <summary>The frame of an item, as its content sees it: what operations did to it.</summary>
public interface IItemFrame
{
    /// <summary>When its making began, UTC milliseconds since 1970.</summary>
    long StartedAt { get; }

    /// <summary>Where all that was done to it puts it; null while it lies where it was made.</summary>
    Placement? Placement { get; }

    /// <summary>Whether it was only moved, or not even that.</summary>
    bool IsOnlyShifted { get; }

    /// <summary>The sum of all shifts, 0.01 mm; 0 once it was scaled or turned.</summary>
    long Dx { get; }

    /// <inheritdoc cref="Dx"/>
    long Dy { get; }

    /// <summary>What was typed into it.</summary>
    TypedText Typed { get; }

    /// <summary>What was rubbed out of it.</summary>
    Gaps Gaps { get; }

    /// <summary>What lies in another frame of the page, of what this one leans on; null where it has not arrived.</summary>
    /// <param name="item">The other.</param>
    /// <param name="standing">Whether only while it was not removed.</param>
    ItemContent? Beside(OpId item, bool standing);

    /// <summary>What was written into a field last; empty for nothing.</summary>
    string Read(ItemField field);
}
