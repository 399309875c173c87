using CalmQuill.Core.Bringing;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Library;
using CalmQuill.Core.Notebooks;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Papers;
using CalmQuill.Core.Pictures;
using CalmQuill.Testing;
using CsCheck;

namespace CalmQuill.Core.Tests;

/// <summary>The pages of files, laid on sheets, and what becomes of a file's bookmarks.</summary>
public sealed class BringingTests
{
    private static readonly Guid File = Guid.Parse("8f4b5a10-0000-8000-8000-000000000001");

    private static readonly Gen<Leaf> AnyLeaf = Gen.Select(
        Gen.Double[0.1, 9_000],
        Gen.Double[0.1, 9_000],
        Gen.Int[0, 3],
        Gen.Int[1, 900],
        (width, height, turn, number) => Leaf.OfPage(File, number, width, height, turn)
    );

    [Theory]
    [InlineData(595.276, 841.89, "a4-blank-710")]
    [InlineData(842, 595, "a4.across-blank-710")]
    [InlineData(612, 792, "letter-blank-710")]
    [InlineData(720, 540, "25400x19050-blank-710")]
    [InlineData(0, 0, "a4-blank-710")]
    [InlineData(-4, double.NaN, "a4-blank-710")]
    [InlineData(1e300, 1e300, "200000x200000-blank-710")]
    // 20 m by 10 m, a line, and a stamp: as near as a sheet comes, in their proportions where there is such a sheet.
    [InlineData(56_693, 28_346, "200000x99998-blank-710")]
    [InlineData(3_000, 0.001, "200000x2000-blank-710")]
    [InlineData(10, 20, "2000x4000-blank-710")]
    public void A_page_becomes_a_sheet_of_its_own_size(double width, double height, string paper)
    {
        var sheet = Imposition.Of([Leaf.OfPage(File, 1, width, height, 0)], Laying.Whole).Single();
        Assert.Equal(paper, sheet.Paper.ToString());
        Assert.NotNull(PaperText.Read(paper).Paper);
    }

    [Fact]
    public void Every_leaf_lies_once_in_its_order_on_its_sheet_beside_the_others_and_keeps_its_proportions() =>
        Gen.Select(AnyLeaf.Array[0, 30], Gen.Enum<Laying>())
            .Sample(
                (leaves, laying) =>
                {
                    var sheets = Imposition.Of(leaves, laying);
                    Assert.Equal(leaves, sheets.SelectMany(sheet => sheet.Leaves).Select(laid => laid.Leaf));
                    foreach (var sheet in sheets)
                    {
                        Assert.True(PaperText.Read(sheet.Paper.ToString()).Paper == sheet.Paper);
                        foreach (var (laid, i) in sheet.Leaves.Select((laid, i) => (laid, i)))
                        {
                            var (left, top, right, bottom) = laid.Lies;
                            // A sheet of a named size may be a hand's breadth of a point smaller.
                            Assert.True(left >= 0 && top >= 0 && right <= sheet.Paper.Width + 18 && bottom <= sheet.Paper.Height + 18);
                            Assert.True(right > left && bottom > top);
                            var share = (right - left) / (double)laid.Leaf.LaidWidth;
                            Assert.InRange(
                                laid.Leaf.LaidHeight * share - (bottom - top),
                                -share * 2 - 1.5 * laid.Leaf.LaidHeight / laid.Leaf.LaidWidth - 1,
                                share * 2 + 1.5 * laid.Leaf.LaidHeight / laid.Leaf.LaidWidth + 1
                            );
                            Assert.DoesNotContain(sheet.Leaves.Skip(i + 1), other => other.Lies.Overlaps(laid.Lies));
                        }
                    }
                }
            );

    [Theory]
    [InlineData(Laying.Two, 3, 2)]
    [InlineData(Laying.Four, 8, 2)]
    [InlineData(Laying.Six, 13, 3)]
    [InlineData(Laying.Together, 41, 2)]
    [InlineData(Laying.Below, 2, 2)]
    public void So_many_go_on_a_sheet_and_lines_lie_beside_several(Laying laying, int leaves, int sheets)
    {
        var slides = Enumerable.Range(1, leaves).Select(number => Leaf.OfPage(File, number, 720, 540, 0)).ToList();
        var laid = Imposition.Of(slides, laying);
        Assert.Equal(sheets, laid.Count);
        if ((int)laying < 2)
            return;
        // The lines begin beyond what lies at the left, and there is room for a hand.
        var (paper, first) = (laid[0].Paper, laid[0].Leaves.Max(leaf => leaf.Lies.Right));
        Assert.Equal("beside", paper.Design.Name);
        Assert.True(paper.Margin > first);
        Assert.True(paper.Width - paper.Margin > 5_000);
        var lines = paper.Draw(new Box(0, 0, paper.Width, paper.Height)).Pieces;
        Assert.NotEmpty(lines);
    }

    [Fact]
    public void Room_for_a_question_lies_above()
    {
        var sheet = Imposition.Of([Leaf.OfPage(File, 1, 720, 540, 0)], Laying.Below).Single();
        Assert.Equal((25_400, 26_670), (sheet.Paper.Width, sheet.Paper.Height));
        Assert.Equal(new Box(0, 7_620, 25_400, 26_670), sheet.Leaves.Single().Lies);
    }

    [Theory]
    [InlineData(0, 0, 0)]
    [InlineData(1, 1, 0)]
    [InlineData(2, 1, 1)]
    [InlineData(3, 0, 1)]
    public void Turned_to_the_right_its_upper_left_corner_goes_round(int turn, int x, int y)
    {
        var laid = Imposition.Of([Leaf.OfPage(File, 1, 720, 540, turn)], Laying.Whole).Single().Leaves.Single();
        var (left, top) = laid.Place.Of(0, 0);
        Assert.Equal((x * laid.Lies.Right, y * laid.Lies.Bottom), ((int)Math.Round(left), (int)Math.Round(top)));
        // The opposite corner goes opposite, and nothing is mirrored.
        var (right, bottom) = laid.Place.Of(laid.Leaf.Width, laid.Leaf.Height);
        Assert.Equal(((1 - x) * laid.Lies.Right, (1 - y) * laid.Lies.Bottom), ((int)Math.Round(right), (int)Math.Round(bottom)));
        Assert.True(laid.Place.A * laid.Place.D - laid.Place.B * laid.Place.C > 0);
    }

    [Fact]
    public void What_is_laid_on_a_page_is_locked_shows_its_leaf_and_keeps_its_own_tones()
    {
        var sheet = Imposition.Of([Leaf.OfPage(File, 7, 720, 540, 1)], Laying.Whole).Single();
        var page = new PageDocument();
        var device = new Replica(1, Generate.People[0]);
        foreach (var operation in sheet.Operations(device, 1))
        {
            Assert.Null(
                OperationRules.Check(
                    operation with
                    {
                        Id = new OpId(device.Id, 1),
                        Time = default,
                    },
                    DocumentKind.Page,
                    Access.Role.Writer,
                    device.Author,
                    0
                )
            );
            page.Apply(operation);
        }

        var item = page.Items.Single();
        var content = Assert.IsType<PictureContent>(item.Content);
        Assert.True(item.IsLocked);
        Assert.Equal((File, 7), (content.Shown.Asset, content.Shown.Leaf));
        Assert.Equal(new Box(0, 0, 19_050, 25_400), item.Bounds);
        // Nothing takes it along, and it is taken back in one step.
        Assert.False(item.IsOpen);
        foreach (var change in page.Undo(device.Author).ToList())
            page.Apply(device.Make(change, 2));
        Assert.False(item.Shown);
        Assert.Empty(page.Undo(device.Author));
        foreach (var change in page.Redo(device.Author).ToList())
            page.Apply(device.Make(change, 2));
        Assert.True(item is { Shown: true, IsLocked: true });
        // A printed page is shown as its file has it.
        page.Apply(device.Make(new Change.ItemsSet([item.Id], [new ItemValue(ItemField.Contrast, "80")]), 2));
        Assert.True(content.Shown.Tones.IsPlain);
        Assert.Contains(File, Assets.NamedAssets.In(page.Operations()));
    }

    [Theory]
    [InlineData("0")]
    [InlineData("-1")]
    [InlineData("10001")]
    [InlineData("one")]
    public void No_such_page_of_a_file_is_written(string leaf) =>
        Assert.NotNull(ItemRules.Check(new Change.ItemsSet([new OpId(1, 1)], [new ItemValue(ItemField.Leaf, leaf)])));

    [Fact]
    public void Bookmarks_become_sections_and_titles()
    {
        var chapters = Chapters.Of(
            [
                new(0, "Title", 0),
                new(0, "  The\tanchor \u00A0 ", 1),
                new(1, "Pallets", 1),
                new(1, "Recoil", 3),
                new(0, "Dead beat", 4),
                // Leads back, nowhere, and says nothing.
                new(0, "Back", 2),
                new(0, "Beyond", 99),
                new(0, " ", 5),
                new(0, "Last", 6),
            ],
            7
        );
        Assert.Equal(
            [("The anchor", -1, 1, 4), ("Pallets", 0, 1, 3), ("Dead beat", -1, 4, 6)],
            chapters.Sections.Select(section => (section.Title, section.Parent, section.First, section.End))
        );
        Assert.Equal(["Title", "", "", "Recoil", "", "", "Last"], chapters.Titles);
        Assert.Equal([-1, 1, 1, 0, 2, 2, -1], chapters.In);
    }

    [Fact]
    public void Whatever_bookmarks_say_every_sheet_lies_in_one_section_and_sections_lie_in_each_other() =>
        Gen.Select(
                Gen.Select(
                    Gen.Int[-2, 12],
                    Gen.String[Gen.Char["ab \u0000"], 0, 3],
                    Gen.Int[-2, 14],
                    (level, title, sheet) => new Bookmark(level, title, sheet)
                ).Array[0, 40],
                Gen.Int[0, 12]
            )
            .Sample(
                (bookmarks, sheets) =>
                {
                    var chapters = Chapters.Of(bookmarks, sheets);
                    Assert.Equal((sheets, sheets), (chapters.Titles.Count, chapters.In.Count));
                    for (var i = 0; i < chapters.Sections.Count; i++)
                    {
                        var section = chapters.Sections[i];
                        Assert.True(0 <= section.First && section.First < section.End && section.End <= sheets && section.Parent < i);
                        if (section.Parent >= 0)
                        {
                            var outer = chapters.Sections[section.Parent];
                            Assert.True(outer.First <= section.First && section.End <= outer.End);
                        }
                    }

                    // The innermost that holds a sheet is the last that does.
                    for (var sheet = 0; sheet < sheets; sheet++)
                    {
                        var holding = chapters.Sections.ToList().FindLastIndex(section => section.First <= sheet && sheet < section.End);
                        Assert.Equal(holding, chapters.In[sheet]);
                    }
                }
            );

    [Theory]
    [InlineData("3-5, 9", new[] { 3, 4, 5, 9 })]
    [InlineData("9 – 7;1,1", new[] { 1, 7, 8, 9 })]
    [InlineData(" 2 ", new[] { 2 })]
    [InlineData("8-2000000000", new[] { 8, 9, 10 })]
    public void Pages_are_written_as_people_write_them(string text, int[] pages)
    {
        var read = PageRange.Read(text, 10);
        Assert.Null(read.Problem);
        Assert.Equal(pages, read.Pages);
    }

    [Theory]
    [InlineData("")]
    [InlineData("all")]
    [InlineData("1-2-3")]
    [InlineData("-3")]
    [InlineData("0")]
    [InlineData("11")]
    [InlineData("99999999999")]
    public void What_names_no_page_says_so(string text) => Assert.NotNull(PageRange.Read(text, 10).Problem);

    [Fact]
    public void Pages_that_were_written_down_are_read_as_they_were() =>
        Gen.Int[1, 60]
            .HashSet[1, 40]
            .Sample(set =>
            {
                var pages = set.Order().ToList();
                Assert.Equal(pages, PageRange.Read(PageRange.Write(pages), 60).Pages);
            });

    [Fact]
    public void A_title_is_a_name_that_may_be_or_none() =>
        Gen.Select(
                Gen.String,
                Gen.Bool,
                (text, hides) => text + (hides ? "\u202Ea\u200B\u0000\u2029" : "") + new string('x', 198) + "🔔🔔🔔"
            )
            .Sample(text =>
            {
                var title = Chapters.Cleaned(text);
                Assert.True(title.Length == 0 || Names.Problem(title) is null);
            });

    [Theory]
    [InlineData(" \u00A0\t ", "")]
    [InlineData("\u202Efdp.exe", "fdp.exe")]
    [InlineData("The\nanchor\r\n escapement", "The anchor escapement")]
    public void A_title_of_a_file_is_one_line_that_hides_nothing(string given, string title) =>
        Assert.Equal(title, Chapters.Cleaned(given));

    [Fact]
    public void Five_hundred_pages_come_between_two_in_one_step_that_is_taken_back_as_one()
    {
        var (notebook, device) = (new NotebookDocument(), new Replica(3, Generate.People[0]));
        void Do(IEnumerable<Change> changes)
        {
            foreach (var change in changes)
                notebook.Apply(device.Make(change, 1));
        }

        var (first, last) = (Guid.NewGuid(), Guid.NewGuid());
        Do([new Change.NodePlaced(first, NodeKind.Page, Guid.Empty, "V"), new Change.NodePlaced(last, NodeKind.Page, Guid.Empty, "V1")]);
        var sheets = Imposition.Of([.. Enumerable.Range(1, 500).Select(number => Leaf.OfPage(File, number, 720, 540, 0))], Laying.Whole);
        var chapters = Chapters.Of([new(0, "One", 10), new(1, "Inner", 20), new(0, "Two", 400)], 500);
        var brought = BroughtPages.Of(sheets, chapters, Guid.Empty, "V", "V1", device.Id, Guid.NewGuid);
        foreach (var change in brought.Notebook)
            Assert.Null(
                OperationRules.Check(
                    new Operation(new OpId(device.Id, 1), default, device.Author, change),
                    DocumentKind.Notebook,
                    Access.Role.Writer,
                    device.Author,
                    0
                )
            );
        Do(brought.Notebook);

        var outline = notebook.Outline();
        Assert.Equal((first, last), (outline[0].Id, outline[^1].Id));
        Assert.Equal(
            [first, .. brought.Pages.Select(page => page.Page), last],
            outline.Where(entry => entry.Kind == NodeKind.Page).Select(entry => entry.Id)
        );
        Assert.Equal(["One", "Inner", "Two"], outline.Where(entry => entry.Kind == NodeKind.Section).Select(entry => entry.Title));
        Assert.Equal("25400x19050-blank-710", outline[5].Paper);
        Assert.All(brought.Notebook.OfType<Change.NodePlaced>(), placed => Assert.True(Ordering.OrderKey.IsValid(placed.Order)));
        Assert.Equal(
            sheets.Select(sheet => sheet.Leaves[0].Leaf.Number),
            brought.Pages.Select(page => page.Sheet.Leaves.Single().Leaf.Number)
        );
    }
}
