using CalmQuill.Core.Items;
using CalmQuill.Core.Operations;

namespace CalmQuill.Core.Pages;

/// <summary>What lies on slips and tables: it goes along when they are moved, copied, folded and removed, as what is written on paper does.</summary>
public static class OnSlips
{
    /// <summary>So much of a thing must lie on a slip.</summary>
    private const double Share = 0.5;

    /// <summary>Some things, and all that lies on the slips and tables among them, in painting order.</summary>
    public static List<PageItem> With(PageDocument page, IReadOnlyList<PageItem> items)
    {
        if (!items.Any(item => item.Content.Carries))
            return [.. items];
        var taken = items.ToHashSet();
        // What lies on a slip is painted later; another slip among it takes along what lies on that.
        foreach (var item in page.Items)
        {
            if (item.Content.Carries && taken.Contains(item))
                taken.UnionWith(On(page, item));
        }

        return [.. page.Items.Where(taken.Contains)];
    }

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
