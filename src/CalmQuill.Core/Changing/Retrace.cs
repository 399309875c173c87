using CalmQuill.Core.Ink;
using CalmQuill.Core.Pages;

namespace CalmQuill.Core.Changing;

/// <summary>The order and times in which things came to a page, from their samples' own time, with long pauses shortened.</summary>
public static class Retrace
{
    /// <summary>A pause is shown for at most so long, milliseconds.</summary>
    public const int MostPause = 1_200;

    /// <summary>A stroke is stamped when it ends, or within this of it, milliseconds.</summary>
    private const int MostLater = 30_000;

    /// <param name="Item">What comes.</param>
    /// <param name="Start">When it begins, milliseconds from the start.</param>
    /// <param name="End">When all of it is there.</param>
    public readonly record struct Step(PageItem Item, int Start, int End);

    /// <summary>
    /// The steps in the order in which things were begun. Two who wrote at one time are seen writing at one time. A device whose clock was wrong does not put what it
    /// wrote out of its turn: where a beginning and the operation's own stamp lie far apart, or backwards, it began just before that stamp.
    /// </summary>
    public static List<Step> Plan(IEnumerable<PageItem> items)
    {
        var steps = new List<Step>();
        long cut = 0,
            seen = long.MinValue;
        var begun = items.Where(item => item.Shown).Select(item => (Item: item, At: BegunAt(item)));
        foreach (var (item, at) in begun.OrderBy(one => one.At).ThenBy(one => one.Item.Stamp))
        {
            var takes = item.Content.MadeWithin;
            if (seen == long.MinValue)
                (seen, cut) = (at, at);
            if (at - seen > MostPause)
                cut += at - seen - MostPause;
            var start = at - cut;
            steps.Add(new Step(item, (int)Math.Min(start, int.MaxValue / 2), (int)Math.Min(start + takes, int.MaxValue / 2)));
            seen = Math.Max(seen, at + takes);
        }

        return steps;
    }

    private static long BegunAt(PageItem item)
    {
        var (stamped, takes) = (item.Stamp.Time.UnixMilliseconds, item.Content.MadeWithin);
        var later = stamped - item.StartedAt;
        return later >= -takes && later <= takes + MostLater ? item.StartedAt : stamped - takes;
    }
}
