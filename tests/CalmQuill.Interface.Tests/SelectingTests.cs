using System.Globalization;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Testing;
using OpenQA.Selenium;
using OpenQA.Selenium.Interactions;
using static CalmQuill.Interface.Tests.LibraryHands;
using static CalmQuill.Interface.Tests.PageHands;

namespace CalmQuill.Interface.Tests;

/// <summary>Taking things up and letting them go with a pen; what is locked, and layers that are shut.</summary>
public sealed class SelectingTests : InterfaceTest
{
    [Fact]
    public async Task What_is_locked_is_neither_tapped_nor_moved_nor_deleted_and_a_press_that_is_held_unlocks_it()
    {
        var browser = OpenPage(Group.Writer);
        browser.Press("tool-loop");
        Loop(browser, 2_000, 4_000, 13_000, 6_500);
        browser.Press("more-taken");
        browser.Press("lock-taken");
        browser.Until(() => browser.Count("[data-testid=selection]") == 0, "it let go");
        var before = await Stroke(browser);
        Press(browser, before.X, before.Y);
        Assert.Equal(0, browser.Count("[data-testid=selection]"));
        // A loop round it has it with nothing but the way to unlock it: no key moves or deletes it.
        Loop(browser, 2_000, 4_000, 13_000, 6_500);
        browser.Find("unlock");
        browser.Type(Keys.ArrowDown);
        browser.Type(Keys.Delete);
        browser.Until(() => Said(browser).Contains("locked", StringComparison.Ordinal), "that it is locked");
        browser.TypeWithControl("x");
        Assert.Equal(1, browser.Strokes());
        browser.WaitForSync("All saved");
        Assert.Equal((before.X, before.Y, before.Width), await Stroke(browser));
        // Held, it can be unlocked.
        browser.Type(Keys.Escape);
        browser.Until(() => browser.Count("[data-testid=selection]") == 0, "it let go again");
        var (x, y) = At(browser, before.X, before.Y);
        browser.Pen(x, y, [(1, 0)], rest: TimeSpan.FromMilliseconds(800));
        browser.Press("unlock");
        browser.Press("leave-taken");
        Press(browser, before.X, before.Y);
        browser.Find("look-taken");
        browser.Type(Keys.Delete);
        browser.WaitForStrokes(0);
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public void Taps_within_the_frame_add_and_take_out_one_on_bare_paper_lets_go_and_a_chosen_pen_always_writes()
    {
        var browser = OpenPage(Group.Writer);
        // Two words below each other, between the page's wave and nothing.
        foreach (var y in new[] { 330, 400 })
            browser.Wave(420, y);
        browser.WaitForStrokes(3);
        string Items() => browser.AttributeAt("[data-testid=selection]", "data-items") ?? "";
        browser.Press("tool-loop");
        browser.TypeWithControl("a");
        browser.Until(() => Items() == "3", "all three");
        browser.Pen(422, 400, []);
        browser.Until(() => Items() == "2", "one taken out");
        browser.Pen(422, 330, []);
        browser.Until(() => Items() == "1", "another taken out");
        browser.TypeWithControl("a");
        browser.Until(() => Items() == "3", "all three again");
        // Dragged it is moved, and stays taken.
        browser.Pen(640, 365, [(0, 10), (0, 10), (0, 10)]);
        browser.Until(() => Items() == "3", "all three, moved");
        browser.Pen(640, 365, []);
        browser.Until(() => browser.Count("[data-testid=selection]") == 0, "bare paper to let go");

        // Choosing a pen lets go; and over what is taken while one is chosen, it writes.
        browser.TypeWithControl("a");
        browser.Until(() => Items() == "3", "all three once more");
        browser.Press("pen-2");
        browser.Until(() => browser.Count("[data-testid=selection]") == 0, "the pen to let go");
        browser.TypeWithControl("a");
        browser.Until(() => Items() == "3", "all three, with a pen in the hand");
        browser.Wave(560, 365);
        browser.WaitForStrokes(4);
        Assert.Equal(0, browser.Count("[data-testid=selection]"));
        browser.WaitForSync("All saved");
        Assert.Empty(browser.Errors());
    }

    [Theory]
    [InlineData(1280, 800)]
    [InlineData(800, 1100)]
    public void The_toolbar_covers_neither_what_is_taken_nor_its_grips(int width, int height)
    {
        var browser = OpenPage(Group.Writer);
        browser.Driver.Manage().Window.Size = new System.Drawing.Size(width, height);
        browser.Press("zoom");
        browser.Press("zoom-fit");
        foreach (var (top, bottom) in new[] { (4_000, 6_500), (500, 12_000), (14_000, 19_000) })
        {
            Loop(browser, 2_000, top, 14_000, bottom);
            if (browser.Count("[data-testid=look-taken]") == 1)
                browser.Press("look-taken");
            var covered = browser.Script(
                """
                const bar = document.querySelector('[aria-label="What was selected"]').parentElement;
                const parts = [...bar.children].map((one) => one.getBoundingClientRect());
                const frame = document.querySelector('[data-testid=selection-frame]').getBoundingClientRect();
                const grips = [...document.querySelectorAll('[data-testid=grip], [data-testid=turn-grip]')].map((one) => one.getBoundingClientRect());
                const meets = (a, b) => a.left < b.right && b.left < a.right && a.top < b.bottom && b.top < a.bottom;
                const over = [frame, ...grips].filter((one) => parts.some((part) => meets(part, one)));
                const outside = parts.filter((part) => part.top < 0 || part.bottom > innerHeight + 1 || part.right > innerWidth + 1);
                return `${over.length} ${outside.length}`;
                """
            );
            Assert.Equal("0 0", covered);
            browser.Press("leave-taken");
        }
    }

    [Fact]
    public async Task Turning_follows_the_hand_and_rests_only_near_the_quarter_and_a_width_is_the_one_that_is_seen()
    {
        var browser = OpenPage(Group.Writer);
        browser.Press("tool-loop");
        Loop(browser, 2_000, 4_000, 13_000, 6_500);
        // The hand takes the grip and goes round the middle by ten degrees: the stroke is turned by ten.
        Turn(browser, 10);
        Assert.InRange(await Angle(browser), 9, 11);
        // By three it rests at none.
        browser.Press("undo");
        Turn(browser, 3);
        Assert.InRange(await Angle(browser), -0.6, 0.6);

        var grip = browser.Css("[data-testid=grip][data-grip='1,1']");
        new Actions(browser.Driver).ClickAndHold(grip).MoveByOffset(60, 20).MoveByOffset(60, 20).Release().Perform();
        browser.WaitForSync("All saved");
        var scaled = (await Shown()).Items.Single();
        Assert.True(scaled.Line.Pen.Width > 50, $"{scaled.Line.Pen.Width}");
        browser.Press("look-taken");
        var slider = browser.Find("look-width");
        Assert.Equal(scaled.Line.Pen.Width / 5 * 5, int.Parse(slider.GetAttribute("value")!, CultureInfo.InvariantCulture) / 5 * 5);
        slider.SendKeys(string.Concat(Enumerable.Repeat(Keys.ArrowRight, 10)));
        var wished = int.Parse(slider.GetAttribute("value")!, CultureInfo.InvariantCulture);
        browser.WaitForSync("All saved");
        Assert.InRange((await Shown()).Items.Single().Line.Pen.Width, wished - 1, wished + 1);
        Assert.Equal(wished, int.Parse(browser.Find("look-width").GetAttribute("value")!, CultureInfo.InvariantCulture));
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public void On_a_layer_that_is_hidden_or_locked_nothing_is_written_in_vain_and_one_press_opens_it()
    {
        var browser = OpenPage(Group.Writer);
        browser.Press("tool-layers");
        browser.Press("add-layer");
        browser.Until(() => browser.Count("[data-testid=layer]") == 2, "two layers");
        foreach (var (press, word, opens) in new[] { ("layer-hide", "hidden", "Show it"), ("layer-lock", "locked", "Unlock it") })
        {
            var before = browser.Strokes();
            if (browser.Count("[data-testid=layers-panel]") == 0)
                browser.Press("tool-layers");
            browser.PressCss($"[data-testid=layer][data-name='Layer 2'] [data-testid={press}]");
            browser.Wave(520, 400);
            browser.Until(() => Said(browser).Contains($"is {word}", StringComparison.Ordinal), "why not");
            Assert.Equal(before, browser.Strokes());
            // The panel to choose another layer is there, too.
            browser.Find("layers-panel");
            Assert.Equal(opens, browser.Text("take-back"));
            browser.Press("take-back");
            browser.Wave(520, before == 1 ? 400 : 460);
            browser.WaitForStrokes(before + 1);
        }

        browser.WaitForSync("All saved");
        Assert.Empty(browser.Errors());
    }

    /// <summary>Goes with the hand round the middle of what is taken, by so many degrees.</summary>
    private static void Turn(Browser browser, double degrees)
    {
        browser.WaitForSync("All saved");
        var frame = Rectangle(browser, "selection-frame");
        var grip = Rectangle(browser, "turn-grip");
        var (cx, cy) = (frame.X + frame.Width / 2, frame.Y + frame.Height / 2);
        var (x, y) = (grip.X + grip.Width / 2, grip.Y + grip.Height / 2);
        var (sin, cos) = Math.SinCos(degrees * Math.PI / 180);
        var (dx, dy) = (x - cx, y - cy);
        var (toX, toY) = (cx + dx * cos - dy * sin, cy + dx * sin + dy * cos);
        new Actions(browser.Driver)
            .MoveToElement(browser.Find("turn-grip"))
            .ClickAndHold()
            .MoveByOffset((int)Math.Round((toX - x) / 2), (int)Math.Round((toY - y) / 2))
            .MoveByOffset(
                (int)Math.Round(toX - x) - (int)Math.Round((toX - x) / 2),
                (int)Math.Round(toY - y) - (int)Math.Round((toY - y) / 2)
            )
            .Release()
            .Perform();
        browser.WaitForSync("All saved");
    }

    private static (double X, double Y, double Width, double Height) Rectangle(Browser browser, string testId)
    {
        var numbers = (
            (string)
                browser.Script(
                    "const { left, top, width, height } = document.querySelector(`[data-testid='${arguments[0]}']`).getBoundingClientRect(); return `${left} ${top} ${width} ${height}`",
                    testId
                )!
        )
            .Split(' ')
            .Select(number => double.Parse(number, CultureInfo.InvariantCulture))
            .ToArray();
        return (numbers[0], numbers[1], numbers[2], numbers[3]);
    }

    /// <summary>How the page's wave lies, degrees clockwise from level, by its first and last sample a whole number of waves apart.</summary>
    private async Task<double> Angle(Browser browser)
    {
        browser.WaitForSync("All saved");
        var samples = (await Shown()).Items.Single().Line.Samples;
        var (dx, dy) = (samples.X[^1] - samples.X[0], samples.Y[^1] - samples.Y[0]);
        var level = Generate.Wave(200);
        var was = Math.Atan2(level.Y[^1] - level.Y[0], level.X[^1] - level.X[0]);
        return (Math.Atan2(dy, dx) - was) * 180 / Math.PI;
    }

    private async Task<(int X, int Y, int Width)> Stroke(Browser browser)
    {
        browser.WaitForSync("All saved");
        var item = (await Shown()).Items.Single(one => one.Shown);
        var middle = item.Line.Samples.Count / 2;
        return ((int)(item.Line.Samples.X[middle] + item.Dx), (int)(item.Line.Samples.Y[middle] + item.Dy), item.Line.Pen.Width);
    }

    private async Task<PageDocument> Shown()
    {
        using var caller = await Host.SignIn(Group.Owner);
        var page = new PageDocument();
        foreach (var operation in await caller.After(Group.Space, DocumentKind.Page, Page))
            page.Apply(operation);
        return page;
    }
}
