using CalmQuill.Core.Assets;
using CalmQuill.Core.Changing;
using CalmQuill.Core.History;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Pictures;
using CalmQuill.Core.Writing;
using CsCheck;

namespace CalmQuill.Core.Tests;

/// <summary>Pictures as things on a page: where they reach, how they are cut and look, and what lies above and below them.</summary>
public sealed class PictureTests : OnPage
{
    private static readonly Guid Photo = Guid.Parse("8f14e45f-ceea-867a-9a36-dedd4bea2543");
    private static readonly Pen Marker = new(PenKind.Highlighter, 400, 0xE3B23C80);

    [Fact]
    public void It_reaches_as_far_as_what_is_shown_of_it_and_a_cut_loses_nothing()
    {
        var picture = Lay(2_000, 3_000, 6_000, 4_000);
        Assert.Equal(new Box(2_000, 3_000, 8_000, 7_000), Item(picture).Bounds);
        Set(picture, ItemField.Cut, "0,0 5000,0 5000,5000 0,5000");
        Assert.Equal(new Box(2_000, 3_000, 5_000, 5_000), Item(picture).Bounds);
        Assert.Empty(Selecting.At(Page, 7_000, 6_000, 0, ItemFilter.All));
        // A free loop is hit only within it.
        Set(picture, ItemField.Cut, "0,0 10000,0 0,10000");
        Assert.Equal(picture, Assert.Single(Selecting.At(Page, 2_500, 3_500, 0, ItemFilter.All)).Id);
        Assert.Empty(Selecting.At(Page, 7_800, 6_800, 0, ItemFilter.All));
        Set(picture, ItemField.Cut, PictureCut.Whole.ToText());
        Assert.Equal(new Box(2_000, 3_000, 8_000, 7_000), Item(picture).Bounds);
        Assert.True(Content(picture).Shown.Cut.IsWhole);
    }

    [Fact]
    public void It_is_moved_scaled_on_each_side_turned_and_copied_as_it_looks()
    {
        var picture = Lay(0, 0, 6_000, 4_000);
        Do(Ines, new Change.ItemsTransformed([picture], [], new Transform(Transform.One / 2, 0, 0, Transform.One, 1_000, 500)));
        Assert.Equal(new Box(1_000, 500, 4_000, 4_500), Item(picture).Bounds);
        Set(picture, ItemField.Brightness, "20");
        Set(picture, ItemField.Opacity, "40");
        var copy = Do(Tobias, Content(picture).Copy()).Id;
        Assert.Equal(Item(picture).Bounds, Item(copy).Bounds);
        Assert.Equal(Content(picture).Shown.Tones, Content(copy).Shown.Tones);
        Assert.Equal(102, Content(copy).Shown.Alpha);
        Assert.Equal(Photo, Content(copy).Original);
    }

    [Fact]
    public void What_was_made_of_it_keeps_the_picture_it_was_made_of_and_both_files_are_named()
    {
        var picture = Lay(0, 0, 6_000, 4_000);
        var cleared = Guid.NewGuid();
        Do(
            Ines,
            new Change.ItemsSet(
                [picture],
                [
                    new ItemValue(ItemField.Source, cleared.ToString()),
                    new ItemValue(ItemField.Original, Photo.ToString()),
                    new ItemValue(ItemField.Cleared, "50"),
                ]
            )
        );
        Assert.Equal((cleared, Photo, 50), (Content(picture).Shown.Asset, Content(picture).Original, Content(picture).Cleared));
        var copy = Do(Tobias, Content(picture).Copy()).Id;
        Assert.Equal((cleared, Photo), (Content(copy).Shown.Asset, Content(copy).Original));
        Assert.Equal([Photo, cleared], NamedAssets.In(Page.Operations()));
        UndoAll(Ines);
        Assert.Equal(Photo, Content(picture).Shown.Asset);
    }

    [Fact]
    public void No_eraser_takes_a_picture_with_what_is_written_on_it()
    {
        var picture = Lay(0, 0, 6_000, 4_000);
        var line = Line(1_000, 1_000, 3_000, 1_000);
        var pass = new EraserPass(Page, 150, true);
        pass.MoveTo(2_000, 1_000);
        Do(Ines, pass.End()!);
        Assert.Equal([picture], Shown());
        Assert.False(Item(line).Shown);
    }

    [Fact]
    public void What_is_typed_under_it_belongs_to_it_and_is_read_and_found_with_it()
    {
        var picture = Lay(2_000, 3_000, 6_000, 4_000);
        var before = Item(picture).Bounds;
        Do(Tobias, new Change.TextTyped(picture, new TextChange([new Insertion(LetterId.Start, false, "The pallets")], [], [])));
        Assert.Equal("The pallets", Item(picture).Content.Words);
        Assert.True(Item(picture).Bounds.Bottom > before.Bottom + 300);
        // A press on the words means to type, one on the picture does not.
        Assert.False(Content(picture).IsTypedAt(4_000, 5_000, 50));
        Assert.True(Content(picture).IsTypedAt(4_000, before.Bottom + 300, 50));
        var standing = StandingPage.Of(Page);
        var read = new PageDocument();
        foreach (var operation in standing)
            read.Apply(operation);
        Assert.Equal(Page.EncodeState(), read.EncodeState());
    }

    [Fact]
    public void What_is_written_above_a_picture_stands_on_it_and_what_was_there_before_lies_under_it()
    {
        var below = Line(0, 0, 3_000, 0);
        var glow = Do(Ines, new Change.StrokeAdded(Marker, Now, Straight(0, 100, 3_000, 100))).Id;
        Assert.Equal([glow, below], Shown());
        var picture = Lay(0, 0, 6_000, 4_000);
        Assert.Equal([glow, below, picture], Shown());
        var line = Line(1_000, 1_000, 3_000, 1_000);
        // A highlighter lies behind ink, and still on the picture.
        var over = Do(Ines, new Change.StrokeAdded(Marker, Now, Straight(1_000, 1_100, 3_000, 1_100))).Id;
        Assert.Equal([glow, below, picture, over, line], Shown());
        Set(picture, ItemField.Order, "-1");
        Assert.Equal([picture, glow, over, below, line], Shown());
        Set(picture, ItemField.Order, "1");
        Assert.Equal([glow, over, below, line, picture], Shown());
        // Without it all is as it would have been.
        Do(Tobias, new Change.ItemsRemoved([picture]));
        Assert.Equal([glow, over, below, line], Shown());
    }

    [Fact]
    public void Whoever_shows_a_page_is_told_of_all_that_lies_on_another_sheet_now()
    {
        var before = Line(0, 0, 3_000, 0);
        var picture = Lay(0, 0, 6_000, 4_000);
        var after = Line(0, 500, 3_000, 500);
        Page.TakeChanged();
        Set(picture, ItemField.Order, "1");
        Assert.Equal(new[] { picture, after }.Order(), Page.TakeChanged().Order());
        Set(picture, ItemField.Order, "-1");
        Assert.Equal(new[] { before, picture, after }.Order(), Page.TakeChanged().Order());
    }

    [Fact]
    public void On_a_page_with_pictures_each_stroke_comes_last_without_putting_all_in_order()
    {
        Lay(0, 0, 6_000, 4_000);
        for (var i = 0; i < 40; i++)
        {
            Line(0, i * 10, 3_000, i * 10);
            if (i == 20)
                Lay(0, 0, 600, 400);
        }

        var asAdded = Shown();
        Assert.Equal(42, asAdded.Length);
        var anew = new PageDocument();
        foreach (var operation in Page.Operations().AsEnumerable().Reverse())
            anew.Apply(operation);
        Assert.Equal(asAdded, anew.Items.Where(item => item.Shown).Select(item => item.Id));
    }

    [Theory]
    [InlineData("")]
    [InlineData("0,0 1,1")]
    [InlineData("0,0 1,1 2")]
    [InlineData("0,0 1,1 10001,0")]
    [InlineData("-1,0 1,1 2,2")]
    [InlineData("0,0 1,1 99999999999,2")]
    public void A_cut_that_is_none_is_refused(string text)
    {
        Assert.Null(PictureCut.Read(text));
        if (text.Length > 0)
            Assert.NotNull(ItemRules.Check(new Change.ItemsSet([new OpId(1, 1)], [new ItemValue(ItemField.Cut, text)])));
    }

    [Fact]
    public void What_is_no_picture_of_a_size_that_can_be_is_refused()
    {
        Change.ThingAdded Picture(ThingKind kind, int width, params ItemValue[] values) =>
            new(kind, Transform.Identity, width, 4_000, new Passage("", []), values);
        var source = new ItemValue(ItemField.Source, Photo.ToString());
        Assert.Null(Picture(ThingKind.Picture, 6_000, source).Check());
        Assert.NotNull(Picture(ThingKind.Picture, 6_000).Check());
        Assert.NotNull(Picture(ThingKind.Picture, 99, source).Check());
        Assert.NotNull(Picture(ThingKind.Picture, TextContent.MostMeasure + 1, source).Check());
        Assert.NotNull(Picture((ThingKind)200, 6_000, source).Check());
        Assert.NotNull(Picture(ThingKind.Picture, 6_000, source, source).Check());
        Assert.NotNull((Picture(ThingKind.Picture, 6_000, source) with { Lay = default }).Check());
    }

    [Fact]
    public void Tones_lie_on_the_straight_line_that_files_are_told()
    {
        Gen.Select(Gen.Int[-100, 100], Gen.Int[-100, 100])
            .Sample(
                (brightness, contrast) =>
                {
                    var tones = new Tones(brightness, contrast);
                    var table = tones.Table();
                    for (var i = 0; i < 256; i++)
                        Assert.InRange(table[i] - Math.Clamp((tones.Intercept + tones.Slope * i / 255) * 255, 0, 255), -0.51, 0.51);
                }
            );
        Assert.Equal(Enumerable.Range(0, 256).Select(i => (byte)i), default(Tones).Table());
        Assert.Single(new Tones(0, -100).Table().Distinct());
    }

    [Fact]
    public void Paper_in_shadow_goes_and_ink_and_colour_stay()
    {
        const int width = 240,
            height = 180;
        // Paper that darkens to the right, a pale ruling, a dark line and a red one.
        var dots = new byte[width * height * 4];
        for (var y = 0; y < height; y++)
        {
            for (var x = 0; x < width; x++)
            {
                var paper = 235 - 90 * x / width;
                var share = y % 30 == 0 ? 0.88 : 1.0;
                var (red, green, blue) =
                    y is >= 80 and < 84 ? (30, 30, 40)
                    : y is >= 140 and < 144 ? (200, 40, 40)
                    : (paper, paper, paper - 12);
                var at = (y * width + x) * 4;
                (dots[at], dots[at + 1], dots[at + 2], dots[at + 3]) = (
                    (byte)(red * share),
                    (byte)(green * share),
                    (byte)(blue * share),
                    255
                );
            }
        }

        var cleared = Cleared(dots, width, height, 50);
        int Alpha(int x, int y) => cleared[(y * width + x) * 4 + 3];
        foreach (var x in new[] { 10, 120, 230 })
        {
            Assert.Equal(0, Alpha(x, 45));
            Assert.InRange(Alpha(x, 60), 0, 40);
            Assert.Equal(255, Alpha(x, 82));
            Assert.InRange(Alpha(x, 142), 200, 255);
        }

        // Weakly, the ruling stays.
        Assert.InRange(Cleared(dots, width, height, 0)[(60 * width + 120) * 4 + 3], 60, 255);
        // In bands or as a whole makes no difference.
        Assert.Equal(cleared, Cleared(dots, width, height, 50, band: 7));
    }

    private static byte[] Cleared(byte[] dots, int width, int height, int strength, int band = int.MaxValue)
    {
        var (made, clearing) = ((byte[])dots.Clone(), new PaperClearing(width, height));
        var rows = Math.Min(band, height);
        for (var y = 0; y < height; y += rows)
            clearing.Look(made.AsSpan(y * width * 4, Math.Min(rows, height - y) * width * 4), y);
        clearing.Settle();
        for (var y = 0; y < height; y += rows)
            clearing.Clear(made.AsSpan(y * width * 4, Math.Min(rows, height - y) * width * 4), y, strength);
        return made;
    }

    private PictureContent Content(OpId id) => (PictureContent)Item(id).Content;

    private OpId Lay(int x, int y, int width, int height) =>
        Do(
            Ines,
            new Change.ThingAdded(
                ThingKind.Picture,
                Transform.Shift(x, y),
                width,
                height,
                new Passage("", []),
                [new ItemValue(ItemField.Source, Photo.ToString())]
            )
        ).Id;

    private void Set(OpId id, ItemField field, string value) => Do(Ines, new Change.ItemsSet([id], [new ItemValue(field, value)]));
}
