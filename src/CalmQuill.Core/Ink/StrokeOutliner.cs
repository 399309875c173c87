namespace CalmQuill.Core.Ink;

/// <summary>Turns samples into the outline that is filled on screen, in thumbnails and in print.</summary>
/// <remarks>
/// The centre line runs through every sample along its curve (<see cref="SplineSpan"/>), in pieces that depart from it by less than 0.03 mm. The edge is the centre line's offset on both sides. Where the line turns by more than 60°,
/// or bends closer than its own width, the ring is closed with a round end and a new one begins at the same point, so that no ring folds over
/// itself into a hole. A flat nib is an ellipse: sweeping it is sweeping a round nib in a plane in which the ellipse is a circle, so the centre
/// line is taken there, given its edge, and the edge is taken back. What a pencil leaves bare within its outline is <see cref="PencilGrain"/>'s.
/// An instance keeps its working memory and is not safe for use by several threads at once.
/// </remarks>
public sealed class StrokeOutliner
{
    private const float SameSpot = 2f;
    private const float CosOfSharpTurn = 0.5f;
    private const float SoftEndLength = 70f;

    /// <summary>A brush tapers over so many widths, at most over 4 mm.</summary>
    private const float TaperWidths = 2f,
        MostTaper = 400f;

    /// <summary>A narrowing end is drawn in so many pieces where its samples lie farther apart than it is long, and its span in at most so many.</summary>
    private const float EndPieces = 3f,
        MostEndPieces = 24f;

    /// <summary>Cosine and sine of the inner points of a half circle, in four equal turns.</summary>
    private static readonly (float Cos, float Sin)[] HalfCircle = [(0.7071068f, 0.7071068f), (0f, 1f), (-0.7071068f, 0.7071068f)];

    /// <summary>The centre line: points, half widths, and at each point the line's own direction.</summary>
    private float[] x = new float[256],
        y = new float[256],
        r = new float[256],
        tangentX = new float[256],
        tangentY = new float[256];

    /// <summary>The straight pieces from each point to the next: direction and length.</summary>
    private float[] pieceX = new float[256],
        pieceY = new float[256],
        length = new float[256];
    private int count;

    /// <summary>Whether strokes are still being written, so that their last sample is no end that tapers.</summary>
    public bool OpenEnd { get; init; }

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
        switch (pen.Kind)
        {
            case PenKind.Fountain:
                SoftenEnds(visible, samples.Count, SoftEnd(pen), 0.45f);
                break;
            case PenKind.Brush:
                SoftenEnds(visible, samples.Count, SoftEnd(pen), 0.1f);
                break;
            case PenKind.Calligraphy:
                FlatNib(pen, outline);
                return;
        }

        EdgeOrDot(pen is { Kind: PenKind.Highlighter, Tip: NibTip.Square }, outline);
    }

    /// <summary>Adds the outline of all of a stroke that a pen draws of its visible parts.</summary>
    public void Append(StrokeSamples samples, List<Interval> visible, Pen pen, int dx, int dy, Outline outline)
    {
        foreach (var interval in Dashes.Of(samples, visible, pen))
            Append(samples, interval, pen, dx, dy, outline);
    }

    /// <summary>The refined centre line of a whole stroke as x, y pairs; what the outline is the offset of.</summary>
    public float[] CentreLineOf(StrokeSamples samples, Pen pen)
    {
        CentreLine(samples, new Interval(0, (samples.Count - 1) * Interval.PerSample), pen, 0, 0);
        var line = new float[count * 2];
        for (var i = 0; i < count; i++)
            (line[2 * i], line[2 * i + 1]) = (x[i], y[i]);
        return line;
    }

    private void CentreLine(StrokeSamples samples, Interval visible, Pen pen, int dx, int dy)
    {
        count = 0;
        int first = visible.Start / Interval.PerSample,
            last = visible.End / Interval.PerSample;
        var sx = samples.X;
        var sy = samples.Y;
        var sp = samples.Pressure;
        var even = pen.Kind is PenKind.Ball or PenKind.Highlighter or PenKind.Calligraphy;
        var plain = pen.Kind == PenKind.Fountain;
        var soft = SoftEnd(pen);
        var radius = Nib.Radius(samples, first, pen);
        if (visible.Start % Interval.PerSample == 0)
            Push(sx[first] + dx, sy[first] + dy, radius);
        else
            PushBetween(samples, visible.Start, pen, dx, dy);

        for (var i = first; i < last || (i == last && visible.End % Interval.PerSample != 0); i++)
        {
            var ends = i == last;
            var nextRadius = even ? radius : (radius + (plain ? pen.Radius(sp[i + 1]) : Nib.Radius(samples, i + 1, pen))) * 0.5f;
            if (
                !SplineSpan.IsPlainlyStraight(sx, sy, i)
                && SplineSpan.Of(samples, i) is var span
                && PiecesOf(span, i) is > 1 and var pieces
            )
            {
                var from = i == first ? visible.Start % Interval.PerSample / (float)Interval.PerSample : 0f;
                var to = ends ? visible.End % Interval.PerSample / (float)Interval.PerSample : 1f;
                for (var k = 1; k < pieces; k++)
                {
                    var t = k / (float)pieces;
                    if (t <= from || t >= to)
                        continue;
                    var (px, py) = span.At(t);
                    Push(px + dx, py + dy, radius + (nextRadius - radius) * t);
                }
            }

            if (ends)
                PushBetween(samples, visible.End, pen, dx, dy);
            else
                Push(sx[i + 1] + dx, sy[i + 1] + dy, nextRadius);
            radius = nextRadius;
        }

        // An end that tapers does so over its length, not over all of a far first sample's way.
        int PiecesOf(in SplineSpan span, int i) =>
            soft > 0 && (i == 0 || i + 2 == sx.Length)
                ? Math.Max(span.Pieces, (int)Math.Min(MostEndPieces, EndPieces * span.Chord / soft))
                : span.Pieces;
    }

    /// <summary>Over what length a pen's line narrows at its ends, 0.01 mm; 0 for pens whose line does not.</summary>
    private static float SoftEnd(Pen pen) =>
        pen.Kind switch
        {
            PenKind.Fountain => Math.Min(SoftEndLength, pen.Width * 2f),
            PenKind.Brush => Math.Min(MostTaper, pen.Width * TaperWidths),
            _ => 0,
        };

    private void PushBetween(StrokeSamples samples, int parameter, Pen pen, int dx, int dy)
    {
        var i = parameter / Interval.PerSample;
        var t = parameter % Interval.PerSample / (float)Interval.PerSample;
        var (px, py) = SplineSpan.Of(samples, i).At(t);
        Push(
            px + dx,
            py + dy,
            pen.Kind is PenKind.Brush or PenKind.Pencil
                ? Nib.Radius(samples, i, pen) * (1 - t) + Nib.Radius(samples, i + 1, pen) * t
                : pen.Radius((int)(samples.Pressure[i] + (samples.Pressure[i + 1] - samples.Pressure[i]) * t))
        );
    }

    private void Push(float px, float py, float radius)
    {
        var at = count;
        if (at > 0 && Math.Abs(px - x[at - 1]) < SameSpot && Math.Abs(py - y[at - 1]) < SameSpot)
        {
            if (radius > r[at - 1])
                r[at - 1] = radius;
            return;
        }

        if (at == x.Length)
        {
            Array.Resize(ref x, count * 2);
            Array.Resize(ref y, count * 2);
            Array.Resize(ref r, count * 2);
            Array.Resize(ref tangentX, count * 2);
            Array.Resize(ref tangentY, count * 2);
            Array.Resize(ref pieceX, count * 2);
            Array.Resize(ref pieceY, count * 2);
            Array.Resize(ref length, count * 2);
        }

        (x[at], y[at], r[at]) = (px, py, radius);
        count = at + 1;
    }

    /// <summary>Narrows a stroke's real ends, not the edges of what was rubbed out, down to a share of the line's width at the very end.</summary>
    private void SoftenEnds(Interval visible, int sampleCount, float soft, float least)
    {
        if (visible.Start == 0)
            Soften(0, 1);
        if (!OpenEnd && visible.End == (sampleCount - 1) * Interval.PerSample)
            Soften(count - 1, -1);

        void Soften(int start, int step)
        {
            var way = 0f;
            for (var i = start; i >= 0 && i < count && way < soft; i += step)
            {
                r[i] *= least + (1 - least) * (way / soft);
                var next = i + step;
                if (next < 0 || next >= count)
                    break;
                way += MathF.Sqrt((x[next] - x[i]) * (x[next] - x[i]) + (y[next] - y[i]) * (y[next] - y[i]));
            }
        }
    }

    private void EdgeOrDot(bool square, Outline outline)
    {
        if (count == 1)
            Dot(square, outline);
        else
            Edge(square, outline);
    }

    /// <summary>The edge of a flat nib, by way of the plane in which it is round.</summary>
    private void FlatNib(Pen pen, Outline outline)
    {
        var (sin, cos) = MathF.SinCos(pen.Angle * MathF.PI / 180f);
        float originX = x[0],
            originY = y[0];
        for (var i = 0; i < count; i++)
        {
            float px = x[i] - originX,
                py = y[i] - originY;
            (x[i], y[i]) = (px * cos + py * sin, (py * cos - px * sin) / Nib.Flatness);
        }

        var before = outline.PointCount;
        EdgeOrDot(false, outline);
        outline.Map(before, cos, sin, -sin * Nib.Flatness, cos * Nib.Flatness, originX, originY);
    }

    private void Dot(bool square, Outline outline)
    {
        if (square)
        {
            foreach (var (sx, sy) in stackalloc (float, float)[] { (-1, -1), (1, -1), (1, 1), (-1, 1) })
                Corner(x[0] + sx * r[0], y[0] + sy * r[0], outline);
            outline.Close();
            return;
        }

        var radius = Math.Max(r[0], 4f) * 1.0824f;
        for (var k = 0; k < 8; k++)
        {
            var (sin, cos) = MathF.SinCos(k * MathF.PI / 4f);
            outline.Add(x[0] + radius * cos, y[0] + radius * sin);
        }

        outline.Close();
    }

    private void Edge(bool square, Outline outline)
    {
        FindDirections();
        var (pieceX, pieceY) = (this.pieceX, this.pieceY);
        var start = 0;
        var foldsBefore = count > 2 && Folds(0);
        for (var i = 1; i < count; i++)
        {
            var end = i == count - 1;
            var folds = !end && Folds(i);
            if (end || folds || foldsBefore || pieceX[i - 1] * pieceX[i] + pieceY[i - 1] * pieceY[i] < CosOfSharpTurn)
            {
                EdgeBetween(start, i, square && start == 0, square && end, outline);
                start = i;
            }

            foldsBefore = folds;
        }
    }

    private void FindDirections()
    {
        // Locals, since WebAssembly's interpreter looks fields up anew each time.
        var (x, y, length, pieceX, pieceY, tangentX, tangentY) = (
            this.x,
            this.y,
            this.length,
            this.pieceX,
            this.pieceY,
            this.tangentX,
            this.tangentY
        );
        var last = count - 1;
        for (var i = 0; i < last; i++)
        {
            float dx = x[i + 1] - x[i],
                dy = y[i + 1] - y[i],
                way = MathF.Sqrt(dx * dx + dy * dy);
            length[i] = way;
            pieceX[i] = dx / way;
            pieceY[i] = dy / way;
        }

        (tangentX[0], tangentY[0], tangentX[last], tangentY[last]) = (pieceX[0], pieceY[0], pieceX[last - 1], pieceY[last - 1]);
        for (var i = 1; i < last; i++)
        {
            float sumX = pieceX[i - 1] + pieceX[i],
                sumY = pieceY[i - 1] + pieceY[i];
            var square = sumX * sumX + sumY * sumY;
            var scale = square < 1e-6f ? 0f : 1f / MathF.Sqrt(square);
            tangentX[i] = sumX * scale;
            tangentY[i] = sumY * scale;
        }
    }

    /// <summary>Whether one side of the piece from point i to the next would run backwards, since the line bends closer than its own width.</summary>
    private bool Folds(int i)
    {
        var turn =
            (tangentY[i + 1] * r[i + 1] - tangentY[i] * r[i]) * pieceX[i] - (tangentX[i + 1] * r[i + 1] - tangentX[i] * r[i]) * pieceY[i];
        return length[i] <= Math.Abs(turn);
    }

    /// <summary>One ring: the left side there, an end, the right side back, an end. Ends are round or square.</summary>
    private void EdgeBetween(int from, int to, bool squareFrom, bool squareTo, Outline outline)
    {
        var (x, y, r, tangentX, tangentY) = (this.x, this.y, this.r, this.tangentX, this.tangentY);
        float px = pieceX[from],
            py = pieceY[from],
            qx = pieceX[to - 1],
            qy = pieceY[to - 1];
        outline.Add(x[from] + py * r[from], y[from] - px * r[from]);
        var side = outline.Add(to - from - 1);
        for (int i = from + 1, at = 0; i < to; i++, at += 2)
        {
            side[at] = x[i] + tangentY[i] * r[i];
            side[at + 1] = y[i] - tangentX[i] * r[i];
        }

        outline.Add(x[to] + qy * r[to], y[to] - qx * r[to]);
        Cap(to, qx, qy, squareTo, outline);
        outline.Add(x[to] - qy * r[to], y[to] + qx * r[to]);
        side = outline.Add(to - from - 1);
        for (int i = to - 1, at = 0; i > from; i--, at += 2)
        {
            side[at] = x[i] - tangentY[i] * r[i];
            side[at + 1] = y[i] + tangentX[i] * r[i];
        }

        outline.Add(x[from] - py * r[from], y[from] + px * r[from]);
        Cap(from, -pieceX[from], -pieceY[from], squareFrom, outline);
        outline.Close();
    }

    /// <summary>A half circle, or half a square, round a point, from the left of a direction to its right.</summary>
    private void Cap(int i, float directionX, float directionY, bool square, Outline outline)
    {
        float nx = directionY * r[i],
            ny = -directionX * r[i],
            fx = directionX * r[i],
            fy = directionY * r[i];
        if (square)
        {
            Corner(x[i] + nx + fx, y[i] + ny + fy, outline);
            Corner(x[i] - nx + fx, y[i] - ny + fy, outline);
            return;
        }

        foreach (var (cos, sin) in HalfCircle)
            outline.Add(x[i] + (nx * cos + fx * sin) * 1.08f, y[i] + (ny * cos + fy * sin) * 1.08f);
    }

    /// <summary>Two control points at one place make a corner.</summary>
    private static void Corner(float cx, float cy, Outline outline)
    {
        outline.Add(cx, cy);
        outline.Add(cx, cy);
    }
}
