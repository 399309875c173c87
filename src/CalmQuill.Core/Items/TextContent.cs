using CalmQuill.Core.Diagrams;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Typesetting;
using CalmQuill.Core.Writing;

namespace CalmQuill.Core.Items;

/// <summary>A box of typed text, which grows downwards with its letters.</summary>
public sealed class TextContent(IItemFrame frame, Change.TextAdded added) : WrittenContent(frame, added, Ink)
{
    /// <summary>The least and the most that a line is long, the most that the paper's lines are apart, and the most room within a box; 0.01 mm.</summary>
    public const int LeastMeasure = 500,
        MostMeasure = 200_000,
        MostRuling = 20_000,
        MostPadding = 2_000;

    private const int UsualPadding = 150,
        UsualEdgeWidth = 30;

    private static readonly ItemField[] Fields =
    [
        ItemField.Colour,
        ItemField.Fill,
        ItemField.Edge,
        ItemField.EdgeWidth,
        ItemField.Corner,
        ItemField.Padding,
    ];

    private int measure = added.Width,
        ruling = added.Ruling;
    private LabelRoom? room;

    public override int Measure => measure;

    public override int Ruling => ruling;

    public override int? MeasureFor(int lines) => room is null ? lines : null;

    public override uint Colour => Filled;

    public override ItemKinds Kind => ItemKinds.Text;

    /// <summary>Words in a shape go by what is done to that.</summary>
    public override Reshaping Reshaping => room is null ? Reshaping.InProportion : Reshaping.Freely;

    /// <summary>The shape in which it stands centred; null where it stands by itself, or the shape is not there any more.</summary>
    public OpId? Holder => room is null ? null : Named;

    public override IReadOnlyList<(ItemField Field, OpId On)> LeansOn => Named is { } holder ? [(ItemField.Holder, holder)] : [];

    /// <summary>Nothing where there are no letters and no box: an empty text is there for whoever types into it, and for nobody else.</summary>
    public override List<Interval> Visible() => Typed.Length > 0 || HasBox ? base.Visible() : [];

    /// <summary>How high its letters are, 0.01 mm.</summary>
    public double Height => (Set.Ascent + Set.Bottom) / (double)Lengths.PerUnit;

    public override Box Box
    {
        get
        {
            var padding = Padding;
            return new Box(-padding, -Set.Ascent / Lengths.PerUnit - padding, Measure + padding, Set.Bottom / Lengths.PerUnit + padding);
        }
    }

    /// <summary>Room between its box and its letters, 0.01 mm: some, where the box is seen.</summary>
    public int Padding => Number(ItemField.Padding, HasBox ? UsualPadding : 0);

    /// <summary>How wide the line round its box is, 0.01 mm.</summary>
    public int EdgeWidth => Number(ItemField.EdgeWidth, UsualEdgeWidth);

    /// <summary>The radius of its box's corners, 0.01 mm.</summary>
    public int Corner => Number(ItemField.Corner, 0);

    private bool HasBox => (ColourIn(ItemField.Fill) & 0xFF) > 0 || (ColourIn(ItemField.Edge) & 0xFF) > 0;

    protected override Affine Lay
    {
        get
        {
            if (room is not { } within)
                return base.Lay;
            var lies = within.Lay(Set.Ascent / (double)Lengths.PerUnit, Set.Bottom / (double)Lengths.PerUnit);
            return Frame.Placement is { } placement ? placement.Affine.Inverse().After(lies) : lies;
        }
    }

    protected override Affine StatePlace => room?.Lay(0, 0) ?? base.StatePlace;

    private OpId? Named => OpId.TryParse(Read(ItemField.Holder), out var holder) ? holder : null;

    protected override BoxLook Around => new(ColourIn(ItemField.Fill), ColourIn(ItemField.Edge), EdgeWidth, Corner);

    protected override IEnumerable<(double X, double Y)> Outline => Box.Corners;

    protected override IReadOnlyList<ItemField> Looks => Fields;

    /// <summary>As it lies and looks, but for what was removed from it.</summary>
    public override Change.ItemAdded Copy() =>
        new Change.TextAdded(Transform.Near(Place), Measure, Ruling, Passage.Of(Typed.Paragraphs()), Look);

    protected internal override void WorkOut(bool mayLieElsewhere)
    {
        room = Named is { } holder && Frame.Beside(holder, true) is ShapeContent shape ? LabelRoom.Of(shape) : null;
        (measure, ruling) = room is { } within
            ? ((int)Math.Round(within.Width), 0)
            : (Number(ItemField.Measure, added.Width), Number(ItemField.Ruling, added.Ruling));
        base.WorkOut(mayLieElsewhere);
    }

    /// <summary>Words in a shape stay where that is.</summary>
    protected internal override void Shifted()
    {
        base.Shifted();
        if (room is not null)
            WorkOut(true);
    }

    protected internal override void WriteState(ByteWriter writer, SampleCodec.Writers columns)
    {
        writer.Signed(Measure);
        writer.Signed(Ruling);
        base.WriteState(writer, columns);
    }
}
