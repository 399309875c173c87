using CalmQuill.Core.Operations;

namespace CalmQuill.Core.Library;

/// <summary>The library of a space: folders and notebooks in a tree, with name, colour and cover, and the bin.</summary>
public sealed class LibraryDocument
{
    private readonly Dictionary<OpId, Operation> operations = [];
    private readonly PlacedTree tree = new();
    private readonly Registers registers = new();

    public int OperationCount => operations.Count;

    /// <summary>Takes an operation in. False when it was here already, or does not belong in a library.</summary>
    public bool Apply(Operation operation)
    {
        if (operation.Change.Kind is not (ChangeKind.NodePlaced or ChangeKind.PropertySet) || !operations.TryAdd(operation.Id, operation)) return false;
        if (operation.Change is Change.NodePlaced placed) tree.Apply(operation.Stamp, placed);
        else if (operation.Change is Change.PropertySet set) registers.Write(set.Target, set.Property, operation.Stamp, set.Value);
        return true;
    }

    /// <summary>Whether putting a node into a folder would make it its own ancestor.</summary>
    public bool WouldCycle(Guid node, Guid parent) => tree.IsUnder(parent, node);

    /// <summary>All folders and notebooks, siblings in order. One whose folder has not arrived yet stands at the root.</summary>
    public List<LibraryNode> Nodes()
    {
        var binned = new Dictionary<Guid, bool>();
        return [.. tree.Places.Select(entry => Node(entry.Key, entry.Value, binned)).OrderBy(node => node.Order, StringComparer.Ordinal).ThenBy(node => node.Id)];
    }

    public List<Operation> Operations() => [.. operations.Values.OrderBy(operation => operation.Stamp)];

    /// <summary>What the library holds, as bytes: equal for equal sets of operations.</summary>
    public byte[] EncodeState()
    {
        var writer = new ByteWriter(1024);
        foreach (var (id, place) in tree.Places.OrderBy(entry => entry.Key))
        {
            writer.Guid(id);
            writer.Byte((byte)place.Kind);
            writer.Guid(place.Parent);
            writer.Text(place.Order);
        }

        registers.Write(writer);
        return writer.ToArray();
    }

    private LibraryNode Node(Guid id, PlacedTree.Place place, Dictionary<Guid, bool> binned)
    {
        var parent = tree.Places.ContainsKey(place.Parent) ? place.Parent : Guid.Empty;
        return new LibraryNode(
            id, place.Kind, parent, place.Order, registers.Read(id, Property.Name), registers.Read(id, Property.Colour), registers.Read(id, Property.Cover),
            BinnedAt(id), InBin(id, binned));
    }

    private long? BinnedAt(Guid id) => long.TryParse(registers.Read(id, Property.Binned), out var at) ? at : null;

    private bool InBin(Guid id, Dictionary<Guid, bool> known)
    {
        if (!tree.Places.TryGetValue(id, out var place)) return false;
        if (known.TryGetValue(id, out var inBin)) return inBin;
        return known[id] = BinnedAt(id) is not null || InBin(place.Parent, known);
    }
}
