using System.Globalization;
using CalmQuill.Core.Art;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Operations.Codecs;
using CalmQuill.Core.Typesetting;
using CalmQuill.Core.Writing;

namespace CalmQuill.Core.Items;

/// <summary>
/// A box of typed text. Its own measures run from the beginning of its first line, on which the letters stand, to the right and down, 0.01 mm.
/// </summary>
public sealed class TextContent(IItemFrame frame, Change.TextAdded added) : SolidContent(frame, [], ColourOf(added))
{
    /// <summary>The least and the most that a line is long, the most that the paper's lines are apart, and the most room within a box; 0.01 mm.</summary>
    public const int LeastMeasure = 500,
        MostMeasure = 200_000,
        MostRuling = 20_000,
        MostPadding = 2_000;

    /// <summary>The colour of letters where nothing else is said.</summary>
    public const uint Ink = 0x22302EFF;

    /// <summary>In small pictures letters that are lower than so many of what a line may lie off, which is a seventh of a pixel, are shown as bars.</summary>
    private const int Readable = 45;

    /// <summary>Bars for letters are so dark, in hundredths, as these are from afar.</summary>
    private const int FromAfar = 55;

    private readonly Typesetter typesetter = new();
    private readonly Dictionary<ItemField, string> made = added.Values.ToDictionary(value => value.Field, value => value.Value);
    private SetText? set;
    private List<(uint Colour, List<(int X, int Y)[]> Rings)>? fills;
    private int version = -1;

    public TypedText Typed => Frame.Typed;

    /// <summary>The text as it is set.</summary>
    public SetText Set
    {
        get
        {
            if (set is null || version != Fonts.Version)
            {
                version = Fonts.Version;
                set = typesetter.Set(Typed.Paragraphs(), Measure, Ruling);
                fills = null;
                Remade();
            }

            return set;
        }
    }

    /// <summary>How long its lines are, 0.01 mm.</summary>
    public int Measure { get; private set; } = added.Width;

    /// <summary>How far apart the paper's lines are that it stands on, 0.01 mm; 0 for free spacing.</summary>
    public int Ruling { get; private set; } = added.Ruling;

    /// <summary>Where its own measures lie on the page; with all that was done to it.</summary>
    public Affine Place => PlaceOf(true);

    /// <summary>The colour of letters that have none of their own, 0xRRGGBBAA.</summary>
    public uint Colour => Filled;

    public override ItemKinds Kind => ItemKinds.Text;

    public override Reshaping Reshaping => Reshaping.InProportion;

    public override string Words => Typed.Text;

    public override OutlineKey OutlineKey => new(Set, base.OutlineKey.Form, default, true);

    /// <summary>Nothing where there are no letters and no box: an empty text is there for whoever types into it, and for nobody else.</summary>
    public override List<Interval> Visible() =>
        Typed.Length > 0 || (ColourIn(ItemField.Fill) & 0xFF) > 0 || (ColourIn(ItemField.Edge) & 0xFF) > 0 ? base.Visible() : [];

    /// <summary>The corners of its box, its own measures.</summary>
    public Box Box
    {
        get
        {
            var padding = Padding;
            return new Box(-padding, -Set.Ascent / Lengths.PerUnit - padding, Measure + padding, Set.Bottom / Lengths.PerUnit + padding);
        }
    }

    protected override (double X, double Y)[] Edge
    {
        get
        {
            var (left, top, right, bottom) = Box;
            var lay = Affine.Of(added.Lay);
            return [lay.Of(left, top), lay.Of(right, top), lay.Of(right, bottom), lay.Of(left, bottom)];
        }
    }

    private int Padding => Number(ItemField.Padding, 0);

    public override int Coats => Fills.Count;

    public override Coat Coat(int index) => Items.Coat.Full(Fills[index].Colour);

    /// <summary>What is filled behind and under the letters, each colour once, its own measures.</summary>
    private List<(uint Colour, List<(int X, int Y)[]> Rings)> Fills
    {
        get
        {
            _ = Set;
            return fills ??= TextFills.Of(
                this,
                Set,
                Filled,
                ColourIn(ItemField.Fill),
                ColourIn(ItemField.Edge),
                Number(ItemField.EdgeWidth, 30),
                Number(ItemField.Corner, 0)
            );
        }
    }

    /// <summary>Where the caret before a letter stands on the page: its upper and its lower end.</summary>
    public ((double X, double Y) Top, (double X, double Y) Foot) CaretAt(int letter)
    {
        var (line, start, y) = Set.LineOf(letter);
        var x = line.CaretAt(Math.Clamp(letter - start, line.Start, line.End));
        return (OnPage(x, y - line.Ascent), OnPage(x, y + line.Descent));
    }

    /// <summary>What lies behind letters that are selected: for each line its four corners on the page.</summary>
    /// <param name="from">The first letter.</param>
    /// <param name="to">Behind the last one.</param>
    public IEnumerable<(double X, double Y)[]> Behind(int from, int to)
    {
        foreach (var (paragraph, start, top) in Set.Paragraphs)
        {
            foreach (var line in paragraph.Lines.Where(line => start + line.Start < to && from < start + line.End))
            {
                int one = line.CaretAt(Math.Max(from - start, line.Start)),
                    other = line.CaretAt(Math.Min(to - start, line.End)),
                    y = top + line.Y;
                yield return
                [
                    OnPage(one, y - line.Ascent),
                    OnPage(other, y - line.Ascent),
                    OnPage(other, y + line.Descent),
                    OnPage(one, y + line.Descent),
                ];
            }
        }
    }

    private (double X, double Y) OnPage(int x, int y) => Place.Of(x / (double)Lengths.PerUnit, y / (double)Lengths.PerUnit);

    /// <summary>The first letter of the paragraph whose box to be ticked is at a spot, or so near that a press there means it; null for none.</summary>
    public int? TickAt(double x, double y)
    {
        var (bx, by) = Place.Back(x, y);
        foreach (var (paragraph, start, top) in Set.Paragraphs)
        {
            if (paragraph.Style.List != "tick")
                continue;
            var (left, side) = TextFills.TickOf(paragraph, Set.Width);
            double reach = side / 2.0,
                foot = top + paragraph.Lines[0].Y,
                px = bx * Lengths.PerUnit,
                py = by * Lengths.PerUnit;
            if (px >= left - reach && px <= left + side + reach && py >= foot - side - reach && py <= foot + reach)
                return start;
        }

        return null;
    }

    public override void Paint(ItemPainter painter, List<Interval> parts, bool shifted)
    {
        if (parts.Count == 0)
            return;
        var place = PlaceOf(shifted);
        foreach (var (colour, rings) in Fills)
        {
            var outline = painter.Empty();
            foreach (var ring in rings)
            {
                foreach (var (x, y) in ring)
                {
                    var (px, py) = place.Of(x, y);
                    outline.Add((float)px, (float)py);
                }

                outline.Close();
            }

            painter.Fill(outline, Items.Coat.Full(colour));
        }

        painter.Write(Set, place, Filled);
    }

    public override void Sketch(IItemSketcher sketcher, double tolerance)
    {
        var place = PlaceOf(true);
        long[] OnPage((int X, int Y)[] ring) =>
            [.. ring.Select(at => place.Of(at.X, at.Y)).SelectMany(at => new[] { (long)at.X, (long)at.Y })];
        foreach (var (colour, rings) in Fills)
        {
            foreach (var ring in rings)
                sketcher.Region(OnPage(ring), colour);
        }

        var largest = Set.Paragraphs.Max(one => one.Paragraph.Lines.Max(line => line.Size));
        if (Lengths.OfType(largest) / (double)Lengths.PerUnit * place.Growth >= tolerance * Readable)
        {
            sketcher.Write(Set, place, Filled);
            return;
        }

        foreach (var bar in TextFills.Bars(Set))
            sketcher.Region(OnPage(bar), Colours.Thinned(Filled, FromAfar));
    }

    /// <summary>As it lies and looks, but for what was removed from it.</summary>
    public override Change.ItemAdded Copy()
    {
        ItemField[] looks = [ItemField.Colour, ItemField.Fill, ItemField.Edge, ItemField.EdgeWidth, ItemField.Corner, ItemField.Padding];
        var values = looks.Select(field => new ItemValue(field, Read(field))).Where(value => value.Value.Length > 0);
        return new Change.TextAdded(Transform.Near(Place), Measure, Ruling, Passage.Of(Typed.Paragraphs()), [.. values]);
    }

    protected internal override void WorkOut(bool mayLieElsewhere)
    {
        base.WorkOut(mayLieElsewhere);
        Measure = Number(ItemField.Measure, added.Width);
        Ruling = Number(ItemField.Ruling, added.Ruling);
        if (mayLieElsewhere)
            set = null;
        fills = null;
    }

    protected internal override void WriteState(ByteWriter writer, SampleCodec.Writers columns)
    {
        writer.Fixed32(Filled);
        writer.Signed(Measure);
        writer.Signed(Ruling);
        foreach (var field in new[] { ItemField.Fill, ItemField.Edge, ItemField.EdgeWidth, ItemField.Corner, ItemField.Padding })
            writer.Text(Read(field));
        Parts.WriteTransform(writer, Transform.Near(Place));
        var passage = Passage.Of(Typed.Paragraphs());
        writer.Text(passage.Text);
        foreach (var (start, end, trait, value) in passage.Formats)
        {
            writer.Signed(start);
            writer.Signed(end);
            writer.Byte((byte)trait);
            writer.Text(value);
        }
    }

    protected override void BeforeLooking() => _ = Set;

    /// <summary>Where its own measures lie on the page.</summary>
    /// <param name="shifted">Whether where it lies, or where it was made: without the frame's shift.</param>
    public Affine PlaceOf(bool shifted)
    {
        var lay = Affine.Of(added.Lay);
        if (!Frame.IsOnlyShifted)
            return Frame.Placement!.Affine.After(lay);
        return shifted ? lay.Shifted(Frame.Dx, Frame.Dy) : lay;
    }

    /// <summary>What a field says: as somebody set it since, or as it was made.</summary>
    private string Read(ItemField field) => Frame.Read(field) is { Length: > 0 } set ? set : made.GetValueOrDefault(field, "");

    private uint ColourIn(ItemField field) => Read(field) is { Length: > 0 } colour ? Colours.Read(colour) : 0;

    private int Number(ItemField field, int usual) =>
        Read(field) is { Length: > 0 } text ? int.Parse(text, CultureInfo.InvariantCulture) : usual;

    private static uint ColourOf(Change.TextAdded added) =>
        added.Values.FirstOrDefault(value => value.Field == ItemField.Colour).Value is { Length: > 0 } colour ? Colours.Read(colour) : Ink;
}
