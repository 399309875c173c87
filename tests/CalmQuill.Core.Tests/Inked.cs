using CalmQuill.Core.Ink;

namespace CalmQuill.Core.Tests;

/// <summary>Measures what a pen leaves on paper.</summary>
internal static class Inked
{
    public static Outline OutlineOf(StrokeSamples samples, Pen pen)
    {
        var outline = new Outline();
        new StrokeOutliner().Append(samples, new Interval(0, (samples.Count - 1) * Interval.PerSample), pen, 0, 0, outline);
        return outline;
    }

    public static double Distance(float[] line, double x, double y)
    {
        var least = Math.Sqrt((line[0] - x) * (line[0] - x) + (line[1] - y) * (line[1] - y));
        for (var i = 0; i + 3 < line.Length; i += 2)
        {
            double ux = line[i + 2] - line[i],
                uy = line[i + 3] - line[i + 1],
                square = ux * ux + uy * uy;
            var t = square == 0 ? 0 : Math.Clamp(((x - line[i]) * ux + (y - line[i + 1]) * uy) / square, 0, 1);
            least = Math.Min(least, Math.Sqrt(Math.Pow(line[i] + t * ux - x, 2) + Math.Pow(line[i + 1] + t * uy - y, 2)));
        }

        return least;
    }

    /// <summary>The non-zero rule over the rings' control polygons.</summary>
    public static bool Covers(Outline outline, double x, double y)
    {
        var winding = 0;
        for (var ring = 0; ring < outline.RingCount; ring++)
        {
            var points = outline.Ring(ring);
            for (int i = 0, j = points.Length - 2; i < points.Length; j = i, i += 2)
            {
                double ax = points[j],
                    ay = points[j + 1],
                    bx = points[i],
                    by = points[i + 1];
                var side = (bx - ax) * (y - ay) - (by - ay) * (x - ax);
                if (ay <= y && by > y && side > 0)
                    winding++;
                if (ay > y && by <= y && side < 0)
                    winding--;
            }
        }

        return winding != 0;
    }

    /// <summary>The rings as they are filled: quadratic pieces through the midpoints between control points, each cut into eight.</summary>
    public static IEnumerable<(double X, double Y)> EdgeOf(Outline outline)
    {
        for (var ring = 0; ring < outline.RingCount; ring++)
        {
            var points = outline.Ring(ring).ToArray();
            var n = points.Length / 2;
            for (var i = 0; i < n; i++)
            {
                int before = (i + n - 1) % n,
                    after = (i + 1) % n;
                for (var k = 0; k < 8; k++)
                {
                    double t = k / 8.0,
                        a = (1 - t) * (1 - t) / 2,
                        c = t * t / 2,
                        b = 1 - a - c;
                    yield return (
                        a * points[2 * before] + b * points[2 * i] + c * points[2 * after],
                        a * points[2 * before + 1] + b * points[2 * i + 1] + c * points[2 * after + 1]
                    );
                }
            }
        }
    }
}
