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
        var way = new EraserWay(fromX, fromY, x, y, radius, before is null);
        var area = way.Area;
        var items = page.Items;
        LookUpBoxes(items);
        var (known, left, top, right, bottom) = (boxes, area.Left, area.Top, area.Right, area.Bottom);
        var gone = new List<Interval>();
        for (var i = 0; i < known.Length; i += 4)
        {
            if (known[i + 1] > bottom || known[i + 3] < top || known[i] > right || known[i + 2] < left)
                continue;
            var item = items[i / 4];
            if (!Only.Takes(item) || (whole && touched.ContainsKey(item.Id)))
                continue;
            gone.Clear();
            if (!item.Content.Rub(way, whole, gone))
                continue;
            news.Add(item.Id);
            touched[item.Id] = Interval.Union(touched.TryGetValue(item.Id, out var already) ? already.Concat(gone) : gone);
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
        var end = item.Content.End;
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
}
