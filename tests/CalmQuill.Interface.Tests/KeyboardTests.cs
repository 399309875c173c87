using CalmQuill.Core.Library;
using CalmQuill.Core.Operations;
using CalmQuill.Testing;
using OpenQA.Selenium;

namespace CalmQuill.Interface.Tests;

/// <summary>What a person finds who has no mouse.</summary>
public sealed class KeyboardTests : InterfaceTest
{
    [Fact]
    public void The_first_tab_leads_past_the_rail_and_the_window_is_titled_after_its_screen()
    {
        var browser = AtDesk(Group.Writer).Browser;
        browser.Find("desk-heading");
        browser.Until(() => browser.Driver.Title == $"{browser.Text("desk-heading")} – Calm Quill", "the title of the Desk");

        browser.Type(Keys.Tab);
        Assert.Equal("skip", Focused(browser));
        Assert.True(
            (bool)
                browser.Script(
                    "const { left, top, height } = document.activeElement.getBoundingClientRect(); return left >= 0 && top >= 0 && height >= 44;"
                )!
        );
        browser.Type(Keys.Enter);
        Assert.Equal("desk-heading", Focused(browser));
    }

    [Fact]
    public void Another_screen_takes_the_focus_to_its_heading_and_turning_a_page_does_not()
    {
        var browser = AtDesk(Group.Writer).Browser;
        browser.Find("desk-heading");
        browser.Script("document.querySelector(\"nav a[href='/library']\").focus()");
        browser.Type(Keys.Enter);
        browser.Until(() => Focused(browser) == "library-heading", "the focus at the library's heading");
        Assert.Equal($"{browser.Text("library-heading")} – Calm Quill", browser.Driver.Title);

        browser.Go(PagePath);
        browser.WaitForStrokes(1);
        Assert.Equal("Escapements – Calm Quill", browser.Driver.Title);
        // What one is at keeps the focus while pages are turned.
        browser.Script("document.querySelector('[data-testid=page-after]').focus()");
        browser.Type(Keys.Enter);
        browser.Until(() => browser.Text("page-number") == "page 2 of 2", "the second page");
        Assert.Equal("page-after", Focused(browser));
    }

    [Fact]
    public void The_rail_is_folded_on_a_page_comes_by_a_key_and_gives_the_focus_back()
    {
        var browser = OpenPage(Group.Writer);
        Assert.Equal(0, browser.Count("nav[aria-label=Main]"));
        browser.WaitForSync("All saved");
        Focus(browser, "open-rail");
        browser.Type(Keys.Enter);
        browser.Find("rail-over");
        Assert.Equal("Calm Quill, to the Desk", Label(browser));
        browser.Type(Keys.Escape);
        browser.Until(() => browser.Count("[data-testid=rail-over]") == 0, "the rail folded");
        Assert.Equal("open-rail", Focused(browser));
        // Going somewhere folds it, too.
        browser.ByRail("nav a[href='/library']");
        browser.Find("library-heading");
        Assert.Equal(0, browser.Count("[data-testid=rail-over]"));
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public void Pages_are_turned_and_scaled_by_keys_also_after_a_button_was_pressed()
    {
        var browser = OpenPage(Group.Writer);
        browser.Press("tool-eraser");
        foreach (
            var (key, page) in new[]
            {
                (Keys.PageDown, 2),
                (Keys.PageUp, 1),
                (Keys.ArrowRight, 2),
                (Keys.ArrowLeft, 1),
                (Keys.End, 2),
                (Keys.Home, 1),
            }
        )
        {
            browser.Type(key);
            PageHands.WaitForPage(browser, $"page {page} of 2");
        }

        browser.Press("tool-eraser");
        browser.Type(" ");
        PageHands.WaitForPage(browser, "page 2 of 2");
        // On the last page Space makes none.
        browser.Type(" ");
        browser.Type(Keys.Home);
        PageHands.WaitForPage(browser, "page 1 of 2");

        var before = browser.Text("zoom");
        browser.Type("+");
        browser.Until(() => browser.Text("zoom") != before, "the page larger");
        browser.Type("-");
        browser.Until(() => browser.Text("zoom") == before, "as large as before");
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public void Keys_stand_on_a_sheet_and_single_letters_can_be_turned_off()
    {
        var browser = OpenPage(Group.Writer);
        browser.Type("e");
        browser.Until(() => browser.Attribute("tool-eraser", "aria-pressed") == "true", "the eraser by its letter");
        browser.Type("?");
        Assert.Contains("Ruler and compass", browser.Text("keys-sheet"), StringComparison.Ordinal);
        browser.Press("letter-keys");
        browser.Type(Keys.Escape);
        browser.Until(() => browser.Count("[data-testid=keys-sheet]") == 0, "the sheet of keys put away");
        browser.Type("e1?l");
        // A key that is no letter works on, so the others have been heard by now.
        browser.Type(Keys.PageDown);
        PageHands.WaitForPage(browser, "page 2 of 2");
        Assert.Equal("true", browser.Attribute("tool-eraser", "aria-pressed"));
        Assert.Equal(0, browser.Count("[data-testid=keys-sheet]"));
        // The account has the way back.
        browser.ByRail("[data-testid=account-link]");
        browser.Press("show-keys");
        browser.Press("letter-keys");
        browser.Type(Keys.Escape);
        browser.Go(PagePath);
        browser.WaitForStrokes(1);
        browser.Type("l");
        browser.Until(() => browser.Attribute("tool-loop", "aria-pressed") == "true", "the loop by its letter");
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public async Task Trees_answer_to_arrows_folders_to_keys_and_the_first_notebook_is_eight_tabs_away()
    {
        Guid gears = Guid.NewGuid(),
            trains = Guid.NewGuid();
        using (var caller = await Host.SignIn(Group.Owner))
        {
            var device = new Replica(9, Group.Owner.Id);
            Operation Place(Guid id, Guid parent, string order) =>
                device.Make(new Change.NodePlaced(id, NodeKind.Folder, parent, order), 5);
            Operation Name(Guid id, string name) => device.Make(new Change.PropertySet(id, Property.Name, name), 5);
            await caller.Send(
                Group.Space,
                DocumentKind.Library,
                Group.Space,
                Place(gears, Guid.Empty, "B"),
                Place(trains, gears, "B"),
                Name(gears, "Gears"),
                Name(trains, "Trains")
            );
        }

        var browser = Open(Group.Writer).Browser;
        browser.Go($"/library/{Group.Space}");
        browser.Until(() => browser.Count("[data-testid=folder]") == 2, "the folders");
        browser.Script("document.querySelector('[data-testid=folder][data-name=Gears]').focus()");
        browser.Type(Keys.ArrowRight);
        Assert.Equal("Trains", Name(browser));
        browser.Type(Keys.ArrowLeft);
        Assert.Equal("Gears", Name(browser));
        browser.Type(Keys.ArrowLeft);
        browser.Until(() => browser.Count("[data-testid=folder]") == 1, "the branch folded");
        browser.Type(Keys.ArrowRight);
        browser.Until(() => browser.Count("[data-testid=folder]") == 2, "the branch unfolded");
        Assert.Equal("Gears", Name(browser));
        browser.Type(Keys.End);
        browser.Until(() => Name(browser) == "Trains", "the last folder");
        browser.Type(Keys.Enter);
        browser.Until(() => browser.Text("library-heading") == "Trains", "the folder opened");

        // From the heading, past what orders and narrows down, to the folders within and the first notebook.
        browser.Go($"/library/{Group.Space}");
        browser.Until(() => browser.Count("[data-testid=folder-row] [data-item]") == 1, "the folder's tile");
        browser.Script("const at = document.querySelector('[data-testid=library-heading]'); at.tabIndex = -1; at.focus()");
        var tabs = 0;
        while (
            tabs < 20
            && (string?)
                browser.Script("return document.activeElement.closest('[data-testid=notebook-row]') && document.activeElement.dataset.item")
                is null
        )
        {
            browser.Type(Keys.Tab);
            tabs++;
        }

        Assert.InRange(tabs, 1, 8);

        // A folder's tile is renamed, moved and binned by keys.
        browser.Script("document.querySelector('[data-testid=folder-row] [data-item]').focus()");
        browser.Type(Keys.F2);
        browser.Type("Wheels" + Keys.Enter);
        browser.Until(() => browser.Count("[data-testid=folder-row][data-name=Wheels]") == 1, "the new name");
        browser.Script("document.querySelector('[data-testid=folder-row] [data-item]').focus()");
        browser.Type("m");
        browser.Find("move-typed");
        browser.Type(Keys.Escape);
        browser.Until(() => browser.Count("[data-testid=move-typed]") == 0, "the dialogue closed");
        browser.Until(
            () => (string?)browser.Script("return document.activeElement.closest('[data-testid=folder-row]')?.dataset.name") == "Wheels",
            "the focus on the folder again"
        );
        browser.Type(Keys.Delete);
        browser.Until(() => browser.Count("[data-testid=folder-row]") == 0, "the folder in the bin");
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public void Saving_is_told_aloud_when_it_does_not_work_and_when_it_does_again_and_not_at_every_stroke()
    {
        var (browser, network) = Open(Group.Writer);
        browser.Go(PagePath);
        browser.WaitForStrokes(1);
        browser.WaitForSync("All saved");
        browser.Script(
            """
            window.told = [];
            const line = document.querySelector('[data-testid=sync-told]');
            new MutationObserver(() => line.textContent && window.told.push(line.textContent)).observe(line, { childList: true, characterData: true, subtree: true });
            """
        );
        string Told() => (string)browser.Script("return window.told.join(' | ')")!;
        for (var i = 0; i < 3; i++)
        {
            browser.Wave(420, 300 + 40 * i);
            browser.WaitForSync("All saved");
        }

        Assert.Equal("", Told());
        network.Cut();
        browser.Wave(420, 440);
        browser.Wave(420, 480);
        browser.WaitForSync("1 page waiting for a connection");
        network.Mend();
        browser.WaitForSync("All saved");
        browser.Until(() => Told().EndsWith("| All saved", StringComparison.Ordinal), "that all is well again");
        Assert.Equal(
            "Saved on this device, 1 page waiting for a connection",
            Told().Split(" | ").First(words => words.StartsWith("Saved", StringComparison.Ordinal))
        );
        Assert.Single(Told().Split(" | "), words => words.StartsWith("Saved", StringComparison.Ordinal));
    }

    private static void Focus(Browser browser, string testId) =>
        browser.Script($"document.querySelector('[data-testid={testId}]').focus()");

    private static string? Label(Browser browser) => (string?)browser.Script("return document.activeElement.ariaLabel");

    private static string? Name(Browser browser) => (string?)browser.Script("return document.activeElement.dataset.name ?? null");

    private static string? Focused(Browser browser) => (string?)browser.Script("return document.activeElement.dataset.testid ?? null");
}
