using CalmQuill.Core.Assets;
using CalmQuill.Core.Items;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Writing;

namespace CalmQuill.Core.Tests;

/// <summary>Files that are kept with a page.</summary>
public sealed class FileTests : OnPage
{
    private const string Asset = "0d4d1f6e-2b0a-8c11-9f00-6f2f1d0a7b11";

    [Theory]
    [InlineData("count.ods", true)]
    [InlineData("Gehäuse, Maße.dxf", true)]
    [InlineData("", false)]
    [InlineData("   ", false)]
    [InlineData("../count.ods", false)]
    [InlineData("a\\b", false)]
    [InlineData("a\nb", false)]
    public void Names_lead_nowhere_and_can_be_read(string name, bool may)
    {
        Assert.Equal(may, FileContent.IsName(name));
        Assert.Equal(
            may,
            ItemRules.Check(new Change.ItemsSet([new OpId(1, 1)], [new ItemValue(ItemField.FileName, name)])) is null && name.Length > 0
        );
        // Whatever it was called where it came from, it can be kept.
        Assert.True(FileContent.IsName(FileContent.NameOf(name)));
    }

    [Fact]
    public void A_long_name_is_cut_without_half_a_sign()
    {
        var name = FileContent.NameOf(new string('x', 199) + "😀.pdf");
        Assert.Equal(200, name.Length);
        Assert.DoesNotContain(name, char.IsSurrogate);
        Assert.True(FileContent.IsName(name));
    }

    [Theory]
    [InlineData(0, "0 B")]
    [InlineData(999, "999 B")]
    [InlineData(1_000, "1 kB")]
    [InlineData(1_250_000, "1.3 MB")]
    [InlineData(67_108_864, "67.1 MB")]
    public void How_large_it_is_is_told_in_words(int bytes, string words) => Assert.Equal(words, FileContent.SizeOf(bytes));

    [Theory]
    [InlineData(6_500)]
    [InlineData(3_000)]
    [InlineData(1_200)]
    public void What_stands_on_its_card_has_room_on_it_however_long_its_name_is(int width)
    {
        foreach (
            var name in new[]
            {
                "a.pdf",
                string.Concat(Enumerable.Repeat("beat error of the wall clock ", 6)) + ".csv",
                "no point in it at all, and long",
                ".hidden",
            }
        )
        {
            var content = (FileContent)Item(Lay(name, width)).Content;
            var texts = content.Texts(true);
            Assert.InRange(texts.Count, 2, 3);
            foreach (var (set, place, _) in texts)
            {
                var line = set.Paragraphs[0].Paragraph.Lines[0];
                Assert.True(place.E >= 1_000);
                // The least that is left of a name is the sign of what is left out, and its kind.
                if (width > 2_000)
                    Assert.True(place.E + line.Width / (double)Typesetting.Lengths.PerUnit <= 1_000 + width, $"{name} in {width}");
            }
        }
    }

    [Fact]
    public void It_names_its_file_is_found_by_its_name_and_is_copied_with_both()
    {
        var file = Lay("wheel count.ods", FileContent.UsualWidth);
        Assert.Equal([Guid.Parse(Asset)], NamedAssets.In(Page.Operations()));
        Assert.Equal("wheel count.ods", Item(file).Content.Words);
        Do(Tobias, new Change.TextTyped(file, new TextChange([new Insertion(LetterId.Start, false, "as counted")], [], [])));
        Assert.Equal("wheel count.ods\nas counted", Item(file).Content.Words);
        Do(Ines, new Change.ItemsSet([file], [new ItemValue(ItemField.FileName, "count.ods")]));
        var copy = (FileContent)Item(Do(Ines, Item(file).Content.Copy()).Id).Content;
        Assert.Equal(("count.ods", Guid.Parse(Asset), 1_234), (copy.Name, copy.Asset, copy.Size));
        Assert.Equal("count.ods\nas counted", copy.Words);
        var pass = new EraserPass(Page, 100, true);
        pass.MoveTo(1_500, 1_500);
        Assert.Null(pass.End());
    }

    [Fact]
    public void Without_a_file_or_a_name_it_is_refused()
    {
        Assert.NotNull(Added("wheel.ods", 6_500, ItemField.FileName).Check());
        Assert.NotNull(Added("wheel.ods", 6_500, ItemField.Source).Check());
        Assert.Null(Added("wheel.ods", 6_500, ItemField.FileSize).Check());
    }

    private OpId Lay(string name, int width) => Do(Ines, Added(name, width)).Id;

    private static Change.ThingAdded Added(string name, int width, ItemField without = default) =>
        new(
            ThingKind.File,
            CalmQuill.Core.Ink.Transform.Shift(1_000, 1_000),
            width,
            FileContent.UsualHeight,
            new Passage("", []),
            [
                .. new ItemValue[] { new(ItemField.Source, Asset), new(ItemField.FileName, name), new(ItemField.FileSize, "1234") }.Where(
                    value => value.Field != without
                ),
            ]
        );
}
