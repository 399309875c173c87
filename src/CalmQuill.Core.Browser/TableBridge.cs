using System.Globalization;
using System.Runtime.InteropServices.JavaScript;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Plots;
using CalmQuill.Core.Tables;
using CalmQuill.Core.Writing;

namespace CalmQuill.Core.Browser;

/// <summary>Exported to script: tables on a page. Rows and columns are counted from 0 among those that are seen, lengths are 0.01 mm.</summary>
public static partial class TableBridge
{
    private static string made = "";

    /// <summary>Lays an empty table down. <see cref="Made"/> says its id.</summary>
    /// <param name="page">Handle of the page.</param>
    /// <param name="x">Its left edge.</param>
    /// <param name="y">Its upper edge.</param>
    /// <param name="widths">How wide its columns are.</param>
    /// <param name="heights">How high its rows are at least.</param>
    /// <param name="shows">Words that say how it looks; see <see cref="TableLayout"/>.</param>
    /// <param name="layer">The layer; empty for the first.</param>
    /// <param name="now">The device's clock.</param>
    [JSExport]
    public static byte[] Add(int page, int x, int y, int[] widths, int[] heights, string shows, string layer, double now)
    {
        Refuse(TableLimits.Check(heights.Length, widths.Length));
        return Added(
            page,
            x,
            y,
            widths,
            heights,
            TableEdit.New([.. widths.Select(Extent)], [.. heights.Select(Extent)]),
            shows,
            layer,
            now
        );
    }

    /// <summary>Lays a table down with what was copied out of a spreadsheet. <see cref="Made"/> says its id.</summary>
    [JSExport]
    public static byte[] AddCells(int page, int x, int y, int width, string typed, string layer, double now)
    {
        var cells = TableSheet.Read(typed);
        if (cells.Count == 0)
            throw new SentenceException($"There are no cells in this.");
        var columns = cells.Max(row => row.Count);
        Refuse(TableLimits.Check(cells.Count, columns));
        int[] widths = [.. Enumerable.Repeat(Extent(width / columns), columns)],
            heights = [.. Enumerable.Repeat(TableLayout.UsualRow, cells.Count)];
        var passage = TableEdit.New(widths, heights, edit => Refuse(edit.Paste(0, 0, cells)));
        var hasHeading = cells.Count > 1 && cells[0].TrueForAll(cell => TableNumber.Read(cell) is null);
        return Added(page, x, y, widths, heights, passage, hasHeading ? TableLayout.Header : "", layer, now);
    }

    /// <summary>Whether some things are the lines of a table that was drawn.</summary>
    [JSExport]
    public static bool IsDrawn(int page, string[] items) => DrawnTable.Of(Items(page, items)) is not null;

    /// <summary>
    /// Lays a table down in place of the lines of one that was drawn; framed, one step. What was written by hand between them lies in its cells.
    /// <see cref="Made"/> says its id.
    /// </summary>
    [JSExport]
    public static byte[] FromDrawn(int page, string[] items, string layer, double now)
    {
        var lines = Items(page, items).Where(item => item.IsOpen && DrawnTable.IsRule(item)).ToList();
        if (DrawnTable.Of(lines) is not { } drawn)
            return [];
        var frames = new List<byte[]>
        {
            Added(page, drawn.X, drawn.Y, drawn.Widths, drawn.Heights, TableEdit.New(drawn.Widths, drawn.Heights), "", layer, now),
        };
        var table = Session.Replica.LastId;
        // It lies below what stands in it, as its lines did.
        var box = lines.Select(item => item.Bounds).Aggregate((one, other) => one.With(other));
        var lowest = Session
            .Document<PageDocument>(page)
            .Items.Where(item => item.Shown && item.Id != table && item.Bounds.Meets(box))
            .Min(item => item.Order);
        var order = Math.Max(lowest - 1, -ItemRules.MostOrder).ToString(CultureInfo.InvariantCulture);
        frames.Add(Session.Perform(page, new Change.ItemsSet([table], [new ItemValue(ItemField.Order, order)]), now));
        var ordered = Session.Replica.LastId;
        frames.Add(Session.Perform(page, new Change.ItemsRemoved([.. lines.Select(line => line.Id)]), now));
        frames.Add(Session.Perform(page, new Change.StepsJoined([table, ordered, Session.Replica.LastId]), now));
        return Session.Framed(frames);
    }

    /// <summary>The table that was laid down last.</summary>
    [JSExport]
    public static string Made() => made;

    /// <summary>
    /// A table, as JSON: where it lies, the edges of its columns and rows, what it shows, and what stands under its columns; empty where there is none of that
    /// id.
    /// </summary>
    [JSExport]
    public static string Table(int page, string item)
    {
        if (Session.Document<PageDocument>(page).Find(TypingHand.Read(item).Item) is not { Shown: true, Content: TableContent content })
            return "";
        var layout = content.Layout;
        return Json.Text(json =>
        {
            json.WriteStartObject();
            Json.Numbers(json, "place", content.OwnPlace(true).Parts);
            Json.Numbers(json, "across", layout.Across.Select(edge => (double)edge));
            Json.Numbers(json, "down", layout.Down.Select(edge => (double)edge));
            json.WriteString("shows", content.Says);
            json.WriteStartArray("totals");
            foreach (var column in layout.Text.Columns)
                json.WriteStringValue(column.Total);
            json.WriteEndArray();
            json.WriteEndObject();
        });
    }

    /// <summary>A cell, or the one that it was joined to, as JSON; empty where it is not seen.</summary>
    /// <param name="page">Handle of the page.</param>
    /// <param name="cell">Its table's id and its own, parted by a blank.</param>
    [JSExport]
    public static string Cell(int page, string cell)
    {
        var (id, name) = TypingHand.Read(cell);
        if (
            Session.Document<PageDocument>(page).Find(id) is not { Shown: true, Content: TableContent { Layout.Text: var text } }
            || text.Find(name) is not { } found
        )
            return "";
        return Json.Text(json =>
        {
            json.WriteStartObject();
            json.WriteString("name", found.Name.ToString());
            json.WriteNumber("row", found.Row);
            json.WriteNumber("column", found.Column);
            json.WriteNumber("lastRow", found.LastRow);
            json.WriteNumber("lastColumn", found.LastColumn);
            json.WriteString("fill", found.Look[Trait.Fill]);
            json.WriteEndObject();
        });
    }

    /// <summary>The name of the cell at a row and a column of a table; empty beyond its edge.</summary>
    [JSExport]
    public static string At(int page, string item, int row, int column) =>
        Session.Document<PageDocument>(page).Find(OpId.Parse(item)) is { Shown: true, Content: TableContent { Layout.Text: var text } }
        && row >= 0
        && row < text.Rows.Count
        && column >= 0
        && column < text.Columns.Count
            ? text[row, column].Name.ToString()
            : "";

    /// <summary>
    /// Cells of a table for other programs: parted by tabs and line breaks, as a spreadsheet takes them, and as HTML. Nothing where there is none of
    /// that id.
    /// </summary>
    /// <param name="page">Handle of the page.</param>
    /// <param name="item">The table.</param>
    /// <param name="at">The first row and column and the last ones; empty for all of it.</param>
    [JSExport]
    public static string[] Sheet(int page, string item, int[] at)
    {
        if (
            Session.Document<PageDocument>(page).Find(OpId.Parse(item))
            is not { Shown: true, Content: TableContent { Layout.Text: var text } }
        )
            return [];
        var rows = text.RowsOf(at.Length > 0 ? Range(at) : new CellRange(0, 0, text.Rows.Count - 1, text.Columns.Count - 1));
        return [TableSheet.Write(rows), TableSheet.WriteHtml(rows)];
    }

    /// <summary>Does something to a table, as one step; framed. What is written in its cells by hand goes along.</summary>
    /// <param name="page">Handle of the page.</param>
    /// <param name="item">The table.</param>
    /// <param name="what">
    /// <c>add-rows</c> and <c>add-columns</c> (place, count), <c>remove-row</c>, <c>remove-column</c> (place), <c>move-row</c>, <c>move-column</c> (from, to),
    /// <c>height</c>, <c>width</c> (place, length), <c>fit</c> (column: as wide as what is in it), <c>total</c> (column; the words), <c>fill</c> (the first row and column and
    /// the last ones; the colour), <c>look</c> (the same; a trait and its value), <c>empty</c> (the same), <c>join</c> (the same), <c>part</c> (row, column), <c>sort</c> (column, 1 for the largest first), <c>paste</c> (row, column; the cells).
    /// </param>
    /// <param name="at">The numbers that belong to it.</param>
    /// <param name="words">The words that belong to it.</param>
    /// <param name="now">The device's clock.</param>
    /// <exception cref="SentenceException">The table would be too large.</exception>
    [JSExport]
    public static byte[] Do(int page, string item, string what, int[] at, string words, double now)
    {
        var document = Session.Document<PageDocument>(page);
        var (id, _) = TypingHand.Read(item);
        if (document.Find(id) is not { IsOpen: true, Content: TableContent content } found)
            return [];
        var (edit, text) = (new TableEdit(content.Typed, Session.Replica.Id), content.Layout.Text);
        switch (what)
        {
            case "add-rows":
                Refuse(edit.AddRows(at[0], at[1]));
                break;
            case "add-columns":
                Refuse(edit.AddColumns(at[0], at[1]));
                break;
            case "remove-row" when text.Rows.Count > 1:
                edit.RemoveRow(at[0]);
                break;
            case "remove-column" when text.Columns.Count > 1:
                edit.RemoveColumn(at[0]);
                break;
            case "move-row":
                edit.MoveRow(at[0], at[1]);
                break;
            case "move-column":
                edit.MoveColumn(at[0], at[1]);
                break;
            case "height":
                edit.SetHeight(at[0], at[1]);
                break;
            case "width":
                edit.SetWidth(at[0], at[1]);
                break;
            case "fit":
                edit.SetWidth(at[0], content.Layout.WidthFor(at[0]));
                break;
            case "total":
                edit.SetTotal(at[0], words);
                break;
            case "fill":
                Each(cell => edit.SetFill(cell, words));
                break;
            case "look" when words.Split(' ', 2) is [var trait, var value]:
                Each(cell => edit.SetLook(cell, TextBridge.Named(trait), value));
                break;
            case "empty":
                Each(edit.Empty);
                break;
            case "join":
                edit.Join(text[at[0], at[1]], at[2], at[3]);
                break;
            case "part":
                edit.Part(text[at[0], at[1]]);
                break;
            case "sort":
                edit.Sort(at[0], at[1] == 1, content.Layout.Headings);
                break;
            case "paste":
                if (TableSheet.Read(words) is { Count: > 0 } cells)
                    Refuse(edit.Paste(at[0], at[1], [.. cells]));
                break;
        }

        var changes = OnTables.With(document, found, edit.Change, Session.Replica.Id);
        return changes.Count > 0 ? Session.PerformAll(page, changes, now, true) : [];

        void Each(Action<TableCell> set)
        {
            foreach (var cell in text.Within(Range(at)))
                set(cell);
        }
    }

    /// <summary>
    /// The cells from one up to another of the same table: row and column of the first and of the last; cuts through none that were joined. Nothing where one of
    /// the two is not there.
    /// </summary>
    [JSExport]
    public static int[] Between(int page, string cell, string other)
    {
        var (id, name) = TypingHand.Read(cell);
        if (
            Session.Document<PageDocument>(page).Find(id) is not { Shown: true, Content: TableContent { Layout.Text: var text } }
            || text.Find(name) is not { } one
            || text.Find(other) is not { } two
        )
            return [];
        var range = text.Between(one, two);
        return [range.Row, range.Column, range.LastRow, range.LastColumn];
    }

    /// <summary>
    /// What one comes to from a cell: the cell so many columns and rows on, or along the rows where one goes on by columns alone; empty beyond the edge.
    /// </summary>
    [JSExport]
    public static string Beside(int page, string cell, int columns, int rows)
    {
        var (id, name) = TypingHand.Read(cell);
        if (Session.Document<PageDocument>(page).Find(id) is not { Content: TableContent content })
            return "";
        var text = content.Layout.Text;
        if (text.Find(name) is not { } from)
            return "";
        if (columns != 0)
        {
            var at = from.Index + columns;
            return at >= 0 && at < text.Cells.Count ? TypingHand.NameOf(id, text.Cells[at].Name.ToString()) : "";
        }

        var row = rows > 0 ? from.LastRow + rows : from.Row + rows;
        return row >= 0 && row < text.Rows.Count ? TypingHand.NameOf(id, text[row, from.Column].Name.ToString()) : "";
    }

    /// <summary>
    /// What a plot of a table shows: the points of its first two columns of numbers, and the names of its scales, as fields of plots hold them; nothing where there are
    /// none.
    /// </summary>
    /// <param name="page">Handle of the page.</param>
    /// <param name="item">The table.</param>
    /// <param name="colour">The colour of the points, <c>rrggbbaa</c>.</param>
    [JSExport]
    public static string[] Plotted(int page, string item, string colour) =>
        Session.Document<PageDocument>(page).Find(OpId.Parse(item)) is { Shown: true, Content: TableContent content }
        && TablePlot.Of(content.Layout.Text) is { } plot
            ? [new PlotData(Art.Colours.Read(colour), FitKind.Line, plot.Points).ToText(), plot.Axes]
            : [];

    private static CellRange Range(int[] at) => new(at[0], at[1], at[2], at[3]);

    private static byte[] Added(
        int page,
        int x,
        int y,
        IReadOnlyCollection<int> widths,
        IReadOnlyCollection<int> heights,
        Passage passage,
        string shows,
        string layer,
        double now
    )
    {
        var bytes = Session.Perform(
            page,
            new Change.ThingAdded(
                ThingKind.Table,
                Transform.Shift(x, y),
                Math.Clamp(widths.Sum(), ThingRules.LeastSide, TextContent.MostMeasure),
                Math.Clamp(heights.Sum(), ThingRules.LeastSide, TextContent.MostMeasure),
                passage,
                shows.Length > 0 ? [new ItemValue(ItemField.Shows, shows)] : []
            )
            {
                Layer = Session.LayerOf(layer),
            },
            now
        );
        made = Session.Replica.LastId.ToString();
        return bytes;
    }

    private static List<PageItem> Items(int page, string[] items)
    {
        var document = Session.Document<PageDocument>(page);
        return [.. items.Select(id => document.Find(OpId.Parse(id))).OfType<PageItem>().Where(item => item.Shown)];
    }

    private static void Refuse(Refusal? refusal)
    {
        if (refusal is not null)
            throw new SentenceException(refusal.Sentence);
    }

    private static int Extent(int length) => Math.Clamp(length, TableLimits.LeastExtent, TableLimits.MostExtent);
}
