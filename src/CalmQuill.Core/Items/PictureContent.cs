using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pictures;
using CalmQuill.Core.Writing;

namespace CalmQuill.Core.Items;

/// <summary>A picture, with what is written under it. Its own measures run from its upper left corner.</summary>
public sealed class PictureContent(IItemFrame frame, Change.ThingAdded added) : CaptionedContent(frame, added)
{
    private static readonly ItemField[] Fields =
    [
        ItemField.Colour,
        ItemField.Source,
        ItemField.Opacity,
        ItemField.Brightness,
        ItemField.Contrast,
        ItemField.Cut,
        ItemField.Cleared,
        ItemField.Original,
    ];

    private PictureLook? shown;
    private Box? frames;

    /// <summary>The picture as it is shown.</summary>
    public PictureLook Shown =>
        shown ??= new PictureLook(
            Guid.TryParse(Read(ItemField.Source), out var source) ? source : Guid.Empty,
            Number(ItemField.Measure, added.Width),
            Number(ItemField.Height, added.Height),
            PictureCut.Read(Read(ItemField.Cut)) ?? PictureCut.Whole,
            Number(ItemField.Opacity, 100) * 255 / 100,
            new Tones(Number(ItemField.Brightness, 0), Number(ItemField.Contrast, 0))
        );

    /// <summary>The file that it was brought in as, whatever was made of it since.</summary>
    public Guid Original => Guid.TryParse(Read(ItemField.Original), out var original) ? original : Shown.Asset;

    /// <summary>How strongly its paper was cleared away, 0 to 100.</summary>
    public int Cleared => Number(ItemField.Cleared, 0);

    /// <summary>What a field says.</summary>
    public string this[ItemField field] => Read(field);

    public override ItemKinds Kind => ItemKinds.Picture;

    protected override Box Shows => frames ??= Core.Ink.Box.Around(Shown.Corners);

    protected override (double X, double Y)[] Edge
    {
        get
        {
            var lay = Affine.Of(added.Lay);
            return [.. Shown.Corners.Select(at => lay.Of(at.X, at.Y))];
        }
    }

    protected override IReadOnlyList<ItemField> Looks => Fields;

    public override Change.ItemAdded Copy() =>
        new Change.ThingAdded(
            ThingKind.Picture,
            Transform.Near(OwnPlace(true)),
            Shown.Width,
            Shown.Height,
            Passage.Of(Typed.Paragraphs()),
            Look
        );

    protected override void PaintBelow(ItemPainter painter, bool shifted) => painter.Draw(Shown, OwnPlace(shifted));

    protected override void SketchBelow(IItemSketcher sketcher) => sketcher.Draw(Shown, OwnPlace(true));

    protected internal override void WorkOut(bool mayLieElsewhere)
    {
        (shown, frames) = (null, null);
        base.WorkOut(mayLieElsewhere);
    }

    protected internal override void WriteState(ByteWriter writer, SampleCodec.Writers columns)
    {
        writer.Signed(Shown.Width);
        writer.Signed(Shown.Height);
        base.WriteState(writer, columns);
    }
}
