namespace CalmQuill.Core.Ink;

/// <summary>What a round eraser touches as it is drawn over ink.</summary>
public static class Eraser
{
    /// <summary>
    /// The intervals of a stroke that an eraser at one spot touches. Where the eraser only grazes the edge of a wide line, no more of the
    /// line's length goes than lies under the eraser.
    /// </summary>
    /// <param name="samples">The stroke.</param>
    /// <param name="pen">Its pen, which gives the width of the line at each sample.</param>
    /// <param name="x">Centre of the eraser in the stroke's own coordinates (shift taken off), 0.01 mm.</param>
    /// <param name="y">See <paramref name="x"/>.</param>
    /// <param name="radius">Radius of the eraser, 0.01 mm.</param>
    /// <param name="touched">Receives the intervals, ascending, not joined.</param>
    public static void Touch(StrokeSamples samples, Pen pen, double x, double y, double radius, List<Interval> touched)
    {
        var reach = radius + pen.MostRadius;
        if (samples.Count == 1)
        {
            if (Square(samples.X[0] - x) + Square(samples.Y[0] - y) <= Square(reach))
                touched.Add(new Interval(0, 0));
            return;
        }

        for (var i = 0; i + 1 < samples.Count; i++)
        {
            double ax = samples.X[i],
                ay = samples.Y[i],
                bx = samples.X[i + 1],
                by = samples.Y[i + 1];
            if (
                (ax < x - reach && bx < x - reach)
                || (ax > x + reach && bx > x + reach)
                || (ay < y - reach && by < y - reach)
                || (ay > y + reach && by > y + reach)
            )
                continue;
            double ux = bx - ax,
                uy = by - ay,
                length = Math.Sqrt(ux * ux + uy * uy);
            var half = Nib.HalfAcross(samples, i, pen);
            if (length < 1e-9)
            {
                if (Square(ax - x) + Square(ay - y) <= Square(radius))
                    touched.Add(new Interval(i * Interval.PerSample, (i + 1) * Interval.PerSample));
                continue;
            }

            var along = ((x - ax) * ux + (y - ay) * uy) / length;
            var aside = Math.Max(0, Math.Abs((x - ax) * uy - (y - ay) * ux) / length - half);
            if (aside > radius)
                continue;
            var chord = Math.Sqrt(radius * radius - aside * aside);
            double from = Math.Max(0, along - chord),
                to = Math.Min(length, along + chord);
            if (from > to)
                continue;
            touched.Add(
                new Interval(
                    (i * Interval.PerSample) + (int)Math.Ceiling(from / length * Interval.PerSample),
                    (i * Interval.PerSample) + (int)Math.Floor(to / length * Interval.PerSample)
                )
            );
        }

        touched.RemoveAll(interval => interval.End < interval.Start);
    }

    private static double Square(double value) => value * value;
}
