using CalmQuill.Core.Diagrams;
using CalmQuill.Core.Items;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Testing;
using OpenQA.Selenium;

namespace CalmQuill.Interface.Tests;

/// <summary>Diagrams as people draw them: shapes with words, connectors between them, branch maps.</summary>
public sealed class DiagramFlowTests : InterfaceTest
{
    [Fact]
    public void Shapes_get_words_and_are_connected_and_stay_so_when_they_are_moved()
    {
        var browser = OpenPage(Group.Writer);
        Draw(browser, "rectangle", 4_000, 7_000, 8_000, 8_600, 2);
        Draw(browser, "ellipse", 12_000, 10_000, 16_500, 12_400, 3);
        browser.Press("tool-shape");
        browser.Press("shape-connector");
        browser.Press("connector-route-bent");
        browser.Press("connector-end-arrow");
        Assert.Empty(browser.SeriousFindings());
        Drag(browser, 6_000, 7_800, 14_000, 11_200);
        browser.WaitForStrokes(4);
        var shapes = Closed(browser);
        var connector = Connector(browser);
        Assert.Equal((shapes[0].Id.ToString(), shapes[1].Id.ToString()), (connector.Read(ItemField.From), connector.Read(ItemField.To)));
        Assert.Equal((8_000, 12_000), Ends(connector));

        // A press with the text tool into a shape means its words.
        Write(browser, 6_000, 7_800, "Escape wheel");
        Write(browser, 14_000, 11_200, "Pallets");
        browser.Until(() => Words(browser, shapes[1].Id) == "Pallets", "words in the ellipse");
        var words = Diagram.WordsIn(PageOf(browser), shapes[0].Id)!;
        Assert.Equal(6_000, (words.Bounds.Left + words.Bounds.Right) / 2.0, 20.0);
        Assert.Equal(7_800, (words.Bounds.Top + words.Bounds.Bottom) / 2.0, 20.0);

        // Moved by hand, with its words; the connector follows, and others see it so.
        browser.Press("tool-loop");
        PageHands.Press(browser, 4_000, 7_800);
        Assert.Equal("2", browser.Attribute("selection", "data-items"));
        Drag(browser, 6_000, 7_800, 6_000, 10_800);
        browser.Until(() => Find(browser, shapes[0].Id).Bounds.Top > 9_500, "the rectangle further down");
        Assert.Equal((8_000, 12_000), Ends(Find(browser, connector.Id)));
        var other = OpenPage(Group.Owner, 6);
        Assert.Equal((8_000, 12_000), Ends(Find(other, connector.Id, Group.Owner)));
        Assert.Equal("Escape wheel", Words(other, shapes[0].Id, Group.Owner));

        // Its look, and its end on bare paper.
        browser.Press("leave-taken");
        PageHands.Press(browser, 8_500, Find(browser, shapes[0].Id).Bounds.Top + 820);
        Assert.Equal("1", browser.Attribute("selection", "data-items"));
        browser.Press("look-taken");
        browser.Css("[data-testid=look-route] option[value='2']").Click();
        browser.Until(() => LookOf(Find(browser, connector.Id)).Route == ConnectorRoute.Curved, "a curve");
        Assert.Empty(browser.SeriousFindings());
        browser.Press("look-taken");
        var handles = browser.Count("[data-testid=shape-handle]");
        Assert.Equal(2, handles);
        var (px, py) = PageHands.At(browser, 12_000, 11_200);
        var (toX, toY) = PageHands.At(browser, 12_000, 8_000);
        browser.Pen(px, py, [(toX - px, (toY - py) / 2), (0, toY - py - (toY - py) / 2)]);
        browser.Until(() => Find(browser, connector.Id).Read(ItemField.To) == "", "an end that is joined to nothing");
        Assert.InRange(Ends(Find(browser, connector.Id)).End, 11_940, 12_060);
        browser.TypeWithControl("z");
        browser.Until(() => Find(browser, connector.Id).Read(ItemField.To) == shapes[1].Id.ToString(), "joined again");
        Assert.Empty(browser.Errors());
        Assert.Empty(other.Errors());
    }

    [Fact]
    public void A_branch_map_grows_from_its_middle_and_is_laid_out_anew()
    {
        var browser = OpenPage(Group.Writer);
        Draw(browser, "ellipse", 8_000, 7_500, 12_000, 9_500, 2);
        var centre = Closed(browser).Single().Id;
        Branch(browser, centre, "Beats unevenly");
        Branch(browser, centre, "Stops after an hour");
        Branch(browser, centre, "Loud drop");
        var map = new BranchMap(PageOf(browser), centre);
        Assert.Equal(3, map.Branches);
        Assert.Equal(
            ["Beats unevenly", "Loud drop", "Stops after an hour"],
            Closed(browser).Select(shape => Words(browser, shape.Id)).Where(words => words.Length > 0).Order()
        );
        // One of them taken elsewhere by hand, and the whole laid out anew.
        var moved = Closed(browser).First(shape => Words(browser, shape.Id) == "Loud drop");
        browser.Press("tool-loop");
        PageHands.Press(browser, moved.Bounds.Left + 20, (moved.Bounds.Top + moved.Bounds.Bottom) / 2.0);
        Assert.Equal("2", browser.Attribute("selection", "data-items"));
        browser.TypeWith(Keys.Shift, Keys.ArrowDown);
        browser.Until(() => Find(browser, moved.Id).Bounds.Top > moved.Bounds.Top, "it lies further down");
        browser.Press("more-taken");
        browser.Press("arrange-map");
        browser.Until(() => Math.Abs(Find(browser, moved.Id).Bounds.Top - moved.Bounds.Top) < 60, "it lies where it belongs");
        Assert.Empty(browser.Errors());
    }

    private void Branch(Browser browser, OpId centre, string words)
    {
        browser.Press("tool-loop");
        var box = Find(browser, centre).Bounds;
        PageHands.Press(browser, (box.Left + box.Right) / 2.0, box.Top + 20);
        browser.Press("branch-taken");
        browser.Find("typing");
        browser.Type(words);
        browser.Press("typing-done");
        browser.Until(() => Closed(browser).Exists(shape => Words(browser, shape.Id) == words), words);
    }

    private static void Draw(Browser browser, string kind, int left, int top, int right, int bottom, int strokes)
    {
        browser.Press("tool-shape");
        browser.Press($"shape-{kind}");
        Drag(browser, left, top, right, bottom);
        browser.WaitForStrokes(strokes);
    }

    private static void Drag(Browser browser, double fromX, double fromY, double toX, double toY)
    {
        var (x, y) = PageHands.At(browser, fromX, fromY);
        var (endX, endY) = PageHands.At(browser, toX, toY);
        var (dx, dy) = (endX - x, endY - y);
        browser.Pen(x, y, [(dx / 2, dy / 2), (dx - dx / 2, dy - dy / 2)]);
    }

    private static void Write(Browser browser, double x, double y, string words)
    {
        browser.Press("tool-text");
        PageHands.Press(browser, x, y);
        browser.Type(words);
        browser.Press("typing-done");
    }

    private List<PageItem> Closed(Browser browser) =>
        [.. PageOf(browser).Items.Where(item => item is { Shown: true, Content: ShapeContent { Shape.IsClosed: true } })];

    private PageItem Connector(Browser browser) =>
        PageOf(browser).Items.Single(item => item is { Shown: true, Content: ShapeContent { IsConnector: true } });

    private string Words(Browser browser, OpId shape, Store.People.Person? person = null) =>
        Diagram.WordsIn(PageOf(browser, person), shape)?.Content.Words ?? "";

    private PageItem Find(Browser browser, OpId id, Store.People.Person? person = null) => PageOf(browser, person).Find(id)!;

    private static ConnectorLook LookOf(PageItem connector) => ConnectorLook.Of(((ShapeContent)connector.Content).Shape.Detail);

    /// <summary>How far to the right it begins and ends, to half a millimetre.</summary>
    private static (int Start, int End) Ends(PageItem connector)
    {
        var points = ((ShapeContent)connector.Content).PlacedShape!.Points;
        return ((points[0].X + 25) / 50 * 50, (points[^1].X + 25) / 50 * 50);
    }
}
