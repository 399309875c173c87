using System.Net.Http.Json;
using System.Text.Json;
using CalmQuill.Core.Library;
using CalmQuill.Core.Operations;
using CalmQuill.Testing;
using OpenQA.Selenium;
using static CalmQuill.Interface.Tests.LibraryHands;

namespace CalmQuill.Interface.Tests;

/// <summary>What was done can be taken back, wherever one has gone since; and what was put into the bin always has a way out of it.</summary>
public sealed class TakingBackTests : InterfaceTest
{
    private static void Menu(Browser browser, string name) =>
        browser.PressCss($"[data-testid=notebook-row][data-name='{name}'] [data-testid=row-menu]");

    private static string[] Names(Browser browser) =>
        [.. browser.Driver.FindElements(By.CssSelector("[data-testid=notebook-row]")).Select(row => row.GetAttribute("data-name")!)];

    [Fact]
    public void What_was_done_in_the_library_is_taken_back_by_the_line_on_another_screen_and_by_keys_one_after_the_other()
    {
        var browser = Open(Group.Writer).Browser;
        browser.Go("/library");
        Row(browser, "Escapements");
        NewFolder(browser, "Wednesday class");

        // The line goes along to another screen, and works there.
        Menu(browser, "Escapements");
        browser.Press("menu-bin");
        browser.Until(() => Names(browser).Length == 0, "the notebook in the bin");
        browser.ByRail("nav a[href='/desk']");
        browser.Find("desk-heading");
        browser.Press("take-back");
        browser.Until(() => Said(browser) == "Taken back.", "the word for it");
        browser.ByRail("nav a[href='/library']");
        Row(browser, "Escapements");

        // Renamed, pinned and moved: three times the key, last first.
        Menu(browser, "Escapements");
        browser.Press("menu-rename");
        browser.Fill("[data-testid=rename-in-place]", "Anchors" + Keys.Enter);
        Menu(browser, "Anchors");
        browser.Press("menu-pin");
        Menu(browser, "Anchors");
        browser.Press("menu-move");
        browser.Fill("[data-testid=move-typed]", "wednes");
        browser.Press("dialog-confirm");
        browser.Until(() => Folder(browser, "Wednesday class").Text.Contains('1', StringComparison.Ordinal), "it in the folder");
        browser.Press("library-heading");
        browser.TypeWithControl("z");
        browser.Until(() => !Folder(browser, "Wednesday class").Text.Contains('1', StringComparison.Ordinal), "it at the head");
        browser.TypeWithControl("z");
        browser.TypeWithControl("z");
        Row(browser, "Escapements");
        browser.TypeWithControl("z");
        Row(browser, "Escapements");
        browser.WaitForSync("All saved");
        // The same everywhere.
        var other = Open(Group.Owner).Browser;
        other.Go("/library");
        Row(other, "Escapements");
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public void What_is_made_says_where_and_is_seen_there_jots_have_names_of_their_own_and_a_title_can_be_taken_away()
    {
        var browser = Open(Group.Writer).Browser;
        browser.Go("/library");
        Row(browser, "Escapements");
        NewFolder(browser, "Wednesday class");
        Folder(browser, "Wednesday class").Click();
        browser.Until(() => browser.Text("library-heading") == "Wednesday class", "the folder");
        browser.Press("new-folder-group");
        browser.Until(() => browser.Css("[role=dialog] h2").Text == "New folder in “Wednesday class”", "where it will be");
        browser.Fill("[data-testid=name-input]", "First term");
        browser.Press("dialog-confirm");
        // In the tree, within the other one, and a press away.
        Folder(browser, "First term");
        browser.Until(() => Said(browser).Contains("is in Wednesday class", StringComparison.Ordinal), "where it is");
        browser.Press("take-back");
        browser.Until(() => browser.Text("library-heading") == "First term", "the folder opened");

        // Two jots of one minute.
        for (var i = 0; i < 2; i++)
        {
            browser.Go("/jot");
            browser.WaitForStrokes(0);
        }

        browser.Go("/library/list/jots");
        browser.Until(() => Names(browser).Length == 2, "two jots");
        Assert.Equal(2, Names(browser).Distinct().Count());

        // A title is given and taken away; keys typed afterwards are the page's.
        browser.Go(PagePath);
        browser.WaitForStrokes(1);
        browser.Fill("[data-testid=page-title]", "Verge" + Keys.Enter);
        browser.Type("2");
        browser.Until(() => browser.Attribute("pen-2", "aria-pressed") == "true", "the second pen");
        browser.WaitForSync("All saved");
        browser.Fill("[data-testid=page-title]", Keys.Backspace + Keys.Enter);
        browser.WaitForSync("All saved");
        browser.Go(PagePath);
        browser.WaitForStrokes(1);
        Assert.Equal("", browser.AttributeAt("[data-testid=page-title]", "value"));
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public void In_a_field_the_key_is_the_fields_and_what_is_refused_stays_in_it_with_the_reason()
    {
        var browser = Open(Group.Writer).Browser;
        browser.Go("/library");
        Menu(browser, "Escapements");
        browser.Press("menu-rename");
        browser.Paste("[data-testid=rename-in-place]", "fdp\u202Ekcolc");
        browser.Type(Keys.Enter);
        browser.Until(() => browser.Text("rename-problem").Contains("invisible", StringComparison.Ordinal), "the reason");
        Assert.Equal("fdp\u202Ekcolc", browser.AttributeAt("[data-testid=rename-in-place]", "value"));
        // Going elsewhere takes what was typed.
        browser.Fill("[data-testid=rename-in-place]", "Anchors");
        browser.Press("library-heading");
        Row(browser, "Anchors");
        // Escape leaves it as it was.
        Menu(browser, "Anchors");
        browser.Press("menu-rename");
        browser.Fill("[data-testid=rename-in-place]", "Pallets" + Keys.Escape);
        Row(browser, "Anchors");
        Assert.Equal(0, browser.Count("[data-testid=rename-in-place]"));
    }

    [Fact]
    public void Renaming_a_tag_onto_another_asks_before_it_merges_and_can_be_taken_back()
    {
        var browser = Open(Group.Writer).Browser;
        browser.Go("/library/list/tags");
        foreach (var tag in new[] { "exam", "test" })
        {
            browser.Press("new-tag-group");
            browser.Fill("[data-testid=name-input]", tag);
            browser.Press("dialog-confirm");
            browser.Css($"[data-testid=tag][data-name={tag}]");
        }

        browser.PressCss("[data-testid=tag][data-name=test] [data-testid=tag-menu]");
        browser.Press("tag-rename");
        browser.Fill("[data-testid=name-input]", "Exam");
        browser.Press("dialog-confirm");
        Assert.Contains("0 things", browser.Text("tag-joins"), StringComparison.Ordinal);
        Assert.Equal(2, browser.Count("[data-testid=tag]"));
        browser.Press("dialog-confirm");
        browser.Until(() => browser.Count("[data-testid=tag]") == 1, "one tag");
        browser.Press("take-back");
        browser.Until(() => browser.Count("[data-testid=tag]") == 2, "both again");
        browser.Css("[data-testid=tag][data-name=test]");
        browser.WaitForSync("All saved");
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public async Task A_page_whose_section_is_gone_asks_for_a_place_and_emptying_counts_its_pages_and_spares_what_it_did_not_know()
    {
        Guid section = Guid.NewGuid(),
            page = Guid.NewGuid(),
            other = Guid.NewGuid(),
            late = Guid.NewGuid();
        using var caller = await Host.SignIn(Group.Owner);
        var device = new Replica(3, Group.Owner.Id);
        Task Do(params Change[] changes) =>
            caller.Send(
                Group.Space,
                DocumentKind.Notebook,
                Notebook,
                changes.Select(change => device.Make(change, DateTimeOffset.UtcNow.ToUnixTimeMilliseconds()))
            );
        await Do(
            new Change.NodePlaced(section, NodeKind.Section, Guid.Empty, "W"),
            new Change.PropertySet(section, Property.Name, "Trains"),
            new Change.NodePlaced(page, NodeKind.Page, section, "V"),
            new Change.PropertySet(page, Property.Name, "Count wheels"),
            new Change.NodePlaced(other, NodeKind.Page, section, "W"),
            new Change.PropertySet(page, Property.Binned, "1"),
            new Change.PropertySet(section, Property.Binned, "1")
        );
        var browser = Open(Group.Writer).Browser;
        browser.Go("/library/list/bin");
        browser.PressCss("[data-testid=binned][data-name='Count wheels'] [data-testid=put-back]");
        browser.Until(() => browser.Css("[role=dialog] h2").Text.Contains("is gone", StringComparison.Ordinal), "the question for a place");
        browser.Fill("[data-testid=place-typed]", "escape");
        browser.Press("dialog-confirm");
        browser.Until(() => browser.Count("[data-testid=binned]") == 1, "one thing in the bin");
        browser.WaitForSync("All saved");
        Assert.Contains("with 1 page", browser.Css("[data-testid=binned][data-name=Trains]").Text, StringComparison.Ordinal);

        // Somebody's device, which had not heard of it, brings a page into the section.
        browser.Press("empty-bin");
        Assert.Contains("with 1 page", browser.Text("empty-says"), StringComparison.Ordinal);
        browser.Press("dialog-confirm");
        browser.Until(() => browser.Count("[data-testid=binned]") == 0, "nothing in the bin");
        browser.WaitForSync("All saved");
        await Do(new Change.NodePlaced(late, NodeKind.Page, section, "X"), new Change.PropertySet(late, Property.Name, "Late"));
        browser.Go($"/pages/{Group.Space}/{Notebook}");
        browser.Css("[data-testid=overview-page][data-name='Count wheels']");
        browser.Css("[data-testid=overview-page][data-name=Late]");
        browser.Until(() => browser.Count("[data-testid=overview-page]") == 4, "four pages");
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public async Task In_the_overview_an_empty_section_takes_pages_keys_choose_all_and_a_step_keeps_the_focus()
    {
        var section = Guid.NewGuid();
        using var caller = await Host.SignIn(Group.Owner);
        var device = new Replica(3, Group.Owner.Id);
        var now = DateTimeOffset.UtcNow.ToUnixTimeMilliseconds();
        await caller.Send(
            Group.Space,
            DocumentKind.Notebook,
            Notebook,
            device.Make(new Change.NodePlaced(section, NodeKind.Section, Guid.Empty, "Z"), now),
            device.Make(new Change.PropertySet(section, Property.Name, "Empty"), now)
        );
        var browser = Open(Group.Writer).Browser;
        browser.Go($"/pages/{Group.Space}/{Notebook}");
        IWebElement Tile() => browser.Css($"[data-page='{Page}']");
        string[] Order() => [.. browser.Driver.FindElements(By.CssSelector("[data-page]")).Select(page => page.GetAttribute("data-page")!)];
        browser.Until(() => Order().Length == 2, "the pages");
        Tile().SendKeys(Keys.Alt + Keys.ArrowRight);
        browser.Until(() => Order()[1] == Page.ToString(), "one step on");
        browser.Until(
            () => (string?)browser.Script("return document.activeElement?.dataset.page ?? ''") == Page.ToString(),
            "the focus where it was"
        );
        browser.TypeWithControl("a");
        browser.Until(() => browser.Count("[data-page][class*='outline-primary']") == 2, "all chosen");
        browser.Type(Keys.Escape);
        browser.Drag(Tile, () => browser.Css("[data-testid=overview-section][data-name=Empty]"));
        browser.Until(() => Said(browser).StartsWith("Moved.", StringComparison.Ordinal), "what was done");
        browser.WaitForSync("All saved");
        var notebook = new Core.Notebooks.NotebookDocument();
        foreach (var operation in await caller.After(Group.Space, DocumentKind.Notebook, Notebook))
            notebook.Apply(operation);
        Assert.Equal(section, notebook.Outline().Single(entry => entry.Id == Page).Parent);
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public async Task Pages_move_into_a_section_and_into_another_library_and_back()
    {
        var browser = OpenPage(Group.Writer);
        browser.Wave(420, 300);
        browser.WaitForStrokes(2);
        browser.Press("contents");
        browser.Press("new-section");
        browser.Fill("[data-testid=entry-name]", "Trains" + Keys.Enter);
        browser.Css("[data-testid=section][data-name=Trains]");
        browser.WaitForSync("All saved");
        using var caller = await Host.SignIn(Group.Writer);
        async Task<List<Core.Notebooks.NotebookEntry>> Outline()
        {
            var notebook = new Core.Notebooks.NotebookDocument();
            foreach (var operation in await caller.After(Group.Space, DocumentKind.Notebook, Notebook))
                notebook.Apply(operation);
            return notebook.Outline(withBinned: true);
        }

        void Move(string to)
        {
            browser.PressCss($"div:has(> [data-page='{Page}']) [data-testid=overview-menu]");
            browser.Press("page-move");
            browser.Fill("[data-testid=place-typed]", to);
            browser.PressCss($"[data-testid=place-choice][data-name='{to}']");
            browser.Press("dialog-confirm");
            browser.Until(() => Said(browser).Contains($"Moved to {to}", StringComparison.Ordinal), "what was done");
        }

        browser.Go($"/pages/{Group.Space}/{Notebook}");
        var section = (await Outline()).Single(entry => entry.Kind == NodeKind.Section).Id;
        Move("Trains");
        browser.WaitForSync("All saved");
        Assert.Equal(section, (await Outline()).Single(entry => entry.Id == Page).Parent);
        browser.Press("take-back");
        browser.Until(() => Said(browser) == "Taken back.", "the word for it");
        browser.WaitForSync("All saved");
        Assert.Equal([(Page, Guid.Empty)], (await Outline()).Take(1).Select(entry => (entry.Id, entry.Parent)));

        // A notebook of one's own, in one's own library: there it is a copy, and the original is in the bin.
        var own = (await caller.Http.GetFromJsonAsync<JsonElement>("/api/session"))
            .GetProperty("spaces")
            .EnumerateArray()
            .First(space => space.GetProperty("personal").GetBoolean())
            .GetProperty("id")
            .GetGuid();
        browser.Go($"/library/{own}");
        browser.Press("new-notebook");
        browser.Fill("[data-testid=name-input]", "At my bench");
        browser.Press("dialog-confirm");
        browser.WaitForStrokes(0);
        browser.WaitForSync("All saved");
        browser.Go($"/pages/{Group.Space}/{Notebook}");
        Move("At my bench");
        browser.Until(() => browser.Count("[data-testid=overview-page]") == 1, "one page less");
        Assert.True((await Outline()).Single(entry => entry.Id == Page).InBin);
        // The other screen has the copy with its ink; taken back there, it is in the bin and the original where it was.
        browser.ByRail("nav a[href='/library']");
        browser.Find("library-heading");
        browser.Press("take-back");
        browser.Until(() => Said(browser) == "Taken back.", "the word for it");
        browser.WaitForSync("All saved");
        Assert.False((await Outline()).Single(entry => entry.Id == Page).InBin);
        browser.Go("/library/list/bin");
        browser.PressCss("[data-testid=bin-personal] [data-testid=put-back]");
        browser.WaitForSync("All saved");
        browser.Go($"/library/{own}");
        Row(browser, "At my bench").FindElement(By.TagName("a")).Click();
        browser.Until(() => browser.Text("page-number").EndsWith("of 2", StringComparison.Ordinal), "one page more");
        browser.Press("page-after");
        browser.WaitForStrokes(2);
        Assert.Empty(browser.Errors());
    }
}
