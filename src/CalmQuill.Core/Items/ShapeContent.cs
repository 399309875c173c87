using System.Globalization;
using CalmQuill.Core.Art;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Shapes;

namespace CalmQuill.Core.Items;

/// <summary>A shape: a figure by its measures, whose line is traced from them; or a region that was filled.</summary>
public sealed class ShapeContent(IItemFrame frame, Change.ShapeAdded added) : LineContent(frame, added.Pen)
{
    /// <summary>A shape has no time of its own; it is drawn in so long, milliseconds.</summary>
    private const int Takes = 400;

    private StrokeSamples? traced;
    private uint fill = added.Fill;

    /// <summary>The shape where it was made. <see cref="PlacedShape"/> says where it now lies.</summary>
    public Shape Shape { get; private set; } = added.Shape;

    /// <summary>The shape as it lies; null for what was squeezed into no shape of a kind.</summary>
    public Shape? PlacedShape =>
        Frame.Placement is not { } placement ? Shape
        : placement.IsSimilar ? Shape.Map(placement.Of)
        : Shape.Squeeze(placement.Of);

    public override ItemKinds Kind => IsRegion ? ItemKinds.Area : ItemKinds.Shape;

    public override int Rank => IsRegion ? 0 : 2;

    public override uint Fill => fill;

    public override uint Colour => IsRegion ? fill : base.Colour;

    public override int MadeWithin => Takes;

    protected override StrokeSamples Made => traced ??= Shape.Trace();

    protected override bool HasLine => !IsRegion;

    private bool IsRegion => Shape.Kind == ShapeKind.Area;

    /// <summary>As the shape that it still is, else as ink.</summary>
    public override Change.ItemAdded Copy() =>
        PlacedShape is { } shape ? new Change.ShapeAdded(shape, Kept, Fill, []) : new Change.StrokeAdded(Kept, Frame.StartedAt, Lying());

    protected internal override void WorkOut(bool mayLieElsewhere)
    {
        var shape = Frame.Read(ItemField.Shape) is { Length: > 0 } changed ? Shape.Read(changed)! : added.Shape;
        if (shape != Shape)
        {
            (Shape, traced) = (shape, null);
            Remade();
        }

        fill =
            !Shape.IsClosed ? 0
            : Frame.Read(ItemField.Fill) is { Length: > 0 } filled ? Colours.Read(filled)
            : added.Fill;
        base.WorkOut(mayLieElsewhere);
    }

    protected internal override void WriteState(ByteWriter writer, SampleCodec.Writers columns)
    {
        writer.Fixed32(Fill);
        writer.Text(((int)Shape.Kind).ToString(CultureInfo.InvariantCulture));
        base.WriteState(writer, columns);
    }
}
