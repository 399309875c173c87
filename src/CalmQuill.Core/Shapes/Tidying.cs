using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;

namespace CalmQuill.Core.Shapes;

/// <summary>Tidy: a rough stroke comes out true, and a head drawn to a shaft makes it an arrow.</summary>
public static class Tidying
{
    /// <summary>Only what was drawn this shortly before takes a head, milliseconds.</summary>
    private const long HeadWithin = 6_000;

    /// <summary>The shape and what it takes the place of.</summary>
    public readonly record struct Result(Shape Shape, IReadOnlyList<OpId> Replaces);

    /// <summary>What a stroke comes out as on its page; null where it is no shape.</summary>
    /// <param name="stroke">The rough stroke.</param>
    /// <param name="page">The page, for shafts that wait for a head.</param>
    /// <param name="author">Whose shafts.</param>
    /// <param name="now">When the stroke ended, UTC milliseconds.</param>
    public static Result? Of(StrokeSamples stroke, PageDocument page, Guid author, long now)
    {
        for (var i = page.Items.Count - 1; i >= 0; i--)
        {
            var item = page.Items[i];
            if (
                item.Author != author
                || !item.IsOpen
                || item.Shape is not { Kind: ShapeKind.Line or ShapeKind.Arrow }
                || now - item.StartedAt > HeadWithin
            )
                continue;
            if (WithHead(item.PlacedShape!, stroke) is { } arrow && arrow != item.PlacedShape)
                return new Result(arrow, [item.Id]);
        }

        return Recogniser.Recognise(stroke) is { } shape ? new Result(shape, []) : null;
    }

    /// <summary>An arrow from a shaft and a head drawn to it; null where they do not belong together.</summary>
    public static Shape? WithHead(Shape shaft, StrokeSamples head) => Arrows.WithHead(shaft, Gesture.Of(head));
}
