using CalmQuill.Core.Operations;
using CalmQuill.Core.Ordering;

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

    /// <summary>A copy of a folder or notebook at the end of a folder; null when it is not there.</summary>
    /// <param name="source">The nodes of the library it comes from.</param>
    /// <param name="node">The folder or notebook.</param>
    /// <param name="target">The nodes of the library it goes into: the same list when it stays.</param>
    /// <param name="parent">The folder it goes into; <see cref="Guid.Empty"/> for the head of the library.</param>
    /// <param name="name">What it is called; null for a copy of its original.</param>
    /// <param name="withTags">Whether tags go along; they mean nothing in another library.</param>
    /// <param name="device">Who copies, for the order key.</param>
    /// <param name="newId">Draws a fresh id.</param>
    /// <exception cref="SentenceException">The folder is not there, with a sentence.</exception>
    public static LibraryCopy? Into(
        IReadOnlyList<LibraryNode> source,
        Guid node,
        IReadOnlyList<LibraryNode> target,
        Guid parent,
        string? name,
        bool withTags,
        ulong device,
        Func<Guid> newId
    )
    {
        if (parent != Guid.Empty && !target.Any(one => one.Id == parent && one is { Kind: NodeKind.Folder, InBin: false }))
            throw new SentenceException($"The folder to copy into is not there, or is in the bin. Nothing was copied.");
        var last = target.LastOrDefault(one => one.Parent == parent)?.Order;
        name ??= Called(source.FirstOrDefault(one => one.Id == node)?.Name ?? "");
        return Plan(source, node, parent, OrderKey.Between(last, null, device), name, withTags, newId);
    }

    /// <summary>The name of a copy; of a name that is too long already, as much as fits.</summary>
    private static string Called(string name)
    {
        var called = $"{name}, copy";
        return Names.Problem(called) is null ? called : name;
    }
}
