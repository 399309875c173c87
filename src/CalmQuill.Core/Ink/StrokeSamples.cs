namespace CalmQuill.Core.Ink;

/// <summary>The samples of one stroke, one array a channel, all of the same length.</summary>
/// <remarks>
/// X and Y are in 0.01 mm from the sheet's upper left corner; Pressure is 0–1023; Time is milliseconds from the stroke's start.
/// TiltX and TiltY, degrees −90 to 90, are either both there or both absent. The arrays are not to be written to.
/// </remarks>
public sealed class StrokeSamples
{
    /// <summary>The most samples a stroke may have: seven minutes at 120 a second.</summary>
    public const int MostSamples = 50_000;

    /// <summary>The farthest a sample may lie from the sheet's corner in either direction: 20 m, in 0.01 mm.</summary>
    public const int MostCoordinate = 2_000_000;

    public const int MostPressure = 1023;

    /// <exception cref="ArgumentException">The channels differ in length, or there is no sample.</exception>
    public StrokeSamples(int[] x, int[] y, int[] pressure, int[] time, int[]? tiltX = null, int[]? tiltY = null)
    {
        if (x.Length == 0)
            throw new ArgumentException("A stroke needs at least one sample.", nameof(x));
        if (
            y.Length != x.Length
            || pressure.Length != x.Length
            || time.Length != x.Length
            || (tiltX is null) != (tiltY is null)
            || (tiltX?.Length ?? x.Length) != x.Length
            || (tiltY?.Length ?? x.Length) != x.Length
        )
            throw new ArgumentException("The channels of a stroke must be of the same length.", nameof(y));
        (X, Y, Pressure, Time, TiltX, TiltY) = (x, y, pressure, time, tiltX, tiltY);
    }

    public int Count => X.Length;

    public int[] X { get; }

    public int[] Y { get; }

    public int[] Pressure { get; }

    public int[] Time { get; }

    public int[]? TiltX { get; }

    public int[]? TiltY { get; }

    /// <summary>The bounding box of the sample points, in 0.01 mm, without the line's width.</summary>
    public Box Bounds()
    {
        int left = X[0],
            top = Y[0],
            right = left,
            bottom = top;
        for (var i = 1; i < X.Length; i++)
        {
            int x = X[i],
                y = Y[i];
            if (x < left)
                left = x;
            else if (x > right)
                right = x;
            if (y < top)
                top = y;
            else if (y > bottom)
                bottom = y;
        }

        return new Box(left, top, right, bottom);
    }

    /// <summary>The same stroke farther to the right and below, 0.01 mm.</summary>
    public StrokeSamples Moved(int dx, int dy) =>
        dx == 0 && dy == 0 ? this : new StrokeSamples([.. X.Select(x => x + dx)], [.. Y.Select(y => y + dy)], Pressure, Time, TiltX, TiltY);
}
