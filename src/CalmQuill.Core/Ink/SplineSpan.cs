namespace CalmQuill.Core.Ink;

/// <summary>The curve of a stroke from one sample to the next: what is drawn, rubbed out, chosen and measured between them.</summary>
/// <remarks>
/// A centripetal Catmull–Rom spline (Catmull and Rom 1974; Yuksel, Schaefer and Keyser 2011), which neither loops nor leaves the chord by more than 0.6 of its
/// length. A corner that was meant stays one: there, and at a stroke's ends, the curve goes on as the parabola through the samples at its other side (Bessel's
/// end condition, de Boor 1978). Where the curve lies within 0.03 mm of its chord it is the chord.
/// </remarks>
public readonly struct SplineSpan
{
    /// <summary>How far the chord may be from the curve, sixteen times, 0.01 mm: 0.015 mm, and as much again where the edge is rounded.</summary>
    private const float SixteenSags = 24f;

    /// <summary>The most pieces of one span: a circle that fills a sheet, drawn in nine samples, needs as many.</summary>
    private const int MostPieces = 64;

    /// <summary>A turn of the chords at a sample below this, degrees, is never a corner. Below 40° a rounded corner is within 0.15 mm up to chords of 3 mm.</summary>
    private const float LeastCorner = 40f;

    /// <summary>A turn above this, degrees, is always a corner: at less than three and a half samples a round there is no telling how it went.</summary>
    private const float AlwaysCorner = 105f;

    /// <summary>Between the two, a corner turns at least so many times as far as the samples beside it. The tip of an ellipse four times as long as broad, drawn three times a second, turns 2.1 times as far at 60 samples a second.</summary>
    private const float CornerStandsOut = 2.6f;

    private static readonly float CosLeastCorner = MathF.Cos(LeastCorner * MathF.PI / 180f);

    private readonly float fromX,
        fromY,
        toX,
        toY,
        startX,
        startY,
        endX,
        endY;

    private SplineSpan(int[] x, int[] y, int i)
    {
        (fromX, fromY, toX, toY) = (x[i], y[i], x[i + 1], y[i + 1]);
        float chordX = toX - fromX,
            chordY = toY - fromY;
        (startX, startY, endX, endY) = (chordX, chordY, chordX, chordY);
        Pieces = 1;
        bool startFree = IsFree(x, y, i),
            endFree = IsFree(x, y, i + 1);
        if ((chordX == 0 && chordY == 0) || (startFree && endFree))
            return;
        var chord = MathF.Sqrt(chordX * chordX + chordY * chordY);
        if (!startFree)
            (startX, startY) = Tangent(fromX - x[i - 1], fromY - y[i - 1], chordX, chordY, chord);
        if (!endFree)
            (endX, endY) = Tangent(x[i + 2] - toX, y[i + 2] - toY, chordX, chordY, chord);
        if (startFree)
            (startX, startY) = (2 * chordX - endX, 2 * chordY - endY);
        if (endFree)
            (endX, endY) = (2 * chordX - startX, 2 * chordY - startY);
        var aside = (Math.Abs(startX * chordY - startY * chordX) + Math.Abs(endX * chordY - endY * chordX)) / chord;
        if (aside * 2 < SixteenSags)
            (startX, startY, endX, endY) = (chordX, chordY, chordX, chordY);
        else
            Pieces = Math.Min(MostPieces, 1 + (int)MathF.Sqrt(aside * 2 / SixteenSags));
    }

    /// <summary>The straight way from the first sample to the second, 0.01 mm.</summary>
    public float Chord => MathF.Sqrt((toX - fromX) * (toX - fromX) + (toY - fromY) * (toY - fromY));

    /// <summary>Into how many straight pieces, even in the parameter, the curve is cut so that each is within 0.015 mm of it.</summary>
    public int Pieces { get; }

    /// <summary>The curve from sample <paramref name="i"/> to the next.</summary>
    public static SplineSpan Of(StrokeSamples samples, int i) => new(samples.X, samples.Y, i);

    /// <summary>Whether the curve from a sample to the next is its chord, told cheaply; false where that takes a closer look.</summary>
    public static bool IsPlainlyStraight(int[] x, int[] y, int i) =>
        i > 0
        && i + 2 < x.Length
        && Math.Abs(x[i - 1] - x[i] - x[i + 1] + x[i + 2]) + Math.Abs(y[i - 1] - y[i] - y[i + 1] + y[i + 2]) < SixteenSags;

    /// <summary>The curve's place, 0.01 mm, at a parameter from 0, its first sample, to 1, its second.</summary>
    public (float X, float Y) At(float t)
    {
        var s = 1 - t;
        float from = s * s * (1 + 2 * t),
            start = s * s * t,
            to = t * t * (3 - 2 * t),
            end = -t * t * s;
        return (from * fromX + start * startX + to * toX + end * endX, from * fromY + start * startY + to * toY + end * endY);
    }

    /// <summary>The tangent at a sample between two chords, for the span whose chord is the second; the same of the reversed way gives the other end's.</summary>
    private static (float X, float Y) Tangent(float besideX, float besideY, float chordX, float chordY, float chord)
    {
        // Knots lie apart by the root of the distance.
        float own = MathF.Sqrt(chord),
            beside = MathF.Sqrt(MathF.Sqrt(besideX * besideX + besideY * besideY)),
            share = own / (own + beside),
            ofBeside = share * own / beside,
            ofChord = share * beside / own;
        return (besideX * ofBeside + chordX * ofChord, besideY * ofBeside + chordY * ofChord);
    }

    /// <summary>Whether the curve's two sides know nothing of each other at a sample: at a stroke's ends, where the pen stood still, and at corners.</summary>
    private static bool IsFree(int[] x, int[] y, int i)
    {
        if (i == 0 || i == x.Length - 1)
            return true;
        float ax = x[i] - x[i - 1],
            ay = y[i] - y[i - 1],
            bx = x[i + 1] - x[i],
            by = y[i + 1] - y[i];
        float dot = ax * bx + ay * by,
            lengths = (ax * ax + ay * ay) * (bx * bx + by * by);
        if (lengths == 0)
            return true;
        if (dot > 0 && dot * dot >= CosLeastCorner * CosLeastCorner * lengths)
            return false;
        var turn = Turn(x, y, i);
        return turn >= AlwaysCorner || turn >= CornerStandsOut * Math.Max(Turn(x, y, i - 1), Turn(x, y, i + 1));
    }

    /// <summary>By how much the chords turn at a sample, degrees, 0 to 180; 0 at a stroke's ends.</summary>
    private static float Turn(int[] x, int[] y, int i)
    {
        if (i <= 0 || i >= x.Length - 1)
            return 0;
        float ax = x[i] - x[i - 1],
            ay = y[i] - y[i - 1],
            bx = x[i + 1] - x[i],
            by = y[i + 1] - y[i];
        return MathF.Abs(MathF.Atan2(ax * by - ay * bx, ax * bx + ay * by)) * 180f / MathF.PI;
    }
}
