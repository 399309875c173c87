using CalmQuill.Core.Changing;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Library;
using CalmQuill.Core.Notebooks;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Spots;
using CalmQuill.Testing;
using CsCheck;

namespace CalmQuill.Core.Tests;

/// <summary>Steps in libraries and notebooks are taken back by ordinary changes, which leave everything as it was before.</summary>
public sealed class TakingBackTests
{
    private readonly Replica ines = new(1, Generate.People[0]);

    private static readonly Gen<List<Change>> Step = Gen.Select(Gen.Int[0, 6], Gen.Int[1, 8], Gen.Int[1, 8], Gen.Int[0, 3])
        .Array[1, 6]
        .Select(parts => parts.Select(part => Done(part.Item1, part.Item2, part.Item3, part.Item4)).ToList());

    [Fact]
    public void Whatever_is_done_and_taken_back_leaves_the_notebook_as_it_was() =>
        Gen.Select(Step.Array[1, 8], Step)
            .Sample(
                (before, step) =>
                {
                    // Samples are tried at the same time: each has a device of its own.
                    var device = new Replica(1, Generate.People[0]);
                    var notebook = new NotebookDocument();
                    for (var i = 1; i < 8; i++)
                        Do(device, notebook, Done(5, i, 0, 0));
                    foreach (var change in before.SelectMany(changes => changes))
                        Do(device, notebook, change);
                    var was = Shown(notebook);
                    var back = TakingBack.Of(notebook, DocumentKind.Notebook, step);
                    foreach (var change in step)
                        Do(device, notebook, change);
                    // By the rules, as a device would.
                    foreach (var change in back)
                    {
                        new Making(device, DocumentKind.Notebook).Check(change);
                        Do(device, notebook, change);
                    }

                    // What was new is in the bin.
                    Assert.Equal(was, Shown(notebook));
                },
                iter: 3_000
            );

    [Fact]
    public void Two_pages_that_changed_places_within_each_other_are_taken_back()
    {
        var notebook = new NotebookDocument();
        var (outer, inner, other) = (Generate.Node(1), Generate.Node(2), Generate.Node(3));
        Change Under(Guid page, Guid parent) => new Change.NodePlaced(page, NodeKind.Page, parent, "V");
        foreach (var change in new[] { Under(outer, Guid.Empty), Under(inner, outer), Under(other, Guid.Empty) })
            Do(notebook, change);
        var was = Shown(notebook);
        Change[] step = [Under(outer, Guid.Empty), Under(inner, other), Under(outer, inner)];
        var back = TakingBack.Of(notebook, DocumentKind.Notebook, step);
        foreach (var change in step.Concat(back))
            Do(notebook, change);
        Assert.Equal(was, Shown(notebook));
    }

    [Fact]
    public void A_folder_that_was_made_goes_into_the_bin_and_one_that_was_named_and_moved_is_where_it_was()
    {
        var library = new LibraryDocument();
        var (clocks, pocket, fresh) = (Generate.Node(1), Generate.Node(2), Generate.Node(3));
        void Apply(Change change) => library.Apply(ines.Make(change, 1));
        foreach (var folder in new[] { clocks, pocket })
        {
            Apply(new Change.PropertySet(folder, Property.Name, $"Folder {folder}"));
            Apply(new Change.NodePlaced(folder, NodeKind.Folder, Guid.Empty, "V"));
        }

        Change[] step =
        [
            new Change.PropertySet(fresh, Property.Name, "New"),
            new Change.NodePlaced(fresh, NodeKind.Folder, Guid.Empty, "W"),
            new Change.NodePlaced(pocket, NodeKind.Folder, fresh, "V"),
            new Change.PropertySet(clocks, Property.Name, "Clocks"),
            new Change.PropertySet(clocks, Property.Colour, "rust"),
        ];
        var back = TakingBack.Of(library, DocumentKind.Library, step);
        foreach (var change in step.Concat(back))
            Apply(change);
        var nodes = library.Nodes().ToDictionary(node => node.Id);
        Assert.Equal((true, Guid.Empty), (nodes[fresh].InBin, nodes[fresh].Parent));
        Assert.Equal((false, Guid.Empty), (nodes[pocket].InBin, nodes[pocket].Parent));
        Assert.Equal(($"Folder {clocks}", ""), (nodes[clocks].Name, nodes[clocks].Colour));
    }

    [Fact]
    public void On_a_page_a_step_from_outside_is_taken_back_without_the_ink_that_came_since()
    {
        var page = new PageDocument();
        Operation Apply(Change change)
        {
            var operation = ines.Make(change, 1);
            page.Apply(operation);
            return operation;
        }

        var mark = Generate.Node(1);
        Apply(new Change.SpotAdded(mark, SpotKind.Mark, new Box(0, 0, 10, 10), [], [new SpotValue(SpotField.Mark, "todo")]));
        var ticked = Apply(new Change.SpotSet(mark, [new SpotValue(SpotField.Done, "1")]));
        Assert.NotNull(page.Spots().Single().DoneAt);
        Apply(new Change.StrokeAdded(new Pen(PenKind.Ball, 40, 0xFF), 0, Generate.Wave(12)));
        foreach (var change in TakingBack.OnPage([ticked]))
            Apply(change);
        Assert.Null(page.Spots().Single().DoneAt);
        Assert.Single(page.Items);
    }

    private void Do(NotebookDocument notebook, Change change) => Do(ines, notebook, change);

    private static void Do(Replica device, NotebookDocument notebook, Change change) => notebook.Apply(device.Make(change, 1));

    private static string Shown(NotebookDocument notebook) =>
        string.Join(
            '\n',
            notebook
                .Outline(withBinned: true)
                .Where(entry => !entry.InBin)
                .Select(entry =>
                    $"{entry.Id} {entry.Kind} {entry.Parent} {entry.Order} {entry.Colour} {entry.Paper} {entry.Title} {string.Join(' ', entry.OwnTags.Ids)}"
                )
        );

    private static Change Done(int what, int a, int b, int c) =>
        what switch
        {
            0 => new Change.PropertySet(Generate.Node(a), Property.Name, c == 0 ? "" : $"name {c}"),
            1 => new Change.PropertySet(Generate.Node(a), Property.Colour, c == 0 ? "" : $"colour-{c}"),
            2 => new Change.PropertySet(Generate.Node(a), Property.Binned, c == 0 ? "" : "1"),
            3 => new Change.TagSet(Generate.Node(a), Generate.Node(20 + b), c > 1),
            4 => new Change.OrdersSet([new NodeOrder(Generate.Node(a), $"{1 + c}")]),
            _ => new Change.NodePlaced(
                Generate.Node(a),
                a < 4 ? NodeKind.Section : NodeKind.Page,
                c == 0 ? Guid.Empty : Generate.Node(Math.Min(b, 7)),
                $"{1 + c}"
            ),
        };
}
