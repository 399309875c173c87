using CalmQuill.Core.Operations;
using CalmQuill.Core.Text;

namespace CalmQuill.Core.Library;

/// <summary>The tags of a library as people see them: nested, merged ones as one, those in the bin left out.</summary>
/// <remarks>
/// What is tagged keeps the id that was put on it. Merging, renaming and binning a tag therefore change the tag alone, and can be taken back. Two tags
/// that people made under the same name in the same place count as one: the older stands for both.
/// </remarks>
public sealed class TagTree
{
    private readonly Dictionary<Guid, LibraryNode> nodes;
    private readonly Dictionary<Guid, Guid> standsFor = [];
    private readonly Dictionary<Guid, Tag> tags = [];

    /// <param name="Id">The tag that stands.</param>
    /// <param name="Parent">The tag it is nested in; <see cref="Guid.Empty"/> is none.</param>
    /// <param name="Name">Its own name.</param>
    /// <param name="Path">Its name with those it is nested in, parted by slashes.</param>
    /// <param name="Colour">A name of the palette; may be empty.</param>
    /// <param name="Ids">All ids that count as this tag.</param>
    public sealed record Tag(Guid Id, Guid Parent, string Name, string Path, string Colour, IReadOnlyList<Guid> Ids);

    /// <param name="library">The nodes of a library; those that are not tags are passed over.</param>
    public TagTree(IEnumerable<LibraryNode> library)
    {
        nodes = library.Where(node => node is { Kind: NodeKind.Tag, InBin: false }).ToDictionary(node => node.Id);
        var children = nodes.Values.Where(node => Follow(node.Id) == node.Id).ToLookup(ParentOf);
        var merged = nodes.Keys.Where(id => Follow(id) != id).ToLookup(Follow);
        Gather([Guid.Empty], Guid.Empty, "", children, merged);
    }

    /// <summary>All tags, each before those nested in it, siblings in natural order.</summary>
    public IReadOnlyList<Tag> All => [.. tags.Values];

    /// <summary>The tag that an id stands for; null when it is in the bin or unknown.</summary>
    public Tag? Find(Guid id) => standsFor.TryGetValue(id, out var tag) ? tags[tag] : null;

    /// <summary>The tag with this path, compared folded; null when there is none.</summary>
    public Tag? Find(string path)
    {
        var wanted = Parts(path).Select(Folding.Fold).ToArray();
        return tags.Values.FirstOrDefault(tag => Parts(tag.Path).Select(Folding.Fold).SequenceEqual(wanted));
    }

    /// <summary>All ids under which something may be tagged with this tag or one nested in it; none when it is in the bin or unknown.</summary>
    public HashSet<Guid> Expand(Guid id) =>
        Find(id) is { } wanted ? [.. tags.Values.Where(tag => IsWithin(tag, wanted.Id)).SelectMany(tag => tag.Ids)] : [];

    /// <summary>Null when the first tag may be merged into the second, else why not.</summary>
    public Refusal? MergeProblem(Guid from, Guid into)
    {
        if (Find(from) is not { } moved || Find(into) is not { } target) return new Refusal("no-tag", "One of the two tags is no longer here.");
        if (moved == target) return new Refusal("same-tag", "A tag cannot be merged into itself.");
        return IsWithin(target, moved.Id)
            ? new Refusal("own-child", $"“{target.Path}” is nested in “{moved.Path}”. Move it out first, or merge it the other way round.") : null;
    }

    /// <summary>The parts of a path: trimmed, empty ones left out.</summary>
    public static string[] Parts(string path) => path.Split('/', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries);

    private bool IsWithin(Tag tag, Guid ancestor)
    {
        for (var at = tag; ; at = tags[at.Parent])
        {
            if (at.Id == ancestor) return true;
            if (at.Parent == Guid.Empty) return false;
        }
    }

    /// <summary>The end of the chain of merges. In a ring, which two people can make at the same time, the smallest id stands.</summary>
    private Guid Follow(Guid id)
    {
        var passed = new List<Guid> { id };
        while (nodes[passed[^1]].MergedInto is { } next && nodes.ContainsKey(next))
        {
            var ring = passed.IndexOf(next);
            if (ring >= 0) return passed.Skip(ring).Min();
            passed.Add(next);
        }

        return passed[^1];
    }

    /// <summary>The tag in which one is nested; where merging has put it into itself, the next one outwards.</summary>
    private Guid ParentOf(LibraryNode node)
    {
        var passed = new HashSet<Guid> { node.Id };
        var at = node.Parent;
        while (nodes.TryGetValue(at, out var parent))
        {
            var stands = Follow(at);
            // A ring through merges ends at the root.
            if (stands != node.Id && !LeadsTo(stands, node.Id)) return stands;
            if (!passed.Add(at)) break;
            at = parent.Parent;
        }

        return Guid.Empty;
    }

    private bool LeadsTo(Guid from, Guid to)
    {
        var passed = new HashSet<Guid>();
        for (var at = from; nodes.TryGetValue(at, out var node) && passed.Add(at); at = node.Parent is var parent && nodes.ContainsKey(parent) ? Follow(parent) : Guid.Empty)
        {
            if (at == to) return true;
        }

        return false;
    }

    private void Gather(IEnumerable<Guid> parents, Guid parent, string path, ILookup<Guid, LibraryNode> children, ILookup<Guid, Guid> merged)
    {
        var named = parents.SelectMany(id => children[id]).GroupBy(node => Folding.Fold(node.Name)).OrderBy(group => NaturalOrder.Key(group.First().Name), StringComparer.Ordinal);
        foreach (var same in named)
        {
            var alike = same.OrderBy(node => node.CreatedAt).ThenBy(node => node.Id).ToList();
            var first = alike[0];
            Guid[] ids = [.. alike.Select(node => node.Id), .. alike.SelectMany(node => merged[node.Id])];
            var full = path.Length == 0 ? first.Name : $"{path}/{first.Name}";
            tags[first.Id] = new Tag(first.Id, parent, first.Name, full, first.Colour, ids);
            foreach (var id in ids) standsFor[id] = first.Id;
            Gather(alike.Select(node => node.Id), first.Id, full, children, merged);
        }
    }
}
