using CalmQuill.Testing;
using OpenQA.Selenium;
using OpenQA.Selenium.Interactions;

namespace CalmQuill.Interface.Tests;

/// <summary>Folders and notebooks: made, named, moved by drag and by menu, binned and put back; and the account.</summary>
public sealed class LibraryTests : InterfaceTest
{
    [Fact]
    public void A_person_keeps_the_library_in_order()
    {
        var (browser, network) = Open(Group.Writer);
        Row(browser, "Escapements");
        NewFolder(browser, "Wednesday class");
        NewFolder(browser, "Unit 2");

        // Drag the notebook into a folder.
        new Actions(browser.Driver).ClickAndHold(Row(browser, "Escapements").FindElement(By.TagName("p"))).MoveByOffset(-20, 10).MoveToElement(Folder(browser, "Unit 2")).MoveByOffset(2, 2).Release().Perform();
        browser.Until(() => Folder(browser, "Unit 2").Text.Contains('1', StringComparison.Ordinal), "the notebook in the folder");

        // Without a connection, move the folder by its menu, and rename the notebook.
        network.Cut();
        Folder(browser, "Unit 2").Click();
        browser.Until(() => browser.Find("library-heading").Text == "Unit 2", "the folder");
        browser.Press("folder-menu");
        browser.Press("menu-move");
        browser.PressCss("input[data-name='Wednesday class']");
        browser.Press("dialog-confirm");
        browser.Until(() => browser.Css("header p").Text.EndsWith("Wednesday class", StringComparison.Ordinal), "the folder inside the other");
        browser.Press("row-menu");
        browser.Press("menu-rename");
        browser.Fill("[data-testid=name-input]", new string('x', 5000));
        browser.Press("dialog-confirm");
        Assert.Contains("at most 200 characters", browser.Find("name-problem").Text, StringComparison.Ordinal);
        browser.Fill("[data-testid=name-input]", "Hemmungen ⚙");
        browser.Press("dialog-confirm");
        Row(browser, "Hemmungen ⚙");
        network.Mend();
        browser.WaitForSync("All saved");

        // Into the bin and back to its place, seen on a second device.
        browser.Press("row-menu");
        browser.Press("menu-bin");
        browser.Until(() => browser.Count("[data-testid=notebook-row]") == 0, "an empty folder");
        var second = Open(Group.Owner).Browser;
        second.PressCss("[data-testid=bin-group]");
        second.Css("[data-testid=binned][data-name='Hemmungen ⚙']");
        second.Press("put-back");
        Assert.Contains("Put back into Unit 2", second.Find("bin-said").Text, StringComparison.Ordinal);
        Row(browser, "Hemmungen ⚙");
        Assert.Empty(browser.Errors());
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
            ("/library", "[data-testid=notebook-row]"), (PagePath, "[data-testid=pen-tray]"), ("/account", "[data-testid=name-form]"), ($"/group/{Group.Space}", "[data-testid=member]"),
            ($"/library/{Group.Space}/bin", "[data-testid=library-heading], h1"), ("/sign-in", "[data-testid=sign-in-form]"),
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

    private static IWebElement Folder(Browser browser, string name) => browser.Css($"[data-testid=folder][data-name='{name}']");

    private static void NewFolder(Browser browser, string name)
    {
        browser.Press("new-folder-group");
        browser.Fill("[data-testid=name-input]", name);
        browser.Press("dialog-confirm");
        Folder(browser, name);
    }
}
