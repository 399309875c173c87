using CalmQuill.Testing;
using OpenQA.Selenium;
using OpenQA.Selenium.Interactions;
using static CalmQuill.Interface.Tests.LibraryHands;

namespace CalmQuill.Interface.Tests;

/// <summary>The library as a person keeps it: made, named, moved by drag, menu and key, chosen many at once, binned and put back.</summary>
public sealed class LibraryTests : InterfaceTest
{
    [Fact]
    public void A_person_keeps_the_library_in_order()
    {
        var (browser, network) = Open(Group.Writer);
        browser.Go("/library");
        Row(browser, "Escapements");
        NewFolder(browser, "Wednesday class");
        Folder(browser, "Wednesday class").Click();
        browser.Until(() => browser.Text("library-heading") == "Wednesday class", "the folder");
        NewFolder(browser, "Unit 2");

        // Drag the notebook into the nested folder, by its tree.
        browser.Go("/library");
        browser.Drag(() => Row(browser, "Escapements").FindElement(By.TagName("p")), () => Folder(browser, "Unit 2"));
        browser.Until(() => Folder(browser, "Unit 2").Text.Contains('1', StringComparison.Ordinal), "the notebook in the folder");
        Assert.Contains("Moved “Escapements” to Unit 2", browser.Until(() => Said(browser), "what was done"), StringComparison.Ordinal);

        // Without a connection, move the folder to the head by its menu, and rename the notebook in place.
        network.Cut();
        Folder(browser, "Unit 2").Click();
        browser.Until(() => browser.Text("library-heading") == "Unit 2", "the folder");
        browser.Press("folder-menu");
        browser.Press("menu-move");
        browser.Fill("[data-testid=move-typed]", "GROUP");
        browser.Press("dialog-confirm");
        browser.Until(() => !browser.Text("library-path").Contains("Wednesday", StringComparison.Ordinal), "the folder at the head");
        browser.Press("row-menu");
        browser.Press("menu-rename");
        browser.Paste("[data-testid=rename-in-place]", new string('x', 5000));
        browser.Until(() => browser.Text("rename-problem").Contains("at most 200 characters", StringComparison.Ordinal), "the refusal");
        browser.Fill("[data-testid=rename-in-place]", "Hemmungen ⚙" + Keys.Enter);
        Row(browser, "Hemmungen ⚙");
        network.Mend();
        browser.WaitForSync("All saved");

        // Into the bin by a key, and back to its place, seen on a second device.
        browser.Script("document.querySelector('[data-item]').focus()");
        browser.Type(Keys.Delete);
        browser.Until(() => browser.Count("[data-testid=notebook-row]") == 0, "an empty folder");
        var second = Open(Group.Owner).Browser;
        second.Go("/library/list/bin");
        second.Css("[data-testid=binned][data-name='Hemmungen ⚙']");
        second.Press("put-back");
        Assert.Contains(
            "put back into Unit 2",
            second.Until(() => second.Css("[data-testid=bin-group] [data-testid=bin-said]").Text, "what was done"),
            StringComparison.Ordinal
        );
        Row(browser, "Hemmungen ⚙");

        // With its folder in the bin and erased, the notebook's old place is gone: one is asked where it should go.
        browser.Press("row-menu");
        browser.Press("menu-bin");
        browser.Until(() => browser.Count("[data-testid=notebook-row]") == 0, "an empty folder");
        browser.Press("folder-menu");
        browser.Press("menu-bin");
        browser.Go("/library/list/bin");
        browser.PressCss("[data-testid=binned][data-name='Hemmungen ⚙'] [data-testid=put-back]");
        browser.Fill("[data-testid=move-typed]", "wednes");
        browser.Press("dialog-confirm");
        browser.Until(() => browser.Count("[data-testid=binned][data-name='Hemmungen ⚙']") == 0, "the notebook out of the bin");
        Folder(browser, "Wednesday class").Click();
        Row(browser, "Hemmungen ⚙");
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public void Many_things_are_chosen_pinned_and_shown_in_three_densities()
    {
        var browser = Open(Group.Writer).Browser;
        browser.Go("/library");
        Row(browser, "Escapements");
        foreach (var name in new[] { "Unit 10", "Unit 2", "Unit 1" })
            NewNotebook(browser, name);
        browser.Go("/library");
        Choose(browser, "sort", "name");
        string[] Names() =>
            [
                .. browser
                    .Driver.FindElements(By.CssSelector("[data-testid=notebook-row]"))
                    .OrderBy(row => row.Location.Y)
                    .Select(row => row.GetAttribute("data-name")!),
            ];
        browser.Until(() => Names() is ["Escapements", "Unit 1", "Unit 2", "Unit 10"], "the natural order");
        browser.Press("density-covers");
        browser.Css("[data-density=covers] [data-testid=notebook-row]");
        browser.Press("density-list");
        browser.Css("[data-density=list] [data-testid=notebook-row]");

        // From the first with shift to the third, then star and pin them at once.
        browser.Script("document.querySelector('[data-item]').focus()");
        browser.Type(" ");
        new Actions(browser.Driver)
            .KeyDown(Keys.Shift)
            .Click(Row(browser, "Unit 2").FindElement(By.CssSelector("[data-item]")))
            .KeyUp(Keys.Shift)
            .Perform();
        browser.Until(() => browser.Text("chosen-count") == "3 chosen", "three chosen");
        browser.Press("chosen-menu-star");
        browser.Type(Keys.Escape);
        browser.PressCss("[data-name='Unit 10'] [data-testid=row-menu]");
        browser.Press("menu-pin");
        browser.Until(() => Names() is ["Unit 10", "Escapements", "Unit 1", "Unit 2"], "the pinned one on top");
        browser.WaitForSync("All saved");

        // The folder remembers how it is looked at, also on another device; the stars are there too.
        var second = Open(Group.Writer).Browser;
        second.Go("/library");
        second.Css("[data-density=list] [data-testid=notebook-row]");
        second.Go("/library/list/starred");
        second.Until(() => second.Count("[data-testid=notebook-row]") == 3, "three starred");

        // Grouped by date, all were made or written today.
        Choose(second, "group", "date");
        second.Until(() => second.Text("group-heading").StartsWith("Today", StringComparison.Ordinal), "the heading");
        Assert.Empty(second.Errors());
    }

    [Fact]
    public void Two_people_who_change_the_same_things_without_a_connection_lose_nothing()
    {
        var (writer, writersNetwork) = Open(Group.Writer);
        writer.Go("/library");
        Row(writer, "Escapements");
        NewFolder(writer, "Basics");
        writer.WaitForSync("All saved");
        var (owner, ownersNetwork) = Open(Group.Owner);
        owner.Go("/library");
        Folder(owner, "Basics");

        // One puts the notebook into the folder and gives it another name, the other puts the folder into the bin.
        writersNetwork.Cut();
        ownersNetwork.Cut();
        writer.Drag(() => Row(writer, "Escapements").FindElement(By.TagName("p")), () => Folder(writer, "Basics"));
        writer.Until(() => Folder(writer, "Basics").Text.Contains('1', StringComparison.Ordinal), "the notebook in the folder");
        writer.PressCss("[data-name=Escapements] [data-testid=row-menu]");
        writer.Press("menu-rename");
        writer.Fill("[data-testid=rename-in-place]", "Anchors" + Keys.Enter);
        Row(writer, "Anchors");
        owner.PressCss("[data-testid=folder-row] [data-testid=row-menu]");
        owner.Press("menu-bin");
        owner.Until(() => owner.Count("[data-testid=folder]") == 0, "the folder gone");
        writersNetwork.Mend();
        ownersNetwork.Mend();
        writer.WaitForSync("All saved");
        owner.WaitForSync("All saved");

        // Both see the same: the notebook went to the bin with its folder, and comes back with it, under its new name.
        foreach (var browser in new[] { writer, owner })
            browser.Until(
                () => browser.Count("[data-testid=notebook-row]") + browser.Count("[data-testid=folder]") == 0,
                "nothing outside the bin"
            );
        owner.Go("/library/list/bin");
        owner.PressCss("[data-testid=binned][data-name=Basics] [data-testid=put-back]");
        foreach (var browser in new[] { writer, owner })
        {
            browser.Go("/library");
            Folder(browser, "Basics").Click();
            Row(browser, "Anchors");
        }
    }

    [Fact]
    public void Things_are_put_into_an_own_order_by_key_and_by_hand_and_the_bin_is_emptied_with_a_word()
    {
        var browser = AtDesk(Group.Writer).Browser;
        foreach (var name in new[] { "Anchors", "Barrels" })
            NewNotebook(browser, name);
        browser.Go("/library");
        browser.Press("density-list");
        Choose(browser, "sort", "own");
        string[] Names() =>
            [
                .. browser
                    .Driver.FindElements(By.CssSelector("[data-testid=notebook-row]"))
                    .OrderBy(row => row.Location.Y)
                    .Select(row => row.GetAttribute("data-name")!),
            ];
        browser.Until(() => Names() is ["Escapements", "Anchors", "Barrels"], "the order in which they were made");
        browser.Script("document.querySelector('[data-item]').focus()");
        new Actions(browser.Driver).KeyDown(Keys.Alt).SendKeys(Keys.ArrowDown).KeyUp(Keys.Alt).Perform();
        browser.Until(() => Names() is ["Anchors", "Escapements", "Barrels"], "one place down");
        browser.Drag(() => Row(browser, "Barrels").FindElement(By.CssSelector("[data-item]")), () => Row(browser, "Anchors"));
        browser.Until(() => Names() is ["Barrels", "Anchors", "Escapements"], "before the first");

        foreach (var name in new[] { "Barrels", "Anchors" })
        {
            browser.PressCss($"[data-name={name}] [data-testid=row-menu]");
            browser.Press("menu-bin");
        }

        browser.Until(() => Names() is ["Escapements"], "two gone");
        browser.Press("take-back");
        browser.Until(() => Names() is ["Anchors", "Escapements"], "the last one back in its place");
        browser.Go("/library/list/bin");
        browser.Press("empty-bin");
        Assert.StartsWith("1 notebook with 1 page", browser.Text("empty-says"), StringComparison.Ordinal);
        browser.Press("dialog-confirm");
        browser.Until(() => browser.Count("[data-testid=binned]") == 0, "an empty bin");
        browser.WaitForSync("All saved");
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public void On_a_phone_folders_are_reached_several_things_are_chosen_by_touch_and_pages_are_read_first()
    {
        var browser = AtDesk(Group.Writer).Browser;
        NewNotebook(browser, "Anchors");
        browser.Go("/library");
        NewFolder(browser, "Unit 1");
        browser.Driver.Manage().Window.Size = new System.Drawing.Size(390, 844);
        browser.Go("/library");
        // The first notebook is in sight, and what orders and narrows down is behind one button.
        Assert.InRange(Row(browser, "Anchors").Location.Y, 1, 240);
        browser.Press("how-shown");
        browser.Press("choose-several");
        foreach (var name in new[] { "Anchors", "Escapements" })
            browser.PressCss($"[data-testid=notebook-row][data-name='{name}'] h2");
        browser.Until(() => browser.Text("chosen-count") == "2 chosen", "two chosen");
        browser.Press("chosen-menu-move");
        browser.Fill("[data-testid=move-typed]", "unit");
        browser.Press("dialog-confirm");
        browser.Until(() => Said(browser).Contains("Moved 2 things", StringComparison.Ordinal), "what was done");
        browser.Press("show-side");
        Folder(browser, "Unit 1").Click();
        browser.Until(
            () => browser.Text("library-heading") == "Unit 1" && browser.Count("[data-testid=notebook-row]") == 2,
            "both in the folder"
        );
        Assert.True((bool)browser.Script("return document.documentElement.scrollWidth <= innerWidth")!, "nothing sticks out at the side");
        browser.Go(PagePath);
        browser.WaitForStrokes(1);
        Assert.Equal(0, browser.Count("[data-testid=pen-tray]"));
        // Whoever writes there has the tray as a dot, which leaves the sheet its width.
        browser.Press("read-mode");
        browser.Find("tray-dot");
        browser.Press("unfold-tray");
        browser.Find("pen-tray");
    }

    [Theory]
    [InlineData(1180, 820)]
    [InlineData(820, 1180)]
    [InlineData(1024, 768)]
    public void On_a_tablet_the_folders_are_a_drawer_that_keys_and_a_press_beside_it_close(int width, int height)
    {
        var browser = Open(Group.Writer).Browser;
        browser.Go("/library");
        Row(browser, "Escapements");
        browser.Resize(width, height);
        browser.Until(() => !browser.Driver.FindElement(By.CssSelector("[data-testid=library-drawer]")).Displayed, "the drawer to be shut");
        // What lies in the library has all the room beside the rail.
        Assert.True(Row(browser, "Escapements").Location.X < 160);
        browser.Press("show-side");
        browser.Until(
            () => (bool)browser.Script("return document.querySelector('[data-testid=library-drawer]').contains(document.activeElement)")!,
            "the focus in it"
        );
        browser.Type(Keys.Escape);
        browser.Until(() => !browser.Driver.FindElement(By.CssSelector("[data-testid=library-drawer]")).Displayed, "the drawer to be shut");
        Assert.Equal("show-side", (string?)browser.Script("return document.activeElement.dataset.testid"));
        browser.Press("show-side");
        browser.PressCss("[aria-label='Close the folders']");
        browser.Until(() => !browser.Driver.FindElement(By.CssSelector("[data-testid=library-drawer]")).Displayed, "the drawer to be shut");
        browser.Press("show-side");
        browser.PressCss("[data-testid=library-drawer] a[href$='/bin']");
        browser.Until(() => !browser.Driver.FindElement(By.CssSelector("[data-testid=library-drawer]")).Displayed, "the drawer to be shut");
        Assert.EndsWith("/bin", browser.Driver.Url, StringComparison.Ordinal);
    }

    [Fact]
    public void A_newcomer_registers_makes_a_notebook_writes_and_changes_name()
    {
        var (browser, _) = Open(Group.Reader);
        browser.Go("/account");
        browser.Press("invite");
        var link = browser.Find("invitation").GetAttribute("value")!;
        browser.Press("sign-out");
        browser.Find("sign-in-form");
        browser.Go(new Uri(link).PathAndQuery + new Uri(link).Fragment);
        browser.Fill("input[name=name]", "Nela Quist");
        browser.Fill("input[name=email]", $"nela-{Guid.NewGuid():N}@test.example");
        browser.Fill("input[name=password]", "clockwork-9");
        browser.Press("sign-in");
        browser.Find("desk-heading");
        browser.Go("/library");
        browser.Press("new-notebook");
        browser.Fill("[data-testid=name-input]", "Gear trains");
        browser.Press("dialog-confirm");
        browser.WaitForStrokes(0);
        browser.Wave(420, 300);
        browser.WaitForStrokes(1);
        browser.Press("add-page");
        browser.Until(() => browser.Text("page-number") == "page 2 of 2", "the second page");
        browser.WaitForSync("All saved");
        browser.Go("/account");
        browser.Fill("[data-testid=name-form] input", "Nela Quist-Orlen");
        browser.PressCss("[data-testid=name-form] button");
        browser.Until(() => browser.Css("h1").Text == "Nela Quist-Orlen", "the new name");
        browser.Go("/library");
        Row(browser, "Gear trains");
        browser.Until(
            () =>
                browser.Count("[data-testid=strip-page]") == 2
                && (bool)
                    browser.Script(
                        "return [...document.querySelectorAll('[data-testid=strip-page]')].every((image) => image.naturalWidth > 0)"
                    )!,
            "the strip's pictures"
        );
    }

    [Theory]
    [InlineData(1280, 800)]
    [InlineData(820, 1180)]
    [InlineData(390, 844)]
    public void The_main_views_have_no_serious_finding_by_axe(int width, int height)
    {
        var (browser, _) = AtDesk(Group.Owner);
        browser.Driver.Manage().Window.Size = new System.Drawing.Size(width, height);
        var findings = new List<string>();
        browser.Go(PagePath);
        browser.Press("contents");
        browser.Find("margin-contents");
        foreach (var theme in new[] { "day", "night" })
        {
            browser.Script("localStorage.setItem('quill.theme', arguments[0])", theme);
            foreach (var (path, ready) in MainViews)
            {
                browser.Go(path);
                browser.Css(ready);
                findings.AddRange(browser.SeriousFindings().Select(one => $"{theme} {path} {one}"));
            }
        }

        Assert.True(findings.Count == 0, string.Join('\n', findings));
    }
}
