using CalmQuill.Core.Operations;

namespace CalmQuill.Core.Library;

/// <summary>
/// The part of a library that a guest sees, as a library of its own: the folders and notebooks that were shared, each with its looks, the papers they are
/// written on, and nothing that would tell of the rest. It is made anew from the nodes each time, by operations that nobody stores.
/// </summary>
public static class GuestView
{
    /// <param name="nodes">What was shared, with all folders and notebooks inside. What lies in nothing of it stands at the head.</param>
    /// <param name="replica">The number its operations carry.</param>
    public static List<Operation> Operations(IReadOnlyCollection<LibraryNode> nodes, ulong replica)
    {
        var seen = nodes.Select(node => node.Id).ToHashSet();
        var made = new List<Operation>();
        foreach (var node in nodes)
        {
            if (node.InBin || node.Kind is not (NodeKind.Folder or NodeKind.Notebook or NodeKind.Paper))
                throw new ArgumentException("A guest sees folders, notebooks and papers that are not in the bin.", nameof(nodes));
            void Add(Change change) =>
                made.Add(new Operation(new OpId(replica, (ulong)made.Count + 1), Hlc.At(node.CreatedAt), node.CreatedBy, change));

            Add(new Change.NodePlaced(node.Id, node.Kind, seen.Contains(node.Parent) ? node.Parent : Guid.Empty, node.Order));
            (Property, string)[] said =
            [
                (Property.Name, node.Name),
                (Property.Colour, node.Colour),
                (Property.Cover, node.Cover),
                (Property.Icon, node.Icon),
                (Property.Paper, node.Paper),
                (Property.Source, node.Source?.ToString() ?? ""),
                (Property.Category, node.Category),
            ];
            foreach (var (property, value) in said)
            {
                if (value.Length > 0)
                    Add(new Change.PropertySet(node.Id, property, value));
            }
        }

        return made;
    }
}
