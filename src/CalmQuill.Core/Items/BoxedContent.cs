using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Writing;

namespace CalmQuill.Core.Items;

/// <summary>What covers the page in a box of its own, as paper does: a picture, a slip, a plot. Its own measures run from its upper left corner.</summary>
public abstract class BoxedContent(IItemFrame frame, Change.ThingAdded added, uint colour) : WrittenContent(frame, added, colour)
{
    public override int Rank => 0;

    public override bool Covers => true;

    /// <summary>How wide it is, 0.01 mm.</summary>
    protected int Width => Number(ItemField.Measure, added.Width);

    /// <summary>How high it is, unless its letters need more.</summary>
    protected int Height => Number(ItemField.Height, added.Height);

    /// <summary>The box around what is seen of it, its own measures.</summary>
    protected abstract Box Shows { get; }

    protected override IEnumerable<(double X, double Y)> Outline => Shows.Corners;

    /// <summary>No eraser takes it: who rubs out what is written on it means that alone.</summary>
    public override bool Rub(in EraserWay way, bool whole, List<Interval> gone) => false;

    public override Change.ItemAdded Copy() =>
        new Change.ThingAdded(added.Thing, Transform.Near(OwnPlace(true)), Width, Height, Passage.Of(Typed.Paragraphs()), Look);

    protected internal override void WriteState(ByteWriter writer, SampleCodec.Writers columns)
    {
        writer.Signed(Width);
        writer.Signed(Height);
        base.WriteState(writer, columns);
    }
}
