using System.Globalization;
using System.Runtime.InteropServices.JavaScript;
using System.Text.Json;
using CalmQuill.Core.Art;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Plots;
using CalmQuill.Core.Typesetting;

namespace CalmQuill.Core.Browser;

/// <summary>
/// Exported to script: what part of the plane a plot shows, while a hand moves it. A range is its left, right, lower and upper edge; shares are of what is
/// shown, from the left and from below.
/// </summary>
public static partial class PlotBridge
{
    /// <summary>The range moved.</summary>
    [JSExport]
    public static double[] Moved(double[] range, double right, double up) => Edges(Of(range).Moved(right, up));

    /// <summary>So many times as much of the plane; what lies at a place stays there.</summary>
    [JSExport]
    public static double[] Widened(double[] range, double across, double up, double x, double y) =>
        Edges(Of(range).Widened(across, up, x, y));

    /// <summary>The range as a field holds it, with as many digits as one sees.</summary>
    [JSExport]
    public static string Text(double[] range) => Of(range).Rounded().ToText();

    /// <summary>
    /// A plot as it would show a range, as JSON: from the back to the front its paths of SVG, their colours, and where their own measures lie in its box:
    /// <c>[[d, colour, [a, b, c, d, e, f]], …]</c>; empty where it is not there.
    /// </summary>
    [JSExport]
    public static string Drawn(int page, string item, double[] range)
    {
        if (Session.Document<PageDocument>(page).Find(OpId.Parse(item)) is not { Shown: true, Content: PlotContent content })
            return "";
        var drawing = content.DrawnAt(Of(range));
        return Json.Text(json =>
        {
            json.WriteStartArray();
            foreach (var fill in drawing.Fills)
                Write(json, ToPath(fill), fill.Colour, Affine.Identity);
            foreach (var (label, x, y, colour) in drawing.Labels)
            {
                foreach (var glyph in PlacedGlyph.Of(label.Set).Where(glyph => glyph.IsSeen))
                    Write(json, glyph.Font.OutlineOf(glyph.Glyph), colour, Affine.Identity.Shifted(x, y).After(glyph.Place));
            }

            json.WriteEndArray();
        });
    }

    private static PlotRange Of(double[] range) => new(range[0], range[1], range[2], range[3]);

    private static double[] Edges(PlotRange range) => [range.Left, range.Right, range.Bottom, range.Top];

    private static VectorPath ToPath(Region region)
    {
        var path = new VectorPath();
        foreach (var ring in region.Rings)
            path.Ring([.. ring.SelectMany(corner => new[] { (float)corner.X, (float)corner.Y })]);
        return path;
    }

    private static void Write(Utf8JsonWriter json, VectorPath path, uint colour, Affine place)
    {
        json.WriteStartArray();
        json.WriteStringValue(path.ToSvg());
        json.WriteStringValue(string.Create(CultureInfo.InvariantCulture, $"#{colour:x8}"));
        json.WriteStartArray();
        foreach (var part in place.Parts)
            json.WriteNumberValue(part);
        json.WriteEndArray();
        json.WriteEndArray();
    }
}
