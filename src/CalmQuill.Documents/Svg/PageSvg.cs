using System.Globalization;
using System.Text;
using CalmQuill.Core.Art;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Pictures;
using CalmQuill.Core.Typesetting;

namespace CalmQuill.Documents.Svg;

/// <summary>A page as an SVG 1.1 file of its true size: paper, what lies under it, and ink by Core's own outlines, as on screen and in PDF.</summary>
public static class PageSvg
{
    public static string Write(PrintedPage printed)
    {
        var (left, top, right, bottom) = printed.Sheet;
        int width = right - left,
            height = bottom - top;
        var drawing = printed.Draw();
        var svg = new StringBuilder(64 * 1024);
        svg.Append(
            CultureInfo.InvariantCulture,
            $"<svg xmlns=\"http://www.w3.org/2000/svg\" xmlns:xlink=\"http://www.w3.org/1999/xlink\" width=\"{width / 100.0:0.##}mm\" height=\"{height / 100.0:0.##}mm\" viewBox=\"{left} {top} {width} {height}\">"
        );
        svg.Append("<title>").Append(System.Security.SecurityElement.Escape(printed.Called)).Append("</title>");
        svg.Append(
            CultureInfo.InvariantCulture,
            $"<rect x=\"{left}\" y=\"{top}\" width=\"{width}\" height=\"{height}\" fill=\"{DrawingSvg.Hex(drawing.Ground)}\"/>"
        );
        // At its true size nothing is simplified, and lines are as thin as they are.
        ThumbnailSvg.Under(svg, printed, 1);
        DrawingSvg.Write(svg, drawing, 0);
        Ink(svg, printed);
        return svg.Append("</svg>").ToString();
    }

    private static void Ink(StringBuilder svg, PrintedPage printed)
    {
        var sheet = printed.Sheet;
        var painter = new Painter(svg, printed);
        foreach (var item in printed.Written)
        {
            if (!item.Shown || !item.Bounds.Meets(sheet))
                continue;
            printed.Check(svg.Length);
            painter.Paint(item);
        }
    }

    private sealed class Painter(StringBuilder svg, PrintedPage printed) : ItemPainter
    {
        private readonly SvgPictures pictures = new(svg, printed, printed.Dots, vectors: true);
        private readonly SvgGrain grains = new();
        private readonly SvgLetters letters = new(svg);
        private PageItem? item;

        public void Paint(PageItem painted)
        {
            item = painted;
            painted.Content.Paint(this, painted.Visible(), shifted: true);
        }

        public override void Fill(Outline filled, Coat coat)
        {
            if (filled.RingCount == 0)
                return;
            var faded = item!.Faded(coat.Colour);
            var paint = coat.LeavesBare ? grains.Paint(svg, coat.Grain, faded, item.Dx, item.Dy) : null;
            DrawingSvg.Write(svg, new Piece.Fill(ToPath(filled), faded), paint);
        }

        public override void Draw(PictureLook picture, in Affine place) =>
            pictures.Draw(picture, place, item!.Faded((uint)picture.Alpha) & 0xFF);

        public override void Write(SetText text, in Affine place, uint colour) =>
            letters.Write(text, place, own => item!.Faded(own ?? colour));
    }

    private static VectorPath ToPath(Outline outline)
    {
        var path = new VectorPath();
        for (var i = 0; i < outline.RingCount; i++)
            path.Ring(outline.Ring(i));
        return path;
    }
}
