using CalmQuill.Core.Ink;
using CalmQuill.Core.Pages;

namespace CalmQuill.Core.Changing;

/// <summary>The order and times in which things came to a page, from their samples' own time, with long pauses shortened.</summary>
public static class Retrace
{
    /// <summary>A pause is shown for at most so long, milliseconds.</summary>
    public const int MostPause = 1_200;

    /// <summary>A shape has no time of its own; it is drawn in so long.</summary>
    private const int ShapeTakes = 400;

    /// <param name="Item">What comes.</param>
    /// <param name="Start">When it begins, milliseconds from the start.</param>
    /// <param name="End">When all of it is there.</param>
    public readonly record struct Step(PageItem Item, int Start, int End);

    /// <summary>The steps in the order in which things were begun. Two who wrote at one time are seen writing at one time.</summary>
    public static List<Step> Plan(IEnumerable<PageItem> items)
    {
        var steps = new List<Step>();
        long cut = 0,
            seen = long.MinValue;
        foreach (var item in items.Where(item => item.Shown).OrderBy(item => item.StartedAt).ThenBy(item => item.Stamp))
        {
            var takes = item.Shape is not null ? ShapeTakes : Math.Clamp(item.Samples.Time[^1], 1, 60_000);
            if (seen == long.MinValue)
                (seen, cut) = (item.StartedAt, item.StartedAt);
            if (item.StartedAt - seen > MostPause)
                cut += item.StartedAt - seen - MostPause;
            var start = item.StartedAt - cut;
            steps.Add(new Step(item, (int)Math.Min(start, int.MaxValue / 2), (int)Math.Min(start + takes, int.MaxValue / 2)));
            seen = Math.Max(seen, item.StartedAt + takes);
        }

        return steps;
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
