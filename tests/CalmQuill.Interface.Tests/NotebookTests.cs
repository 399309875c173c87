using CalmQuill.Core.Operations;
using CalmQuill.Testing;
using OpenQA.Selenium;
using static CalmQuill.Interface.Tests.LibraryHands;

namespace CalmQuill.Interface.Tests;

/// <summary>What is done with a notebook from inside: sections and pages, two pages beside each other, locking; and jots.</summary>
public sealed class NotebookTests : InterfaceTest
{
    [Fact]
    public void A_notebook_gets_sections_and_pages_which_move_and_go_to_the_bin_and_back()
    {
        var (browser, network) = Open(Group.Writer);
        browser.Go(PagePath);
        browser.WaitForStrokes(1);
        browser.Press("contents");
        network.Cut();
        foreach (var title in new[] { "Basics", "Faults" })
        {
            browser.Press("new-section");
            browser.Fill("[data-testid=entry-name]", title + Keys.Enter);
            browser.Css($"[data-testid=section][data-name='{title}']");
        }

        // The first page into a section by dragging, a new one into it by its menu, a sub-page below that.
        browser.Drag(
            () => browser.Css("[data-testid=contents-panel] [data-testid=page] button"),
            () => browser.Css("[data-testid=section][data-name=Faults]")
        );
        int Level(string css) => int.Parse(browser.Css(css).GetAttribute("aria-level")!, System.Globalization.CultureInfo.InvariantCulture);
        browser.Until(
            () =>
                browser
                    .Driver.FindElements(By.CssSelector("[data-testid=contents-panel] [role=treeitem]"))
                    .Select(row => row.GetAttribute("data-testid") + row.GetAttribute("aria-level"))
                    .SequenceEqual(["page1", "section1", "section1", "page2"]),
            "the page in the section"
        );
        browser.PressCss("[data-testid=section][data-name=Basics] [data-testid=entry-menu]");
        browser.Press("entry-add-page");
        browser.WaitForStrokes(0);
        browser.Fill("[data-testid=page-title]", "Second thoughts" + Keys.Enter);
        browser.PressCss("[data-testid=page][data-name='Second thoughts'] [data-testid=entry-menu]");
        browser.Press("entry-add-sub");
        browser.Until(() => browser.Text("page-number") == "page 3 of 4", "the sub-page");
        Assert.Equal(3, Level("[data-testid=page][aria-current=page]"));
        browser.Wave(420, 300);
        browser.WaitForStrokes(1);
        network.Mend();
        browser.WaitForSync("All saved");

        // The section goes to the bin with its pages; from there it comes back to its place.
        browser.PressCss("[data-testid=section][data-name=Basics] [data-testid=entry-menu]");
        browser.Press("entry-bin");
        browser.Until(() => browser.Count("[data-testid=contents-panel] [role=treeitem]") == 3, "the section gone");
        browser.WaitForSync("All saved");
        var second = Open(Group.Owner).Browser;
        second.Go("/library/list/bin");
        second.PressCss("[data-testid=binned][data-name=Basics] [data-testid=put-back]");
        browser.Css("[data-testid=page][data-name='Second thoughts']");
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public void Pages_move_to_another_notebook_with_their_ink_and_sections_are_duplicated()
    {
        var browser = AtDesk(Group.Writer).Browser;
        NewNotebook(browser, "Bench log");
        browser.Go(PagePath);
        browser.WaitForStrokes(1);
        browser.Press("contents");
        browser.Press("new-section");
        browser.Fill("[data-testid=entry-name]", "Basics" + Keys.Enter);
        browser.Drag(
            () => browser.Css("[data-testid=contents-panel] [aria-current=page] button"),
            () => browser.Css("[data-testid=section][data-name=Basics]")
        );
        browser.Until(() => browser.AttributeAt("[data-testid=page][aria-current=page]", "aria-level") == "2", "the page in the section");
        browser.PressCss("[data-testid=section][data-name=Basics] [data-testid=entry-menu]");
        browser.Press("entry-duplicate");
        browser.Until(
            () =>
                browser.Count("[data-testid=section][data-name=Basics]") == 2
                && browser.Count("[data-testid=contents-panel] [data-testid=page]") == 3,
            "the copy"
        );
        browser
            .Driver.FindElements(By.CssSelector("[data-testid=contents-panel] [data-testid=page]"))
            .Last()
            .FindElement(By.TagName("button"))
            .Click();
        browser.Until(() => browser.Text("page-number") == "page 3 of 3", "the copied page");
        browser.WaitForStrokes(1);

        // The first page, with its ink and its id, into the other notebook.
        browser.PressCss("[data-testid=section] + [data-testid=page] [data-testid=entry-menu]");
        browser.Press("entry-move");
        browser.Fill("[data-testid=place-typed]", "bench" + Keys.Enter);
        browser.Until(() => browser.Count("[data-testid=contents-panel] [data-testid=page]") == 2, "one page less");
        browser.WaitForSync("All saved");
        browser.ByRail("[data-testid=open-tab][data-name='Bench log']");
        browser.Until(() => browser.Text("page-number").EndsWith("of 2", StringComparison.Ordinal), "one page more");
        browser.Press("page-after");
        browser.WaitForStrokes(1);
        Assert.Empty(browser.Errors());
    }

    [Theory]
    [InlineData(1024, 768)]
    [InlineData(1180, 820)]
    public void Two_pages_beside_each_other_keep_400_pixels_each_with_the_margin_open(int width, int height)
    {
        var browser = OpenPage(Group.Writer);
        browser.Resize(width, height);
        browser.Press("contents");
        browser.Find("contents-panel");
        browser.Press("beside");
        browser.PressCss("[data-testid=beside-choice]");
        browser.WaitForStrokes(0, pane: 1);
        var margin = browser.Find("contents-panel").Location.X;
        foreach (var pane in browser.Driver.FindElements(OpenQA.Selenium.By.CssSelector("[data-testid=pane]")))
        {
            Assert.True(pane.Size.Width >= 400, $"a page has {pane.Size.Width} pixels");
            Assert.True(pane.Location.X + pane.Size.Width <= margin, "the margin lies over a page");
        }
    }

    [Fact]
    public void Two_pages_beside_each_other_are_both_written_on()
    {
        var browser = OpenPage(Group.Writer);
        browser.Press("beside");
        browser.PressCss("[data-testid=beside-choice]");
        browser.WaitForStrokes(0, pane: 1);
        browser.Wave(200, 200, pane: 1);
        browser.WaitForStrokes(1, pane: 1);
        browser.Wave(200, 300, pane: 0);
        browser.WaitForStrokes(2, pane: 0);

        // Undo goes to the page touched last; each has its own place.
        browser.Wave(200, 300, pane: 1);
        browser.WaitForStrokes(2, pane: 1);
        browser.TypeWithControl("z");
        browser.WaitForStrokes(1, pane: 1);
        Assert.Equal(2, browser.Strokes(0));
        browser.Script("location.reload()");
        browser.WaitForStrokes(1, pane: 1);
        browser.WaitForStrokes(2, pane: 0);
        browser.Press("close-beside");
        browser.Until(() => browser.Count("[data-testid=pane]") == 1, "one page");

        // What is open stands on the rail; the keys [ and ] go from one notebook to the next.
        browser.Go("/desk");
        browser.ByRail("[data-testid=open-tab][data-name=Escapements]");
        browser.WaitForStrokes(2);
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public void A_locked_notebook_shows_nothing_until_it_is_opened()
    {
        var browser = Open(Group.Owner).Browser;
        browser.Go("/library");
        browser.PressCss("[data-name=Escapements] [data-testid=row-menu]");
        browser.Press("menu-lock");
        browser.Fill("[data-testid=secret]", "lantern oil");
        browser.Press("dialog-confirm");
        browser.Until(() => browser.Count("[data-testid=strip-page]") == 0, "no pages in the strip");
        browser.PressCss("[data-name=Escapements] [data-testid=open-notebook]");
        browser.Find("locked-pages");
        browser.Fill("[data-testid=secret]", "lamp oil");
        browser.Press("lock-open");
        browser.Until(() => browser.Text("lock-problem").Contains("not the passphrase", StringComparison.Ordinal), "the refusal");
        browser.Fill("[data-testid=secret]", "lantern oil");
        browser.Press("lock-open");
        browser.WaitForStrokes(1);
        browser.Press("shut");
        browser.Find("locked-pages");
        browser.Until(
            () =>
                (bool)
                    browser.AsyncScript(
                        "const [person, id, done] = arguments; indexedDB.open('calm-quill-' + person).onsuccess = (event) => { event.target.result.transaction('operations').objectStore('operations').getAll().onsuccess = (rows) => { event.target.result?.close?.(); done(rows.target.result.every((row) => !row.document.endsWith(id))); }; };",
                        Group.Owner.Id.ToString(),
                        Page.ToString()
                    )!,
            "the device to hold nothing of it"
        );
    }

    [Fact]
    public void A_jot_is_made_without_a_connection_and_filed_later()
    {
        var (browser, network) = AtDesk(Group.Writer);
        network.Cut();
        browser.Press("jot");
        browser.WaitForStrokes(0);
        browser.Wave(420, 300);
        browser.WaitForStrokes(1);
        browser.ByRail("nav a[href='/desk']");
        browser.Css("[data-testid=jot-waiting]");
        network.Mend();
        browser.WaitForSync("All saved");

        // Filed into the group's library: a copy there, the jot itself in the bin.
        browser.Go("/library/list/jots");
        browser.Press("row-menu");
        browser.Press("menu-move");
        browser.Fill("[data-testid=move-typed]", "Group");
        browser.Press("dialog-confirm");
        browser.Find("empty");
        browser.Go($"/library/{Group.Space}");
        browser.Until(() => browser.Count("[data-testid=notebook-row]") == 2, "the jot filed");
        browser.Go("/library/list/bin");
        browser.Css("[data-testid=bin-personal] [data-testid=binned]");

        // Today's page: one a day, however often one asks.
        string? Today()
        {
            browser.Go("/today");
            browser.WaitForStrokes(0);
            return new Uri(browser.Driver.Url).AbsolutePath;
        }

        Assert.Equal(Today(), Today());
        Assert.Equal("page 1 of 1", browser.Text("page-number"));
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public async Task The_contents_of_a_long_notebook_hold_what_is_seen_and_follow_the_page_that_is_open()
    {
        const int Pages = 600;
        using var caller = await Host.SignIn(Group.Owner);
        var device = new Replica(6, Group.Owner.Id);
        var order = "W";
        var changes = new List<Operation>();
        var last = Guid.Empty;
        for (var i = 0; i < Pages; i++)
        {
            order = Core.Ordering.OrderKey.Between(order, null, 6);
            last = Guid.NewGuid();
            changes.Add(device.Make(new Change.PageAdded(last, order, "a4-ruled-710"), 1));
        }

        await caller.Send(Group.Space, DocumentKind.Notebook, Notebook, [.. changes]);
        var browser = Open(Group.Writer).Browser;
        browser.Go($"/page/{Group.Space}/{Notebook}/{last}");
        browser.WaitForStrokes(0);
        browser.Press("contents");
        Seen("602");
        Assert.InRange(browser.Count("[data-testid=contents-panel] [data-testid=page]"), 5, 80);
        browser.Go(PagePath);
        browser.WaitForStrokes(1);
        Seen("1");
        // A page that is added comes into sight as well.
        browser.Press("new-page");
        browser.WaitForStrokes(0);
        Seen("603");
        Assert.Empty(browser.Errors());

        void Seen(string number) =>
            browser.Until(
                () =>
                    (bool)
                        browser.Script(
                            """
                            const row = document.querySelector('[data-testid=contents-panel] [aria-current=page]');
                            if (!row || row.querySelector('button span').textContent !== arguments[0]) return false;
                            const [box, list] = [row, row.parentElement].map((one) => one.getBoundingClientRect());
                            return box.top >= list.top && box.bottom <= list.bottom + 1;
                            """,
                            number
                        )!,
                $"page {number} in sight"
            );
    }
}
