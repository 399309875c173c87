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

    /// <summary>A shape has no time of its own; it is drawn in so long.</summary>
    private const int ShapeTakes = 400;

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
            var takes = Takes(item);
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

    private static int Takes(PageItem item) => item.Shape is not null ? ShapeTakes : Math.Clamp(item.Samples.Time[^1], 1, 60_000);

    private static long BegunAt(PageItem item)
    {
        var (stamped, takes) = (item.Stamp.Time.UnixMilliseconds, Takes(item));
        var later = stamped - item.StartedAt;
        return later >= -takes && later <= takes + MostLater ? item.StartedAt : stamped - takes;
    }

    /// <summary>What of an item is there so long after it was begun, as parts of what can be seen of it at the end.</summary>
    public static List<Interval> Written(PageItem item, int after, int takes)
    {
        var samples = item.Samples;
        if (after >= takes)
            return item.Visible();
        if (after < 0)
            return [];
        int end;
        if (item.Shape is not null || samples.Time[^1] <= 0)
            end = (int)((samples.Count - 1L) * Interval.PerSample * after / Math.Max(takes, 1));
        else
        {
            var i = 0;
            while (i + 1 < samples.Count && samples.Time[i + 1] <= after)
                i++;
            end = i * Interval.PerSample;
            if (i + 1 < samples.Count && samples.Time[i + 1] > samples.Time[i])
                end += (int)((after - (long)samples.Time[i]) * Interval.PerSample / (samples.Time[i + 1] - samples.Time[i]));
        }

        return [.. item.Visible().Where(part => part.Start <= end).Select(part => part with { End = Math.Min(part.End, end) })];
    }
}
