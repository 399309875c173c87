using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Typesetting;

namespace CalmQuill.Core.Items;

/// <summary>What covers the page in a box of its own and has words under it: a picture, a plot. Its own measures run from its upper left corner.</summary>
public abstract class CaptionedContent(IItemFrame frame, Change.WrittenAdded added) : WrittenContent(frame, added, Ink)
{
    /// <summary>The words under it keep so far from it, 0.01 mm.</summary>
    private const int Gap = 120;

    public override int Rank => 0;

    public override bool Covers => true;

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
            var (left, top, right, bottom) = Box;
            var place = Place;
            return base.Bounds.With(
                Core.Ink.Box.Around([place.Of(left, top), place.Of(right, top), place.Of(right, bottom), place.Of(left, bottom)])
            );
        }
    }

    /// <summary>The box around what is seen of it, its own measures.</summary>
    protected abstract Box Shows { get; }

    protected override (double X, double Y) Beginning => (Shows.Left, Shows.Bottom + Gap + Set.Ascent / (double)Lengths.PerUnit);

    /// <summary>On the words under it; where there are none it is only looked at.</summary>
    public override bool IsTypedAt(double x, double y, double reach)
    {
        var (bx, by) = Place.Back(x, y);
        var box = Box.Grow((int)reach);
        return ShowsLetters && bx >= box.Left && bx <= box.Right && by >= box.Top && by <= box.Bottom;
    }

    /// <summary>No eraser takes it: who rubs out what is written on it means that alone.</summary>
    public override bool Rub(in EraserWay way, bool whole, List<Interval> gone) => false;
}
