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

    /// <summary>The same when a pen rests at the end of a stroke: only what was meant as a shape, so that a word stays a word. A head that is drawn to a shaft was meant.</summary>
    /// <param name="stroke">The stroke.</param>
    /// <param name="page">The page.</param>
    /// <param name="author">Whose shafts.</param>
    /// <param name="now">When the stroke ended, UTC milliseconds.</param>
    /// <param name="least">How large what was meant as a shape is at least, 0.01 mm.</param>
    public static Result? AtRest(StrokeSamples stroke, PageDocument page, Guid author, long now, int least) =>
        Of(stroke, page, author, now) is { } result && (result.Replaces.Count > 0 || Handwriting.Score(stroke, result.Shape, least) < 0.5)
            ? result
            : null;

    /// <summary>An arrow from a shaft and a head drawn to it; null where they do not belong together.</summary>
    public static Shape? WithHead(Shape shaft, StrokeSamples head) => Arrows.WithHead(shaft, Gesture.Of(head));
}
