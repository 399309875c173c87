using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Operations;

namespace CalmQuill.Core.Pages;

/// <summary>What lies on slips and tables: it goes along when they are moved, copied, folded and removed, as what is written on paper does.</summary>
public static class OnSlips
{
    /// <summary>So much of a thing must lie on a slip.</summary>
    private const double Share = 0.5;

    /// <summary>Some things, the slips that are pinned over them, and all that lies on the slips and tables among them, in painting order.</summary>
    public static List<PageItem> With(PageDocument page, IReadOnlyList<PageItem> items)
    {
        var pinned = page.Items.Any(item => item is { Shown: true, Content: SlipContent { IsPinned: true } });
        if (!pinned && !items.Any(item => item.Content.Carries))
            return [.. items];
        var taken = items.ToHashSet();
        var below = new List<PageItem>();
        // What lies on a slip is painted later; another slip among it takes along what lies on that.
        foreach (var item in page.Items)
        {
            if (pinned && item is { Shown: true, Content: SlipContent { IsPinned: true } slip } && IsOver(slip, below))
                taken.Add(item);
            if (!taken.Contains(item))
                continue;
            below.Add(item);
            if (item.Content.Carries)
                taken.UnionWith(On(page, item));
        }

        return [.. page.Items.Where(taken.Contains)];
    }

    /// <summary>Whether a slip lies over the greater part of one of some things, folded or not.</summary>
    private static bool IsOver(SlipContent slip, List<PageItem> things)
    {
        var paper = slip.Whole;
        var box = Box.Around(paper);
        return things.Exists(thing => thing.Bounds.Meets(box) && thing.Content.ShareInside(paper) >= Share);
    }

    /// <summary>The change that pins the slips among some things where they lie, or takes their pins out; null where that is so already.</summary>
    public static Change? Pin(IEnumerable<PageItem> items, bool pinned)
    {
        var slips = items.Where(item => item.Content is SlipContent slip && slip.IsPinned != pinned).Select(item => item.Id).ToList();
        return slips.Count > 0 ? new Change.ItemsSet(slips, [new ItemValue(ItemField.Pinned, pinned ? "1" : "")]) : null;
    }

    /// <summary>The pinned slip at a spot, the uppermost; null where there is none, or something covers it there.</summary>
    public static PageItem? PinnedAt(PageDocument page, double x, double y) =>
        page.Items.LastOrDefault(item => item is { Shown: true, Content: SlipContent or { Covers: true } } && item.Content.IsAt(x, y, 0))
            is { Content: SlipContent { IsPinned: true } } slip
            ? slip
            : null;

    /// <summary>What lies on a slip or table: above it, and with the greater part of it within its edge; of a folded one what was folded away with it.</summary>
    public static IEnumerable<PageItem> On(PageDocument page, PageItem slip)
    {
        if (slip.Content is SlipContent { IsFolded: true })
            return page.Items.Where(item => item.Stands && item.Slip == slip.Id);
        var (edge, box) = (((SolidContent)slip.Content).Corners, slip.Bounds);
        return page
            .Items.SkipWhile(item => item != slip)
            .Skip(1)
            .Where(item => item.Shown && item.Bounds.Meets(box) && item.Visible().Count > 0 && item.Content.ShareInside(edge) >= Share);
    }

    /// <summary>The changes that fold a slip with all that lies on it, or unfold it; none where it is so already.</summary>
    public static List<Change> Fold(PageDocument page, PageItem slip, bool folded)
    {
        if (slip.Content is not SlipContent content || content.IsFolded == folded)
            return [];
        var on = On(page, slip).Select(item => item.Id).ToList();
        var changes = new List<Change>();
        if (on.Count > 0)
            changes.Add(new Change.ItemsSet(on, [new ItemValue(ItemField.Within, folded ? slip.Id.ToString() : "")]));
        changes.Add(new Change.ItemsSet([slip.Id], [new ItemValue(ItemField.Folded, folded ? "1" : "")]));
        return changes;
    }
}
