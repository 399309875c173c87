using System.Globalization;
using CalmQuill.Core.Library;
using CalmQuill.Core.Operations;
using CalmQuill.Testing;
using OpenQA.Selenium;

namespace CalmQuill.Interface.Tests;

/// <summary>A sheet of one's own over the page, as somebody in a lesson uses it: nobody else sees it, and it stays.</summary>
public sealed class AsideTests : InterfaceTest
{
    [Fact]
    public void Whoever_reads_a_lesson_writes_over_it_for_themselves_and_finds_it_again_on_another_device()
    {
        var leader = OpenPage(Group.Owner);
        leader.Wave(420, 300);
        leader.Press("export");
        leader.Press("open-lectern");
        var pupil = OpenPage(Group.Reader, 2);
        pupil.Press("follow-lectern");
        pupil.WaitForStrokes(2);
        Assert.Equal(0, pupil.Count("[data-testid=pen-tray]"));
        pupil.Press("lesson-aside");
        WaitForAside(pupil);
        pupil.Wave(430, 310);
        pupil.Wave(430, 420);
        WaitForAside(pupil, 2);
        Assert.Contains("Only you see it", pupil.Text("aside-line"), StringComparison.Ordinal);
        // Who may only read the page has nothing to write on but this.
        Assert.Equal(0, pupil.Count("[data-testid=write-page]"));
        Assert.Empty(pupil.SeriousFindings());

        // The lesson goes on, and each page has its own.
        Assert.Contains("You follow", pupil.Text("taught"), StringComparison.Ordinal);
        leader.Press("page-after");
        pupil.Until(() => pupil.Text("page-number").StartsWith("page 2", StringComparison.Ordinal), "the second page");
        WaitForAside(pupil, 0);
        pupil.Wave(300, 300);
        WaitForAside(pupil, 1);
        leader.Press("page-before");
        pupil.Until(() => pupil.Text("page-number").StartsWith("page 1", StringComparison.Ordinal), "the first page");
        WaitForAside(pupil, 2);

        // The eraser and undo are the aside's.
        pupil.TypeWithControl("z");
        WaitForAside(pupil, 1);
        pupil.Press("redo");
        WaitForAside(pupil, 2);
        pupil.WaitForSync("All saved");
        Assert.Equal(2, leader.Strokes());
        Assert.Equal(2, pupil.Strokes());

        var tablet = OpenPage(Group.Reader, 2);
        WaitForAside(tablet, 2, inHand: false);
        // Nobody else's screen has an aside there.
        Assert.Equal(0, leader.Count("[data-testid=aside-corner]"));
        Assert.Empty(pupil.Errors());
        Assert.Empty(leader.Errors());
    }

    [Fact]
    public void What_was_written_at_something_goes_along_with_it_and_is_given_to_the_page_where_it_lies()
    {
        var browser = OpenPage(Group.Writer);
        browser.Wave(420, 300);
        browser.WaitForStrokes(2);
        browser.Press("aside-toggle");
        // At once: whatever is not open yet, nothing of this lands on the page.
        browser.Wave(430, 305);
        WaitForAside(browser);
        if (AsideStrokes(browser) == 0)
            browser.Wave(430, 305);
        WaitForAside(browser, 1);
        Assert.Equal(2, browser.Strokes());

        // The page's ink is moved, two hundred steps of the keys down; the note lies there too.
        browser.Press("write-page");
        browser.Until(() => browser.Attribute("aside", "data-in-hand") is null, "the page in the hand");
        browser.TypeWithControl("a");
        browser.Find("selection");
        var there = Low(browser);
        for (var steps = 0; steps < 12; steps++)
            browser.TypeWith(Keys.Shift, Keys.ArrowDown);
        browser.Type(Keys.Escape);
        browser.Until(() => browser.Count("[data-testid=selection]") == 0, "nothing selected");
        browser.Press("write-aside");
        WaitForAside(browser, 1);
        browser.TypeWithControl("a");
        browser.Until(() => Low(browser) > there + 20, "the note lower down than the word was");

        // Given to the page it lies there for everybody, and one step takes it back.
        var reader = OpenPage(Group.Reader, 2);
        browser.Press("give-taken");
        WaitForAside(browser, 0);
        browser.WaitForStrokes(3);
        reader.WaitForStrokes(3);
        browser.Press("write-page");
        browser.TypeWithControl("z");
        browser.WaitForStrokes(2);
        WaitForAside(browser, 1, inHand: false);
        reader.WaitForStrokes(2);
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public async Task Written_without_a_connection_it_is_lifted_laid_listed_and_outlives_its_page()
    {
        var (browser, network) = Open(Group.Writer);
        browser.Go(PagePath);
        browser.WaitForStrokes(1);
        network.Cut();
        browser.Press("aside-toggle");
        WaitForAside(browser);
        browser.Wave(430, 305);
        WaitForAside(browser, 1);
        browser.Driver.Navigate().Refresh();
        WaitForAside(browser, 1, inHand: false);
        network.Mend();
        browser.WaitForSync("All saved");

        browser.Press("aside-corner");
        browser.Until(() => browser.Attribute("aside-corner", "aria-pressed") == "false", "the aside lifted");
        Assert.Equal(0, browser.Count("[data-testid=aside-line]"));
        browser.Driver.Navigate().Refresh();
        browser.WaitForStrokes(1);
        browser.Until(() => browser.Attribute("aside-corner", "aria-pressed") == "false", "it lifted still");
        browser.Press("aside-corner");
        WaitForAside(browser, 1, inHand: false);

        browser.Press("export");
        browser.Press("export-over");
        Assert.StartsWith("%PDF-1.", browser.TakeSavedFile(".pdf"), StringComparison.Ordinal);

        browser.Go("/library/list/asides");
        browser.Until(() => browser.Text("aside-where").Contains("over page 1", StringComparison.Ordinal), "where it lies");
        Assert.Empty(browser.SeriousFindings());
        using var owner = await Host.SignIn(Group.Owner);
        await owner.Send(
            Group.Space,
            DocumentKind.Notebook,
            Notebook,
            new Replica(77, Group.Owner.Id).Make(
                new Change.PropertySet(Page, Property.Binned, "1"),
                DateTimeOffset.UtcNow.ToUnixTimeMilliseconds()
            )
        );
        browser.Driver.Navigate().Refresh();
        browser.Until(() => browser.Text("aside-where").Contains("not there", StringComparison.Ordinal), "that the page is gone");
        browser.Press("aside-svg");
        Assert.Contains("<svg", browser.TakeSavedFile(".svg"), StringComparison.Ordinal);
        browser.Press("aside-page");
        browser.WaitForStrokes(1);
        Assert.Empty(browser.Errors());
    }

    private static int AsideStrokes(Browser browser) =>
        int.Parse(browser.Attribute("aside", "data-strokes") ?? "-1", CultureInfo.InvariantCulture);

    private static void WaitForAside(Browser browser, int? strokes = null, bool inHand = true) =>
        browser.Until(
            () =>
                browser.Count("[data-testid=aside]") > 0
                && browser.Attribute("aside", "data-in-hand") == (inHand ? "1" : null)
                && AsideStrokes(browser) is var there
                && there >= 0
                && (strokes is null || there == strokes),
            $"the aside with {strokes} strokes"
        );

    /// <summary>How far down the frame of what is selected reaches, pixels.</summary>
    private static double Low(Browser browser) =>
        Convert.ToDouble(
            browser.Script("return document.querySelector('[data-testid=selection-frame]')?.getBoundingClientRect().bottom ?? 0"),
            CultureInfo.InvariantCulture
        );
}
