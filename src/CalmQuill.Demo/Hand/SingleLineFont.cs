using System.Globalization;
using System.Xml.Linq;

namespace CalmQuill.Demo.Hand;

/// <summary>A font whose letters are single lines, read from an SVG font file (SVG 1.1 §20) with absolute M, L and C commands.</summary>
public sealed class SingleLineFont
{
    private const int CurvePieces = 6;

    /// <summary>Added between letters, in thousandths of an em; a hand sets them closer than the font does.</summary>
    private const double Tracking = -45;

    private readonly Dictionary<string, Glyph> glyphs = [];

    private sealed record Glyph(double Advance, List<List<Point>> Lines);

    private SingleLineFont() { }

    public static SingleLineFont Load(string path)
    {
        var font = new SingleLineFont();
        XNamespace svg = "http://www.w3.org/2000/svg";
        foreach (var element in XDocument.Load(path).Descendants(svg + "glyph"))
        {
            if ((string?)element.Attribute("unicode") is { } letter)
                font.glyphs[letter] = new Glyph(
                    (double?)element.Attribute("horiz-adv-x") ?? 400,
                    Parse((string?)element.Attribute("d") ?? "")
                );
        }

        return font;
    }

    /// <summary>The lines of a text whose letters are <paramref name="size"/> mm to the em, its baseline beginning at a point, in mm, y down.</summary>
    public IEnumerable<List<Point>> Lines(string text, double x, double y, double size)
    {
        var scale = size / 1000;
        foreach (var letter in text)
        {
            if (!glyphs.TryGetValue(letter.ToString(), out var glyph))
                glyph = glyphs["-"];
            foreach (var line in glyph.Lines)
                yield return [.. line.Select(point => new Point(x + point.X * scale, y - point.Y * scale))];
            x += (glyph.Advance + Tracking) * scale;
        }
    }

    /// <summary>How far a word reaches, in ems.</summary>
    public double Width(string word) =>
        word.Sum(letter => (glyphs.GetValueOrDefault(letter.ToString(), glyphs["-"]).Advance + Tracking) / 1000);

    private static List<List<Point>> Parse(string path)
    {
        var lines = new List<List<Point>>();
        var words = path.Split([' ', ','], StringSplitOptions.RemoveEmptyEntries);
        var at = 0;
        Point Next() => new(Number(words[at++]), Number(words[at++]));
        while (at < words.Length)
        {
            switch (words[at++])
            {
                case "M":
                    lines.Add([Next()]);
                    break;
                case "L":
                    lines[^1].Add(Next());
                    break;
                case "C":
                    Curve(lines[^1], Next(), Next(), Next());
                    break;
            }
        }

        return lines;
    }

    private static void Curve(List<Point> line, Point b, Point c, Point d)
    {
        var a = line[^1];
        for (var i = 1; i <= CurvePieces; i++)
        {
            double t = i / (double)CurvePieces,
                u = 1 - t;
            line.Add(a * (u * u * u) + b * (3 * u * u * t) + c * (3 * u * t * t) + d * (t * t * t));
        }
    }

    private static double Number(string text) => double.Parse(text, CultureInfo.InvariantCulture);
}
