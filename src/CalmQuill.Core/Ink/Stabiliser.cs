namespace CalmQuill.Core.Ink;

/// <summary>Steadies a hand while it writes: the line follows the pen as if drawn by a short string.</summary>
/// <remarks>
/// Exponential smoothing in time: of the way to the pen, 1 − e^(−Δt/τ) is gone in Δt. τ grows from 0 at strength 0, where the line is what the
/// hand did, to 110 ms at strength 100. When the pen is lifted the line goes on to where it was.
/// </remarks>
public sealed class Stabiliser(int strength)
{
    private const double MostLag = 110;

    /// <summary>The rest of the way is gone in steps of this share at the end.</summary>
    private const int EndSteps = 6;

    private readonly double lag = Math.Clamp(strength, 0, 100) / 100.0 * MostLag;
    private double x,
        y;
    private int lastX,
        lastY,
        lastTime;
    private bool begun;

    /// <summary>Where the line is when the pen is at a place, both 0.01 mm, at a time in milliseconds.</summary>
    public (int X, int Y) Follow(int penX, int penY, int time)
    {
        if (!begun || lag <= 0)
            (x, y) = (penX, penY);
        else
        {
            // Pens that report several samples for one moment still move on by the least step.
            var passed = Math.Max(1, time - lastTime);
            var share = 1 - Math.Exp(-passed / lag);
            x += (penX - x) * share;
            y += (penY - y) * share;
        }

        (begun, lastX, lastY, lastTime) = (true, penX, penY, time);
        return ((int)Math.Round(x), (int)Math.Round(y));
    }

    /// <summary>The way from the line's end to the lifted pen; empty where it is there already.</summary>
    public IEnumerable<(int X, int Y)> Arrive()
    {
        if (!begun || (Math.Abs(lastX - x) < 1 && Math.Abs(lastY - y) < 1))
            yield break;
        var (fromX, fromY) = (x, y);
        for (var i = 1; i <= EndSteps; i++)
            yield return ((int)Math.Round(fromX + (lastX - fromX) * i / EndSteps), (int)Math.Round(fromY + (lastY - fromY) * i / EndSteps));
    }
}
