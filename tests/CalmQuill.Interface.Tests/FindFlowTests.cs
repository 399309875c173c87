using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Writing;
using CalmQuill.Testing;
using OpenQA.Selenium;

namespace CalmQuill.Interface.Tests;

/// <summary>Finding typed words on a page and putting others in their place, as people do it.</summary>
public sealed class FindFlowTests : InterfaceTest
{
    [Fact]
    public void Words_are_found_where_they_stand_and_others_put_in_their_place_and_back()
    {
        var browser = OpenPage(Group.Writer);
        browser.TakeTool("text");
        PageHands.Press(browser, 4_000, 9_300);
        browser.Until(() => browser.Count("[data-testid=typing-field]") > 0, "the caret");
        browser.Type("oil the Wheel, and the wheel again");
        browser.Press("typing-done");
        browser.TypeWithControl("f");
        browser.Find("find-words").SendKeys("WHEEL");
        browser.Until(() => browser.Text("find-count") == "1 of 2", "two places");
        Assert.Equal(2, browser.Count("[data-testid=found-marks] polygon"));
        Assert.Empty(browser.SeriousFindings());
        browser.Find("find-words").SendKeys(Keys.Enter);
        browser.Until(() => browser.Text("find-count") == "2 of 2", "the second");
        browser.Find("find-instead").SendKeys("crutch");
        browser.Press("replace-one");
        Reads(browser, "oil the Wheel, and the crutch again");
        browser.Press("replace-all");
        Reads(browser, "oil the crutch, and the crutch again");
        browser.Until(() => browser.Text("find-count") == "Nothing here says so.", "none left");
        browser.Press("undo");
        Reads(browser, "oil the Wheel, and the crutch again");
        browser.Press("find-exact");
        browser.Until(() => browser.Text("find-count") == "Nothing here says so.", "no such capitals");
        browser.Find("find-words").SendKeys(Keys.Escape);
        browser.Until(() => browser.Count("[data-testid=find-panel]") == 0, "it is closed");
        browser.WaitForSync("All saved");

        // Whoever only reads finds, and changes nothing.
        var reader = OpenPage(Group.Reader, 2);
        reader.TypeWithControl("f");
        reader.Find("find-words").SendKeys("wheel");
        reader.Until(() => reader.Text("find-count") == "1 of 1", "one place");
        Assert.Equal(0, reader.Count("[data-testid=replace-all]"));
        Assert.Empty(browser.Errors());
        Assert.Empty(reader.Errors());
    }

    [Fact]
    public void Words_are_found_in_the_whole_notebook_and_replaced_page_by_page()
    {
        Text(Page, "oil the wheel, and the wheel again");
        Text(OtherPage, "no Wheel turns");
        var browser = OpenPage(Group.Writer, 2);
        browser.TypeWithControl("f");
        browser.Find("find-words").SendKeys("wheel");
        browser.Press("find-everywhere");
        browser.Until(() => browser.Text("notebook-find-count") == "3 places, 2 pages", "all of them");
        Assert.Empty(browser.SeriousFindings());
        // On the other page the same words are looked for still.
        browser.PressNth("notebook-found", 1);
        browser.Until(() => browser.Driver.Url.Contains($"{OtherPage}", StringComparison.Ordinal), "the other page");
        browser.Until(() => browser.Text("find-count") == "1 of 1", "the place on it");
        browser.Until(() => browser.Text("notebook-find-count") == "3 places, 2 pages", "all of them still");
        browser.Find("find-instead").SendKeys("crutch");
        browser.Press("replace-everywhere");
        browser.Until(() => browser.Text("said").Contains("in 3 places on 2 pages", StringComparison.Ordinal), "what was done");
        browser.Until(() => browser.Text("notebook-find-count") == "Nothing typed in this notebook says so.", "none left");
        browser.WaitForSync("All saved");
        browser.Go(PagePath);
        browser.Find("sheet");
        Reads(browser, "oil the crutch, and the crutch again");
        Assert.Empty(browser.Errors());
    }

    private void Text(Guid page, string words)
    {
        using var caller = Host.SignIn(Group.Owner).GetAwaiter().GetResult();
        var added = new Change.TextAdded(Transform.Shift(4_000, 9_300), 9_000, 0, new Passage(words, []), []);
        var made = new Replica(31 + (ulong)words.Length, Group.Owner.Id).Make(
            added,
            DateTimeOffset.UtcNow.ToUnixTimeMilliseconds() - 5_000
        );
        caller.Send(Group.Space, DocumentKind.Page, page, made).GetAwaiter().GetResult();
    }

    private void Reads(Browser browser, string words) =>
        browser.Until(
            () => PageOf(browser).Items.Single(item => item is { Shown: true, Kind: ItemKinds.Text }).Content.Words == words,
            $"“{words}”"
        );
}
