using CalmQuill.Core.Library;
using CalmQuill.Core.Notebooks;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Ordering;
using CalmQuill.Core.Pages;
using CalmQuill.Testing;
using CsCheck;

namespace CalmQuill.Core.Tests;

/// <summary>The state depends on the set of operations alone: any order, any repetition, gaps filled later.</summary>
public class MergingTests
{
    private const int Cases = 1000;

    [Fact]
    public void Pages_that_hold_the_same_operations_are_the_same_to_the_byte() =>
        Gen.Select(Generate.PageHistory, Gen.Int)
            .Sample(
                (history, seed) =>
                {
                    var straight = new PageDocument();
                    foreach (var operation in history)
                        Assert.True(straight.Apply(operation));
                    var mixed = new PageDocument();
                    foreach (var operation in Shuffled(history, seed))
                        mixed.Apply(operation);
                    Assert.Equal(straight.EncodeState(), mixed.EncodeState());
                    Assert.Equal(straight.Undo(Generate.People[0]), mixed.Undo(Generate.People[0]));
                    Assert.Equal(straight.Redo(Generate.People[1]), mixed.Redo(Generate.People[1]));
                },
                iter: Cases
            );

    [Fact]
    public void Libraries_that_hold_the_same_operations_are_the_same_and_free_of_cycles() =>
        Gen.Select(Generate.LibraryHistory, Gen.Int)
            .Sample(
                (history, seed) =>
                {
                    var straight = new LibraryDocument();
                    foreach (var operation in history)
                        straight.Apply(operation);
                    var mixed = new LibraryDocument();
                    foreach (var operation in Shuffled(history, seed))
                        mixed.Apply(operation);
                    Assert.Equal(straight.EncodeState(), mixed.EncodeState());
                    var parents = straight.Nodes().ToDictionary(node => node.Id, node => node.Parent);
                    foreach (var start in parents.Keys)
                    {
                        var at = start;
                        for (var steps = 0; at != Guid.Empty; at = parents[at])
                            Assert.True(++steps <= parents.Count, "a folder lies in itself");
                    }
                },
                iter: Cases
            );

    [Fact]
    public void Notebooks_merge_pages_put_at_the_same_place() =>
        Gen.Select(Gen.Int[1, 12], Gen.Int)
            .Sample(
                (count, seed) =>
                {
                    var devices = Generate.People.Select((person, i) => new Replica((ulong)i + 1, person)).ToArray();
                    var history = Enumerable
                        .Range(1, count)
                        .Select(i =>
                            devices[i % 3]
                                .Make(
                                    new Change.PageAdded(Generate.Node(i), OrderKey.Between("5", "6", (ulong)(seed & 3)), "a4-ruled-710"),
                                    i * 10
                                )
                        )
                        .ToList();
                    NotebookDocument straight = new(),
                        mixed = new();
                    foreach (var operation in history)
                        straight.Apply(operation);
                    foreach (var operation in Shuffled(history, seed))
                        mixed.Apply(operation);
                    Assert.Equal(straight.EncodeState(), mixed.EncodeState());
                    Assert.Equal(straight.Pages(), mixed.Pages());
                    Assert.Equal(count, mixed.Pages().Count);
                },
                iter: 200
            );

    [Fact]
    public void Two_people_who_put_folders_into_each_other_lose_neither()
    {
        Replica ines = new(1, Generate.People[0]),
            tobias = new(2, Generate.People[1]);
        var library = new LibraryDocument();
        Guid a = Generate.Node(1),
            b = Generate.Node(2);
        foreach (
            var operation in new[]
            {
                ines.Make(new Change.NodePlaced(a, NodeKind.Folder, Guid.Empty, "V"), 1),
                ines.Make(new Change.NodePlaced(b, NodeKind.Folder, Guid.Empty, "W"), 2),
                tobias.Make(new Change.NodePlaced(b, NodeKind.Folder, a, "V"), 11),
                ines.Make(new Change.NodePlaced(a, NodeKind.Folder, b, "V"), 10),
            }
        )
            library.Apply(operation);
        // The earlier move counts; the later one would close a circle and has no effect.
        Assert.Equal(b, library.Nodes().Single(node => node.Id == a).Parent);
        Assert.Equal(Guid.Empty, library.Nodes().Single(node => node.Id == b).Parent);
    }

    [Fact]
    public void What_is_moved_into_a_binned_folder_is_in_the_bin_with_it_and_comes_back_with_it()
    {
        Replica ines = new(1, Generate.People[0]),
            tobias = new(2, Generate.People[1]);
        var library = new LibraryDocument();
        Guid folder = Generate.Node(1),
            notebook = Generate.Node(7);
        library.Apply(ines.Make(new Change.NodePlaced(folder, NodeKind.Folder, Guid.Empty, "V"), 1));
        library.Apply(ines.Make(new Change.NodePlaced(notebook, NodeKind.Notebook, Guid.Empty, "W"), 2));
        library.Apply(ines.Make(new Change.PropertySet(folder, Property.Binned, "1700000000000"), 3));
        library.Apply(tobias.Make(new Change.NodePlaced(notebook, NodeKind.Notebook, folder, "V"), 4));
        Assert.True(library.Nodes().Single(node => node.Id == notebook).InBin);
        library.Apply(ines.Make(new Change.PropertySet(folder, Property.Binned, ""), 5));
        Assert.False(library.Nodes().Single(node => node.Id == notebook).InBin);
        Assert.Equal(folder, library.Nodes().Single(node => node.Id == notebook).Parent);
    }

    /// <summary>Every operation at least once, some several times, in an order drawn from the seed.</summary>
    private static List<Operation> Shuffled(List<Operation> history, int seed)
    {
        var random = new Random(seed);
        var mixed = history.Concat(history.Where(_ => random.Next(3) == 0)).ToArray();
        random.Shuffle(mixed);
        return [.. mixed];
    }
}
