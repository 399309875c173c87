using System.Globalization;
using CalmQuill.Core.Writing;

namespace CalmQuill.Core.Tables;

/// <summary>
/// A table as its text tells of it. The text has a paragraph for each row and each column, in whatever order they were made, and one or more for each cell
/// in which something was written; <see cref="Trait.Cell"/> says which is which. So rows that two people add at once are both there, and what one writes into a row that
/// another removes meanwhile has the row back.
/// </summary>
public sealed class TableText
{
    private readonly Dictionary<TableName, List<Paragraph>> written = [];
    private readonly Dictionary<string, int> rowAt,
        columnAt;
    private readonly TableCell[,] grid;

    private TableText(IEnumerable<Paragraph> paragraphs)
    {
        var rows = new Dictionary<string, TableLine>();
        var columns = new Dictionary<string, TableLine>();
        var astray = new List<Paragraph>();
        foreach (var paragraph in paragraphs)
        {
            if (!TableName.TryParse(paragraph.Look[Trait.Cell], out var name))
                Stray(paragraph);
            else if (name.IsCell)
                (written.TryGetValue(name, out var those) ? those : written[name] = []).Add(paragraph);
            else
            {
                // What was typed into a paragraph that is none.
                Stray(paragraph);
                if (name.Column.Length == 0)
                    _ = rows.TryAdd(name.Row, LineOf(name.Row, paragraph));
                else
                    _ = columns.TryAdd(name.Column, LineOf(name.Column, paragraph));
            }
        }

        AllRows = InOrder(rows, TableLimits.MostRows);
        AllColumns = InOrder(columns, TableLimits.MostColumns);
        var (known, across) = (AllRows.Select(row => row.Id).ToHashSet(), AllColumns.Select(column => column.Id).ToHashSet());
        var (used, usedAcross) = (new HashSet<string>(), new HashSet<string>());
        foreach (var (name, those) in written)
        {
            if (!those.Exists(paragraph => paragraph.Length > 0))
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
        grid = new TableCell[Rows.Count, Columns.Count];
        Cells = Fill(astray);

        void Stray(Paragraph paragraph)
        {
            if (paragraph.Length > 0)
                astray.Add(paragraph);
        }
    }

    /// <param name="paragraphs">The paragraphs of its text.</param>
    public static TableText Of(IEnumerable<Paragraph> paragraphs) => new(paragraphs);

    /// <summary>All rows in their order, those that were removed among them.</summary>
    public IReadOnlyList<TableLine> AllRows { get; }

    /// <inheritdoc cref="AllRows"/>
    public IReadOnlyList<TableLine> AllColumns { get; }

    /// <summary>The rows that are seen, from the top.</summary>
    public IReadOnlyList<TableLine> Rows { get; }

    /// <summary>The columns that are seen, from the left.</summary>
    public IReadOnlyList<TableLine> Columns { get; }

    /// <summary>The cells, row by row; those that were joined are one.</summary>
    public IReadOnlyList<TableCell> Cells { get; }

    public bool IsEmpty => Rows.Count == 0 || Columns.Count == 0;

    /// <summary>The cell at a row and a column.</summary>
    public TableCell this[int row, int column] => grid[row, column];

    /// <summary>The cell of a name, or the one that it was joined to; null where it is not seen.</summary>
    public TableCell? Find(TableName name) =>
        rowAt.TryGetValue(name.Row, out var row) && columnAt.TryGetValue(name.Column, out var column) ? grid[row, column] : null;

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
                        .Select(column => grid[row, column] is var cell && cell.Row == row && cell.Column == column ? cell.Text : "")
                ),
        ];

    /// <summary>The paragraphs of one cell, whatever it was joined to; none where nothing was ever written or said of it.</summary>
    public IReadOnlyList<Paragraph> WrittenIn(TableName name) => written.GetValueOrDefault(name, []);

    /// <summary>All that is written, row by row: cells parted by tabs.</summary>
    public string Words
    {
        get
        {
            var rows = Cells.ToLookup(cell => cell.Row, cell => cell.Text.Replace('\n', ' '));
            return string.Join('\n', Enumerable.Range(0, Rows.Count).Select(row => string.Join('\t', rows[row])));
        }
    }

    private List<TableCell> Fill(List<Paragraph> astray)
    {
        var cells = new List<TableCell>();
        for (var row = 0; row < Rows.Count; row++)
        {
            for (var column = 0; column < Columns.Count; column++)
            {
                if (grid[row, column] is not null)
                    continue;
                var name = new TableName(Rows[row].Id, Columns[column].Id);
                var own = WrittenIn(name);
                var (lastRow, lastColumn) = EndOf(row, column, own);
                var all = new List<Paragraph>(own);
                for (var i = row; i <= lastRow; i++)
                {
                    for (var j = column; j <= lastColumn; j++)
                    {
                        if (i != row || j != column)
                            all.AddRange(WrittenIn(new TableName(Rows[i].Id, Columns[j].Id)).Where(paragraph => paragraph.Length > 0));
                    }
                }

                if (cells.Count == 0)
                    all.AddRange(astray);
                var cell = new TableCell(name, row, column, lastRow, lastColumn, own, all);
                cells.Add(cell);
                for (var i = row; i <= lastRow; i++)
                {
                    for (var j = column; j <= lastColumn; j++)
                        grid[i, j] = cell;
                }
            }
        }

        return cells;
    }

    /// <summary>Where a cell ends: itself, unless it was joined with others of which none belongs to another before it.</summary>
    private (int Row, int Column) EndOf(int row, int column, IReadOnlyList<Paragraph> own)
    {
        if (own.Count == 0 || !TableName.TryParse(own[0].Look[Trait.Span], out var end) || !end.IsCell)
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

    private static TableLine LineOf(string id, Paragraph paragraph) =>
        new(
            id,
            paragraph.Look[Trait.Place],
            paragraph.Look[Trait.Extent] is { Length: > 0 } extent ? int.Parse(extent, CultureInfo.InvariantCulture) : 0,
            paragraph.Look[Trait.Gone].Length > 0,
            paragraph.Look[Trait.Total],
            paragraph.Look[Trait.Align],
            paragraph.Start
        );

    private static List<TableLine> InOrder(Dictionary<string, TableLine> lines, int most) =>
        [.. lines.Values.OrderBy(line => line.Place, StringComparer.Ordinal).ThenBy(line => line.Id, StringComparer.Ordinal).Take(most)];
}
