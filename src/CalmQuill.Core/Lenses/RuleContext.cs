using CalmQuill.Core.Library;

namespace CalmQuill.Core.Lenses;

/// <summary>What a rule's words mean at the moment it is asked: which ids a tag stands for, what lies in a folder, which days “this term” covers.</summary>
public sealed class RuleContext
{
    private readonly TagTree tags;
    private readonly ILookup<Guid, Guid> folders;
    private readonly LocalClock clock;
    private readonly IReadOnlyList<(DateOnly First, DateOnly Last)> terms;
    private readonly Dictionary<Guid, HashSet<Guid>> tagIds = [];
    private readonly Dictionary<Guid, HashSet<Guid>> folderIds = [];

    /// <param name="structure">The folders and tags of the library; other nodes are passed over.</param>
    /// <param name="terms">The library's terms, as <see cref="Span.ReadTerms"/> reads them; not well formed counts as none.</param>
    /// <param name="clock">The clock of the person who asks.</param>
    public RuleContext(IReadOnlyCollection<LibraryNode> structure, string terms, LocalClock clock)
    {
        tags = new TagTree(structure);
        folders = structure.Where(node => node.Kind == NodeKind.Folder).ToLookup(node => node.Parent, node => node.Id);
        this.terms = Span.ReadTerms(terms) ?? [];
        this.clock = clock;
    }

    /// <summary>All ids under which something may carry a tag.</summary>
    public HashSet<Guid> TagIds(Guid tag) => Known(tagIds, tag, tags.Expand);

    /// <summary>A folder and all folders inside it.</summary>
    public HashSet<Guid> FolderIds(Guid folder) =>
        Known(
            folderIds,
            folder,
            id =>
            {
                var found = new HashSet<Guid>();
                var waiting = new Stack<Guid>([id]);
                while (waiting.TryPop(out var next))
                {
                    if (!found.Add(next))
                        continue;
                    foreach (var inner in folders[next])
                        waiting.Push(inner);
                }

                return found;
            }
        );

    public IReadOnlyList<(long From, long To)> Bounds(Span span) => span.Bounds(clock, terms);

    private static HashSet<Guid> Known(Dictionary<Guid, HashSet<Guid>> known, Guid id, Func<Guid, HashSet<Guid>> make) =>
        known.TryGetValue(id, out var found) ? found : known[id] = make(id);
}
