using System.Globalization;
using System.Text;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Typesetting;

namespace CalmQuill.Documents.Svg;

/// <summary>
/// Typed text in SVG 1.1: each glyph is written once as a path and used wherever it stands, so that no font is needed where the picture is shown.
/// </summary>
internal sealed class SvgLetters(StringBuilder svg)
{
    private readonly Dictionary<(Font Font, int Glyph), string> written = [];

    /// <param name="text">The text.</param>
    /// <param name="place">Where its box lies.</param>
    /// <param name="colourOf">The colour of letters as it is shown; asked with null for those that have none of their own.</param>
    public void Write(SetText text, in Affine place, Func<uint?, uint> colourOf)
    {
        uint? open = null;
        var any = false;
        foreach (var glyph in PlacedGlyph.Of(text).Where(glyph => glyph.IsSeen))
        {
            var name = Define(glyph.Font, glyph.Glyph);
            if (name.Length == 0)
                continue;
            if (!any || glyph.Style.Colour != open)
            {
                if (any)
                    svg.Append("</g>");
                (open, any) = (glyph.Style.Colour, true);
                svg.Append("<g ").Append(DrawingSvg.Paint("fill", colourOf(open))).Append('>');
            }

            var (a, b, c, d, e, f) = place.After(glyph.Place);
            svg.Append(
                CultureInfo.InvariantCulture,
                $"<use xlink:href=\"#{name}\" transform=\"matrix({a:0.#####} {b:0.#####} {c:0.#####} {d:0.#####} {e:0.##} {f:0.##})\"/>"
            );
        }

        if (any)
            svg.Append("</g>");
    }

    /// <summary>The name of a glyph, which is defined where it is needed first; empty for one that shows nothing.</summary>
    private string Define(Font font, int glyph)
    {
        if (written.TryGetValue((font, glyph), out var name))
            return name;
        var outline = font.OutlineOf(glyph);
        name = outline.IsEmpty ? "" : string.Create(CultureInfo.InvariantCulture, $"l{written.Count}");
        if (name.Length > 0)
            svg.Append("<defs><path id=\"").Append(name).Append("\" d=\"").Append(outline.ToSvg()).Append("\"/></defs>");
        return written[(font, glyph)] = name;
    }
}
