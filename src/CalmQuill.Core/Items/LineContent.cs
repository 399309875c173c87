using System.Globalization;
using CalmQuill.Core.Art;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;

namespace CalmQuill.Core.Items;

/// <summary>A line drawn with a pen, perhaps round a region that is filled: what was written by hand, and shapes.</summary>
/// <param name="frame">The frame it lies in.</param>
/// <param name="madeWith">The pen it was made with.</param>
public abstract class LineContent(IItemFrame frame, Pen madeWith) : ItemContent(frame)
{
    private StrokeSamples? placed;
    private Box? madeBox,
        bounds;
    private List<Interval>? visible;
    private int? grain;

    /// <summary>The samples: as they were made while it was only shifted, else as they now lie. Shifts are in <see cref="IItemFrame.Dx"/> and <see cref="IItemFrame.Dy"/>.</summary>
    public StrokeSamples Samples => Frame.IsOnlyShifted ? Made : placed ??= MadePlaced;

    /// <summary>The pen, its width grown with the item.</summary>
    public Pen Pen { get; private set; }

    /// <summary>The level of the paper's grain that fills the line; see <see cref="PencilGrain.LevelOf(StrokeSamples, Pen)"/>.</summary>
    public int Grain => grain ??= PencilGrain.LevelOf(Samples, Pen);

    /// <summary>What it is filled with, 0xRRGGBBAA; 0 for nothing, and for all that does not close.</summary>
    public virtual uint Fill => 0;

    /// <summary>The colour that it is known by.</summary>
    public virtual uint Colour => Pen.Colour;

    public override int End => (Made.Count - 1) * Interval.PerSample;

    public override OutlineKey OutlineKey => new(Samples, Visible(), Pen with { Colour = 0 }, IsFilled);

    public override Box Bounds =>
        bounds ??= (
            Frame.IsOnlyShifted ? (madeBox ??= FlatLine.Bounds(Made)).Shift((int)Frame.Dx, (int)Frame.Dy) : FlatLine.Bounds(Samples)
        ).Grow((int)MathF.Ceiling(Pen.MostRadius));

    public override List<Interval> Visible() => visible ??= Frame.Gaps.Visible(Made.Count);

    /// <summary>The samples by which its state is told.</summary>
    protected virtual StrokeSamples Lies => Samples;

    /// <summary>The samples where all that was done to their place puts them, where that is more than shifts.</summary>
    protected virtual StrokeSamples MadePlaced => Frame.Placement!.Of(Made);

    /// <summary>The samples where it was made.</summary>
    protected abstract StrokeSamples Made { get; }

    /// <summary>Whether a line is seen, and not just a region.</summary>
    protected virtual bool HasLine => true;

    private bool IsFilled => (Fill & 0xFF) != 0;

    private Coat Line => new(Pen.Colour, Grain);

    public override int Coats => (IsFilled ? 1 : 0) + (HasLine ? 1 : 0);

    public override Coat Coat(int index) => index == 0 && IsFilled ? Items.Coat.Full(Fill) : Line;

    public override bool IsAt(double x, double y, double reach)
    {
        if (IsFilled && Holds(x, y))
            return true;
        if (!HasLine)
            return false;
        var touched = new List<Interval>();
        Eraser.Touch(Samples, Pen, x - Frame.Dx, y - Frame.Dy, reach, touched);
        var seen = Visible();
        return touched.Exists(one => seen.Exists(part => part.Start <= one.End && one.Start <= part.End));
    }

    /// <summary>Whether a spot lies within its line, taken as closed.</summary>
    public bool Holds(double x, double y)
    {
        var line = FlatLine.Of(Samples);
        var loop = new double[line.Count * 2];
        for (var i = 0; i < line.Count; i++)
            (loop[2 * i], loop[2 * i + 1]) = (line[i].X + Frame.Dx, line[i].Y + Frame.Dy);
        return Loop.Holds(loop, x, y);
    }

    /// <summary>The share of the visible length; exact but for rounding.</summary>
    public override double ShareInside(ReadOnlySpan<double> loop)
    {
        var samples = Samples;
        var (dx, dy) = (Frame.Dx, Frame.Dy);
        double inside = 0,
            whole = 0;
        var cuts = new List<double>();
        foreach (var interval in Visible())
        {
            var line = FlatLine.Of(samples, interval);
            if (line.Count == 1)
                return Loop.Holds(loop, line[0].X + dx, line[0].Y + dy) ? 1 : 0;
            for (var i = 0; i + 1 < line.Count; i++)
            {
                double ax = line[i].X + dx,
                    ay = line[i].Y + dy,
                    ux = line[i + 1].X + dx - ax,
                    uy = line[i + 1].Y + dy - ay;
                var length = Math.Sqrt(ux * ux + uy * uy);
                whole += length;
                Loop.Cut(loop, ax, ay, ux, uy, 0, 1, cuts);
                for (var c = 0; c + 1 < cuts.Count; c++)
                {
                    var middle = (cuts[c] + cuts[c + 1]) / 2;
                    if (Loop.Holds(loop, ax + ux * middle, ay + uy * middle))
                        inside += length * (cuts[c + 1] - cuts[c]);
                }
            }
        }

        if (whole > 0)
            return inside / whole;
        return Loop.Holds(loop, samples.X[0] + dx, samples.Y[0] + dy) ? 1 : 0;
    }

    public override bool Rub(in EraserWay way, bool whole, List<Interval> gone)
    {
        // A region without a line has nothing to be rubbed out: it goes as a whole, when the eraser goes for whole things.
        if (!HasLine)
            return whole && Holds(way.X, way.Y);
        var (samples, steps) = (Samples, way.Steps);
        for (var step = way.IsFirst ? 1 : 0; step <= steps; step++)
        {
            var t = step / (double)steps;
            var (x, y) = (way.FromX + (way.X - way.FromX) * t, way.FromY + (way.Y - way.FromY) * t);
            Eraser.Touch(samples, Pen, x - Frame.Dx, y - Frame.Dy, way.Radius, gone);
        }

        // What lies wholly in gaps that are there already: rubbing on bare paper does nothing.
        if (Frame.Gaps.Any)
        {
            var seen = Visible();
            gone.RemoveAll(interval => !seen.Exists(part => part.Start < interval.End && interval.Start < part.End));
        }

        return gone.Count > 0;
    }

    /// <summary>The region that is filled, then the line.</summary>
    public override void Paint(ItemPainter painter, List<Interval> parts, bool shifted)
    {
        var (samples, dx, dy) = (Samples, shifted ? Frame.Dx : 0, shifted ? Frame.Dy : 0);
        if (IsFilled)
        {
            var region = painter.Empty();
            foreach (var point in FlatLine.Of(samples))
                region.Add((float)point.X + dx, (float)point.Y + dy);
            region.Close();
            painter.Fill(region, Items.Coat.Full(Fill));
        }

        if (!HasLine)
            return;
        var line = painter.Empty();
        painter.Outliner.Append(samples, parts, Pen, (int)dx, (int)dy, line);
        painter.Fill(line, Line);
    }

    public override void Sketch(IItemSketcher sketcher, double tolerance)
    {
        var samples = Samples;
        var (dx, dy) = (Frame.Dx, Frame.Dy);
        if (IsFilled)
            sketcher.Region([Shifted(FlatLine.Of(samples), dx, dy)], Fill);

        if (!HasLine)
            return;
        foreach (var part in Dashes.Of(samples, Visible(), Pen))
        {
            var line = FlatLine.Of(samples, part);
            var kept = LineSimplifier.Keep(line, tolerance);
            sketcher.Line(Shifted(kept.ConvertAll(i => line[i]), dx, dy), Pen);
        }
    }

    private static long[] Shifted(List<FlatPoint> line, long dx, long dy)
    {
        var points = new long[line.Count * 2];
        for (var i = 0; i < line.Count; i++)
            (points[2 * i], points[2 * i + 1]) = ((long)Math.Round(line[i].X) + dx, (long)Math.Round(line[i].Y) + dy);
        return points;
    }

    protected internal override void WorkOut(bool mayLieElsewhere)
    {
        if (mayLieElsewhere)
            (placed, bounds) = (null, null);
        grain = null;
        var pen = madeWith;
        if (Frame.Read(ItemField.Colour) is { Length: > 0 } colour)
            pen = pen with { Colour = Colours.Read(colour) };
        if (Frame.Read(ItemField.Width) is { Length: > 0 } width)
            pen = pen with { Width = Whole(width) };
        if (Frame.Read(ItemField.Pen) is { Length: > 0 } kind)
            pen = pen with { Kind = (PenKind)Whole(kind) };
        if (Frame.Read(ItemField.Line) is { Length: > 0 } line)
            pen = pen with { Line = (LineStyle)Whole(line) };
        // Whatever became a highlighter never fully covers.
        if (pen != madeWith && pen.Kind == PenKind.Highlighter && (pen.Colour & 0xFF) > Pen.MostHighlighterAlpha)
            pen = pen with { Colour = (pen.Colour & ~0xFFu) | Pen.MostHighlighterAlpha };
        Pen = Frame.IsOnlyShifted
            ? pen
            : pen with
            {
                Width = (int)Math.Clamp(Math.Round(pen.Width * Frame.Placement!.Growth), 1, 100_000),
                Angle = Frame.Placement.Turned(pen.Angle),
            };
    }

    protected internal override void Shifted() => bounds = null;

    protected internal override void Rubbed() => visible = null;

    protected internal override void WriteState(ByteWriter writer, SampleCodec.Writers columns)
    {
        writer.Byte((byte)Pen.Kind);
        writer.Varint((ulong)Pen.Width);
        writer.Fixed32(Pen.Colour);
        writer.Byte((byte)Pen.Line);
        writer.Byte((byte)Pen.Tip);
        writer.Signed(Pen.Angle);
        writer.Signed(Pen.Response);
        var seen = Visible();
        writer.Varint((ulong)seen.Count);
        foreach (var interval in seen)
        {
            writer.Signed(interval.Start);
            writer.Signed(interval.End);
        }

        SampleCodec.Write(writer, columns, Lies);
    }

    public override List<Interval> MadeAfter(int after, int takes)
    {
        if (after >= takes)
            return Visible();
        if (after < 0)
            return [];
        var end = EndAfter(after, takes);
        return [.. Visible().Where(part => part.Start <= end).Select(part => part with { End = Math.Min(part.End, end) })];
    }

    /// <summary>How far along the line it was made by then: evenly, where it has no time of its own.</summary>
    protected virtual int EndAfter(int after, int takes) => (int)((long)End * after / Math.Max(takes, 1));

    /// <summary>It is made of other samples now.</summary>
    protected void Remade() => (madeBox, placed, bounds, visible) = (null, null, null, null);

    /// <summary>The samples where they lie, shifts and all.</summary>
    protected StrokeSamples Lying() => Samples.Moved((int)Frame.Dx, (int)Frame.Dy);

    /// <summary>The pen as it may be stored: what was scaled far stays within the widths there are.</summary>
    protected Pen Kept => Pen with { Width = Math.Clamp(Pen.Width, Pen.LeastWidth, Pen.MostWidth) };

    private static int Whole(string text) => int.Parse(text, CultureInfo.InvariantCulture);
}
