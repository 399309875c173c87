namespace CalmQuill.Core.Plots;

/// <summary>The places of a function that are asked for: where it is 0, where it turns, where it meets another.</summary>
public static class Landmarks
{
    /// <summary>Even places that are looked at, and the most landmarks of one kind.</summary>
    private const int Places = 600,
        Most = 24;

    private const int Halvings = 80;

    /// <summary>Where a function is 0, from left to right: where it changes its sign without a leap, and where it touches.</summary>
    public static List<double> Zeros(Func<double, double> of, double from, double to)
    {
        var zeros = new List<double>();
        double x0 = from,
            y0 = of(from);
        if (y0 == 0)
            zeros.Add(from);
        for (var i = 1; i <= Places && zeros.Count < Most; i++)
        {
            double x1 = from + (to - from) * i / Places,
                y1 = of(x1);
            if (y1 == 0)
                Add(x1);
            else if (y0 != 0 && double.IsFinite(y0) && double.IsFinite(y1) && y0 < 0 != y1 < 0 && Zero(of, x0, y0, x1) is { } zero)
                Add(zero);
            (x0, y0) = (x1, y1);
        }

        // A touch from one side changes no sign: it is where it turns, at 0.
        foreach (var turn in Turns(of, from, to))
        {
            var height = Math.Abs(of(turn));
            var near = (to - from) / Places;
            if (zeros.Count < Most && height < 1e-9 * Math.Max(Math.Abs(of(turn - near)), Math.Abs(of(turn + near))))
                Add(turn);
        }

        zeros.Sort();
        return zeros;

        void Add(double zero)
        {
            if (!zeros.Exists(one => Math.Abs(one - zero) <= (to - from) * 1e-9))
                zeros.Add(zero);
        }
    }

    /// <summary>Where a function turns, up or down, from left to right.</summary>
    public static List<double> Turns(Func<double, double> of, double from, double to)
    {
        var turns = new List<double>();
        var step = (to - from) / Places;
        double y0 = of(from),
            y1 = of(from + step);
        for (var i = 2; i <= Places && turns.Count < Most; i++)
        {
            var x1 = from + step * (i - 1);
            var y2 = of(x1 + step);
            var isTop = y1 > y0 && y1 >= y2;
            if (double.IsFinite(y0) && double.IsFinite(y1) && double.IsFinite(y2) && (isTop || (y1 < y0 && y1 <= y2)))
            {
                if (Turn(x => isTop ? of(x) : -of(x), x1 - step, x1 + step) is { } turn)
                    turns.Add(turn);
            }

            (y0, y1) = (y1, y2);
        }

        return turns;
    }

    private static double? Zero(Func<double, double> of, double from, double y0, double to)
    {
        var (least, most) = (Math.Abs(y0), Math.Abs(of(to)));
        for (var i = 0; i < Halvings; i++)
        {
            var middle = (from + to) / 2;
            var y = of(middle);
            if (y == 0)
                return middle;
            if (!double.IsFinite(y))
                return null;
            if (y < 0 == y0 < 0)
                from = middle;
            else
                to = middle;
        }

        // At a pole or a leap the values beside it do not become small.
        return Math.Min(Math.Abs(of(from)), Math.Abs(of(to))) <= 1e-3 * Math.Max(least, most) ? (from + to) / 2 : null;
    }

    /// <summary>The top between two places, by the golden section (Kiefer, 1953); null where it is a leap or a pole.</summary>
    private static double? Turn(Func<double, double> of, double from, double to)
    {
        var share = (Math.Sqrt(5) - 1) / 2;
        double left = to - share * (to - from),
            right = from + share * (to - from),
            yLeft = of(left),
            yRight = of(right);
        for (var i = 0; i < Halvings; i++)
        {
            if (!double.IsFinite(yLeft) || !double.IsFinite(yRight))
                return null;
            if (yLeft > yRight)
            {
                (to, right, yRight) = (right, left, yLeft);
                left = to - share * (to - from);
                yLeft = of(left);
            }
            else
            {
                (from, left, yLeft) = (left, right, yRight);
                right = from + share * (to - from);
                yRight = of(right);
            }
        }

        var middle = (from + to) / 2;
        // Beside a pole it goes on rising however close one comes.
        var near = of(middle - 1e-5 * Math.Max(1e-3, Math.Abs(middle)));
        return Math.Abs(of(middle) - near) <= 1e-3 * Math.Max(1, Math.Abs(of(middle))) ? middle : null;
    }
}
