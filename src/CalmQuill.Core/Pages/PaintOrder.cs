namespace CalmQuill.Core.Pages;

/// <summary>
/// In what order things are painted. What covers, as pictures and slips do, lies on the page as another sheet: all above it is written on it. Between two such
/// sheets fills lie behind highlighters and both behind all else; then count the layers, the order set by hand, and time.
/// </summary>
internal static class PaintOrder
{
    /// <summary>Puts things in order, and says of each by <see cref="PageItem.Sheet"/> how many sheets lie below it.</summary>
    /// <param name="items">The things of a page.</param>
    /// <param name="moved">Told of each that lies above another number of sheets than before.</param>
    /// <returns>The uppermost sheet; null where there is none.</returns>
    public static PageItem? Sort(List<PageItem> items, Action<PageItem> moved)
    {
        var covers = items.Where(item => item.Content.Covers && item.Shown).ToList();
        covers.Sort(ByHeight);
        foreach (var item in items)
        {
            var sheet = covers.Count == 0 ? 0 : Below(covers, item);
            if (item.Sheet == sheet)
                continue;
            item.Sheet = sheet;
            moved(item);
        }

        items.Sort(Compare);
        return covers.Count > 0 ? covers[^1] : null;
    }

    /// <summary>Whether something that comes to the page is painted last of all.</summary>
    /// <param name="last">What was painted last so far.</param>
    /// <param name="top">The uppermost sheet; null where there is none.</param>
    /// <param name="item">What comes; it lies above as many sheets as the last one.</param>
    public static bool IsLast(PageItem last, PageItem? top, PageItem item) =>
        Compare(last, item) <= 0 && (top is null || ByHeight(top, item) <= 0);

    /// <summary>Which of two is painted first, once both know what lies below them.</summary>
    public static int Compare(PageItem one, PageItem other)
    {
        var sheet = one.Sheet - other.Sheet;
        if (sheet != 0)
            return sheet;
        var rank = one.Content.Rank - other.Content.Rank;
        return rank != 0 ? rank : ByHeight(one, other);
    }

    /// <summary>By the layers, then the order set by hand, then time.</summary>
    private static int ByHeight(PageItem one, PageItem other)
    {
        var place = one.LayerPlace - other.LayerPlace;
        if (place != 0)
            return place;
        return one.Order != other.Order ? one.Order.CompareTo(other.Order) : one.Stamp.CompareTo(other.Stamp);
    }

    /// <summary>How many of these, in order, lie no higher than a thing; one of them counts itself.</summary>
    private static int Below(List<PageItem> covers, PageItem item)
    {
        int from = 0,
            to = covers.Count;
        while (from < to)
        {
            var middle = (from + to) / 2;
            if (ByHeight(covers[middle], item) <= 0)
                from = middle + 1;
            else
                to = middle;
        }

        return from;
    }
}
