using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Operations;

namespace CalmQuill.Core.Pages;

/// <summary>One pass of the eraser over a page, from pen down to pen up: gathers what it touches, and becomes one operation.</summary>
/// <param name="page">The page.</param>
/// <param name="radius">Radius of the eraser, 0.01 mm.</param>
/// <param name="whole">Whether a touched stroke goes as a whole.</param>
public sealed class EraserPass(PageDocument page, double radius, bool whole)
{
    private readonly Dictionary<OpId, List<Interval>> touched = [];

    /// <summary>The boxes of the page's items in their order, as left, top, right, bottom: most of a full page is passed over by them alone.</summary>
    private int[] boxes = [];
    private int boxesOf = -1;

    /// <summary>Which of the things that may be changed it works on.</summary>
    public ItemFilter Only { get; init; } = ItemFilter.All;

    private (double X, double Y)? before;

    /// <summary>Moves the eraser on to a spot, in 0.01 mm. Returns the items of which more is gone than before.</summary>
    public HashSet<OpId> MoveTo(double x, double y)
    {
        var news = new HashSet<OpId>();
        var (fromX, fromY) = before ?? (x, y);
        var way = Math.Sqrt((x - fromX) * (x - fromX) + (y - fromY) * (y - fromY));
        var steps = Math.Clamp((int)Math.Ceiling(way / Math.Max(radius / 2, 5)), 1, 400);
        var reach = (int)Math.Ceiling(radius) + 1;
        var area = new Box((int)Math.Min(x, fromX), (int)Math.Min(y, fromY), (int)Math.Max(x, fromX), (int)Math.Max(y, fromY)).Grow(reach);
        var items = page.Items;
        LookUpBoxes(items);
        var (known, left, top, right, bottom) = (boxes, area.Left, area.Top, area.Right, area.Bottom);
        for (var i = 0; i < known.Length; i += 4)
        {
            if (known[i + 1] > bottom || known[i + 3] < top || known[i] > right || known[i + 2] < left)
                continue;
            var item = items[i / 4];
            if (!Only.Takes(item) || (whole && touched.ContainsKey(item.Id)))
                continue;
            if (item.Kind == ItemKinds.Area)
            {
                // A filled region has no line to be rubbed out: it goes as a whole, when the eraser goes for whole things.
                if (whole && Selecting.HoldsSpot(item, x, y))
                {
                    news.Add(item.Id);
                    touched[item.Id] = [];
                }

                continue;
            }

            var intervals = new List<Interval>();
            for (var step = before is null ? 1 : 0; step <= steps; step++)
            {
                var t = step / (double)steps;
                Eraser.Touch(
                    item.Samples,
                    item.Pen,
                    fromX + (x - fromX) * t - item.Dx,
                    fromY + (y - fromY) * t - item.Dy,
                    radius,
                    intervals
                );
            }

            KeepVisible(item, intervals);
            if (intervals.Count == 0)
                continue;
            news.Add(item.Id);
            touched[item.Id] = touched.TryGetValue(item.Id, out var already)
                ? Interval.Union(already.Concat(intervals))
                : Interval.Union(intervals);
        }

        before = (x, y);
        return news;
    }

    /// <summary>What would be left of an item if the pass ended now.</summary>
    public List<Interval> Remaining(PageItem item)
    {
        if (!touched.TryGetValue(item.Id, out var gone))
            return item.Visible();
        if (whole)
            return [];
        var end = (item.Samples.Count - 1) * Interval.PerSample;
        var erased = Interval.Union(Interval.Complement(item.Visible(), 0, end).Concat(gone));
        return Interval.Complement(erased, 0, end);
    }

    /// <summary>The change the pass amounts to; null when nothing was touched.</summary>
    public Change? End()
    {
        if (touched.Count == 0)
            return null;
        if (whole)
            return new Change.ItemsRemoved([.. touched.Keys.Order()]);
        return new Change.GapsAdded([.. touched.OrderBy(entry => entry.Key).Select(entry => new StrokeGaps(entry.Key, entry.Value))]);
    }

    private void LookUpBoxes(IReadOnlyList<PageItem> items)
    {
        if (boxesOf == page.OperationCount)
            return;
        boxesOf = page.OperationCount;
        boxes = new int[items.Count * 4];
        for (var i = 0; i < items.Count; i++)
        {
            var box = items[i].Bounds;
            (boxes[4 * i], boxes[4 * i + 1], boxes[4 * i + 2], boxes[4 * i + 3]) = (box.Left, box.Top, box.Right, box.Bottom);
        }
    }

    /// <summary>Drops what lies wholly in gaps that are there already, so that rubbing on bare paper does nothing.</summary>
    private static void KeepVisible(PageItem item, List<Interval> intervals)
    {
        if (!item.Gaps.Any)
            return;
        var visible = item.Visible();
        intervals.RemoveAll(interval => !visible.Exists(part => part.Start < interval.End && interval.Start < part.End));
    }
}
