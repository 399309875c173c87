using CalmQuill.Core.Ink;

namespace CalmQuill.Core.Pages;

/// <summary>
/// The part of a sheet to show where it is shown small: of a page that is mostly empty, what is written, large enough to be recognised. It has the sheet's shape, so
/// that it fills the same place.
/// </summary>
public static class WrittenPart
{
    /// <summary>So much of the sheet's width and height is shown at least: words in it are twice as large as on a whole sheet, and two words still are no poster.</summary>
    private const double LeastShare = 0.5;

    /// <summary>Where more than this would be shown, the whole sheet is: it is hardly smaller, and lies as its neighbours do.</summary>
    private const double MostShare = 0.85;

    /// <summary>Around what is written so much stays free, as a share of the sheet's width.</summary>
    private const double MarginShare = 0.04;

    /// <summary>A part within the sheet, which holds all the ink that lies on it; the sheet itself where there is none, or too much.</summary>
    public static Box Of(PageDocument page, Box sheet)
    {
        Box? written = null;
        foreach (var item in page.Items)
            if (item.Shown && item.Bounds.Meets(sheet))
                written = written is { } box ? box.With(item.Bounds) : item.Bounds;
        if (written is not { } all)
            return sheet;
        double width = sheet.Right - sheet.Left,
            height = sheet.Bottom - sheet.Top;
        var margin = (int)(width * MarginShare);
        all = new Box(
            Math.Max(sheet.Left, all.Left - margin),
            Math.Max(sheet.Top, all.Top - margin),
            Math.Min(sheet.Right, all.Right + margin),
            Math.Min(sheet.Bottom, all.Bottom + margin)
        );
        var share = Math.Max(LeastShare, Math.Max((all.Right - all.Left) / width, (all.Bottom - all.Top) / height));
        if (share > MostShare)
            return sheet;
        int wide = (int)Math.Ceiling(width * share),
            high = (int)Math.Ceiling(height * share);
        // What is written begins at the head, as on the sheet; it stays within the sheet.
        var left = Math.Clamp((all.Left + all.Right - wide) / 2, sheet.Left, sheet.Right - wide);
        var top = Math.Clamp(all.Top, sheet.Top, sheet.Bottom - high);
        return new Box(left, top, left + wide, top + high);
    }
}
