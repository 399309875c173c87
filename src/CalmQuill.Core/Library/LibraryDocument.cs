using CalmQuill.Core.History;
using CalmQuill.Core.Operations;

namespace CalmQuill.Core.Library;

/// <summary>The library of a space: folders, notebooks, tags and lenses in a tree, with what is said of them, and the bin.</summary>
/// <remarks>
/// A person's own library also holds what is personal on things of other libraries: stars, ways of looking at a folder, visits, settings. So they
/// follow the person to every device and merge like all else.
/// </remarks>
public sealed class LibraryDocument : IPlaces
{
    /// <summary>How deep folders go. What people put deeper is shown at this depth.</summary>
    public const int MostDepth = 200;

    private readonly Dictionary<OpId, Operation> operations = [];
    private readonly PlacedTree tree = new();
    private readonly Registers registers = new();
    private readonly Taggings taggings = new();

    /// <summary>By the first placing that was taken in, which the server takes in as it is received: no stamp of a device decides who made a thing.</summary>
    private readonly Dictionary<Guid, Guid> createdBy = [];

    /// <summary>By the earliest stamp, which is the same everywhere whatever way operations came.</summary>
    private readonly Dictionary<Guid, Stamp> created = [];
    private readonly Dictionary<Guid, LibraryNode> made = [];
    private readonly HashSet<Guid> touched = [];

    public int OperationCount => operations.Count;

    public Visits Visits { get; } = new();

    /// <summary>Takes an operation in. False when it was here already, or does not belong in a library.</summary>
    public bool Apply(Operation operation)
    {
        if (
            operation.Change is not (Change.NodePlaced or Change.OrdersSet or Change.PropertySet or Change.TagSet or Change.Visited)
            || !operations.TryAdd(operation.Id, operation)
        )
            return false;
        switch (operation.Change)
        {
            case Change.NodePlaced placed:
                tree.Apply(operation.Stamp, placed);
                touched.Add(placed.Node);
                createdBy.TryAdd(placed.Node, operation.Author);
                if (!created.TryGetValue(placed.Node, out var first) || operation.Stamp < first)
                    created[placed.Node] = operation.Stamp;
                break;
            case Change.OrdersSet orders:
                tree.Apply(operation.Stamp, orders);
                break;
            case Change.PropertySet set:
                registers.Write(set.Target, set.Property, operation.Stamp, set.Value);
                touched.Add(set.Target);
                break;
            case Change.TagSet tag:
                taggings.Write(operation.Stamp, tag);
                touched.Add(tag.Target);
                break;
            case Change.Visited visited:
                Visits.Add(operation.Time, visited);
                break;
        }

        return true;
    }

    /// <summary>Whether putting a node into a parent would make it its own ancestor.</summary>
    public bool WouldCycle(Guid node, Guid parent) => tree.IsUnder(parent, node);

    public bool MayLieIn(NodeKind kind, Guid parent) => tree.MayLieIn(kind, parent);

    public PlacedTree.Place? PlaceOf(Guid node) => tree.Places.TryGetValue(node, out var place) ? place : null;

    public bool Carries(Guid target, Guid tag) => taggings.On(target).Ids.Contains(tag);

    /// <summary>A register of the library; empty when nothing was written.</summary>
    public string Read(Guid target, Property property) => registers.Read(target, property);

    /// <summary>Erased from the bin. A paper of one's own never is: pages may lie on it.</summary>
    public bool IsGone(Guid id) => PlaceOf(id)?.Kind != NodeKind.Paper && registers.Read(id, Properties.Erased) is not Erasing.None;

    /// <summary>All registers of one property that hold something.</summary>
    public List<(Guid Target, string Value)> All(Property property) => registers.All(property);

    /// <summary>For how many days the bin keeps things; 0 keeps them for ever.</summary>
    public int BinDays => registers.Read(Guid.Empty, Properties.BinDays);

    /// <summary>Everything in the tree that was not erased, siblings in order. What lies in something that has not arrived yet stands at the root.</summary>
    public List<LibraryNode> Nodes() => [.. AllNodes().OrderBy(node => node.Order, StringComparer.Ordinal).ThenBy(node => node.Id)];

    /// <summary>The same in no order. What did not change since the last call is the same object. What lies deeper than folders go is shown at the deepest level.</summary>
    public List<LibraryNode> AllNodes()
    {
        var standings = Standings();
        var nodes = new List<LibraryNode>(tree.Places.Count);
        foreach (var (id, place) in tree.Places)
        {
            var (state, parent) = standings[id];
            if (state.Erased is not Erasing.None)
            {
                // It may come back with what it lies in, and may have changed by then.
                made.Remove(id);
                continue;
            }

            // A move that arrived late can have changed the place of others than the one it names.
            var isStill =
                made.TryGetValue(id, out var node)
                && !touched.Contains(id)
                && node.InBin == state.InBin
                && node.Parent == parent
                && node.Order == place.Order
                && node.Kind == place.Kind;
            nodes.Add(isStill ? node! : made[id] = Node(id, place, parent, state.InBin));
        }

        touched.Clear();
        return nodes;
    }

    /// <summary>The notebooks erased from the bin, those inside erased folders included.</summary>
    public List<Guid> ErasedNotebooks()
    {
        var standings = Standings();
        return
        [
            .. tree
                .Places.Where(entry => entry.Value.Kind == NodeKind.Notebook && standings[entry.Key].State.Erased is not Erasing.None)
                .Select(entry => entry.Key),
        ];
    }

    /// <summary>What erases things from the bin with all that lies in them now. What comes into them later, from a device that did not know, stays.</summary>
    public List<Change> Erase(IReadOnlyCollection<Guid> ids)
    {
        var standings = Standings();
        var going = ids.ToHashSet();
        bool Goes(Guid id)
        {
            for (var steps = 0; id != Guid.Empty && steps <= MostDepth; steps++, id = standings[id].Parent)
            {
                if (going.Contains(id))
                    return true;
            }

            return false;
        }

        return
        [
            .. tree
                .Places.Keys.Where(id => standings[id].State.Erased is Erasing.None && Goes(id))
                .Order()
                .Select(id => new Change.PropertySet(id, Property.Erased, Erasings.Alone)),
        ];
    }

    public List<Operation> Operations() => [.. operations.Values.OrderBy(operation => operation.Stamp)];

    /// <summary>What the library holds, as bytes: equal for equal sets of operations.</summary>
    public byte[] EncodeState()
    {
        var writer = new ByteWriter(1024);
        tree.Write(writer);
        registers.Write(writer);
        taggings.Write(writer);
        Visits.Write(writer);
        return writer.ToArray();
    }

    private LibraryNode Node(Guid id, PlacedTree.Place place, Guid parent, bool inBin)
    {
        return new LibraryNode(
            id,
            place.Kind,
            parent,
            place.Order,
            registers.Read(id, Property.Name),
            registers.Read(id, Property.Colour),
            registers.Read(id, Property.Cover),
            registers.Read(id, Property.Icon),
            registers.Read(id, Property.Paper),
            registers.Read(id, Properties.Pinned),
            registers.Read(id, Properties.Jot),
            taggings.On(id),
            registers.Read(id, Property.Rule),
            registers.Read(id, Properties.MergedInto),
            registers.Read(id, Properties.LensSpace),
            registers.Read(id, Properties.Source),
            registers.Read(id, Property.Category),
            created[id].Time.UnixMilliseconds,
            createdBy[id],
            BinnedAt(id),
            inBin
        );
    }

    /// <summary>By the stamp of the operation that put it there: a time that a device wrote into it says nothing.</summary>
    private long? BinnedAt(Guid id) => registers.WrittenAt(id, Property.Binned);

    /// <summary>Whether each thing, or something it lies in, is in the bin or was erased.</summary>
    private Dictionary<Guid, ((bool InBin, Erasing Erased) State, Guid Parent)> Standings() =>
        tree.Standings<(bool InBin, Erasing Erased)>(
            MostDepth,
            (id, place, above) =>
                (
                    BinnedAt(id) is not null || above.InBin,
                    // A paper of one's own is never erased: pages may lie on it.
                    place.Kind == NodeKind.Paper
                        ? Erasing.None
                    : above.Erased is Erasing.WithAllInIt ? Erasing.WithAllInIt
                    : registers.Read(id, Properties.Erased)
                ),
            state => state.Erased is Erasing.Alone
        );
}
