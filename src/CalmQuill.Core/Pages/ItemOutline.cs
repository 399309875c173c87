using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;

namespace CalmQuill.Core.Pages;

/// <summary>What is painted of an item: first its fill, then its line. Screen, pictures and PDF all paint so.</summary>
public static class ItemOutline
{
    /// <summary>Adds the line, without what was rubbed out; a filled region has none.</summary>
    public static void Line(PageItem item, StrokeOutliner outliner, Outline outline) => Line(item, item.Visible(), outliner, outline);

    /// <summary>Adds chosen parts of the line.</summary>
    public static void Line(PageItem item, List<Interval> visible, StrokeOutliner outliner, Outline outline) =>
        Line(item, visible, item.Dx, item.Dy, outliner, outline);

    /// <summary>The line's outline where it was made, without its shifts: <see cref="PageItem.Dx"/> and <see cref="PageItem.Dy"/> are left out.</summary>
    public static void LineUnshifted(PageItem item, List<Interval> visible, StrokeOutliner outliner, Outline outline) =>
        Line(item, visible, 0, 0, outliner, outline);

    private static void Line(PageItem item, List<Interval> visible, long dx, long dy, StrokeOutliner outliner, Outline outline)
    {
        if (item.Kind != ItemKinds.Area)
            outliner.Append(item.Samples, visible, item.Pen, (int)dx, (int)dy, outline);
    }

    /// <summary>The grain its line is filled with; see <see cref="PencilGrain.LevelOf(StrokeSamples, Pen)"/>.</summary>
    public static int Grain(PageItem item) => PencilGrain.LevelOf(item.Samples, item.Pen);

    /// <summary>The region that is filled, if one is, without its shifts.</summary>
    public static void FillUnshifted(PageItem item, Outline outline) => Fill(item, 0, 0, outline);

    /// <summary>Adds the region that is filled, if one is.</summary>
    public static void Fill(PageItem item, Outline outline) => Fill(item, item.Dx, item.Dy, outline);

    private static void Fill(PageItem item, long dx, long dy, Outline outline)
    {
        if ((item.Fill & 0xFF) == 0)
            return;
        var samples = item.Samples;
        for (var i = 0; i < samples.Count; i++)
            outline.Add(samples.X[i] + dx, samples.Y[i] + dy);
        outline.Close();
    }

    /// <summary>A colour at the opacity of the item's layer, 0xRRGGBBAA.</summary>
    public static uint Faded(uint colour, PageItem item) =>
        item.Layer is { Opacity: < 100 } layer ? (colour & ~0xFFu) | (uint)((colour & 0xFF) * layer.Opacity / 100) : colour;
}
