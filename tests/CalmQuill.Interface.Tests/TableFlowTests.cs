using CalmQuill.Core.Items;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Tables;
using CalmQuill.Core.Writing;
using CalmQuill.Store.People;
using CalmQuill.Testing;
using OpenQA.Selenium;
using OpenQA.Selenium.Interactions;

namespace CalmQuill.Interface.Tests;

/// <summary>Tables on a page, as people lay them down and fill them.</summary>
public sealed class TableFlowTests : InterfaceTest
{
    [Fact]
    public void A_table_is_dragged_with_the_pen_filled_by_keys_summed_sorted_and_grows_with_what_is_pasted()
    {
        var browser = OpenPage(Group.Writer);
        browser.Press("tool-put");
        browser.Press("put-table");
        var (x, y) = PageHands.At(browser, 4_000, 7_500);
        var (right, bottom) = PageHands.At(browser, 9_600, 7_500 + 3 * 710);
        browser.Pen(x, y, [((right - x) / 2, 0), ((right - x) / 2, 0), (0, bottom - y)]);
        browser.Until(() => browser.Count("[data-testid=typing-field]") > 0, "the caret in the first cell");
        // Its rows are the paper's, whose lines lie 7.1 mm apart from 31.95 mm on.
        var laid = TableOn(browser);
        Assert.Equal([0, 710, 1_420, 2_130], laid.Layout.Down);
        Assert.Equal(0, (laid.Bounds.Top - 3_195) % 710);

        browser.Type("length" + Keys.Tab + "time" + Keys.Tab + "1,44" + Keys.Tab + "2.4" + Keys.Tab + "0.36" + Keys.Tab + "1.2" + Keys.Tab);
        // Behind the last cell there is a row more.
        Reads(browser, "length\ttime\n1,44\t2.4\n0.36\t1.2\n\t");
        browser.Type(Keys.ArrowUp + Keys.ArrowRight);
        browser.Press("typing-table");
        browser.Press("total-sum");
        browser.Until(() => TableOn(browser).Layout.Totals[1] == "Σ 3.6", "what the column comes to");
        browser.Press("sort-up");
        Reads(browser, "length\ttime\n0.36\t1.2\n1,44\t2.4\n\t");
        Assert.Empty(browser.SeriousFindings());
        browser.Press("row-remove");
        Reads(browser, "length\ttime\n1,44\t2.4\n\t");
        browser.TypeWithControl("z");
        Reads(browser, "length\ttime\n0.36\t1.2\n1,44\t2.4\n\t");
        browser.Press("typing-table");
        browser.Type(Keys.ArrowDown + Keys.ArrowLeft);
        Paste(browser, "2,25\t3.0\n\"a\tb\"\t!\n");
        Reads(browser, "length\ttime\n0.36\t1.2\n1,44\t2.4\n2,25\t3.0\na b\t!");
        browser.Press("typing-done");
        browser.WaitForSync("All saved");
        browser.Driver.Navigate().Refresh();
        browser.WaitForStrokes(2);
        Reads(browser, "length\ttime\n0.36\t1.2\n1,44\t2.4\n2,25\t3.0\na b\t!");
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public void Two_people_fill_one_table_one_of_them_without_a_connection()
    {
        var (browser, network) = Open(Group.Writer);
        WaitUntilKept(browser);
        Lay(browser, 4_000, 8_000);
        browser.Type("bob" + Keys.Tab + "brass");
        Reads(browser, "bob\tbrass\t\n\t\t\n\t\t\n\t\t");
        browser.WaitForSync("All saved");
        var other = OpenPage(Group.Owner, 2);
        network.Cut();
        // In one and the same cell, and in a row that goes meanwhile.
        browser.Type(" and lead" + Keys.Enter + "4 kg");
        Reads(browser, "bob\tbrass and lead\t\n\t4 kg\t\n\t\t\n\t\t");
        Type(other, 4_000 + 3_500, 8_000);
        other.Type(Keys.Home + "old ");
        Reads(other, "bob\told brass\t\n\t\t\n\t\t\n\t\t", Group.Owner);
        other.Type(Keys.End + Keys.Enter);
        other.Press("typing-table");
        other.Press("row-remove");
        Reads(other, "bob\told brass\t\n\t\t\n\t\t", Group.Owner);
        network.Mend();
        const string Both = "bob\told brass and lead\t\n\t4 kg\t\n\t\t\n\t\t";
        Reads(browser, Both);
        Reads(other, Both, Group.Owner);
        Assert.Empty(other.Errors());
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public void Lines_that_were_drawn_become_a_table_and_what_was_written_between_them_goes_along()
    {
        var browser = OpenPage(Group.Writer);
        browser.TakeTool("shape");
        Draw(browser, (3_000, 8_000), (9_000, 8_000));
        Draw(browser, (3_000, 10_000), (9_000, 10_000));
        Draw(browser, (3_000, 12_000), (9_000, 12_000));
        Draw(browser, (3_000, 8_000), (3_000, 12_000));
        Draw(browser, (9_000, 8_000), (9_000, 12_000));
        browser.WaitForStrokes(6);
        browser.Press("pen-1");
        Draw(browser, (4_000, 11_000), (7_000, 11_000));
        browser.WaitForStrokes(7);
        var written = Items(browser)[^1].Id;
        PageHands.Loop(browser, 2_000, 7_000, 10_000, 9_000);
        // The upper edge alone is none.
        browser.Press("more-taken");
        Assert.Equal(0, browser.Count("[data-testid=as-table]"));
        browser.Press("leave-taken");
        PageHands.Loop(browser, 2_000, 7_000, 10_000, 13_000);
        Assert.Equal("6", browser.Attribute("selection", "data-items"));
        browser.Press("more-taken");
        browser.Press("as-table");
        browser.WaitForStrokes(3);
        var table = TableOn(browser);
        Assert.Equal((2, 1), (table.Layout.Text.Rows.Count, table.Layout.Text.Columns.Count));
        var before = Items(browser).Single(item => item.Id == written).Bounds.Top;
        browser.Press("type-taken");
        browser.Type("1" + Keys.Enter + "2");
        browser.Press("typing-table");
        browser.Press("row-above");
        browser.Until(() => Items(browser).Single(item => item.Id == written).Bounds.Top > before + 500, "the ink lies lower");
        browser.TypeWithControl("z");
        browser.Until(() => Items(browser).Single(item => item.Id == written).Bounds.Top == before, "the ink where it was");
        Reads(browser, "1\n2");
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public void What_a_spreadsheet_gave_is_a_table_on_the_page_and_its_numbers_are_plotted()
    {
        var browser = OpenPage(Group.Writer);
        Paste(browser, "l\tT\n0,25\t1,003\n1\t2,006\n");
        browser.WaitForStrokes(2);
        Reads(browser, "l\tT\n0,25\t1,003\n1\t2,006");
        Assert.Equal(TableLayout.Header, TableOn(browser).Says);
        browser.Press("type-taken");
        browser.Press("typing-table");
        browser.Press("table-plot");
        browser.WaitForStrokes(3);
        var plot = (PlotContent)Items(browser).Single(item => item.Kind == ItemKinds.Plot).Content;
        Assert.Equal("y = 1.3373·x + 0.66867", plot.Told[0].Split("   ")[0]);
        Assert.Equal("l\nT", plot[ItemField.Axes]);
        // What is too large is refused, and nothing of it is laid down.
        Paste(browser, string.Join('\n', Enumerable.Repeat(string.Join('\t', Enumerable.Repeat("x", 100)), 100)));
        browser.Until(() => browser.Text("said").Contains("40 columns", StringComparison.Ordinal), "a sentence");
        Assert.Equal(3, Items(browser).Count);
        // What is typed in the table moves its points, and points of one's own follow it no more.
        Assert.Equal(2, plot.Alone.Single().Value.Split(' ').Length / 2 - 1);
        browser.Press("look-taken");
        browser.Find("plot-follows");
        Assert.Empty(browser.SeriousFindings());
        browser.Fill("[data-testid=plot-data-1]", "1 1\n2 4\n3 9");
        browser.Type(Keys.Tab);
        browser.Until(() => browser.Count("[data-testid=plot-follows]") == 0, "its own points");
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public void Several_cells_are_taken_with_the_pen_or_by_keys_and_filled_made_bold_emptied_copied_and_joined()
    {
        var browser = OpenPage(Group.Writer);
        Lay(browser, 4_000, 8_000);
        browser.Type("a" + Keys.Tab + "b" + Keys.Tab + "c" + Keys.Tab + "d" + Keys.Tab + "e" + Keys.Tab + "f");
        browser.Type(Keys.ArrowUp + Keys.ArrowLeft + Keys.ArrowLeft + Keys.ArrowLeft + Keys.ArrowLeft);
        Reads(browser, "a\tb\tc\nd\te\tf\n\t\t\n\t\t");
        // The pen drags the corner over the cell that lies below and to the right.
        var grip = browser.Find("cells-grip");
        var box = TableOn(browser).Layout;
        var (wide, high) = (
            PageHands.At(browser, box.Across[1], 0).X - PageHands.At(browser, 0, 0).X,
            PageHands.At(browser, 0, box.Down[1]).Y - PageHands.At(browser, 0, 0).Y
        );
        var pen = new PointerInputDevice(PointerKind.Pen, "pen");
        var drag = new ActionSequence(pen);
        drag.AddAction(pen.CreatePointerMove(grip, 0, 0, TimeSpan.Zero));
        drag.AddAction(pen.CreatePointerDown(MouseButton.Left));
        drag.AddAction(pen.CreatePointerMove(grip, wide / 2, high / 2, TimeSpan.FromMilliseconds(80)));
        drag.AddAction(pen.CreatePointerUp(MouseButton.Left));
        browser.Driver.PerformActions([drag]);
        browser.Find("cells-taken");
        browser.Press("typing-table");
        browser.Press("cell-fill-d5dfb8");
        browser.Until(() => FilledOn(browser) == "a b d e", "four cells filled");
        Assert.Empty(browser.SeriousFindings());
        browser.TypeWithControl("b");
        browser.Until(() => BoldOn(browser) == "a b d e", "four cells bold");
        // As a spreadsheet takes them.
        Assert.Equal("a\tb\nd\te", Copied(browser).Trim());
        browser.Type(Keys.Delete);
        Reads(browser, "\t\tc\n\t\tf\n\t\t\n\t\t");
        browser.TypeWithControl("z");
        Reads(browser, "a\tb\tc\nd\te\tf\n\t\t\n\t\t");
        browser.Type(Keys.Escape);
        browser.Until(() => browser.Count("[data-testid=cells-taken]") == 0, "one cell again");
        // By keys: the letters of a cell first, and from their end on to the right.
        browser.Type(Keys.Home);
        browser.TypeWith(Keys.Shift, Keys.ArrowRight);
        Assert.Equal(0, browser.Count("[data-testid=cells-taken]"));
        browser.TypeWith(Keys.Shift, Keys.ArrowRight);
        browser.TypeWith(Keys.Shift, Keys.ArrowRight);
        browser.Find("cells-taken");
        browser.Press("cells-join");
        browser.Until(() => TableOn(browser).Layout.Text.Cells[0] is { LastColumn: 2, LastRow: 0 }, "the first row joined");
        Assert.Equal("a\nb\nc", TableOn(browser).Layout.Text.Cells[0].Text);
        // The lines of it look otherwise.
        browser.Press("typing-done");
        browser.Press("tool-loop");
        PageHands.Press(browser, 4_300, TableOn(browser).Bounds.Bottom - 400);
        browser.Press("look-taken");
        browser.Press("look-edge");
        browser.Press("ink-madder");
        browser.Until(() => TableOn(browser)[ItemField.Edge].EndsWith("ff", StringComparison.Ordinal), "lines of another colour");
        browser.SendKeys("[data-testid=look-edge-width]", Keys.End);
        browser.Until(() => TableOn(browser).EdgeWidth == 200, "wide lines");
        Assert.Empty(browser.Errors());

        string FilledOn(Browser on) =>
            string.Join(' ', TableOn(on).Layout.Text.Cells.Where(cell => cell.Look[Trait.Fill].Length > 0).Select(cell => cell.Text));

        string BoldOn(Browser on) =>
            string.Join(
                ' ',
                TableOn(on)
                    .Layout.Text.Cells.Where(cell => cell.Paragraphs.SelectMany(one => one.Spans).Any(span => span.Look[Trait.Bold] == "1"))
                    .Select(cell => cell.Text)
            );

        static string Copied(Browser on) =>
            (string)
                on.Script(
                    """
                    const data = new DataTransfer();
                    document.activeElement.dispatchEvent(new ClipboardEvent('copy', { clipboardData: data, bubbles: true, cancelable: true }));
                    return data.getData('text/plain');
                    """
                )!;
    }

    /// <summary>Lays a table of three columns and four rows down, with a press, and types into its first cell.</summary>
    private static void Lay(Browser browser, double x, double y)
    {
        browser.Press("tool-put");
        browser.Press("put-table");
        PageHands.Press(browser, x, y);
        browser.Until(() => browser.Count("[data-testid=typing-field]") > 0, "the caret in the first cell");
    }

    private static void Type(Browser browser, double x, double y)
    {
        browser.TakeTool("text");
        PageHands.Press(browser, x, y);
        browser.Until(
            () => (bool)browser.Script("return document.activeElement?.dataset.testid === 'typing-field'")!,
            "the caret in the cell"
        );
    }

    private static void Draw(Browser browser, (double X, double Y) from, (double X, double Y) to)
    {
        var (x, y) = PageHands.At(browser, from.X, from.Y);
        var (toX, toY) = PageHands.At(browser, to.X, to.Y);
        browser.Pen(x, y, [.. Enumerable.Repeat(((toX - x) / 4, (toY - y) / 4), 4)]);
    }

    private static void Paste(Browser browser, string text) =>
        browser.Script(
            """
            const data = new DataTransfer();
            data.setData('text/plain', arguments[0]);
            document.activeElement.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
            """,
            text
        );

    private void Reads(Browser browser, string words, Person? person = null) =>
        browser.Until(() => TableOn(browser, person).Words == words, $"“{words}”, it is “{TableOn(browser, person).Words}”");

    private TableContent TableOn(Browser browser, Person? person = null) =>
        (TableContent)Items(browser, person).Single(item => item.Kind == ItemKinds.Table).Content;

    private List<PageItem> Items(Browser browser, Person? person = null) => [.. PageOf(browser, person).Items.Where(item => item.Shown)];
}
