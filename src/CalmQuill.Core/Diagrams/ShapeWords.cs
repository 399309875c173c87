using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Shapes;
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

    /// <summary>A shape made as high as its words need, about its middle; null where they have room.</summary>
    public static (Change Change, Box Box)? Fit(PageDocument page, PageItem item)
    {
        if (
            item.Content is not ShapeContent { PlacedShape: { Kind: ShapeKind.Rectangle or ShapeKind.Ellipse } shape } content
            || Diagram.WordsIn(page, item.Id) is not { Content: TextContent words }
            || LabelRoom.Of(content) is not { Angle: 0 } room
            || words.Height <= room.Height
        )
            return null;
        var grown = words.Height / room.Height;
        var taller = shape.Map((x, y) => (x, room.Y + (y - room.Y) * grown));
        var box = item.Bounds;
        var more = (int)Math.Ceiling((box.Bottom - box.Top) * (grown - 1) / 2);
        return (
            new Change.ItemsSet([item.Id], [new ItemValue(ItemField.Shape, taller.Map(item.Unplace).ToText())]),
            box with
            {
                Top = box.Top - more,
                Bottom = box.Bottom + more,
            }
        );
    }
}
