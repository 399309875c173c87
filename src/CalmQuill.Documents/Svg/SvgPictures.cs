using System.Globalization;
using System.Text;
using CalmQuill.Core.Assets;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Pictures;
using CalmQuill.Documents.Leaves;
using CalmQuill.Documents.Pictures;

namespace CalmQuill.Documents.Svg;

/// <summary>Pictures in SVG 1.1: within the file, cut by a clip path, their tones by a filter.</summary>
/// <param name="svg">What it is written to.</param>
/// <param name="page">The page that they are on.</param>
/// <param name="dots">How many dots there are for 0.01 mm where it is shown.</param>
/// <param name="vectors">Whether pages of PDF files stay vectors, or are shown in those dots.</param>
internal sealed class SvgPictures(StringBuilder svg, PrintedPage page, double dots, bool vectors)
{
    /// <param name="picture">The picture as it is shown.</param>
    /// <param name="place">Where it lies.</param>
    /// <param name="alpha">How much it covers, 0 to 255.</param>
    public void Draw(PictureLook picture, in Affine place, uint alpha)
    {
        var file = page.Pictures.TryGetValue(picture.Asset, out var bytes) ? FileOf(bytes, picture, place) : null;
        var corners = string.Join(' ', picture.Corners.Select(at => string.Create(CultureInfo.InvariantCulture, $"{at.X:0.#},{at.Y:0.#}")));
        var (a, b, c, d, e, f) = place;
        var at = string.Create(CultureInfo.InvariantCulture, $"matrix({a:0.#####} {b:0.#####} {c:0.#####} {d:0.#####} {e:0.##} {f:0.##})");
        if (file is not var (packed, type))
        {
            svg.Append("<polygon fill=\"none\" ").Append(DrawingSvg.Paint("stroke", PictureLook.MissingEdge));
            svg.Append(
                CultureInfo.InvariantCulture,
                $" stroke-width=\"{PictureLook.MissingWidth}\" transform=\"{at}\" points=\"{corners}\"/>"
            );
            return;
        }

        var clip = "";
        if (!picture.Cut.IsWhole)
        {
            var name = string.Create(CultureInfo.InvariantCulture, $"cut{svg.Length}");
            svg.Append($"<clipPath id=\"{name}\"><polygon points=\"{corners}\"/></clipPath>");
            clip = $" clip-path=\"url(#{name})\"";
        }

        var filter = picture.Tones.IsPlain ? "" : $" filter=\"url(#{Filter(picture.Tones)})\"";
        svg.Append(CultureInfo.InvariantCulture, $"<g transform=\"{at}\"{clip}>");
        // A page is printed on white paper.
        if (picture.Leaf > 0)
            svg.Append(
                CultureInfo.InvariantCulture,
                $"<rect width=\"{picture.Width}\" height=\"{picture.Height}\" fill=\"#fff\" opacity=\"{alpha / 255.0:0.###}\"/>"
            );
        svg.Append(CultureInfo.InvariantCulture, $"<image width=\"{picture.Width}\" height=\"{picture.Height}\"");
        svg.Append(
            CultureInfo.InvariantCulture,
            $" opacity=\"{alpha / 255.0:0.###}\" preserveAspectRatio=\"none\"{filter} href=\"data:{type};base64,"
        );
        svg.Append(Convert.ToBase64String(packed)).Append("\"/></g>");
    }

    /// <summary>The file that is put in, in no more dots than are shown; null where there is none.</summary>
    private (byte[] Bytes, string Type)? FileOf(byte[] bytes, PictureLook picture, in Affine place)
    {
        var need = FittedPicture.Need(picture, place, dots);
        if (picture.Leaf == 0)
        {
            using var fitted = FittedPicture.Read(bytes, need);
            return fitted?.Pack();
        }

        if (vectors)
            return LeafDrawing.Svg(bytes, picture, page.Cancel) is { } drawn ? (drawn, "image/svg+xml") : null;
        // Few sizes, so that what is kept is found again.
        var longer = (int)System.Numerics.BitOperations.RoundUpToPowerOf2((uint)Math.Clamp(Math.Max(need.Width, need.Height), 128, 2_048));
        return LeafDrawing.Png(bytes, picture, longer, page.Cancel) is { } picked ? (picked, FileType.Png) : null;
    }

    private string Filter(Tones tones)
    {
        var name = string.Create(CultureInfo.InvariantCulture, $"tones{svg.Length}");
        svg.Append(
            CultureInfo.InvariantCulture,
            $"<filter id=\"{name}\" x=\"0\" y=\"0\" width=\"1\" height=\"1\" color-interpolation-filters=\"sRGB\"><feComponentTransfer>"
        );
        foreach (var channel in "RGB")
            svg.Append(
                CultureInfo.InvariantCulture,
                $"<feFunc{channel} type=\"linear\" slope=\"{tones.Slope:0.####}\" intercept=\"{tones.Intercept:0.####}\"/>"
            );
        svg.Append("</feComponentTransfer></filter>");
        return name;
    }
}
