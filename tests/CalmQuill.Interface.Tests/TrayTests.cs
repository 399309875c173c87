using System.Globalization;
using CalmQuill.Testing;
using OpenQA.Selenium;
using OpenQA.Selenium.Interactions;

namespace CalmQuill.Interface.Tests;

/// <summary>The tray with the tools of one's choice, where it stands, and the room that the sheet has beside it.</summary>
public sealed class TrayTests : InterfaceTest
{
    [Fact]
    public void The_tray_holds_the_tools_of_ones_choice_and_all_others_are_one_press_away()
    {
        var browser = OpenPage(Group.Writer);
        Assert.Equal("eraser loop text put shape room mark layers", InTray(browser));
        browser.Press("all-tools-button");
        // Every tool stands there once, with its key; one is found by a part of its name.
        Assert.Equal(20, browser.Count("[data-testid^=all-][aria-pressed]"));
        Assert.Equal(20, browser.Count("[data-testid=all-tools] kbd"));
        browser.Fill("[data-testid=find-tool]", "com");
        browser.Until(() => browser.Count("[data-testid^=all-][aria-pressed]") == 1, "the ruler and compass alone");
        browser.Find("all-guide");
        browser.Fill("[data-testid=find-tool]", Keys.Backspace);

        // A ninth finds no room, and nothing that stood there goes for it.
        browser.Press("keep-loupe");
        browser.Until(() => browser.Text("said").Contains("holds 8 tools", StringComparison.Ordinal), "why not");
        Assert.Equal("eraser loop text put shape room mark layers", InTray(browser));
        browser.Press("keep-put");
        browser.Press("keep-loupe");
        browser.Until(() => InTray(browser) == "eraser loop text shape room mark layers loupe", "the loupe at the end");
        browser.Press("up-loupe");
        browser.Until(() => InTray(browser) == "eraser loop text shape room mark loupe layers", "one place up");

        // Held and dragged, a tool goes to where another stands, and out of the tray.
        HoldAndDrag(browser, "all-loupe", "all-eraser");
        browser.Until(() => InTray(browser) == "loupe eraser loop text shape room mark layers", "the loupe first");
        HoldAndDrag(browser, "all-room", "all-retrace");
        browser.Until(() => InTray(browser) == "loupe eraser loop text shape mark layers", "what makes room taken out");

        // What the tray does not hold is taken up from the panel, and by its key.
        browser.Press("all-curtain");
        browser.Until(() => browser.Count("[data-testid=all-tools]") == 0, "the panel to fold");
        Assert.Contains("Drag a cloth", browser.Find("pen-tray").Text, StringComparison.Ordinal);
        browser.Type("u");
        browser.Find("guide-settings");
        browser.Type(Keys.Escape);
        browser.Until(() => browser.Count("[data-testid=guide-settings]") == 0, "Escape to fold it");
        browser.WaitForSync("All saved");

        // It is the person's own, on every device; another's tray is as it was.
        var second = OpenPage(Group.Writer);
        Assert.Equal("loupe eraser loop text shape mark layers", InTray(second));
        Assert.Equal("eraser loop text put shape room mark layers", InTray(OpenPage(Group.Owner)));
        second.Press("all-tools-button");
        second.Press("usual-tray");
        second.Until(() => InTray(second) == "eraser loop text put shape room mark layers", "the tray as it was first");
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public void The_tray_folds_to_a_dot_moves_to_the_other_side_and_stands_there_after_a_reload()
    {
        var browser = OpenPage(Group.Writer);
        browser.Resize(820, 1180);
        Assert.Equal("left", browser.Attribute("pen-tray", "data-side"));
        var before = Place(browser);
        browser.Press("fold-tray");
        browser.Find("tray-dot");
        // The sheet has the room; writing and taking back go on.
        browser.Until(() => Place(browser).Left != before.Left || Place(browser).Width != before.Width, "the sheet to take the room");
        browser.Wave(520, 420);
        browser.WaitForStrokes(2);
        browser.Press("undo");
        browser.WaitForStrokes(1);
        browser.Go(PagePath);
        browser.WaitForStrokes(1);
        browser.Press("unfold-tray");
        browser.Find("pen-tray");

        // Dragged by its grip over the middle it stands on the other side; pressed there, that is no fold.
        var grip = browser.Find("fold-tray");
        new Actions(browser.Driver).ClickAndHold(grip).MoveByOffset(300, 20).MoveByOffset(300, 0).Release().Perform();
        browser.Until(() => browser.Attribute("pen-tray", "data-side") == "right", "the tray on the right");
        browser.Go(PagePath);
        browser.WaitForStrokes(1);
        Assert.Equal("right", browser.Attribute("pen-tray", "data-side"));
        // By keys alone, too.
        browser.Press("all-tools-button");
        browser.Press("tray-side");
        browser.Until(() => browser.Attribute("pen-tray", "data-side") == "left", "the tray on the left");
        Assert.Empty(browser.Errors());
    }

    [Theory]
    [InlineData(820, 1180, 0.92)]
    [InlineData(1180, 820, 0.60)]
    [InlineData(1280, 800, 0.60)]
    public void The_sheet_has_the_room_and_the_tray_lies_beside_it(int width, int height, double share)
    {
        var browser = OpenPage(Group.Writer);
        browser.Resize(width, height);
        var (left, wide) = (0.0, 0.0);
        browser.Until(() => ((left, wide) = Place(browser)).Item2 / width >= share, $"the sheet to take {share:P0} of {width}");
        Assert.True(left >= browser.Find("pen-tray").Location.X + Toolbar(browser), "the tray covers the sheet");
        // Nothing that is pressed is smaller than a fingertip.
        Assert.Equal(
            "",
            browser.Script(
                """
                return [...document.querySelectorAll('[data-testid=pen-tray] [role=toolbar] button, header button, nav[aria-label=Pages] button:not([data-tick])')]
                    .filter(one => one.offsetParent && (one.offsetWidth < 40 || one.offsetHeight < 44))
                    .map(one => `${one.title} ${one.offsetWidth} ${one.offsetHeight}`).join(', ')
                """
            )
        );
    }

    [Fact]
    public void One_comes_back_to_where_one_was_on_a_page()
    {
        var browser = OpenPage(Group.Writer);
        browser.Press("zoom");
        browser.Press("zoom-in");
        browser.Press("zoom");
        var moved = browser.Attribute("sheet", "data-view");
        browser.Press("page-after");
        PageHands.WaitForPage(browser, "page 2 of 2");
        browser.Until(() => browser.Attribute("sheet", "data-view") != moved, "the second page as it is first seen");
        browser.Press("page-before");
        PageHands.WaitForPage(browser, "page 1 of 2");
        browser.Until(() => browser.Attribute("sheet", "data-view") == moved, "the first page where it was left");
        Assert.Empty(browser.Errors());
    }

    private static string InTray(Browser browser) =>
        (string)
            browser.Script(
                "return [...document.querySelectorAll('[data-testid=pen-tray] [role=toolbar] [data-testid^=tool-]')].map(one => one.dataset.testid.slice(5)).join(' ')"
            )!;

    private static void HoldAndDrag(Browser browser, string from, string onto)
    {
        var (what, where) = (browser.Find(from), browser.Find(onto));
        new Actions(browser.Driver)
            .ClickAndHold(what)
            .Pause(TimeSpan.FromMilliseconds(400))
            .MoveByOffset(0, 4)
            .MoveToElement(where)
            .MoveByOffset(1, 1)
            .Release()
            .Perform();
    }

    private static double Toolbar(Browser browser) => browser.Css("[data-testid=pen-tray] [role=toolbar]").Size.Width;

    /// <summary>Where the sheet begins in the window, and how wide it is shown; pixels.</summary>
    private static (double Left, double Width) Place(Browser browser)
    {
        var sheet = browser
            .Attribute("sheet", "data-sheet")!
            .Split(' ')
            .Select(edge => double.Parse(edge, CultureInfo.InvariantCulture))
            .ToArray();
        var (left, right) = (PageHands.At(browser, sheet[0], sheet[1]).X, PageHands.At(browser, sheet[2], sheet[3]).X);
        return (browser.Find("sheet").Location.X + left, right - left);
    }
}
