using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Typesetting;

namespace CalmQuill.Core.Items;

/// <summary>What lies in a box of its own and has words under it: a picture, a plot.</summary>
public abstract class CaptionedContent(IItemFrame frame, Change.ThingAdded added) : BoxedContent(frame, added, Ink)
{
    /// <summary>The words under it keep so far from it, 0.01 mm.</summary>
    private const int Gap = 120;

    public override int Measure => Math.Max(Shows.Right - Shows.Left, TextContent.LeastMeasure);

    public override int? MeasureFor(int lines) => null;

    public override Box Box => new(0, -Set.Ascent / Lengths.PerUnit, Measure, Set.Bottom / Lengths.PerUnit);

    /// <summary>With the words under it.</summary>
    public override Box Bounds
    {
        get
        {
            if (!ShowsLetters)
                return base.Bounds;
            var place = Place;
            return base.Bounds.With(Core.Ink.Box.Around(Box.Corners.Select(at => place.Of(at.X, at.Y))));
        }
    }

    protected override (double X, double Y) Beginning => (Shows.Left, Shows.Bottom + Gap + Set.Ascent / (double)Lengths.PerUnit);

    /// <summary>On the words under it; where there are none it is only looked at.</summary>
    public override bool IsTypedAt(double x, double y, double reach)
    {
        var (bx, by) = Place.Back(x, y);
        var box = Box.Grow((int)reach);
        return ShowsLetters && bx >= box.Left && bx <= box.Right && by >= box.Top && by <= box.Bottom;
    }
}
