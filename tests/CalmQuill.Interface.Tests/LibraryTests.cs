using CalmQuill.Testing;
using OpenQA.Selenium;
using OpenQA.Selenium.Interactions;

namespace CalmQuill.Interface.Tests;

/// <summary>The library as a person uses it: made, named, moved by drag, menu and key, tagged, asked, jotted, locked, binned and put back.</summary>
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
        browser.Until(() => browser.Find("library-heading").Text == "Wednesday class", "the folder");
        NewFolder(browser, "Unit 2");

        // Drag the notebook into the nested folder, by its tree.
        browser.Go("/library");
        browser.Drag(Row(browser, "Escapements").FindElement(By.TagName("p")), () => Folder(browser, "Unit 2"));
        browser.Until(() => Folder(browser, "Unit 2").Text.Contains('1', StringComparison.Ordinal), "the notebook in the folder");
        Assert.Contains("Moved “Escapements” to Unit 2", browser.Until(() => Said(browser), "what was done"), StringComparison.Ordinal);

        // Without a connection, move the folder to the head by its menu, and rename the notebook in place.
        network.Cut();
        Folder(browser, "Unit 2").Click();
        browser.Until(() => browser.Find("library-heading").Text == "Unit 2", "the folder");
        browser.Press("folder-menu");
        browser.Press("menu-move");
        browser.Fill("[data-testid=move-typed]", "GROUP");
        browser.Press("dialog-confirm");
        browser.Until(() => !browser.Find("library-path").Text.Contains("Wednesday", StringComparison.Ordinal), "the folder at the head");
        browser.Press("row-menu");
        browser.Press("menu-rename");
        browser.Fill("[data-testid=rename-in-place]", new string('x', 5000) + Keys.Enter);
        browser.Until(() => Said(browser).Contains("at most 200 characters", StringComparison.Ordinal), "the refusal");
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
        Assert.Contains("put back into Unit 2", second.Until(() => second.Css("[data-testid=bin-group] [data-testid=bin-said]").Text, "what was done"), StringComparison.Ordinal);
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
        foreach (var name in new[] { "Unit 10", "Unit 2", "Unit 1" }) NewNotebook(browser, name);
        browser.Go("/library");
        Choose(browser, "sort", "name");
        string[] Names() => [.. browser.Driver.FindElements(By.CssSelector("[data-testid=notebook-row]")).OrderBy(row => row.Location.Y).Select(row => row.GetAttribute("data-name")!)];
        browser.Until(() => Names() is ["Escapements", "Unit 1", "Unit 2", "Unit 10"], "the natural order");
        browser.Press("density-covers");
        browser.Css("[data-density=covers] [data-testid=notebook-row]");
        browser.Press("density-list");
        browser.Css("[data-density=list] [data-testid=notebook-row]");

        // From the first with shift to the third, then star and pin them at once.
        browser.Script("document.querySelector('[data-item]').focus()");
        browser.Type(" ");
        new Actions(browser.Driver).KeyDown(Keys.Shift).Click(Row(browser, "Unit 2").FindElement(By.CssSelector("[data-item]"))).KeyUp(Keys.Shift).Perform();
        browser.Until(() => browser.Find("chosen-count").Text == "3 chosen", "three chosen");
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
        second.Until(() => second.Find("group-heading").Text.StartsWith("Today", StringComparison.Ordinal), "the heading");
        Assert.Empty(second.Errors());
    }

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
        browser.Drag(browser.Css("[data-testid=contents-panel] [data-testid=page] button"), () => browser.Css("[data-testid=section][data-name=Faults]"));
        int Level(string css) => int.Parse(browser.Css(css).GetAttribute("aria-level")!, System.Globalization.CultureInfo.InvariantCulture);
        browser.Until(() => browser.Driver.FindElements(By.CssSelector("[data-testid=contents-panel] [role=treeitem]")).Select(row => row.GetAttribute("data-testid") + row.GetAttribute("aria-level")).SequenceEqual(["page1", "section1", "section1", "page2"]), "the page in the section");
        browser.PressCss("[data-testid=section][data-name=Basics] [data-testid=entry-menu]");
        browser.Press("entry-add-page");
        browser.WaitForStrokes(0);
        browser.Fill("[data-testid=page-title]", "Second thoughts" + Keys.Enter);
        browser.PressCss("[data-testid=page][data-name='Second thoughts'] [data-testid=entry-menu]");
        browser.Press("entry-add-sub");
        browser.Until(() => browser.Find("page-number").Text == "page 3 of 4", "the sub-page");
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
    public void A_lens_made_of_tags_is_found_on_a_second_device_and_stays_up_to_date()
    {
        var browser = Open(Group.Writer).Browser;
        browser.Go("/library");
        Row(browser, "Escapements");
        NewNotebook(browser, "Bench log");
        browser.Go("/library");
        foreach (var (notebook, tags) in new[] { ("Escapements", new[] { "exam/level 2", "drawings" }), ("Bench log", ["drawings"]) })
        {
            browser.PressCss($"[data-name='{notebook}'] [data-testid=row-menu]");
            browser.Press("menu-tags");
            foreach (var tag in tags)
            {
                browser.Fill("[data-testid=tag-typed]", tag);
                browser.Type(Keys.Enter);
                browser.Until(() => browser.Find("carried-tags").Text.Contains(tag, StringComparison.Ordinal), "the tag on it");
            }

            browser.Press("tags-done");
        }

        // Drawings, but none for the exam; the parent tag includes its child.
        browser.Press("filter");
        browser.PressCss("[data-testid=filter-tag][data-name=drawings]");
        browser.Until(() => browser.Find("found").Text == "2 found", "both");
        foreach (var _ in Enumerable.Range(0, 3)) browser.PressCss("[data-testid=filter-tag][data-name=exam]");
        browser.Until(() => browser.Find("found").Text == "1 found", "one");
        browser.Press("save-lens");
        browser.Fill("[data-testid=name-input]", "Drawings for fun");
        browser.PressCss("[data-testid=lens-shared]");
        browser.Press("dialog-confirm");
        browser.Until(() => browser.Find("library-heading").Text == "Drawings for fun", "the lens");
        Row(browser, "Bench log");
        browser.WaitForSync("All saved");

        // On the other's device; there the tag is renamed with its child following, and the lens goes by it.
        var (second, network) = Open(Group.Owner);
        second.Go("/library/list/tags");
        second.PressCss("[data-testid=tag][data-name=exam] [data-testid=tag-menu]");
        second.Press("tag-rename");
        second.Fill("[data-testid=name-input]", "certificate");
        second.Press("dialog-confirm");
        second.Css("[data-testid=tag][data-name='certificate/level 2']");
        second.PressCss("[data-testid=lens][data-name='Drawings for fun']");
        Row(second, "Bench log");
        second.Until(() => second.Count("[data-testid=notebook-row]") == 1, "one");

        // Merged into its own child it cannot be; in the bin, it is on nothing, and the lens finds both. Without a connection the device answers.
        second.Go("/library/list/tags");
        second.PressCss("[data-testid=tag][data-name=certificate] [data-testid=tag-menu]");
        second.Press("tag-merge");
        Choose(second, "merge-into", second.Css("[data-testid=merge-into] option:first-child").GetAttribute("value")!);
        second.Press("dialog-confirm");
        Assert.Contains("nested in", second.Until(() => second.Find("merge-problem").Text is { Length: > 0 } words ? words : null, "the refusal"), StringComparison.Ordinal);
        second.Type(Keys.Escape);
        second.PressCss("[data-testid=tag][data-name=certificate] [data-testid=tag-menu]");
        second.Press("tag-bin");
        Assert.StartsWith("1 thing loses it.", second.Find("tag-loses").Text, StringComparison.Ordinal);
        second.Press("dialog-confirm");
        second.WaitForSync("All saved");
        network.Cut();
        second.PressCss("[data-testid=lens][data-name='Drawings for fun']");
        second.Until(() => second.Count("[data-testid=notebook-row]") == 2, "both, from the device");
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public void A_jot_is_made_without_a_connection_and_filed_later()
    {
        var (browser, network) = Open(Group.Writer);
        network.Cut();
        browser.Press("jot");
        browser.WaitForStrokes(0);
        browser.Wave(420, 300);
        browser.WaitForStrokes(1);
        browser.PressCss("a[href='/desk']");
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
        Assert.Equal("page 1 of 1", browser.Find("page-number").Text);
        Assert.Empty(browser.Errors());
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
        browser.PressCss("[data-testid=open-tab][data-name=Escapements]");
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
        browser.Until(() => browser.Find("lock-problem").Text.Contains("not the passphrase", StringComparison.Ordinal), "the refusal");
        browser.Fill("[data-testid=secret]", "lantern oil");
        browser.Press("lock-open");
        browser.WaitForStrokes(1);
        browser.Press("shut");
        browser.Find("locked-pages");
        browser.Until(() => (bool)browser.AsyncScript("const [person, id, done] = arguments; indexedDB.open('calm-quill-' + person).onsuccess = (event) => { event.target.result.transaction('operations').objectStore('operations').getAll().onsuccess = (rows) => { event.target.result?.close?.(); done(rows.target.result.every((row) => row.document !== id)); }; };", Group.Owner.Id.ToString(), Page.ToString())!, "the device to hold nothing of it");
    }

    [Fact]
    public void A_newcomer_registers_makes_a_notebook_writes_and_changes_name()
    {
        var (browser, _) = Open(Group.Reader);
        browser.Go("/account");
        browser.Press("sign-out");
        browser.Press("toggle-register");
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
        browser.Until(() => browser.Find("page-number").Text == "page 2 of 2", "the second page");
        browser.WaitForSync("All saved");
        browser.Go("/account");
        browser.Fill("[data-testid=name-form] input", "Nela Quist-Orlen");
        browser.PressCss("[data-testid=name-form] button");
        browser.Until(() => browser.Css("h1").Text == "Nela Quist-Orlen", "the new name");
        browser.Go("/library");
        Row(browser, "Gear trains");
        browser.Until(() => browser.Count("[data-testid=strip-page]") == 2 && (bool)browser.Script("return [...document.querySelectorAll('[data-testid=strip-page]')].every((image) => image.naturalWidth > 0)")!, "the strip's pictures");
    }

    [Fact]
    public void The_main_views_have_no_serious_finding_by_axe()
    {
        var (browser, _) = Open(Group.Owner);
        var axe = File.ReadAllText(Path.Combine(Repository.Root, "src/web/node_modules/axe-core/axe.min.js"));
        var views = new (string Path, string Ready)[]
        {
            ("/desk", "[data-testid=left-off]"), ("/library", "[data-testid=notebook-row]"), ("/library/list/tags", "[data-testid=library-heading]"), ("/library/list/recent", "[data-testid=page-row]"), (PagePath, "[data-testid=pen-tray]"), ("/account", "[data-testid=name-form]"), ($"/group/{Group.Space}", "[data-testid=member]"),
            ("/library/list/bin", "[data-testid=library-heading]"), (PagePath + $"?beside={Group.Space}/{Notebook}/{Page}", "[data-testid=close-beside]"), ("/sign-in", "[data-testid=sign-in-form]"),
        };
        var findings = new List<string>();
        foreach (var theme in new[] { "day", "night" })
        {
            browser.Script("localStorage.setItem('quill.theme', arguments[0])", theme);
            foreach (var (path, ready) in views)
            {
                browser.Go(path);
                browser.Css(ready);
                browser.Driver.ExecuteScript(axe);
                var found = (IEnumerable<object>)browser.AsyncScript(
                    "axe.run().then((result) => arguments[0](result.violations.filter((one) => ['serious', 'critical'].includes(one.impact)).map((one) => one.id + ': ' + one.nodes.map((node) => node.target.join(' ')).slice(0, 3).join(', '))))")!;
                findings.AddRange(found.Select(one => $"{theme} {path} {one}"));
            }
        }

        Assert.True(findings.Count == 0, string.Join('\n', findings));
    }

    private static IWebElement Row(Browser browser, string name) => browser.Css($"[data-testid=notebook-row][data-name='{name}']");

    /// <summary>What was just done, as the line at the foot says it.</summary>
    private static string Said(Browser browser) => string.Concat(browser.Driver.FindElements(By.CssSelector("[data-testid=said]")).Select(line => line.Text));

    private static void Choose(Browser browser, string select, string value) => browser.PressCss($"[data-testid={select}] option[value='{value}']");

    private static void NewNotebook(Browser browser, string name)
    {
        browser.Go("/library");
        browser.Press("new-notebook");
        browser.Fill("[data-testid=name-input]", name);
        browser.Press("dialog-confirm");
        browser.WaitForStrokes(0);
    }

    private static IWebElement Folder(Browser browser, string name) => browser.Css($"[data-testid=folder][data-name='{name}']");

    private static void NewFolder(Browser browser, string name)
    {
        browser.Press("new-folder-group");
        browser.Fill("[data-testid=name-input]", name);
        browser.Press("dialog-confirm");
        Folder(browser, name);
    }
}
