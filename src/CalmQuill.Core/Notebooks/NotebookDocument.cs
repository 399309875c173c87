using CalmQuill.Core.History;
using CalmQuill.Core.Library;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Planner;

namespace CalmQuill.Core.Notebooks;

/// <summary>A notebook: its sections and pages in a tree, with title, paper, tags and bin. What is written on pages is each page's own document.</summary>
public sealed class NotebookDocument : IPlaces
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

    /// <summary>By the first placing that was taken in, which the server takes in as it is received: no stamp of a device decides who made a page.</summary>
    private readonly Dictionary<Guid, Guid> createdBy = [];
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
        (whole, shown, inOrder) = (null, null, null);
        switch (operation.Change)
        {
            case Change.PageAdded added:
                Place(operation, new Change.NodePlaced(added.Page, NodeKind.Page, Guid.Empty, added.Order));
                registers.Write(added.Page, Property.Paper, operation.Stamp, added.Paper);
                known.Remove(added.Page);
                break;
            case Change.NodePlaced placed:
                Place(operation, placed);
                break;
            case Change.OrdersSet orders:
                tree.Apply(operation.Stamp, orders);
                break;
            case Change.PropertySet set:
                registers.Write(set.Target, set.Property, operation.Stamp, set.Value);
                known.Remove(set.Target);
                if (set.Property == Property.Entry)
                    entries = null;
                break;
            case Change.TagSet tag:
                taggings.Write(operation.Stamp, tag);
                known.Remove(tag.Target);
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

    /// <summary>What lies directly in a section, page or the notebook itself, in order, also what is in the bin.</summary>
    /// <param name="parent">What it lies in; <see cref="Guid.Empty"/> for the notebook itself.</param>
    /// <param name="but">What is left out.</param>
    public List<(Guid Id, string Order)> Inside(Guid parent, Guid but)
    {
        var inside = new List<(Guid Id, string Order)>();
        foreach (var (id, place, _) in Children().GetValueOrDefault(parent) ?? [])
        {
            if (id != but)
                inside.Add((id, place.Order));
        }

        return inside;
    }

    private bool IsAway(Guid id) =>
        id != Guid.Empty && (registers.Read(id, Properties.MovedTo) is not null || registers.Read(id, Properties.Erased) is Erasing.Alone);

    private List<NotebookEntry> WorkOut(bool withBinned)
    {
        var children = Children();
        var entries = new List<NotebookEntry>(tree.Places.Count);
        var number = 0;
        var waiting = new Stack<Waiting>();
        // Pushed last first, so that they come out in order.
        void Push(Guid parent, int depth, int pageDepth, bool inBin, TagSet tags)
        {
            if (!children.TryGetValue(parent, out var inside))
                return;
            for (var i = inside.Count - 1; i >= 0; i--)
                waiting.Push(new Waiting(inside[i], parent, depth, pageDepth, inBin, tags));
        }

        Push(Guid.Empty, 0, 0, false, TagSet.None);
        while (waiting.TryPop(out var next))
        {
            var ((id, place, facts), parent, depth, pageDepth, inBin, above) = next;
            var binned = inBin || facts.BinnedAt is not null;
            if (binned && !withBinned)
                continue;
            if (place.Kind == NodeKind.Page && !binned)
                number++;
            var tags = above.With(facts.Tags);
            entries.Add(facts.EntryAt(id, place, parent, depth, number, tags, binned));
            var below = place.Kind == NodeKind.Page ? pageDepth + 1 : 0;
            Push(id, below > SubPageLevels ? depth : Math.Min(depth + 1, MostDepth), below, binned, tags);
        }

        return entries;
    }

    private Dictionary<Guid, List<Child>>? inOrder;

    /// <summary>What lies in each section and page and in the notebook itself, in order; kept until something changes. What was in order before is taken in that order, so that little is left to sort.</summary>
    private Dictionary<Guid, List<Child>> Children()
    {
        if (inOrder is not null)
            return inOrder;
        var children = new Dictionary<Guid, List<Child>>();
        void Add(Guid id, PlacedTree.Place place, Facts facts)
        {
            if (facts.IsGone)
                return;
            // What lies in something that moved to another notebook, but stayed behind, stands in that one's place; what lies in something erased with all in it is gone.
            var holder = place.Parent == Guid.Empty ? Guid.Empty : HolderOf(id);
            if (!children.TryGetValue(holder, out var inside))
                children[holder] = inside = [];
            inside.Add(new Child(id, place, facts));
        }

        foreach (var id in order)
        {
            if (known.TryGetValue(id, out var facts))
                Add(id, tree.Places[id], facts);
        }

        foreach (var (id, place) in tree.Places)
        {
            if (!known.ContainsKey(id))
                Add(id, place, known[id] = FactsOf(id, place.Kind));
        }

        order.Clear();
        foreach (var inside in children.Values)
        {
            SortNearlySorted(inside);
            foreach (var child in inside)
                order.Add(child.Id);
        }

        return inOrder = children;
    }

    /// <summary>Puts few that came last where they belong; sorts when there are many.</summary>
    private static void SortNearlySorted(List<Child> children)
    {
        const int few = 8;
        var sorted = 1;
        while (sorted < children.Count && Child.InOrder.Compare(children[sorted - 1], children[sorted]) <= 0)
            sorted++;
        if (children.Count - sorted > few)
        {
            children.Sort(Child.InOrder);
            return;
        }

        for (; sorted < children.Count; sorted++)
        {
            var child = children[sorted];
            var at = children.BinarySearch(0, sorted, child, Child.InOrder);
            children.RemoveAt(sorted);
            children.Insert(at < 0 ? ~at : at, child);
        }
    }

    /// <summary>What registers say of each section and page, until one of them changes.</summary>
    private readonly Dictionary<Guid, Facts> known = [];

    /// <summary>The sections and pages as they followed each other when that was worked out last.</summary>
    private readonly List<Guid> order = [];

    private Facts FactsOf(Guid id, NodeKind kind) =>
        new()
        {
            IsGone = IsGone(id),
            Title = registers.Read(id, Property.Name),
            Colour = registers.Read(id, Property.Colour),
            Paper = registers.Read(id, Property.Paper),
            Planner = kind == NodeKind.Page ? registers.Read(id, Property.Planner) : "",
            Tags = taggings.On(id),
            CreatedAt = created[id].Time.UnixMilliseconds,
            BinnedAt = registers.WrittenAt(id, Property.Binned),
        };

    private sealed class Facts
    {
        private NotebookEntry? entry;

        public required bool IsGone { get; init; }

        public required string Title { get; init; }

        public required string Colour { get; init; }

        public required string Paper { get; init; }

        public required string Planner { get; init; }

        public required TagSet Tags { get; init; }

        public required long CreatedAt { get; init; }

        public required long? BinnedAt { get; init; }

        /// <summary>The entry at a place: the same one as before where nothing about it is another.</summary>
        public NotebookEntry EntryAt(Guid id, PlacedTree.Place place, Guid parent, int depth, int number, TagSet tags, bool binned)
        {
            if (
                entry is not null
                && entry.Number == number
                && entry.Depth == depth
                && entry.InBin == binned
                && entry.Parent == parent
                && entry.Kind == place.Kind
                && entry.Order == place.Order
                && entry.Tags == tags
            )
                return entry;
            return entry = new NotebookEntry(
                id,
                place.Kind,
                parent,
                depth,
                place.Order,
                Title,
                Colour,
                Paper,
                number,
                Tags,
                tags,
                CreatedAt,
                BinnedAt,
                binned,
                Planner
            );
        }
    }

    private readonly record struct Child(Guid Id, PlacedTree.Place Place, Facts Facts)
    {
        public static readonly Comparer<Child> InOrder = Comparer<Child>.Create(
            (a, b) => string.CompareOrdinal(a.Place.Order, b.Place.Order) is var order and not 0 ? order : a.Id.CompareTo(b.Id)
        );
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

    /// <summary>Who made a section or page. It is knowledge of arrival, and no part of what stands in an entry.</summary>
    public Guid MakerOf(Guid id) => createdBy.GetValueOrDefault(id);

    /// <summary>The sections and pages that a person made, also those that are away.</summary>
    public IEnumerable<Guid> Made(Guid person) => createdBy.Where(entry => entry.Value == person).Select(entry => entry.Key);

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
    public PlannerPrint? PlannerPrintOf(Guid notebook, Guid page)
    {
        if (PlannerPage.Read(registers.Read(page, Property.Planner)) is not { } own || Planner(notebook) is not { } settings)
            return null;
        var (from, to) = PlannerPrint.SpanOf(own, settings);
        var (start, end) = (from.ToDateTime(default), to.ToDateTime(default));
        return new PlannerPrint(
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

    /// <summary>The moments that have a name, the earliest first.</summary>
    public List<(Guid Id, Moment Moment)> Moments() =>
        [
            .. registers
                .All(Property.Moment)
                .Select(one => (one.Target, Moment: Moment.Read(one.Value)!))
                .Where(one => one.Moment is not null)
                .OrderBy(one => one.Moment.At),
        ];

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

    private readonly record struct Waiting(Child Child, Guid Parent, int Depth, int PageDepth, bool InBin, TagSet Tags);

    private void Place(Operation operation, Change.NodePlaced placed)
    {
        var stamp = operation.Stamp;
        tree.Apply(stamp, placed);
        createdBy.TryAdd(placed.Node, operation.Author);
        known.Remove(placed.Node);
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
            if (!IsAway(at))
                return at;
            at = place.Parent;
        }

        return Guid.Empty;
    }

    /// <summary>Whether a section or page itself was erased from the bin.</summary>
    public bool WasErased(Guid id) => registers.Read(id, Properties.Erased) is not Erasing.None;

    /// <summary>Erased from the bin, or moved to another notebook.</summary>
    public bool IsGone(Guid id) => WasErased(id) || registers.Read(id, Properties.MovedTo) is not null;
}
