using CalmQuill.Core.Library;
using CalmQuill.Core.Notebooks;
using CalmQuill.Core.Operations;
using CalmQuill.Testing;
using CsCheck;

namespace CalmQuill.Core.Tests;

/// <summary>Nothing is ever in neither notebook nor bin: by hand, and by three devices that bin, erase, move and make things without knowing of each other.</summary>
public sealed class BinTests
{
    private readonly Replica ines = new(1, Generate.People[0]),
        tobias = new(2, Generate.People[1]),
        later = new(9, Generate.People[0]);

    private static readonly Gen<(int Who, int What, int A, int B)[]> Steps = Gen.Select(
        Gen.Int[0, 2],
        Gen.Int[0, 11],
        Gen.Int[0, 40],
        Gen.Int[0, 40]
    ).Array[1, 60];

    [Fact]
    public void A_page_that_comes_into_a_section_which_was_erased_elsewhere_stands_where_the_section_stood()
    {
        var (chapter, section, known, late) = (Generate.Node(1), Generate.Node(2), Generate.Node(3), Generate.Node(4));
        var notebook = new NotebookDocument();
        void Do(Replica who, long at, Change change) => notebook.Apply(who.Make(change, at));
        Do(ines, 1, new Change.NodePlaced(chapter, NodeKind.Section, Guid.Empty, "V"));
        Do(ines, 2, new Change.NodePlaced(section, NodeKind.Section, chapter, "V"));
        Do(ines, 3, new Change.NodePlaced(known, NodeKind.Page, section, "V"));
        // Made before the erasing, by the clock, and heard of after it.
        var made = tobias.Make(new Change.NodePlaced(late, NodeKind.Page, section, "W"), 4);
        Do(ines, 5, new Change.PropertySet(section, Property.Binned, "5"));
        foreach (var change in notebook.Erase([section]))
            Do(ines, 6, change);
        Assert.Equal([chapter], notebook.Outline(withBinned: true).Select(entry => entry.Id));
        Assert.Equal([known], notebook.Erased());
        notebook.Apply(made);
        var entry = Assert.Single(notebook.Pages());
        Assert.Equal((late, chapter, false), (entry.Id, entry.Parent, entry.InBin));
        Assert.Equal([known], notebook.Erased());
    }

    [Fact]
    public void What_an_earlier_version_erased_with_all_in_it_stays_erased()
    {
        var (section, page) = (Generate.Node(1), Generate.Node(2));
        var notebook = new NotebookDocument();
        notebook.Apply(ines.Make(new Change.NodePlaced(section, NodeKind.Section, Guid.Empty, "V"), 1));
        notebook.Apply(ines.Make(new Change.NodePlaced(page, NodeKind.Page, section, "V"), 2));
        notebook.Apply(ines.Make(new Change.PropertySet(section, Property.Erased, "1700000000000"), 3));
        Assert.Empty(notebook.Outline(withBinned: true));
        Assert.Equal([page], notebook.Erased());
    }

    [Fact]
    public void A_place_is_there_only_when_nothing_above_it_is_in_the_bin_erased_or_elsewhere()
    {
        var (chapter, section, page, below) = (Generate.Node(1), Generate.Node(2), Generate.Node(3), Generate.Node(4));
        (Property Property, Guid Of, string Value, bool Pages, bool Belows)[] cases =
        [
            (Property.Binned, chapter, "1", false, false),
            (Property.Binned, section, "1", false, false),
            (Property.Binned, page, "1", true, false),
            (Property.Erased, section, Erasings.Alone, false, true),
            (Property.Erased, section, "1", false, false),
            (Property.Erased, chapter, Erasings.Alone, true, true),
            (Property.MovedTo, section, Generate.Node(9).ToString(), false, true),
            (Property.Name, section, "Verge", true, true),
        ];
        foreach (var (property, of, value, pages, belows) in cases)
        {
            var notebook = new NotebookDocument();
            (Guid Node, NodeKind Kind, Guid Parent)[] tree =
            [
                (chapter, NodeKind.Section, Guid.Empty),
                (section, NodeKind.Section, chapter),
                (page, NodeKind.Page, section),
                (below, NodeKind.Page, page),
            ];
            foreach (var (node, kind, parent) in tree)
                notebook.Apply(ines.Make(new Change.NodePlaced(node, kind, parent, "V"), 1));
            notebook.Apply(ines.Make(new Change.PropertySet(of, property, value), 2));
            Assert.True((pages, belows) == (notebook.PlaceIsThere(page), notebook.PlaceIsThere(below)), $"{property} of {of} {value}");
        }
    }

    [Fact]
    public void Sections_and_pages_that_nobody_erased_are_in_the_notebook_or_in_the_bin_and_can_be_put_back_from_there() =>
        Steps.Sample(
            steps =>
            {
                var devices = new[] { new NotebookDocument(), new NotebookDocument(), new NotebookDocument() };
                var operations = Play(
                    steps,
                    (who, operation) => devices[who].Apply(operation),
                    who => [.. devices[who].Outline(withBinned: true).Select(entry => (entry.Id, entry.Kind, entry.BinnedAt is not null))],
                    (who, ids) => devices[who].Erase(ids),
                    [NodeKind.Section, NodeKind.Page]
                );
                var notebook = new NotebookDocument();
                foreach (var operation in operations)
                    notebook.Apply(operation);
                var outline = notebook.Outline(withBinned: true);
                Assert.Equal(Standing(operations), outline.Select(entry => entry.Id).Order());
                // All in the bin is there by a row of its own or lies in something that has one.
                var byId = outline.ToDictionary(entry => entry.Id);
                foreach (var entry in outline.Where(entry => entry.InBin))
                {
                    var at = entry;
                    while (at.BinnedAt is null)
                        at = byId[at.Parent];
                }

                // Put back row by row, with a place asked for where it is gone, everything is in the notebook again.
                foreach (var row in outline.Where(entry => entry.BinnedAt is not null))
                {
                    var isThere = notebook.PlaceIsThere(row.Id);
                    notebook.Apply(later.Make(new Change.PropertySet(row.Id, Property.Binned, ""), 2_000_000));
                    if (!isThere)
                        notebook.Apply(later.Make(new Change.NodePlaced(row.Id, row.Kind, Guid.Empty, "V"), 2_000_000));
                    Assert.False(notebook.Outline(withBinned: true).Single(entry => entry.Id == row.Id).InBin);
                }

                Assert.Equal(Standing(operations), notebook.Outline().Select(entry => entry.Id).Order());
            },
            iter: 2_000
        );

    [Fact]
    public void Folders_and_notebooks_that_nobody_erased_are_in_the_library_or_in_the_bin() =>
        Steps.Sample(
            steps =>
            {
                var devices = new[] { new LibraryDocument(), new LibraryDocument(), new LibraryDocument() };
                var operations = Play(
                    steps,
                    (who, operation) => devices[who].Apply(operation),
                    who => [.. devices[who].Nodes().Select(node => (node.Id, node.Kind, node.BinnedAt is not null))],
                    (who, ids) => devices[who].Erase(ids),
                    [NodeKind.Folder, NodeKind.Notebook]
                );
                var library = new LibraryDocument();
                foreach (var operation in operations)
                    library.Apply(operation);
                var nodes = library.Nodes();
                Assert.Equal(Standing(operations), nodes.Select(node => node.Id).Order());
                var byId = nodes.ToDictionary(node => node.Id);
                foreach (var node in nodes)
                {
                    // What it is shown in is there, and it is in the bin by itself or by that.
                    Assert.True(node.Parent == Guid.Empty || byId.ContainsKey(node.Parent));
                    Assert.Equal(node.BinnedAt is not null || (byId.GetValueOrDefault(node.Parent)?.InBin ?? false), node.InBin);
                }
            },
            iter: 2_000
        );

    /// <summary>What three devices do, each by what it knows; now and then one hears of all that the others did.</summary>
    private static List<Operation> Play(
        (int Who, int What, int A, int B)[] steps,
        Action<int, Operation> apply,
        Func<int, List<(Guid Id, NodeKind Kind, bool IsBinned)>> shown,
        Func<int, IReadOnlyCollection<Guid>, List<Change>> erase,
        NodeKind[] kinds
    )
    {
        var all = new List<Operation>();
        var counters = new ulong[3];
        var heard = new int[3];
        var fresh = 1;
        foreach (var (who, what, a, b) in steps)
        {
            // Clocks are apart by some steps.
            void Do(Change change)
            {
                var operation = new Operation(
                    new OpId((ulong)who + 1, ++counters[who]),
                    Hlc.At(1_000 + all.Count + 5 * who),
                    Generate.People[who],
                    change
                );
                all.Add(operation);
                apply(who, operation);
            }

            var known = shown(who);
            var one = known.Count > 0 ? known[a % known.Count] : default;
            var other = known.Count > 0 && b % 4 > 0 ? known[b % known.Count].Id : Guid.Empty;
            if (what <= 3 || known.Count == 0)
                Do(new Change.NodePlaced(Generate.Node(fresh++), kinds[a % 2], other, $"{1 + b % 4}"));
            else if (what <= 5)
                Do(new Change.NodePlaced(one.Id, one.Kind, other, $"{1 + b % 4}"));
            else if (what <= 7)
                Do(new Change.PropertySet(one.Id, Property.Binned, one.IsBinned ? "" : "1"));
            else if (what == 8)
            {
                foreach (var change in erase(who, [.. known.Where(entry => entry.IsBinned).Select(entry => entry.Id)]))
                    Do(change);
            }
            else if (what <= 10)
            {
                foreach (var operation in all.Skip(heard[who]).ToList())
                    apply(who, operation);
                heard[who] = all.Count;
            }
        }

        return all;
    }

    /// <summary>All that was made and that nobody erased.</summary>
    private static IEnumerable<Guid> Standing(List<Operation> operations) =>
        operations
            .Select(operation => operation.Change)
            .OfType<Change.NodePlaced>()
            .Select(placed => placed.Node)
            .Except(
                operations
                    .Select(operation => operation.Change)
                    .OfType<Change.PropertySet>()
                    .Where(set => set.Property == Property.Erased)
                    .Select(set => set.Target)
            )
            .Distinct()
            .Order();
}
