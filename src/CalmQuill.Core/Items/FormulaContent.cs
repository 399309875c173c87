using CalmQuill.Core.Formulas;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Typesetting;

namespace CalmQuill.Core.Items;

/// <summary>
/// A formula: what is typed in it is not shown as letters but set as formulas are, and worked out. Its own measures run from the beginning of its first line. What
/// it comes to is worked out anew wherever it is shown, so it follows what is typed.
/// </summary>
public sealed class FormulaContent(IItemFrame frame, Change.ThingAdded added) : WrittenContent(frame, added, Ink)
{
    /// <summary>Room around it, 0.01 mm.</summary>
    private const int Room = 100;

    /// <summary>What stands for one that nothing was typed in yet: its side, the width of its line, and its colour.</summary>
    private const int EmptySide = 450,
        EmptyLine = 15;
    private const uint EmptyColour = 0x9AA7A3FF;

    private static readonly ItemField[] Fields = [ItemField.Colour, ItemField.Shows, ItemField.Letter];

    private (string Text, string Shows, string Letter) decided;
    private DrawnFormula? drawn;
    private int drawnVersion;

    /// <summary>As it is drawn, and what it comes to.</summary>
    public DrawnFormula Drawn
    {
        get
        {
            // Letters are set anew when there are more fonts.
            if (drawn is null || drawnVersion != Fonts.Version)
                (drawn, drawnVersion) = (new DrawnFormula(decided.Text, decided.Shows, decided.Letter), Fonts.Version);
            return drawn;
        }
    }

    public override ItemKinds Kind => ItemKinds.Formula;

    public override Reshaping Reshaping => Reshaping.InProportion;

    public override uint Colour => Filled;

    public override bool ShowsLetters => false;

    public override bool IsReadable => Typed.Length > 0;

    public override int Measure => TextContent.MostMeasure;

    public override int? MeasureFor(int lines) => null;

    public override Box Box
    {
        get
        {
            if (Typed.Length == 0)
                return new Box(-Room, -EmptySide - Room, EmptySide + Room, Room);
            var (width, ascent, bottom) = Drawn.Extent;
            return new Box(-Room, -(int)Math.Ceiling(ascent) - Room, (int)Math.Ceiling(width) + Room, (int)Math.Ceiling(bottom) + Room);
        }
    }

    public override OutlineKey OutlineKey => base.OutlineKey with { Form = Typed.Length == 0 ? Fields : Drawn };

    protected override IEnumerable<(double X, double Y)> Outline => Box.Corners;

    protected override IReadOnlyList<ItemField> Looks => Fields;

    protected override IReadOnlyList<Region> Below =>
        Typed.Length == 0
            ?
            [
                new Region(
                    EmptyColour,
                    [
                        Region.Box(0, -EmptySide, EmptySide, 0),
                        [.. Region.Box(EmptyLine, EmptyLine - EmptySide, EmptySide - EmptyLine, -EmptyLine).Reverse()],
                    ]
                ),
            ]
        : Drawn.Bars.Count > 0 ? [new Region(Colour, Drawn.Bars)]
        : [];

    /// <summary>It is typed beside it, and not where it stands.</summary>
    public override bool IsTypedAt(double x, double y, double reach) => false;

    public override IReadOnlyList<LaidText> Texts(bool shifted)
    {
        if (Typed.Length == 0)
            return [];
        var place = OwnPlace(shifted);
        return [.. Drawn.Labels.Select(one => new LaidText(one.Label.Set, place.After(Affine.Identity.Shifted(one.X, one.Y)), Colour))];
    }

    /// <summary>What is typed is spread over what is shown, so that what is found in it is marked about where it is seen.</summary>
    public override LetterRoom RoomOf(int letter)
    {
        var box = Box;
        var widest = Set.Paragraphs.Max(one => one.Paragraph.Lines.Max(line => line.Left + line.Width)) / (double)Lengths.PerUnit;
        var (ascent, bottom) = (Set.Ascent / (double)Lengths.PerUnit, Set.Bottom / (double)Lengths.PerUnit);
        double across = (box.Right - box.Left) / Math.Max(1, widest),
            down = (box.Bottom - box.Top) / Math.Max(1, ascent + bottom);
        return new LetterRoom(
            "",
            Set,
            OwnPlace(true).After(new Affine(across, 0, 0, down, box.Left, box.Top + ascent * down)),
            box,
            Measure
        );
    }

    public override LetterRoom RoomAt(double x, double y) => RoomOf(0);

    public override LetterRoom? RoomBy(string name) => RoomOf(0);

    public override Change.ItemAdded Copy() =>
        new Change.ThingAdded(
            ThingKind.Formula,
            Transform.Near(OwnPlace(true)),
            added.Width,
            added.Height,
            Writing.Passage.Of(Typed.Paragraphs()),
            Look
        );

    /// <summary>How far it reaches goes by what is typed in it.</summary>
    protected internal override void WorkOut(bool mayLieElsewhere)
    {
        var decides = (Typed.Text, Read(ItemField.Shows), Read(ItemField.Letter));
        if (decides != decided)
            (decided, drawn) = (decides, null);
        base.WorkOut(true);
    }
}
