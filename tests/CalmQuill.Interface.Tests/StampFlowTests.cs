using CalmQuill.Core.Items;
using CalmQuill.Core.Pages;
using CalmQuill.Testing;
using OpenQA.Selenium;

namespace CalmQuill.Interface.Tests;

/// <summary>The stamp box, as people fill it and use what is in it.</summary>
public sealed class StampFlowTests : InterfaceTest
{
    [Fact]
    public void A_stamp_is_made_and_used_by_another_person_in_another_size_and_colour()
    {
        var browser = OpenPage(Group.Writer);
        browser.Press("tool-shape");
        browser.Press("shape-star");
        var (x, y) = PageHands.At(browser, 5_000, 9_000);
        browser.Pen(x, y, [(40, 40), (40, 40)]);
        browser.WaitForStrokes(2);
        browser.Press("tool-loop");
        PageHands.Press(browser, Star(browser).Bounds.Left + 40, Near(Star(browser)));
        Assert.Equal("1", browser.Attribute("selection", "data-items"));
        browser.Press("more-taken");
        browser.Press("as-stamp");
        browser.Css("[data-testid=stamp-shelf]:last-child").Click();
        Assert.Empty(browser.SeriousFindings());
        browser.Fill("[data-testid=stamp-category]", "Marks of ours");
        browser.Fill("[data-testid=name-input]", "Our star" + Keys.Enter);
        browser.Until(() => browser.Driver.PageSource.Contains("is in the stamp box", StringComparison.Ordinal), "that it is kept");
        browser.WaitForSync("All saved");

        // Somebody else of the group finds it in the box, under its category.
        var other = OpenPage(Group.Owner, 2);
        Choose(other, "Our star");
        Assert.Empty(other.SeriousFindings());
        PageHands.Press(other, 10_000, 12_000);
        other.WaitForStrokes(3);
        var laid = PageOf(other, Group.Owner).Items.Last(item => item.Shown);
        Assert.Equal(12_000, (laid.Bounds.Top + laid.Bounds.Bottom) / 2.0, 30.0);
        Assert.Equal(Group.Owner.Id, laid.Author);
        Assert.Equal(Star(browser).Bounds.Right - Star(browser).Bounds.Left, laid.Bounds.Right - laid.Bounds.Left, 6.0);

        // Again and again, dragged as wide as it is to be, and of one colour.
        var (fromX, fromY) = PageHands.At(other, 12_500, 8_000);
        var (toX, toY) = PageHands.At(other, 16_500, 11_000);
        Open(other);
        other.Press("stamp-dyed");
        other.Pen(
            fromX,
            fromY,
            [((toX - fromX) / 2, (toY - fromY) / 2), (toX - fromX - (toX - fromX) / 2, toY - fromY - (toY - fromY) / 2)]
        );
        other.WaitForStrokes(4);
        var wide = PageOf(other, Group.Owner).Items.Last(item => item.Shown);
        Assert.Equal(4_000, wide.Bounds.Right - wide.Bounds.Left, 150.0);
        Assert.Equal(0xB4533CFF, ((LineContent)wide.Content).Colour);
        browser.WaitForStrokes(4);
        other.TypeWithControl("z");
        browser.WaitForStrokes(3);

        // What was used stands first; who may renames it and takes it away.
        Open(other);
        Assert.Equal("Our star", other.AttributeAt("[data-testid=stamp]", "data-name"));
        other.Press("stamp-bin");
        other.Until(() => other.Count("[data-name='Our star']") == 0, "no such stamp");
        Assert.Equal(3, PageOf(other, Group.Owner).Items.Count(item => item.Shown));
        Assert.Empty(browser.Errors());
        Assert.Empty(other.Errors());
    }

    [Fact]
    public void A_picture_is_a_stamp_and_those_that_ship_are_there_without_a_connection()
    {
        var (browser, network) = Open(Group.Writer);
        browser.Go(PagePath);
        browser.WaitForStrokes(1);
        Open(browser);
        var file = Path.Combine(Directory.CreateTempSubdirectory("quill-stamps").FullName, "crest.svg");
        File.WriteAllText(
            file,
            """<svg xmlns="http://www.w3.org/2000/svg" width="60" height="30"><rect width="60" height="30" fill="#1f5f8b"/></svg>"""
        );
        PageHands.ChooseFile(browser, "stamp-picture-file", file);
        browser.Css("[data-name=crest]").Click();
        browser.Until(() => browser.Text("stamp-chosen") == "crest", "the picture in the box");
        PageHands.Press(browser, 12_000, 9_000);
        browser.WaitForStrokes(2);
        var picture = PageOf(browser).Items.Single(item => item.Shown && item.Kind == ItemKinds.Picture);
        Assert.Equal(3_000, picture.Bounds.Right - picture.Bounds.Left, 10.0);
        Assert.Equal(1_500, picture.Bounds.Bottom - picture.Bounds.Top, 10.0);
        browser.WaitForSync("All saved");

        network.Cut();
        Choose(browser, "Sun");
        PageHands.Press(browser, 5_000, 9_000);
        browser.Until(() => PageOf(browser).Items.Count(item => item.Shown) == 11, "a sun of nine lines");
        network.Mend();
        browser.WaitForSync("All saved");
        Assert.Empty(browser.Errors());
    }

    private static void Open(Browser browser)
    {
        browser.Press("tool-put");
        browser.Press("put-stamp");
        browser.Find("stamp-settings");
    }

    private static void Choose(Browser browser, string name)
    {
        Open(browser);
        browser.Css($"[data-name='{name}']").Click();
        browser.Until(() => browser.Text("stamp-chosen") == name, name);
    }

    private PageItem Star(Browser browser) =>
        PageOf(browser).Items.Last(item => item is { Shown: true, Content: ShapeContent { Shape.Kind: Core.Shapes.ShapeKind.Star } });

    /// <summary>How far down a star's left tip is.</summary>
    private static double Near(PageItem star) => ((ShapeContent)star.Content).PlacedShape!.Points.MinBy(point => point.X).Y;
}
