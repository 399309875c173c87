using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;
using CalmQuill.Testing;
using OpenQA.Selenium;

namespace CalmQuill.Interface.Tests;

/// <summary>What was written last is kept, whatever becomes of the tab that it was written in.</summary>
public sealed class LastStrokeTests : InterfaceTest
{
    private static readonly (int, int)[] Way = [.. Enumerable.Range(0, 40).Select(i => (5, i % 2 == 0 ? 9 : -9))];

    [Fact]
    public async Task A_tab_that_is_closed_or_crashes_in_the_middle_of_a_stroke_keeps_what_was_written_until_then()
    {
        var browser = OpenPage(Group.Writer);
        browser.WaitForSync("All saved");
        // Reloaded with the pen down.
        browser.Pen(300, 250, Way, lift: false);
        browser.Driver.Navigate().Refresh();
        browser.WaitForStrokes(2);
        browser.WaitForSync("All saved");

        // Crashed with the pen down: nothing of the tab runs any more.
        var first = browser.Driver.CurrentWindowHandle;
        browser.Driver.SwitchTo().NewWindow(WindowType.Tab);
        browser.Go(PagePath);
        browser.WaitForStrokes(2);
        browser.Pen(300, 330, Way, lift: false);
        Crash(browser);
        browser.Driver.SwitchTo().Window(first);
        browser.Go(PagePath);
        browser.WaitForStrokes(3);
        browser.WaitForSync("All saved");
        var strokes = (await OnServer()).Select(operation => operation.Change).OfType<Change.StrokeAdded>().ToList();
        Assert.Equal(3, strokes.Count);
        // As far as it was written, at its own time and with its pressure.
        Assert.InRange(strokes[2].Samples.Count, 25, 42);
        Assert.All(strokes.Skip(1), stroke => Assert.InRange(stroke.Samples.Pressure.Max(), 600, 630));
        Assert.InRange(DateTimeOffset.UtcNow.ToUnixTimeMilliseconds() - strokes[2].StartedAt, 0, 120_000);
        // Once, and nothing of it is left behind.
        browser.Go(PagePath);
        browser.WaitForStrokes(3);
        Assert.Equal(0L, LeftAhead(browser));
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public async Task A_tab_that_is_gone_before_the_device_has_kept_a_stroke_keeps_it_all_the_same_and_once()
    {
        var (browser, network) = Open(Group.Writer);
        WaitUntilKept(browser);
        network.Cut();
        var first = browser.Driver.CurrentWindowHandle;
        browser.Driver.SwitchTo().NewWindow(WindowType.Tab);
        browser.Go(PagePath);
        browser.WaitForStrokes(1);
        // The device's store is so slow that nothing gets there.
        browser.Script(
            """
            const begin = IDBDatabase.prototype.transaction;
            IDBDatabase.prototype.transaction = function (stores, mode, ...more) {
              if (mode === 'readwrite' && [stores].flat().includes('outbox')) throw new DOMException('slow', 'QuotaExceededError');
              return begin.call(this, stores, mode, ...more);
            };
            """
        );
        browser.Wave(420, 300);
        browser.WaitForStrokes(2);
        Crash(browser);
        browser.Driver.SwitchTo().Window(first);
        browser.Go(PagePath);
        browser.WaitForStrokes(2);
        browser.WaitForSync("waiting for a connection");
        network.Mend();
        browser.WaitForSync("All saved");
        Assert.Equal(2, (await OnServer()).Count);
        browser.Go(PagePath);
        browser.WaitForStrokes(2);
        Assert.Equal(0L, LeftAhead(browser));
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public void What_a_living_tab_is_writing_is_nobody_elses_to_finish_and_nobody_elses_to_see()
    {
        var browser = OpenPage(Group.Writer);
        browser.Pen(300, 250, Way, lift: false);
        Assert.NotEqual(0L, LeftAhead(browser));
        var first = browser.Driver.CurrentWindowHandle;
        browser.Driver.SwitchTo().NewWindow(WindowType.Tab);
        browser.Go(PagePath);
        browser.WaitForStrokes(1);
        browser.WaitForSync("All saved");
        Assert.Equal(1, browser.Strokes());
        // The pen is lifted in its own tab.
        browser.Driver.SwitchTo().Window(first);
        browser.Driver.ResetInputState();
        browser.WaitForStrokes(2);
        browser.WaitForSync("All saved");
        Assert.Equal(0L, LeftAhead(browser));
        // Somebody else who signs in finds nothing of it.
        browser.Script("localStorage.setItem('quill.ahead.' + arguments[0] + '.gone.op.1', '[]')", Group.Writer.Id.ToString());
        browser.ByRail("[data-testid=account-link]");
        browser.Press("sign-out");
        browser.Find("sign-in-form");
        Assert.Equal(0L, LeftAhead(browser));
    }

    private static long LeftAhead(Browser browser) =>
        (long)browser.Script("return Object.keys(localStorage).filter((key) => key.startsWith('quill.ahead.')).length")!;

    /// <summary>Ends the tab's own process; its window stays and shows nothing.</summary>
    private static void Crash(Browser browser)
    {
        try
        {
            ((OpenQA.Selenium.Chromium.ChromiumDriver)browser.Driver).ExecuteCdpCommand("Page.crash", []);
        }
        catch (WebDriverException)
        {
            // The command is answered by the tab that it ends.
        }
    }

    private async Task<List<Operation>> OnServer()
    {
        using var caller = await Host.SignIn(Group.Owner);
        return await caller.After(Group.Space, DocumentKind.Page, Page);
    }
}
