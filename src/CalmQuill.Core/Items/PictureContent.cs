using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pictures;

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
        ItemField.Leaf,
    ];

    private PictureLook? shown;
    private Box? frames;

    /// <summary>The picture as it is shown.</summary>
    public PictureLook Shown =>
        shown ??= new PictureLook(
            Guid.TryParse(Read(ItemField.Source), out var source) ? source : Guid.Empty,
            Width,
            Height,
            PictureCut.Read(Read(ItemField.Cut)) ?? PictureCut.Whole,
            Number(ItemField.Opacity, 100) * 255 / 100,
            // A printed page is shown as its file says, so that it stays vectors wherever it goes.
            Leaf == 0
                ? new Tones(Number(ItemField.Brightness, 0), Number(ItemField.Contrast, 0))
                : default
        )
        {
            Leaf = Leaf,
        };

    /// <summary>Which page of a PDF file it is, counted from 1; 0 for a picture.</summary>
    public int Leaf => Number(ItemField.Leaf, 0);

    /// <summary>The file that it was brought in as, whatever was made of it since.</summary>
    public Guid Original => Guid.TryParse(Read(ItemField.Original), out var original) ? original : Shown.Asset;

    /// <summary>How strongly its paper was cleared away, 0 to 100.</summary>
    public int Cleared => Number(ItemField.Cleared, 0);

    public override ItemKinds Kind => ItemKinds.Picture;

    protected override Box Shows => frames ??= Core.Ink.Box.Around(Shown.Corners);

    protected override IEnumerable<(double X, double Y)> Outline => Shown.Corners;

    protected override IReadOnlyList<ItemField> Looks => Fields;

    protected override void PaintBelow(ItemPainter painter, in Affine place) => painter.Draw(Shown, place);

    protected override void SketchBelow(IItemSketcher sketcher, in Affine place) => sketcher.Draw(Shown, place);

    protected internal override void WorkOut(bool mayLieElsewhere)
    {
        (shown, frames) = (null, null);
        base.WorkOut(mayLieElsewhere);
    }
}
