using CalmQuill.Core.Library;
using CalmQuill.Core.Notebooks;
using CalmQuill.Core.Operations;
using CalmQuill.Testing;
using CsCheck;

namespace CalmQuill.Core.Tests;

/// <summary>Sections, pages and sub-pages.</summary>
public class NotebookTests
{
    private readonly Replica ines = new(1, Generate.People[0]);
    private readonly Replica tobias = new(2, Generate.People[1]);
    private readonly NotebookDocument notebook = new();
    private long clock = 1;

    [Fact]
    public void Notebooks_that_hold_the_same_operations_are_the_same_and_lose_no_page() =>
        Gen.Select(Generate.NotebookHistory, Gen.Int)
            .Sample(
                (history, seed) =>
                {
                    NotebookDocument straight = new(),
                        mixed = new();
                    foreach (var operation in history)
                        straight.Apply(operation);
                    var shuffled = history.Concat(history).ToArray();
                    new Random(seed).Shuffle(shuffled);
                    foreach (var operation in shuffled)
                        mixed.Apply(operation);
                    Assert.Equal(straight.EncodeState(), mixed.EncodeState());
                    var outline = straight.Outline(withBinned: true);
                    Assert.Equal(outline, mixed.Outline(withBinned: true));

                    // Everything placed and not moved away is there exactly once, whatever it was put into.
                    var placed = history
                        .Select(operation =>
                            operation.Change switch
                            {
                                Change.NodePlaced node => node.Node,
                                Change.PageAdded page => page.Page,
                                _ => Guid.Empty,
                            }
                        )
                        .Where(id => id != Guid.Empty)
                        .Distinct();
                    Assert.Equal(
                        placed.Where(id => straight.Read(id, Property.MovedTo).Length == 0).Order(),
                        outline.Select(entry => entry.Id).Order()
                    );
                    // Numbers count the pages that are not in the bin, in order.
                    Assert.Equal(Enumerable.Range(1, straight.Pages().Count), straight.Pages().Select(page => page.Number));
                },
                iter: 1000
            );

    [Fact]
    public void Pages_stand_in_sections_and_sub_pages_go_two_levels_deep()
    {
        Guid basics = Id(),
            inner = Id(),
            first = Id(),
            sub = Id(),
            subSub = Id(),
            tooDeep = Id(),
            loose = Id();
        foreach (
            var (id, kind, parent) in new[]
            {
                (basics, NodeKind.Section, Guid.Empty),
                (inner, NodeKind.Section, basics),
                (first, NodeKind.Page, inner),
                (sub, NodeKind.Page, first),
                (subSub, NodeKind.Page, sub),
                (tooDeep, NodeKind.Page, subSub),
                (loose, NodeKind.Page, Guid.Empty),
            }
        )
            Do(ines, new Change.NodePlaced(id, kind, parent, "V"));
        Assert.Equal(
            [0, 1, 2, 3, 4, 4, 0],
            notebook
                .Outline()
                .OrderBy(entry => Array.IndexOf([basics, inner, first, sub, subSub, tooDeep, loose], entry.Id))
                .Select(entry => entry.Depth)
        );
        Assert.Equal((3, 0), notebook.PageLevels(first));
        // A section does not fit into a page, nor into itself.
        Assert.False(notebook.MayLieIn(NodeKind.Section, first));
        Assert.True(notebook.WouldCycle(basics, inner));
        Do(tobias, new Change.NodePlaced(basics, NodeKind.Section, inner, "V"));
        Assert.Equal(Guid.Empty, notebook.Outline().Single(entry => entry.Id == basics).Parent);
    }

    [Fact]
    public void A_page_moved_into_a_section_that_somebody_bins_is_in_the_bin_with_it_and_comes_back_with_it()
    {
        Guid section = Id(),
            page = Id();
        Do(ines, new Change.NodePlaced(section, NodeKind.Section, Guid.Empty, "V"));
        Do(ines, new Change.PageAdded(page, "W", "a4-ruled-710"));
        Do(ines, new Change.PropertySet(section, Property.Binned, "1700000000000"));
        Do(tobias, new Change.NodePlaced(page, NodeKind.Page, section, "V"));
        Assert.Empty(notebook.Pages());
        Assert.True(notebook.Pages(withBinned: true).Single().InBin);
        Do(ines, new Change.PropertySet(section, Property.Binned, ""));
        Assert.Equal(section, notebook.Pages().Single().Parent);
    }

    [Fact]
    public void Tags_of_a_section_count_for_its_pages()
    {
        Guid section = Id(),
            page = Id(),
            exam = Id(),
            drawings = Id();
        Do(ines, new Change.NodePlaced(section, NodeKind.Section, Guid.Empty, "V"));
        Do(ines, new Change.NodePlaced(page, NodeKind.Page, section, "V"));
        Do(ines, new Change.TagSet(section, exam, true));
        Do(tobias, new Change.TagSet(page, drawings, true));
        Do(tobias, new Change.TagSet(page, exam, true));
        Do(ines, new Change.TagSet(page, exam, false));
        var entry = notebook.Pages().Single();
        Assert.Equal([drawings], entry.OwnTags.Ids);
        Assert.Equal(new[] { exam, drawings }.Order(), entry.Tags.Ids);
    }

    [Fact]
    public void A_copy_of_a_section_stands_beside_it_with_its_pages()
    {
        Guid section = Id(),
            page = Id(),
            other = Id();
        Do(ines, new Change.NodePlaced(section, NodeKind.Section, Guid.Empty, "V"));
        Do(ines, new Change.PropertySet(section, Property.Name, "Basics"));
        Do(ines, new Change.NodePlaced(page, NodeKind.Page, section, "V"));
        Do(ines, new Change.PageAdded(other, "W", "a4-ruled-710"));
        var plan = NotebookCopy.Plan(notebook, section, "Vm", true, Guid.NewGuid);
        Assert.Equal(page, Assert.Single(plan.Pages).From);
        foreach (var change in plan.Changes)
            Do(ines, change);
        Assert.Equal(["Basics", "", "Basics", "", ""], notebook.Outline().Select(entry => entry.Title));
    }

    [Fact]
    public void What_moves_to_another_notebook_goes_with_all_in_it_in_order_and_is_in_one_of_the_two_at_every_moment()
    {
        var (from, to, toId) = (new NotebookDocument(), new NotebookDocument(), Generate.Node(99));
        var maker = new Replica(5, Generate.People[0]);
        void Do(NotebookDocument document, Change change) => document.Apply(maker.Make(change, 1));
        var (section, first, below, second, stays, there) = (
            Generate.Node(11),
            Generate.Node(12),
            Generate.Node(13),
            Generate.Node(14),
            Generate.Node(15),
            Generate.Node(16)
        );
        Do(from, new Change.NodePlaced(section, NodeKind.Section, Guid.Empty, "V"));
        Do(from, new Change.PropertySet(section, Property.Name, "Trains"));
        Do(from, new Change.NodePlaced(first, NodeKind.Page, section, "V"));
        Do(from, new Change.PropertySet(first, Property.Paper, "a5-ruled-710"));
        Do(from, new Change.TagSet(first, Generate.Node(50), true));
        Do(from, new Change.NodePlaced(below, NodeKind.Page, first, "V"));
        Do(from, new Change.NodePlaced(second, NodeKind.Page, Guid.Empty, "W"));
        // A title that earlier rules let in, and later ones do not.
        Do(from, new Change.PropertySet(second, Property.Name, "of\u202Eold"));
        Do(from, new Change.NodePlaced(stays, NodeKind.Page, Guid.Empty, "X"));
        Do(to, new Change.NodePlaced(there, NodeKind.Page, Guid.Empty, "V"));
        // It was here once, and in the bin.
        Do(to, new Change.NodePlaced(second, NodeKind.Page, Guid.Empty, "W"));
        Do(to, new Change.PropertySet(second, Property.Binned, "1"));
        Do(to, new Change.PropertySet(second, Property.MovedTo, Generate.Node(98).ToString()));

        var move = NotebookMove.Plan(
            from,
            to,
            toId,
            [
                new NotebookMove.Top(section, Guid.Empty, null),
                new NotebookMove.Top(second, Guid.Empty, section),
                // Named besides, though it goes along anyway.
                new NotebookMove.Top(below, Guid.Empty, Guid.Empty),
            ],
            7
        );
        var making = new Making(maker, DocumentKind.Notebook);
        foreach (var change in move.Into)
        {
            making.Check(change);
            Do(to, change);
            Assert.Equal(5, from.Outline().Count);
        }

        foreach (var change in move.Out)
            Do(from, change);
        Assert.Equal([stays], from.Outline(withBinned: true).Select(entry => entry.Id));
        Assert.Equal(
            [(section, Guid.Empty), (first, section), (below, first), (second, Guid.Empty), (there, Guid.Empty)],
            to.Outline().Select(entry => (entry.Id, entry.Parent))
        );
        var moved = to.Outline().ToDictionary(entry => entry.Id);
        Assert.Equal(("Trains", "a5-ruled-710", "ofold"), (moved[section].Title, moved[first].Paper, moved[second].Title));
        Assert.Equal([Generate.Node(50)], moved[first].OwnTags.Ids);
    }

    [Fact]
    public void The_page_of_a_day_is_the_same_on_every_device_and_another_on_another_day()
    {
        var id = Guid.NewGuid();
        var ids = Enumerable.Range(0, 1000).Select(i => TodayPage.IdOf(id, new DateOnly(2026, 1, 1).AddDays(i))).ToList();
        Assert.Equal(1000, ids.Distinct().Count());
        Assert.Equal(ids[7], TodayPage.IdOf(id, new DateOnly(2026, 1, 8)));
    }

    private void Do(Replica who, Change change) => notebook.Apply(who.Make(change, ++clock));

    private static Guid Id() => Guid.NewGuid();

    /// <summary>The outline is kept between changes: after every one it is what a document that never kept any works out.</summary>
    [Fact]
    public void The_outline_follows_every_change() =>
        Generate.NotebookHistory.Sample(
            history =>
            {
                var kept = new NotebookDocument();
                List<NotebookEntry> before = [];
                for (var i = 0; i < history.Count; i++)
                {
                    kept.Apply(history[i]);
                    var fresh = new NotebookDocument();
                    foreach (var operation in history.Take(i + 1))
                        fresh.Apply(operation);
                    foreach (var withBinned in new[] { false, true })
                        Assert.Equal(Said(fresh, withBinned), Said(kept, withBinned));
                    // By the change alone, whoever has the outline before comes to the one after; and it names no more than it must.
                    var after = kept.Outline();
                    var change = OutlineChange.Between(before, after);
                    NotebookEntry[] follow =
                    [
                        .. before.Take(change.From),
                        .. change.Entries,
                        .. before.Skip(change.From + change.Dropped).Select(entry => entry with { Number = entry.Number + change.Shift }),
                    ];
                    Assert.Equal(after, follow);
                    Assert.Equal(after.SequenceEqual(before), change is { Dropped: 0, Entries.Count: 0, Shift: 0 });
                    before = [.. after];
                    var outline = kept.Outline(withBinned: true);
                    foreach (var parent in outline.Select(entry => entry.Id).Append(Guid.Empty))
                    {
                        var but = outline.Count > 0 ? outline[i % outline.Count].Id : Guid.Empty;
                        Assert.Equal(
                            outline.Where(entry => entry.Parent == parent && entry.Id != but).Select(entry => (entry.Id, entry.Order)),
                            kept.Inside(parent, but)
                        );
                    }
                }
            },
            iter: 150
        );

    [Fact]
    public void A_page_put_in_the_middle_is_told_alone_and_those_behind_it_by_their_numbers()
    {
        Guid[] pages = [.. Enumerable.Range(0, 500).Select(_ => Id())];
        foreach (var (i, page) in pages.Index())
            Do(ines, new Change.PageAdded(page, $"a{i:000}V", "a4-ruled-710"));
        var before = notebook.Outline();
        Do(ines, new Change.PageAdded(Id(), "a249W", "a4-ruled-710"));
        var change = OutlineChange.Between(before, notebook.Outline());
        Assert.Equal((250, 0, 1, 1), (change.From, change.Dropped, change.Entries.Count, change.Shift));
        before = notebook.Outline();
        Do(ines, new Change.PropertySet(pages[10], Property.Binned, "1700000000000"));
        change = OutlineChange.Between(before, notebook.Outline());
        Assert.Equal((10, 1, 0, -1), (change.From, change.Dropped, change.Entries.Count, change.Shift));
        before = notebook.Outline();
        Do(ines, new Change.PropertySet(pages[20], Property.Name, "Clicks"));
        change = OutlineChange.Between(before, notebook.Outline());
        Assert.Equal((19, 1, "Clicks", 0), (change.From, change.Dropped, change.Entries.Single().Title, change.Shift));
    }

    private static IEnumerable<string> Said(NotebookDocument notebook, bool withBinned) =>
        notebook
            .Outline(withBinned)
            .Select(entry =>
                $"{entry.Id} {entry.Parent} {entry.Depth} {entry.Order} {entry.Title} {entry.Colour} {entry.Paper} {entry.Number} {entry.InBin} {string.Join(',', entry.OwnTags.Ids)}"
            );
}
