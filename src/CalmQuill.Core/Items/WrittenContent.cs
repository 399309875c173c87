using System.Globalization;
using CalmQuill.Core.Art;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Operations.Codecs;
using CalmQuill.Core.Typesetting;
using CalmQuill.Core.Writing;

namespace CalmQuill.Core.Items;

/// <summary>
/// A thing that can be typed into: a text, or what has one in it or beside it. The measures of its letters run from the beginning of their first line, on which
/// they stand, to the right and down, 0.01 mm.
/// </summary>
/// <param name="frame">The frame it lies in.</param>
/// <param name="added">What made it.</param>
/// <param name="colour">The colour that is its own where nothing is said of it, 0xRRGGBBAA.</param>
public abstract class WrittenContent(IItemFrame frame, Change.WrittenAdded added, uint colour)
    : SolidContent(frame, [], added.ColourOr(colour))
{
    /// <summary>The colour of letters where nothing else is said.</summary>
    public const uint Ink = 0x22302EFF;

    /// <summary>In small pictures letters that are lower than so many of what a line may lie off, which is a seventh of a pixel, are shown as bars.</summary>
    private const int Readable = 45;

    /// <summary>Bars for letters are so dark, in hundredths, as these are from afar.</summary>
    private const int FromAfar = 55;

    private readonly Typesetter typesetter = new();
    private readonly Dictionary<ItemField, string> made = added.Values.ToDictionary(value => value.Field, value => value.Value);
    private SetText? set;
    private List<Region>? fills;
    private int version = -1;

    public TypedText Typed => Frame.Typed;

    /// <summary>What a field says; empty for nothing.</summary>
    public string this[ItemField field] => Read(field);

    /// <summary>The text as it is set.</summary>
    public SetText Set
    {
        get
        {
            if (set is null || version != Fonts.Version)
            {
                version = Fonts.Version;
                set = MakeSet();
                fills = null;
                Remade();
            }

            return set;
        }
    }

    /// <summary>How long the lines of its letters are, 0.01 mm.</summary>
    public abstract int Measure { get; }

    /// <summary>How far apart the paper's lines are that they stand on, 0.01 mm; 0 for free spacing.</summary>
    public virtual int Ruling => 0;

    /// <summary>
    /// What is to be said of <see cref="ItemField.Measure"/> for lines to be so long, 0.01 mm; null where they are as long as what they stand under.
    /// </summary>
    public virtual int? MeasureFor(int lines) => lines;

    /// <summary>Where letters are typed, their measures.</summary>
    public abstract Box Box { get; }

    /// <summary>The colour of letters that have none of their own, 0xRRGGBBAA.</summary>
    public virtual uint Colour => Ink;

    /// <summary>Whether letters of it are seen, or what is drawn for them.</summary>
    public virtual bool ShowsLetters => Typed.Length > 0;

    /// <summary>Whether what is typed in it can be read on the page, as letters or as what they stand for.</summary>
    public virtual bool IsReadable => ShowsLetters;

    public override string Words => Typed.Text;

    /// <summary>Where the measures of its letters lie on the page; with all that was done to it.</summary>
    public Affine Place => PlaceOf(true);

    public override OutlineKey OutlineKey => new(Set, base.OutlineKey.Form, default, true);

    public override int Coats => Below.Count + Fills.Count + Above.Count;

    public override Coat Coat(int index) =>
        Items.Coat.Full(
            (
                index < Below.Count ? Below[index]
                : index < Below.Count + Fills.Count ? Fills[index - Below.Count]
                : Above[index - Below.Count - Fills.Count]
            ).Colour
        );

    /// <summary>Puts its own measures where it was made: there nothing that was done to its place has been done.</summary>
    protected virtual Affine Lay => Affine.Of(added.Lay);

    /// <summary>The place by which its state is told: nothing that depends on the size of letters, which depends on the fonts that have come.</summary>
    protected virtual Affine StatePlace => OwnPlace(true);

    /// <summary>Where its first line begins in its own measures.</summary>
    protected virtual (double X, double Y) Beginning => (0, 0);

    /// <summary>How the box round the letters looks: what it is filled with, and the line round it; without colour where there is none.</summary>
    protected virtual BoxLook Around => default;

    /// <summary>The corners of its edge, its own measures.</summary>
    protected abstract IEnumerable<(double X, double Y)> Outline { get; }

    protected override (double X, double Y)[] Edge
    {
        get
        {
            var lay = Lay;
            return [.. Outline.Select(at => lay.Of(at.X, at.Y))];
        }
    }

    /// <summary>What is filled below all that has to do with letters, its own measures.</summary>
    protected virtual IReadOnlyList<Region> Below => [];

    /// <summary>What is filled over all else but the letters, its own measures.</summary>
    protected virtual IReadOnlyList<Region> Above => [];

    /// <summary>What is filled behind and under the letters, each colour once, the measures of the letters.</summary>
    private List<Region> Fills
    {
        get
        {
            _ = Set;
            return fills ??= TextFills.Of(Set, Colour, Box, Around, ShowsLetters);
        }
    }

    /// <summary>Where the measures of its letters lie on the page.</summary>
    /// <param name="shifted">Whether where it lies, or where it was made: without the frame's shift.</param>
    public Affine PlaceOf(bool shifted)
    {
        var (x, y) = Beginning;
        return OwnPlace(shifted).After(Affine.Identity.Shifted(x, y));
    }

    /// <summary>Where its own measures lie on the page; see <see cref="PlaceOf"/>.</summary>
    public Affine OwnPlace(bool shifted)
    {
        var lay = Lay;
        if (!Frame.IsOnlyShifted)
            return Frame.Placement!.Affine.After(lay);
        return shifted ? lay.Shifted(Frame.Dx, Frame.Dy) : lay;
    }

    /// <summary>Whether a press at a spot means its letters, or where they would be; 0.01 mm.</summary>
    public virtual bool IsTypedAt(double x, double y, double reach) => IsAt(x, y, reach);

    /// <summary>Where letters of it are set together at a spot on the page, or nearest to it: all of them, or the cell of a table.</summary>
    public virtual LetterRoom RoomAt(double x, double y) => Whole;

    /// <summary>The one of a name; null where it is not seen any more.</summary>
    public virtual LetterRoom? RoomBy(string name) => Whole;

    /// <summary>What is set in each of them that is read as it was typed, wherever in the text it stands by now: to look through all without working out where they lie.</summary>
    protected virtual IEnumerable<SetText> RoomSets => ShowsLetters ? [Set] : [];

    /// <summary>One of them by its number.</summary>
    protected virtual LetterRoom RoomNumbered(int number) => Whole;

    /// <summary>Those of them in which something holds of a paragraph.</summary>
    public IEnumerable<LetterRoom> RoomsWhere(Predicate<SetParagraph> holds)
    {
        var number = 0;
        foreach (var set in RoomSets)
        {
            var isOne = false;
            for (var i = 0; i < set.Paragraphs.Count && !isOne; i++)
                isOne = holds(set.Paragraphs[i].Paragraph);
            if (isOne)
                yield return RoomNumbered(number);
            number++;
        }
    }

    /// <summary>The one in which a letter stands.</summary>
    public virtual LetterRoom RoomOf(int letter) => Whole;

    private LetterRoom Whole => new("", Set, Place, Box, Measure);

    public override void Paint(ItemPainter painter, List<Interval> parts, bool shifted)
    {
        if (parts.Count == 0)
            return;
        PaintBelow(painter, OwnPlace(shifted));
        Paint(painter, Below, OwnPlace(shifted));
        Paint(painter, Fills, PlaceOf(shifted));
        Paint(painter, Above, OwnPlace(shifted));
        foreach (var (text, lies, colour) in Texts(shifted))
            painter.Write(text, lies, colour);
    }

    private static void Paint(ItemPainter painter, IReadOnlyList<Region> regions, Affine place)
    {
        foreach (var (colour, rings) in regions)
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
    }

    /// <summary>All that is written on it: the letters that are typed, and what else there is.</summary>
    public virtual IReadOnlyList<LaidText> Texts(bool shifted) => ShowsLetters ? [new LaidText(Set, PlaceOf(shifted), Colour)] : [];

    public override void Sketch(IItemSketcher sketcher, double tolerance)
    {
        SketchBelow(sketcher, OwnPlace(true));
        Sketch(sketcher, Below, OwnPlace(true));
        Sketch(sketcher, Fills, PlaceOf(true));
        Sketch(sketcher, Above, OwnPlace(true));
        foreach (var (text, lies, colour) in Texts(true))
        {
            var largest = text.Paragraphs.Max(one => one.Paragraph.Lines.Max(line => line.Size));
            if (Lengths.OfType(largest) / (double)Lengths.PerUnit * lies.Growth >= tolerance * Readable)
            {
                sketcher.Write(text, lies, colour);
                continue;
            }

            Sketch(sketcher, [new Region(Colours.Thinned(colour, FromAfar), [.. TextFills.Bars(text)])], lies);
        }
    }

    private static void Sketch(IItemSketcher sketcher, IReadOnlyList<Region> regions, Affine place)
    {
        foreach (var (colour, rings) in regions)
        {
            var lies = place;
            sketcher.Region(
                rings.Select(ring => ring.Select(at => lies.Of(at.X, at.Y)).SelectMany(at => new[] { (long)at.X, (long)at.Y }).ToArray()),
                colour
            );
        }
    }

    /// <summary>Paints what lies below all that is filled.</summary>
    protected virtual void PaintBelow(ItemPainter painter, in Affine place) { }

    /// <summary>The same for a small picture.</summary>
    protected virtual void SketchBelow(IItemSketcher sketcher, in Affine place) { }

    protected internal override void WorkOut(bool mayLieElsewhere)
    {
        base.WorkOut(mayLieElsewhere);
        if (mayLieElsewhere)
            set = null;
        fills = null;
    }

    /// <summary>Where it begins: how large letters are goes by the fonts.</summary>
    protected internal override Box StateBounds => Box.Around([StatePlace.Of(0, 0)]);

    protected internal override void WriteState(ByteWriter writer, SampleCodec.Writers columns)
    {
        writer.Fixed32(Filled);
        foreach (var field in Looks)
            writer.Text(Read(field));
        Parts.WriteTransform(writer, Transform.Near(StatePlace));
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

    /// <summary>The fields that say how it looks, which a copy takes over.</summary>
    protected abstract IReadOnlyList<ItemField> Looks { get; }

    /// <summary>What those fields say now, as far as they say anything.</summary>
    protected IReadOnlyList<ItemValue> Look =>
        [.. Looks.Select(one => new ItemValue(one, Read(one))).Where(value => value.Value.Length > 0)];

    protected override void BeforeLooking() => _ = Set;

    /// <summary>What a field says: as somebody set it since, or as it was made.</summary>
    protected string Read(ItemField field) => Frame.Read(field) is { Length: > 0 } set ? set : made.GetValueOrDefault(field, "");

    protected uint ColourIn(ItemField field) => Read(field) is { Length: > 0 } colour ? Colours.Read(colour) : 0;

    protected int Number(ItemField field, int usual) =>
        Read(field) is { Length: > 0 } text ? int.Parse(text, CultureInfo.InvariantCulture) : usual;

    /// <summary>Sets its letters.</summary>
    protected virtual SetText MakeSet() => typesetter.Set(Typed.Paragraphs(), Measure, Ruling);
}

/// <summary>How a box looks: colours as 0xRRGGBBAA, lengths in 0.01 mm.</summary>
/// <param name="Fill">What it is filled with; without alpha for nothing.</param>
/// <param name="Edge">The line round it; without alpha for none.</param>
/// <param name="EdgeWidth">How wide that is.</param>
/// <param name="Corner">The radius of its corners.</param>
public readonly record struct BoxLook(uint Fill, uint Edge, int EdgeWidth, int Corner);
