using CalmQuill.Core.Diagrams;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;

namespace CalmQuill.Core.Pages;

/// <summary>What a loop or a box takes: the items of which enough lies inside.</summary>
public static class Selecting
{
    /// <summary>How much of an item must lie inside, unless the person sets it otherwise.</summary>
    public const double UsualShare = 0.5;

    /// <summary>The items of which at least a share of the visible length lies inside a closed polygon (even-odd), in painting order.</summary>
    /// <param name="page">The page.</param>
    /// <param name="loop">Corners as x, y, x, y… in 0.01 mm; the last is joined to the first.</param>
    /// <param name="share">The least share, 0 to 1.</param>
    /// <param name="filter">What may be taken. What is locked in place is taken only when there is nothing else.</param>
    /// <remarks>Of a group all is taken as soon as one of it is.</remarks>
    public static List<PageItem> Inside(PageDocument page, ReadOnlySpan<double> loop, double share, ItemFilter filter)
    {
        var open = Inside(page, loop, share, filter.Takes);
        return WithGroups(page, open.Count > 0 ? open : Inside(page, loop, share, filter.TakesLocked));
    }

    public static List<PageItem> Inside(PageDocument page, ReadOnlySpan<double> loop, double share) =>
        Inside(page, loop, share, ItemFilter.All);

    /// <summary>All that may be changed and of which something is left to be seen, in painting order.</summary>
    public static IEnumerable<PageItem> All(PageDocument page, ItemFilter filter) =>
        page.Items.Where(item => filter.Takes(item) && item.Visible().Count > 0);

    /// <summary>The foremost thing at a spot that may be changed, with its group; none where there is nothing within reach.</summary>
    /// <param name="page">The page.</param>
    /// <param name="x">The spot, 0.01 mm.</param>
    /// <param name="y">The spot, 0.01 mm.</param>
    /// <param name="reach">How far from its line a press still is one on it, 0.01 mm.</param>
    /// <param name="filter">What may be taken.</param>
    public static List<PageItem> At(PageDocument page, double x, double y, double reach, ItemFilter filter) =>
        At(page, x, y, reach, filter.Takes);

    /// <summary>The same of what is locked in place: a press that is held asks for it, so that it can be unlocked.</summary>
    public static List<PageItem> LockedAt(PageDocument page, double x, double y, double reach, ItemFilter filter) =>
        At(page, x, y, reach, filter.TakesLocked);

    private static List<PageItem> At(PageDocument page, double x, double y, double reach, Func<PageItem, bool> takes)
    {
        var area = new Box((int)(x - reach), (int)(y - reach), (int)(x + reach), (int)(y + reach));
        for (var i = page.Items.Count - 1; i >= 0; i--)
        {
            var item = page.Items[i];
            if (!item.Bounds.Meets(area) || !takes(item))
                continue;
            if (item.Content.IsAt(x, y, reach))
                return WithGroups(page, [item]);
        }

        return [];
    }

    private static List<PageItem> WithGroups(PageDocument page, List<PageItem> found)
    {
        var groups = found.Select(item => item.Group).Where(group => group.Length > 0).ToHashSet();
        if (groups.Count == 0)
            return OnSlips.With(page, Diagram.With(page, found));
        var taken = found.Select(item => item.Id).ToHashSet();
        return OnSlips.With(
            page,
            Diagram.With(page, [.. page.Items.Where(item => item.Shown && (taken.Contains(item.Id) || groups.Contains(item.Group)))])
        );
    }

    private static List<PageItem> Inside(PageDocument page, ReadOnlySpan<double> loop, double share, Func<PageItem, bool> takes)
    {
        var found = new List<PageItem>();
        if (loop.Length < 6)
            return found;
        double left = double.MaxValue,
            top = double.MaxValue,
            right = double.MinValue,
            bottom = double.MinValue;
        for (var i = 0; i < loop.Length; i += 2)
        {
            (left, right) = (Math.Min(left, loop[i]), Math.Max(right, loop[i]));
            (top, bottom) = (Math.Min(top, loop[i + 1]), Math.Max(bottom, loop[i + 1]));
        }

        var area = new Box((int)Math.Floor(left), (int)Math.Floor(top), (int)Math.Ceiling(right), (int)Math.Ceiling(bottom));
        foreach (var item in page.Items)
        {
            if (item.Bounds.Meets(area) && takes(item) && item.Content.ShareInside(loop) >= Math.Max(share, 1e-9))
                found.Add(item);
        }

        return found;
    }
}
