using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Spots;
using CalmQuill.Testing;
using OpenQA.Selenium;

namespace CalmQuill.Interface.Tests;

/// <summary>What people come for, from its beginning to its end, by someone who has a keyboard alone: nothing is pressed, and nothing gets the focus but by keys.</summary>
public sealed class KeyboardFlowTests : InterfaceTest
{
    [Fact]
    public void Coming_in_going_on_reading_and_leaving_the_page()
    {
        using var browser = new Browser(Host.Address);
        browser.Go("/sign-in");
        browser.Find("sign-in");
        Reach(browser, "input[name=email]");
        browser.Type(Group.Owner.Email);
        Reach(browser, "input[name=password]");
        browser.Type(QuillHost.Password + Keys.Enter);
        browser.Find("desk-heading");
        browser.Until(() => browser.Count("[data-testid=left-off] a") > 0, "the pages left off");
        Reach(browser, "[data-testid=left-off] a");
        browser.Type(Keys.Enter);
        browser.WaitForStrokes(1);

        browser.Type(Keys.PageDown);
        PageHands.WaitForPage(browser, "page 2 of 2");
        browser.Type(Keys.Home);
        PageHands.WaitForPage(browser, "page 1 of 2");
        var before = browser.Text("zoom");
        browser.Type("+");
        browser.Until(() => browser.Text("zoom") != before, "the page larger");
        browser.Type("f");
        browser.Css("html[data-full]");
        browser.Type(Keys.Escape);
        browser.Until(() => browser.Count("html[data-full]") == 0, "the usual view");

        Reach(browser, "[data-testid=open-rail]", backwards: true);
        browser.Type(Keys.Enter);
        Reach(browser, "nav a[href='/library']");
        browser.Type(Keys.Enter);
        browser.Until(() => Has(browser, "[data-testid=library-heading]"), "the focus at the library's heading");
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public void A_folder_and_a_notebook_are_made_renamed_moved_put_away_and_had_back()
    {
        var browser = Open(Group.Writer).Browser;
        browser.Go($"/library/{Group.Space}");
        browser.Find("library-heading");
        Reach(browser, "[data-testid=new-folder-group]");
        browser.Type(Keys.Enter);
        browser.Until(() => Has(browser, "[data-testid=name-input]"), "the focus in the field for the name");
        browser.Type("Balances" + Keys.Enter);
        browser.Until(() => Has(browser, "[data-testid=new-folder-group]"), "the focus where it was before the dialogue");

        Reach(browser, "[data-testid=folder]");
        browser.Type(Keys.Enter);
        browser.Until(() => browser.Text("library-heading") == "Balances", "the new folder");
        Reach(browser, "[data-testid=new-notebook]");
        browser.Type(Keys.Enter);
        browser.Until(() => Has(browser, "[data-testid=name-input]"), "the focus in the field for the name");
        browser.Type("Hairsprings" + Keys.Enter);
        browser.WaitForStrokes(0);
        Reach(browser, "[data-testid=back-to-library]");
        browser.Type(Keys.Enter);
        browser.Until(() => browser.Count("[data-testid=notebook-row]") == 1, "the notebook in its folder");

        const string notebook = "[data-testid=notebook-row] [data-item]";
        Reach(browser, notebook);
        browser.Type(Keys.F2);
        browser.Until(() => Has(browser, "[data-testid=rename-in-place]"), "the field for the new name");
        browser.Type("Springs" + Keys.Enter);
        browser.Until(() => browser.Count("[data-testid=notebook-row][data-name=Springs]") == 1, "the new name");
        browser.Until(() => Has(browser, notebook), "the focus on what was renamed");
        browser.Type(Keys.F2);
        browser.Until(() => Has(browser, "[data-testid=rename-in-place]"), "the field once more");
        browser.Type("thrown away" + Keys.Escape);
        browser.Until(() => Has(browser, notebook), "the focus on what was not renamed");
        Assert.Equal(1, browser.Count("[data-testid=notebook-row][data-name=Springs]"));

        // Escape leaves it where it is, Enter moves it to the first place that fits.
        browser.Type("m");
        browser.Until(() => Has(browser, "[data-testid=move-typed]"), "the field for the place");
        browser.Type(Keys.Escape);
        browser.Until(() => Has(browser, notebook), "the focus on what was not moved");
        browser.Type("m");
        browser.Until(() => Has(browser, "[data-testid=move-typed]"), "the field for the place");
        browser.Type("my note");
        browser.Until(() => browser.Count("[data-testid=move-choice]") == 1, "the place that fits");
        browser.Type(Keys.Enter);
        browser.Until(() => browser.Count("[data-testid=notebook-row]") == 0, "the folder empty");
        browser.Until(() => Has(browser, "[data-testid=library-heading]"), "the focus at the heading, since what had it is gone");
        browser.TypeWithControl("z");
        browser.Until(() => browser.Count("[data-testid=notebook-row]") == 1, "the notebook back");

        Reach(browser, notebook);
        browser.Type(Keys.Delete);
        browser.Until(() => browser.Count("[data-testid=notebook-row]") == 0, "the notebook in the bin");
        browser.Until(() => Has(browser, "[data-testid=library-heading]"), "the focus at the heading of the empty folder");
        browser.TypeWithControl("z");
        browser.Until(() => browser.Count("[data-testid=notebook-row][data-name=Springs]") == 1, "the notebook had back");
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public void Pages_are_chosen_moved_duplicated_and_put_away_in_the_overview()
    {
        var browser = OpenPage(Group.Writer);
        Reach(browser, "[data-testid=open-overview]");
        browser.Type(Keys.Enter);
        browser.Until(() => browser.Count("[data-page]") == 2, "both pages");
        Reach(browser, "[data-page]");
        var first = PageAt(browser);
        browser.Type(Keys.ArrowRight);
        browser.Until(() => PageAt(browser) != first, "the next page");
        var second = PageAt(browser);
        browser.TypeWith(Keys.Alt, Keys.ArrowLeft);
        browser.Until(() => Pages(browser)[0] == second, "the second page first");
        browser.Until(() => PageAt(browser) == second, "the focus on the page that was moved");

        browser.Type(" ");
        browser.Find("overview-bar");
        browser.Type(Keys.Escape);
        browser.Until(() => browser.Count("[data-testid=overview-bar]") == 0, "nothing chosen");

        // The menu of a page, by arrows.
        Reach(browser, $"[data-testid=overview-menu]");
        browser.Type(Keys.ArrowDown);
        browser.Until(() => Has(browser, "[role=menuitem]"), "the first entry");
        browser.Type(Keys.Escape);
        browser.Until(() => Has(browser, "[data-testid=overview-menu]"), "the focus at the menu's button");
        browser.Type(Keys.Enter);
        browser.Until(() => Has(browser, "[role=menuitem]"), "the first entry again");
        for (var i = 0; i < 30 && !Has(browser, "[data-testid=page-duplicate]"); i++)
            browser.Type(Keys.ArrowDown);
        browser.Type(Keys.Enter);
        browser.Until(() => browser.Count("[data-page]") == 3, "the page doubled");

        Reach(browser, "[data-page]", backwards: true);
        browser.Type(Keys.Delete);
        browser.Until(() => browser.Count("[data-page]") == 2, "a page in the bin");
        browser.Until(() => Has(browser, "[data-page]"), "the focus on the page in its place");
        browser.TypeWithControl("z");
        browser.Until(() => browser.Count("[data-page]") == 3, "the page had back");
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public async Task What_is_open_is_found_ticked_off_and_opened_again()
    {
        using (var caller = await Host.SignIn(Group.Owner))
        {
            var device = new Replica(9, Group.Owner.Id);
            await caller.Send(
                Group.Space,
                DocumentKind.Page,
                Page,
                [
                    .. new[] { "Which oil?", "Measure again" }.Select(note =>
                        device.Make(
                            new Change.SpotAdded(
                                Guid.NewGuid(),
                                SpotKind.Mark,
                                new Box(2_000, 3_000, 5_000, 4_000),
                                [],
                                [new SpotValue(SpotField.Mark, "todo"), new SpotValue(SpotField.Note, note)]
                            ),
                            5
                        )
                    ),
                ]
            );
        }

        var browser = AtDesk(Group.Writer).Browser;
        browser.Find("desk-heading");
        Reach(browser, "nav a[href='/follow-ups']");
        browser.Type(Keys.Enter);
        browser.Until(() => browser.Count("[data-testid=follow-up]") == 2, "both marks");
        Reach(browser, "[data-testid=tick-off]");
        browser.Type(Keys.Enter);
        browser.Until(() => browser.Count("[data-testid=follow-up]") == 1, "one ticked off");
        browser.Until(() => Has(browser, "[data-testid=tick-off]"), "the focus on the one that is left");
        browser.Type(" ");
        browser.Until(() => browser.Count("[data-testid=follow-up]") == 0, "the other one ticked off");
        browser.Until(() => Has(browser, "h1"), "the focus at the heading");
        browser.TypeWithControl("z");
        browser.Until(() => browser.Count("[data-testid=follow-up]") == 1, "the last one open again");
        Reach(browser, "[data-testid=follow-up] a");
        browser.Type(Keys.Enter);
        browser.Find("mark-card");
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public void The_margin_menus_and_settings_answer_to_arrows_and_escape_gives_back_what_one_was_at()
    {
        var browser = OpenPage(Group.Writer);
        Reach(browser, "[data-testid=contents]");
        browser.Type(Keys.Enter);
        browser.Find("margin-contents");
        Reach(browser, "[role=tab]");
        Assert.Equal("margin-contents", Focused(browser));
        browser.Type(Keys.ArrowRight);
        browser.Until(() => browser.Attribute("margin-marks", "aria-selected") == "true", "the marks by an arrow");
        browser.Type(Keys.ArrowRight);
        browser.Until(() => browser.Attribute("margin-links", "aria-selected") == "true", "the links by an arrow");
        browser.Type(Keys.ArrowRight);
        browser.Until(() => browser.Attribute("margin-people", "aria-selected") == "true", "the people by an arrow");
        browser.Type(Keys.ArrowRight);
        browser.Until(() => browser.Attribute("margin-history", "aria-selected") == "true", "the history by an arrow");
        browser.Type(Keys.ArrowRight);
        browser.Until(() => browser.Attribute("margin-contents", "aria-selected") == "true", "round to the contents");

        // Whatever lies over the page gives the focus back.
        browser.Type("?");
        browser.Find("keys-sheet");
        browser.Type(Keys.Escape);
        browser.Until(() => Focused(browser) == "margin-contents", "the focus where it was");

        Reach(browser, "[data-testid=open-rail]", backwards: true);
        browser.Type(Keys.Enter);
        Reach(browser, "[data-testid=account-link]");
        browser.Type(Keys.Enter);
        browser.Find("name-form");
        Reach(browser, "input[name=theme]");
        Assert.Equal("quill-day", browser.Css("html").GetAttribute("data-theme"));
        browser.Type(Keys.ArrowLeft);
        browser.Until(() => browser.Css("html").GetAttribute("data-theme") == "quill-night", "the night, beside what the system says");
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public void What_is_selected_is_scaled_and_turned_by_its_grips()
    {
        var browser = OpenPage(Group.Writer);
        browser.TypeWithControl("a");
        browser.Find("selection-frame");
        double Side(string side) =>
            Convert.ToDouble(
                browser.Script(
                    "return document.querySelector('[data-testid=selection-frame]').getBoundingClientRect()[arguments[0]]",
                    side
                ),
                System.Globalization.CultureInfo.InvariantCulture
            );
        var (wide, high) = (Side("width"), Side("height"));
        Reach(browser, "[data-grip='1,1']");
        browser.TypeWith(Keys.Shift, Keys.ArrowRight);
        browser.Until(() => Side("width") > wide + 5, "what is selected wider");
        // A corner keeps the proportion, and the focus.
        Assert.True(Side("height") > high);
        Assert.True(Has(browser, "[data-grip='1,1']"));
        browser.TypeWithControl("z");
        browser.Until(() => Math.Abs(Side("width") - wide) < 1, "as wide as before");

        Reach(browser, "[data-testid=turn-grip]");
        browser.TypeWith(Keys.Shift, Keys.ArrowRight);
        browser.Until(() => Side("height") > high + 5, "what is selected turned");
        browser.Type(Keys.Delete);
        browser.WaitForStrokes(0);
        browser.TypeWithControl("z");
        browser.WaitForStrokes(1);
        Assert.Empty(browser.Errors());
    }

    /// <summary>Goes from stop to stop until the focus is on what is meant.</summary>
    private static void Reach(Browser browser, string selector, bool backwards = false)
    {
        browser.Until(() => browser.Count(selector) > 0, selector);
        for (var stops = 0; stops < 120; stops++)
        {
            if (Has(browser, selector))
                return;
            if (backwards)
                browser.TypeWith(Keys.Shift, Keys.Tab);
            else
                browser.Type(Keys.Tab);
        }

        Assert.Fail(
            $"{selector} is not reached by Tab; the focus is at {browser.Script("return document.activeElement.outerHTML.slice(0, 200)")}"
        );
    }

    private static bool Has(Browser browser, string selector) =>
        (bool)browser.Script("return document.activeElement.matches(arguments[0])", selector)!;

    private static string? Focused(Browser browser) => (string?)browser.Script("return document.activeElement.dataset.testid ?? null");

    private static string? PageAt(Browser browser) => (string?)browser.Script("return document.activeElement.dataset.page ?? null");

    private static List<string> Pages(Browser browser) =>
        [
            .. (
                (IEnumerable<object>)
                    browser.Script("return [...document.querySelectorAll('[data-page]')].map((tile) => tile.dataset.page)")!
            ).Cast<string>(),
        ];
}
