using CalmQuill.Core.Library;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Ordering;

namespace CalmQuill.Core.Bringing;

/// <summary>What makes pages of the sheets of a file.</summary>
/// <param name="Notebook">What is done to the notebook: one step.</param>
/// <param name="Pages">The page that each sheet becomes.</param>
public sealed record BroughtPages(IReadOnlyList<Change> Notebook, IReadOnlyList<(Guid Page, LaidSheet Sheet)> Pages)
{
    /// <param name="sheets">The sheets.</param>
    /// <param name="chapters">What their file's bookmarks make of them.</param>
    /// <param name="parent">What they go into: a section, a page, or the notebook itself.</param>
    /// <param name="before">The order key of the sibling after which they go; null for the head.</param>
    /// <param name="after">That of the sibling ahead of which they go; null for the end.</param>
    /// <param name="device">A number of whoever brings them.</param>
    /// <param name="newId">Draws a fresh id.</param>
    public static BroughtPages Of(
        IReadOnlyList<LaidSheet> sheets,
        Chapters chapters,
        Guid parent,
        string? before,
        string? after,
        ulong device,
        Func<Guid> newId
    )
    {
        var changes = new List<Change>();
        var pages = new List<(Guid, LaidSheet)>();
        var sections = new Guid[chapters.Sections.Count];
        // The last key in each section; in the parent at the end.
        var last = new string?[chapters.Sections.Count + 1];
        last[^1] = before;
        var next = 0;
        for (var sheet = 0; sheet < sheets.Count; sheet++)
        {
            for (; next < sections.Length && chapters.Sections[next].First <= sheet; next++)
            {
                sections[next] = newId();
                Put(sections[next], NodeKind.Section, chapters.Sections[next].Parent, chapters.Sections[next].Title, "");
            }

            var page = newId();
            Put(page, NodeKind.Page, chapters.In[sheet], chapters.Titles[sheet], sheets[sheet].Paper.ToString());
            pages.Add((page, sheets[sheet]));
        }

        return new BroughtPages(changes, pages);

        void Put(Guid id, NodeKind kind, int section, string title, string paper)
        {
            var isTop = section < 0;
            ref var order = ref last[isTop ? ^1 : section];
            order = OrderKey.Between(order, isTop ? after : null, device);
            if (paper.Length > 0)
                changes.Add(new Change.PropertySet(id, Property.Paper, paper));
            if (title.Length > 0)
                changes.Add(new Change.PropertySet(id, Property.Name, title));
            changes.Add(new Change.NodePlaced(id, kind, isTop ? parent : sections[section], order));
        }
    }
}
