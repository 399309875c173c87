using System.Globalization;
using System.Text;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Papers;

namespace CalmQuill.Documents.Pdf;

/// <summary>The content stream of one sheet (ISO 32000-1 §8.5): ruling and ink as vectors, in 0.01 mm through one transformation.</summary>
internal sealed class PdfPageContent
{
    private const double PointsPerUnit = 72.0 / 2540.0;

    private readonly StringBuilder text = new(64 * 1024);
    private readonly StrokeOutliner outliner = new();
    private readonly Outline outline = new();
    private uint colour;

    /// <summary>The alpha values used, 0–255, other than opaque; the sheet's resources must name a graphics state for each.</summary>
    public SortedSet<uint> Alphas { get; } = [];

    public static string AlphaName(uint alpha) => string.Create(CultureInfo.InvariantCulture, $"A{alpha}");

    public byte[] Write(PageDocument page, Paper paper)
    {
        text.Append(CultureInfo.InvariantCulture, $"{PointsPerUnit:0.0000000000} 0 0 {-PointsPerUnit:0.0000000000} 0 {paper.Height * PointsPerUnit:0.0000} cm\n");
        Ruling(paper);
        SetColour(0x000000FF);
        foreach (var item in page.Items)
        {
            if (!item.Shown) continue;
            outline.Clear();
            foreach (var interval in item.Visible()) outliner.Append(item.Stroke!.Samples, interval, item.Stroke.Pen, (int)item.Dx, (int)item.Dy, outline);
            if (outline.RingCount == 0) continue;
            if (item.Stroke!.Pen.Colour != colour) SetColour(item.Stroke.Pen.Colour);
            for (var i = 0; i < outline.RingCount; i++) Ring(outline.Ring(i));
            text.Append("f\n");
        }

        return Encoding.ASCII.GetBytes(text.ToString());
    }

    private void Ruling(Paper paper)
    {
        var lines = paper.Lines();
        if (lines.Count == 0) return;
        text.Append(CultureInfo.InvariantCulture, $"{Rgb(PaperLine.Colour)} RG {PaperLine.Width} w\n");
        foreach (var line in lines) text.Append(CultureInfo.InvariantCulture, $"{line.X1} {line.Y1} m {line.X2} {line.Y2} l\n");
        text.Append("S\n");
    }

    private void SetColour(uint rgba)
    {
        var alpha = rgba & 0xFF;
        if (alpha != (colour & 0xFF) || alpha != 0xFF)
        {
            Alphas.Add(alpha);
            text.Append(CultureInfo.InvariantCulture, $"/{AlphaName(alpha)} gs\n");
        }

        colour = rgba;
        text.Append(Rgb(rgba)).Append(" rg\n");
    }

    /// <summary>The ring's quadratic pieces, raised to the cubic ones that PDF knows.</summary>
    private void Ring(ReadOnlySpan<float> ring)
    {
        var count = ring.Length / 2;
        float lastX = ring[^2], lastY = ring[^1];
        float fromX = (lastX + ring[0]) / 2, fromY = (lastY + ring[1]) / 2;
        Point(fromX, fromY).Append("m\n");
        for (var i = 0; i < count; i++)
        {
            var next = (i + 1) % count;
            float cx = ring[2 * i], cy = ring[2 * i + 1];
            float toX = (cx + ring[2 * next]) / 2, toY = (cy + ring[2 * next + 1]) / 2;
            Point(fromX + (cx - fromX) * 2 / 3, fromY + (cy - fromY) * 2 / 3);
            Point(toX + (cx - toX) * 2 / 3, toY + (cy - toY) * 2 / 3);
            Point(toX, toY).Append("c\n");
            (fromX, fromY) = (toX, toY);
        }

        text.Append("h\n");
    }

    /// <summary>A point to 0.001 mm.</summary>
    private StringBuilder Point(float x, float y)
    {
        Number(x);
        Number(y);
        return text;
    }

    private void Number(float value)
    {
        var tenths = (int)MathF.Round(value * 10);
        if (tenths < 0)
        {
            text.Append('-');
            tenths = -tenths;
        }

        text.Append(tenths / 10);
        if (tenths % 10 != 0) text.Append('.').Append((char)('0' + tenths % 10));
        text.Append(' ');
    }

    private static string Rgb(uint rgba) =>
        string.Create(CultureInfo.InvariantCulture, $"{(rgba >> 24) / 255.0:0.###} {((rgba >> 16) & 0xFF) / 255.0:0.###} {((rgba >> 8) & 0xFF) / 255.0:0.###}");
}
