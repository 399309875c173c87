using CalmQuill.Core.Changing;
using CalmQuill.Core.Library;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Planner;

namespace CalmQuill.Core.Notebooks;

/// <summary>A notebook: its sections and pages in a tree, with title, paper, tags and bin. What is written on pages is each page's own document.</summary>
public sealed class NotebookDocument : IStanding
{
    /// <summary>How deep sub-pages go below a page. What people put deeper at the same time is shown at this depth.</summary>
    public const int SubPageLevels = 2;

    /// <summary>How deep sections and pages go in all. What people put deeper is shown at this depth.</summary>
    public const int MostDepth = 64;

    private readonly Dictionary<OpId, Operation> operations = [];
    private readonly PlacedTree tree = new();
    private readonly Registers registers = new();
    private readonly Taggings taggings = new();
    private readonly Dictionary<Guid, Stamp> created = [];
    private List<CalendarEntry>? entries;

    public int OperationCount => operations.Count;

    /// <summary>Takes an operation in. False when it was here already, or does not belong in a notebook.</summary>
    public bool Apply(Operation operation)
    {
        if (
            operation.Change is not (Change.PageAdded or Change.NodePlaced or Change.OrdersSet or Change.PropertySet or Change.TagSet)
            || !operations.TryAdd(operation.Id, operation)
        )
            return false;
        (whole, shown) = (null, null);
        switch (operation.Change)
        {
            case Change.PageAdded added:
                Place(operation.Stamp, new Change.NodePlaced(added.Page, NodeKind.Page, Guid.Empty, added.Order));
                registers.Write(added.Page, Property.Paper, operation.Stamp, added.Paper);
                break;
            case Change.NodePlaced placed:
                Place(operation.Stamp, placed);
                break;
            case Change.OrdersSet orders:
                tree.Apply(operation.Stamp, orders);
                break;
            case Change.PropertySet set:
                registers.Write(set.Target, set.Property, operation.Stamp, set.Value);
                if (set.Property == Property.Entry)
                    entries = null;
                break;
            case Change.TagSet tag:
                taggings.Write(operation.Stamp, tag);
                break;
        }

        return true;
    }

    public bool WouldCycle(Guid node, Guid parent) => tree.IsUnder(parent, node);

    public bool MayLieIn(NodeKind kind, Guid parent) => tree.MayLieIn(kind, parent);

    public PlacedTree.Place? PlaceOf(Guid node) => tree.Places.TryGetValue(node, out var place) ? place : null;

    public bool Carries(Guid target, Guid tag) => taggings.On(target).Ids.Contains(tag);

    public string Read(Guid target, Property property) => registers.Read(target, property);

    /// <summary>All sections and pages in reading order: each before what lies in it. Not to be written to: it is kept until something changes.</summary>
    /// <param name="withBinned">Whether what is in the bin is among them.</param>
    public List<NotebookEntry> Outline(bool withBinned = false) => withBinned ? whole ??= WorkOut(true) : shown ??= WorkOut(false);

    private List<NotebookEntry>? whole,
        shown;

    private List<NotebookEntry> WorkOut(bool withBinned)
    {
        // What lies in something that moved to another notebook, but stayed behind, stands in that one's place; what lies in something erased with all in it is gone.
        var children = tree.Places.Where(entry => !IsGone(entry.Key)).ToLookup(entry => HolderOf(entry.Key));
        var entries = new List<NotebookEntry>(tree.Places.Count);
        var number = 0;
        var waiting = new Stack<Waiting>();
        // Pushed last first, so that they come out in order.
        void Push(Guid parent, int depth, int pageDepth, bool inBin, TagSet tags)
        {
            foreach (
                var (id, place) in children[parent]
                    .OrderByDescending(entry => entry.Value.Order, StringComparer.Ordinal)
                    .ThenByDescending(entry => entry.Key)
            )
                waiting.Push(new Waiting(id, place, parent, depth, pageDepth, inBin, tags));
        }

        Push(Guid.Empty, 0, 0, false, TagSet.None);
        while (waiting.TryPop(out var next))
        {
            var (id, place, parent, depth, pageDepth, inBin, tags) = next;
            var binnedAt = registers.WrittenAt(id, Property.Binned);
            var binned = inBin || binnedAt is not null;
            if (binned && !withBinned)
                continue;
            var own = taggings.On(id);
            if (place.Kind == NodeKind.Page && !binned)
                number++;
            entries.Add(
                new NotebookEntry(
                    id,
                    place.Kind,
                    parent,
                    depth,
                    place.Order,
                    registers.Read(id, Property.Name),
                    registers.Read(id, Property.Colour),
                    registers.Read(id, Property.Paper),
                    number,
                    own,
                    tags.With(own),
                    created[id].Time.UnixMilliseconds,
                    binnedAt,
                    binned
                )
            );
            var below = place.Kind == NodeKind.Page ? pageDepth + 1 : 0;
            Push(id, below > SubPageLevels ? depth : Math.Min(depth + 1, MostDepth), below, binned, tags.With(own));
        }

        return entries;
    }

    /// <summary>The pages in reading order. Binned ones are left out unless asked for.</summary>
    public List<NotebookEntry> Pages(bool withBinned = false) => [.. Outline(withBinned).Where(entry => entry.Kind == NodeKind.Page)];

    /// <summary>The pages erased from the bin, those inside erased sections and pages included.</summary>
    public List<Guid> Erased()
    {
        var standings = tree.Standings<(Erasing Erased, bool Moved)>(
            MostDepth,
            (id, _, above) =>
                registers.Read(id, Properties.MovedTo) is not null ? (Erasing.None, true)
                : above.Erased is Erasing.WithAllInIt ? (Erasing.WithAllInIt, false)
                : (registers.Read(id, Properties.Erased), false),
            state => state.Moved || state.Erased is Erasing.Alone
        );
        return
        [
            .. tree
                .Places.Where(entry => entry.Value.Kind == NodeKind.Page && standings[entry.Key].State.Erased is not Erasing.None)
                .Select(entry => entry.Key),
        ];
    }

    /// <summary>What erases sections and pages from the bin with all that lies in them now. What comes into them later, from a device that did not know, stays.</summary>
    public List<Change> Erase(IReadOnlyCollection<Guid> ids)
    {
        var going = ids.ToHashSet();
        var changes = new List<Change>();
        // Each comes before what lies in it.
        foreach (var entry in Outline(withBinned: true))
        {
            if (going.Contains(entry.Id) || going.Contains(entry.Parent))
            {
                going.Add(entry.Id);
                changes.Add(new Change.PropertySet(entry.Id, Property.Erased, Erasings.Alone));
            }
        }

        return changes;
    }

    /// <summary>Whether what a binned section or page lay in is still there, so that it can be put back into its place.</summary>
    public bool PlaceIsThere(Guid id)
    {
        if (!tree.Places.TryGetValue(id, out var place))
            return false;
        // Also where it stands in another's place, the one that it was in is gone.
        var holder = HolderOf(id);
        for (var at = holder; at != Guid.Empty; at = HolderOf(at))
        {
            if (IsGone(at) || registers.WrittenAt(at, Property.Binned) is not null)
                return false;
        }

        return holder == place.Parent;
    }

    /// <summary>The pages that moved to another notebook, each with the one it went to.</summary>
    public List<(Guid Page, Guid To)> Moved()
    {
        var moved = new List<(Guid, Guid)>();
        foreach (var (target, value) in registers.All(Property.MovedTo))
        {
            if (Guid.TryParse(value, out var to) && tree.Places.TryGetValue(target, out var place) && place.Kind == NodeKind.Page)
                moved.Add((target, to));
        }

        return moved;
    }

    /// <summary>How many levels of pages lie below a page, and how deep the page itself lies among pages.</summary>
    public (int Below, int Above) PageLevels(Guid page)
    {
        var children = tree.Places.ToLookup(entry => entry.Value.Parent, entry => entry.Key);
        var below = 0;
        for (var level = children[page].ToList(); level.Count > 0; level = [.. level.SelectMany(id => children[id])])
            below++;
        var above = 0;
        for (
            var at = page;
            tree.Places.TryGetValue(at, out var place)
                && tree.Places.TryGetValue(place.Parent, out var holder)
                && holder.Kind == NodeKind.Page;
            at = place.Parent
        )
            above++;
        return (below, above);
    }

    /// <summary>The dates that a planner's page shows; null where the notebook is no planner or the page none of its own.</summary>
    public Face? FaceOf(Guid notebook, Guid page)
    {
        if (PlannerPage.Read(registers.Read(page, Property.Planner)) is not { } own || Planner(notebook) is not { } settings)
            return null;
        var (from, to) = Face.SpanOf(own, settings);
        var (start, end) = (from.ToDateTime(default), to.ToDateTime(default));
        return new Face(
            notebook,
            settings,
            own,
            own.Kind == PlannerKind.Entry
                ? [.. Entries().Where(entry => entry.Id == own.Entry)]
                : [.. Entries().Where(entry => entry.Start < end && entry.End >= start)]
        );
    }

    /// <summary>What kind of planner the notebook is; null when it is none.</summary>
    public PlannerSettings? Planner(Guid notebook) =>
        registers.Read(notebook, Property.Planner) is { Length: > 0 } text ? PlannerSettings.Read(text).Settings : null;

    /// <summary>The calendar's entries, in the order of their ids.</summary>
    public List<CalendarEntry> Entries()
    {
        if (entries is null)
        {
            entries = [];
            foreach (var (target, value) in registers.All(Property.Entry))
            {
                if (CalendarEntry.Read(target, value) is { } entry)
                    entries.Add(entry);
            }
        }

        return entries;
    }

    public List<Operation> Operations() => [.. operations.Values.OrderBy(operation => operation.Stamp)];

    /// <summary>What the notebook holds, as bytes: equal for equal sets of operations.</summary>
    public byte[] EncodeState()
    {
        var writer = new ByteWriter(1024);
        tree.Write(writer);
        registers.Write(writer);
        taggings.Write(writer);
        return writer.ToArray();
    }

    private readonly record struct Waiting(Guid Id, PlacedTree.Place Place, Guid Parent, int Depth, int PageDepth, bool InBin, TagSet Tags);

    private void Place(Stamp stamp, Change.NodePlaced placed)
    {
        tree.Apply(stamp, placed);
        if (!created.TryGetValue(placed.Node, out var first) || stamp < first)
            created[placed.Node] = stamp;
    }

    /// <summary>What a thing lies in; where that is away but what lay in it is not, what that lies in; the empty id for the notebook itself.</summary>
    private Guid HolderOf(Guid id)
    {
        var at = tree.Places[id].Parent;
        for (var steps = 0; steps < PlacedTree.MostSteps; steps++)
        {
            if (!tree.Places.TryGetValue(at, out var place))
                return Guid.Empty;
            if (registers.Read(at, Properties.MovedTo) is null && registers.Read(at, Properties.Erased) is not Erasing.Alone)
                return at;
            at = place.Parent;
        }

        return Guid.Empty;
    }

    /// <summary>Erased from the bin, or moved to another notebook.</summary>
    public bool IsGone(Guid id) =>
        registers.Read(id, Properties.Erased) is not Erasing.None || registers.Read(id, Properties.MovedTo) is not null;
}
