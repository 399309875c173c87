using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
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

    /// <summary>A stroke looks no further back than this for a shaft, in items.</summary>
    private const int FarthestBack = 8;

    /// <summary>What a stroke comes out as on its page; null where it is no shape.</summary>
    /// <param name="stroke">The rough stroke.</param>
    /// <param name="page">The page, for shafts that wait for a head.</param>
    /// <param name="author">Whose shafts.</param>
    /// <param name="now">When the stroke ended, UTC milliseconds.</param>
    public static Result? Of(StrokeSamples stroke, PageDocument page, Guid author, long now) =>
        Arrow(stroke, Recent(page, author, now), 0)
        ?? (Recogniser.Recognise(stroke) is { } shape ? new Result(WithHand(shape, stroke), []) : null);

    /// <summary>The same when a pen rests at the end of a stroke: only what was meant as a shape, so that a word stays a word. A head that is drawn to a shaft was meant.</summary>
    /// <param name="stroke">The stroke.</param>
    /// <param name="page">The page.</param>
    /// <param name="author">Whose shafts.</param>
    /// <param name="now">When the stroke ended, UTC milliseconds.</param>
    /// <param name="least">How large what was meant as a shape is at least, 0.01 mm.</param>
    public static Result? AtRest(StrokeSamples stroke, PageDocument page, Guid author, long now, int least) =>
        Arrow(stroke, Recent(page, author, now), least)
        ?? (
            Recogniser.Recognise(stroke) is { } shape && Handwriting.Score(stroke, shape, least) < 0.5
                ? new Result(WithHand(shape, stroke), [])
                : null
        );

    /// <summary>An open curve stays as strong and as fine as the hand drew it; what closes, and what is straight, is drawn evenly.</summary>
    private static Shape WithHand(Shape shape, StrokeSamples stroke) =>
        shape.IsOpenCurve ? shape with { Pressure = PressureAlong.Of(stroke) } : shape;

    /// <summary>The same when the pen was lifted without a rest: only a head or a barb that was drawn to a shaft which is a shape already.</summary>
    public static Result? AtLift(StrokeSamples stroke, PageDocument page, Guid author, long now) =>
        Arrow(stroke, Recent(page, author, now), int.MaxValue);

    /// <summary>What a square or circle looks like when it is not made even: as its author drew it where the rough stroke is still known, else the same with sides that are free.</summary>
    /// <returns>A rectangle or ellipse; null for what is neither square nor circle.</returns>
    public static Shape? AsDrawn(PageDocument page, PageItem item)
    {
        if (item.Content is not ShapeContent { PlacedShape: { Kind: ShapeKind.Square or ShapeKind.Circle } shape })
            return null;
        var p = shape.Points;
        var loose =
            shape.Kind == ShapeKind.Square
                ? new Shape(ShapeKind.Rectangle, p)
                : new Shape(
                    ShapeKind.Ellipse,
                    [p[0], p[1], Corner.At(p[0].X - (p[1].Y - (double)p[0].Y), p[0].Y + (p[1].X - (double)p[0].X))]
                );
        return Rough(page, item) is { } rough && Recogniser.Recognise(rough, even: false) is { } drawn && drawn.Kind == loose.Kind
            ? drawn
            : loose;
    }

    /// <summary>The stroke that a shape took the place of: its author's, gone, and lying where the shape lies; the latest of them.</summary>
    private static StrokeSamples? Rough(PageDocument page, PageItem item)
    {
        var bounds = item.Bounds;
        for (var i = page.Items.Count - 1; i >= 0; i--)
        {
            var before = page.Items[i];
            if (
                before.Author != item.Author
                || before.Stands
                || before.Stamp > item.Stamp
                || !before.HasArrived
                || before.Content is not InkContent ink
            )
                continue;
            var box = before.Bounds;
            double wide = Math.Min(box.Right, bounds.Right) - Math.Max(box.Left, bounds.Left),
                high = Math.Min(box.Bottom, bounds.Bottom) - Math.Max(box.Top, bounds.Top),
                whole =
                    (Math.Max(box.Right, bounds.Right) - Math.Min(box.Left, bounds.Left))
                    * (Math.Max(box.Bottom, bounds.Bottom) - Math.Min(box.Top, bounds.Top));
            if (wide > 0 && high > 0 && wide * high > whole * 0.6)
                return ink.Samples;
        }

        return null;
    }

    private static List<PageItem> Recent(PageDocument page, Guid author, long now)
    {
        var recent = new List<PageItem>();
        for (var i = page.Items.Count - 1; i >= 0 && recent.Count < FarthestBack; i--)
        {
            var item = page.Items[i];
            if (item.Author == author && item.IsOpen && now - item.StartedAt <= HeadWithin)
                recent.Add(item);
        }

        return recent;
    }

    /// <summary>An arrow that a stroke makes of a shaft, being its head, or one barb of it where the other was drawn before.</summary>
    /// <param name="stroke">The stroke.</param>
    /// <param name="recent">What may be its shaft and its other barb, the newest first.</param>
    /// <param name="least">How long a shaft is at least that is ink and no shape; 0.01 mm.</param>
    private static Result? Arrow(StrokeSamples stroke, List<PageItem> recent, int least)
    {
        if (recent.Count == 0)
            return null;
        var gesture = Gesture.Of(stroke);
        var shafts = recent.Select(item => (Item: item, Shape: Shaft(item, least))).Where(one => one.Shape is not null).ToList();
        foreach (var (item, shaft) in shafts)
        {
            if (Arrows.WithHead(shaft!, gesture) is { } arrow && arrow != shaft)
                return new Result(arrow, [item.Id]);
        }

        if (!Recogniser.IsStraight(gesture))
            return null;
        foreach (var (item, shaft) in shafts)
        {
            foreach (var barb in recent)
            {
                if (
                    barb.Id != item.Id
                    && Straight(barb) is { } before
                    && Arrows.WithBarbs(shaft!, before, (gesture.P[0], gesture.P[^1])) is { } arrow
                )
                    return new Result(arrow, [item.Id, barb.Id]);
            }
        }

        return null;
    }

    /// <summary>What of a page may be a shaft: a line or an arrow, or ink that is as good as one.</summary>
    private static Shape? Shaft(PageItem item, int least)
    {
        if (item.Content is ShapeContent known)
            return known.Shape.Kind is ShapeKind.Line or ShapeKind.Arrow ? known.PlacedShape : null;
        var bounds = item.Bounds;
        if (
            Math.Max(bounds.Right - bounds.Left, bounds.Bottom - bounds.Top) < least
            || item.Content is not InkContent { IsWhole: true } ink
        )
            return null;
        return Recogniser.Recognise(ink.Samples) is { Kind: ShapeKind.Line or ShapeKind.Arrow } shape ? shape : null;
    }

    /// <summary>The two ends of a straight line or stroke; null where it is none.</summary>
    private static ((double X, double Y) A, (double X, double Y) B)? Straight(PageItem item)
    {
        if (item.Content is ShapeContent known)
            return known.PlacedShape is { Kind: ShapeKind.Line } line
                ? ((line.Points[0].X, line.Points[0].Y), (line.Points[1].X, line.Points[1].Y))
                : null;
        if (item.Content is not InkContent { IsWhole: true, Samples.Count: > 1 } ink)
            return null;
        var gesture = Gesture.Of(ink.Samples);
        return Recogniser.IsStraight(gesture) ? (gesture.P[0], gesture.P[^1]) : null;
    }
}
