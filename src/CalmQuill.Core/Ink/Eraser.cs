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
            float ax = samples.X[i],
                ay = samples.Y[i],
                bx = samples.X[i + 1],
                by = samples.Y[i + 1];
            // No curve leaves its chord by more than the chord's length.
            var near = reach + Math.Abs(bx - ax) + Math.Abs(by - ay);
            if (
                (ax < x - near && bx < x - near)
                || (ax > x + near && bx > x + near)
                || (ay < y - near && by < y - near)
                || (ay > y + near && by > y + near)
            )
                continue;
            var half = Nib.HalfAcross(samples, i, pen);
            if (SplineSpan.IsPlainlyStraight(samples.X, samples.Y, i) || SplineSpan.Of(samples, i) is not { Pieces: > 1 } span)
            {
                Touch((ax, ay), (bx, by), i, 1);
                continue;
            }

            var from = (ax, ay);
            for (var k = 1; k <= span.Pieces; k++)
            {
                var to = span.At(k / (float)span.Pieces);
                Touch(from, to, i + (k - 1) / (double)span.Pieces, 1.0 / span.Pieces);
                from = to;
            }

            // One straight piece, which begins at a parameter and goes on for so much of it, in samples.
            void Touch((float X, float Y) a, (float X, float Y) b, double start, double share)
            {
                double ux = b.X - a.X,
                    uy = b.Y - a.Y,
                    length = Math.Sqrt(ux * ux + uy * uy);
                if (length < 1e-9)
                {
                    if (Square(a.X - x) + Square(a.Y - y) <= Square(radius))
                        Add(start, start + share);
                    return;
                }

                var along = ((x - a.X) * ux + (y - a.Y) * uy) / length;
                var aside = Math.Max(0, Math.Abs((x - a.X) * uy - (y - a.Y) * ux) / length - half);
                if (aside > radius)
                    return;
                var chord = Math.Sqrt(radius * radius - aside * aside);
                double first = Math.Max(0, along - chord),
                    last = Math.Min(length, along + chord);
                if (first <= last)
                    Add(start + first / length * share, start + last / length * share);
            }
        }

        touched.RemoveAll(interval => interval.End < interval.Start);

        void Add(double from, double to) =>
            touched.Add(new Interval((int)Math.Ceiling(from * Interval.PerSample), (int)Math.Floor(to * Interval.PerSample)));
    }

    private static double Square(double value) => value * value;
}
