using System.Globalization;
using CalmQuill.Core.Diagrams;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;

namespace CalmQuill.Core.Changing;

/// <summary>What is done to things that a person chose. Whatever is locked in place, or lies on a locked layer, stays as it is.</summary>
public static class Chosen
{
    /// <summary>Those that may be changed.</summary>
    /// <remarks>What is folded away with a slip goes along with it, unseen.</remarks>
    public static List<OpId> Open(PageDocument page, IEnumerable<OpId> items)
    {
        var open = new List<OpId>();
        List<PageItem>? folded = null;
        foreach (var id in items)
        {
            if (page.Find(id) is not { IsOpen: true } item)
                continue;
            open.Add(id);
            if (item.Content is SlipContent { IsFolded: true })
                (folded ??= []).Add(item);
        }

        if (folded is null)
            return open;
        var away = folded.SelectMany(slip => OnSlips.On(page, slip)).Where(item => item is { IsReached: true, IsLocked: false });
        return [.. open.Concat(away.Select(item => item.Id)).Distinct()];
    }

    /// <summary>
    /// The change that writes fields of those that may be changed; null when there are none. Locking and unlocking itself needs only an open layer.
    /// </summary>
    public static Change? Set(PageDocument page, IReadOnlyList<OpId> items, IReadOnlyList<ItemValue> values)
    {
        var locks = values.All(value => value.Field == ItemField.Locked);
        List<OpId> open = locks ? [.. items.Where(id => page.Find(id) is { Shown: true, IsReached: true })] : Open(page, items);
        // Words in a shape lie with it, and look as they were typed.
        if (!values.All(value => value.Field is ItemField.Locked or ItemField.Layer or ItemField.Order or ItemField.Group))
            open.RemoveAll(id => Diagram.HolderOf(page.Find(id)!) is { } holder && items.Contains(holder));
        return open.Count > 0 ? new Change.ItemsSet(open, values) : null;
    }

    /// <summary>The changes that give lines a width as it is seen on the page, whatever was scaled before.</summary>
    /// <param name="page">The page.</param>
    /// <param name="items">The things.</param>
    /// <param name="width">The width, 0.01 mm.</param>
    public static List<Change> Width(PageDocument page, IReadOnlyList<OpId> items, int width) =>
        [
            .. Open(page, items)
                .GroupBy(id => Math.Clamp((int)Math.Round(width / page.Find(id)!.Growth), Pen.LeastWidth, Pen.MostWidth))
                .Select(one => new Change.ItemsSet(
                    [.. one],
                    [new ItemValue(ItemField.Width, one.Key.ToString(CultureInfo.InvariantCulture))]
                )),
        ];
}
