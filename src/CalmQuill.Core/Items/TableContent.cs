using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Tables;
using CalmQuill.Core.Typesetting;
using CalmQuill.Core.Writing;

namespace CalmQuill.Core.Items;

/// <summary>Rows and columns of cells; all that is written in them is one text, see <see cref="TableText"/>. What is written on it by hand goes along with it.</summary>
public sealed class TableContent(IItemFrame frame, Change.ThingAdded added) : BoxedContent(frame, added, Ink)
{
    /// <summary>The lines where nothing is said of them, 0xRRGGBBAA, and how wide they are, 0.01 mm.</summary>
    private const uint UsualEdge = 0x6B7C78FF;
    private const int UsualEdgeWidth = 18;

    private static readonly ItemField[] Fields = [ItemField.Colour, ItemField.Fill, ItemField.Edge, ItemField.EdgeWidth, ItemField.Shows];

    /// <summary>All its letters are those of cells.</summary>
    private static readonly SetText Nothing = Label.Of(" ", 100).Set;

    private readonly Dictionary<TableName, CellSetter> setters = [];
    private TableLayout? layout;
    private (int Width, string Shows, int Fonts) how;
    private IReadOnlyList<Region>? below;
    private (Affine Place, uint Colour, IReadOnlyList<(SetText Set, int X, int Y)> Letters, LaidText[] Laid) painted = (default, 0, [], []);

    /// <summary>Where its cells lie.</summary>
    public TableLayout Layout
    {
        get
        {
            _ = Set;
            return layout!;
        }
    }

    /// <summary>Words that say how it looks.</summary>
    public string Says => Read(ItemField.Shows);

    public override ItemKinds Kind => ItemKinds.Table;

    public override bool Carries => true;

    public override int Rank => 2;

    /// <summary>Without a paper of its own it is lines and letters, and what lies below shows through.</summary>
    public override bool Covers => (Paper & 0xFF) == 0xFF;

    public override Reshaping Reshaping => Reshaping.InProportion;

    public override int Measure => Math.Max(Width, TextContent.LeastMeasure);

    public override int? MeasureFor(int lines) => null;

    public override Box Box => Shows;

    public override uint Colour => Filled;

    public override string Words => Layout.Text.Words;

    public override bool ShowsLetters => Layout.Text.Cells.Any(cell => cell.HasLetters) || Layout.Totals.Any(total => total.Length > 0);

    /// <summary>Nothing where all its rows or columns were removed.</summary>
    public override List<Interval> Visible() => Layout.Text.IsEmpty ? [] : base.Visible();

    protected override Box Shows =>
        new(0, 0, Math.Max(Layout.Width, TableLimits.LeastExtent), Math.Max(Layout.Height, TableLimits.LeastExtent));

    protected override IReadOnlyList<Region> Below
    {
        get
        {
            var cells = Layout;
            return below ??= cells.Fills(Paper, Colour, EdgeColour, EdgeWidth);
        }
    }

    protected override IReadOnlyList<ItemField> Looks => Fields;

    private uint Paper => ColourIn(ItemField.Fill);

    /// <summary>The colour of the lines between its cells; without alpha for none.</summary>
    public uint EdgeColour =>
        Read(ItemField.Edge).Length > 0 ? ColourIn(ItemField.Edge)
        : Says.Split(' ').Contains(TableLayout.NoLines) ? 0
        : UsualEdge;

    /// <summary>How wide those lines are, 0.01 mm.</summary>
    public int EdgeWidth => Number(ItemField.EdgeWidth, UsualEdgeWidth);

    /// <summary>All that is painted is below the letters, and stays the same for as long as it looks so.</summary>
    public override OutlineKey OutlineKey => base.OutlineKey with { Form = Below };

    public override IReadOnlyList<LaidText> Texts(bool shifted)
    {
        var place = OwnPlace(shifted);
        var laid = Laid(place, Layout.Letters);
        return Layout.Totals.Any(total => total.Length > 0)
            ?
            [
                .. laid,
                .. Layout
                    .TotalLabels()
                    .Select(one => new LaidText(one.Label.Set, place.After(Affine.Identity.Shifted(one.X, one.Y)), Colour)),
            ]
            : laid;
    }

    /// <summary>The letters of cells where they lie; those that lie as they did are the same.</summary>
    private LaidText[] Laid(in Affine place, IReadOnlyList<(SetText Set, int X, int Y)> letters)
    {
        var (before, isInPlace) = (painted, painted.Place == place && painted.Colour == Colour);
        if (isInPlace && ReferenceEquals(before.Letters, letters))
            return before.Laid;
        var laid = new LaidText[letters.Count];
        for (var i = 0; i < laid.Length; i++)
        {
            var (set, x, y) = letters[i];
            laid[i] =
                isInPlace
                && i < before.Laid.Length
                && ReferenceEquals(before.Letters[i].Set, set)
                && (before.Letters[i].X, before.Letters[i].Y) == (x, y)
                    ? before.Laid[i]
                    : new LaidText(set, place.After(Affine.Identity.Shifted(x, y)), Colour);
        }

        painted = (place, Colour, letters, laid);
        return laid;
    }

    public override LetterRoom RoomAt(double x, double y)
    {
        var (bx, by) = OwnPlace(true).Back(x, y);
        return RoomOf(Layout.At(bx, by));
    }

    /// <summary>The cell of that name, or what it was joined to; the first where none is named.</summary>
    public override LetterRoom? RoomBy(string name) =>
        TableName.TryParse(name, out var cell)
            ? Layout.Text.Find(cell) is { } found
                ? RoomOf(found)
                : null
            : Layout.Text.IsEmpty
                ? null
                : RoomOf(Layout.Text[0, 0]);

    protected override IEnumerable<SetText> RoomSets => Layout.Letters.Select(one => one.Set);

    protected override LetterRoom RoomNumbered(int number) => RoomOf(Layout.Text.Lettered(number));

    public override LetterRoom RoomOf(int letter) => RoomOf(Layout.Text.CellOf(letter));

    protected override SetText MakeSet()
    {
        var (paragraphs, now) = (Typed.Paragraphs(), (Width, Says, Fonts.Version));
        // Mostly somebody types into a cell, and all others are as they were.
        layout =
            how == now && layout?.Text.Retyped(paragraphs) is (var text, var changed)
                ? layout.Retyped(text, changed)
                : new TableLayout(TableText.Of(paragraphs), Width, Says, setters);
        (how, below) = (now, null);
        return Nothing;
    }

    protected internal override void WorkOut(bool mayLieElsewhere)
    {
        base.WorkOut(true);
        below = null;
    }

    private LetterRoom RoomOf(TableCell cell)
    {
        var box = Layout.BoxOf(cell);
        var (x, y) = Layout.BeginningOf(cell);
        return new LetterRoom(
            cell.Name.ToString(),
            Layout.SetOf(cell),
            PlaceOf(cell, OwnPlace(true)),
            new Box(box.Left - x, box.Top - y, box.Right - x, box.Bottom - y),
            Layout.MeasureOf(cell)
        );
    }

    private Affine PlaceOf(TableCell cell, Affine own)
    {
        var (x, y) = Layout.BeginningOf(cell);
        return own.After(Affine.Identity.Shifted(x, y));
    }
}
