using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Plots;
using CalmQuill.Core.Typesetting;
using CalmQuill.Core.Writing;

namespace CalmQuill.Core.Tables;

/// <summary>Where the cells of a table lie and what is set in them, from the table's upper left corner; 0.01 mm.</summary>
public sealed class TableLayout
{
    /// <summary>Words that say how a table looks: its first row is a heading; no lines between cells.</summary>
    public const string Header = "header",
        NoLines = "plain";

    /// <summary>Letters keep so far from the sides of their cell, and from its upper and lower edge.</summary>
    public const int Side = 140,
        Edge = 90;

    /// <summary>How high a row is at least where nothing is said.</summary>
    public const int UsualRow = 800;

    /// <summary>Type of what stands under columns, 0.1 pt, and how high that row is.</summary>
    private const int TotalType = 110,
        TotalRow = 700;

    private const uint HeaderFill = 0xE4ECE8FF;

    private readonly int[] left,
        top;
    private readonly Dictionary<TableCell, SetText> sets = [];

    /// <param name="text">The table.</param>
    /// <param name="width">How wide it was made, for columns of which nothing is said.</param>
    /// <param name="shows">Words that say how it looks, parted by blanks.</param>
    /// <param name="setters">What sets the cells, by their names; remembers what it set before.</param>
    internal TableLayout(TableText text, int width, string shows, Dictionary<TableName, CellSetter> setters)
    {
        (Text, Headings) = (text, shows.Split(' ').Contains(Header) ? 1 : 0);
        var usual = text.Columns.Count > 0 ? Math.Max(width / text.Columns.Count, TableLimits.LeastExtent) : 0;
        left = Edges(text.Columns.Select(column => column.Extent > 0 ? column.Extent : usual));
        var heights = text.Rows.Select(row => row.Extent > 0 ? row.Extent : UsualRow).ToArray();
        var numbers = NumbersIn();
        foreach (var cell in text.Cells)
        {
            var setter = setters.TryGetValue(cell.Name, out var known) ? known : setters[cell.Name] = new CellSetter();
            sets[cell] = setter.Set(Written(cell), MeasureOf(cell), IsHeading(cell), AlignOf(cell, numbers));
        }

        // Cells of one row first: what was joined takes what room there is, and its last row grows for the rest.
        foreach (var cell in text.Cells.OrderBy(cell => cell.LastRow - cell.Row))
        {
            var needed = HeightOf(sets[cell]) + 2 * Edge - heights[cell.Row..(cell.LastRow + 1)].Sum();
            if (needed > 0 && cell.HasLetters)
                heights[cell.LastRow] += needed;
        }

        top = Edges(heights);
        Totals = [.. text.Columns.Select((column, at) => column.Total.Length == 0 ? "" : TotalOf(column, at))];
    }

    public TableText Text { get; }

    /// <summary>How many rows from the top are a heading.</summary>
    public int Headings { get; }

    public int Width => left[^1];

    public int Height => top[^1] + (HasTotals ? TotalRow : 0);

    /// <summary>The edges of the columns from the left, one more than there are.</summary>
    public IReadOnlyList<int> Across => left;

    /// <summary>The edges of the rows from the top, one more than there are; without the one of the totals.</summary>
    public IReadOnlyList<int> Down => top;

    /// <summary>What stands under each column; empty for nothing.</summary>
    public IReadOnlyList<string> Totals { get; }

    private bool HasTotals => Totals.Any(total => total.Length > 0);

    /// <summary>The letters of a cell as they are set; one that is empty has an empty line.</summary>
    public SetText SetOf(TableCell cell) => sets[cell];

    /// <summary>The box of a cell.</summary>
    public Box BoxOf(TableCell cell) => new(left[cell.Column], top[cell.Row], left[cell.LastColumn + 1], top[cell.LastRow + 1]);

    /// <summary>Where the first line of a cell begins.</summary>
    public (int X, int Y) BeginningOf(TableCell cell) =>
        (left[cell.Column] + Side, top[cell.Row] + Edge + sets[cell].Ascent / Lengths.PerUnit);

    /// <summary>How long the lines of a cell are.</summary>
    public int MeasureOf(TableCell cell) => Math.Max(left[cell.LastColumn + 1] - left[cell.Column] - 2 * Side, Side);

    /// <summary>How wide a column is on whose lines all that is in it has room, as far as a column can be so wide; cells that were joined do not count.</summary>
    public int WidthFor(int column)
    {
        var widest = Text
            .Cells.Where(cell => cell.Column == column && !cell.IsJoined && cell.HasLetters)
            .Select(cell => new CellSetter().Set(Written(cell), TableLimits.MostExtent, IsHeading(cell), ""))
            .SelectMany(set => set.Paragraphs)
            .Select(one =>
                one.Paragraph.Style.Indent + one.Paragraph.Style.Hang + one.Paragraph.Lines.Max(line => line.Width) / Lengths.PerUnit
            )
            .DefaultIfEmpty(0)
            .Max();
        // A line that just has room must have it after rounding, too.
        return Math.Clamp(widest + 2 * Side + 2, TableLimits.LeastExtent, TableLimits.MostExtent);
    }

    /// <summary>The cell at a spot, or the nearest; there must be one.</summary>
    public TableCell At(double x, double y) => Text[PlaceOf(top, y), PlaceOf(left, x)];

    /// <summary>What is filled: the cells, what is behind and under letters, and the lines.</summary>
    /// <param name="paper">The colour of the paper; without alpha for none.</param>
    /// <param name="ink">The colour of letters that have none of their own.</param>
    /// <param name="edge">The colour of the lines; without alpha for none.</param>
    /// <param name="edgeWidth">How wide they are.</param>
    public List<Region> Fills(uint paper, uint ink, uint edge, int edgeWidth)
    {
        var fills = new List<Region>();
        if ((paper & 0xFF) > 0)
            fills.Add(new Region(paper, [Region.Box(0, 0, Width, Height)]));
        var cells = new SortedDictionary<uint, List<(double X, double Y)[]>>();
        foreach (var cell in Text.Cells)
        {
            var fill =
                cell.Look[Trait.Fill] is { Length: > 0 } own ? Art.Colours.Read(own)
                : IsHeading(cell) ? HeaderFill
                : 0;
            var (l, t, r, b) = BoxOf(cell);
            if ((fill & 0xFF) > 0)
                (cells.TryGetValue(fill, out var those) ? those : cells[fill] = []).Add(Region.Box(l, t, r, b));
        }

        fills.AddRange(cells.Select(one => new Region(one.Key, one.Value)));
        foreach (var cell in Text.Cells.Where(cell => cell.HasLetters))
        {
            var (x, y) = BeginningOf(cell);
            foreach (var region in TextFills.Of(sets[cell], ink, default, default, true))
                fills.Add(new Region(region.Colour, [.. region.Rings.Select(ring => ring.Select(at => (at.X + x, at.Y + y)).ToArray())]));
        }

        if ((edge & 0xFF) > 0 && !Text.IsEmpty)
            fills.Add(new Region(edge, [.. Rules(edgeWidth)]));
        return fills;
    }

    /// <summary>What stands under columns: the letters, and where they begin.</summary>
    public IEnumerable<(Label Label, double X, double Y)> TotalLabels()
    {
        for (var column = 0; column < Totals.Count; column++)
        {
            if (Totals[column].Length == 0)
                continue;
            var label = Label.Of(Totals[column], TotalType);
            yield return (label, Math.Max(left[column] + Side, left[column + 1] - Side - label.Width), top[^1] + TotalRow - 230);
        }
    }

    /// <summary>The lines between cells, but not through those that were joined. Lines side by side are one.</summary>
    private IEnumerable<(double X, double Y)[]> Rules(int wide)
    {
        var half = wide / 2.0;
        int rows = Text.Rows.Count,
            columns = Text.Columns.Count;
        for (var row = 0; row <= rows; row++)
        {
            foreach (var (from, to) in Runs(columns, column => row == 0 || row == rows || Text[row - 1, column] != Text[row, column]))
                yield return Region.Box(left[from] - half, top[row] - half, left[to] + half, top[row] + half);
        }

        for (var column = 0; column <= columns; column++)
        {
            foreach (var (from, to) in Runs(rows, row => column == 0 || column == columns || Text[row, column - 1] != Text[row, column]))
                yield return Region.Box(left[column] - half, top[from] - half, left[column] + half, top[to] + half);
        }

        // Under the last row stands a second line, and what the columns come to.
        if (HasTotals)
            yield return Region.Box(left[0], top[^1] + 3 * half, left[^1], top[^1] + 5 * half);
    }

    private static IEnumerable<(int From, int To)> Runs(int count, Predicate<int> holds)
    {
        for (var from = 0; from < count; )
        {
            var to = from;
            while (to < count && holds(to))
                to++;
            if (to > from)
                yield return (from, to);
            from = to + 1;
        }
    }

    private static readonly Paragraph Empty = new(0, [], Look.Usual);

    private static IReadOnlyList<Paragraph> Written(TableCell cell) => cell.Paragraphs.Count > 0 ? cell.Paragraphs : [Empty];

    /// <summary>The heading is bold.</summary>
    private bool IsHeading(TableCell cell) => cell.Row < Headings;

    /// <summary>Numbers stand to the right where nothing else is said.</summary>
    private string AlignOf(TableCell cell, bool[] numbers) =>
        Text.Columns[cell.Column].Align is { Length: > 0 } said ? said
        : numbers[cell.Column] && !cell.IsJoined ? "right"
        : "";

    /// <summary>Which columns hold numbers and nothing else, below a heading.</summary>
    private bool[] NumbersIn()
    {
        var (numbers, others) = (new int[Text.Columns.Count], new int[Text.Columns.Count]);
        foreach (var cell in Text.Cells.Where(cell => cell.HasLetters && !cell.IsJoined && !IsHeading(cell)))
            (TableNumber.Read(cell.Text) is null ? others : numbers)[cell.Column]++;
        return [.. numbers.Select((count, column) => count > 0 && others[column] == 0)];
    }

    private string TotalOf(TableLine column, int at) =>
        TableNumber.Total(column.Total, Text.Cells.Where(cell => cell.Column == at && !IsHeading(cell)).Select(cell => cell.Text));

    private static int HeightOf(SetText set) => (set.Ascent + set.Bottom) / Lengths.PerUnit;

    private static int[] Edges(IEnumerable<int> extents)
    {
        var edges = new List<int> { 0 };
        foreach (var extent in extents)
            edges.Add(edges[^1] + extent);
        return [.. edges];
    }

    private static int PlaceOf(int[] edges, double at)
    {
        var place = 0;
        while (place + 2 < edges.Length && at >= edges[place + 1])
            place++;
        return place;
    }
}
