using System.Globalization;
using System.Text;
using CalmQuill.Core.Ink;
using CalmQuill.Documents.Pictures;

namespace CalmQuill.Documents.Svg;

/// <summary>The paper's grain as SVG 1.1 patterns: a rectangle in the pencil's colour under a mask, which is a picture of the grain.</summary>
internal sealed class SvgGrain
{
    private const int Points = PencilGrain.MostPoints / 2;
    private readonly HashSet<string> written = [];

    /// <summary>What a pencil's line is filled with; its definition is written where it is needed first.</summary>
    /// <param name="svg">What it is written to.</param>
    /// <param name="level">See <see cref="PencilGrain.LevelOf(StrokeSamples, Pen)"/>.</param>
    /// <param name="rgba">Its colour; the opacity is not the pattern's.</param>
    /// <param name="dx">How far the line was shifted, with which the grain goes.</param>
    /// <param name="dy">See <paramref name="dx"/>.</param>
    public string Paint(StringBuilder svg, int level, uint rgba, long dx, long dy)
    {
        var mask = $"grain{level}";
        if (written.Add(mask))
            svg.Append(
                CultureInfo.InvariantCulture,
                $"<mask id=\"{mask}\" maskUnits=\"userSpaceOnUse\" x=\"0\" y=\"0\" width=\"{PencilGrain.Side}\" height=\"{PencilGrain.Side}\"><image width=\"{PencilGrain.Side}\" height=\"{PencilGrain.Side}\" xlink:href=\"data:image/png;base64,{Convert.ToBase64String(GreyPng.Write(PencilGrain.Tile(level, Points), Points, Points))}\"/></mask>"
            );
        var (x, y) = (PencilGrain.Offset(dx), PencilGrain.Offset(dy));
        var id = string.Create(CultureInfo.InvariantCulture, $"{mask}-{rgba >> 8:x6}-{x}-{y}");
        if (written.Add(id))
            svg.Append(
                CultureInfo.InvariantCulture,
                $"<pattern id=\"{id}\" patternUnits=\"userSpaceOnUse\" width=\"{PencilGrain.Side}\" height=\"{PencilGrain.Side}\" patternTransform=\"translate({x} {y})\"><rect width=\"{PencilGrain.Side}\" height=\"{PencilGrain.Side}\" fill=\"{DrawingSvg.Hex(rgba)}\" mask=\"url(#{mask})\"/></pattern>"
            );
        return $"url(#{id})";
    }
}
