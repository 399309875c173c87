using CalmQuill.Core.Library;
using CalmQuill.Core.Operations;

namespace CalmQuill.Core.Changing;

/// <summary>What a library or notebook says of a thing now, so that a change of it can be taken back.</summary>
public interface IStanding
{
    /// <summary>A register; empty when nothing was written.</summary>
    string Read(Guid target, Property property);

    /// <summary>Where a thing lies; null when it was never put anywhere.</summary>
    PlacedTree.Place? PlaceOf(Guid node);

    bool Carries(Guid target, Guid tag);
}

/// <summary>Takes steps back in libraries and notebooks: by ordinary changes that say again what was said before.</summary>
public static class TakingBack
{
    /// <summary>The changes that take back what its author did on a page, once it is done.</summary>
    public static List<Change> OnPage(IEnumerable<Operation> operations) =>
        [
            .. operations
                .Reverse()
                .Where(operation => operation.Change is not Change.StepsJoined)
                .Select(operation =>
                    operation.Change is Change.EffectSet effect
                        ? new Change.EffectSet(effect.Target, !effect.Active)
                        : new Change.EffectSet(operation.Id, false)
                ),
        ];

    /// <summary>The changes that take some others back, worked out before those are made. What is new goes into the bin: it may have been written on by then.</summary>
    /// <param name="standing">The document as it stands before.</param>
    /// <param name="kind">Its kind.</param>
    /// <param name="changes">What is about to be done, in order. A visit is not taken back.</param>
    public static List<Change> Of(IStanding standing, DocumentKind kind, IReadOnlyList<Change> changes)
    {
        var back = new List<Change>();
        var fresh = changes
            .OfType<Change.NodePlaced>()
            .Select(placed => placed.Node)
            .Where(node => standing.PlaceOf(node) is null)
            .ToHashSet();
        foreach (var node in fresh)
            back.Add(new Change.PropertySet(node, Property.Binned, "1"));
        var seen = new HashSet<(Guid, object)>();
        foreach (var change in changes)
        {
            switch (change)
            {
                case Change.NodePlaced { Node: var node } when !fresh.Contains(node) && seen.Add((node, typeof(PlacedTree))):
                    var place = standing.PlaceOf(node)!.Value;
                    back.Add(new Change.NodePlaced(node, place.Kind, place.Parent, place.Order));
                    break;
                case Change.PropertySet { Target: var target, Property: var property }
                    when !fresh.Contains(target) && seen.Add((target, property)):
                    var before = standing.Read(target, property);
                    // A name can only be replaced: where there was none, the one that was given stays.
                    if (before.Length > 0 || Properties.All[property].MayBeEmptyIn(kind))
                        back.Add(new Change.PropertySet(target, property, before));
                    break;
                case Change.TagSet { Target: var target, Tag: var tag } when !fresh.Contains(target) && seen.Add((target, tag)):
                    back.Add(new Change.TagSet(target, tag, standing.Carries(target, tag)));
                    break;
                case Change.OrdersSet { Orders: var orders }:
                    var known = orders.Where(one => standing.PlaceOf(one.Node) is not null).ToList();
                    if (known.Count > 0)
                        back.Add(
                            new Change.OrdersSet([.. known.Select(one => new NodeOrder(one.Node, standing.PlaceOf(one.Node)!.Value.Order))])
                        );
                    break;
            }
        }

        // The last thing done is the first to be taken back: a thing comes out of another before that one goes into the bin. Things go back where they were from
        // above to below: what a thing goes into lies where it did by then, so that it can never lie within the thing itself, which would be no move.
        back.Reverse();
        var depths = new Dictionary<Guid, int>();
        var moves = new Queue<Change>(back.OfType<Change.NodePlaced>().OrderBy(placed => DepthOf(standing, placed.Node, depths)));
        return [.. back.Select(change => change is Change.NodePlaced ? moves.Dequeue() : change)];
    }

    /// <summary>How many things a thing lies within.</summary>
    private static int DepthOf(IStanding standing, Guid node, Dictionary<Guid, int> known)
    {
        var way = new Stack<Guid>();
        while (node != Guid.Empty && !known.ContainsKey(node))
        {
            way.Push(node);
            node = standing.PlaceOf(node)?.Parent ?? Guid.Empty;
        }

        var depth = node == Guid.Empty ? 0 : known[node];
        foreach (var passed in way)
            known[passed] = ++depth;
        return depth;
    }
}
