using CalmQuill.Testing;
using OpenQA.Selenium;
using OpenQA.Selenium.Interactions;

namespace CalmQuill.Interface.Tests;

/// <summary>Every slider, field and switch of every panel keeps what it was set to: dragged, by keys, typed, and after a reload.</summary>
public sealed class PanelTests : InterfaceTest
{
    /// <summary>What is pressed, what then is chosen at first, and the sliders and switches of its panel.</summary>
    private static readonly (string Tool, string First, string Sliders, string Switches)[] Panels =
    [
        ("pen-1", "kind-calligraphy", "pen-width pen-opacity pen-angle pen-stabilising", "line-dashed"),
        ("pen-2", "kind-fountain", "pen-width pen-opacity pen-response pen-stabilising", "line-dotted"),
        ("pen-3", "kind-pencil", "pen-response", ""),
        ("pen-4", "kind-highlighter", "pen-width pen-opacity", "tip-round pen-straight"),
        ("tool-eraser", "", "eraser-size", "erase-highlighter erase-layer erase-back scratch erase-whole"),
        ("tool-loop", "", "select-share", "take-ink take-shapes take-layer select-box"),
        ("tool-shape", "shape-filled", "shape-fill-opacity join tidy-after tidy-least", "shape-star"),
        ("tool-fill", "", "fill-opacity fill-gap", ""),
        ("tool-room", "", "", "room-next room-right"),
        ("tool-habits", "", "nudge", "finger-taps button-held dim-paper finger-select button-loop tail-loop hand-left"),
        ("tool-guide", "guide-ruler", "guide-angle guide-size", ""),
        ("tool-layers", "", "layer-opacity", ""),
    ];

    [Fact]
    public void Every_panel_keeps_what_it_was_set_to()
    {
        var browser = OpenPage(Group.Writer);
        var set = new List<(string Tool, string Name, bool IsSlider, string Value)>();
        foreach (var (tool, first, sliders, switches) in Panels)
        {
            Unfold(browser, tool, first.Length > 0 ? first : $"{sliders} {switches}".Trim().Split(' ')[0]);
            if (first.Length > 0)
                browser.Press(first);
            foreach (var slider in Names(sliders))
            {
                var before = Value(browser, slider);
                Drag(browser, slider);
                var dragged = Value(browser, slider);
                Assert.True(before != dragged, $"{slider} was dragged and stands at {before}");
                // By a key it takes a step more, from where it was dragged to.
                browser.Find(slider).SendKeys(Keys.ArrowLeft);
                var keyed = Value(browser, slider);
                Assert.True(
                    Number(keyed) < Number(dragged) && Number(keyed) > Number(before) - Math.Abs(Number(dragged)),
                    $"{slider}: {before}, {dragged}, {keyed}"
                );
                set.Add((tool, slider, true, keyed));
            }

            foreach (var one in Names(switches))
            {
                var before = Standing(browser, one);
                browser.Press(one);
                browser.Until(() => Standing(browser, one) != before, $"{one} to change");
                set.Add((tool, one, false, Standing(browser, one)));
            }
        }

        browser.WaitForSync("All saved");
        browser.Go(PagePath);
        browser.WaitForStrokes(1);
        foreach (var (tool, name, isSlider, value) in set)
        {
            Unfold(browser, tool, name);
            browser.Until(
                () => (isSlider ? Value(browser, name) : Standing(browser, name)) == value,
                $"{name} of {tool} to stand at {value} after a reload"
            );
        }

        Assert.Empty(browser.Errors());
    }

    [Fact]
    public void Fields_keep_what_was_typed_and_what_is_dragged_after_typing_goes_on_from_there()
    {
        var browser = OpenPage(Group.Writer);
        browser.Press("pen-1");
        browser.Fill("[data-testid=pen-width-number]", "2.5" + Keys.Enter);
        browser.Until(() => Field(browser, "pen-width-number") == "2.50", "the width");
        browser.Fill("[data-testid=hex]", "#2c5d9b" + Keys.Tab);
        Drag(browser, "pen-opacity");
        var opacity = Value(browser, "pen-opacity");
        // Too wide: it is said, and nothing is changed.
        browser.Fill("[data-testid=pen-width-number]", "44" + Keys.Enter);
        browser.Until(() => Field(browser, "pen-width-number") == "2.50", "the width that was");
        // What is typed and left for another field counts.
        browser.Fill("[data-testid=pen-width-number]", "3,25");
        browser.Press("line-dashed");
        browser.WaitForSync("All saved");
        browser.Go(PagePath);
        browser.WaitForStrokes(1);
        browser.Press("pen-1");
        Assert.Equal(
            ("3.25", "#2c5d9b", opacity),
            (Field(browser, "pen-width-number"), Field(browser, "hex"), Value(browser, "pen-opacity"))
        );
        Assert.Equal("true", Standing(browser, "line-dashed"));
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public void What_is_selected_keeps_the_width_and_opacity_that_it_was_given()
    {
        var browser = OpenPage(Group.Writer);
        var set = new Dictionary<string, string>();
        void Take()
        {
            PageHands.Loop(browser, 2_000, 4_000, 13_000, 6_500);
            browser.Press("look-taken");
            browser.Find("look-opacity");
        }

        Take();
        foreach (var slider in new[] { "look-opacity", "look-width" })
        {
            var before = Value(browser, slider);
            Drag(browser, slider);
            browser.Until(() => Value(browser, slider) != before, $"{slider} to be moved");
            set[slider] = Value(browser, slider);
        }

        browser.WaitForSync("All saved");
        browser.Go(PagePath);
        browser.WaitForStrokes(1);
        Take();
        foreach (var (slider, value) in set)
            browser.Until(() => Value(browser, slider) == value, $"{slider} to stand at {value} after a reload");
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public void Palettes_are_kept_renamed_put_in_order_and_removed_and_a_pen_taken_out_can_be_had_back()
    {
        var browser = OpenPage(Group.Writer);
        browser.Press("pen-1");
        string[] Palettes() =>
            [.. browser.Driver.FindElements(By.CssSelector("[data-testid=palette] option")).Select(option => option.Text)];
        string Chosen() => Field(browser, "palette");
        browser.Press("keep-colour");
        browser.Until(() => Chosen() == "My colours", "a palette of one's own");
        browser.Press("palette-menu");
        browser.Press("palette-rename");
        browser.Fill("[data-testid=name-input]", "Workbench");
        browser.Press("dialog-confirm");
        browser.Until(() => browser.Css("[role=dialog]").Text.Contains("is called that", StringComparison.Ordinal), "the refusal");
        browser.Fill("[data-testid=name-input]", "Brass");
        browser.Press("dialog-confirm");
        browser.Until(() => Chosen() == "Brass", "its name");
        browser.PressCss("[data-testid=palette] option[value='Workbench'], [data-testid=palette] option:first-child");
        browser.Press("keep-colour");
        browser.Until(() => Palettes() is [.., "Brass", "My colours"], "two of one's own");
        browser.Press("palette-menu");
        browser.Press("palette-up");
        browser.Until(() => Palettes() is [.., "My colours", "Brass"], "the other order");
        browser.Press("palette-menu");
        browser.Press("palette-remove");
        browser.Until(() => !Palettes().Contains("My colours"), "one less");
        browser.Press("take-back");
        browser.Until(() => Palettes() is [.., "My colours", "Brass"], "it is back");

        int Pens() => browser.Count("[data-testid^=pen-][aria-label^=Pen]");
        browser.Press("remove-pen");
        browser.Until(() => Pens() == 5, "one pen less");
        browser.Press("take-back");
        browser.Until(() => Pens() == 6, "it is back");
        browser.Press("pen-1");
        for (var pens = 7; pens <= 24; pens++)
        {
            browser.Press("add-pen");
            browser.Until(() => Pens() == pens, $"{pens} pens");
        }

        browser.Press("add-pen");
        browser.Until(() => LibraryHands.Said(browser).Contains("holds 24 pens", StringComparison.Ordinal), "why not");
        Assert.Equal(24, Pens());
        Assert.Empty(browser.Errors());
    }

    /// <summary>Presses a tool until its panel is there.</summary>
    private static void Unfold(Browser browser, string tool, string shows)
    {
        // All pens have the same panel: it must be this one's.
        bool IsThere() =>
            browser.Count($"[data-testid={shows}]") == 1
            && (!tool.StartsWith("pen-", StringComparison.Ordinal) || browser.Attribute(tool, "aria-pressed") == "true");
        for (var i = 0; i < 3 && !IsThere(); i++)
        {
            if (tool.StartsWith("tool-", StringComparison.Ordinal))
                browser.TakeTool(tool[5..]);
            else
                browser.Press(tool);
        }

        browser.Find(shows);
    }

    private static string[] Names(string names) => names.Split(' ', StringSplitOptions.RemoveEmptyEntries);

    private static double Number(string value) => double.Parse(value, System.Globalization.CultureInfo.InvariantCulture);

    private static string Field(Browser browser, string testId) =>
        (string)browser.Script("return document.querySelector(`[data-testid='${arguments[0]}']`)?.value ?? ''", testId)!;

    private static string Value(Browser browser, string slider)
    {
        browser.Find(slider);
        return Field(browser, slider);
    }

    /// <summary>Whether a switch, or one of several choices, is on.</summary>
    private static string Standing(Browser browser, string testId)
    {
        browser.Find(testId);
        return (string)
            browser.Script(
                """
                const one = document.querySelector(`[data-testid='${arguments[0]}']`);
                const field = one.matches('input') ? one : one.querySelector('input');
                return String(field ? field.checked : one.getAttribute('aria-checked') ?? one.getAttribute('aria-pressed'));
                """,
                testId
            )!;
    }

    /// <summary>Drags the knob of a slider by a fifth of its way, towards the middle.</summary>
    private static void Drag(Browser browser, string slider)
    {
        var field = browser.Find(slider);
        browser.Script("arguments[0].scrollIntoView({ block: 'center' })", field);
        var share = Number(
            (string)browser.Script("const one = arguments[0]; return String((one.value - one.min) / (one.max - one.min))", field)!
        );
        var (width, by) = (field.Size.Width, field.Size.Width / 5 * (share > 0.5 ? -1 : 1));
        new Actions(browser.Driver)
            .MoveToElement(field, (int)((share - 0.5) * (width - 16)), 0)
            .ClickAndHold()
            .MoveByOffset(by / 2, 0)
            .MoveByOffset(by - by / 2, 0)
            .Release()
            .Perform();
    }
}
