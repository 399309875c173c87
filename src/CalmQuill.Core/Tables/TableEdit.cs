using System.Globalization;
using System.Text;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Ordering;
using CalmQuill.Core.Writing;

namespace CalmQuill.Core.Tables;

/// <summary>
/// What is done to a table in one go, as one change to its text. Lines that are named by their places are counted among those that are seen.
/// </summary>
/// <param name="typed">The text of the table.</param>
/// <param name="device">The number of the device, for what two people put at one place.</param>
public sealed class TableEdit(TypedText typed, ulong device)
{
    private readonly TableText table = TableText.Of(typed.Paragraphs());
    private readonly List<Insertion> insertions = [];
    private readonly List<LetterSpan> removals = [];
    private readonly List<Format> formats = [];
    private readonly List<Added> added = [];
    private readonly Dictionary<TableName, Added> begun = [];
    private int letters;

    /// <summary>A paragraph that is added behind all others: what it is, its letters, and how it looks.</summary>
    private sealed record Added(TableName Name)
    {
        public string Text { get; set; } = "";

        public Dictionary<Trait, string> Traits { get; } = [];
    }

    /// <summary>What a new table's text is: so many rows and columns, and nothing in them.</summary>
    /// <param name="widths">How wide the columns are, 0.01 mm; 0 for as usual.</param>
    /// <param name="heights">How high the rows are at least; 0 for as usual.</param>
    public static Passage New(IReadOnlyList<int> widths, IReadOnlyList<int> heights)
    {
        var formats = new List<PassageFormat>();
        foreach (var (extents, isRow) in new[] { (heights, true), (widths, false) })
        {
            string? place = null;
            for (var i = 0; i < extents.Count; i++)
            {
                var at = formats.Count == 0 ? 0 : formats[^1].End;
                var id = (i + 1).ToString(CultureInfo.InvariantCulture);
                place = OrderKey.Between(place, null, 0);
                if (extents[i] > 0)
                    formats.Add(new PassageFormat(at, at + 1, Trait.Extent, Text(extents[i])));
                formats.Add(new PassageFormat(at, at + 1, Trait.Place, place));
                formats.Add(new PassageFormat(at, at + 1, Trait.Cell, (isRow ? new TableName(id, "") : new TableName("", id)).ToString()));
            }
        }

        return new Passage(new string(TypedText.Break, widths.Count + heights.Count), formats);
    }

    /// <summary>The same with something done to it.</summary>
    public static Passage New(IReadOnlyList<int> widths, IReadOnlyList<int> heights, Action<TableEdit> fill)
    {
        var typed = new TypedText();
        OpId made = new(1, 1),
            filled = new(1, 2);
        typed.Take(made, new Stamp(Hlc.At(1), made), New(widths, heights).Whole(made));
        var edit = new TableEdit(typed, 0);
        fill(edit);
        typed.Take(filled, new Stamp(Hlc.At(2), filled), edit.Change);
        return Passage.Of(typed.Paragraphs());
    }

    /// <summary>All that was done, as one change; it names its own letters by <see cref="LetterId.Own"/>.</summary>
    public TextChange Change
    {
        get
        {
            var text = new StringBuilder();
            var made = new List<Format>(formats);
            foreach (var one in added)
            {
                // A cell has a line break before it, so that nothing which others add comes to lie within.
                if (one.Name.IsCell)
                    text.Append(TypedText.Break);
                var first = letters + text.Length;
                text.Append(one.Text).Append(TypedText.Break);
                var from = one.Name.IsCell ? new Edge(Own(first - 1), true) : new Edge(Own(first), false);
                var to = new Edge(Own(letters + text.Length - 1), true);
                foreach (var (trait, value) in one.Traits)
                    made.Add(new Format(from, to, trait, value));
                made.Add(new Format(from, to, Trait.Cell, one.Name.ToString()));
            }

            return new TextChange(
                text.Length > 0 ? [.. insertions, typed.InsertionAt(typed.Length, text.ToString())] : insertions,
                removals,
                made
            );
        }
    }

    /// <summary>Adds rows before a place; behind all where that is their number.</summary>
    public Refusal? AddRows(int at, int count)
    {
        if (TableLimits.Check(table.Rows.Count + count, table.Columns.Count) is { } refusal)
            return refusal;
        var beside = table.Rows.Count > 0 ? table.Rows[Math.Min(at, table.Rows.Count - 1)].Extent : 0;
        AddLines(table.AllRows, table.Rows, at, count, beside, id => new TableName(id, ""));
        return null;
    }

    /// <summary>Adds columns before a place, as wide as what they come beside.</summary>
    public Refusal? AddColumns(int at, int count)
    {
        if (TableLimits.Check(table.Rows.Count, table.Columns.Count + count) is { } refusal)
            return refusal;
        var beside = table.Columns.Count > 0 ? table.Columns[Math.Clamp(at - 1, 0, table.Columns.Count - 1)].Extent : 0;
        AddLines(table.AllColumns, table.Columns, at, count, beside, id => new TableName("", id));
        return null;
    }

    public void RemoveRow(int at) => Remove(table.Rows[at], table.AllColumns.Select(column => new TableName(table.Rows[at].Id, column.Id)));

    public void RemoveColumn(int at) => Remove(table.Columns[at], table.AllRows.Select(row => new TableName(row.Id, table.Columns[at].Id)));

    /// <summary>Moves a row to another place, counted without it.</summary>
    public void MoveRow(int from, int to) => Move(table.AllRows, table.Rows, from, to);

    /// <inheritdoc cref="MoveRow"/>
    public void MoveColumn(int from, int to) => Move(table.AllColumns, table.Columns, from, to);

    public void SetHeight(int row, int height) => Set(table.Rows[row], Trait.Extent, Text(Extent(height)));

    public void SetWidth(int column, int width) => Set(table.Columns[column], Trait.Extent, Text(Extent(width)));

    /// <summary>Says what stands under a column; nothing for an empty one.</summary>
    public void SetTotal(int column, string total) => Set(table.Columns[column], Trait.Total, total);

    /// <summary>Fills a cell; with nothing for an empty colour.</summary>
    public void SetFill(TableCell cell, string colour) => Set(cell, Trait.Fill, colour);

    /// <summary>Has all that is written in a cell look otherwise in a trait; one that is empty has nothing but the traits of paragraphs.</summary>
    public void SetLook(TableCell cell, Trait trait, string value)
    {
        if (trait.IsOfParagraphs() && !cell.HasLetters)
            Set(cell, trait, value);
        foreach (var paragraph in cell.Paragraphs.Where(paragraph => paragraph.Length > 0))
            formats.Add(
                trait.IsOfParagraphs()
                    ? typed.FormatOfParagraphs(paragraph.Start, 0, trait, value)
                    : typed.FormatOf(paragraph.Start, paragraph.Length, trait, value)
            );
    }

    /// <summary>Removes what is written in a cell; it stays, and looks as before.</summary>
    public void Empty(TableCell cell) => Clear(cell.Paragraphs);

    /// <summary>Joins a cell with those beside it up to a row and a column. What is written in them is seen in the one.</summary>
    public void Join(TableCell cell, int lastRow, int lastColumn) =>
        Set(cell, Trait.Span, new TableName(table.Rows[lastRow].Id, table.Columns[lastColumn].Id).ToString());

    /// <summary>Parts cells again that were joined: what was written in each is in it.</summary>
    public void Part(TableCell cell) => Set(cell, Trait.Span, "");

    /// <summary>Puts rows into the order of what stands in a column; those of a heading stay. What is alike stays as it was.</summary>
    /// <param name="column">The column.</param>
    /// <param name="descending">The largest first; what is empty comes last all the same.</param>
    /// <param name="first">The first row that is sorted.</param>
    public void Sort(int column, bool descending, int first)
    {
        var rows = table.Rows.Skip(first).Select((row, at) => (Row: row, Words: table[first + at, column].Text)).ToList();
        var empty = rows.Where(row => row.Words.Trim().Length == 0).ToList();
        var sorted = rows.Except(empty)
            .OrderBy(
                row => row.Words,
                Comparer<string>.Create((one, other) => descending ? TableNumber.Compare(other, one) : TableNumber.Compare(one, other))
            )
            .Concat(empty)
            .Select(row => row.Row)
            .ToList();
        // The places are dealt out anew; those of rows that were removed stay theirs.
        var places = rows.Select(row => row.Row.Place).ToList();
        for (var i = 0; i < sorted.Count; i++)
        {
            if (sorted[i].Place != places[i])
                Set(sorted[i], Trait.Place, places[i]);
        }
    }

    /// <summary>Lays cells down from one on, in place of what stood in them; rows and columns are added where there are too few.</summary>
    public Refusal? Paste(int row, int column, IReadOnlyList<IReadOnlyList<string>> cells)
    {
        int rows = Math.Max(table.Rows.Count, row + cells.Count),
            columns = Math.Max(table.Columns.Count, column + cells.Max(one => one.Count));
        if (TableLimits.Check(rows, columns) is { } refusal)
            return refusal;
        if (cells.Sum(one => one.Sum(text => (long)text.Length)) > WritingRules.MostLetters)
            return new Refusal("too-long", $"At most {WritingRules.MostLetters:N0} letters are typed at once.");
        List<string> down = [.. table.Rows.Select(line => line.Id)],
            across = [.. table.Columns.Select(line => line.Id)];
        if (rows > down.Count)
            down.AddRange(
                AddLines(table.AllRows, table.Rows, down.Count, rows - down.Count, table.Rows[^1].Extent, id => new TableName(id, ""))
            );
        if (columns > across.Count)
            across.AddRange(
                AddLines(
                    table.AllColumns,
                    table.Columns,
                    across.Count,
                    columns - across.Count,
                    table.Columns[^1].Extent,
                    id => new TableName("", id)
                )
            );
        for (var i = 0; i < cells.Count; i++)
        {
            for (var j = 0; j < cells[i].Count; j++)
                Write(new TableName(down[row + i], across[column + j]), Clean(cells[i][j]));
        }

        return null;
    }

    /// <summary>Writes into a cell, in place of what stood in it.</summary>
    public void Write(TableName name, string text)
    {
        var own = table.WrittenIn(name);
        Clear(own);
        if (own.Count == 0)
        {
            if (text.Length > 0)
                Begin(name).Text = text;
        }
        else if (text.Length > 0)
        {
            insertions.Add(typed.InsertionAt(own[0].Start, text));
            letters += text.Length;
        }
    }

    /// <summary>Has a cell be there to be typed into.</summary>
    public void Begin(TableCell cell) => Begin(cell.Name);

    private Added Begin(TableName name)
    {
        if (begun.TryGetValue(name, out var known))
            return known;
        var one = begun[name] = new Added(name);
        added.Add(one);
        return one;
    }

    private List<string> AddLines(
        IReadOnlyList<TableLine> all,
        IReadOnlyList<TableLine> seen,
        int at,
        int count,
        int extent,
        Func<string, TableName> nameOf
    )
    {
        var (before, after) = Around(all, seen, at);
        var ids = new List<string>();
        for (var i = 0; i < count; i++)
        {
            var id = TableName.New();
            ids.Add(id);
            before = OrderKey.Between(before, after, device);
            var line = new Added(nameOf(id));
            line.Traits[Trait.Place] = before;
            if (extent > 0)
                line.Traits[Trait.Extent] = Text(extent);
            added.Add(line);
        }

        return ids;
    }

    private void Remove(TableLine line, IEnumerable<TableName> cells)
    {
        Set(line, Trait.Gone, "1");
        // What somebody writes into it meanwhile has it back, and that alone.
        Clear(cells.SelectMany(table.WrittenIn));
    }

    private void Clear(IEnumerable<Paragraph> paragraphs)
    {
        foreach (var paragraph in paragraphs.Where(paragraph => paragraph.Length > 0))
            removals.AddRange(typed.RemovalsOf(paragraph.Start, paragraph.Length));
    }

    private void Move(IReadOnlyList<TableLine> all, IReadOnlyList<TableLine> seen, int from, int to)
    {
        var line = seen[from];
        var (before, after) = Around([.. all.Where(one => one != line)], [.. seen.Where(one => one != line)], to);
        Set(line, Trait.Place, OrderKey.Between(before, after, device));
    }

    /// <summary>The places right before and right behind which a line comes; null for an open end. Lines that were removed are between others, too.</summary>
    private static (string? Before, string? After) Around(IReadOnlyList<TableLine> all, IReadOnlyList<TableLine> seen, int at)
    {
        // One that says nothing of its place lies before all others.
        var after = at < seen.Count && seen[at].Place.Length > 0 ? seen[at].Place : null;
        var before = all.LastOrDefault(line => after is null || string.CompareOrdinal(line.Place, after) < 0)?.Place;
        return (before is { Length: > 0 } ? before : null, after);
    }

    private void Set(TableLine line, Trait trait, string value) =>
        formats.Add(typed.FormatOfParagraphs(table.StartOf(line), 0, trait, value));

    private void Set(TableCell cell, Trait trait, string value)
    {
        if (cell.Own.Count > 0)
            formats.Add(typed.FormatOfParagraphs(cell.Own[0].Start, 0, trait, value));
        else if (value.Length > 0)
            Begin(cell.Name).Traits[trait] = value;
    }

    /// <summary>Within a cell lines are parted, and paragraphs are not; other control characters are left out.</summary>
    private static string Clean(string text) =>
        new([
            .. text.ReplaceLineEndings("\u2028").Select(letter => letter == '\t' ? ' ' : letter).Where(letter => !char.IsControl(letter)),
        ]);

    private static LetterId Own(int index) => new(LetterId.Own, index);

    private static int Extent(int length) => Math.Clamp(length, TableLimits.LeastExtent, TableLimits.MostExtent);

    private static string Text(int number) => number.ToString(CultureInfo.InvariantCulture);
}
