using CalmQuill.Core.Art;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Plots;
using CalmQuill.Core.Typesetting;

namespace CalmQuill.Core.Items;

/// <summary>
/// A coloured paper slip, written or typed on. What lies on it goes along with it, see <see cref="Pages.OnSlips"/>; folded, only its upper edge
/// is seen; its copy lies unfolded, so that nothing of it is out of sight.
/// </summary>
public sealed class SlipContent(IItemFrame frame, Change.ThingAdded added) : BoxedContent(frame, added, Paper)
{
    /// <summary>The paper that slips are of where nothing else is said, 0xRRGGBBAA.</summary>
    public const uint Paper = 0xF3E2A4FF;

    /// <summary>How much is seen of a folded slip, and how far letters keep from its edge; 0.01 mm.</summary>
    private const int Fold = 500,
        Padding = 300;

    /// <summary>How wide the line at its edge is, 0.01 mm, and how much darker than its paper.</summary>
    private const int EdgeWidth = 15;
    private const double Darker = 0.22;

    /// <summary>The head of a pin: how far it lies from the upper edge, its radius, 0.01 mm; its colours, from the back.</summary>
    private const int PinDown = 210,
        PinRadius = 150;
    private const uint PinShade = 0x3A322640,
        PinHead = 0xA8442FFF,
        PinLight = 0xE0937FFF;

    private static readonly ItemField[] Fields = [ItemField.Colour, ItemField.Corner, ItemField.Pinned];

    /// <summary>What its paper looks like, 0xRRGGBBAA.</summary>
    public uint PaperColour => Filled;

    /// <summary>Whether only its edge is seen.</summary>
    public bool IsFolded { get; private set; }

    /// <summary>Whether it is pinned over what it lies on.</summary>
    public bool IsPinned => Read(ItemField.Pinned).Length > 0;

    /// <summary>The corners of all of its paper where it now lies, folded or not, as x, y, x, y…; 0.01 mm.</summary>
    public double[] Whole
    {
        get
        {
            var place = OwnPlace(true);
            return [.. new Box(0, 0, Width, Unfolded).Corners.Select(at => place.Of(at.X, at.Y)).SelectMany(at => new[] { at.X, at.Y })];
        }
    }

    public override bool Carries => true;

    public override ItemKinds Kind => ItemKinds.Slip;

    /// <summary>Letters keep their form: a slip with words on it is made another size as a whole.</summary>
    public override Reshaping Reshaping => Typed.Length > 0 ? Reshaping.InProportion : Reshaping.Freely;

    public override int Measure => Math.Max(Width - 2 * Padding, TextContent.LeastMeasure);

    public override int? MeasureFor(int lines) => lines + 2 * Padding;

    public override Box Box
    {
        get
        {
            var (x, y) = Beginning;
            return new Box((int)-x, (int)-y, Width - (int)x, Shows.Bottom - (int)y);
        }
    }

    public override bool ShowsLetters => base.ShowsLetters && !IsFolded;

    public override bool IsTypedAt(double x, double y, double reach) => !IsFolded && base.IsTypedAt(x, y, reach);

    protected override (double X, double Y) Beginning => (Padding, Padding + Set.Ascent / Lengths.PerUnit);

    protected override BoxLook Around => new(Filled, Colours.Mix(Filled, 0x000000FF, Darker), EdgeWidth, Number(ItemField.Corner, 0));

    protected override IReadOnlyList<ItemField> Looks => Fields;

    protected override IReadOnlyList<Region> Above =>
        IsPinned
            ?
            [
                new Region(PinShade, [Lines.Disc(Width / 2.0 + 35, PinDown + 55, PinRadius)]),
                new Region(PinHead, [Lines.Disc(Width / 2.0, PinDown, PinRadius)]),
                new Region(PinLight, [Lines.Disc(Width / 2.0 - 50, PinDown - 50, PinRadius / 3.0)]),
            ]
            : [];

    protected override Box Shows => new(0, 0, Width, IsFolded ? Math.Min(Fold, Unfolded) : Unfolded);

    /// <summary>How high it is unfolded: as it was made, and more where its letters need it.</summary>
    private int Unfolded => Typed.Length == 0 ? Height : Math.Max(Height, (Set.Ascent + Set.Bottom) / Lengths.PerUnit + 2 * Padding);

    protected internal override void WorkOut(bool mayLieElsewhere)
    {
        IsFolded = Read(ItemField.Folded).Length > 0;
        base.WorkOut(mayLieElsewhere);
    }

    protected internal override void WriteState(ByteWriter writer, SampleCodec.Writers columns)
    {
        writer.Byte(IsFolded ? (byte)1 : (byte)0);
        base.WriteState(writer, columns);
    }
}
