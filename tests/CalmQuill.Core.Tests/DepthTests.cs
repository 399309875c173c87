using CalmQuill.Core.Library;
using CalmQuill.Core.Notebooks;
using CalmQuill.Core.Operations;
using CalmQuill.Testing;
using CsCheck;

namespace CalmQuill.Core.Tests;

/// <summary>Whatever people nest, nothing overflows, nothing takes for ever, and everything is shown somewhere.</summary>
public sealed class DepthTests
{
    private readonly Replica ines = new(1, Generate.People[0]);
    private long clock = 1_700_000_000_000;

    [Theory]
    [InlineData(false)]
    [InlineData(true)]
    public void Sixty_thousand_folders_in_each_other_are_all_there_and_none_is_deeper_than_folders_go(bool innermostFirst)
    {
        const int count = 60_000;
        var library = new LibraryDocument();
        var order = Enumerable.Range(1, count);
        foreach (var i in innermostFirst ? order.Reverse() : order)
            Do(library, new Change.NodePlaced(Generate.Node(i), NodeKind.Folder, Generate.Node(i - 1), "V"));
        var nodes = library.Nodes().ToDictionary(node => node.Id);
        Assert.Equal(count, nodes.Count);
        Assert.InRange(nodes.Values.Max(node => DepthOf(nodes, node.Id)), 2, LibraryDocument.MostDepth);
        // Binning the outermost takes all that lies in it along, also what is shown at the limit.
        Do(library, new Change.PropertySet(Generate.Node(1), Property.Binned, "1"));
        Assert.True(library.Nodes().Count(node => node.InBin) >= LibraryDocument.MostDepth);
    }

    [Fact]
    public void Folders_that_get_deep_by_moving_are_shown_at_the_limit_beside_what_they_lie_in()
    {
        var library = new LibraryDocument();
        // Two towers of 150, then the one put under the other.
        for (var tower = 0; tower < 2; tower++)
        {
            for (var i = 1; i <= 150; i++)
                Do(
                    library,
                    new Change.NodePlaced(
                        Generate.Node(tower * 1000 + i),
                        NodeKind.Folder,
                        i == 1 ? Guid.Empty : Generate.Node(tower * 1000 + i - 1),
                        "V"
                    )
                );
        }

        Do(library, new Change.NodePlaced(Generate.Node(1001), NodeKind.Folder, Generate.Node(150), "V"));
        var nodes = library.Nodes().ToDictionary(node => node.Id);
        Assert.Equal(300, nodes.Count);
        Assert.Equal(LibraryDocument.MostDepth, nodes.Values.Max(node => DepthOf(nodes, node.Id)));
        Assert.Equal(nodes[Generate.Node(1050)].Parent, nodes[Generate.Node(1100)].Parent);
        // Moved back up, it is as it was.
        Do(library, new Change.NodePlaced(Generate.Node(1001), NodeKind.Folder, Guid.Empty, "V"));
        nodes = library.Nodes().ToDictionary(node => node.Id);
        Assert.Equal(150, DepthOf(nodes, Generate.Node(1150)));
    }

    [Fact]
    public void What_is_shown_of_a_library_follows_from_its_operations_however_they_came() =>
        Generate.LibraryHistory.Sample(
            history =>
            {
                LibraryDocument forth = new(),
                    back = new();
                foreach (var operation in history)
                    forth.Apply(operation);
                foreach (var operation in history.AsEnumerable().Reverse())
                    back.Apply(operation);
                Assert.Equal(Shown(forth), Shown(back));
            },
            iter: 1_000
        );

    [Fact]
    public void Twelve_thousand_sections_and_pages_in_each_other_come_in_reading_order()
    {
        const int count = 12_000;
        var notebook = new NotebookDocument();
        for (var i = 1; i <= count; i++)
            Do(notebook, new Change.NodePlaced(Generate.Node(i), NodeKind.Section, Generate.Node(i - 1), "V"));
        for (var i = count + 1; i <= 2 * count; i++)
            Do(notebook, new Change.NodePlaced(Generate.Node(i), NodeKind.Page, Generate.Node(i - 1), "V"));
        var outline = notebook.Outline();
        Assert.Equal(2 * count, outline.Count);
        Assert.All(outline, entry => Assert.InRange(entry.Depth, 0, NotebookDocument.MostDepth));
        var seen = new HashSet<Guid> { Guid.Empty };
        Assert.All(
            outline,
            entry =>
            {
                Assert.Contains(entry.Parent, seen);
                seen.Add(entry.Id);
            }
        );
        Assert.Equal(count, notebook.Pages().Count);
        Assert.True(notebook.PageLevels(Generate.Node(count + 1)).Below > 0);
        Do(notebook, new Change.PropertySet(Generate.Node(count + 500), Property.Erased, "1"));
        Assert.Equal(count - notebook.Pages().Count, notebook.Erased().Count);
        Assert.True(notebook.Erased().Count > 100);
    }

    [Fact]
    public void Tags_nested_and_merged_in_long_rows_are_all_found_and_stand_for_one()
    {
        const int count = 20_000;
        var library = new LibraryDocument();
        for (var i = 1; i <= count; i++)
        {
            Do(library, new Change.PropertySet(Generate.Node(i), Property.Name, $"tag {i}"));
            Do(library, new Change.NodePlaced(Generate.Node(i), NodeKind.Tag, Generate.Node(i - 1), "V"));
            Do(library, new Change.PropertySet(Generate.Node(count + i), Property.Name, $"merged {i}"));
            Do(library, new Change.NodePlaced(Generate.Node(count + i), NodeKind.Tag, Guid.Empty, "V"));
            if (i > 1)
                Do(library, new Change.PropertySet(Generate.Node(count + i), Property.MergedInto, Generate.Node(count + i - 1).ToString()));
        }

        var tags = new TagTree(library.Nodes());
        for (var i = 1; i <= count; i++)
            Assert.NotNull(tags.Find(Generate.Node(i)));
        Assert.Equal(Generate.Node(count + 1), tags.Find(Generate.Node(2 * count))!.Id);
        Assert.All(tags.All, tag => Assert.True(TagTree.Parts(tag.Path).Length <= TagTree.MostDepth));
        // A ring of all of them: the smallest id stands.
        Do(library, new Change.PropertySet(Generate.Node(count + 1), Property.MergedInto, Generate.Node(2 * count).ToString()));
        Assert.Equal(Generate.Node(count + 1), new TagTree(library.Nodes()).Find(Generate.Node(2 * count - 7))!.Id);
    }

    [Fact]
    public void A_copy_of_a_tower_of_folders_has_as_many()
    {
        var nodes = new List<LibraryNode>();
        var library = new LibraryDocument();
        for (var i = 1; i <= 20_000; i++)
            Do(library, new Change.NodePlaced(Generate.Node(i), NodeKind.Folder, Generate.Node(i - 1), "V"));
        nodes = library.Nodes();
        var copied = 0;
        foreach (var top in nodes.Where(node => node.Parent == Guid.Empty))
            copied += LibraryCopy
                .Plan(nodes, top.Id, Guid.Empty, "V", "copy", true, Guid.NewGuid)!
                .Changes.OfType<Change.NodePlaced>()
                .Count();
        Assert.Equal(20_000, copied);
    }

    [Fact]
    public void Who_made_a_thing_is_whoever_was_first_taken_in()
    {
        var library = new LibraryDocument();
        var node = Generate.Node(6);
        Do(library, new Change.NodePlaced(node, NodeKind.Notebook, Guid.Empty, "V"));
        library.Apply(new Replica(2, Generate.People[1]).Make(new Change.NodePlaced(node, NodeKind.Notebook, Guid.Empty, "A"), 1_000));
        Assert.Equal(Generate.People[0], library.Nodes().Single().CreatedBy);
    }

    private static List<string> Shown(LibraryDocument library) =>
        [
            .. library
                .Nodes()
                .Select(node =>
                    $"{node.Id} {node.Kind} {node.Parent} {node.Order} {node.Name} {node.InBin} {string.Join(',', node.Tags.Ids)} {node.MergedInto}"
                ),
        ];

    private static int DepthOf(Dictionary<Guid, LibraryNode> nodes, Guid id)
    {
        var depth = 0;
        for (var at = id; nodes.TryGetValue(at, out var node); at = node.Parent)
            depth++;
        return depth;
    }

    private void Do(LibraryDocument library, Change change) => library.Apply(ines.Make(change, clock++));

    private void Do(NotebookDocument notebook, Change change) => notebook.Apply(ines.Make(change, clock++));
}
