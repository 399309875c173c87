using System.Globalization;
using System.Text;
using CalmQuill.Core.Art;

namespace CalmQuill.Documents.Svg;

/// <summary>A drawing's pieces as SVG 1.1 elements.</summary>
internal static class DrawingSvg
{
    /// <param name="svg">What it is written to.</param>
    /// <param name="drawing">The drawing.</param>
    /// <param name="least">Lines are drawn at least this wide, 0.01 mm, so that they do not vanish when small.</param>
    /// <param name="hrefOf">The address of a picture; null leaves pictures out.</param>
    public static void Write(StringBuilder svg, Drawing drawing, int least, Func<Guid, string?>? hrefOf = null)
    {
        foreach (var piece in drawing.Pieces)
        {
            switch (piece)
            {
                case Piece.Fill fill:
                    Write(svg, fill);
                    break;
                case Piece.Line line:
                    svg.Append("<path fill=\"none\" d=\"").Append(line.Path.ToSvg()).Append("\" ").Append(Paint("stroke", line.Colour));
                    svg.Append(CultureInfo.InvariantCulture, $" stroke-width=\"{Math.Max(least, line.Width)}\"");
                    if (line.Dash is { } dash)
                        svg.Append(CultureInfo.InvariantCulture, $" stroke-dasharray=\"{dash.On} {dash.Off}\" stroke-linecap=\"round\"");
                    svg.Append("/>");
                    break;
                case Piece.Picture picture when hrefOf?.Invoke(picture.Asset) is { } href:
                    var (left, top, right, bottom) = picture.Area;
                    svg.Append(
                        CultureInfo.InvariantCulture,
                        $"<image x=\"{left}\" y=\"{top}\" width=\"{right - left}\" height=\"{bottom - top}\" preserveAspectRatio=\"xMidYMid meet\" href=\"{href}\"/>"
                    );
                    break;
            }
        }
    }

    /// <param name="svg">What it is written to.</param>
    /// <param name="fill">What is filled.</param>
    /// <param name="paint">What it is filled with instead of its colour, at the colour's opacity.</param>
    public static void Write(StringBuilder svg, Piece.Fill fill, string? paint = null) =>
        svg.Append("<path d=\"").Append(fill.Path.ToSvg()).Append("\" ").Append(Paint("fill", fill.Colour, paint)).Append("/>");

    public static string Hex(uint rgba) => string.Create(CultureInfo.InvariantCulture, $"#{rgba >> 8:X6}");

    internal static string Paint(string attribute, uint rgba, string? paint = null) =>
        (rgba & 0xFF) == 0xFF
            ? $"{attribute}=\"{paint ?? Hex(rgba)}\""
            : string.Create(
                CultureInfo.InvariantCulture,
                $"{attribute}=\"{paint ?? Hex(rgba)}\" {attribute}-opacity=\"{(rgba & 0xFF) / 255.0:0.###}\""
            );
}
