using CalmQuill.Core.Formulas;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Writing;
using CalmQuill.Testing;

namespace CalmQuill.Core.Tests;

/// <summary>Formulas as things on a page.</summary>
public sealed class FormulaContentTests : OnPage
{
    [Fact]
    public void What_comes_out_follows_what_is_typed_and_undo_takes_it_back()
    {
        var formula = Lay("2x + 3 = 7", "solve");
        Assert.Equal(["2x + 3 = 7", "x = 2"], Drawn(formula).Lines);
        Type(Ines, formula, 0, 1, "4");
        Assert.Equal(["4x + 3 = 7", "x = 1"], Drawn(formula).Lines);
        Set(Tobias, formula, ItemField.Shows, "solve steps");
        Assert.Equal(["4x + 3 = 7   | −3", "4x = 4   | :4", "x = 1"], Drawn(formula).Lines);
        UndoAll(Ines);
        Assert.Equal("2x + 3 = 7   | −3", Drawn(formula).Lines[0]);
    }

    [Fact]
    public void Two_people_type_in_one_at_once_and_both_keep_what_they_typed()
    {
        var formula = Lay("a = b", "");
        var typed = Item(formula).Typed;
        var ines = new TextChange([typed.InsertionAt(0, "x + ")], [], []);
        var tobias = new TextChange([typed.InsertionAt(5, " / c")], [], []);
        Do(Ines, new Change.TextTyped(formula, ines));
        Do(Tobias, new Change.TextTyped(formula, tobias));
        Assert.Equal("x + a = b / c", Content(formula).Typed.Text);
        Assert.Equal(["x + a = b/c"], Drawn(formula).Lines);
    }

    [Fact]
    public void It_is_worked_out_for_the_letter_that_is_asked_for()
    {
        var formula = Lay("T = 2 pi sqrt(L/g)", "solve");
        Assert.Equal(["L", "T", "g"], Drawn(formula).Letters);
        Assert.Equal("L", Drawn(formula).For);
        Set(Ines, formula, ItemField.Letter, "g");
        Assert.Equal("g = (4π^2L)/T^2", Drawn(formula).Lines[^1]);
        // One that is not in it is passed over.
        Set(Ines, formula, ItemField.Letter, "q");
        Assert.Equal("L", Drawn(formula).For);
        Set(Ines, formula, ItemField.Shows, "derive");
        Assert.Equal(["L", "g"], Drawn(formula).Letters);
    }

    [Fact]
    public void Angles_are_in_degrees_where_that_is_said()
    {
        var formula = Lay("sin 30", "value degrees");
        Assert.Equal(["sin 30 = 1/2 = 0.5"], Drawn(formula).Lines);
        Set(Ines, formula, ItemField.Shows, "value");
        Assert.Equal(["sin 30 ≈ −0.988032"], Drawn(formula).Lines);
    }

    [Theory]
    [InlineData("sin(", "not closed")]
    [InlineData("1/0", "divided by 0")]
    [InlineData("2 m + 1 s", "cannot be added")]
    public void What_is_wrong_is_told_beside_it_and_what_was_typed_stays(string typed, string told)
    {
        var formula = Lay(typed, "value");
        Assert.Contains(told, Drawn(formula).Problem!.English, StringComparison.Ordinal);
        Assert.Equal(typed, Content(formula).Typed.Text);
        Assert.NotEmpty(Item(formula).Visible());
    }

    [Fact]
    public void What_is_too_long_or_too_deep_is_shown_as_it_was_typed_and_so_are_no_more_lines_than_have_room()
    {
        var deep = Lay(new string('(', 10_000), "value");
        Assert.Contains("at most 1000", Drawn(deep).Problem!.English, StringComparison.Ordinal);
        Assert.StartsWith("((((", Drawn(deep).Lines[0], StringComparison.Ordinal);
        Assert.Equal(10_000, Content(deep).Typed.Length);
        var nested = Lay(new string('(', 400) + "x", "solve steps");
        Assert.Contains("deep", Drawn(nested).Problem!.English, StringComparison.Ordinal);
        var many = Lay(string.Join('\n', Enumerable.Repeat("x = 1", 500)), "");
        Assert.Equal(DrawnFormula.MostLines, Drawn(many).Lines.Count);
        Assert.Contains("40 lines", Drawn(many).Problem!.English, StringComparison.Ordinal);
    }

    [Fact]
    public void It_is_found_by_what_was_typed_and_something_else_is_put_in_its_place()
    {
        var formula = Lay("T = 2 pi sqrt(L/g)", "");
        var found = Assert.Single(PageFinding.Find(Page, "sqrt", false));
        Assert.True(Inside(found.Box, Content(formula).Bounds));
        foreach (var change in PageFinding.Replace([found], "cbrt"))
            Do(Ines, change);
        Assert.Equal("T = 2 pi cbrt(L/g)", Content(formula).Typed.Text);

        static bool Inside(Box inner, Box outer) =>
            inner.Left >= outer.Left - 200
            && inner.Right <= outer.Right + 200
            && inner.Top >= outer.Top - 200
            && inner.Bottom <= outer.Bottom + 200;
    }

    [Fact]
    public void A_copy_says_the_same_and_lies_where_the_first_one_was_put()
    {
        var formula = Lay("x^2 = 2", "solve steps");
        Do(Ines, new Change.ItemsTransformed([formula], [], Transform.Scale(2, 1_000, 1_000)));
        Set(Ines, formula, ItemField.Colour, "b4533cff");
        var copy = Do(Tobias, Content(formula).Copy().Copied(500, 0)).Id;
        Assert.Equal(Drawn(formula).Lines, Drawn(copy).Lines);
        Assert.Equal(0xB4533CFFu, Content(copy).Colour);
        Assert.Equal(Content(formula).Bounds.Shift(500, 0), Content(copy).Bounds);
    }

    [Fact]
    public void An_empty_one_is_seen_so_that_it_is_found_again()
    {
        var formula = Lay("", "value");
        Assert.NotEmpty(Item(formula).Visible());
        Assert.Empty(Content(formula).Texts(true));
        Assert.Equal(1, Content(formula).Coats);
        Assert.Empty(PageFinding.Find(Page, "x", false));
        Type(Ines, formula, 0, 0, "x");
        Assert.NotEmpty(Content(formula).Texts(true));
    }

    /// <summary>Nothing of it is paper: what is written over it stays where it is when it is moved.</summary>
    [Fact]
    public void Ink_beside_it_does_not_go_along()
    {
        var formula = Lay("x", "");
        var line = Line(1_500, 1_500, 1_700, 1_700);
        Assert.False(Content(formula).Covers);
        Do(Ines, new Change.ItemsShifted([formula], 5_000, 0));
        Assert.Equal(0, Item(line).Dx);
    }

    [Theory]
    [InlineData(ItemField.Shows, "solve steps", true)]
    [InlineData(ItemField.Shows, "guess", false)]
    [InlineData(ItemField.Letter, "v_max", true)]
    [InlineData(ItemField.Letter, "a\nb", false)]
    [InlineData(ItemField.Letter, "abcdefghijklmnopqrstu", false)]
    public void Only_what_is_known_is_said_of_it(ItemField field, string value, bool isTaken)
    {
        var set = new Change.ItemsSet([new OpId(1, 1)], [new ItemValue(field, value)]);
        Assert.Equal(isTaken, ItemRules.Check(set) is null);
    }

    private OpId Lay(string typed, string shows) =>
        Do(
            Ines,
            new Change.ThingAdded(
                ThingKind.Formula,
                Transform.Shift(1_500, 1_500),
                100,
                100,
                new Passage(typed, []),
                shows.Length > 0 ? [new ItemValue(ItemField.Shows, shows)] : []
            )
        ).Id;

    private void Set(Replica device, OpId item, ItemField field, string value) =>
        Do(device, new Change.ItemsSet([item], [new ItemValue(field, value)]));

    private void Type(Replica device, OpId item, int from, int to, string letters)
    {
        var typed = Item(item).Typed;
        Do(
            device,
            new Change.TextTyped(item, new TextChange([typed.InsertionAt(to, letters)], [.. typed.RemovalsOf(from, to - from)], []))
        );
    }

    private FormulaContent Content(OpId id) => (FormulaContent)Item(id).Content;

    private DrawnFormula Drawn(OpId id) => Content(id).Drawn;
}
