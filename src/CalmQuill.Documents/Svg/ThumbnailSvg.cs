using System.Globalization;
using System.Text;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Papers;

namespace CalmQuill.Documents.Svg;

/// <summary>A page as a small SVG picture (SVG 1.1) for page strips: simplified lines instead of outlines.</summary>
public static class ThumbnailSvg
{
    /// <summary>How far a simplified line may lie from the ink, 0.01 mm: a quarter of a pixel at 110 pixels a page.</summary>
    private const double Tolerance = 25;

    /// <summary>Ink is drawn at least this wide, 0.01 mm, so that it does not vanish when small.</summary>
    private const double LeastWidth = 85;

    public static string Write(PageDocument page, Paper paper)
    {
        var svg = new StringBuilder(4096);
        svg.Append(CultureInfo.InvariantCulture, $"<svg xmlns=\"http://www.w3.org/2000/svg\" viewBox=\"0 0 {paper.Width} {paper.Height}\">");
        svg.Append(CultureInfo.InvariantCulture, $"<rect width=\"{paper.Width}\" height=\"{paper.Height}\" fill=\"#FFFDF7\"/>");
        svg.Append(CultureInfo.InvariantCulture, $"<path fill=\"none\" stroke=\"{Colour(PaperLine.Colour)}\" stroke-width=\"45\" stroke-opacity=\".6\" d=\"");
        foreach (var line in paper.Lines()) svg.Append(CultureInfo.InvariantCulture, $"M{line.X1} {line.Y1}L{line.X2} {line.Y2}");
        svg.Append("\"/><g fill=\"none\" stroke-linecap=\"round\" stroke-linejoin=\"round\">");
        Pen? before = null;
        foreach (var item in page.Items)
        {
            if (!item.Shown) continue;
            var pen = item.Stroke!.Pen;
            if (before is not { } standing || standing != pen)
            {
                if (before is not null) svg.Append("\"/>");
                svg.Append(CultureInfo.InvariantCulture, $"<path stroke=\"{Colour(pen.Colour)}\" stroke-width=\"{Math.Max(LeastWidth, pen.Width * 1.3):0}\" d=\"");
                before = pen;
            }

            foreach (var interval in item.Visible()) Line(svg, item, interval);
        }

        if (before is not null) svg.Append("\"/>");
        return svg.Append("</g></svg>").ToString();
    }

    private static void Line(StringBuilder svg, PageItem item, Interval visible)
    {
        var samples = item.Stroke!.Samples;
        var first = (visible.Start + Interval.PerSample - 1) / Interval.PerSample;
        var last = visible.End / Interval.PerSample;
        if (last < first) return;
        var command = 'M';
        foreach (var i in LineSimplifier.Keep(samples, first, last, Tolerance))
        {
            svg.Append(command).Append((samples.X[i] + item.Dx) / 10 * 10).Append(' ').Append((samples.Y[i] + item.Dy) / 10 * 10);
            command = 'L';
        }

        if (last == first) svg.Append("h1");
    }

    private static string Colour(uint rgba) => string.Create(CultureInfo.InvariantCulture, $"#{rgba >> 8:X6}");
}
