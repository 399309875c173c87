using System.Net.Http.Json;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Library;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Spots;
using CalmQuill.Testing;
using OpenQA.Selenium;
using static CalmQuill.Interface.Tests.PageHands;

namespace CalmQuill.Interface.Tests;

/// <summary>What weaves pages together: contents made of handwriting, links both ways, marks and follow-ups.</summary>
public sealed class WeavingTests : InterfaceTest
{
    [Fact]
    public void Handwriting_becomes_an_entry_of_the_contents_shown_as_that_ink()
    {
        var browser = OpenPage(Group.Writer);
        browser.Press("contents");
        Loop(browser, 2500, 4300, 11500, 5700);
        Assert.Equal("1", browser.Attribute("selection", "data-items"));
        browser.Press("make-heading");
        browser.Css("[data-testid=contents-heading] canvas");
        browser.Until(
            () =>
                (bool)
                    browser.Script(
                        "const c = document.querySelector('[data-testid=contents-heading] canvas'); return c.getContext('2d').getImageData(0, 0, c.width, c.height).data.some((value) => value > 0)"
                    )!,
            "the ink in the entry"
        );
        browser.WaitForSync("All saved");

        // From another page of the notebook it leads back; a reader on another device sees it too, without opening the page.
        browser.Press("page-after");
        WaitForPage(browser, "page 2 of 2");
        browser.Press("contents-heading");
        WaitForPage(browser, "page 1 of 2");
        var reader = Open(Group.Reader).Browser;
        reader.Go(PagePath);
        reader.Press("contents");
        reader.Find("contents-heading");

        // In words, a level deeper, and out again; undo brings it back.
        browser.Press("heading-menu");
        browser.Press("heading-words");
        browser.Fill("[data-testid=name-input]", "The wave");
        browser.Press("dialog-confirm");
        browser.Until(() => browser.Text("contents-heading") == "The wave", "the words");
        browser.Press("heading-menu");
        browser.Press("heading-remove");
        browser.Until(() => browser.Count("[data-testid=contents-heading]") == 0, "no entry");
        browser.Press("undo");
        browser.Find("contents-heading");
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public void A_link_leads_to_its_page_the_page_knows_and_back_goes_back_also_when_things_move()
    {
        var browser = OpenPage(Group.Writer);
        browser.Press("page-after");
        WaitForPage(browser, "page 2 of 2");
        browser.Fill("[data-testid=page-title]", "Second thoughts" + Keys.Enter);
        browser.Press("page-before");
        WaitForPage(browser, "page 1 of 2");

        // From ink, by type-ahead.
        Loop(browser, 2500, 4300, 11500, 5700);
        browser.Press("make-link");
        browser.Fill("[data-testid=link-typed]", "second");
        browser.PressCss("[data-testid=link-choice][data-name='Second thoughts']");
        browser.Find("link");
        browser.WaitForSync("All saved");

        // Moving and renaming never break it.
        browser.Press("contents");
        browser.Press("new-section");
        browser.Fill("[data-testid=entry-name]", "Basics" + Keys.Enter);
        browser.Drag(
            () => browser.Css("[data-testid=contents-panel] [data-testid=page][data-name='Second thoughts'] button"),
            () => browser.Css("[data-testid=section][data-name=Basics]")
        );
        browser.Until(
            () => browser.AttributeAt("[data-testid=page][data-name='Second thoughts']", "aria-level") == "2",
            "the page in the section"
        );

        // In read mode a press follows; the margin there shows what leads to it; Back goes back.
        browser.Press("read-mode");
        browser.PressCss("button[data-testid=link]");
        WaitForPage(browser, "page 2 of 2");
        browser.Press("margin-links");
        browser.Css("[data-testid=backlinks] [data-testid=backlink] img");
        browser.Script("history.back()");
        WaitForPage(browser, "page 1 of 2");
        browser.Press("margin-links");
        browser.Until(() => browser.Text("links-from-here").Contains("Second thoughts", StringComparison.Ordinal), "where the page leads");

        // A link to something in the bin says so and offers to put it back.
        browser.Press("margin-contents");
        browser.PressCss("[data-testid=page][data-name='Second thoughts'] [data-testid=entry-menu]");
        browser.Press("entry-bin");
        browser.PressCss("button[data-testid=link]");
        browser.Press("restore-target");
        WaitForPage(browser, "page 2 of 2");

        // The web of pages draws the link and goes to a page.
        browser.Press("margin-links");
        browser.Press("open-web");
        browser.Until(() => browser.Count("[data-testid=web-page]") == 2 && browser.Count("[data-testid=web-link]") == 1, "the web");
        browser.PressCss("[data-testid=web-page][data-name='Second thoughts']");
        WaitForPage(browser, "page 2 of 2");
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public void Links_lead_from_a_bare_part_to_the_web_and_nowhere_that_one_may_not_see()
    {
        var browser = OpenPage(Group.Writer);
        Loop(browser, 3000, 12000, 9000, 14000);
        Assert.Equal("0", browser.Attribute("selection", "data-items"));
        browser.Press("make-link");
        browser.Fill("[data-testid=link-typed]", "nothing is called that" + Keys.Enter);
        browser.Find("link-problem");
        browser.Fill("[data-testid=link-typed]", $"{browser.Address}page/{Guid.NewGuid()}/{Guid.NewGuid()}/{Guid.NewGuid()}" + Keys.Enter);
        browser.Until(() => browser.Count("[data-testid=link]") == 1, "the link");
        browser.Press("read-mode");
        browser.PressCss("button[data-testid=link]");
        Assert.Contains("may not see", browser.Text("leads-nowhere"), StringComparison.Ordinal);
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public async Task A_link_to_a_page_of_another_notebook_is_found_by_its_title_followed_by_keys_and_wherever_the_page_goes()
    {
        Guid bench = Guid.NewGuid(),
            third = Guid.NewGuid(),
            clicks = Guid.NewGuid();
        using var caller = await Host.SignIn(Group.Owner);
        var device = new Replica(3, Group.Owner.Id);
        Task Do(DocumentKind kind, Guid document, params Change[] changes) =>
            caller.Send(
                Group.Space,
                kind,
                document,
                changes.Select(change => device.Make(change, DateTimeOffset.UtcNow.ToUnixTimeMilliseconds()))
            );
        foreach (var (notebook, name) in new[] { (bench, "Bench"), (third, "Third") })
            await Do(
                DocumentKind.Library,
                Group.Space,
                new Change.PropertySet(notebook, Property.Name, name),
                new Change.NodePlaced(notebook, NodeKind.Notebook, Guid.Empty, "W")
            );
        await Do(
            DocumentKind.Notebook,
            bench,
            new Change.PageAdded(clicks, "V", "a4-ruled-710"),
            new Change.PropertySet(clicks, Property.Name, "Clicks of the verge"),
            new Change.PageAdded(Guid.NewGuid(), "W", "a4-ruled-710")
        );
        await Do(
            DocumentKind.Page,
            clicks,
            new Change.SpotAdded(
                Guid.NewGuid(),
                SpotKind.Heading,
                new Box(2000, 3000, 6000, 4000),
                [],
                [new SpotValue(SpotField.Level, "1"), new SpotValue(SpotField.Title, "Recoil of the anchor")]
            )
        );
        var (browser, network) = Open(Group.Writer);
        WaitUntilKept(browser);

        // Without a connection a notebook that was never opened here says so, and how many pages it has.
        network.Cut();
        browser.ByRail("nav a[href='/library']");
        LibraryHands.Row(browser, "Bench").FindElement(By.TagName("a")).Click();
        browser.Until(() => browser.Text("not-here").Contains("It has 2 pages", StringComparison.Ordinal), "what it has");
        network.Mend();
        browser.WaitForStrokes(0);
        browser.WaitForSync("All saved");

        browser.Go(PagePath);
        browser.WaitForStrokes(1);
        Loop(browser, 2500, 4300, 11500, 5700);
        browser.Press("make-link");
        browser.Fill("[data-testid=link-typed]", "example.org");
        browser.Css("[data-testid=link-choice][data-name='https://example.org']");
        browser.Fill("[data-testid=link-typed]", "recoil");
        browser.Css("[data-testid=link-choice][data-name='Recoil of the anchor']");
        browser.Fill("[data-testid=link-typed]", "clicks");
        browser.PressCss("[data-testid=link-choice][data-name='Clicks of the verge']");
        Assert.Equal("Link to Clicks of the verge", browser.AttributeAt("[data-testid=link]", "aria-label"));
        browser.WaitForSync("All saved");
        void Follow(Browser from)
        {
            from.Go(PagePath);
            from.WaitForStrokes(1);
            from.Script("document.querySelector('[data-testid=link]').focus()");
            from.Type(Keys.Enter);
        }

        bool IsAt(Browser at, Guid notebook) => at.Driver.Url.Contains($"/{notebook}/{clicks}", StringComparison.Ordinal);
        Follow(browser);
        browser.Until(() => IsAt(browser, bench), "the page");
        browser.WaitForStrokes(0);

        // Out of the bin, from another notebook.
        await Do(DocumentKind.Notebook, bench, new Change.PropertySet(clicks, Property.Binned, "1"));
        Follow(browser);
        browser.Press("restore-target");
        browser.Until(() => IsAt(browser, bench), "the page, put back");
        browser.WaitForStrokes(0);
        browser.WaitForSync("All saved");

        // It moved to a third notebook: the link and its old address lead there.
        await Do(DocumentKind.Notebook, third, new Change.PageAdded(clicks, "V", "a4-ruled-710"));
        await Do(DocumentKind.Notebook, bench, new Change.PropertySet(clicks, Property.MovedTo, third.ToString()));
        Follow(browser);
        browser.Until(() => IsAt(browser, third), "the page where it went");
        browser.Go($"/page/{Group.Space}/{bench}/{clicks}");
        browser.Until(() => IsAt(browser, third), "the old address");
        browser.WaitForStrokes(0);

        // Of what is locked no name is told.
        await Lock(bench);
        var reader = OpenPage(Group.Reader);
        reader.Until(
            () => reader.AttributeAt("[data-testid=link]", "title") == "Link to something in a locked notebook",
            "no name of what is locked"
        );
        reader.Go($"/web/{Group.Space}/{Notebook}");
        reader.Until(() => reader.Count("[data-testid=web-page]") == 2, "the web");
        Assert.Equal(1, reader.Count("[data-testid=web-page][data-name='something in a locked notebook']"));
        Assert.DoesNotContain("Clicks", reader.Text("web"), StringComparison.Ordinal);

        // A link to the web is called as one likes, then and later; what leads to a heading goes to its place.
        browser.Go(PagePath);
        browser.WaitForStrokes(1);
        Loop(browser, 2500, 4300, 11500, 5700);
        browser.Press("make-link");
        browser.Fill("[data-testid=link-typed]", "example.org");
        browser.Fill("[data-testid=link-called]", "Rules of the house");
        browser.Press("link-confirm");
        browser.Press("contents");
        browser.Press("margin-links");
        browser.Until(
            () => browser.Text("links-from-here").Contains("Rules of the house", StringComparison.Ordinal),
            "the link as it is called"
        );
        browser.PressCss("[aria-label='Call the link to Rules of the house otherwise']");
        browser.Fill("[data-testid=link-name]", "House rules" + Keys.Enter);
        browser.Until(() => browser.Text("links-from-here").Contains("House rules", StringComparison.Ordinal), "its other name");
        browser.PressCss("[aria-label='Call the link to House rules otherwise']");
        browser.Fill("[data-testid=link-name]", Keys.Control + "a" + Keys.Null + Keys.Delete + Keys.Enter);
        browser.Until(() => browser.Text("links-from-here").Contains("https://example.org", StringComparison.Ordinal), "its address");
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public void A_mark_is_gathered_with_its_ink_and_ticked_off_by_somebody_else()
    {
        var (browser, network) = Open(Group.Writer);
        browser.Go(PagePath);
        browser.WaitForStrokes(1);
        // One on bare paper without a connection, with a note and a person; one on ink.
        network.Cut();
        browser.Press("tool-mark");
        browser.PressCss("[data-testid=mark-kind][data-name='To do']");
        Press(browser, 9000, 9000);
        browser.Fill("[data-testid=mark-note]", "order a click spring");
        browser.PressCss($"[data-testid=mark-person] option[value='{Group.Owner.Id}']");
        browser.Press("mark-close");
        browser.Css("[data-testid=tick-mark]");
        network.Mend();
        browser.WaitForSync("All saved");
        browser.Press("tool-mark");
        browser.PressCss("[data-testid=mark-kind][data-name=Ask]");
        Loop(browser, 2500, 4300, 11500, 5700);
        browser.Press("make-mark");
        browser.Press("mark-close");
        browser.WaitForSync("All saved");

        // On the owner's Desk and among the follow-ups, as the ink itself; filtered, judged, ticked off there.
        var owner = Open(Group.Owner).Browser;
        owner.Go("/desk");
        owner.Until(() => owner.Text("rail-count") == "2", "the count on the rail");
        owner.Until(
            () =>
                owner.Count("[data-testid=follow-up] img") == 2
                && (bool)
                    owner.Script(
                        "return [...document.querySelectorAll('[data-testid=follow-up] img')].every((image) => image.naturalWidth > 0)"
                    )!,
            "the ink"
        );
        owner.Press("desk-follow-ups");
        owner.PressCss("[data-testid=filter-kind][data-name='To do']");
        owner.Until(
            () =>
                owner.Count("[data-testid=follow-up]") == 1
                && owner.Text("follow-up").Contains("order a click spring", StringComparison.Ordinal),
            "only what is to do"
        );
        owner.Press("tick-off");
        owner.Find("empty");
        owner.WaitForSync("All saved");
        owner.PressCss("[data-testid=filter-state] option[value=done]");
        owner.Until(() => owner.Text("follow-up").Contains("ticked off by", StringComparison.Ordinal), "who ticked it off");

        // There and back; on the page it is ticked off as well, live.
        owner.PressCss("[data-testid=follow-up] a");
        owner.Find("mark-card");
        owner.Script("history.back()");
        owner.Find("follow-ups");
        // What was looked for is looked for still, also after a reload.
        for (var i = 0; i < 2; i++)
        {
            owner.Until(
                () =>
                    owner.Count("[data-testid=follow-up]") == 1
                    && owner.Attribute("filter-state", "value") == "done"
                    && owner.Count("[data-testid=filter-kind][data-name='To do'][aria-pressed=true]") == 1,
                "the filters as they were left"
            );
            owner.Driver.Navigate().Refresh();
        }

        browser.Until(() => browser.Count("[data-testid=mark][data-done='1']") == 1, "the tick on the other screen");
        owner.Press("follow-up-export");
        owner.Press("export-csv");
        var list = owner.TakeSavedFile(".csv");
        Assert.Contains("To do,order a click spring,Escapements", list, StringComparison.Ordinal);
        Assert.Contains($"/page/{Group.Space}/{Notebook}/{Page}?mark=", list, StringComparison.Ordinal);

        // A mark by keys alone, anywhere; and it becomes one of another kind.
        browser.Driver.Navigate().Refresh();
        browser.WaitForStrokes(1);
        browser.Until(() => browser.Count("[data-testid=mark]") == 2, "the two marks");
        browser.Type("M");
        browser.Until(() => browser.Count("[data-testid=mark]:focus") == 1, "a third, under the keys");
        double Left() =>
            Convert.ToDouble(
                browser.Script("return document.activeElement.getBoundingClientRect().left")!,
                System.Globalization.CultureInfo.InvariantCulture
            );
        var before = Left();
        for (var i = 0; i < 4; i++)
            browser.Type(Keys.ArrowLeft);
        browser.Until(() => Left() < before - 30, "2 cm to the left");
        browser.Type(Keys.Enter);
        browser.PressCss("[data-testid=mark-as] option[value=look-up], [data-testid=mark-as] option:nth-child(3)");
        browser.Press("mark-close");
        browser.WaitForSync("All saved");
        owner.Go("/follow-ups");
        owner.PressCss("[data-testid=filter-state] option[value=all]");
        owner.PressCss("[data-testid=filter-kind][data-name='To do']");
        owner.Until(() => owner.Count("[data-testid=filter-kind][data-name='Look up']") == 1, "the mark by its new kind");
        Assert.Empty(browser.Errors().Concat(owner.Errors()));
    }
}
