using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Text;
using CalmQuill.Core.Writing;

namespace CalmQuill.Core.Pages;

/// <summary>Words that were found on a page.</summary>
/// <param name="Item">What they are typed in.</param>
/// <param name="From">Their first letter in it.</param>
/// <param name="To">Behind their last letter.</param>
/// <param name="Corners">Where they stand: of each line the four corners on the page.</param>
public sealed record FoundWords(PageItem Item, int From, int To, IReadOnlyList<(double X, double Y)[]> Corners)
{
    /// <summary>The box around them.</summary>
    public Box Box => Box.Around(Corners.SelectMany(corners => corners));
}

/// <summary>Finds words in all that is typed on a page, and puts others in their place.</summary>
public static class PageFinding
{
    /// <summary>More places than these are not told of.</summary>
    public const int Most = 1_000;

    /// <summary>Where words stand, from the top of the page down.</summary>
    public static List<FoundWords> Find(PageDocument page, string sought, bool exact)
    {
        var found = new List<FoundWords>();
        foreach (var item in page.Items)
        {
            if (item is not { Shown: true, Content: WrittenContent { IsReadable: true } content } || content.Typed.Length == 0)
                continue;
            foreach (var (from, to) in Finding.In(content.Typed.Text, sought, exact))
            {
                if (found.Count == Most)
                    return InOrder(found);
                // What no cell of a table shows is not found.
                if (content.RoomOf(from).Behind(from, to).ToList() is { Count: > 0 } corners)
                    found.Add(new FoundWords(item, from, to, corners));
            }
        }

        return InOrder(found);
    }

    /// <summary>
    /// The changes that put other words where those stand, each looking as the last letter before did; what is locked stays. Nothing of what somebody else types
    /// meanwhile is touched.
    /// </summary>
    public static List<Change> Replace(IEnumerable<FoundWords> found, string words) =>
        [
            .. found
                .Where(one => one.Item.IsOpen)
                .GroupBy(one => one.Item)
                .Select(
                    Change (places) =>
                        new Change.TextTyped(
                            places.Key.Id,
                            new TextChange(
                                words.Length == 0 ? [] : [.. places.Select(one => places.Key.Typed.InsertionAt(one.To, words))],
                                [.. places.SelectMany(one => places.Key.Typed.RemovalsOf(one.From, one.To - one.From))],
                                []
                            )
                        )
                ),
        ];

    private static List<FoundWords> InOrder(List<FoundWords> found) =>
        [.. found.OrderBy(one => one.Box.Top).ThenBy(one => one.Box.Left).ThenBy(one => one.From)];
}
