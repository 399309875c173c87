using System.Globalization;
using CalmQuill.Core.Art;
using CalmQuill.Core.Diagrams;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Shapes;

namespace CalmQuill.Core.Items;

/// <summary>A shape: a figure by its measures, whose line is traced from them; or a region that was filled.</summary>
public sealed class ShapeContent(IItemFrame frame, Change.ShapeAdded added) : LineContent(frame, added.Pen)
{
    /// <summary>A shape has no time of its own; it is drawn in so long, milliseconds.</summary>
    private const int Takes = 400;

    private static readonly ItemField[] Ends = [ItemField.From, ItemField.To];

    private StrokeSamples? traced;
    private uint fill = added.Fill;

    private Shape free = added.Shape;

    /// <summary>Of a connector the line as it lies on the page.</summary>
    private Shape? way;

    /// <summary>The shape where it was made. <see cref="PlacedShape"/> says where it now lies. A connector's goes by what it is joined to.</summary>
    public Shape Shape { get; private set; } = added.Shape;

    /// <summary>Whether it is a line between things, which goes along with them.</summary>
    public bool IsConnector => Shape.Kind == ShapeKind.Connector;

    /// <summary>The corners of its line where it lies, as x, y, x, y…; 0.01 mm.</summary>
    public double[] Corners => [.. FlatLine.Of(Samples).SelectMany(at => new[] { at.X + Frame.Dx, at.Y + Frame.Dy })];

    /// <summary>The shape as it lies; null for what was squeezed into no shape of a kind.</summary>
    public Shape? PlacedShape =>
        IsConnector ? way
        : Frame.Placement is not { } placement ? Shape
        : placement.IsSimilar ? Shape.Map(placement.Of)
        : Shape.Squeeze(placement.Of);

    public override ItemKinds Kind => IsRegion ? ItemKinds.Area : ItemKinds.Shape;

    public override int Rank => IsRegion ? 0 : 2;

    public override uint Fill => fill;

    public override uint Colour => IsRegion ? fill : base.Colour;

    public override int MadeWithin => Takes;

    public override IReadOnlyList<(ItemField Field, OpId On)> LeansOn =>
        IsConnector ? [.. Ends.Where(end => Named(end) is not null).Select(end => (end, Named(end)!.Value))] : [];

    protected override StrokeSamples Made => traced ??= Shape.Trace();

    protected override bool HasLine => !IsRegion;

    /// <summary>Of a connector where its ends would lie if they were joined to nothing: what it is joined to may have another size on each device.</summary>
    protected override StrokeSamples Lies =>
        !IsConnector ? base.Lies
        : Frame.IsOnlyShifted ? free.Trace()
        : Frame.Placement!.Of(free.Trace());

    /// <summary>What stands at the ends of a connector keeps its form.</summary>
    protected override StrokeSamples MadePlaced => IsConnector ? way!.Trace() : base.MadePlaced;

    private bool IsRegion => Shape.Kind == ShapeKind.Area;

    /// <summary>As the shape that it still is, else as ink.</summary>
    public override Change.ItemAdded Copy() =>
        IsConnector ? new Change.ShapeAdded(way!.WithoutWay(), Kept, 0, [])
        : PlacedShape is { } shape ? new Change.ShapeAdded(shape, Kept, Fill, [])
        : new Change.StrokeAdded(Kept, Frame.StartedAt, Lying());

    protected internal override void WorkOut(bool mayLieElsewhere)
    {
        free = Frame.Read(ItemField.Shape) is { Length: > 0 } changed ? Shape.Read(changed)! : added.Shape;
        var shape = free.Kind == ShapeKind.Connector ? Joined() : free;
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

    /// <summary>Of a connector all is gone as soon as something is: half of one joins nothing.</summary>
    public override List<Interval> Visible() => IsConnector && Frame.Gaps.Any ? [] : base.Visible();

    public override bool Rub(in EraserWay way, bool whole, List<Interval> gone)
    {
        if (!base.Rub(way, whole, gone))
            return false;
        if (IsConnector)
        {
            gone.Clear();
            gone.Add(new Interval(0, End));
        }

        return true;
    }

    /// <summary>The shape for a page on which only some things are: a connector that is joined to one that is not there runs as it does now.</summary>
    public Shape Among(Func<OpId, bool> isThere) => LeansOn.All(lean => isThere(lean.On)) ? free : Shape;

    /// <summary>Whether an end of a connector is at something that stands on the page.</summary>
    public bool IsJoined(ItemField end) => Named(end) is { } thing && Frame.Beside(thing, true) is not null;

    protected internal override void Shifted()
    {
        base.Shifted();
        // What it is joined to stayed where it was.
        if (IsConnector)
            WorkOut(true);
    }

    /// <summary>The connector between what it is joined to, where it was made: there its own placement has not been done to it.</summary>
    private Shape Joined()
    {
        // Joined to nothing it runs as it was left.
        if (free.Points.Count > 2 && Named(ItemField.From) is null && Named(ItemField.To) is null)
        {
            way = Frame.Placement is { } placed ? free.Map(placed.Of) : free;
            return free;
        }

        var (from, to) = (AnchorOf(ItemField.From, free.Points[0]), AnchorOf(ItemField.To, free.Points[^1]));
        way = free with
        {
            Points = ConnectorWay.Between(
                from,
                to,
                Named(ItemField.From) is { } start && start == Named(ItemField.To),
                ConnectorLook.Of(free.Detail).Route
            ),
        };
        return Frame.Placement is { } placement ? way.Map(placement.Back) : way;
    }

    private Anchor AnchorOf(ItemField end, Corner at)
    {
        if (Named(end) is { } thing && Frame.Beside(thing, false) is { } beside and not ShapeContent { IsConnector: true })
            return Anchor.Of(beside);
        var (x, y) = Frame.Placement?.Of(at.X, at.Y) ?? (at.X, at.Y);
        return Anchor.At(x, y);
    }

    private OpId? Named(ItemField end) => OpId.TryParse(Frame.Read(end), out var thing) ? thing : null;

    protected internal override void WriteState(ByteWriter writer, SampleCodec.Writers columns)
    {
        writer.Fixed32(Fill);
        if (IsConnector)
        {
            writer.Varint((ulong)free.Detail);
            writer.Text(Frame.Read(ItemField.From));
            writer.Text(Frame.Read(ItemField.To));
        }

        writer.Text(((int)Shape.Kind).ToString(CultureInfo.InvariantCulture));
        base.WriteState(writer, columns);
    }
}
