using CalmQuill.Core.Operations;

namespace CalmQuill.Core.Library;

/// <summary>The changes that make a copy of a folder or notebook with all that is in it, in the same library or another.</summary>
/// <param name="Top">The copy of the thing itself.</param>
/// <param name="Changes">What is done to the library it is copied into.</param>
/// <param name="Notebooks">Which notebook is copied from which.</param>
public sealed record LibraryCopy(Guid Top, IReadOnlyList<Change> Changes, IReadOnlyList<(Guid From, Guid To)> Notebooks)
{
    /// <param name="source">The nodes of the library it comes from.</param>
    /// <param name="node">The folder or notebook.</param>
    /// <param name="parent">The folder the copy goes into.</param>
    /// <param name="order">The copy's order key there.</param>
    /// <param name="name">The copy's name.</param>
    /// <param name="withTags">Whether tags go along; they mean nothing in another library.</param>
    /// <param name="newId">Draws a fresh id.</param>
    /// <returns>Null when there is no such folder or notebook, or it is in the bin.</returns>
    public static LibraryCopy? Plan(
        IReadOnlyList<LibraryNode> source,
        Guid node,
        Guid parent,
        string order,
        string name,
        bool withTags,
        Func<Guid> newId
    )
    {
        if (source.FirstOrDefault(one => one.Id == node) is not { InBin: false, Kind: NodeKind.Folder or NodeKind.Notebook } top)
            return null;
        var children = source.Where(one => !one.InBin && one.Kind is NodeKind.Folder or NodeKind.Notebook).ToLookup(one => one.Parent);
        var changes = new List<Change>();
        var notebooks = new List<(Guid, Guid)>();
        var copy = newId();
        var waiting = new Queue<(LibraryNode From, Guid To, Guid Into, string At, string Called)>([(top, copy, parent, order, name)]);
        while (waiting.TryDequeue(out var next))
        {
            var (from, to, into, at, called) = next;
            changes.Add(new Change.NodePlaced(to, from.Kind, into, at));
            (Property, string)[] said =
            [
                (Property.Name, called),
                (Property.Colour, from.Colour),
                (Property.Cover, from.Cover),
                (Property.Icon, from.Icon),
                (Property.Paper, from.Paper),
            ];
            foreach (var (property, value) in said)
            {
                if (value.Length > 0)
                    changes.Add(new Change.PropertySet(to, property, value));
            }

            if (withTags)
                changes.AddRange(from.Tags.Ids.Select(tag => new Change.TagSet(to, tag, true)));
            if (from.Kind == NodeKind.Notebook)
                notebooks.Add((from.Id, to));
            foreach (var child in children[from.Id])
                waiting.Enqueue((child, newId(), to, child.Order, child.Name));
        }

        return new LibraryCopy(copy, changes, notebooks);
    }
}
