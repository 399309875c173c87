using CalmQuill.Core.Art;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;

namespace CalmQuill.Core.Items;

/// <summary>
/// A thing that is there as a whole or not at all, unlike a line: it reaches as far as its edge does, and an eraser takes all of it or nothing.
/// </summary>
/// <param name="frame">The frame it lies in.</param>
/// <param name="edge">Control points of its edge where it was made, 0.01 mm, as an <see cref="Outline"/> takes them: at least three.</param>
/// <param name="colour">What it is filled with, 0xRRGGBBAA.</param>
public abstract class SolidContent(IItemFrame frame, (double X, double Y)[] edge, uint colour) : ItemContent(frame)
{
    /// <summary>How finely it is looked at how much of it lies in a loop: so many places along either side of its box.</summary>
    private const int Places = 16;

    private static readonly List<Interval> All = [new Interval(0, 0)];

    /// <summary>The edge where it lies, but for shifts, as corners x, y, x, y…; made anew whenever it is placed otherwise.</summary>
    private double[] placed = [];
    private bool isPlaced;

    private double[] Placed
    {
        get
        {
            BeforeLooking();
            if (isPlaced)
                return placed;
            double[] now =
            [
                .. Edge.Select(at => Frame.IsOnlyShifted ? at : Frame.Placement!.Of(at.X, at.Y)).SelectMany(at => new[] { at.X, at.Y }),
            ];
            isPlaced = true;
            // By the same one others know that nothing of it became another.
            return placed = now.AsSpan().SequenceEqual(placed) ? placed : now;
        }
    }

    /// <summary>The corners of its edge where it now lies, as x, y, x, y…; 0.01 mm.</summary>
    public double[] Corners => [.. Placed.Select((at, i) => at + (i % 2 == 0 ? Frame.Dx : Frame.Dy))];

    /// <summary>The edge where it was made; <see cref="Remade"/> says when it is another.</summary>
    protected virtual (double X, double Y)[] Edge => edge;

    /// <summary>It has another edge now.</summary>
    protected void Remade() => isPlaced = false;

    /// <summary>Somebody asks how far it reaches: the time to call <see cref="Remade"/> where that depends on something else.</summary>
    protected virtual void BeforeLooking() { }

    /// <summary>What it is filled with: as it was made, or as somebody set it since.</summary>
    protected uint Filled { get; private set; }

    public override int End => 0;

    public override OutlineKey OutlineKey => new(Placed, All, default, true);

    public override Box Bounds => Box.Around(Placed).Shift((int)Frame.Dx, (int)Frame.Dy);

    public override List<Interval> Visible() => All;

    public override bool IsAt(double x, double y, double reach)
    {
        (x, y) = (x - Frame.Dx, y - Frame.Dy);
        return Loop.Holds(Placed, x, y) || Loop.Distance(Placed, x, y) <= reach;
    }

    /// <summary>By so many even places of its box.</summary>
    public override double ShareInside(ReadOnlySpan<double> loop)
    {
        var box = Bounds;
        int inside = 0,
            all = 0;
        for (var i = 0; i < Places * Places; i++)
        {
            double x = box.Left + (box.Right - box.Left) * (i % Places + 0.5) / Places,
                y = box.Top + (box.Bottom - box.Top) * (i / Places + 0.5) / Places;
            if (!Loop.Holds(Placed, x - Frame.Dx, y - Frame.Dy))
                continue;
            all++;
            if (Loop.Holds(loop, x, y))
                inside++;
        }

        return all == 0 ? 0 : inside / (double)all;
    }

    public override bool Rub(in EraserWay way, bool whole, List<Interval> gone) => whole && IsAt(way.X, way.Y, way.Radius);

    public override int Coats => 1;

    public override Coat Coat(int index) => Items.Coat.Full(Filled);

    public override void Paint(ItemPainter painter, List<Interval> parts, bool shifted)
    {
        var outline = painter.Empty();
        var (dx, dy) = shifted ? (Frame.Dx, Frame.Dy) : (0, 0);
        for (var i = 0; i < Placed.Length && parts.Count > 0; i += 2)
            outline.Add((float)(Placed[i] + dx), (float)(Placed[i + 1] + dy));
        if (parts.Count > 0)
            outline.Close();
        painter.Fill(outline, Coat(0));
    }

    public override void Sketch(IItemSketcher sketcher, double tolerance) =>
        sketcher.Region(
            [
                [.. Placed.Select((at, i) => (long)Math.Round(at) + (i % 2 == 0 ? Frame.Dx : Frame.Dy))],
            ],
            Filled
        );

    /// <summary>It is there at once.</summary>
    public override int MadeWithin => 1;

    public override List<Interval> MadeAfter(int after, int takes) => after >= takes ? All : [];

    protected internal override void WorkOut(bool mayLieElsewhere)
    {
        if (mayLieElsewhere)
            isPlaced = false;
        Filled = Frame.Read(ItemField.Colour) is { Length: > 0 } set ? Colours.Read(set) : colour;
    }

    protected internal override void Shifted() { }

    protected internal override void Rubbed() { }

    protected internal override void WriteState(ByteWriter writer, SampleCodec.Writers columns)
    {
        writer.Fixed32(Filled);
        foreach (var at in Placed)
            writer.Signed((long)Math.Round(at));
    }
}
