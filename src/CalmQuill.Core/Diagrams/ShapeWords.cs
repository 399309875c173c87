using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Writing;

namespace CalmQuill.Core.Diagrams;

/// <summary>Words that stand centred in a closed shape.</summary>
public static class ShapeWords
{
    private const string Centre = "centre";

    /// <summary>An empty text for the words in a shape. Where it lies of itself is where the shape has it, so that it stays there should the shape be removed.</summary>
    /// <param name="shape">The shape.</param>
    /// <param name="room">The room in it.</param>
    /// <param name="values">How it looks, as far as that is other than usual.</param>
    /// <param name="layer">The layer it is laid on.</param>
    /// <param name="formats">What is said of its first paragraph.</param>
    public static Change.TextAdded In(
        OpId shape,
        LabelRoom room,
        IReadOnlyList<ItemValue> values,
        Guid layer,
        IReadOnlyList<PassageFormat>? formats = null
    )
    {
        PassageFormat[] centred =
        [
            .. (formats ?? []).Where(format => format.Trait != Trait.Align),
            new PassageFormat(0, 1, Trait.Align, Centre),
        ];
        return new Change.TextAdded(
            Transform.Near(room.Lay(0, 0)),
            (int)Math.Round(room.Width),
            0,
            new Passage("", centred),
            [.. values, new ItemValue(ItemField.Holder, shape.ToString())]
        )
        {
            Layer = layer,
        };
    }
}
