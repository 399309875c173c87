using CalmQuill.Testing;

namespace CalmQuill.Interface.Tests;

/// <summary>What somebody finds who has just come and has nothing yet.</summary>
public sealed class NewcomerTests : InterfaceTest
{
    [Fact]
    public void The_first_steps_lead_to_a_notebook_and_are_gone_once_something_is_written()
    {
        var browser = AtDesk(Group.Stranger).Browser;
        browser.Find("first-steps");
        // Who is in no group can make one; who is in one finds its notebooks.
        Assert.Equal(1, browser.Count("[data-testid=make-group]"));
        browser.Press("step-notebook");
        browser.Fill("[data-testid=name-input]", "Everything so far");
        browser.Press("dialog-confirm");
        browser.WaitForStrokes(0);
        browser.Wave(420, 300);
        browser.WaitForStrokes(1);
        browser.WaitForSync("All saved");
        browser.Go("/desk");
        browser.Find("left-off");
        Assert.Equal(0, browser.Count("[data-testid=first-steps]"));
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public void Put_away_they_do_not_come_back_on_any_device_and_a_dialogue_that_was_closed_does_not_open_again()
    {
        var browser = AtDesk(Group.Writer).Browser;
        browser.Find("first-steps");
        Assert.Equal(1, browser.Count("[data-testid=step-group]"));
        browser.Press("step-notebook");
        browser.Find("name-input");
        browser.Type(OpenQA.Selenium.Keys.Escape);
        browser.Until(() => browser.Count("[data-testid=name-input]") == 0, "the dialogue closed");
        browser.Driver.Navigate().Refresh();
        browser.Find("new-notebook");
        Assert.Equal(0, browser.Count("[data-testid=name-input]"));

        browser.Go("/desk");
        browser.Press("steps-away");
        browser.Until(() => browser.Count("[data-testid=first-steps]") == 0, "the steps put away");
        browser.WaitForSync("All saved");
        var other = AtDesk(Group.Writer).Browser;
        other.Find("desk-heading");
        other.Until(() => other.Css("main").Text.Contains("will lie here", StringComparison.Ordinal), "the empty Desk");
        Assert.Equal(0, other.Count("[data-testid=first-steps]"));
    }
}
