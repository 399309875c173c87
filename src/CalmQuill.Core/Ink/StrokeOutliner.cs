namespace CalmQuill.Core.Ink;

/// <summary>Turns samples into the outline that is filled on screen, in thumbnails and in print.</summary>
/// <remarks>
/// The centre line runs through every sample: long or curved segments are refined along a Catmull–Rom spline (Catmull and Rom 1974) until a
/// piece departs from it by less than 0.03 mm. The edge is the centre line's offset on both sides. Where the line turns by more than 60°,
/// or bends closer than its own width, the ring is closed with a round end and a new one begins at the same point, so that no ring folds over
/// itself into a hole.
/// An instance keeps its working memory and is not safe for use by several threads at once.
/// </remarks>
public sealed class StrokeOutliner
{
    private const float RefineFrom = 24f;
    private const float SameSpot = 2f;
    private const float CosOfSharpTurn = 0.5f;
    private const float SoftEndLength = 70f;

    /// <summary>Cosine and sine of the inner points of a half circle, in four equal turns.</summary>
    private static readonly (float Cos, float Sin)[] HalfCircle = [(0.7071068f, 0.7071068f), (0f, 1f), (-0.7071068f, 0.7071068f)];

    private float[] x = new float[256], y = new float[256], r = new float[256];
    private int count;

    /// <summary>Adds the outline of one visible interval of a stroke to <paramref name="outline"/>.</summary>
    /// <param name="samples">The stroke.</param>
    /// <param name="visible">The part to draw, within 0 to 256·(n−1).</param>
    /// <param name="pen">The pen it is drawn with.</param>
    /// <param name="dx">The item's shift to the right, in 0.01 mm.</param>
    /// <param name="dy">The item's shift downwards, in 0.01 mm.</param>
    /// <param name="outline">Receives the rings.</param>
    public void Append(StrokeSamples samples, Interval visible, Pen pen, int dx, int dy, Outline outline)
    {
        CentreLine(samples, visible, pen, dx, dy);
        if (pen.Kind == PenKind.Fountain) SoftenEnds(pen, visible, samples.Count);
        if (count == 1) Dot(outline);
        else Edge(outline);
    }

    /// <summary>The refined centre line of a whole stroke as x, y pairs; what the outline is the offset of.</summary>
    public float[] CentreLineOf(StrokeSamples samples, Pen pen)
    {
        CentreLine(samples, new Interval(0, (samples.Count - 1) * Interval.PerSample), pen, 0, 0);
        var line = new float[count * 2];
        for (var i = 0; i < count; i++) (line[2 * i], line[2 * i + 1]) = (x[i], y[i]);
        return line;
    }

    private void CentreLine(StrokeSamples samples, Interval visible, Pen pen, int dx, int dy)
    {
        count = 0;
        int first = visible.Start / Interval.PerSample, last = visible.End / Interval.PerSample;
        var sx = samples.X;
        var sy = samples.Y;
        var sp = samples.Pressure;
        var even = pen.Kind == PenKind.Ball;
        var radius = pen.Radius(sp[first]);
        if (visible.Start % Interval.PerSample == 0) Push(sx[first] + dx, sy[first] + dy, radius);
        else PushBetween(samples, visible.Start, pen, dx, dy);

        for (var i = first; i < last || (i == last && visible.End % Interval.PerSample != 0); i++)
        {
            var ends = i == last;
            int x1 = sx[i], y1 = sy[i], x2 = sx[i + 1], y2 = sy[i + 1];
            var i0 = i > 0 ? i - 1 : i;
            var i3 = i + 2 < sx.Length ? i + 2 : i + 1;
            float bendX = sx[i0] - x1 - x2 + sx[i3], bendY = sy[i0] - y1 - y2 + sy[i3];
            var bend = Math.Abs(bendX) + Math.Abs(bendY);
            var pieces = bend < RefineFrom ? 1 : Math.Min(8, 1 + (int)MathF.Sqrt(bend / RefineFrom));
            var nextRadius = even ? radius : (radius + pen.Radius(sp[i + 1])) * 0.5f;
            var from = i == first ? visible.Start % Interval.PerSample / (float)Interval.PerSample : 0f;
            var to = ends ? visible.End % Interval.PerSample / (float)Interval.PerSample : 1f;
            for (var k = 1; k < pieces; k++)
            {
                var t = k / (float)pieces;
                if (t <= from || t >= to) continue;
                Push(Spline(sx[i0], x1, x2, sx[i3], t) + dx, Spline(sy[i0], y1, y2, sy[i3], t) + dy, radius + (nextRadius - radius) * t);
            }

            if (ends) PushBetween(samples, visible.End, pen, dx, dy);
            else Push(x2 + dx, y2 + dy, nextRadius);
            radius = nextRadius;
        }
    }

    private void PushBetween(StrokeSamples samples, int parameter, Pen pen, int dx, int dy)
    {
        var i = parameter / Interval.PerSample;
        var t = parameter % Interval.PerSample / (float)Interval.PerSample;
        var i0 = i > 0 ? i - 1 : i;
        var i3 = i + 2 < samples.Count ? i + 2 : i + 1;
        Push(
            Spline(samples.X[i0], samples.X[i], samples.X[i + 1], samples.X[i3], t) + dx,
            Spline(samples.Y[i0], samples.Y[i], samples.Y[i + 1], samples.Y[i3], t) + dy,
            pen.Radius((int)(samples.Pressure[i] + (samples.Pressure[i + 1] - samples.Pressure[i]) * t)));
    }

    private static float Spline(float a, float b, float c, float d, float t) =>
        b + 0.5f * t * (c - a + t * (2f * a - 5f * b + 4f * c - d + t * (3f * (b - c) + d - a)));

    private void Push(float px, float py, float radius)
    {
        if (count > 0 && Math.Abs(px - x[count - 1]) < SameSpot && Math.Abs(py - y[count - 1]) < SameSpot)
        {
            if (radius > r[count - 1]) r[count - 1] = radius;
            return;
        }

        if (count == x.Length)
        {
            Array.Resize(ref x, count * 2);
            Array.Resize(ref y, count * 2);
            Array.Resize(ref r, count * 2);
        }

        x[count] = px;
        y[count] = py;
        r[count++] = radius;
    }

    /// <summary>Narrows the first and last 0.7 mm of a stroke's real ends, not the edges of what was rubbed out.</summary>
    private void SoftenEnds(Pen pen, Interval visible, int sampleCount)
    {
        if (visible.Start == 0) Soften(0, 1);
        if (visible.End == (sampleCount - 1) * Interval.PerSample) Soften(count - 1, -1);

        void Soften(int start, int step)
        {
            var way = 0f;
            var soft = Math.Min(SoftEndLength, pen.Width * 2f);
            for (var i = start; i >= 0 && i < count && way < soft; i += step)
            {
                r[i] *= 0.45f + 0.55f * (way / soft);
                var next = i + step;
                if (next < 0 || next >= count) break;
                way += MathF.Sqrt((x[next] - x[i]) * (x[next] - x[i]) + (y[next] - y[i]) * (y[next] - y[i]));
            }
        }
    }

    private void Dot(Outline outline)
    {
        var radius = Math.Max(r[0], 4f) * 1.0824f;
        for (var k = 0; k < 8; k++)
        {
            var (sin, cos) = MathF.SinCos(k * MathF.PI / 4f);
            outline.Add(x[0] + radius * cos, y[0] + radius * sin);
        }

        outline.Close();
    }

    private void Edge(Outline outline)
    {
        var start = 0;
        var (inX, inY) = Direction(0, 1);
        var foldsBefore = false;
        for (var i = 1; i < count; i++)
        {
            var end = i == count - 1;
            var (outX, outY) = end ? (inX, inY) : Direction(i, i + 1);
            var folds = !end && Folds(i, outX, outY);
            if (end || folds || foldsBefore || inX * outX + inY * outY < CosOfSharpTurn)
            {
                EdgeBetween(start, i, outline);
                start = i;
            }

            (inX, inY, foldsBefore) = (outX, outY, folds);
        }
    }

    /// <summary>Whether one side of the piece from point i to the next would run backwards, since the line bends closer than its own width.</summary>
    private bool Folds(int i, float dirX, float dirY)
    {
        var (ax, ay) = Direction(Math.Max(0, i - 1), i + 1);
        var (bx, by) = Direction(i, Math.Min(count - 1, i + 2));
        var along = (x[i + 1] - x[i]) * dirX + (y[i + 1] - y[i]) * dirY;
        var turn = (by * r[i + 1] - ay * r[i]) * dirX - (bx * r[i + 1] - ax * r[i]) * dirY;
        return along <= Math.Abs(turn);
    }

    /// <summary>One ring: the left side there, a round end, the right side back, a round end.</summary>
    private void EdgeBetween(int from, int to, Outline outline)
    {
        for (var i = from; i <= to; i++)
        {
            var (ux, uy) = Direction(i == from ? i : i - 1, i == to ? i : i + 1);
            outline.Add(x[i] + uy * r[i], y[i] - ux * r[i]);
        }

        Cap(to, Direction(to - 1, to), outline);
        for (var i = to; i >= from; i--)
        {
            var (ux, uy) = Direction(i == from ? i : i - 1, i == to ? i : i + 1);
            outline.Add(x[i] - uy * r[i], y[i] + ux * r[i]);
        }

        var (bx, by) = Direction(from, from + 1);
        Cap(from, (-bx, -by), outline);
        outline.Close();
    }

    /// <summary>A half circle round a point, from the left of a direction to its right.</summary>
    private void Cap(int i, (float X, float Y) direction, Outline outline)
    {
        var (ux, uy) = direction;
        float nx = uy * r[i], ny = -ux * r[i], fx = ux * r[i], fy = uy * r[i];
        foreach (var (cos, sin) in HalfCircle) outline.Add(x[i] + (nx * cos + fx * sin) * 1.08f, y[i] + (ny * cos + fy * sin) * 1.08f);
    }

    private (float X, float Y) Direction(int from, int to)
    {
        float ux = x[to] - x[from], uy = y[to] - y[from];
        var square = ux * ux + uy * uy;
        if (square < 1e-6f) return (1f, 0f);
        var scale = 1f / MathF.Sqrt(square);
        return (ux * scale, uy * scale);
    }
}
