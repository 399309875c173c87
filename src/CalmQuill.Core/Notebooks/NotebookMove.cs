using CalmQuill.Core.Library;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Ordering;

namespace CalmQuill.Core.Notebooks;

/// <summary>The changes that take sections and pages, with what lies in them, from one notebook of a library to another.</summary>
/// <param name="Into">What is done to the notebook they come into; first, so that whatever happens in between they are in one of the two.</param>
/// <param name="Out">What is done to the one that they leave.</param>
public sealed record NotebookMove(IReadOnlyList<Change> Into, IReadOnlyList<Change> Out)
{
    /// <summary>One of the things that move, and where it goes.</summary>
    /// <param name="Id">The section or page.</param>
    /// <param name="Parent">What it goes into; the empty id for the notebook itself.</param>
    /// <param name="After">The sibling behind which it goes; null for the head, the empty id for the end.</param>
    public readonly record struct Top(Guid Id, Guid Parent, Guid? After);

    /// <param name="source">The notebook that they leave.</param>
    /// <param name="target">The one they come into.</param>
    /// <param name="targetId">Its id.</param>
    /// <param name="tops">What moves; what lies in one of them goes along, and need not be named.</param>
    /// <param name="device">A number of whoever moves them.</param>
    public static NotebookMove Plan(NotebookDocument source, NotebookDocument target, Guid targetId, IReadOnlyList<Top> tops, ulong device)
    {
        var (into, leaving) = (new List<Change>(), new List<Change>());
        var siblings = target
            .Outline(withBinned: true)
            .GroupBy(entry => entry.Parent)
            .ToDictionary(group => group.Key, group => group.Select(entry => (entry.Id, entry.Order)).ToList());
        var byId = tops.DistinctBy(top => top.Id).ToDictionary(top => top.Id);
        var along = new HashSet<Guid>();
        foreach (var entry in source.Outline())
        {
            var isWithin = along.Contains(entry.Parent);
            if (!isWithin && !byId.ContainsKey(entry.Id))
                continue;
            along.Add(entry.Id);
            into.AddRange(SaidOf(entry, target));
            if (isWithin)
                into.Add(new Change.NodePlaced(entry.Id, entry.Kind, entry.Parent, entry.Order));
            leaving.Add(new Change.PropertySet(entry.Id, Property.MovedTo, targetId.ToString()));
        }

        // In the order in which they are named, each behind the one before where that is said.
        foreach (var top in byId.Values.Where(top => along.Contains(top.Id)))
        {
            var entry = source.Outline().First(one => one.Id == top.Id);
            if (along.Contains(entry.Parent))
                continue;
            if (!siblings.TryGetValue(top.Parent, out var among))
                siblings[top.Parent] = among = [];
            among.RemoveAll(one => one.Id == top.Id);
            var index =
                top.After is not { } after ? 0
                : among.FindIndex(one => one.Id == after) is >= 0 and var at ? at + 1
                : among.Count;
            var place = Neighbourhood.Of(among, index, device);
            if (place.Laid.Count > 0)
            {
                into.Add(new Change.OrdersSet([.. place.Laid.Select(laid => new NodeOrder(laid.Id, laid.Order))]));
                foreach (var (id, order) in place.Laid)
                    among[among.FindIndex(one => one.Id == id)] = (id, order);
            }

            among.Insert(index, (top.Id, place.Order));
            into.Add(new Change.NodePlaced(top.Id, entry.Kind, top.Parent, place.Order));
        }

        return new NotebookMove(into, leaving);
    }

    private static IEnumerable<Change> SaidOf(NotebookEntry entry, NotebookDocument target)
    {
        // It may have been here before.
        foreach (var property in new[] { Property.MovedTo, Property.Binned, Property.Erased })
        {
            if (target.Read(entry.Id, property).Length > 0)
                yield return new Change.PropertySet(entry.Id, property, "");
        }

        (Property, string)[] said =
        [
            (Property.Paper, entry.Paper),
            (Property.Name, Names.Cleaned(entry.Title)),
            (Property.Colour, entry.Colour),
        ];
        foreach (var (property, value) in said)
        {
            if (value.Length > 0 && target.Read(entry.Id, property) != value)
                yield return new Change.PropertySet(entry.Id, property, value);
        }

        foreach (var tag in entry.OwnTags.Ids)
            yield return new Change.TagSet(entry.Id, tag, true);
    }
}
