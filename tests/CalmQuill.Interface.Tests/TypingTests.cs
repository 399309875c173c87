using CalmQuill.Core.Items;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Writing;
using CalmQuill.Testing;
using OpenQA.Selenium;

namespace CalmQuill.Interface.Tests;

/// <summary>Typed text on a page, as people type it.</summary>
public sealed class TypingTests : InterfaceTest
{
    [Fact]
    public void What_is_typed_stands_on_the_papers_lines_looks_as_it_is_told_to_and_is_taken_back_step_by_step()
    {
        var browser = OpenPage(Group.Writer);
        // Between two lines: it stands on the lower one.
        Begin(browser, 4_000, 9_300);
        browser.Type("Beat error");
        browser.TypeWith(Keys.Shift, Keys.Home);
        browser.Press("typing-style");
        browser.Press("typing-style-heading");
        browser.Type(Keys.End + Keys.Enter);
        browser.Type("- the crutch" + Keys.Enter + "the ");
        browser.TypeWithControl("b");
        browser.Type("pallets");
        browser.TypeWithControl("b");
        browser.Type(" too" + Keys.Enter + Keys.Enter + "[] oil");
        var text = Until(browser, "Beat error\nthe crutch\nthe pallets too\noil");
        var added = (Change.TextAdded)OperationsOn(browser, Group.Writer).Single(operation => operation.Change is Change.TextAdded).Change;
        // Paper.Default: lines of 7.1 mm from 31.95 mm on.
        Assert.Equal((710, 0), (added.Ruling, (added.Lay.F - 3_195) % 710));
        Assert.Equal(9_585, added.Lay.F);
        var paragraphs = text.Paragraphs().ToList();
        Assert.Equal(["heading", "", "", ""], paragraphs.Select(paragraph => paragraph.Look[Trait.Style]));
        Assert.Equal(["", "bullet", "bullet", "tick"], paragraphs.Select(paragraph => paragraph.Look[Trait.List]));
        Assert.Equal(["the ", "pallets", " too"], paragraphs[2].Spans.Select(span => span.Text));
        Assert.Equal(["", "1", ""], paragraphs[2].Spans.Select(span => span.Look[Trait.Bold]));
        Assert.Empty(browser.SeriousFindings());

        // A step is what was typed in one go, or what was told.
        browser.Press("typing-done");
        browser.Until(() => browser.Count("[data-testid=typing]") == 0, "nobody typing");
        var shown = text.Text;
        browser.TypeWithControl("z");
        browser.Until(() => TextOn(browser)?.Text != shown, "a step back");
        browser.Press("redo");
        Until(browser, shown);
        browser.Driver.Navigate().Refresh();
        browser.WaitForStrokes(2);
        Until(browser, shown);
        // Whoever presses into it goes on in it.
        browser.Press("tool-text");
        PageHands.Press(browser, 5_200, 9_450);
        browser.Find("typing-edge");
        browser.Type(Keys.End + ", ms");
        Until(browser, "Beat error, ms\nthe crutch\nthe pallets too\noil");
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public void Two_type_into_one_text_and_both_keep_their_words_also_who_was_away()
    {
        var (ines, network) = Open(Group.Writer);
        ines.Go(PagePath);
        ines.WaitForStrokes(1);
        Begin(ines, 4_000, 9_300);
        ines.Type("The pendulum swings.");
        ines.Press("typing-done");
        var maren = OpenPage(Group.Owner, 2);
        Press(maren, 7_200, 9_500);
        Press(ines, 4_050, 9_500);
        maren.Type(Keys.End + " It beats seconds.");
        ines.Type(Keys.Home + "So: ");
        Until(ines, "So: The pendulum swings. It beats seconds.");
        Until(maren, "So: The pendulum swings. It beats seconds.", Group.Owner);

        // Without a connection both go on at one place; when it is there again neither is mixed up with the other.
        network.Cut();
        ines.Type(Keys.End + " Iron grows.");
        maren.Type(Keys.End + " Wood less.");
        Until(ines, "So: The pendulum swings. It beats seconds. Iron grows.");
        Until(maren, "So: The pendulum swings. It beats seconds. Wood less.", Group.Owner);
        network.Mend();
        ines.Until(
            () =>
                TextOn(ines)?.Text
                    is "So: The pendulum swings. It beats seconds. Iron grows. Wood less."
                        or "So: The pendulum swings. It beats seconds. Wood less. Iron grows.",
            "both sentences"
        );
        maren.Until(() => TextOn(maren, Group.Owner)?.Text == TextOn(ines)!.Text, "the same on both");
        ines.Press("typing-done");
        maren.Press("typing-done");
        // Undo is each one's own.
        ines.WaitForSync("All saved");
        ines.TypeWithControl("z");
        maren.Until(() => TextOn(maren, Group.Owner)?.Text is { } left && !left.Contains("Iron") && left.Contains("Wood"), "one step back");
        Assert.Empty(maren.Errors());
    }

    [Fact]
    public void A_word_that_was_being_typed_when_its_tab_was_closed_is_there_on_the_next_opening()
    {
        var browser = OpenPage(Group.Writer);
        Begin(browser, 4_000, 9_300);
        browser.Type("half a wo");
        // No time to rest, and no farewell: the tab is gone.
        var left = browser.Driver.CurrentWindowHandle;
        browser.Driver.SwitchTo().NewWindow(WindowType.Tab);
        var next = browser.Driver.CurrentWindowHandle;
        browser.Driver.SwitchTo().Window(left);
        browser.Driver.Close();
        browser.Driver.SwitchTo().Window(next);
        browser.Go(PagePath);
        browser.WaitForStrokes(2);
        Until(browser, "half a wo");
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public void Boxes_are_ticked_while_reading_and_what_is_empty_is_not_there()
    {
        var browser = OpenPage(Group.Writer);
        Begin(browser, 4_000, 9_300);
        browser.Type("[] oil the pallets");
        browser.Press("typing-done");
        Until(browser, "oil the pallets");
        // A place to type that nothing was typed at leaves nothing.
        PageHands.Press(browser, 4_000, 14_000);
        browser.Find("typing-field");
        browser.Press("typing-done");
        browser.TypeWith(Keys.Null, "r");
        browser.Until(() => browser.Attribute("sheet", "data-reading") == "1", "read mode");
        PageHands.Press(browser, 4_150, 9_450);
        browser.Until(() => TextOn(browser)!.Paragraphs().Single().Look[Trait.Ticked] == "1", "a tick");
        PageHands.Press(browser, 4_150, 9_450);
        browser.Until(() => TextOn(browser)!.Paragraphs().Single().Look[Trait.Ticked] == "", "no tick");
        Assert.Single(OperationsOn(browser, Group.Writer), operation => operation.Change is Change.TextAdded);
        browser.WaitForStrokes(2);

        // A text of which all is removed again is seen by nobody, and is there for its last step back.
        browser.TypeWith(Keys.Null, "r");
        browser.Press("tool-text");
        PageHands.Press(browser, 6_000, 9_450);
        browser.Find("typing-edge");
        browser.TypeWithControl("a");
        browser.Type(Keys.Delete);
        browser.Press("typing-done");
        browser.WaitForStrokes(1);
        browser.TypeWithControl("z");
        browser.WaitForStrokes(2);
        Until(browser, "oil the pallets");
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public void A_text_is_selected_moved_put_behind_and_rubbed_out_like_anything_on_the_page()
    {
        var browser = OpenPage(Group.Writer);
        Begin(browser, 4_000, 9_300);
        browser.Type("hall clock");
        browser.Press("typing-done");
        Until(browser, "hall clock");
        var before = BoundsOn(browser);
        PageHands.Loop(browser, 3_600, 8_600, 20_400, 10_300);
        browser.TypeWith(Keys.Shift, Keys.ArrowDown);
        browser.Until(() => BoundsOn(browser).Top > before.Top, "it lies lower");
        browser.TypeWithControl("d");
        browser.WaitForStrokes(3);
        browser.Type(Keys.Delete);
        browser.WaitForStrokes(2);
        Until(browser, "hall clock");
        Assert.Empty(browser.Errors());
    }

    private static void Begin(Browser browser, double x, double y)
    {
        browser.TakeTool("text");
        Press(browser, x, y);
    }

    private static void Press(Browser browser, double x, double y)
    {
        browser.TakeTool("text");
        PageHands.Press(browser, x, y);
        browser.Until(
            () => (bool)browser.Script("return document.activeElement?.dataset.testid === 'typing-field'")!,
            "the caret in the text"
        );
    }

    /// <summary>The text on the page as the device has it; null while there is none.</summary>
    private TypedText? TextOn(Browser browser, CalmQuill.Store.People.Person? person = null) => TextItemOn(browser, person)?.Typed;

    private PageItem? TextItemOn(Browser browser, CalmQuill.Store.People.Person? person = null)
    {
        var page = new PageDocument();
        foreach (var operation in OperationsOn(browser, person ?? Group.Writer))
            page.Apply(operation);
        return page.Items.FirstOrDefault(item => item.Stands && item.Content is TextContent);
    }

    private Core.Ink.Box BoundsOn(Browser browser) => TextItemOn(browser)!.Bounds;

    private TypedText Until(Browser browser, string text, CalmQuill.Store.People.Person? person = null)
    {
        browser.Until(() => TextOn(browser, person)?.Text == text, $"“{text}”, it is “{TextOn(browser, person)?.Text}”");
        return TextOn(browser, person)!;
    }
}
