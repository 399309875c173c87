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

    private static int editions;

    private readonly Dictionary<TableName, CellSetter> setters;
    private readonly int[] left,
        top;

    /// <summary>The letters of each cell, by the cells' numbers; where in the text they stand may have been before.</summary>
    private readonly SetText[] sets;

    /// <summary>Which columns hold numbers and nothing else, and of how many cells of each that is so and not.</summary>
    private readonly (int Numbers, int Others)[] counts;

    private List<(SetText Set, int X, int Y)>? letters;

    /// <summary>What is filled, as it was asked for last.</summary>
    private (uint Paper, uint Ink, uint Edge, int EdgeWidth, IReadOnlyList<Region> Fills)? grounds;

    /// <param name="text">The table.</param>
    /// <param name="width">How wide it was made, for columns of which nothing is said.</param>
    /// <param name="shows">Words that say how it looks, parted by blanks.</param>
    /// <param name="setters">What sets the cells, by their names; remembers what it set before.</param>
    internal TableLayout(TableText text, int width, string shows, Dictionary<TableName, CellSetter> setters)
    {
        (Text, Headings, this.setters) = (text, shows.Split(' ').Contains(Header) ? 1 : 0, setters);
        var usual = text.Columns.Count > 0 ? Math.Max(width / text.Columns.Count, TableLimits.LeastExtent) : 0;
        left = Edges(text.Columns.Select(column => column.Extent > 0 ? column.Extent : usual));
        counts = new (int, int)[text.Columns.Count];
        foreach (var cell in text.Cells)
            Count(cell, 1);
        sets = [.. text.Cells.Select(Set)];
        top = Edges(Heights());
        Totals = [.. text.Columns.Select((_, at) => TotalOf(at))];
        Edition = Interlocked.Increment(ref editions);
    }

    /// <summary>The same with other letters in some cells.</summary>
    private TableLayout(TableLayout same, TableText text, IReadOnlyCollection<TableCell> changed)
    {
        (Text, Headings, setters, left) = (text, same.Headings, same.setters, same.left);
        (sets, counts) = ([.. same.sets], [.. same.counts]);
        foreach (var cell in changed)
        {
            Count(same.Text[cell.Row, cell.Column], -1);
            Count(cell, 1);
        }

        // Where a column holds numbers now, or no longer, all its cells stand otherwise.
        var turned = Enumerable.Range(0, counts.Length).Where(at => HoldsNumbers(at) != same.HoldsNumbers(at)).ToHashSet();
        var (isAsHigh, isFilledAlike) = (true, true);
        foreach (var cell in turned.Count > 0 ? text.Cells.Where(cell => turned.Contains(cell.Column)).Union(changed) : changed)
        {
            sets[cell.Index] = Set(cell);
            var (before, now) = (same.sets[cell.Index], sets[cell.Index]);
            isAsHigh &= HeightOf(now) == HeightOf(before);
            isFilledAlike &= !HasFills(now) && !HasFills(before);
        }

        top = isAsHigh ? same.top : Edges(Heights());
        var columns = changed.Select(cell => cell.Column).ToHashSet();
        Totals = [.. text.Columns.Select((_, at) => columns.Contains(at) ? TotalOf(at) : same.Totals[at])];
        if (isAsHigh && isFilledAlike && HasTotals == same.HasTotals)
            grounds = same.grounds;
        Edition = isAsHigh && Totals.SequenceEqual(same.Totals) ? same.Edition : Interlocked.Increment(ref editions);
        if (isAsHigh && turned.Count == 0 && same.letters is not null)
        {
            letters = [.. same.letters];
            foreach (var cell in changed.Where(cell => cell.HasLetters))
                letters[cell.LetteredBefore] = LettersOf(cell);
        }
    }

    /// <summary>The same table with other letters in some of its cells.</summary>
    /// <param name="text">The table now: <see cref="TableText.Retyped"/>.</param>
    /// <param name="changed">The cells.</param>
    internal TableLayout Retyped(TableText text, IReadOnlyCollection<TableCell> changed) => new(this, text, changed);

    public TableText Text { get; }

    /// <summary>Another number whenever more of it became another than letters.</summary>
    public int Edition { get; }

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
    public SetText SetOf(TableCell cell)
    {
        var (set, paragraphs) = (sets[cell.Index], Written(cell));
        for (var i = 0; i < paragraphs.Count; i++)
        {
            if (set.Paragraphs[i].Start != paragraphs[i].Start)
                return sets[cell.Index] = set with
                {
                    Paragraphs = [.. set.Paragraphs.Zip(paragraphs, (one, paragraph) => (one.Paragraph, paragraph.Start, one.Y))],
                };
        }

        return set;
    }

    /// <summary>The letters of all cells that have any, and where their first lines begin; wherever in the text they stand.</summary>
    internal IReadOnlyList<(SetText Set, int X, int Y)> Letters =>
        letters ??= [.. Text.Cells.Where(cell => cell.HasLetters).Select(LettersOf)];

    private (SetText Set, int X, int Y) LettersOf(TableCell cell)
    {
        var (x, y) = BeginningOf(cell);
        return (sets[cell.Index], x, y);
    }

    /// <summary>The box of a cell.</summary>
    public Box BoxOf(TableCell cell) => new(left[cell.Column], top[cell.Row], left[cell.LastColumn + 1], top[cell.LastRow + 1]);

    /// <summary>Where the first line of a cell begins.</summary>
    public (int X, int Y) BeginningOf(TableCell cell) =>
        (left[cell.Column] + Side, top[cell.Row] + Edge + sets[cell.Index].Ascent / Lengths.PerUnit);

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
    public IReadOnlyList<Region> Fills(uint paper, uint ink, uint edge, int edgeWidth)
    {
        if (grounds is not { } known || (known.Paper, known.Ink, known.Edge, known.EdgeWidth) != (paper, ink, edge, edgeWidth))
            grounds = known = (paper, ink, edge, edgeWidth, AllFills(paper, ink, edge, edgeWidth));
        return known.Fills;
    }

    private List<Region> AllFills(uint paper, uint ink, uint edge, int edgeWidth)
    {
        var fills = CellFills(paper);
        foreach (var (set, x, y) in Letters)
        {
            if (!HasFills(set))
                continue;
            foreach (var region in TextFills.Of(set, ink, default, default, true))
                fills.Add(new Region(region.Colour, [.. region.Rings.Select(ring => ring.Select(at => (at.X + x, at.Y + y)).ToArray())]));
        }

        fills.AddRange(Lines(edge, edgeWidth));
        return fills;
    }

    private static bool HasFills(SetText set)
    {
        foreach (var (paragraph, _, _) in set.Paragraphs)
        {
            if (paragraph.HasFills)
                return true;
        }

        return false;
    }

    private List<Region> CellFills(uint paper)
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
            if ((fill & 0xFF) == 0)
                continue;
            var (l, t, r, b) = BoxOf(cell);
            (cells.TryGetValue(fill, out var those) ? those : cells[fill] = []).Add(Region.Box(l, t, r, b));
        }

        fills.AddRange(cells.Select(one => new Region(one.Key, one.Value)));
        return fills;
    }

    private List<Region> Lines(uint edge, int wide) => (edge & 0xFF) > 0 && !Text.IsEmpty ? [new Region(edge, [.. Rules(wide)])] : [];

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

    private SetText Set(TableCell cell)
    {
        if (!setters.TryGetValue(cell.Name, out var setter))
            setter = setters[cell.Name] = new CellSetter();
        return setter.Set(Written(cell), MeasureOf(cell), IsHeading(cell), AlignOf(cell));
    }

    /// <summary>How high each row is. What is in cells that were joined takes what room there is, and their last row grows for the rest.</summary>
    private int[] Heights()
    {
        int[] heights = [.. Text.Rows.Select(row => row.Extent > 0 ? row.Extent : UsualRow)];
        var joined = new List<TableCell>();
        foreach (var cell in Text.Cells)
        {
            if (!cell.HasLetters)
                continue;
            if (cell.LastRow > cell.Row)
                joined.Add(cell);
            else
                heights[cell.Row] = Math.Max(heights[cell.Row], HeightOf(sets[cell.Index]) + 2 * Edge);
        }

        foreach (var cell in joined.OrderBy(cell => cell.LastRow - cell.Row))
            heights[cell.LastRow] += Math.Max(0, HeightOf(sets[cell.Index]) + 2 * Edge - heights[cell.Row..(cell.LastRow + 1)].Sum());
        return heights;
    }

    /// <summary>Numbers stand to the right where nothing else is said.</summary>
    private string AlignOf(TableCell cell) =>
        Text.Columns[cell.Column].Align is { Length: > 0 } said ? said
        : HoldsNumbers(cell.Column) && !cell.IsJoined ? "right"
        : "";

    /// <summary>Whether a column holds numbers and nothing else, below a heading.</summary>
    private bool HoldsNumbers(int column) => counts[column] is { Numbers: > 0, Others: 0 };

    private void Count(TableCell cell, int by)
    {
        if (!cell.HasLetters || cell.IsJoined || IsHeading(cell))
            return;
        if (TableNumber.Read(cell.Text) is null)
            counts[cell.Column].Others += by;
        else
            counts[cell.Column].Numbers += by;
    }

    /// <summary>What stands under a column; empty for nothing.</summary>
    private string TotalOf(int column) =>
        Text.Columns[column].Total is { Length: > 0 } total
            ? TableNumber.Total(total, Text.Cells.Where(cell => cell.Column == column && !IsHeading(cell)).Select(cell => cell.Text))
            : "";

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
