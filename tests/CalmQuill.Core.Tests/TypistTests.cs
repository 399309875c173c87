using CalmQuill.Core.Operations;
using CalmQuill.Core.Writing;

namespace CalmQuill.Core.Tests;

/// <summary>What keys do beyond typing letters.</summary>
public sealed class TypistTests
{
    private readonly TypedText text = new();
    private readonly Burst burst;
    private readonly Typist typist;

    public TypistTests()
    {
        burst = new Burst(text, new OpId(1, 1), Hlc.At(1));
        typist = new Typist(text, burst, new Dictionary<Trait, string>());
    }

    [Theory]
    [InlineData("-", "bullet")]
    [InlineData("*", "bullet")]
    [InlineData("1.", "number")]
    [InlineData("[ ]", "tick")]
    [InlineData("[]", "tick")]
    [InlineData("2.", "")]
    [InlineData("a -", "")]
    public void A_sign_and_a_space_begin_a_list(string sign, string list)
    {
        var caret = 0;
        foreach (var letter in sign + " oil")
            caret = typist.Type(caret, caret, letter.ToString());
        Assert.Equal(list, text.Paragraphs().Single().Look[Trait.List]);
        Assert.Equal(list.Length > 0 ? "oil" : sign + " oil", text.Text);
        Assert.Equal(text.Length, caret);
        // In a list the same sign is a sign.
        if (list.Length > 0)
        {
            typist.Type(0, 0, "-");
            typist.Type(1, 1, " ");
            Assert.Equal("- oil", text.Text);
        }
    }

    [Fact]
    public void A_list_goes_on_with_each_paragraph_and_ends_with_an_empty_one()
    {
        typist.Type(0, 0, "-");
        typist.Type(1, 1, " ");
        var caret = typist.Type(0, 0, "crutch");
        caret = typist.Enter(caret, caret);
        Assert.Equal(["bullet", "bullet"], Looks(Trait.List));
        Assert.Equal(caret, typist.Enter(caret, caret));
        Assert.Equal(["bullet", ""], Looks(Trait.List));
        // The next one is none either; and what was typed is no more than that.
        caret = typist.Type(caret, caret, "then");
        typist.Enter(caret, caret);
        Assert.Equal(["bullet", "", ""], Looks(Trait.List));
        Assert.Equal("crutch\nthen\n", text.Text);
    }

    [Fact]
    public void Behind_a_heading_goes_on_what_is_none_and_parted_in_its_middle_it_is_two()
    {
        var caret = typist.Type(0, 0, "Beat error");
        typist.Format(0, caret, Trait.Style, "heading");
        caret = typist.Enter(caret, caret);
        typist.Type(caret, caret, "is heard");
        Assert.Equal(["heading", ""], Looks(Trait.Style));
        typist.Enter(4, 4);
        Assert.Equal(["heading", "heading", ""], Looks(Trait.Style));
    }

    [Fact]
    public void A_new_box_below_a_ticked_one_is_empty()
    {
        var caret = typist.Type(0, 0, "oil");
        typist.Format(0, 3, Trait.List, "tick");
        typist.Format(0, 3, Trait.Ticked, "1");
        caret = typist.Enter(caret, caret);
        typist.Type(caret, caret, "wind");
        Assert.Equal(["1", ""], Looks(Trait.Ticked));
        Assert.Equal(["tick", "tick"], Looks(Trait.List));
    }

    [Fact]
    public void Removing_backwards_at_the_beginning_first_takes_the_list_away_and_then_the_steps_in()
    {
        var caret = typist.Type(0, 0, "oil");
        typist.Format(0, 3, Trait.List, "number");
        Assert.Null(typist.Tab(caret, caret, 1));
        Assert.Equal(["1"], Looks(Trait.Indent));
        Assert.False(typist.Back(2));
        Assert.True(typist.Back(0));
        Assert.Equal([""], Looks(Trait.List));
        Assert.True(typist.Back(0));
        Assert.Equal([""], Looks(Trait.Indent));
        Assert.False(typist.Back(0));
    }

    [Fact]
    public void A_tab_is_a_tab_but_in_lists_and_over_several_paragraphs()
    {
        Assert.Equal(1, typist.Tab(0, 0, 1));
        Assert.Equal("\t", text.Text);
        typist.Type(0, 1, "a\nb\nc");
        Assert.Null(typist.Tab(0, 3, 1));
        Assert.Equal(["1", "1", ""], Looks(Trait.Indent));
        for (var i = 0; i < 12; i++)
            typist.Tab(0, 3, 1);
        Assert.Equal(["8", "8", ""], Looks(Trait.Indent));
        for (var i = 0; i < 12; i++)
            typist.Tab(0, 5, -1);
        Assert.Equal(["", "", ""], Looks(Trait.Indent));
    }

    [Fact]
    public void What_is_said_where_nothing_is_selected_is_of_what_is_typed_next()
    {
        var caret = typist.Type(0, 0, "a ");
        typist.Format(caret, caret, Trait.Bold, "1");
        Assert.Equal("1", typist.Standing(caret, caret, Trait.Bold));
        caret = typist.Type(caret, caret, "b");
        caret = typist.Type(caret, caret, "c");
        typist.Format(caret, caret, Trait.Bold, "");
        typist.Type(caret, caret, " d");
        Assert.Equal([("a ", ""), ("bc", "1"), (" d", "")], text.Spans().Select(span => (span.Text, span.Look[Trait.Bold])));
        Assert.Null(typist.Standing(0, 4, Trait.Bold));
        Assert.Equal("1", typist.Standing(2, 4, Trait.Bold));
        Assert.Equal("1", typist.Standing(4, 4, Trait.Bold));
        Assert.Equal("", typist.Standing(0, 0, Trait.Bold));
    }

    [Fact]
    public void A_passage_that_is_pasted_keeps_its_paragraphs_and_its_end_becomes_part_of_what_is_there()
    {
        var passage = new Passage(
            "Tools\nloupe\npeg wood",
            [
                new PassageFormat(0, 6, Trait.Style, "heading"),
                new PassageFormat(6, 12, Trait.List, "bullet"),
                new PassageFormat(12, 21, Trait.List, "bullet"),
                new PassageFormat(12, 15, Trait.Bold, "1"),
            ]
        );
        // Into an empty text all of it is as it was.
        Assert.Equal(20, typist.Paste(0, 0, passage));
        Assert.Equal(["heading", "", ""], Looks(Trait.Style));
        Assert.Equal(["", "bullet", "bullet"], Looks(Trait.List));
        Assert.Equal(["peg"], text.Spans().Where(span => span.Look[Trait.Bold] == "1").Select(span => span.Text));
        // In the middle of a paragraph its beginning goes to what is before, its end to what is behind.
        typist.Paste(2, 4, new Passage("x\ny", [new PassageFormat(2, 4, Trait.List, "tick")]));
        Assert.Equal("Tox\nys\nloupe\npeg wood", text.Text);
        Assert.Equal(["", "", "bullet", "bullet"], Looks(Trait.List));
        Assert.Equal(["heading", "heading", "", ""], Looks(Trait.Style));
        // An empty one only removes.
        Assert.Equal(0, typist.Paste(0, 3, new Passage("", [])));
        Assert.StartsWith("\nys", text.Text, StringComparison.Ordinal);
    }

    [Fact]
    public void All_of_it_is_one_operation_that_does_the_same_to_another_text()
    {
        typist.Type(0, 0, "-");
        typist.Type(1, 1, " ");
        var caret = typist.Type(0, 0, "crutch 😀");
        typist.Format(0, 3, Trait.Bold, "1");
        caret = typist.Enter(caret, caret);
        typist.Type(caret, caret, "x");
        typist.Type(2, 4, "");
        var spans = text.Spans();
        var finished = burst.Finished;
        burst.End();
        Assert.Equal(0, text.Length);
        foreach (var id in new[] { new OpId(9, 4), new OpId(1, 77) })
        {
            var other = new TypedText();
            other.Take(id, new Stamp(Hlc.At(7), id), finished);
            Assert.Equal(spans, other.Spans());
        }
    }

    private IEnumerable<string> Looks(Trait trait) => text.Paragraphs().Select(paragraph => paragraph.Look[trait]);
}
