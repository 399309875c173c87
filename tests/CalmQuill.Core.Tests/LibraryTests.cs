using CalmQuill.Core.Library;
using CalmQuill.Core.Operations;
using CalmQuill.Testing;
using CsCheck;

namespace CalmQuill.Core.Tests;

/// <summary>Tags, visits, the bin, and what becomes of one thing that several people change at once.</summary>
public class LibraryTests
{
    private readonly Replica ines = new(1, Generate.People[0]);
    private readonly Replica tobias = new(2, Generate.People[1]);
    private readonly LibraryDocument library = new();
    private long clock = 1_700_000_000_000;

    [Fact]
    public void Every_tag_that_is_not_in_the_bin_is_somewhere_in_the_tree() =>
        Generate.LibraryHistory.Sample(
            history =>
            {
                var generated = new LibraryDocument();
                foreach (var operation in history)
                    generated.Apply(operation);
                var nodes = generated.Nodes();
                var tags = new TagTree(nodes);
                foreach (var node in nodes.Where(node => node is { Kind: NodeKind.Tag, InBin: false }))
                {
                    var found = tags.Find(node.Id);
                    Assert.NotNull(found);
                    Assert.Contains(node.Id, found.Ids);
                    Assert.Contains(node.Id, tags.Expand(found.Id));
                }

                // No id counts as two tags, and no two tags beside each other have the same name.
                Assert.Equal(tags.All.Sum(tag => tag.Ids.Count), tags.All.SelectMany(tag => tag.Ids).Distinct().Count());
                Assert.Equal(
                    tags.All.Count,
                    tags.All.Select(tag => (tag.Parent, CalmQuill.Core.Text.Folding.Fold(tag.Name))).Distinct().Count()
                );
            },
            iter: 2000
        );

    [Fact]
    public void A_tag_includes_its_children_follows_renaming_and_gives_way_when_merged()
    {
        var (exam, level, old) = (Tag("exam", Guid.Empty), Tag("Level 2", Guid.Empty), Tag("old papers", Guid.Empty));
        Do(ines, new Change.NodePlaced(level, NodeKind.Tag, exam, "V"));
        var notebook = Place(NodeKind.Notebook);
        Do(ines, new Change.TagSet(notebook, old, true));
        Do(tobias, new Change.PropertySet(exam, Property.Name, "certificate"));
        Assert.Equal(["certificate", "certificate/Level 2", "old papers"], Tags().All.Select(tag => tag.Path));

        Do(ines, new Change.PropertySet(old, Property.MergedInto, level.ToString()));
        Assert.Equal(["certificate", "certificate/Level 2"], Tags().All.Select(tag => tag.Path));
        Assert.True(library.Nodes().Single(node => node.Id == notebook).Tags.Any(Tags().Expand(exam)));
        Assert.Equal("own-child", Tags().MergeProblem(exam, level)?.Code);
        Assert.Equal("same-tag", Tags().MergeProblem(level, old)?.Code);
        Assert.Null(Tags().MergeProblem(level, exam));

        // Into the bin, it is on nothing; back from it, it is on the same things again.
        Do(ines, new Change.PropertySet(exam, Property.Binned, "1700000000000"));
        Assert.Empty(Tags().Expand(level));
        Do(ines, new Change.PropertySet(exam, Property.Binned, ""));
        Assert.True(library.Nodes().Single(node => node.Id == notebook).Tags.Any(Tags().Expand(level)));
    }

    [Fact]
    public void Two_people_who_make_the_same_tag_or_merge_in_a_ring_end_with_one()
    {
        var (first, second) = (Tag("Exam", Guid.Empty), Tag("ｅｘａｍ", Guid.Empty));
        Assert.Equal([first, second], Assert.Single(Tags().All).Ids);
        var (a, b) = (Tag("a", Guid.Empty), Tag("b", Guid.Empty));
        Do(ines, new Change.PropertySet(a, Property.MergedInto, b.ToString()));
        Do(tobias, new Change.PropertySet(b, Property.MergedInto, a.ToString()));
        Assert.Equal(new[] { a, b }.Min(), Tags().Find(a)!.Id);
        Assert.Equal(Tags().Find(a)!.Id, Tags().Find(b)!.Id);
        // A parent merged into its own child by two changes that crossed: the child moves up.
        var (outer, inner) = (Tag("outer", Guid.Empty), Tag("inner", Guid.Empty));
        Do(ines, new Change.PropertySet(outer, Property.MergedInto, inner.ToString()));
        Do(tobias, new Change.NodePlaced(inner, NodeKind.Tag, outer, "V"));
        Assert.Equal("inner", Tags().Find(outer)!.Path);
    }

    [Fact]
    public void Renaming_moving_and_binning_at_once_keep_the_last_word_of_each_kind()
    {
        var (folder, notebook) = (Place(NodeKind.Folder), Place(NodeKind.Notebook));
        Do(ines, new Change.PropertySet(notebook, Property.Name, "By Ines"));
        Do(tobias, new Change.PropertySet(notebook, Property.Name, "By Tobias"));
        Do(tobias, new Change.PropertySet(notebook, Property.Binned, "1700000000000"));
        Do(ines, new Change.NodePlaced(notebook, NodeKind.Notebook, folder, "V"));
        var node = library.Nodes().Single(one => one.Id == notebook);
        // Later words win by kind: the name, the place; and what is binned stays in the bin, in its new place.
        Assert.Equal(("By Tobias", folder, true), (node.Name, node.Parent, node.InBin));
        Do(ines, new Change.PropertySet(notebook, Property.Binned, ""));
        Assert.False(library.Nodes().Single(one => one.Id == notebook).InBin);
    }

    [Fact]
    public void What_is_erased_is_gone_with_all_inside_it_but_not_what_was_taken_out_before()
    {
        var (folder, inside, takenOut) = (Place(NodeKind.Folder), Place(NodeKind.Notebook), Place(NodeKind.Notebook));
        Do(ines, new Change.NodePlaced(inside, NodeKind.Notebook, folder, "V"));
        Do(ines, new Change.NodePlaced(takenOut, NodeKind.Notebook, folder, "W"));
        Do(ines, new Change.PropertySet(folder, Property.Binned, "1700000000000"));
        Do(tobias, new Change.NodePlaced(takenOut, NodeKind.Notebook, Guid.Empty, "W"));
        Do(ines, new Change.PropertySet(folder, Property.Erased, "1700000000500"));
        Assert.Equal([takenOut], library.Nodes().Select(node => node.Id));
        Assert.Equal([inside], library.ErasedNotebooks());
    }

    [Fact]
    public void Often_used_weighs_a_visit_half_after_a_fortnight()
    {
        const long day = 86_400_000;
        var (often, lately, once) = (Generate.Node(6), Generate.Node(7), Generate.Node(8));
        void Visit(Guid notebook, int daysAgo) =>
            library.Apply(ines.Make(new Change.Visited(Guid.Empty, notebook), 20_000 * day - daysAgo * day));
        for (var i = 0; i < 5; i++)
            Visit(often, 28);
        Visit(once, 14);
        Visit(lately, 0);
        var used = library.Visits.ByUse();
        // Five visits four weeks ago come to 5/4, one today to 1, one a fortnight ago to 1/2.
        Assert.Equal([often, lately, once], used.Select(one => one.Target));
        Assert.Equal(Math.Log2(5 / 4.0), used[0].Score - used[1].Score, tolerance: 1e-9);
        Assert.Equal(1, used[1].Score - used[2].Score, tolerance: 1e-9);
    }

    [Fact]
    public void The_bin_keeps_things_for_thirty_days_unless_other_days_are_chosen()
    {
        Assert.Equal(30, library.BinDays);
        Assert.Equal(
            "bad-value",
            OperationRules
                .Check(
                    ines.Make(new Change.PropertySet(Guid.Empty, Property.BinDays, "12"), 1),
                    DocumentKind.Library,
                    Access.Role.Owner,
                    ines.Author,
                    1
                )
                ?.Code
        );
    }

    [Fact]
    public void A_copy_holds_everything_inside_under_new_ids_and_leaves_out_what_is_in_the_bin()
    {
        var (folder, inner, notebook, binned) = (
            Place(NodeKind.Folder),
            Place(NodeKind.Folder),
            Place(NodeKind.Notebook),
            Place(NodeKind.Notebook)
        );
        foreach (var (id, parent) in new[] { (inner, folder), (notebook, inner), (binned, inner) })
            Do(ines, new Change.NodePlaced(id, library.Nodes().Single(node => node.Id == id).Kind, parent, "V"));
        Do(ines, new Change.PropertySet(notebook, Property.Name, "Gear trains"));
        Do(ines, new Change.PropertySet(binned, Property.Binned, "1700000000000"));
        var plan = LibraryCopy.Plan(library.Nodes(), folder, Guid.Empty, "X", "copy", true, Guid.NewGuid)!;
        foreach (var change in plan.Changes)
            Do(tobias, change);
        Assert.Equal(notebook, Assert.Single(plan.Notebooks).From);
        var copy = library.Nodes().Single(node => node.Id == plan.Notebooks[0].To);
        Assert.Equal("Gear trains", copy.Name);
        Assert.Equal(plan.Top, library.Nodes().Single(node => node.Id == copy.Parent).Parent);
        Assert.Null(LibraryCopy.Plan(library.Nodes(), binned, Guid.Empty, "X", "copy", true, Guid.NewGuid));
    }

    private TagTree Tags() => new(library.Nodes());

    private void Do(Replica who, Change change) => library.Apply(who.Make(change, ++clock));

    private Guid Place(NodeKind kind)
    {
        var id = Guid.NewGuid();
        Do(ines, new Change.NodePlaced(id, kind, Guid.Empty, "V"));
        return id;
    }

    private Guid Tag(string name, Guid parent)
    {
        var id = Guid.NewGuid();
        Do(ines, new Change.PropertySet(id, Property.Name, name));
        Do(ines, new Change.NodePlaced(id, NodeKind.Tag, parent, "V"));
        return id;
    }
}
