using CalmQuill.Core.Operations;

namespace CalmQuill.Core.Library;

/// <summary>A tree that people move things about in at the same time (Kleppmann, Mulligan, Gomes and Beresford 2021).</summary>
/// <remarks>
/// Moves are done in the order of their stamps. A move that would put a thing under itself or its own child, or where its kind does not belong, has
/// no effect, or puts a new thing at the root. One that arrives late makes the later ones be undone, itself be done, and the later ones be done again.
/// </remarks>
public sealed class PlacedTree
{
    /// <summary>How far up a place is followed before it counts as too deep to put anything into; far beyond what anybody lays out by hand.</summary>
    public const int MostSteps = 1_000;

    private readonly List<LogEntry> log = [];
    private readonly Dictionary<Guid, Place> places = [];

    public readonly record struct Place(NodeKind Kind, Guid Parent, string Order);

    /// <summary>A move, or with no kind a new key for what is there already.</summary>
    private readonly record struct Step(Guid Node, NodeKind? Kind, Guid Parent, string Order);

    private readonly record struct LogEntry(Stamp Stamp, Step Step, Place? Before, bool Done);

    public IReadOnlyDictionary<Guid, Place> Places => places;

    public void Apply(Stamp stamp, Change.NodePlaced move) => Apply(stamp, [new Step(move.Node, move.NodeKind, move.Parent, move.Order)]);

    public void Apply(Stamp stamp, Change.OrdersSet set) =>
        Apply(stamp, [.. set.Orders.Select(one => new Step(one.Node, null, default, one.Order))]);

    private void Apply(Stamp stamp, Step[] steps)
    {
        var at = log.Count;
        while (at > 0 && log[at - 1].Stamp > stamp)
            Undo(log[--at]);
        log.InsertRange(at, [.. steps.Select(step => CarryOut(stamp, step))]);
        for (var i = at + steps.Length; i < log.Count; i++)
            log[i] = CarryOut(log[i].Stamp, log[i].Step);
    }

    /// <summary>Whether <paramref name="node"/> is <paramref name="ancestor"/> or lies somewhere below it; also where it lies too deep to say.</summary>
    public bool IsUnder(Guid node, Guid ancestor)
    {
        for (var steps = 0; node != ancestor; steps++)
        {
            if (!places.TryGetValue(node, out var place))
                return false;
            if (steps == MostSteps)
                return true;
            node = place.Parent;
        }

        return true;
    }

    /// <summary>What holds of each thing by what holds of the things it lies in, worked out from the root down without recursion.</summary>
    /// <param name="mostDepth">The deepest level at which a thing is shown; what lies deeper is shown there.</param>
    /// <param name="standing">What holds of a thing, from its id, its place, and what holds of the thing it is shown in.</param>
    /// <param name="isAway">Of what holds of a thing: whether it is no longer there, but what lies in it is, and is shown where the thing would be.</param>
    /// <returns>For each thing what holds of it, and the thing it is shown in; the empty id is the root.</returns>
    public Dictionary<Guid, (T State, Guid Parent)> Standings<T>(int mostDepth, Func<Guid, Place, T, T> standing, Func<T, bool> isAway)
        where T : struct
    {
        var known = new Dictionary<Guid, (T State, Guid Parent)>(places.Count);
        var depths = new Dictionary<Guid, int>(places.Count);
        var path = new Stack<Guid>();
        foreach (var id in places.Keys)
        {
            for (var at = id; places.TryGetValue(at, out var place) && !known.ContainsKey(at); at = place.Parent)
                path.Push(at);
            while (path.TryPop(out var next))
            {
                var place = places[next];
                var holder = known.ContainsKey(place.Parent) ? place.Parent : Guid.Empty;
                // What that one is shown in is there itself.
                if (holder != Guid.Empty && isAway(known[holder].State))
                    holder = known[holder].Parent;
                var above = holder == Guid.Empty ? default : known[holder];
                var depth = holder == Guid.Empty ? 1 : depths[holder] + 1;
                // Beside the thing that it lies in, where that is as deep as things go.
                var shown = depth > mostDepth ? above.Parent : holder;
                depths[next] = Math.Min(depth, mostDepth);
                known[next] = (standing(next, place, above.State), shown);
            }
        }

        return known;
    }

    /// <summary>Whether a thing of a kind may lie in a parent; one that has not arrived yet may be anything.</summary>
    public bool MayLieIn(NodeKind kind, Guid parent)
    {
        if (parent == Guid.Empty || !places.TryGetValue(parent, out var holder))
            return true;
        return kind switch
        {
            NodeKind.Folder or NodeKind.Notebook => holder.Kind == NodeKind.Folder,
            NodeKind.Section => holder.Kind == NodeKind.Section,
            NodeKind.Page => holder.Kind is NodeKind.Section or NodeKind.Page,
            NodeKind.Tag => holder.Kind == NodeKind.Tag,
            _ => false,
        };
    }

    /// <summary>The places in one canonical order, for the encoded state.</summary>
    public void Write(ByteWriter writer)
    {
        foreach (var (id, place) in places.OrderBy(entry => entry.Key))
        {
            writer.Guid(id);
            writer.Byte((byte)place.Kind);
            writer.Guid(place.Parent);
            writer.Text(place.Order);
        }
    }

    private LogEntry CarryOut(Stamp stamp, Step step)
    {
        Place? before = places.TryGetValue(step.Node, out var standing) ? standing : null;
        if (step.Kind is not { } kind)
        {
            if (before is not null)
                places[step.Node] = standing with { Order = step.Order };
            return new LogEntry(stamp, step, before, before is not null);
        }

        var fits = !IsUnder(step.Parent, step.Node) && MayLieIn(kind, step.Parent) && (before is not { } known || known.Kind == kind);
        if (fits)
            places[step.Node] = new Place(kind, step.Parent, step.Order);
        // A thing that is new must stand somewhere, or it would be lost.
        else if (before is null)
            places[step.Node] = new Place(kind, Guid.Empty, step.Order);
        return new LogEntry(stamp, step, before, fits || before is null);
    }

    private void Undo(LogEntry entry)
    {
        if (!entry.Done)
            return;
        if (entry.Before is { } before)
            places[entry.Step.Node] = before;
        else
            places.Remove(entry.Step.Node);
    }
}
