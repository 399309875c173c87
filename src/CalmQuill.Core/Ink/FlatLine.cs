namespace CalmQuill.Core.Ink;

/// <summary>A stroke's line as straight pieces that follow its curve (<see cref="SplineSpan"/>): what loops, fillings and sketches go by.</summary>
public static class FlatLine
{
    /// <summary>The places along one part of a stroke, both its ends included; one place where the part is a dot.</summary>
    public static List<FlatPoint> Of(StrokeSamples samples, Interval part)
    {
        var points = new List<FlatPoint>();
        double start = part.Start / (double)Interval.PerSample,
            end = part.End / (double)Interval.PerSample;
        points.Add(At(samples, start));
        for (var i = (int)start; i < end; i++)
        {
            var to = Math.Min(end, i + 1);
            if (!SplineSpan.IsPlainlyStraight(samples.X, samples.Y, i) && SplineSpan.Of(samples, i) is { Pieces: > 1 } span)
            {
                for (var k = 1; k < span.Pieces; k++)
                {
                    var t = k / (float)span.Pieces;
                    if (i + t <= start || i + t >= to)
                        continue;
                    var (x, y) = span.At(t);
                    points.Add(new FlatPoint(i + t, x, y));
                }
            }

            points.Add(At(samples, to));
        }

        return points;
    }

    /// <summary>All of a stroke.</summary>
    public static List<FlatPoint> Of(StrokeSamples samples) => Of(samples, new Interval(0, (samples.Count - 1) * Interval.PerSample));

    /// <summary>The bounding box of the line, 0.01 mm, without its width; larger than that of its samples where a bend goes beyond them.</summary>
    public static Box Bounds(StrokeSamples samples)
    {
        var box = samples.Bounds();
        var (xs, ys) = (samples.X, samples.Y);
        float left = box.Left,
            top = box.Top,
            right = box.Right,
            bottom = box.Bottom;
        for (var i = 0; i + 1 < xs.Length; i++)
        {
            if (SplineSpan.IsPlainlyStraight(xs, ys, i))
                continue;
            var span = SplineSpan.Of(samples, i);
            for (var k = 1; k < span.Pieces; k++)
            {
                var (x, y) = span.At(k / (float)span.Pieces);
                (left, top, right, bottom) = (Math.Min(left, x), Math.Min(top, y), Math.Max(right, x), Math.Max(bottom, y));
            }
        }

        return new Box((int)MathF.Floor(left), (int)MathF.Floor(top), (int)MathF.Ceiling(right), (int)MathF.Ceiling(bottom));
    }

    private static FlatPoint At(StrokeSamples samples, double at)
    {
        var i = (int)at;
        if (i == at)
            return new FlatPoint(at, samples.X[i], samples.Y[i]);
        var (x, y) = SplineSpan.Of(samples, i).At((float)(at - i));
        return new FlatPoint(at, x, y);
    }
}
