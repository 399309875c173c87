using CalmQuill.Core.Items;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Spots;
using CalmQuill.Core.Writing;
using CalmQuill.Testing;
using OpenQA.Selenium;

namespace CalmQuill.Interface.Tests;

/// <summary>How typed text looks: its box, a look that is taken from one text and given to another, a heading in the contents.</summary>
public sealed class TextLookTests : InterfaceTest
{
    [Fact]
    public void A_box_of_text_gets_a_fill_a_border_and_room_within()
    {
        var browser = OpenPage(Group.Writer);
        Write(browser, 4_000, 9_300, "Beat error");
        var before = TextOn(browser, "Beat error").Bounds;
        browser.Press("tool-loop");
        PageHands.Press(browser, before.Left + 300, (before.Top + before.Bottom) / 2.0);
        browser.Press("look-taken");
        browser.Press("look-fill");
        browser.Press("ink-sky");
        browser.Until(() => TextOn(browser, "Beat error")[ItemField.Fill].Length > 0, "a fill");
        browser.Press("look-edge");
        browser.Press("ink-madder");
        browser.Until(() => TextOn(browser, "Beat error")[ItemField.Edge].EndsWith("ff", StringComparison.Ordinal), "a border");
        // Where a box is seen its letters do not touch it.
        Assert.Equal(150, before.Left - TextOn(browser, "Beat error").Bounds.Left);
        Assert.Empty(browser.SeriousFindings());
        browser.SendKeys("[data-testid=look-padding]", Keys.End);
        browser.Until(() => TextOn(browser, "Beat error").Padding == 1_000, "more room");
        browser.SendKeys("[data-testid=look-corner]", Keys.End);
        browser.Until(() => TextOn(browser, "Beat error").Corner == 1_000, "round corners");
        browser.SendKeys("[data-testid=look-edge-width]", Keys.End);
        browser.Until(() => TextOn(browser, "Beat error").EdgeWidth == 200, "a wide border");
        Assert.Equal(1_000, before.Left - TextOn(browser, "Beat error").Bounds.Left);
        // The letters stay as they were.
        Assert.Equal("", TextOn(browser, "Beat error")[ItemField.Colour]);
        browser.Press("leave-taken");
        browser.TypeWithControl("z");
        browser.Until(() => TextOn(browser, "Beat error").EdgeWidth == 30, "a step back");
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public void What_changes_a_look_does_not_lie_over_what_it_changes()
    {
        var browser = OpenPage(Group.Writer);
        Write(browser, 4_000, 14_000, "Beat error");
        var text = TextOn(browser, "Beat error").Bounds;
        browser.Press("tool-loop");
        PageHands.Press(browser, text.Left + 300, (text.Top + text.Bottom) / 2.0);
        browser.Press("look-taken");
        browser.Find("look-fill");
        var (left, top) = PageHands.At(browser, text.Left, text.Top);
        var (right, bottom) = PageHands.At(browser, text.Left + 2_000, text.Bottom);
        var sheet = browser.Find("sheet").Location;
        var panel = browser.Find("look-panel");
        var isApart =
            panel.Location.Y >= sheet.Y + bottom
            || panel.Location.Y + panel.Size.Height <= sheet.Y + top
            || panel.Location.X >= sheet.X + right
            || panel.Location.X + panel.Size.Width <= sheet.X + left;
        Assert.True(isApart, $"{panel.Location} {panel.Size}, and the text from {left} {top} to {right} {bottom}");
        Assert.Empty(browser.SeriousFindings());
    }

    [Fact]
    public void A_look_is_taken_from_one_text_and_given_to_another_in_one_step()
    {
        var browser = OpenPage(Group.Writer);
        Begin(browser, 4_000, 9_300);
        browser.Type("Beat error");
        browser.TypeWith(Keys.Shift, Keys.Home);
        browser.TypeWithControl("b");
        browser.TypeWithControl("i");
        browser.Press("typing-colour");
        browser.Press("ink-madder");
        browser.Press("typing-weight");
        Assert.False(browser.Find("typing-give-look").Enabled);
        browser.Press("typing-keep-look");
        browser.Until(() => browser.Find("typing-give-look").Enabled, "a look to be given");
        browser.Press("typing-done");

        Write(browser, 4_000, 14_000, "pallets", isDone: false);
        browser.TypeWith(Keys.Shift, Keys.Home);
        browser.Press("typing-weight");
        browser.Press("typing-give-look");
        browser.Press("typing-done");
        browser.Until(() => LookOf(browser, "pallets")[Trait.Colour].Length > 0, "the look");
        foreach (var trait in new[] { Trait.Bold, Trait.Italic, Trait.Colour, Trait.Style })
            Assert.Equal((trait, LookOf(browser, "Beat error")[trait]), (trait, LookOf(browser, "pallets")[trait]));
        browser.TypeWithControl("z");
        browser.Until(
            () => LookOf(browser, "pallets")[Trait.Bold].Length == 0 && LookOf(browser, "pallets")[Trait.Colour].Length == 0,
            "one step back"
        );
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public void What_was_selected_stays_so_when_the_text_is_shown_anew_before_the_browser_says_that_it_was()
    {
        var browser = OpenPage(Group.Writer);
        Begin(browser, 4_000, 9_300);
        browser.Type("Beat error");
        // The browser tells of a selection in a task of its own; the one who types is stopped within the same one.
        browser.Script(
            "for (let i = 0; i < 5; i++) getSelection().modify('extend', 'backward', 'character'); dispatchEvent(new Event('pagehide'));"
        );
        Assert.Equal("error", browser.Script("return String(getSelection())"));
        browser.TypeWith(Keys.Shift, Keys.ArrowRight);
        Assert.Equal("rror", browser.Script("return String(getSelection())"));
        browser.TypeWithControl("b");
        browser.TypeWithControl("i");
        browser.Press("typing-done");
        browser.Until(() => TextOn(browser, "Beat error").Typed.Paragraphs().Single().Spans.Count == 2, "two looks");
        var last = TextOn(browser, "Beat error").Typed.Paragraphs().Single().Spans[1];
        Assert.Equal(("rror", "1", "1"), (last.Text, last.Look[Trait.Bold], last.Look[Trait.Italic]));
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public void A_typed_heading_is_put_into_the_contents()
    {
        var browser = OpenPage(Group.Writer);
        Write(browser, 4_000, 9_300, "The escapement", isDone: false);
        browser.Press("typing-style");
        Assert.Equal(0, browser.Count("[data-testid=typing-into-contents]"));
        browser.Press("typing-style-subheading");
        browser.Press("typing-into-contents");
        browser.Until(() => PageOf(browser).Spots().Exists(spot => spot.Kind == SpotKind.Heading), "a heading in the contents");
        var heading = PageOf(browser).Spots().Single(spot => spot.Kind == SpotKind.Heading);
        // It goes along with the text.
        Assert.Equal(TextOn(browser, "The escapement").Bounds, heading.Area);
        Assert.Empty(browser.SeriousFindings());
        Assert.Empty(browser.Errors());
    }

    private static void Begin(Browser browser, double x, double y)
    {
        browser.Press("tool-text");
        PageHands.Press(browser, x, y);
        browser.Find("typing-field");
    }

    private void Write(Browser browser, double x, double y, string words, bool isDone = true)
    {
        Begin(browser, x, y);
        browser.Type(words);
        browser.Until(() => Texts(browser).Any(text => text.Typed.Text == words), words);
        if (!isDone)
            return;
        browser.Press("typing-done");
        browser.Until(() => browser.Count("[data-testid=typing]") == 0, "nobody typing");
    }

    private Look LookOf(Browser browser, string words) => TextOn(browser, words).Typed.Paragraphs().Single().Spans[0].Look;

    private TextContent TextOn(Browser browser, string words) => Texts(browser).Single(text => text.Typed.Text == words);

    private IEnumerable<TextContent> Texts(Browser browser) =>
        PageOf(browser).Items.Where(item => item.Shown).Select(item => item.Content).OfType<TextContent>();
}
