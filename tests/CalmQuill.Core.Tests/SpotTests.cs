using CalmQuill.Core.Access;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Links;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Spots;
using CalmQuill.Testing;
using CsCheck;

namespace CalmQuill.Core.Tests;

/// <summary>Marks, links and headings: where they lie, who ticked them off, what may be said of them; selecting; and the web of pages.</summary>
public class SpotTests
{
    private readonly PageDocument page = new();
    private readonly Replica ines = new(1, Generate.People[0]),
        tobias = new(2, Generate.People[1]);
    private long clock = 1_000;

    [Fact]
    public void A_mark_goes_along_with_its_ink_and_stays_where_it_was_without()
    {
        var stroke = Do(ines, new Change.StrokeAdded(new Pen(PenKind.Ball, 40, 0xFF), 0, Generate.Wave(20)));
        var mark = Add(ines, SpotKind.Mark, new Box(0, 0, 10, 10), [stroke.Id], (SpotField.Mark, MarkKinds.Ask));
        var before = Spot(mark).Area;
        Assert.Equal(page.Find(stroke.Id)!.Bounds, before);
        Do(tobias, new Change.ItemsShifted([stroke.Id], 500, 900));
        Assert.Equal(before.Shift(500, 900), Spot(mark).Area);
        Do(tobias, new Change.ItemsRemoved([stroke.Id]));
        Assert.Equal(new Box(0, 0, 10, 10), Spot(mark).Area);
    }

    [Fact]
    public void Ticking_off_says_who_and_when_and_each_takes_back_only_their_own()
    {
        var mark = Add(ines, SpotKind.Mark, new Box(0, 0, 700, 700), [], (SpotField.Mark, MarkKinds.ToDo), (SpotField.Note, "oil"));
        Assert.True(Spot(mark).IsOpen);
        var ticked = Do(tobias, new Change.SpotSet(mark, [new SpotValue(SpotField.Done, "1")]));
        Assert.Equal(
            (Generate.People[1], ticked.Time.UnixMilliseconds, false),
            (Spot(mark).DoneBy, Spot(mark).DoneAt!.Value, Spot(mark).IsOpen)
        );
        // Ines has only made it; her undo takes the mark, Tobias's only his tick.
        Do(tobias, Assert.Single(page.Undo(Generate.People[1])));
        Assert.True(Spot(mark).IsOpen);
        Do(ines, Assert.Single(page.Undo(Generate.People[0])));
        Assert.Empty(page.Spots());
        Do(ines, Assert.Single(page.Redo(Generate.People[0])));
        Assert.Equal("oil", Spot(mark)[SpotField.Note]);
    }

    [Fact]
    public void A_scaled_stroke_keeps_its_gaps_and_is_erased_where_it_now_lies()
    {
        var stroke = Do(ines, new Change.StrokeAdded(new Pen(PenKind.Ball, 40, 0xFF), 0, Generate.Wave(101, 0, 0)));
        Do(ines, new Change.ItemsTransformed([stroke.Id], [], Transform.Scale(0.5, 1_000, 2_000)));
        var item = page.Find(stroke.Id)!;
        Assert.Equal((1_000, 20), (item.Line.Samples.X[0], item.Line.Pen.Width));
        Assert.Equal(1_000 + 4_000 / 2, item.Line.Samples.X[100]);
        var pass = new EraserPass(page, 100, whole: false);
        Assert.Contains(stroke.Id, pass.MoveTo(item.Line.Samples.X[50], item.Line.Samples.Y[50]));
        Do(ines, pass.End()!);
        Assert.Equal(2, item.Visible().Count);
        // Moving on top of scaling is by the page's own measure, and taking the scale back leaves the move.
        Do(tobias, new Change.ItemsShifted([stroke.Id], 300, 0));
        Assert.Equal(1_300, item.Line.Samples.X[0] + item.Dx);
        Do(ines, Assert.Single(page.Undo(Generate.People[0])));
        Do(ines, Assert.Single(page.Undo(Generate.People[0])));
        Assert.Equal((0, 300L), (item.Line.Samples.X[0], item.Dx));
    }

    [Fact]
    public void Turning_four_times_is_not_turning()
    {
        var stroke = Do(ines, new Change.StrokeAdded(new Pen(PenKind.Ball, 40, 0xFF), 0, Generate.Wave(30)));
        var before = page.Find(stroke.Id)!.Line.Samples.X.ToArray();
        for (var i = 0; i < 4; i++)
            Do(
                ines,
                new Change.ItemsTransformed(
                    [stroke.Id],
                    [],
                    new Transform(0, Transform.One, -Transform.One, 0, i % 2 == 0 ? 29_700 : 21_000, 0)
                )
            );
        Assert.Equal(before, page.Find(stroke.Id)!.Line.Samples.X);
    }

    public static TheoryData<string, Change> AgainstTheRules =>
        new()
        {
            {
                "does not say what it is",
                new Change.SpotAdded(Generate.Node(1), SpotKind.Mark, new Box(0, 0, 1, 1), [], [new SpotValue(SpotField.Note, "x")])
            },
            {
                "not known",
                new Change.SpotAdded(Generate.Node(1), (SpotKind)9, new Box(0, 0, 1, 1), [], [new SpotValue(SpotField.Mark, "ask")])
            },
            {
                "20 metres",
                new Change.SpotAdded(Generate.Node(1), SpotKind.Mark, new Box(9, 0, 1, 1), [], [new SpotValue(SpotField.Mark, "ask")])
            },
            { "no proper id", new Change.SpotSet(Guid.Empty, [new SpotValue(SpotField.Done, "1")]) },
            { "names nothing", new Change.SpotSet(Generate.Node(1), []) },
            { "kind of mark", new Change.SpotSet(Generate.Node(1), [new SpotValue(SpotField.Mark, "shout")]) },
            { "2000 characters", new Change.SpotSet(Generate.Node(1), [new SpotValue(SpotField.Note, new string('x', 2_001))]) },
            { "due day", new Change.SpotSet(Generate.Node(1), [new SpotValue(SpotField.Due, "soon")]) },
            { "address", new Change.SpotSet(Generate.Node(1), [new SpotValue(SpotField.Target, "javascript:alert(1)")]) },
            { "address", new Change.SpotSet(Generate.Node(1), [new SpotValue(SpotField.Target, "page:1/2/3")]) },
            { "levels", new Change.SpotSet(Generate.Node(1), [new SpotValue(SpotField.Level, "40")]) },
            { "at most 100 times", new Change.ItemsTransformed([new OpId(1, 1)], [], Transform.Scale(5_000, 0, 0)) },
            { "at most 100 times", new Change.ItemsTransformed([new OpId(1, 1)], [], new Transform(0, 0, 0, 0, 5, 5)) },
        };

    [Theory]
    [MemberData(nameof(AgainstTheRules))]
    public void What_cannot_be_said_of_a_page_is_refused_in_words(string words, Change change) =>
        Assert.Contains(
            words,
            OperationRules.Check(ines.Make(change, 5), DocumentKind.Page, Role.Writer, Generate.People[0], 10)!.Sentence.English,
            StringComparison.Ordinal
        );

    [Fact]
    public void Targets_read_back_and_nothing_a_browser_would_run_is_one()
    {
        var (space, notebook, third, fourth) = (Generate.Node(1), Generate.Node(2), Generate.Node(3), Generate.Node(4));
        foreach (
            var text in new[]
            {
                $"notebook:{space}/{notebook}",
                $"section:{space}/{notebook}/{third}",
                $"page:{space}/{notebook}/{third}",
                $"place:{space}/{notebook}/{third}/1200,-50",
                $"mark:{space}/{notebook}/{third}/{fourth}",
                "https://clock.example/a?b=c#d",
                "mailto:ines@lantern.example",
            }
        )
            Assert.Equal(text, LinkTarget.Read(text)!.ToString());
        foreach (
            var text in new[]
            {
                "data:text/html,x",
                "vbscript:x",
                "file:///etc",
                "https://",
                "http://a b",
                $"page:{Guid.Empty}/{notebook}/{third}",
                $"place:{space}/{notebook}/{third}/1",
                "",
            }
        )
            Assert.Null(LinkTarget.Read(text));
        Gen.String.Sample(text => Assert.True(LinkTarget.Read(text) is null || LinkTarget.Read(text)!.ToString() == text), iter: 2000);
    }

    /// <summary>The share inside against counting three hundred points between each two samples.</summary>
    [Fact]
    public void Selecting_takes_what_lies_mostly_inside() =>
        Gen.Select(Generate.Samples, Gen.Int[0, 20_000].Array[6, 16])
            .Sample(
                (samples, corners) =>
                {
                    if (samples.Count < 2)
                        return;
                    var document = new PageDocument();
                    var stroke = ines.Make(new Change.StrokeAdded(new Pen(PenKind.Ball, 40, 0xFF), 0, samples), 5);
                    document.Apply(stroke);
                    double[] loop = [.. corners.Take(corners.Length / 2 * 2).Select(corner => corner + 0.5)];
                    var item = document.Find(stroke.Id)!;
                    double whole = 0,
                        inside = 0;
                    for (var i = 0; i + 1 < samples.Count; i++)
                    {
                        var span = SplineSpan.Of(samples, i);
                        for (var step = 0; step < 300; step++)
                        {
                            var (from, middle, to) = (span.At(step / 300f), span.At((step + 0.5f) / 300), span.At((step + 1) / 300f));
                            var length = Math.Sqrt(Math.Pow(to.X - from.X, 2) + Math.Pow(to.Y - from.Y, 2));
                            whole += length;
                            if (Loop.Holds(loop, middle.X, middle.Y))
                                inside += length;
                        }
                    }

                    if (whole == 0)
                        return;
                    var share = item.Content.ShareInside(loop);
                    Assert.Equal(inside / whole, share, 0.02);
                    Assert.Equal(share >= 0.5, Selecting.Inside(document, loop, 0.5).Count == 1);
                },
                iter: 400
            );

    [Fact]
    public void The_web_of_pages_is_always_laid_the_same_and_puts_linked_pages_together()
    {
        // Two rings of eight, not linked to each other.
        var links = Enumerable.Range(0, 8).SelectMany(i => new[] { (i, (i + 1) % 8), (8 + i, 8 + (i + 1) % 8) }).ToList();
        var groups = Enumerable.Range(0, 16).Select(i => i / 8).ToArray();
        var places = PageWeb.Lay(16, links, groups);
        Assert.Equal(places, PageWeb.Lay(16, links, groups));
        Assert.All(places, place => Assert.InRange(place, 0, 1));
        double Apart(int a, int b) =>
            Math.Sqrt(Math.Pow(places[a * 2] - places[b * 2], 2) + Math.Pow(places[a * 2 + 1] - places[b * 2 + 1], 2));
        Assert.True(
            links.Average(link => Apart(link.Item1, link.Item2))
                < 0.6 * Enumerable.Range(0, 8).SelectMany(i => Enumerable.Range(8, 8).Select(j => Apart(i, j))).Average()
        );
        Assert.All(Enumerable.Range(0, 16), i => Assert.All(Enumerable.Range(0, i), j => Assert.True(Apart(i, j) > 0.01)));
        Assert.Equal([0.5, 0.5], PageWeb.Lay(1, [], [0]));
        Assert.Empty(PageWeb.Lay(0, [], []));
    }

    private Spot Spot(Guid id) => page.Spots().Single(spot => spot.Id == id);

    private Guid Add(Replica device, SpotKind kind, Box area, OpId[] items, params (SpotField Field, string Value)[] values)
    {
        var id = Generate.Node(77);
        Do(device, new Change.SpotAdded(id, kind, area, items, [.. values.Select(value => new SpotValue(value.Field, value.Value))]));
        return id;
    }

    private Operation Do(Replica device, Change change)
    {
        var operation = device.Make(change, clock += 10);
        Assert.Null(OperationRules.Check(operation, DocumentKind.Page, Role.Writer, device.Author, clock));
        Assert.True(page.Apply(operation));
        return operation;
    }
}
