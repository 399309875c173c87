using CalmQuill.Core.Operations;

namespace CalmQuill.Core.Library;

/// <summary>A tree that people move things about in at the same time (Kleppmann, Mulligan, Gomes and Beresford 2021).</summary>
/// <remarks>
/// Moves are done in the order of their stamps. A move that would put a thing under itself or its own child, or where its kind does not belong, has
/// no effect, or puts a new thing at the root. One that arrives late makes the later ones be undone, itself be done, and the later ones be done again.
/// </remarks>
public sealed class PlacedTree
{
    private readonly List<LogEntry> log = [];
    private readonly Dictionary<Guid, Place> places = [];

    public readonly record struct Place(NodeKind Kind, Guid Parent, string Order);

    private readonly record struct LogEntry(Stamp Stamp, Change.NodePlaced Move, Place? Before, bool Done);

    public IReadOnlyDictionary<Guid, Place> Places => places;

    public void Apply(Stamp stamp, Change.NodePlaced move)
    {
        var at = log.Count;
        while (at > 0 && log[at - 1].Stamp > stamp) Undo(log[--at]);
        log.Insert(at, Do(stamp, move));
        for (var i = at + 1; i < log.Count; i++) log[i] = Do(log[i].Stamp, log[i].Move);
    }

    /// <summary>Whether <paramref name="node"/> is <paramref name="ancestor"/> or lies somewhere below it.</summary>
    public bool IsUnder(Guid node, Guid ancestor)
    {
        while (node != ancestor)
        {
            if (!places.TryGetValue(node, out var place)) return false;
            node = place.Parent;
        }

        return true;
    }

    /// <summary>Whether a thing of a kind may lie in a parent; one that has not arrived yet may be anything.</summary>
    public bool MayLieIn(NodeKind kind, Guid parent)
    {
        if (parent == Guid.Empty || !places.TryGetValue(parent, out var holder)) return true;
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

    private LogEntry Do(Stamp stamp, Change.NodePlaced move)
    {
        Place? before = places.TryGetValue(move.Node, out var standing) ? standing : null;
        var fits = !IsUnder(move.Parent, move.Node) && MayLieIn(move.NodeKind, move.Parent) && (before is not { } known || known.Kind == move.NodeKind);
        if (fits) places[move.Node] = new Place(move.NodeKind, move.Parent, move.Order);
        // A thing that is new must stand somewhere, or it would be lost.
        else if (before is null) places[move.Node] = new Place(move.NodeKind, Guid.Empty, move.Order);
        return new LogEntry(stamp, move, before, fits || before is null);
    }

    private void Undo(LogEntry entry)
    {
        if (!entry.Done) return;
        if (entry.Before is { } before) places[entry.Move.Node] = before;
        else places.Remove(entry.Move.Node);
    }
}
