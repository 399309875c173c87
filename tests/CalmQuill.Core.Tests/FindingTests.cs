using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Tables;
using CalmQuill.Core.Text;
using CalmQuill.Core.Writing;
using CsCheck;

namespace CalmQuill.Core.Tests;

/// <summary>Finding typed words on a page, and putting others in their place.</summary>
public sealed class FindingTests : OnPage
{
    [Theory]
    [InlineData("the Échappement", "echappement", false, "4-15")]
    [InlineData("the Échappement", "echappement", true, "")]
    [InlineData("aaa", "aa", false, "0-2")]
    [InlineData("the  two\twords", "the two words", false, "0-14")]
    [InlineData("one\ntwo", "one two", false, "")]
    [InlineData("Straße", "strasse", false, "0-6")]
    [InlineData("Straße", "stras", false, "")]
    [InlineData("ﬁsh", "ish", false, "")]
    [InlineData("e\u0301tude", "etude", false, "0-6")]
    [InlineData("x😀y", "😀", false, "1-3")]
    [InlineData("wheel", " ", false, "")]
    [InlineData("wheel", "", true, "")]
    public void Words_are_found_as_whole_letters_whatever_their_case_and_marks(string text, string sought, bool exact, string places) =>
        Assert.Equal(places, string.Join(' ', Finding.In(text, sought, exact).Select(place => $"{place.From}-{place.To}")));

    /// <summary>Against the framework's own search of characters.</summary>
    [Fact]
    public void Exactly_it_finds_what_an_ordinal_search_finds() =>
        Gen.Select(Gen.Int[0, 3].Array[0, 60], Gen.Int[0, 3].Array[1, 3])
            .Sample(
                (letters, sought) =>
                {
                    string text = Of(letters),
                        words = Of(sought);
                    var expected = new List<int>();
                    for (var at = text.IndexOf(words, StringComparison.Ordinal); at >= 0; )
                    {
                        expected.Add(at);
                        at = text.IndexOf(words, at + words.Length, StringComparison.Ordinal);
                    }

                    Assert.Equal(expected, Finding.In(text, words, true).Select(place => place.From));
                    static string Of(int[] some) => new([.. some.Select(one => "abAé"[one])]);
                },
                iter: 3_000
            );

    [Fact]
    public void What_is_found_is_told_from_the_top_of_the_page_down_also_in_cells_and_under_pictures()
    {
        var low = Put("the pallets", 9_000);
        var high = Put("Pallets, and pallets again", 3_000);
        var table = Do(
            Ines,
            new Change.ThingAdded(
                ThingKind.Table,
                Transform.Shift(1_000, 5_000),
                6_000,
                1_600,
                TableEdit.New(
                    [0, 0],
                    [0, 0],
                    edit =>
                        edit.Paste(
                            0,
                            0,
                            [
                                ["a", "pallets"],
                                ["pal", "lets"],
                            ]
                        )
                ),
                []
            )
        ).Id;
        var found = PageFinding.Find(Page, "PALLETS", false);
        Assert.Equal([high, high, table, low], found.Select(one => one.Item.Id));
        Assert.All(found, one => Assert.True(one.Item.Bounds.Grow(50).Meets(one.Box)));
        Assert.Single(PageFinding.Find(Page, "Pallets", true));
        Assert.Empty(PageFinding.Find(Page, "crutch", false));
    }

    [Fact]
    public void Other_words_take_their_place_look_as_they_did_and_leave_alone_what_others_type_meanwhile()
    {
        var text = Put("oil the wheel, the Wheel and no wheels", 3_000);
        var bold = Item(text).Typed.FormatOf(8, 5, Trait.Bold, "1");
        Do(Ines, new Change.TextTyped(text, new TextChange([], [], [bold])));
        var replacing = PageFinding.Replace(PageFinding.Find(Page, "wheel", false), "crutch");
        // Somebody types within one of them, and removes another, before that has come.
        var within = Item(text).Typed.InsertionAt(10, "X");
        var gone = Item(text).Typed.RemovalsOf(19, 5);
        Do(Tobias, new Change.TextTyped(text, new TextChange([within], gone, [])));
        Do(Ines, Assert.Single(replacing));
        Assert.Equal("oil the Xcrutch, the crutch and no crutchs", Item(text).Typed.Text);
        Assert.Equal(
            "crutch",
            Item(text).Typed.Spans().Where(span => span.Look[Trait.Bold] == "1").Select(span => span.Text.TrimStart('X')).Single()
        );
        UndoAll(Ines);
        Assert.Equal("oil the whXeel, the  and no wheels", Item(text).Typed.Text);
    }

    [Fact]
    public void What_is_locked_stays_and_nothing_takes_the_place_of_words_that_are_to_go()
    {
        var (locked, open) = (Put("the wheel", 3_000), Put("a wheel", 6_000));
        Do(Ines, new Change.ItemsSet([locked], [new ItemValue(ItemField.Locked, "1")]));
        var found = PageFinding.Find(Page, " wheel", false);
        Assert.Equal(2, found.Count);
        foreach (var change in PageFinding.Replace(found, ""))
            Do(Ines, change);
        Assert.Equal(("the wheel", "a "), (Item(locked).Typed.Text, Item(open).Typed.Text));
    }

    [Fact]
    public void Of_very_many_places_so_many_are_told()
    {
        Put(string.Concat(Enumerable.Repeat("ab ", 3 * PageFinding.Most)), 3_000);
        Assert.Equal(PageFinding.Most, PageFinding.Find(Page, "ab", false).Count);
    }

    private OpId Put(string text, int y) =>
        Do(Ines, new Change.TextAdded(Transform.Shift(2_000, y), 9_000, 0, new Passage(text, []), [])).Id;
}
