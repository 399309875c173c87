using CalmQuill.Core.Operations;

namespace CalmQuill.Core.Ink;

/// <summary>Where all shifts and transforms of a thing put it. They are done in the order of their stamps; shifts alone simply add up.</summary>
public sealed class Placement
{
    /// <summary>Transforms are stored in whole numbers, so even scaling is not quite even.</summary>
    private const double SimilarWithin = 1e-3;

    private readonly SortedList<Stamp, Transform> steps = new(Comparer<Stamp>.Create((one, other) => one.CompareTo(other)));
    private Affine sum = Affine.Identity;

    /// <summary>Whether it was only moved, or not even that.</summary>
    public bool IsShift { get; private set; } = true;

    public long Dx => (long)Math.Round(sum.E);

    public long Dy => (long)Math.Round(sum.F);

    /// <summary>Whether angles and proportions are as they were: it was at most moved, turned, mirrored and evenly scaled.</summary>
    public bool IsSimilar
    {
        get
        {
            var (one, other) = (sum.A * sum.A + sum.B * sum.B, sum.C * sum.C + sum.D * sum.D);
            return Math.Abs(one - other) + Math.Abs(sum.A * sum.C + sum.B * sum.D) < SimilarWithin * (one + other);
        }
    }

    /// <summary>By how much lengths have grown: the square root of the area's growth.</summary>
    public double Growth => sum.Growth;

    /// <summary>All steps as one.</summary>
    public Affine Affine => sum;

    /// <summary>The steps after a moment, in their order.</summary>
    public IEnumerable<(Stamp Stamp, Transform Step)> Since(Stamp moment) =>
        steps.Where(step => step.Key > moment).Select(step => (step.Key, step.Value));

    /// <summary>All steps as one, in whole numbers; only those before a moment, where one is given.</summary>
    public Transform Whole(Stamp? before = null)
    {
        var whole = Transform.Identity;
        foreach (var (stamp, step) in steps)
        {
            if (before is { } moment && !(stamp < moment))
                break;
            whole = step.After(whole);
        }

        return whole;
    }

    public void Add(Stamp stamp, Transform step, bool adds)
    {
        if (adds)
            steps[stamp] = step;
        else
            steps.Remove(stamp);
        // Steps mostly come in order, and most are shifts.
        if (IsShift && step.IsShift)
            sum = sum with { E = sum.E + (adds ? step.E : -step.E), F = sum.F + (adds ? step.F : -step.F) };
        else
            WorkOut();
    }

    public (double X, double Y) Of(double x, double y) => sum.Of(x, y);

    /// <summary>The place that was put there.</summary>
    public (double X, double Y) Back(double x, double y) => sum.Back(x, y);

    /// <summary>How a direction, degrees, lies after all turns, 0 to 179.</summary>
    public int Turned(int angle)
    {
        var (sin, cos) = Math.SinCos(angle * Math.PI / 180);
        var turned = (int)Math.Round(Math.Atan2(sum.B * cos + sum.D * sin, sum.A * cos + sum.C * sin) * 180 / Math.PI);
        return ((turned % 180) + 180) % 180;
    }

    /// <summary>The upright box around a placed box.</summary>
    public Box Of(Box box)
    {
        if (IsShift)
            return box.Shift((int)Dx, (int)Dy);
        var corners = new[] { Of(box.Left, box.Top), Of(box.Right, box.Top), Of(box.Left, box.Bottom), Of(box.Right, box.Bottom) };
        return new Box(
            (int)Math.Floor(corners.Min(corner => corner.X)),
            (int)Math.Floor(corners.Min(corner => corner.Y)),
            (int)Math.Ceiling(corners.Max(corner => corner.X)),
            (int)Math.Ceiling(corners.Max(corner => corner.Y))
        );
    }

    /// <summary>Placed samples, rounded to 0.01 mm; pressure, time and tilt stay as they are.</summary>
    public StrokeSamples Of(StrokeSamples samples)
    {
        int[] x = new int[samples.Count],
            y = new int[samples.Count];
        for (var i = 0; i < x.Length; i++)
        {
            var (px, py) = Of(samples.X[i], samples.Y[i]);
            (x[i], y[i]) = (Round(px), Round(py));
        }

        return new StrokeSamples(x, y, samples.Pressure, samples.Time, samples.TiltX, samples.TiltY);
    }

    private static int Round(double value) => (int)Math.Round(Math.Clamp(value, -int.MaxValue / 4.0, int.MaxValue / 4.0));

    private void WorkOut()
    {
        sum = Affine.Identity;
        IsShift = true;
        foreach (var step in steps.Values)
        {
            IsShift &= step.IsShift;
            sum = Affine.Of(step).After(sum);
        }
    }
}
