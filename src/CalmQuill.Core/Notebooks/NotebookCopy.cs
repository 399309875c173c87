using CalmQuill.Core.Library;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Ordering;
using CalmQuill.Core.Planner;

namespace CalmQuill.Core.Notebooks;

/// <summary>The changes that make a copy of a notebook, or of one section or page with what lies in it.</summary>
/// <param name="Changes">What is done to the notebook it is copied into.</param>
/// <param name="Pages">Which page is copied from which; what is written on them is copied as it is.</param>
public sealed record NotebookCopy(IReadOnlyList<Change> Changes, IReadOnlyList<(Guid From, Guid To)> Pages)
{
    /// <param name="source">The notebook it comes from.</param>
    /// <param name="entry">The section or page; null for the whole notebook.</param>
    /// <param name="order">The order key of the copy of a single section or page, after its original.</param>
    /// <param name="withTags">Whether tags go along; they mean nothing in another library.</param>
    /// <param name="newId">Draws a fresh id.</param>
    /// <param name="into">What the copy of a single section or page goes into, where it does not stay beside its original.</param>
    /// <param name="whole">For a whole notebook: its id, and the copy's. A planner's pages get the ids that follow from the copy's, so that its dates lead within it.</param>
    /// <param name="without">What of it is left out; what lies in it stands in the notebook itself.</param>
    public static NotebookCopy Plan(
        NotebookDocument source,
        Guid? entry,
        string order,
        bool withTags,
        Func<Guid> newId,
        Guid? into = null,
        (Guid From, Guid To)? whole = null,
        Predicate<Guid>? without = null
    )
    {
        var changes = new List<Change>();
        var planner = whole is { } notebook && source.Planner(notebook.From) is not null ? whole : null;
        if (whole is { } copied)
        {
            foreach (var property in new[] { Property.Planner, Property.Turning })
            {
                if (source.Read(copied.From, property) is { Length: > 0 } value)
                    changes.Add(new Change.PropertySet(copied.To, property, value));
            }
        }

        if (planner is not null)
            changes.AddRange(source.Entries().Select(one => new Change.PropertySet(one.Id, Property.Entry, one.Write())));
        var pages = new List<(Guid, Guid)>();
        var copies = new Dictionary<Guid, Guid>();
        foreach (var one in source.Outline())
        {
            var isTop = one.Id == entry;
            if ((entry is not null && !isTop && !copies.ContainsKey(one.Parent)) || without?.Invoke(one.Id) == true)
                continue;
            var role = planner is null ? null : PlannerPage.Read(source.Read(one.Id, Property.Planner));
            var copy = copies[one.Id] = role?.IdIn(planner!.Value.To) ?? newId();
            if (role is { } known)
                changes.Add(new Change.PropertySet(copy, Property.Planner, known.ToString()));
            // The top of a single copy stays beside its original, unless it goes elsewhere.
            var parent = isTop ? into ?? one.Parent : copies.GetValueOrDefault(one.Parent);
            changes.Add(new Change.NodePlaced(copy, one.Kind, parent, isTop ? order : one.Order));
            if (one.Paper.Length > 0)
                changes.Add(new Change.PropertySet(copy, Property.Paper, one.Paper));
            if (one.Title.Length > 0)
                changes.Add(new Change.PropertySet(copy, Property.Name, one.Title));
            if (one.Colour.Length > 0)
                changes.Add(new Change.PropertySet(copy, Property.Colour, one.Colour));
            if (withTags)
                changes.AddRange(one.OwnTags.Ids.Select(tag => new Change.TagSet(copy, tag, true)));
            if (one.Kind == NodeKind.Page)
                pages.Add((one.Id, copy));
        }

        return new NotebookCopy(changes, pages);
    }

    /// <summary>A copy of a section or page beside it; null when it is not there.</summary>
    /// <param name="source">The notebook.</param>
    /// <param name="entry">The section or page.</param>
    /// <param name="device">Who copies, for the order key.</param>
    /// <param name="newId">Draws a fresh id.</param>
    public static NotebookCopy? Beside(NotebookDocument source, Guid entry, ulong device, Func<Guid> newId)
    {
        var outline = source.Outline();
        if (outline.Find(one => one.Id == entry) is not { } original)
            return null;
        var next = outline
            .Where(one => one.Parent == original.Parent && string.CompareOrdinal(one.Order, original.Order) > 0)
            .Select(one => one.Order)
            .FirstOrDefault();
        return Plan(source, entry, OrderKey.Between(original.Order, next, device), true, newId);
    }

    /// <summary>A copy of a section or page at the end of a place in another notebook; null when it is not there.</summary>
    /// <param name="source">The notebook it comes from.</param>
    /// <param name="entry">The section or page.</param>
    /// <param name="target">The notebook it goes into.</param>
    /// <param name="parent">What it goes into there; <see cref="Guid.Empty"/> for the notebook itself.</param>
    /// <param name="withTags">Whether tags go along.</param>
    /// <param name="device">Who copies, for the order key.</param>
    /// <param name="newId">Draws a fresh id.</param>
    /// <exception cref="SentenceException">It cannot go there, with a sentence.</exception>
    public static NotebookCopy? Into(
        NotebookDocument source,
        Guid entry,
        NotebookDocument target,
        Guid parent,
        bool withTags,
        ulong device,
        Func<Guid> newId
    )
    {
        if (source.Outline().Find(one => one.Id == entry) is not { } original)
            return null;
        var outline = target.Outline();
        var isThere = parent == Guid.Empty || outline.Exists(one => one.Id == parent && !one.InBin);
        if (!isThere || !target.MayLieIn(original.Kind, parent))
            throw new SentenceException($"The place to copy to is not there, or is in the bin. Nothing was copied.");
        var last = outline.LastOrDefault(one => one.Parent == parent)?.Order;
        return Plan(source, entry, OrderKey.Between(last, null, device), withTags, newId, parent);
    }
}
