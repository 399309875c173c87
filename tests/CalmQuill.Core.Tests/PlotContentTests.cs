using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Plots;
using CalmQuill.Core.Writing;

namespace CalmQuill.Core.Tests;

/// <summary>Plots as things on a page.</summary>
public sealed class PlotContentTests : OnPage
{
    [Fact]
    public void Two_people_add_a_curve_each_and_both_are_drawn()
    {
        var plot = Lay();
        var before = Content(plot).Coats;
        Set(Ines, plot, ItemField.Curve1, "1f5f8bff sin x");
        Set(Tobias, plot, ItemField.Curve2, "b4533cff x²/4 - 2");
        Assert.Equal(before + 2, Content(plot).Coats);
        Assert.Equal([0x1F5F8BFFu, 0xB4533CFFu], Enumerable.Range(before, 2).Select(i => Content(plot).Coat(i).Colour));
        UndoAll(Ines);
        Assert.Equal(before + 1, Content(plot).Coats);
    }

    [Fact]
    public void What_cannot_be_read_is_told_beside_it_and_all_else_is_drawn()
    {
        var plot = Lay();
        Set(Ines, plot, ItemField.Curve1, "1f5f8bff sin(");
        Set(Ines, plot, ItemField.Curve2, "b4533cff x");
        Set(Ines, plot, ItemField.Curve3, "b4533cff x = y = 2");
        Assert.Equal([ItemField.Curve1, ItemField.Curve3], Content(plot).Problems.Keys.Order());
        Assert.Contains("missing", Content(plot).Problems[ItemField.Curve1], StringComparison.Ordinal);
        // What was typed stays as it was typed.
        Assert.Equal("1f5f8bff sin(", Content(plot)[ItemField.Curve1]);
    }

    [Fact]
    public void Its_range_is_what_its_points_need_until_it_is_told_another()
    {
        var plot = Lay();
        Assert.Equal(new PlotRange(-5, 5, -5, 5), Content(plot).Range);
        Set(Ines, plot, ItemField.Data1, "1f5f8bff 2 0 1 10 21");
        var range = Content(plot).Range;
        Assert.True(range is { Left: < 0, Right: > 10, Bottom: < 1, Top: > 21 });
        Assert.Equal("y = 2·x + 1   R² = 1", Assert.Single(Content(plot).Told));
        Set(Tobias, plot, ItemField.Range, "0 1 0 2");
        Assert.Equal(new PlotRange(0, 1, 0, 2), Content(plot).Range);
        Set(Tobias, plot, ItemField.Range, "");
        Assert.Equal(range, Content(plot).Range);
    }

    [Fact]
    public void Landmarks_stand_with_their_values()
    {
        var plot = Lay();
        Set(Ines, plot, ItemField.Curve1, "1f5f8bff x² - 4");
        var without = Content(plot).Texts(true).Count();
        Set(Ines, plot, ItemField.Shows, "marks");
        // Two zeros, and where it turns.
        Assert.Equal(without + 3, Content(plot).Texts(true).Count());
    }

    [Fact]
    public void All_of_it_lies_within_its_box_and_a_copy_is_the_same()
    {
        var plot = Lay();
        foreach (var (field, curve) in PlotContent.CurveFields.Zip(["tan x", "1/x", "x^x^x", "x² + y² = 9", "1e9 x", "sqrt(x) / 0"]))
            Set(Ines, plot, field, "1f5f8bff " + curve);
        Set(Ines, plot, ItemField.Data1, "b4533cff 2 " + string.Join(' ', Enumerable.Range(0, 600).Select(i => $"{i} {i % 17}")));
        Set(Ines, plot, ItemField.Shows, "marks degrees");
        var painted = new Painted();
        Content(plot).Paint(painted, Content(plot).Visible(), shifted: true);
        var box = Item(plot).Bounds.Grow(60);
        Assert.All(
            painted.Places,
            at => Assert.True(at.X >= box.Left && at.X <= box.Right && at.Y >= box.Top && at.Y <= box.Bottom, $"{at}")
        );
        Assert.True(painted.Places.Count > 1_000);
        var copy = Do(Tobias, Content(plot).Copy()).Id;
        Assert.Equal(Content(plot).Coats, Content(copy).Coats);
        Assert.Equal(Item(plot).Bounds, Item(copy).Bounds);
    }

    [Theory]
    [InlineData("0.25 1.003\n1 2.006", 2, 0)]
    [InlineData("l\tT\n0,25\t1,003\n1\t2,006", 2, 0)]
    [InlineData("0.25, 1.003\r\n1, 2.006", 2, 0)]
    [InlineData("1;2", 1, 0)]
    [InlineData("1,2", 1, 0)]
    [InlineData("1 2\n\n3 4\nfive 6", 2, 4)]
    [InlineData("1 2 3", 0, 1)]
    [InlineData("1 1e300", 0, 1)]
    [InlineData("1", 0, 1)]
    public void Points_are_read_as_spreadsheets_give_them(string typed, int count, int wrong)
    {
        var points = PlotData.ReadRows(typed, out var first);
        Assert.Equal((count, wrong), (points.Count, first));
        var held = new PlotData(0xFF, FitKind.Line, points);
        Assert.Equal(points, PlotData.Read(held.ToText())!.Points);
    }

    [Fact]
    public void While_a_hand_moves_it_a_plot_is_drawn_as_it_would_be_and_nothing_is_written()
    {
        var plot = Lay();
        Set(Ines, plot, ItemField.Curve1, "1f5f8bff x^2");
        Set(Ines, plot, ItemField.Range, "0 2 0 4");
        var (standing, wished) = (Content(plot).Drawing, Content(plot).DrawnAt(new PlotRange(0, 4, 0, 16)));
        Assert.NotEqual(Words(standing), Words(wished));
        Assert.Contains("15", Words(wished));
        Assert.Equal(standing.Plane, wished.Plane);
        Assert.True(standing.Plane.Left > 0 && standing.Plane.Right < Content(plot).Bounds.Right - Content(plot).Bounds.Left);
        Assert.Equal(new PlotRange(0, 2, 0, 4), Content(plot).Range);
        Set(Tobias, plot, ItemField.Range, "0 4 0 16");
        Assert.Equal(Words(wished), Words(Content(plot).Drawing));

        static List<string> Words(PlotDrawing drawing) =>
            [.. drawing.Labels.Select(label => string.Concat(label.Label.Set.Paragraphs.Select(one => one.Paragraph.Content.Text)))];
    }

    [Theory]
    [InlineData(ItemField.Curve1, "blue x")]
    [InlineData(ItemField.Curve1, "1f5f8bff")]
    [InlineData(ItemField.Data1, "1f5f8bff 9 1 2")]
    [InlineData(ItemField.Data1, "1f5f8bff 1 1")]
    [InlineData(ItemField.Data1, "1f5f8bff 1 1 x")]
    [InlineData(ItemField.Range, "0 0 0 1")]
    [InlineData(ItemField.Shows, "bright")]
    [InlineData(ItemField.Axes, "x\ny\nz")]
    public void What_is_not_well_formed_is_refused(ItemField field, string value) =>
        Assert.NotNull(ItemRules.Check(new Change.ItemsSet([new OpId(1, 1)], [new ItemValue(field, value)])));

    private sealed class Painted : ItemPainter
    {
        public List<(float X, float Y)> Places { get; } = [];

        public override void Fill(Outline filled, Coat coat)
        {
            for (var i = 0; i < filled.RingCount; i++)
            {
                var ring = filled.Ring(i);
                for (var k = 0; k < ring.Length; k += 2)
                    Places.Add((ring[k], ring[k + 1]));
            }
        }

        public override void Write(Core.Typesetting.SetText text, in Affine place, uint colour) { }

        public override void Draw(Core.Pictures.PictureLook picture, in Affine place) { }
    }

    private PlotContent Content(OpId id) => (PlotContent)Item(id).Content;

    private OpId Lay() =>
        Do(Ines, new Change.ThingAdded(ThingKind.Plot, Transform.Shift(2_000, 3_000), 11_000, 7_500, new Passage("", []), [])).Id;

    private void Set(Replica device, OpId id, ItemField field, string value) =>
        Do(device, new Change.ItemsSet([id], [new ItemValue(field, value)]));
}
