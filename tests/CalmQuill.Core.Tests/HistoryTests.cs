using CalmQuill.Core.Access;
using CalmQuill.Core.Changing;
using CalmQuill.Core.History;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Layers;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Spots;
using CalmQuill.Testing;
using CsCheck;

namespace CalmQuill.Core.Tests;

/// <summary>A page as it was at any time, and having it back without undoing what others did since.</summary>
public sealed class HistoryTests : OnPage
{
    private const long Later = 1_700_000_050_000;

    [Fact]
    public void Going_forth_and_back_shows_what_the_operations_up_to_there_make() =>
        Gen.Select(Generate.PageHistory, Gen.Double[0, 1].Array[1, 12])
            .Sample(
                (made, stops) =>
                {
                    var history = new PageHistory(PageOf(made));
                    foreach (var stop in stops)
                    {
                        var count = (int)(stop * history.Length);
                        while (history.MoveTo(count, 7) > 0) { }
                        var afresh = PageOf(history.Operations.Take(count));
                        Assert.Equal(afresh.EncodeState(), history.Page.EncodeState());
                        Assert.Equal(afresh.Bounds(), history.Page.Bounds());
                        Assert.Equal(afresh.Items.Select(item => item.Id), history.Page.Items.Select(item => item.Id));
                    }
                }
            );

    [Fact]
    public void What_others_did_since_stays_as_it_is_when_all_is_had_back() =>
        Gen.Select(Generate.PageHistory, Gen.Double[0, 1])
            .Sample(
                (made, moment) =>
                {
                    var (page, history, me) = (PageOf(made), new PageHistory(PageOf(made)), new Replica(999, Generate.People[0]));
                    history.MoveTo((int)(moment * history.Length), int.MaxValue);
                    var before = PageOf(made);
                    var others = history
                        .Since.Where(operation => operation.Author != me.Author)
                        .SelectMany(operation => TouchRules.Altered(operation.Change).Append(operation.Id))
                        .ToHashSet();
                    Have(page, HavingBack.Of(history, page, null, me.Author), me);
                    foreach (var item in before.Items.Where(item => item.Stands))
                    {
                        // Whatever stands goes on standing, and of what others did anything to since nothing is another.
                        var after = page.Find(item.Id)!;
                        Assert.True(after.Stands);
                        if (item.Content.End == after.Content.End)
                            Assert.Equal(item.Visible(), after.Visible());
                        else
                        {
                            // One's own shape that was made another since is put back, and measured as it was then.
                            Assert.DoesNotContain(item.Id, others);
                            Assert.Equal(history.Page.Find(item.Id)!.Content.End, after.Content.End);
                        }

                        if (others.Contains(item.Id))
                            Assert.Equal(Difference.None, Comparing.Of(item, after));
                    }
                }
            );

    [Fact]
    public void All_that_was_seen_then_is_seen_again_where_nobody_else_wrote() =>
        Generate
            .PageHistory.Select(Gen.Double[0, 1])
            .Sample(
                (made, moment) =>
                {
                    // One person's page, on the layers that are there from the beginning.
                    var one = made.Where(operation => operation.Change is not Change.LayerSet and not Change.EffectSet)
                        .Select(operation => operation with { Author = Generate.People[0] })
                        .ToList();
                    var (page, history, me) = (PageOf(one), new PageHistory(PageOf(one)), new Replica(999, Generate.People[0]));
                    history.MoveTo((int)(moment * history.Length), int.MaxValue);
                    var back = HavingBack.Of(history, page, null, me.Author);
                    var laid = Have(page, back, me);
                    foreach (var then in history.Page.Items.Where(Comparing.IsSeen))
                    {
                        var standing = page.Find(then.Id)!;
                        var seen = standing.Stands && LooksAlike(standing, then) ? standing.Visible() : [];
                        var again = laid.Select(id => page.Find(id)!)
                            .Where(item => item.Content.End == then.Content.End && LooksAlike(item, then))
                            .SelectMany(item => item.Visible());
                        var missing = then.Visible()
                            .SelectMany(part => Interval.Complement(Interval.Union(seen.Concat(again)), part.Start, part.End));
                        Assert.True(
                            back.Left > 0 || !missing.Any(),
                            $"Something that was seen is not seen again: {then.Id} {then.Kind} {then.Bounds} {standing.Bounds} {string.Join(';', laid.Select(id => page.Find(id)!.Bounds))}"
                        );
                    }

                    Assert.Equal(
                        [.. history.Page.Spots().Select(spot => spot.Kind).Order()],
                        page.Spots()
                            .Where(spot => history.Page.Spots().Exists(then => SameSign(then, spot)))
                            .Select(spot => spot.Kind)
                            .Order()
                    );
                }
            );

    [Fact]
    public void Of_what_was_rubbed_out_in_part_only_that_part_comes_back_and_where_it_lies_now()
    {
        var line = Line(0, 0, 5000, 0);
        var then = Page.OperationCount;
        Do(Tobias, new Change.GapsAdded([new StrokeGaps(line, [new Interval(2000, 6000)])]));
        Do(Tobias, new Change.ItemsShifted([line], 0, 700));
        var back = Back(then);
        var laid = Assert.Single(Have(Page, back, Ines));
        Assert.Equal([new Interval(2000, 6000)], Item(laid).Visible());
        Assert.InRange(Item(laid).Bounds.Top, 600, 700);
        Assert.Equal(1, back.Left);
        // One step takes all of it away again.
        UndoAll(Ines);
        Assert.Equal([line], Shown());
    }

    [Fact]
    public void What_was_moved_or_coloured_is_put_back_unless_another_changed_it_since()
    {
        var mine = Line(0, 0, 3000, 0);
        var theirs = Line(0, 1000, 3000, 1000);
        var then = Page.OperationCount;
        Do(Ines, new Change.ItemsTransformed([mine, theirs], [], Transform.Scale(1.5, 200, 300)));
        Do(Ines, new Change.ItemsSet([mine], [new ItemValue(ItemField.Colour, "b4533cff")]));
        Do(Tobias, new Change.ItemsShifted([theirs], 50, 0));
        var history = new PageHistory(Page);
        history.MoveTo(then, int.MaxValue);
        var back = HavingBack.Of(history, Page, null, Ines.Author);
        Assert.Empty(Have(Page, back, Ines));
        Assert.Equal(1, back.Left);
        Assert.Equal(history.Page.Find(mine)!.Bounds, Item(mine).Bounds);
        Assert.Equal(Ball.Colour, ((InkContent)Item(mine).Content).Colour);
        Assert.Equal(Difference.Changed, Comparing.Of(history.Page.Find(theirs), Item(theirs)));
    }

    [Fact]
    public void Nothing_is_put_back_onto_a_layer_that_was_erased_since()
    {
        var layer = Generate.Node(7);
        Do(Ines, new Change.LayerSet(layer, [new LayerValue(LayerField.Name, "Sketch")]));
        var line = Do(Ines, new Change.StrokeAdded(Ball, Now, Straight(0, 0, 3000, 0)) { Layer = layer }).Id;
        var then = Page.OperationCount;
        Do(Ines, new Change.ItemsSet([line], [new ItemValue(ItemField.Layer, Generate.Node(8).ToString())]));
        Do(Ines, new Change.ItemsShifted([line], 50, 0));
        Do(Ines, new Change.LayerSet(layer, [new LayerValue(LayerField.Erased, "1")]));
        Have(Page, Back(then), Ines);
        Assert.True(Item(line).Stands);
        Assert.Equal(0, Item(line).Dx);
    }

    [Fact]
    public void Only_what_was_chosen_comes_back()
    {
        OpId one = Line(0, 0, 900, 0),
            other = Line(0, 500, 900, 500);
        var then = Page.OperationCount;
        Do(Tobias, new Change.ItemsRemoved([one, other]));
        var laid = Have(Page, Back(then, [other]), Ines);
        Assert.Equal(498, Item(Assert.Single(laid)).Bounds.Top, 30.0);
        Assert.Equal(laid, Shown());
    }

    [Fact]
    public void A_mark_comes_back_with_what_was_said_to_it_and_one_taken_back_by_who_made_it_comes_anew()
    {
        Guid ask = Generate.Node(1),
            term = Generate.Node(2);
        Do(Ines, Mark(ask));
        Do(Tobias, new Change.AnswerAdded(ask, "The drop is smaller.", [], default));
        var made = Do(Ines, Mark(term));
        var then = Page.OperationCount;
        Do(Tobias, new Change.SpotSet(ask, [new SpotValue(SpotField.Removed, "1")]));
        Do(Ines, new Change.EffectSet(made.Id, false));
        Assert.Empty(Page.Spots());
        Have(Page, Back(then), Ines);
        Assert.Equal(2, Page.Spots().Count);
        Assert.Equal("The drop is smaller.", Assert.Single(Assert.Single(Page.Spots(), spot => spot.Id == ask).Answers).Text);
        Assert.DoesNotContain(Page.Spots(), spot => spot.Id == term);
    }

    [Fact]
    public void What_was_said_is_not_yet_there_before_it_was()
    {
        Do(Ines, Mark(Generate.Node(1)));
        var answer = Do(Tobias, new Change.AnswerAdded(Generate.Node(1), "Yes.", [], default));
        Do(Tobias, new Change.AnswerWithdrawn(answer.Id));
        var history = new PageHistory(Page);
        int Answers(int at)
        {
            history.MoveTo(at, int.MaxValue);
            return history.Page.Spots().Single().Answers.Count;
        }

        Assert.Equal([0, 1, 0, 1, 0], new[] { 3, 2, 1, 2, 3 }.Select(Answers));
    }

    [Fact]
    public void Then_and_now_differ_by_what_was_added_removed_rubbed_out_and_moved()
    {
        OpId removed = Line(0, 0, 900, 0),
            rubbed = Line(0, 500, 900, 500),
            moved = Line(0, 900, 900, 900),
            same = Line(0, 1500, 900, 1500);
        var history = new PageHistory(Page);
        while (history.MoveTo(history.Length, 1) > 0) { }
        var added = Line(0, 2000, 900, 2000);
        Do(Tobias, new Change.ItemsRemoved([removed]));
        Do(Tobias, new Change.GapsAdded([new StrokeGaps(rubbed, [new Interval(0, 300)])]));
        Do(Tobias, new Change.ItemsShifted([moved], 10, 0));
        Assert.Equal(
            [Difference.Removed, Difference.Rubbed, Difference.Changed, Difference.None, Difference.Added],
            new[] { removed, rubbed, moved, same, added }.Select(id => Comparing.Of(history.Page.Find(id), Item(id)))
        );
    }

    [Fact]
    public void A_place_on_the_bar_and_its_time_are_each_others() =>
        Gen.Select(Gen.Long[0, 90_000_000].Array[1, 60], Gen.Int[0, 2].Array[60])
            .Sample(
                (times, who) =>
                {
                    var entries = times
                        .Order()
                        .Select((at, i) => new Chart.Entry(at, Generate.People[who[i]], (Deed)(1 + who[i]), 1))
                        .ToList();
                    var chart = Chart.Of(entries);
                    Assert.Equal(entries.Count, chart.Strokes.Sum(stroke => stroke.Things));
                    Assert.Equal(1, chart.PositionOf(entries[^1].At));
                    Assert.Equal(entries[^1].At, chart.TimeAt(1));
                    Assert.True(chart.TimeAt(0) < entries[0].At);
                    double before = 0;
                    foreach (var entry in entries)
                    {
                        var position = chart.PositionOf(entry.At);
                        Assert.InRange(position, before, 1);
                        before = position;
                        // As near as the width of a sitting tells times apart.
                        var sitting = chart.Sittings.Last(one => one.From <= entry.At);
                        Assert.InRange(chart.TimeAt(position), entry.At - 1, entry.At + 1);
                        Assert.InRange(position, sitting.Left, sitting.Right);
                    }
                }
            );

    [Fact]
    public void From_sitting_to_sitting_one_comes_to_the_end_and_back_to_before_all() =>
        Gen.Long[0, 90_000_000]
            .Array[1, 60]
            .Sample(times =>
            {
                var chart = Chart.Of([.. times.Order().Select(at => new Chart.Entry(at, Generate.People[0], Deed.Wrote, 1))]);
                var at = times.Min() - 1;
                foreach (var sitting in chart.Sittings)
                    Assert.Equal(sitting.To, at = chart.Beside(at, later: true));
                Assert.Equal(times.Max(), chart.Beside(at, later: true));
                foreach (var sitting in chart.Sittings.Reverse().Skip(1))
                    Assert.Equal(sitting.To, at = chart.Beside(at, later: false));
                Assert.Equal(times.Min() - 1, chart.Beside(at, later: false));
            });

    [Fact]
    public void A_chart_of_very_much_has_few_sittings_and_columns()
    {
        var chart = Chart.Of([
            .. Enumerable.Range(0, 100_000).Select(i => new Chart.Entry(i * 3_600_000L, Generate.People[i % 3], Deed.Wrote, 1)),
        ]);
        Assert.InRange(chart.Sittings.Count, 1, 48);
        Assert.InRange(chart.Strokes.Count, 1, Chart.Columns * 3);
        Assert.Equal(100_000, chart.Strokes.Sum(stroke => stroke.Things));
        Assert.Empty(Chart.Of([]).Strokes);
        Assert.Equal(0, Chart.Of([]).PositionOf(5));
    }

    [Fact]
    public void A_million_operations_are_gone_over_in_slices_there_and_back()
    {
        const int count = 1_000_000,
            slice = 4_000;
        var strokes = Enumerable.Range(1, 200).Select(i => new OpId(1, (ulong)i)).ToArray();
        var page = PageOf(
            Enumerable
                .Range(1, count)
                .Select(i => new Operation(
                    new OpId(1, (ulong)i),
                    Hlc.At(1_700_000_000_000 + i),
                    Generate.People[0],
                    i <= strokes.Length ? new Change.StrokeAdded(Ball, 0, Straight(0, i, 90, i))
                        : i % 3 == 0 ? new Change.EffectSet(strokes[i % strokes.Length], i % 2 == 0)
                        : new Change.ItemsShifted([strokes[i % strokes.Length]], i % 2 == 0 ? 5 : -5, 1)
                ))
        );
        var history = new PageHistory(page);
        var slices = 0;
        for (var left = count; left > 0; slices++)
            Assert.Equal(Math.Max(0, left - slice), left = history.MoveTo(count, slice));
        Assert.Equal(count / slice, slices);
        Assert.Equal(page.EncodeState(), history.Page.EncodeState());
        while (history.MoveTo(0, slice) > 0) { }
        Assert.Empty(history.Page.Items);
        Assert.Equal(0, history.Page.OperationCount);
    }

    [Theory]
    [InlineData("1790000000000 before the exam", true)]
    [InlineData("", true)]
    [InlineData("before the exam", false)]
    [InlineData("1790000000000", false)]
    [InlineData("1790000000000 ", false)]
    [InlineData("-5 before", false)]
    public void A_named_moment_is_a_time_and_a_name(string text, bool isWellFormed)
    {
        Assert.Equal(isWellFormed, Moment.Rule.Problem(text) is null);
        if (Moment.Read(text) is { } moment && isWellFormed)
            Assert.Equal(text, moment.Write());
    }

    private static PageDocument PageOf(IEnumerable<Operation> operations)
    {
        var page = new PageDocument();
        foreach (var operation in operations)
            page.Apply(operation);
        return page;
    }

    private HavingBack Back(int then, params OpId[] chosen)
    {
        var history = new PageHistory(Page);
        history.MoveTo(then, int.MaxValue);
        return HavingBack.Of(history, Page, chosen.Length > 0 ? chosen.ToHashSet() : null, Ines.Author);
    }

    /// <summary>Does all of it as one step, each change after the rules; says what was laid.</summary>
    private static IReadOnlyList<OpId> Have(PageDocument page, HavingBack back, Replica device)
    {
        var laying = back.Laying;
        OpId Make(Change change)
        {
            var operation = device.Make(change, Later);
            Assert.Null(OperationRules.Check(operation, DocumentKind.Page, Role.Writer, device.Author, Later));
            Assert.True(page.Apply(operation));
            return operation.Id;
        }

        while (laying.Next(Make)) { }
        if (laying.Steps.Count > 1)
            page.Apply(device.Make(new Change.StepsJoined(laying.Steps), Later));
        return laying.Items;
    }

    /// <summary>Put back by a step in whole numbers, a thing lies where it lay to a tenth of a millimetre.</summary>
    private static bool LooksAlike(PageItem item, PageItem then) =>
        new[]
        {
            item.Bounds.Left - then.Bounds.Left,
            item.Bounds.Top - then.Bounds.Top,
            item.Bounds.Right - then.Bounds.Right,
            item.Bounds.Bottom - then.Bounds.Bottom,
        }.All(off => Math.Abs(off) <= 10);

    private static bool SameSign(Spot then, Spot now) =>
        then.Id == now.Id
        || (then.Kind == now.Kind && then.Values.OrderBy(one => one.Key).SequenceEqual(now.Values.OrderBy(one => one.Key)));

    private static Change Mark(Guid id) =>
        new Change.SpotAdded(id, SpotKind.Mark, new Box(0, 0, 100, 100), [], [new SpotValue(SpotField.Mark, MarkKinds.Ask)]);
}
