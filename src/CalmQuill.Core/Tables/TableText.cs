using System.Globalization;
using CalmQuill.Core.Ordering;
using CalmQuill.Core.Writing;

namespace CalmQuill.Core.Tables;

/// <summary>
/// A table as its text tells of it. The text has a paragraph for each row and each column, in whatever order they were made, and one or more for each cell
/// in which something was written; <see cref="Trait.Cell"/> says which is which. So rows that two people add at once are both there, and what one writes into a row that
/// another removes meanwhile has the row back.
/// </summary>
public sealed class TableText
{
    private static readonly IReadOnlyList<int> None = [];

    private readonly IReadOnlyList<Paragraph> paragraphs;
    private readonly Dictionary<TableName, List<int>> written;
    private readonly Dictionary<string, int> rowAt,
        columnAt;
    private readonly CellPlan[,] grid;
    private readonly List<CellPlan> plans,
        lettered;

    /// <summary>In which cell a paragraph is seen; null for one that is seen in none.</summary>
    private readonly CellPlan?[] seenIn;

    private TableText(IReadOnlyList<Paragraph> paragraphs)
    {
        this.paragraphs = paragraphs;
        (written, seenIn) = ([], new CellPlan?[paragraphs.Count]);
        var rows = new Dictionary<string, TableLine>();
        var columns = new Dictionary<string, TableLine>();
        var astray = new List<int>();
        for (var at = 0; at < paragraphs.Count; at++)
        {
            if (!TableName.TryParse(paragraphs[at].Look[Trait.Cell], out var name))
                Stray(at);
            else if (name.IsCell)
                (written.TryGetValue(name, out var those) ? those : written[name] = []).Add(at);
            else
            {
                // What was typed into a paragraph that is none.
                Stray(at);
                if (name.Column.Length == 0)
                    _ = rows.TryAdd(name.Row, LineOf(name.Row, paragraphs[at].Look, at));
                else
                    _ = columns.TryAdd(name.Column, LineOf(name.Column, paragraphs[at].Look, at));
            }
        }

        AllRows = InOrder(rows, TableLimits.MostRows);
        AllColumns = InOrder(columns, TableLimits.MostColumns);
        var (known, across) = (AllRows.Select(row => row.Id).ToHashSet(), AllColumns.Select(column => column.Id).ToHashSet());
        var (used, usedAcross) = (new HashSet<string>(), new HashSet<string>());
        foreach (var (name, those) in written)
        {
            if (!those.Exists(HasLetters))
                continue;
            if (known.Contains(name.Row) && across.Contains(name.Column))
            {
                used.Add(name.Row);
                usedAcross.Add(name.Column);
            }
            else
                astray.AddRange(those);
        }

        // A removed line is seen again where somebody wrote into it meanwhile.
        Rows = [.. AllRows.Where(row => !row.IsGone || used.Contains(row.Id))];
        Columns = [.. AllColumns.Where(column => !column.IsGone || usedAcross.Contains(column.Id))];
        (rowAt, columnAt) = (PlacesOf(Rows), PlacesOf(Columns));
        grid = new CellPlan[Rows.Count, Columns.Count];
        (plans, lettered) = Fill(astray);

        void Stray(int at)
        {
            if (HasLetters(at))
                astray.Add(at);
        }
    }

    /// <summary>The same with other letters.</summary>
    private TableText(TableText same, IReadOnlyList<Paragraph> paragraphs)
    {
        this.paragraphs = paragraphs;
        (written, seenIn, grid, plans, lettered) = (same.written, same.seenIn, same.grid, same.plans, same.lettered);
        (rowAt, columnAt) = (same.rowAt, same.columnAt);
        (AllRows, AllColumns, Rows, Columns) = (same.AllRows, same.AllColumns, same.Rows, same.Columns);
    }

    /// <param name="paragraphs">The paragraphs of its text.</param>
    public static TableText Of(IReadOnlyList<Paragraph> paragraphs) => new(paragraphs);

    /// <summary>
    /// The table as it is now, and the cells that have other letters; null where more became another than that, and it is to be read anew.
    /// </summary>
    /// <param name="now">The paragraphs of its text now.</param>
    public (TableText Text, IReadOnlyCollection<TableCell> Changed)? Retyped(IReadOnlyList<Paragraph> now)
    {
        if (ReferenceEquals(now, paragraphs))
            return (this, []);
        if (now.Count != paragraphs.Count)
            return null;
        var (head, tail) = SameEnds.Of(paragraphs, now, (one, other) => one.SaysTheSame(other));
        var text = new TableText(this, now);
        var changed = new HashSet<TableCell>();
        for (var at = head; at < now.Count - tail; at++)
        {
            if (!now[at].Look.Equals(paragraphs[at].Look) || now[at].Length > 0 != paragraphs[at].Length > 0)
                return null;
            if (seenIn[at] is { } plan)
                changed.Add(new TableCell(text, plan));
        }

        return (text, changed);
    }

    /// <summary>All rows in their order, those that were removed among them.</summary>
    public IReadOnlyList<TableLine> AllRows { get; }

    /// <inheritdoc cref="AllRows"/>
    public IReadOnlyList<TableLine> AllColumns { get; }

    /// <summary>The rows that are seen, from the top.</summary>
    public IReadOnlyList<TableLine> Rows { get; }

    /// <summary>The columns that are seen, from the left.</summary>
    public IReadOnlyList<TableLine> Columns { get; }

    /// <summary>The cells, row by row; those that were joined are one.</summary>
    public IReadOnlyList<TableCell> Cells => field ??= [.. plans.Select(plan => new TableCell(this, plan))];

    /// <summary>One of the cells that have letters, by its number among those.</summary>
    public TableCell Lettered(int number) => new(this, lettered[number]);

    public bool IsEmpty => Rows.Count == 0 || Columns.Count == 0;

    /// <summary>The cell at a row and a column.</summary>
    public TableCell this[int row, int column] => new(this, grid[row, column]);

    /// <summary>The cell of a name, or the one that it was joined to; null where it is not seen.</summary>
    public TableCell? Find(TableName name) =>
        rowAt.TryGetValue(name.Row, out var row) && columnAt.TryGetValue(name.Column, out var column) ? this[row, column] : null;

    /// <summary>The cell in which a letter stands, or would; the first for one that stands in none.</summary>
    public TableCell CellOf(int letter)
    {
        var at = paragraphs.CountWhile(paragraph => paragraph.Start <= letter) - 1;
        return new TableCell(this, (at >= 0 ? seenIn[at] : null) ?? plans[0]);
    }

    /// <summary>Where in the text the paragraph begins that stands for a row or a column.</summary>
    public int StartOf(TableLine line) => paragraphs[line.Paragraph].Start;

    /// <summary>The same by a name as it is written; null also for what is no name.</summary>
    public TableCell? Find(string name) => TableName.TryParse(name, out var own) ? Find(own) : null;

    /// <summary>The cells from one to another and all between them, cutting through none that were joined.</summary>
    public CellRange Between(TableCell one, TableCell other)
    {
        var range = new CellRange(one.Row, one.Column, one.LastRow, one.LastColumn).With(other);
        while (true)
        {
            var wider = Within(range).Aggregate(range, (all, cell) => all.With(cell));
            if (wider == range)
                return range;
            range = wider;
        }
    }

    /// <summary>The cells of a range, as far as there are such, row by row; those that were joined once.</summary>
    public IReadOnlyList<TableCell> Within(CellRange range) =>
        [
            .. Cells.Where(cell =>
                cell.LastRow >= range.Row && cell.Row <= range.LastRow && cell.LastColumn >= range.Column && cell.Column <= range.LastColumn
            ),
        ];

    /// <summary>What is written in each row and column of a range; what was joined stands in its first.</summary>
    public List<IEnumerable<string>> RowsOf(CellRange range) =>
        [
            .. Enumerable
                .Range(range.Row, range.Rows)
                .Where(row => row < Rows.Count)
                .Select(row =>
                    Enumerable
                        .Range(range.Column, range.Columns)
                        .Where(column => column < Columns.Count)
                        .Select(column => this[row, column] is var cell && cell.Row == row && cell.Column == column ? cell.Text : "")
                ),
        ];

    /// <summary>The paragraphs of one cell, whatever it was joined to; none where nothing was ever written or said of it.</summary>
    public IReadOnlyList<Paragraph> WrittenIn(TableName name) => ParagraphsAt(PlacesIn(name));

    /// <summary>Paragraphs by their places in the text.</summary>
    internal IReadOnlyList<Paragraph> ParagraphsAt(IReadOnlyList<int> places) =>
        places.Count == 0 ? [] : [.. places.Select(at => paragraphs[at])];

    /// <summary>All that is written, row by row: cells parted by tabs.</summary>
    public string Words
    {
        get
        {
            var rows = Cells.ToLookup(cell => cell.Row, cell => cell.Text.Replace('\n', ' '));
            return string.Join('\n', Enumerable.Range(0, Rows.Count).Select(row => string.Join('\t', rows[row])));
        }
    }

    private IReadOnlyList<int> PlacesIn(TableName name) => written.TryGetValue(name, out var places) ? places : None;

    private bool HasLetters(int at) => paragraphs[at].Length > 0;

    private (List<CellPlan> All, List<CellPlan> Lettered) Fill(List<int> astray)
    {
        var (cells, lettered) = (new List<CellPlan>(), new List<CellPlan>());
        for (var row = 0; row < Rows.Count; row++)
        {
            for (var column = 0; column < Columns.Count; column++)
            {
                if (grid[row, column] is not null)
                    continue;
                var name = new TableName(Rows[row].Id, Columns[column].Id);
                var own = PlacesIn(name);
                var (lastRow, lastColumn) = EndOf(row, column, own);
                var all = own;
                if (lastRow > row || lastColumn > column || (cells.Count == 0 && astray.Count > 0))
                {
                    all =
                    [
                        .. own,
                        .. InRange(row, column, lastRow, lastColumn).Where(one => one != name).SelectMany(PlacesIn).Where(HasLetters),
                        .. cells.Count == 0 ? astray : None,
                    ];
                }

                var look = own.Count > 0 ? paragraphs[own[0]].Look : Look.Usual;
                var hasLetters = all.Any(HasLetters);
                var cell = new CellPlan(name, cells.Count, row, column, lastRow, lastColumn, own, all, look, hasLetters, lettered.Count);
                cells.Add(cell);
                if (hasLetters)
                    lettered.Add(cell);
                foreach (var at in all)
                    seenIn[at] = cell;
                for (var i = row; i <= lastRow; i++)
                {
                    for (var j = column; j <= lastColumn; j++)
                        grid[i, j] = cell;
                }
            }
        }

        return (cells, lettered);
    }

    private IEnumerable<TableName> InRange(int row, int column, int lastRow, int lastColumn)
    {
        for (var i = row; i <= lastRow; i++)
        {
            for (var j = column; j <= lastColumn; j++)
                yield return new TableName(Rows[i].Id, Columns[j].Id);
        }
    }

    /// <summary>Where a cell ends: itself, unless it was joined with others of which none belongs to another before it.</summary>
    private (int Row, int Column) EndOf(int row, int column, IReadOnlyList<int> own)
    {
        if (own.Count == 0 || !TableName.TryParse(paragraphs[own[0]].Look[Trait.Span], out var end) || !end.IsCell)
            return (row, column);
        int lastRow = LastUpTo(AllRows, rowAt, end.Row),
            lastColumn = LastUpTo(AllColumns, columnAt, end.Column);
        // What was sorted or moved since may lie before it.
        if (lastRow < row || lastColumn < column)
            return (row, column);
        for (var i = row; i <= lastRow; i++)
        {
            for (var j = column; j <= lastColumn; j++)
            {
                if (grid[i, j] is not null)
                    return (row, column);
            }
        }

        return (lastRow, lastColumn);
    }

    /// <summary>The last line that is seen up to one that may have been removed.</summary>
    private static int LastUpTo(IReadOnlyList<TableLine> all, Dictionary<string, int> seen, string id)
    {
        var last = -1;
        foreach (var line in all)
        {
            if (seen.TryGetValue(line.Id, out var at))
                last = at;
            if (line.Id == id)
                return last;
        }

        return -1;
    }

    private static Dictionary<string, int> PlacesOf(IReadOnlyList<TableLine> lines) =>
        Enumerable.Range(0, lines.Count).ToDictionary(at => lines[at].Id);

    private static TableLine LineOf(string id, Look look, int at) =>
        new(
            id,
            look[Trait.Place],
            look[Trait.Extent] is { Length: > 0 } extent ? int.Parse(extent, CultureInfo.InvariantCulture) : 0,
            look[Trait.Gone].Length > 0,
            look[Trait.Total],
            look[Trait.Align],
            at
        );

    private static List<TableLine> InOrder(Dictionary<string, TableLine> lines, int most) =>
        [.. lines.Values.OrderBy(line => line.Place, StringComparer.Ordinal).ThenBy(line => line.Id, StringComparer.Ordinal).Take(most)];
}
