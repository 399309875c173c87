using CalmQuill.Testing;
using OpenQA.Selenium;

namespace CalmQuill.Interface.Tests;

/// <summary>What a person finds who has no mouse.</summary>
public sealed class KeyboardTests : InterfaceTest
{
    [Fact]
    public void The_first_tab_leads_past_the_rail_and_the_window_is_titled_after_its_screen()
    {
        var browser = Open(Group.Writer).Browser;
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
        var browser = Open(Group.Writer).Browser;
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

    private static string? Focused(Browser browser) => (string?)browser.Script("return document.activeElement.dataset.testid ?? null");
}
