using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;

namespace CalmQuill.Core.Asides;

/// <summary>What the things of an aside were written at; of two for one thing the later counts.</summary>
public sealed class Anchors
{
    private readonly Dictionary<OpId, Anchor> all = [];

    /// <summary>What lies within so many 0.01 mm above or below is near.</summary>
    private const double Reach = 500;

    /// <summary>So much farther it may lie beside: a note in the margin belongs to its line.</summary>
    private const double Beside = 8;

    /// <summary>Grows with everything that is said of them.</summary>
    public int Version { get; private set; }

    public IReadOnlyDictionary<OpId, Anchor> All => all;

    internal void Take(Operation operation, Change.ItemsAnchored anchored)
    {
        Version++;
        foreach (var item in anchored.Items)
        {
            if (!all.TryGetValue(item, out var standing) || standing.Stamp < operation.Stamp)
                all[item] = new Anchor(operation.Stamp, anchored.On, anchored.Lay);
        }
    }

    /// <summary>The thing on a page at which something is written there: what it lies on, else what is nearest above, below or beside it; of several the smallest. Null on empty paper.</summary>
    /// <param name="page">The page.</param>
    /// <param name="written">The box of what is written, 0.01 mm.</param>
    public static PageItem? Under(PageDocument page, Box written)
    {
        PageItem? best = null;
        double nearest = Reach * Reach,
            smallest = double.PositiveInfinity;
        foreach (var item in page.Items)
        {
            if (!item.Shown)
                continue;
            var box = item.Bounds;
            var across = Between(box.Left, box.Right, written.Left, written.Right) / Beside;
            var down = Between(box.Top, box.Bottom, written.Top, written.Bottom);
            var distance = across * across + down * down;
            var size = ((double)box.Right - box.Left) * ((double)box.Bottom - box.Top);
            if (distance > nearest || (distance == nearest && size >= smallest))
                continue;
            (best, nearest, smallest) = (item, distance, size);
        }

        return best;
    }

    /// <summary>How far two stretches lie apart; 0 where they meet.</summary>
    private static double Between(int from, int to, int otherFrom, int otherTo) =>
        Math.Max(0, Math.Max((double)otherFrom - to, (double)from - otherTo));
}
