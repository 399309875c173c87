using CalmQuill.Core.Library;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Ordering;

namespace CalmQuill.Core.Browser;

/// <summary>Puts a thing among its siblings.</summary>
internal static class Siblings
{
    /// <summary>The changes that take: mostly one; where keys have become long, first one that lays the neighbourhood anew.</summary>
    /// <param name="siblings">Those that are there, in order.</param>
    /// <param name="after">The sibling after which it goes; “first” for the head, empty for the end.</param>
    /// <param name="node">What is put there.</param>
    /// <param name="kind">Its kind.</param>
    /// <param name="parent">What it and its siblings lie in.</param>
    public static List<Change> PutAfter(
        IReadOnlyList<(Guid Id, string Order)> siblings,
        string after,
        Guid node,
        NodeKind kind,
        Guid parent
    )
    {
        var place = Neighbourhood.Of(siblings, IndexAfter(siblings, after), Session.Replica.Id);
        var changes = new List<Change>();
        if (place.Laid.Count > 0)
            changes.Add(new Change.OrdersSet([.. place.Laid.Select(laid => new NodeOrder(laid.Id, laid.Order))]));
        changes.Add(new Change.NodePlaced(node, kind, parent, place.Order));
        return changes;
    }

    private static int IndexAfter(IReadOnlyList<(Guid Id, string Order)> siblings, string after)
    {
        if (after == "first")
            return 0;
        if (after.Length == 0)
            return siblings.Count;
        var id = Guid.Parse(after);
        for (var i = 0; i < siblings.Count; i++)
        {
            if (siblings[i].Id == id)
                return i + 1;
        }

        return siblings.Count;
    }
}
