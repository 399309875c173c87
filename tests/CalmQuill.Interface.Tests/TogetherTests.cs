using CalmQuill.Testing;
using OpenQA.Selenium;

namespace CalmQuill.Interface.Tests;

/// <summary>Being in a notebook together: seeing who is where, going there, and following what somebody sees.</summary>
public sealed class TogetherTests : InterfaceTest
{
    [Fact]
    public void Who_is_in_the_notebook_is_seen_gone_to_and_followed_until_one_touches_the_sheet()
    {
        var leader = OpenPage(Group.Owner);
        var (other, network) = Open(Group.Writer);
        other.Go(PagePath);
        other.WaitForStrokes(1);
        other.Find("others-menu");
        leader.Find("others-menu");

        // On another page: the face says which, and leads there.
        leader.Press("page-after");
        other.Until(() => other.Attribute("elsewhere", "title")!.EndsWith("page 2", StringComparison.Ordinal), "on which page");
        other.Press("elsewhere");
        other.Until(() => other.Text("page-number").StartsWith("page 2", StringComparison.Ordinal), "the other page");
        other.Until(() => other.Count("[data-testid=elsewhere]") == 0, "both on one page");

        other.Press("others-menu");
        other.Press("follow-person");
        other.Find("following");
        leader.Until(() => leader.Attribute("others", "data-followed") == "1", "that somebody follows");
        leader.Script("document.querySelector('[data-testid=sheet]').focus()");
        leader.Type("+");
        var zoomed = Scale(leader);
        other.Until(() => Math.Abs(Scale(other) / zoomed - 1) < 0.02, "the same part as large");
        leader.Press("page-before");
        other.Until(() => other.Text("page-number").StartsWith("page 1", StringComparison.Ordinal), "the page turned with it");
        other.WaitForStrokes(1);
        Assert.Equal(1, other.Count("[data-testid=following]"));

        // A touch ends it; the pen writes as always.
        other.Wave(420, 300);
        other.WaitForStrokes(2);
        other.Until(() => other.Count("[data-testid=following]") == 0, "it ended");
        leader.Until(() => leader.Attribute("others", "data-followed") == "0", "that nobody follows");
        leader.Press("page-after");
        leader.Until(() => leader.Text("page-number").StartsWith("page 2", StringComparison.Ordinal), "the next page");
        Assert.StartsWith("page 1", other.Text("page-number"), StringComparison.Ordinal);

        // Turning by oneself ends it as well, and so does the other's going.
        other.Press("others-menu");
        other.Press("follow-person");
        other.Until(() => other.Text("page-number").StartsWith("page 2", StringComparison.Ordinal), "where the other is");
        other.Press("page-before");
        leader.Until(() => leader.Attribute("others", "data-followed") == "0", "that nobody follows once more");
        Assert.StartsWith("page 1", other.Text("page-number"), StringComparison.Ordinal);
        Assert.Equal(0, other.Count("[data-testid=following]"));
        other.Press("others-menu");
        other.Press("follow-person");
        other.Find("following");
        leader.Go("/desk");
        other.Until(() => other.Count("[data-testid=following], [data-testid=others]") == 0, "nobody else there");

        // A broken connection takes back what was known of others, and brings it again.
        leader.Go(PagePath);
        other.Find("others-menu");
        network.Cut();
        other.Until(() => other.Count("[data-testid=others]") == 0, "nobody known any more");
        network.Mend();
        other.Find("others-menu");
        Assert.Empty(leader.Errors());
    }

    [Fact]
    public void In_the_library_it_is_seen_who_is_in_a_notebook()
    {
        var reader = Open(Group.Reader).Browser;
        reader.Go($"/library/{Group.Space}");
        reader.Find("notebook-row");
        Assert.Equal(0, reader.Count("[data-testid=here-now]"));
        var writer = OpenPage(Group.Writer);
        Assert.Contains(Group.Writer.Name.Split(' ')[0], reader.Text("here-now"), StringComparison.Ordinal);
        writer.Go("/desk");
        reader.Until(() => reader.Count("[data-testid=here-now]") == 0, "nobody there");
    }

    [Fact]
    public void Where_everybody_changes_only_their_own_the_eraser_passes_over_what_others_wrote()
    {
        var owner = Open(Group.Owner).Browser;
        owner.Go($"/group/{Group.Space}");
        owner.Press("group-menu");
        owner.Press("group-look");
        owner.Press("touch-own");
        owner.Press("dialog-confirm");
        Assert.Contains("only what they wrote", owner.Text("touch-rule"), StringComparison.Ordinal);

        var writer = OpenPage(Group.Writer);
        writer.Wave(420, 300);
        writer.WaitForStrokes(2);
        // All that is taken, and then removed, is one's own.
        writer.TypeWithControl("a");
        writer.Find("selection");
        writer.Type(Keys.Delete);
        writer.WaitForStrokes(1);
        writer.TypeWithControl("a");
        writer.Type(Keys.Delete);
        Assert.Equal(1, writer.Strokes());
        // Pages that others made are not offered to the bin.
        writer.Go($"/pages/{Group.Space}/{Notebook}");
        writer.PressNth("overview-menu", 0);
        writer.Find("page-paper");
        Assert.Equal(0, writer.Count("[data-testid=page-bin], [data-testid=page-clear]"));
        writer.Type(Keys.Escape);

        // Once it is everything again, a page that is open goes by it without being opened anew.
        writer.Go(PagePath);
        writer.WaitForStrokes(1);
        owner.Press("group-menu");
        owner.Press("group-look");
        owner.Press("touch-everything");
        owner.Press("dialog-confirm");
        writer.Until(
            () =>
            {
                writer.TypeWithControl("a");
                return writer.Count("[data-testid=selection]") == 1;
            },
            "what others wrote selected"
        );
        writer.Type(Keys.Delete);
        writer.WaitForStrokes(0);
        writer.WaitForSync("All saved");
        Assert.Empty(writer.Errors());
    }

    [Fact]
    public void Who_wrote_what_is_seen_by_colour_and_a_person_can_be_left_out()
    {
        var owner = OpenPage(Group.Owner);
        var writer = OpenPage(Group.Writer);
        writer.Wave(420, 300);
        owner.WaitForStrokes(2);
        owner.Press("contents");
        owner.Press("margin-people");
        owner.Until(() => owner.Count("[data-testid=wrote-here]") == 2, "both writers");
        owner.PressNth("hide-person", 1);
        owner.WaitForStrokes(1);
        // What is not seen is not taken by mistake.
        owner.Script("document.querySelector('[data-testid=sheet]').focus()");
        owner.TypeWithControl("a");
        owner.Find("selection");
        owner.Type(Keys.Delete);
        owner.WaitForStrokes(0);
        owner.TypeWithControl("z");
        owner.WaitForStrokes(1);
        // Elsewhere in the margin all is as it was.
        owner.Press("margin-contents");
        owner.WaitForStrokes(2);
        writer.WaitForStrokes(2);
        Assert.Empty(owner.Errors());
    }

    [Fact]
    public void What_others_have_selected_and_where_they_drag_it_is_seen_until_they_let_go()
    {
        var owner = OpenPage(Group.Owner);
        var (writer, network) = Open(Group.Writer);
        writer.Go(PagePath);
        writer.WaitForStrokes(1);
        owner.Find("others-menu");
        Keyed(owner);
        owner.TypeWithControl("a");
        owner.Find("selection");
        writer.Find("held-frame");
        var before = writer.Attribute("held-frame", "data-frame");
        // It moves along while it is dragged, and nothing of the page is another until it is put down.
        var grip = owner.Find("selection-frame");
        var mouse = new OpenQA.Selenium.Interactions.Actions(owner.Driver);
        mouse.MoveToElement(grip).ClickAndHold().MoveByOffset(40, 30).Perform();
        writer.Until(() => writer.Attribute("held-frame", "data-frame") != before, "the frame dragged");
        new OpenQA.Selenium.Interactions.Actions(owner.Driver).Release().Perform();
        owner.WaitForSync("All saved");
        owner.Type(Keys.Escape);
        writer.Until(() => writer.Count("[data-testid=held-frame]") == 0, "that it was let go");
        // A connection that breaks holds nothing for long.
        Keyed(writer);
        writer.TypeWithControl("a");
        owner.Find("held-frame");
        network.Cut();
        owner.Until(() => owner.Count("[data-testid=held-frame]") == 0, "that it is held no more");
        Assert.Empty(owner.Errors());
    }

    private static void Keyed(Browser browser) => browser.Script("document.querySelector('[data-testid=sheet]').focus()");

    private static double Scale(Browser browser) =>
        double.Parse(browser.Attribute("sheet", "data-view")!.Split(' ')[0], System.Globalization.CultureInfo.InvariantCulture);
}
