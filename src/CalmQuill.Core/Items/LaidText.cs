using CalmQuill.Core.Ink;
using CalmQuill.Core.Typesetting;

namespace CalmQuill.Core.Items;

/// <summary>Letters of a thing that are set together, and where they lie.</summary>
/// <param name="Set">The letters, from the beginning of their first line.</param>
/// <param name="Place">Where that lies on the page.</param>
/// <param name="Colour">The colour of letters that have none of their own, 0xRRGGBBAA.</param>
public sealed record LaidText(SetText Set, Affine Place, uint Colour)
{
    /// <summary>Whether another is painted just so: of letters that were set anew it is not asked whether they are the same.</summary>
    public bool IsPaintedAs(LaidText other) =>
        ReferenceEquals(this, other) || (ReferenceEquals(Set, other.Set) && Place == other.Place && Colour == other.Colour);
}
