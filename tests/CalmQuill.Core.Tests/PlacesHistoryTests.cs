using CalmQuill.Core.History;
using CalmQuill.Core.Library;
using CalmQuill.Core.Notebooks;
using CalmQuill.Core.Operations;
using CalmQuill.Testing;
using CsCheck;

namespace CalmQuill.Core.Tests;

/// <summary>Libraries and notebooks as they were at any time, and having their things back without undoing what others did since.</summary>
public sealed class PlacesHistoryTests
{
    private readonly Replica ines = new(1, Generate.People[0]),
        tobias = new(2, Generate.People[1]);
    private readonly NotebookDocument notebook = new();
    private long now = 1_700_000_000_000;

    [Fact]
    public void A_notebook_is_shown_as_the_operations_up_to_then_make_it() =>
        Gen.Select(Generate.NotebookHistory, Gen.Long[-10, 4_000].Array[1, 8])
            .Sample((made, stops) => ShowsThen<NotebookDocument>(made, stops, notebook => notebook.EncodeState()));

    [Fact]
    public void A_library_is_shown_as_the_operations_up_to_then_make_it() =>
        Gen.Select(Generate.LibraryHistory, Gen.Long[-10, 4_000].Array[1, 8])
            .Sample((made, stops) => ShowsThen<LibraryDocument>(made, stops, library => library.EncodeState()));

    private static void ShowsThen<T>(List<Operation> made, long[] stops, Func<T, byte[]> state)
        where T : class, IPlaces, new()
    {
        var history = new PlacesHistory<T>(Of<T>(made));
        foreach (var time in stops.Select(stop => 1_700_000_000_000 + stop))
        {
            while (history.MoveTo(time, 7) > 0) { }
            var afresh = Of<T>(made.Where(operation => operation.Time.UnixMilliseconds <= time));
            Assert.Equal(state(afresh), state(history.Then));
            Assert.Equal(made.Count(operation => operation.Time.UnixMilliseconds > time), history.Since.Count());
        }
    }

    [Fact]
    public void What_stood_in_a_notebook_stands_again_and_what_others_did_since_stays() =>
        Gen.Select(Generate.NotebookHistory, Gen.Long[0, 4_000])
            .Sample(
                (made, moment) =>
                    StandsAgain<NotebookDocument>(
                        made,
                        moment,
                        DocumentKind.Notebook,
                        then => then.Outline().Select(entry => entry.Id),
                        now => now.Outline().Select(entry => entry.Id)
                    )
            );

    [Fact]
    public void What_stood_in_a_library_stands_again_and_what_others_did_since_stays() =>
        Gen.Select(Generate.LibraryHistory, Gen.Long[0, 4_000])
            .Sample(
                (made, moment) => StandsAgain<LibraryDocument>(made, moment, DocumentKind.Library, FoldersAndNotebooks, FoldersAndNotebooks)
            );

    private static IEnumerable<Guid> FoldersAndNotebooks(LibraryDocument library)
    {
        var nodes = library.Nodes().Where(node => node is { InBin: false, Kind: NodeKind.Folder or NodeKind.Notebook }).ToList();
        var children = nodes.ToLookup(node => node.Parent, node => node.Id);
        var waiting = new Queue<Guid>(children[Guid.Empty]);
        while (waiting.TryDequeue(out var next))
        {
            yield return next;
            foreach (var child in children[next])
                waiting.Enqueue(child);
        }
    }

    /// <param name="made">What three people did.</param>
    /// <param name="moment">Which of it had been done then, milliseconds after the beginning.</param>
    /// <param name="kind">The kind of the document.</param>
    /// <param name="shownThen">What is seen of it, worked out otherwise than here; each before what lies in it.</param>
    /// <param name="shown">The same of how it is.</param>
    private static void StandsAgain<T>(
        List<Operation> made,
        long moment,
        DocumentKind kind,
        Func<T, IEnumerable<Guid>> shownThen,
        Func<T, IEnumerable<Guid>> shown
    )
        where T : class, IPlaces, new()
    {
        var (before, after, me) = (Of<T>(made), Of<T>(made), new Replica(999, Generate.People[0]));
        var history = PlacesHistory<T>.Of(after, 1_700_000_000_000 + moment);
        var wanted = shownThen(history.Then).ToList();
        var back = PlacesBack.Of(history, after, wanted, kind, me.Author, _ => true);
        foreach (var change in back.Changes)
        {
            new Making(me, kind).Check(change);
            after.Apply(me.Make(change, 1_800_000_000_000));
        }

        // What stood stands, and so does what came since; only what was erased or moved elsewhere does not.
        Assert.Equal(wanted.Count(before.IsAway), back.Gone);
        var (expected, stands) = (wanted.Where(id => !before.IsAway(id)).Union(shown(before)).ToHashSet(), shown(after).ToHashSet());
        Assert.Superset(expected, stands);
        // What comes besides lies in what was put back, and was never put into the bin itself.
        Assert.All(stands.Except(expected), id => Assert.Equal("", before.Read(id, Property.Binned)));
        foreach (var operation in history.Since.Where(operation => operation.Author != me.Author))
        {
            switch (operation.Change)
            {
                case Change.PropertySet { Property: not Property.Binned } set:
                    Assert.Equal(before.Read(set.Target, set.Property), after.Read(set.Target, set.Property));
                    break;
                case Change.TagSet tag:
                    Assert.Equal(before.Carries(tag.Target, tag.Tag), after.Carries(tag.Target, tag.Tag));
                    break;
                // What could not be seen where another put it is seen where it lay.
                case Change.NodePlaced placed when before.Stands(placed.Node):
                    Assert.Equal(before.PlaceOf(placed.Node), after.PlaceOf(placed.Node));
                    break;
            }
        }
    }

    [Fact]
    public void What_is_in_the_bin_is_put_back_whoever_put_it_there_and_what_came_since_stays()
    {
        Guid one = Page(1),
            other = Page(2);
        var then = now;
        Do(tobias, new Change.PropertySet(one, Property.Binned, "1"));
        var fresh = Page(3, tobias);
        var back = Back(then);
        Assert.Equal([one, other, fresh], Shown());
        Assert.Equal((1, 0, 0), (back.Things, back.Left, back.Gone));
        // Done once more there is nothing left to do.
        Assert.Empty(Back(then).Changes);
    }

    [Fact]
    public void A_title_of_ones_own_goes_back_and_one_that_another_gave_stays()
    {
        Guid mine = Page(1),
            theirs = Page(2);
        Do(ines, new Change.PropertySet(mine, Property.Name, "Escapement"));
        Do(ines, new Change.PropertySet(theirs, Property.Name, "Pendulum"));
        var then = now;
        Do(ines, new Change.PropertySet(mine, Property.Name, "Other"));
        Do(ines, new Change.PropertySet(theirs, Property.Name, "Mine first"));
        Do(tobias, new Change.PropertySet(theirs, Property.Name, "Swing"));
        var back = Back(then);
        Assert.Equal("Escapement", notebook.Read(mine, Property.Name));
        Assert.Equal("Swing", notebook.Read(theirs, Property.Name));
        Assert.Equal((1, 1, 0), (back.Things, back.Left, back.Gone));
    }

    [Fact]
    public void What_was_chosen_alone_leaves_a_section_that_is_in_the_bin_and_stands_before_it()
    {
        var section = Section(1);
        Guid chosen = Page(2, parent: section),
            other = Page(3, parent: section);
        var then = now;
        Do(tobias, new Change.PropertySet(section, Property.Binned, "1"));
        Back(then, chosen);
        Assert.Equal([chosen], Shown());
        Assert.Equal(Guid.Empty, notebook.PlaceOf(chosen)!.Value.Parent);
        Assert.Equal(section, notebook.PlaceOf(other)!.Value.Parent);
    }

    [Fact]
    public void What_another_moved_into_something_that_is_in_the_bin_now_is_seen_again_where_it_lay()
    {
        var page = Page(1);
        var then = now;
        var section = Section(2);
        Do(tobias, new Change.NodePlaced(page, NodeKind.Page, section, "V"));
        Do(tobias, new Change.PropertySet(section, Property.Binned, "1"));
        Assert.Empty(Shown());
        Back(then);
        Assert.Equal([page], Shown());
    }

    [Fact]
    public void What_was_erased_or_moved_to_another_notebook_is_counted_and_left()
    {
        Guid erased = Page(1),
            moved = Page(2);
        var then = now;
        Do(ines, new Change.PropertySet(erased, Property.Erased, Erasings.Alone));
        Do(ines, new Change.PropertySet(moved, Property.MovedTo, Generate.Node(98).ToString()));
        var back = Back(then);
        Assert.Empty(Shown());
        Assert.Equal((0, 0, 2), (back.Things, back.Left, back.Gone));
    }

    [Fact]
    public void What_may_not_be_done_here_is_left()
    {
        var page = Page(1);
        Do(ines, new Change.TagSet(page, Generate.Node(50), true));
        var then = now;
        Do(ines, new Change.TagSet(page, Generate.Node(50), false));
        var history = PlacesHistory<NotebookDocument>.Of(notebook, then);
        var back = PlacesBack.Of(
            history,
            notebook,
            [page],
            DocumentKind.Notebook,
            ines.Author,
            change => Access.GuestRules.Check(change) is null
        );
        Assert.Empty(back.Changes);
        Assert.Equal(1, back.Left);
    }

    [Fact]
    public void Two_that_changed_places_within_each_other_are_put_back_from_above()
    {
        Guid outer = Page(1),
            inner = Page(2, parent: Generate.Node(1));
        var then = now;
        Do(ines, new Change.NodePlaced(inner, NodeKind.Page, Guid.Empty, "V"));
        Do(ines, new Change.NodePlaced(outer, NodeKind.Page, inner, "V"));
        Back(then);
        Assert.Equal(Guid.Empty, notebook.PlaceOf(outer)!.Value.Parent);
        Assert.Equal(outer, notebook.PlaceOf(inner)!.Value.Parent);
    }

    [Fact]
    public void Comparing_tells_what_came_what_is_in_the_bin_what_is_gone_and_what_is_otherwise()
    {
        Guid same = Page(1),
            binned = Page(2),
            gone = Page(3),
            named = Page(4),
            moved = Page(5);
        var then = PlacesHistory<NotebookDocument>.Of(notebook, now).Then;
        Do(tobias, new Change.PropertySet(binned, Property.Binned, "1"));
        Do(tobias, new Change.PropertySet(gone, Property.Erased, Erasings.Alone));
        Do(tobias, new Change.PropertySet(named, Property.Name, "Gear train"));
        Do(tobias, new Change.NodePlaced(moved, NodeKind.Page, Guid.Empty, "W"));
        var came = Page(6);
        Assert.Equal(
            [
                PlaceDifference.None,
                PlaceDifference.Binned,
                PlaceDifference.Gone,
                PlaceDifference.Changed,
                PlaceDifference.Changed,
                PlaceDifference.Came,
            ],
            new[] { same, binned, gone, named, moved, came }.Select(id => PlacesComparing.Of(then, notebook, id))
        );
    }

    [Fact]
    public void What_is_told_of_a_quarter_of_an_hour_is_gone_through_within_it()
    {
        var quarter = 900_000L * 2_000_000;
        var chart = Chart.Of([new Chart.Entry(quarter + 600_000, Generate.People[0], Deed.Wrote, 40) { From = quarter }]);
        Assert.Equal(quarter + 300_000, chart.TimeAt(0.5), 1.0);
        Assert.True(chart.TimeAt(0) < quarter);
        Assert.Equal(chart.TimeAt(0.7), new Chart(chart.Sittings).TimeAt(0.7));
    }

    private static T Of<T>(IEnumerable<Operation> operations)
        where T : class, IPlaces, new()
    {
        var document = new T();
        foreach (var operation in operations)
            document.Apply(operation);
        return document;
    }

    private void Do(Replica device, Change change)
    {
        var operation = device.Make(change, now += 100);
        Assert.Null(OperationRules.Check(operation, DocumentKind.Notebook, Access.Role.Writer, device.Author, now));
        notebook.Apply(operation);
    }

    private Guid Page(int number, Replica? by = null, Guid parent = default) => Put(NodeKind.Page, number, by ?? ines, parent);

    private Guid Section(int number) => Put(NodeKind.Section, number, ines, Guid.Empty);

    private Guid Put(NodeKind kind, int number, Replica by, Guid parent)
    {
        Do(by, new Change.NodePlaced(Generate.Node(number), kind, parent, $"B{number}V"));
        return Generate.Node(number);
    }

    private Guid[] Shown() => [.. notebook.Outline().Select(entry => entry.Id)];

    /// <summary>Ines has what stood then back, or what was chosen of it.</summary>
    private PlacesBack Back(long then, params Guid[] chosen)
    {
        var history = PlacesHistory<NotebookDocument>.Of(notebook, then);
        var wanted = chosen.Length > 0 ? chosen : [.. history.Then.Outline().Select(entry => entry.Id)];
        var back = PlacesBack.Of(history, notebook, wanted, DocumentKind.Notebook, ines.Author, _ => true);
        foreach (var change in back.Changes)
            Do(ines, change);
        return back;
    }
}
