using CalmQuill.Core.Items;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Shapes;

namespace CalmQuill.Core.Diagrams;

/// <summary>What of a page hangs together as a diagram: words in shapes, and connectors between things.</summary>
public static class Diagram
{
    /// <summary>Some things with the words that stand in the shapes among them, and the shapes that the words among them stand in; in painting order.</summary>
    public static List<PageItem> With(PageDocument page, List<PageItem> items)
    {
        var holders = items.Select(HolderOf).OfType<OpId>().ToHashSet();
        if (holders.Count == 0 && !items.Any(item => item.Content is ShapeContent { Shape.IsClosed: true }))
            return items;
        var taken = items.Select(item => item.Id).ToHashSet();
        taken.UnionWith(holders.Where(id => page.Find(id) is { Shown: true }));
        return
        [
            .. page.Items.Where(item => taken.Contains(item.Id) || (item.Shown && HolderOf(item) is { } holder && taken.Contains(holder))),
        ];
    }

    /// <summary>The words in a shape; null where there are none.</summary>
    public static PageItem? WordsIn(PageDocument page, OpId shape) =>
        page.Items.LastOrDefault(item => item.Stands && HolderOf(item) == shape);

    /// <summary>The shape that words stand in; null for all else.</summary>
    public static OpId? HolderOf(PageItem item) =>
        item is { HasArrived: true, Content: TextContent { Holder: { } holder } } ? holder : null;

    /// <summary>
    /// The foremost thing at a spot that a connector can be joined to: words in a shape mean the shape, and connectors are not joined to connectors.
    /// </summary>
    /// <param name="page">The page.</param>
    /// <param name="x">The spot, 0.01 mm.</param>
    /// <param name="y">The spot, 0.01 mm.</param>
    /// <param name="reach">How far off it still is meant, 0.01 mm.</param>
    /// <param name="without">The connector itself.</param>
    public static PageItem? ThingAt(PageDocument page, double x, double y, double reach, OpId? without = null)
    {
        for (var i = page.Items.Count - 1; i >= 0; i--)
        {
            var item = page.Items[i];
            if (!item.Shown || item.Id == without || item.Visible().Count == 0 || item.Content is ShapeContent { IsConnector: true })
                continue;
            if (item.Content.IsAt(x, y, reach) || (item.Content is ShapeContent { Shape.IsClosed: true } shape && shape.Holds(x, y)))
                return HolderOf(item) is { } holder && page.Find(holder) is { Shown: true } held ? held : item;
        }

        return null;
    }

    /// <summary>What is said of a connector for an end of it to be joined to a thing, or to none.</summary>
    public static ItemValue End(bool isStart, PageItem? thing) => new(isStart ? ItemField.From : ItemField.To, thing?.Id.ToString() ?? "");

    /// <summary>
    /// What has connectors follow the hand that are moved or turned: an end whose thing is not on the page any more is let go where it is now. None
    /// for what else there is among them.
    /// </summary>
    public static List<Change> LetGo(IEnumerable<PageItem> items)
    {
        var changes = new List<Change>();
        foreach (var item in items)
        {
            if (item.Content is not ShapeContent { IsConnector: true, PlacedShape: { } placed } connector)
                continue;
            ItemField[] gone =
            [
                .. new[] { ItemField.From, ItemField.To }.Where(field => item.Read(field).Length > 0 && !connector.IsJoined(field)),
            ];
            if (gone.Length == 0)
                continue;
            changes.Add(
                new Change.ItemsSet(
                    [item.Id],
                    [
                        new ItemValue(ItemField.Shape, placed.WithoutWay().Map(item.Unplace).ToText()),
                        .. gone.Select(field => new ItemValue(field, "")),
                    ]
                )
            );
        }

        return changes;
    }
}
