using CalmQuill.Core.Ink;

namespace CalmQuill.Core.Shapes;

/// <summary>How hard a hand pressed along a line: a few pressures at even distances, from its start to its end.</summary>
public static class PressureAlong
{
    /// <summary>The most pressures along one line.</summary>
    public const int Most = 33;

    /// <summary>One pressure for so much of a line, 0.01 mm.</summary>
    private const double Step = 150;

    /// <summary>A hand that varies by no more than this is even.</summary>
    private const int Even = 24;

    /// <summary>The pressures along a stroke, 0–1023; none where they are even.</summary>
    public static int[] Of(StrokeSamples stroke)
    {
        if (stroke.Count < 2 || stroke.Pressure.Max() - stroke.Pressure.Min() <= Even)
            return [];
        var (at, length) = Lengths(stroke.X, stroke.Y);
        if (length < 1)
            return [];
        var along = new int[Math.Clamp((int)(length / Step) + 1, 2, Most)];
        for (int i = 0, k = 0; i < along.Length; i++)
        {
            var wanted = length * i / (along.Length - 1);
            while (k + 2 < at.Length && at[k + 1] < wanted)
                k++;
            along[i] = Between(stroke.Pressure[k], stroke.Pressure[k + 1], at[k], at[k + 1], wanted);
        }

        return along;
    }

    /// <summary>The pressure at each of a line's samples.</summary>
    /// <param name="along">Pressures at even distances; at least one.</param>
    /// <param name="x">The samples, 0.01 mm.</param>
    /// <param name="y">The samples, 0.01 mm.</param>
    public static int[] At(IReadOnlyList<int> along, IReadOnlyList<int> x, IReadOnlyList<int> y)
    {
        var (at, length) = Lengths(x, y);
        var pressures = new int[at.Length];
        for (var i = 0; i < at.Length; i++)
        {
            var place = length < 1 ? 0 : at[i] / length * (along.Count - 1);
            var before = Math.Min((int)place, Math.Max(0, along.Count - 2));
            pressures[i] = Between(along[before], along[Math.Min(before + 1, along.Count - 1)], before, before + 1, place);
        }

        return pressures;
    }

    private static int Between(int a, int b, double from, double to, double at) =>
        to <= from ? b : (int)Math.Round(a + (b - a) * Math.Clamp((at - from) / (to - from), 0, 1));

    /// <summary>How far along the line each sample lies, and how long it is.</summary>
    private static (double[] At, double Length) Lengths(IReadOnlyList<int> x, IReadOnlyList<int> y)
    {
        var at = new double[x.Count];
        for (var i = 1; i < at.Length; i++)
        {
            double dx = x[i] - (double)x[i - 1],
                dy = y[i] - (double)y[i - 1];
            at[i] = at[i - 1] + Math.Sqrt(dx * dx + dy * dy);
        }

        return (at, at[^1]);
    }
}
