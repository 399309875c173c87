namespace CalmQuill.Core.Ink;

/// <summary>The edge of inked paper: closed rings of control points in 0.01 mm, to be filled by the non-zero rule.</summary>
/// <remarks>
/// A ring's curve runs through the midpoints between neighbouring control points, with the control points as the controls of quadratic
/// Bézier pieces. Screen, thumbnail and PDF all draw it so.
/// </remarks>
public sealed class Outline
{
    private float[] points = new float[128];
    private readonly List<int> ends = [];
    private int length;

    /// <summary>How many control points there are in all rings.</summary>
    public int PointCount => length / 2;

    public int RingCount => ends.Count;

    /// <summary>The control points of one ring as x, y, x, y…</summary>
    public ReadOnlySpan<float> Ring(int index)
    {
        var start = index == 0 ? 0 : ends[index - 1];
        return points.AsSpan(start * 2, (ends[index] - start) * 2);
    }

    /// <summary>The next control point of the ring being made.</summary>
    public void Add(float x, float y)
    {
        if (length + 2 > points.Length)
            Array.Resize(ref points, points.Length * 2);
        points[length] = x;
        points[length + 1] = y;
        length += 2;
    }

    /// <summary>Room for so many more control points, to be filled in: x, y, x, y…</summary>
    internal Span<float> Add(int count)
    {
        var start = length;
        length += count * 2;
        if (length > points.Length)
            Array.Resize(ref points, Math.Max(length, points.Length * 2));
        return points.AsSpan(start, count * 2);
    }

    /// <summary>Ends the ring being made.</summary>
    public void Close() => ends.Add(PointCount);

    /// <summary>Maps all points from one on: x' = a·x + c·y + e, y' = b·x + d·y + f.</summary>
    internal void Map(int from, float a, float b, float c, float d, float e, float f)
    {
        for (var i = from; i < PointCount; i++)
        {
            float x = points[2 * i],
                y = points[2 * i + 1];
            (points[2 * i], points[2 * i + 1]) = (a * x + c * y + e, b * x + d * y + f);
        }
    }

    public void Clear()
    {
        length = 0;
        ends.Clear();
    }
}
