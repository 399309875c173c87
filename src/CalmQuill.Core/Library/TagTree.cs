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
    /// <summary>How deep tags nest. What people nest deeper is shown at this depth.</summary>
    public const int MostDepth = 32;

    private readonly Dictionary<Guid, LibraryNode> nodes;
    private readonly Dictionary<Guid, Guid> ends = [];
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
        var standing = nodes.Values.Where(node => Follow(node.Id) == node.Id).ToList();
        var parents = standing.ToDictionary(node => node.Id, ParentOf);
        CutRings(parents);
        var children = standing.ToLookup(node => parents[node.Id]);
        var merged = nodes.Keys.Where(id => Follow(id) != id).ToLookup(Follow);
        Gather(children, merged);
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
        if (Find(from) is not { } moved || Find(into) is not { } target)
            return new Refusal("no-tag", $"One of the two tags is no longer here.");
        if (moved == target)
            return new Refusal("same-tag", $"A tag cannot be merged into itself.");
        return IsWithin(target, moved.Id)
            ? new Refusal("own-child", $"“{target.Path}” is nested in “{moved.Path}”. Move it out first, or merge it the other way round.")
            : null;
    }

    /// <summary>The parts of a path: trimmed, empty ones left out.</summary>
    public static string[] Parts(string path) => path.Split('/', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries);

    private bool IsWithin(Tag tag, Guid ancestor)
    {
        for (var at = tag; ; at = tags[at.Parent])
        {
            if (at.Id == ancestor)
                return true;
            if (at.Parent == Guid.Empty)
                return false;
        }
    }

    /// <summary>The end of the chain of merges. In a ring, which two people can make at the same time, the smallest id stands.</summary>
    private Guid Follow(Guid id)
    {
        var passed = new List<Guid>();
        var seen = new HashSet<Guid>();
        Guid end;
        for (var at = id; !ends.TryGetValue(at, out end); at = nodes[at].MergedInto!.Value)
        {
            if (!seen.Add(at))
            {
                end = passed.SkipWhile(one => one != at).Min();
                break;
            }

            passed.Add(at);
            if (nodes[at].MergedInto is { } next && nodes.ContainsKey(next))
                continue;
            end = at;
            break;
        }

        foreach (var one in passed)
            ends[one] = end;
        return end;
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
            if (stands != node.Id && !LeadsTo(stands, node.Id))
                return stands;
            if (!passed.Add(at))
                break;
            at = parent.Parent;
        }

        return Guid.Empty;
    }

    /// <summary>Where merges that cross each other nest tags in a ring, none would be reached from the root: the smallest of the ring is put there.</summary>
    private static void CutRings(Dictionary<Guid, Guid> parents)
    {
        var done = new HashSet<Guid> { Guid.Empty };
        foreach (var start in parents.Keys.Order().ToList())
        {
            var passed = new List<Guid>();
            var at = start;
            while (!done.Contains(at) && !passed.Contains(at))
            {
                passed.Add(at);
                at = parents[at];
            }

            if (passed.IndexOf(at) is var ring and >= 0)
                parents[passed[ring..].Min()] = Guid.Empty;
            done.UnionWith(passed);
        }
    }

    private bool LeadsTo(Guid from, Guid to)
    {
        var passed = new HashSet<Guid>();
        for (
            var at = from;
            nodes.TryGetValue(at, out var node) && passed.Add(at);
            at = node.Parent is var parent && nodes.ContainsKey(parent) ? Follow(parent) : Guid.Empty
        )
        {
            if (at == to)
                return true;
        }

        return false;
    }

    /// <summary>Names the tags from the outermost inwards, each before those nested in it.</summary>
    private void Gather(ILookup<Guid, LibraryNode> children, ILookup<Guid, Guid> merged)
    {
        var waiting = new Stack<(IReadOnlyList<LibraryNode> Alike, Guid Parent, string Path, int Depth)>();
        // Pushed last first, so that they come out in order. What is nested deeper than paths go is shown beside what it is nested in.
        void Push(IEnumerable<Guid> parents, Guid parent, string path, int depth)
        {
            var named = parents
                .SelectMany(id => children[id])
                .GroupBy(node => Folding.Fold(node.Name))
                .OrderByDescending(group => NaturalOrder.Key(group.First().Name), StringComparer.Ordinal);
            foreach (var same in named)
                waiting.Push(([.. same.OrderBy(node => node.CreatedAt).ThenBy(node => node.Id)], parent, path, depth));
        }

        Push([Guid.Empty], Guid.Empty, "", 1);
        while (waiting.TryPop(out var next))
        {
            var (alike, parent, path, depth) = next;
            var first = alike[0];
            Guid[] ids = [.. alike.Select(node => node.Id), .. alike.SelectMany(node => merged[node.Id])];
            var full = path.Length == 0 ? first.Name : $"{path}/{first.Name}";
            tags[first.Id] = new Tag(first.Id, parent, first.Name, full, first.Colour, ids);
            foreach (var id in ids)
                standsFor[id] = first.Id;
            if (depth < MostDepth)
                Push(alike.Select(node => node.Id), first.Id, full, depth + 1);
            else
                Push(alike.Select(node => node.Id), parent, path, depth);
        }
    }
}
