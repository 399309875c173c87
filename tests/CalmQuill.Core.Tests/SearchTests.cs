using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Layers;
using CalmQuill.Core.Library;
using CalmQuill.Core.Notebooks;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Ordering;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Spots;
using CalmQuill.Testing;
using CsCheck;

namespace CalmQuill.Core.Tests;

/// <summary>
/// A random search for two devices that hold the same operations and show something else: rings, things named twice, changes before what they change, equal times,
/// and every way in which devices hear of each other, one by one and in batches.
/// </summary>
public sealed class SearchTests
{
    private const int Cases = 3_000;

    /// <summary>Operations by three devices that name each other at will, also what does not exist, what comes later, and themselves.</summary>
    private static readonly Gen<List<Operation>> Page = Gen.Select(
            Gen.Int[0, 2],
            Gen.Int[0, 13],
            Gen.Int[1, 14].Array[4],
            Gen.Int[0, 5],
            Generate.Samples
        )
        .Array[1, 30]
        .Select(steps => Made(steps.Select(step => (step.Item1, step.Item4, PageChange(step.Item2, step.Item3, step.Item5)))));

    private static readonly Gen<List<Operation>> Library = Gen.Select(Gen.Int[0, 2], Gen.Int[0, 9], Gen.Int[1, 9].Array[4], Gen.Int[0, 5])
        .Array[1, 40]
        .Select(steps => Made(steps.Select(step => (step.Item1, step.Item4, LibraryChange(step.Item2, step.Item3)))));

    private static readonly Gen<List<Operation>> Notebook = Gen.Select(Gen.Int[0, 2], Gen.Int[0, 7], Gen.Int[1, 9].Array[4], Gen.Int[0, 5])
        .Array[1, 40]
        .Select(steps => Made(steps.Select(step => (step.Item1, step.Item4, NotebookChange(step.Item2, step.Item3)))));

    [Fact]
    public void A_page_is_the_same_in_whatever_order_it_was_heard_of_and_so_is_what_each_can_undo() =>
        Gen.Select(Page, Gen.Int)
            .Sample(
                (history, seed) =>
                {
                    var known = Shown(history);
                    foreach (var heard in Heard(history, seed))
                        Assert.Equal(known, Shown(heard));
                },
                iter: Cases,
                print: Printed
            );

    [Fact]
    public void A_library_is_the_same_in_whatever_order_it_was_heard_of_and_no_tag_is_hidden() =>
        Gen.Select(Library, Gen.Int)
            .Sample(
                (history, seed) =>
                {
                    var known = ShownLibrary(history);
                    foreach (var heard in Heard(history, seed))
                        Assert.Equal(known, ShownLibrary(heard));
                },
                iter: Cases,
                print: Printed
            );

    [Fact]
    public void A_notebook_is_the_same_in_whatever_order_it_was_heard_of() =>
        Gen.Select(Notebook, Gen.Int)
            .Sample(
                (history, seed) =>
                {
                    var known = ShownNotebook(history);
                    foreach (var heard in Heard(history, seed))
                        Assert.Equal(known, ShownNotebook(heard));
                },
                iter: Cases,
                print: Printed
            );

    [Fact]
    public void Layers_merged_in_a_ring_stand_for_each_other_by_the_smallest_whichever_was_heard_of_first()
    {
        Replica ines = new(1, Generate.People[0]),
            tobias = new(2, Generate.People[1]);
        Guid[] layers = [Generate.Node(1), Generate.Node(2), Generate.Node(3)];
        var history = layers
            .Select((layer, i) => ines.Make(new Change.LayerSet(layer, [new LayerValue(LayerField.Name, $"layer {i}")]), i))
            .ToList();
        for (var i = 0; i < 3; i++)
            history.Add(
                tobias.Make(new Change.LayerSet(layers[i], [new LayerValue(LayerField.MergedInto, layers[(i + 1) % 3].ToString())]), 10 + i)
            );
        var stroke = ines.Make(new Change.StrokeAdded(new Pen(PenKind.Ball, 40, 0xFF), 0, Generate.Wave(5)) { Layer = layers[2] }, 20);
        // What was undone must not count for how far a ring is followed.
        var other = ines.Make(new Change.LayerSet(Generate.Node(4), [new LayerValue(LayerField.Hidden, "1")]), 21);
        var undone = ines.Make(new Change.EffectSet(other.Id, false), 22);
        foreach (var end in new Operation[][] { [stroke], [stroke, other, undone], [other, stroke, undone], [undone, stroke, other] })
        {
            var page = new PageDocument();
            foreach (var operation in history.Concat(end))
                page.Apply(operation);
            Assert.Equal(layers.Min(), page.Find(stroke.Id)!.Layer!.Id);
        }
    }

    [Fact]
    public void What_names_a_thing_twice_does_it_once_and_taking_it_back_takes_all_of_it_back()
    {
        var device = new Replica(1, Generate.People[0]);
        var stroke = device.Make(new Change.StrokeAdded(new Pen(PenKind.Ball, 40, 0xFF), 0, Generate.Wave(5)), 1);
        var twice = new[] { stroke.Id, stroke.Id };
        foreach (
            var change in new Change[]
            {
                new Change.ItemsShifted(twice, 100, 50),
                new Change.ItemsTransformed(twice, [], Transform.Shift(100, 50)),
                new Change.ItemsRemoved(twice),
                new Change.GapsAdded([
                    new StrokeGaps(stroke.Id, [new Interval(0, 100)]),
                    new StrokeGaps(stroke.Id, [new Interval(300, 400)]),
                ]),
            }
        )
        {
            var page = new PageDocument();
            page.Apply(stroke);
            var before = page.EncodeState();
            var step = device.Make(change, 2);
            page.Apply(step);
            if (change is Change.ItemsShifted or Change.ItemsTransformed)
                Assert.Equal((100, 50), (page.Items[0].Dx, page.Items[0].Dy));
            if (change is Change.GapsAdded)
                Assert.Equal(2, page.Items[0].Visible().Count);
            page.Apply(device.Make(new Change.EffectSet(step.Id, false), 3));
            Assert.Equal(before, page.EncodeState());
        }
    }

    [Fact]
    public void Tags_that_people_merged_across_each_other_are_all_still_there() =>
        Gen.Select(Gen.Int[1, 7], Gen.Int[0, 7], Gen.Bool)
            .Array[1, 14]
            .Sample(
                steps =>
                {
                    var device = new Replica(1, Generate.People[0]);
                    var library = new LibraryDocument();
                    for (var i = 1; i <= 7; i++)
                    {
                        library.Apply(device.Make(new Change.NodePlaced(Generate.Node(i), NodeKind.Tag, Guid.Empty, "V"), i));
                        library.Apply(device.Make(new Change.PropertySet(Generate.Node(i), Property.Name, $"tag {i}"), i));
                    }

                    foreach (var (from, into, merges) in steps)
                        library.Apply(
                            device.Make(
                                merges
                                    ? new Change.PropertySet(
                                        Generate.Node(from),
                                        Property.MergedInto,
                                        into == 0 ? "" : Generate.Node(into).ToString()
                                    )
                                    : new Change.NodePlaced(
                                        Generate.Node(from),
                                        NodeKind.Tag,
                                        into == 0 ? Guid.Empty : Generate.Node(into),
                                        "V"
                                    ),
                                100
                            )
                        );
                    AssertAllTagsShown(library);
                },
                iter: Cases
            );

    [Fact]
    public void A_today_page_that_was_erased_or_went_elsewhere_is_followed_by_a_new_one_on_every_device()
    {
        var notebook = Guid.NewGuid();
        var day = new DateOnly(2026, 11, 27);
        Replica phone = new(1, Generate.People[0]),
            laptop = new(2, Generate.People[0]);
        var document = new NotebookDocument();
        var first = TodayPage.In(document, notebook, day);
        document.Apply(phone.Make(new Change.PageAdded(first, "V", "a4-ruled-710"), 1));
        Assert.Equal(first, TodayPage.In(document, notebook, day));
        document.Apply(laptop.Make(new Change.PropertySet(first, Property.Erased, "1"), 2));
        var second = TodayPage.In(document, notebook, day);
        Assert.NotEqual(first, second);
        document.Apply(phone.Make(new Change.PageAdded(second, "V", "a4-ruled-710"), 3));
        Assert.Equal([second], document.Pages().Select(page => page.Id));
        document.Apply(phone.Make(new Change.PropertySet(second, Property.MovedTo, Guid.NewGuid().ToString()), 4));
        var third = TodayPage.In(document, notebook, day);
        Assert.Equal(3, new[] { first, second, third }.Distinct().Count());
        // Other days, and as many pages of one day as anybody will erase, have ids of their own.
        var many = Enumerable
            .Range(0, 400)
            .SelectMany(i => Enumerable.Range(0, 20).Select(nth => TodayPage.IdOf(notebook, day.AddDays(i), nth)));
        Assert.Equal(8_000, many.Distinct().Count());
    }

    /// <summary>Histories as others may hear them: shuffled, repeated, each device's in its own order, and in batches through the codec.</summary>
    private static IEnumerable<List<Operation>> Heard(List<Operation> history, int seed)
    {
        var random = new Random(seed);
        var mixed = history.Concat(history.Where(_ => random.Next(3) == 0)).ToArray();
        random.Shuffle(mixed);
        yield return [.. mixed];
        // Every device's own operations in their order, as a network keeps them, but the devices in any order among each other.
        var lines = history.GroupBy(operation => operation.Id.Replica).Select(line => new Queue<Operation>(line)).ToList();
        var causal = new List<Operation>();
        while (lines.RemoveAll(line => line.Count == 0) >= 0 && lines.Count > 0)
            causal.Add(lines[random.Next(lines.Count)].Dequeue());
        yield return causal;
        yield return
        [
            .. causal.Chunk(1 + random.Next(5)).Reverse().SelectMany(batch => OperationCodec.Decode(OperationCodec.Encode(batch))),
        ];
        yield return [.. Enumerable.Reverse(history)];
        // As a snapshot holds them.
        yield return [.. history.OrderBy(operation => operation.Stamp)];
    }

    private static List<Operation> Made(IEnumerable<(int Who, int Later, Change Change)> steps)
    {
        var counters = new ulong[3];
        var history = new List<Operation>();
        foreach (var (who, later, change) in steps)
            // Times are few, so that many are equal, and go back as often as on.
            history.Add(new Operation(new OpId((ulong)who + 1, ++counters[who]), Hlc.At(1_000 + later), Generate.People[who], change));
        return history;
    }

    private static OpId Op(int number) => new((ulong)(number % 3) + 1, (ulong)(number / 3) + 1);

    private static Change PageChange(int what, int[] n, StrokeSamples samples)
    {
        OpId[] items = [Op(n[0]), Op(n[1]), Op(n[n[2] % 2])];
        var layer = Generate.Node(n[0] % 4);
        return what switch
        {
            0 => new Change.ItemsRemoved(items),
            1 => new Change.ItemsShifted(items, n[2] * 10, n[3] * 10),
            2 => new Change.GapsAdded([
                new StrokeGaps(items[0], [new Interval(n[2], n[2] + n[3] * 50)]),
                new StrokeGaps(items[2], [new Interval(0, n[3])]),
            ]),
            3 or 4 => new Change.EffectSet(items[0], n[1] % 2 == 0),
            5 => new Change.LayerSet(
                Generate.Node(1 + n[0] % 3),
                [
                    new LayerValue(
                        LayerField.MergedInto,
                        Generate.Node(1 + (n[0] + n[1]) % 3) is var into && into != Generate.Node(1 + n[0] % 3) ? into.ToString() : ""
                    ),
                ]
            ),
            6 => new Change.LayerSet(
                Generate.Node(1 + n[0] % 3),
                [new LayerValue(LayerField.Name, $"layer {n[1]}"), new LayerValue(LayerField.Order, $"{n[2] % 3 + 1}")]
            ),
            7 => new Change.LayerSet(
                Generate.Node(1 + n[0] % 3),
                [new LayerValue(n[1] % 2 == 0 ? LayerField.Erased : LayerField.Hidden, n[2] % 2 == 0 ? "1" : "")]
            ),
            8 => new Change.ItemsTransformed(
                items,
                [Generate.Node(n[2]), Generate.Node(n[2])],
                Transform.Scale(0.5 + n[3] / 5.0, n[0], n[1])
            ),
            9 => new Change.SpotAdded(
                Generate.Node(n[0] % 3 + 1),
                SpotKind.Mark,
                new Box(n[0], n[1], n[0] + 50, n[1] + 50),
                items,
                [new SpotValue(SpotField.Mark, "todo")]
            ),
            10 => new Change.SpotSet(
                Generate.Node(n[0] % 3 + 1),
                [new SpotValue(n[1] % 2 == 0 ? SpotField.Done : SpotField.Removed, n[2] % 2 == 0 ? "1" : "")]
            ),
            11 => new Change.StepsJoined(items),
            12 => new Change.ItemsSet(
                items,
                [new ItemValue(ItemField.Layer, Generate.Node(n[2] % 4).ToString()), new ItemValue(ItemField.Order, $"{n[3]}")]
            ),
            _ => new Change.StrokeAdded(new Pen(PenKind.Ball, 40, 0xFF), n[2], samples) { Layer = layer },
        };
    }

    private static Change LibraryChange(int what, int[] n) =>
        what switch
        {
            0 => new Change.PropertySet(Generate.Node(n[0]), Property.Name, $"name {n[1] % 2}"),
            1 when n[1] % 2 == 0 => new Change.PropertySet(Generate.Node(n[0]), Property.Binned, n[2] % 3 == 0 ? "" : "1"),
            1 => new Change.PropertySet(Generate.Node(n[0]), Property.Erased, new[] { "", "1", Erasings.Alone }[n[2] % 3]),
            2 => new Change.TagSet(Generate.Node(n[0]), Generate.Node(n[1]), n[2] % 2 == 0),
            3 => new Change.PropertySet(Generate.Node(n[0]), Property.MergedInto, n[1] == n[0] ? "" : Generate.Node(n[1]).ToString()),
            4 => new Change.OrdersSet([.. n.Distinct().Select(one => new NodeOrder(Generate.Node(one), $"{1 + one * n[0] % 5}"))]),
            5 => new Change.Visited(Generate.Node(99), Generate.Node(n[0])),
            _ => new Change.NodePlaced(
                Generate.Node(n[0]),
                n[0] < 4 ? NodeKind.Folder
                    : n[0] < 6 ? NodeKind.Notebook
                    : NodeKind.Tag,
                n[1] == 9 ? Guid.Empty : Generate.Node(n[1]),
                $"{1 + n[2] % 4}"
            ),
        };

    private static Change NotebookChange(int what, int[] n) =>
        what switch
        {
            0 => new Change.PropertySet(Generate.Node(n[0]), Property.Name, $"name {n[1]}"),
            1 when n[1] % 2 == 0 => new Change.PropertySet(Generate.Node(n[0]), Property.Binned, n[2] % 3 == 0 ? "" : "1"),
            1 => new Change.PropertySet(Generate.Node(n[0]), Property.Erased, new[] { "", "1", Erasings.Alone }[n[2] % 3]),
            2 => new Change.PropertySet(Generate.Node(n[0]), Property.MovedTo, n[2] % 3 == 0 ? "" : Generate.Node(n[1]).ToString()),
            3 => new Change.OrdersSet([.. n.Distinct().Select(one => new NodeOrder(Generate.Node(one), $"{1 + one * n[0] % 5}"))]),
            4 => new Change.PageAdded(Generate.Node(n[0]), $"{1 + n[2] % 4}", "a4-ruled-710"),
            _ => new Change.NodePlaced(
                Generate.Node(n[0]),
                n[0] < 4 ? NodeKind.Section : NodeKind.Page,
                n[1] == 9 ? Guid.Empty : Generate.Node(n[1]),
                $"{1 + n[2] % 4}"
            ),
        };

    private static string Shown(List<Operation> history)
    {
        var page = new PageDocument();
        foreach (var operation in history)
            page.Apply(operation);
        var steps = Generate.People.Select(person =>
            $"undo {Targets(page.Undo(person))} redo {Targets(page.Redo(person))} {page.CanUndo(person)} {page.CanRedo(person)}"
        );
        return Convert.ToHexString(page.EncodeState()) + string.Join(' ', steps) + page.Bounds();
    }

    private static string Targets(List<Change> changes) =>
        string.Join(' ', changes.Cast<Change.EffectSet>().Select(change => $"{change.Target} {change.Active}"));

    private static string ShownLibrary(List<Operation> history)
    {
        var library = new LibraryDocument();
        foreach (var operation in history)
        {
            library.Apply(operation);
            // What is looked at on the way must make no difference.
            _ = library.Nodes();
        }

        AssertAllTagsShown(library);
        var nodes = library
            .AllNodes()
            .OrderBy(node => node.Id)
            .Select(node => $"{node.Id} {node.Parent} {node.Order} {node.Name} {node.InBin} {node.BinnedAt} {node.CreatedAt}");
        var tags = new TagTree(library.Nodes()).All.Select(tag => $"{tag.Path} {string.Join(' ', tag.Ids.Order())}");
        return Convert.ToHexString(library.EncodeState())
            + string.Join('\n', nodes.Concat(tags))
            + string.Join(' ', library.ErasedNotebooks().Order());
    }

    private static string ShownNotebook(List<Operation> history)
    {
        var notebook = new NotebookDocument();
        foreach (var operation in history)
            notebook.Apply(operation);
        var outline = notebook.Outline(withBinned: true);
        Assert.Equal(outline.Count, outline.DistinctBy(entry => entry.Id).Count());
        var entries = outline.Select(entry =>
            $"{entry.Id} {entry.Parent} {entry.Order} {entry.Title} {entry.InBin} {entry.BinnedAt} {entry.CreatedAt}"
        );
        return Convert.ToHexString(notebook.EncodeState())
            + string.Join('\n', entries)
            + string.Join(' ', notebook.Erased().Order())
            + string.Join(' ', notebook.Moved().Order());
    }

    /// <summary>Every tag that is not in the bin is one of those that are listed, or stands for one.</summary>
    private static void AssertAllTagsShown(LibraryDocument library)
    {
        var tree = new TagTree(library.Nodes());
        foreach (var node in library.Nodes().Where(node => node is { Kind: NodeKind.Tag, InBin: false }))
            Assert.True(tree.Find(node.Id) is { } tag && tree.All.Contains(tag), $"{node.Id} is hidden");
    }

    private static string Printed((List<Operation> History, int Seed) found) =>
        string.Join('\n', found.History.Select(operation => $"{operation.Id} {operation.Time.UnixMilliseconds} {operation.Change}"))
        + $"\nseed {found.Seed}";
}
