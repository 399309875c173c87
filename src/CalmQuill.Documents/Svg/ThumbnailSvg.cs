using System.Globalization;
using System.Text;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Pictures;
using CalmQuill.Core.Spots;
using CalmQuill.Core.Typesetting;

namespace CalmQuill.Documents.Svg;

/// <summary>A page, or a part of one, as a small SVG picture (SVG 1.1): simplified lines instead of outlines, and curtains hanging.</summary>
public static class ThumbnailSvg
{
    /// <summary>How wide a whole page is shown, in pixels: what is simplified is chosen by it.</summary>
    private const double PixelsAcross = 120;

    /// <summary>A part of a page is shown larger.</summary>
    private const double PartPixelsAcross = 420;

    private const string Cloth = "#1F3D3A";

    public static string Write(PrintedPage printed) => Write(printed, printed.Sheet, PixelsAcross);

    /// <summary>A page in the same place, where it is mostly empty its written part, so that its words are recognised.</summary>
    public static string WriteWritten(PrintedPage printed) => Write(printed, WrittenPart.Of(printed.Page, printed.Sheet), PixelsAcross);

    /// <summary>A part of a page, as follow-ups and contents show it.</summary>
    public static string WritePart(PrintedPage printed, Box part) => Write(printed, part, PartPixelsAcross);

    private static string Write(PrintedPage printed, Box view, double pixels)
    {
        int width = Math.Max(1, view.Right - view.Left),
            height = Math.Max(1, view.Bottom - view.Top);
        var pixel = Math.Max(1, width / pixels);
        var drawing = printed.Draw();
        var svg = new StringBuilder(4096);
        svg.Append(
            CultureInfo.InvariantCulture,
            $"<svg xmlns=\"http://www.w3.org/2000/svg\" xmlns:xlink=\"http://www.w3.org/1999/xlink\" viewBox=\"{view.Left} {view.Top} {width} {height}\">"
        );
        svg.Append(
            CultureInfo.InvariantCulture,
            $"<rect x=\"{view.Left}\" y=\"{view.Top}\" width=\"{width}\" height=\"{height}\" fill=\"{DrawingSvg.Hex(drawing.Ground)}\"/>"
        );
        Under(svg, printed, pixel);
        DrawingSvg.Write(svg, drawing, (int)(pixel * 0.28));
        Ink(svg, printed, printed.Page, view, pixel);
        // What a curtain hides on the page is not given away by the page's picture.
        foreach (var (x, y, right, bottom) in printed.Page.Spots().Where(spot => spot.Kind == SpotKind.Curtain).Select(spot => spot.Area))
            svg.Append(
                CultureInfo.InvariantCulture,
                $"<rect x=\"{x}\" y=\"{y}\" width=\"{right - x}\" height=\"{bottom - y}\" fill=\"{Cloth}\"/>"
            );
        return svg.Append("</svg>").ToString();
    }

    /// <summary>The picture or page of an own paper, laid under what is printed.</summary>
    internal static void Under(StringBuilder svg, PrintedPage printed, double pixel)
    {
        var (left, top, right, bottom) = new Box(0, 0, printed.Paper.Width, printed.Paper.Height);
        switch (printed.Under)
        {
            case Background.Picture picture:
                svg.Append(
                    CultureInfo.InvariantCulture,
                    $"<image x=\"{left}\" y=\"{top}\" width=\"{right}\" height=\"{bottom}\" preserveAspectRatio=\"xMidYMid meet\" href=\"data:{picture.Type};base64,"
                );
                svg.Append(Convert.ToBase64String(picture.Bytes)).Append("\"/>");
                break;
            case Background.Frozen frozen:
                var (scale, dx, dy) = Fit(frozen.Paper.Width, frozen.Paper.Height, right, bottom);
                svg.Append(CultureInfo.InvariantCulture, $"<g transform=\"translate({dx:0.#} {dy:0.#}) scale({scale:0.####})\">");
                DrawingSvg.Write(svg, frozen.Paper.Draw(frozen.Paper.Sheet(null)), (int)(pixel * 0.28));
                Ink(svg, printed, frozen.Page, new Box(int.MinValue / 4, int.MinValue / 4, int.MaxValue / 4, int.MaxValue / 4), pixel);
                svg.Append("</g>");
                break;
        }
    }

    /// <summary>How a sheet is laid into another, whole and in the middle.</summary>
    internal static (double Scale, double Dx, double Dy) Fit(double width, double height, double intoWidth, double intoHeight)
    {
        var scale = Math.Min(intoWidth / width, intoHeight / height);
        return (scale, (intoWidth - width * scale) / 2, (intoHeight - height * scale) / 2);
    }

    private static void Ink(StringBuilder svg, PrintedPage printed, PageDocument page, Box view, double pixel)
    {
        svg.Append("<g fill=\"none\" stroke-linecap=\"round\" stroke-linejoin=\"round\">");
        var sketch = new Sketch(svg, printed, pixel);
        foreach (var item in page.Items)
        {
            if (!item.Shown || !item.Bounds.Meets(view))
                continue;
            printed.Check(svg.Length);
            sketch.Draw(item);
        }

        sketch.End();
        svg.Append("</g>");
    }

    /// <summary>Lines that look alike and follow each other become one path.</summary>
    private sealed class Sketch(StringBuilder svg, PrintedPage printed, double pixel) : IItemSketcher
    {
        /// <summary>Small pictures are shown on screens with more than one dot a pixel.</summary>
        private readonly SvgPictures pictures = new(svg, printed, 2 / pixel, vectors: false);
        private readonly SvgLetters letters = new(svg);
        private PageItem? item;
        private double opacity = 1;
        private (Pen Pen, double Opacity)? open;

        public void Draw(PageItem drawn)
        {
            item = drawn;
            opacity = drawn.Layer!.Opacity / 100.0;
            drawn.Content.Sketch(this, pixel / 7);
        }

        public void Region(IEnumerable<long[]> rings, uint colour)
        {
            End();
            svg.Append(
                CultureInfo.InvariantCulture,
                $"<path fill=\"{DrawingSvg.Hex(colour)}\" fill-opacity=\"{(colour & 0xFF) / 255.0 * opacity:0.##}\" d=\""
            );
            foreach (var corners in rings)
            {
                for (var i = 0; i < corners.Length; i += 2)
                    svg.Append(i == 0 ? 'M' : 'L').Append(corners[i]).Append(' ').Append(corners[i + 1]);
                svg.Append('Z');
            }

            svg.Append("\"/>");
        }

        public void Line(ReadOnlySpan<long> points, Pen pen)
        {
            if (open != (pen, opacity))
                Begin(pen);
            var command = 'M';
            for (var i = 0; i < points.Length; i += 2)
            {
                svg.Append(command).Append(points[i] / 5 * 5).Append(' ').Append(points[i + 1] / 5 * 5);
                command = 'L';
            }

            if (points.Length == 2)
                svg.Append("h1");
        }

        public void Write(SetText text, in Affine place, uint colour)
        {
            End();
            letters.Write(text, place, own => item!.Faded(own ?? colour));
        }

        public void Draw(PictureLook picture, in Affine place)
        {
            End();
            pictures.Draw(picture, place, item!.Faded((uint)picture.Alpha) & 0xFF);
        }

        public void End()
        {
            if (open is not null)
                svg.Append("\"/>");
            open = null;
        }

        private void Begin(Pen pen)
        {
            End();
            var alpha = (pen.Colour & 0xFF) / 255.0 * opacity;
            svg.Append(
                CultureInfo.InvariantCulture,
                $"<path stroke=\"{DrawingSvg.Hex(pen.Colour)}\" stroke-width=\"{Math.Max(pixel * 0.5, pen.Width * 1.15):0}\""
            );
            if (alpha < 1)
                svg.Append(CultureInfo.InvariantCulture, $" stroke-opacity=\"{alpha:0.##}\"");
            if (pen.LiesBehind)
                svg.Append(" stroke-linecap=\"butt\"");
            svg.Append(" d=\"");
            open = (pen, opacity);
        }
    }
}
