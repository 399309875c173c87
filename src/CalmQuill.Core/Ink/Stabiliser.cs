namespace CalmQuill.Core.Ink;

/// <summary>Steadies a hand while it writes: the line follows the pen as if drawn by a damped spring, the stiffer the faster the hand goes.</summary>
/// <remarks>
/// A low-pass of second order without a hump (Butterworth 1930, damping 1/√2) whose cut-off grows with the hand's speed, as in the 1 € filter (Casiez, Roussel and
/// Vogel 2012): f = 1/(2πτ) + β·v. τ grows from 0 at strength 0, where the line is what the hand did, to 110 ms at strength 100. A slow line loses its tremor; the
/// waves of small, quick writing keep their height within a tenth. The line never lies farther behind the pen than a leash of 0.6 mm at strength 100. When the
/// pen is lifted it goes on to where that was.
/// </remarks>
public sealed class Stabiliser(int strength)
{
    private const double MostLag = 110;

    /// <summary>How much faster the line answers for each mm/s of the hand, Hz.</summary>
    private const double ForSpeed = 0.25;

    /// <summary>The hand's velocity is smoothed by this cut-off, Hz, so that a tremor does not count as speed.</summary>
    private const double VelocityCutOff = 4;

    /// <summary>How far behind the pen the line lies at most at strength 100, 0.01 mm.</summary>
    private const double MostLeash = 60;

    private const double Damping = 0.7;

    /// <summary>The spring is followed in steps of at most so many milliseconds.</summary>
    private const double Step = 2;

    /// <summary>After a pause this long, milliseconds, the line lies where the pen does.</summary>
    private const int Pause = 1_000;

    /// <summary>The rest of the way is gone in steps of this share at the end.</summary>
    private const int EndSteps = 6;

    private readonly double lag = Math.Clamp(strength, 0, 100) / 100.0 * MostLag,
        leash = Math.Clamp(strength, 0, 100) / 100.0 * MostLeash;
    private (double X, double Y) at,
        going,
        velocity;
    private int lastX,
        lastY,
        lastTime,
        count;

    /// <summary>Where the line is when the pen is at a place, both 0.01 mm, at a time in milliseconds.</summary>
    public (int X, int Y) Follow(int penX, int penY, int time)
    {
        // Pens that report several samples for one moment still move on by the least step.
        var passed = Math.Max(1, time - lastTime);
        if (count == 0 || lag <= 0 || passed > Pause)
            (at, going, velocity) = ((penX, penY), (0, 0), (0, 0));
        else
            Move(penX, penY, passed);
        (lastX, lastY, lastTime) = (penX, penY, time);
        count++;
        return ((int)Math.Round(at.X), (int)Math.Round(at.Y));
    }

    /// <summary>The way from the line's end to the lifted pen; empty where it is there already.</summary>
    public IEnumerable<(int X, int Y)> Arrive()
    {
        var (fromX, fromY) = at;
        if (count == 0 || (Math.Abs(lastX - fromX) < 1 && Math.Abs(lastY - fromY) < 1))
            yield break;
        for (var i = 1; i <= EndSteps; i++)
            yield return ((int)Math.Round(fromX + (lastX - fromX) * i / EndSteps), (int)Math.Round(fromY + (lastY - fromY) * i / EndSteps));
    }

    private void Move(int penX, int penY, int passed)
    {
        // 0.01 mm in a millisecond are 10 mm/s.
        var (vx, vy) = ((penX - lastX) * 10.0 / passed, (penY - lastY) * 10.0 / passed);
        var share = count == 1 ? 1 : 1 - Math.Exp(-2 * Math.PI * VelocityCutOff * passed / 1000);
        velocity = (velocity.X + (vx - velocity.X) * share, velocity.Y + (vy - velocity.Y) * share);
        // Radians in a millisecond.
        var stiffness = 1 / lag + 2 * Math.PI * ForSpeed * Math.Sqrt(velocity.X * velocity.X + velocity.Y * velocity.Y) / 1000;
        var steps = (int)Math.Ceiling(passed / Math.Min(Step, 0.5 / stiffness));
        var h = passed / (double)steps;
        for (var i = 1; i <= steps; i++)
        {
            var (px, py) = (lastX + (penX - lastX) * i / (double)steps, lastY + (penY - lastY) * i / (double)steps);
            going.X += h * (stiffness * stiffness * (px - at.X) - 2 * Damping * stiffness * going.X);
            going.Y += h * (stiffness * stiffness * (py - at.Y) - 2 * Damping * stiffness * going.Y);
            at = (at.X + h * going.X, at.Y + h * going.Y);
        }

        var (dx, dy) = (at.X - penX, at.Y - penY);
        var behind = Math.Sqrt(dx * dx + dy * dy);
        if (behind > leash)
            at = (penX + dx * leash / behind, penY + dy * leash / behind);
    }
}
