using CalmQuill.Core.Items;
using CalmQuill.Core.Pages;
using CalmQuill.Testing;
using OpenQA.Selenium;

namespace CalmQuill.Interface.Tests;

/// <summary>Formulas as people put them in: typed, worked out, solved with their steps, by two people at once and without a connection.</summary>
public sealed class FormulaFlowTests : InterfaceTest
{
    private const string Source = "[data-testid=formula-source]";

    [Fact]
    public void A_formula_is_typed_worked_out_and_solved_with_its_steps()
    {
        var browser = OpenPage(Group.Writer);
        Put(browser);
        browser.Type("1/2 + 1/3");
        Until(browser, "1/2 + 1/3 = 5/6 ≈ 0.833333");
        Assert.Empty(browser.SeriousFindings());
        // Whoever hears the page hears what comes out.
        Assert.Equal("1/2 + 1/3 = 5/6 ≈ 0.833333", browser.Css("[data-testid=formula-lines] li").GetAttribute("textContent"));

        // What is wrong is told while it is typed, and nothing of it is lost.
        browser.Fill(Source, "1/0");
        Assert.Contains("divided by 0", browser.Text("formula-problem"), StringComparison.Ordinal);

        browser.Fill(Source, "T = 2 pi sqrt(L/g)");
        browser.Css("[data-testid=formula-task] option[value='solve']").Click();
        browser.Press("formula-steps");
        Until(browser, "T = 2π√(L/g)", "2π√(L/g) = T   | :2π", "√(L/g) = T/(2π)   | ()^2", "L/g = T^2/(4π^2)   | ·g", "L = (T^2g)/(4π^2)");
        browser.Css("[data-testid=formula-letter] option[value='g']").Click();
        browser.Until(() => FormulaOn(browser).Drawn.Lines[^1] == "g = (4π^2L)/T^2", "for another letter");

        // The others see it, worked out on their devices; undo goes step by step.
        var other = OpenPage(Group.Owner, 2);
        other.Until(() => FormulaOn(other, Group.Owner).Drawn.Lines.SequenceEqual(FormulaOn(browser).Drawn.Lines), "the same lines");
        browser.Press("leave-taken");
        browser.TypeWithControl("z");
        browser.Until(() => FormulaOn(browser).Drawn.For == "L", "the letter before");
        Assert.Empty(browser.Errors());
        Assert.Empty(other.Errors());
    }

    [Fact]
    public void Signs_are_put_in_where_the_caret_is_and_a_press_with_the_text_tool_takes_a_formula_up()
    {
        var browser = OpenPage(Group.Writer);
        Put(browser);
        browser.Type("x");
        browser.PressCss("[title='Power']");
        browser.Type("2 + ");
        browser.PressCss("[title='Root']");
        browser.Type("y");
        browser.Until(() => FormulaOn(browser).Typed.Text == "x^2 + sqrt(y)", "what was typed in brackets");
        // What is selected goes into the bracket.
        browser.SendKeys(Source, Keys.Control + "a");
        browser.PressCss("[title='Fraction']");
        browser.Type(Keys.End + "2");
        browser.Until(
            () => FormulaOn(browser).Typed.Text.StartsWith("(x^2 + sqrt(y))/(", StringComparison.Ordinal),
            "all of it over a line"
        );
        browser.Press("leave-taken");
        browser.Until(() => browser.Count("[data-testid=selection]") == 0, "nothing selected");

        browser.Press("tool-text");
        var box = FormulaOn(browser).Bounds;
        PageHands.Press(browser, (box.Left + box.Right) / 2.0, (box.Top + box.Bottom) / 2.0);
        browser.Press("formula-taken");
        Assert.StartsWith("(x^2", browser.Css(Source).GetAttribute("value"), StringComparison.Ordinal);
        // Beside it a press begins a text, as ever.
        browser.Press("leave-taken");
        PageHands.Press(browser, box.Left, box.Bottom + 2_500);
        browser.Find("typing-field");
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public void Two_people_type_in_one_formula_at_once_and_without_a_connection()
    {
        var ines = OpenPage(Group.Writer);
        Put(ines);
        ines.Type("a + b");
        Until(ines, "a + b");
        ines.WaitForSync("All saved");
        var (maren, network) = Open(Group.Owner);
        maren.Go(PagePath);
        maren.WaitForStrokes(2);
        Take(maren);
        maren.Until(() => maren.Css(Source).GetAttribute("value") == "a + b", "what Ines typed");
        maren.SendKeys(Source, Keys.End, " + c");
        ines.SendKeys(Source, Keys.Home, "x + ");
        ines.Until(() => ines.Css(Source).GetAttribute("value") == "x + a + b + c", "both, for Ines");
        maren.Until(() => maren.Css(Source).GetAttribute("value") == "x + a + b + c", "both, for Maren");
        // Each goes on where each was, though letters came before that.
        maren.Type(" + d");
        ines.Until(() => ines.Css(Source).GetAttribute("value") == "x + a + b + c + d", "Maren at the end");
        ines.Type("y + ");
        maren.Until(() => maren.Css(Source).GetAttribute("value") == "x + y + a + b + c + d", "Ines where she was");

        network.Cut();
        maren.Type(" = 1");
        ines.Type("z + ");
        maren.Until(() => FormulaOn(maren, Group.Owner).Typed.Text.EndsWith("= 1", StringComparison.Ordinal), "typed without a connection");
        network.Mend();
        foreach (var (browser, who) in new[] { (ines, Group.Writer), (maren, Group.Owner) })
            browser.Until(() => FormulaOn(browser, who).Typed.Text == "x + y + z + a + b + c + d = 1", "all of it");
        Assert.Empty(ines.Errors());
        Assert.Empty(maren.Errors());
    }

    [Fact]
    public void What_was_being_typed_when_the_tab_was_closed_is_there_on_the_next_opening()
    {
        var browser = OpenPage(Group.Writer);
        Put(browser);
        browser.Type("E = m c^2");
        Until(browser, "E = mc^2");
        browser.WaitForSync("All saved");
        browser.SendKeys(Source, Keys.End, " + x");
        // No time to rest, and no farewell: the tab is gone.
        PageHands.LoseTab(browser);
        browser.Go(PagePath);
        browser.WaitForStrokes(2);
        browser.Until(() => FormulaOn(browser).Typed.Text == "E = m c^2 + x", "every letter");
    }

    private static void Put(Browser browser)
    {
        browser.Press("tool-put");
        browser.Press("put-formula");
        browser.Until(
            () => browser.Script("return document.activeElement?.dataset.testid") as string == "formula-source",
            "the field waits for letters"
        );
    }

    private void Take(Browser browser)
    {
        browser.Press("tool-text");
        var box = FormulaOn(browser, Group.Owner).Bounds;
        PageHands.Press(browser, (box.Left + box.Right) / 2.0, (box.Top + box.Bottom) / 2.0);
        browser.Press("formula-taken");
        browser.Find("formula-source");
    }

    private void Until(Browser browser, params string[] lines) =>
        browser.Until(() => FormulaOn(browser).Drawn.Lines.SequenceEqual(lines), string.Join(" / ", lines));

    private FormulaContent FormulaOn(Browser browser, Store.People.Person? person = null) =>
        (FormulaContent)PageOf(browser, person).Items.Single(item => item is { Shown: true, Kind: ItemKinds.Formula }).Content;
}
