namespace CalmQuill.Core.Plots;

/// <summary>Draws a function as lines that lie as close to it as is seen, and are not joined where it leaps, has a pole, or is not defined.</summary>
/// <remarks>
/// The range is cut into even pieces, and each is halved as long as its middle lies off the line between its ends. Where that does not help, it
/// leaps: between ends ever closer together the step stays as high. Where it is defined at one end alone, the edge is sought by halving. All of it is
/// done with a stack of its own, and ends.
/// </remarks>
/// <param name="of">The function; NaN or infinite where it is not defined.</param>
/// <param name="range">What is shown; what lies far above or below it is cut off.</param>
/// <param name="tolerance">How far a line may lie off, in shares of the height that is shown.</param>
public sealed class CurveSampler(Func<double, double> of, PlotRange range, double tolerance)
{
    /// <summary>Even pieces at first, how often one is halved, and the most points in all.</summary>
    private const int Pieces = 220,
        MostHalved = 14,
        MostPoints = 40_000;

    /// <summary>What lies so many heights above or below what is shown is drawn no further.</summary>
    private const double Beyond = 1.5;

    private readonly List<List<(double X, double Y)>> lines = [];
    private List<(double X, double Y)> line = [];
    private int points;

    /// <summary>A piece that is looked at.</summary>
    /// <param name="Halved">How often it was halved.</param>
    /// <param name="Long">How high its step was when it had been halved <see cref="Longer"/> times.</param>
    private readonly record struct Piece(double X0, double Y0, double X1, double Y1, int Halved, double Long);

    /// <summary>A step that stays half as high as when it was a thousand times as long is a leap; not even x^(1/9) does that.</summary>
    private const int Longer = MostHalved - 10;
    private const double Leaps = 0.5;

    /// <summary>The lines, from left to right.</summary>
    public List<List<(double X, double Y)>> Lines()
    {
        double x0 = range.Left,
            y0 = of(x0);
        for (var i = 1; i <= Pieces; i++)
        {
            var x1 = range.Left + range.Width * i / Pieces;
            var y1 = of(x1);
            Draw(new Piece(x0, y0, x1, y1, 0, double.PositiveInfinity));
            (x0, y0) = (x1, y1);
        }

        End();
        return lines;
    }

    private void Draw(Piece first)
    {
        var waiting = new Stack<Piece>();
        waiting.Push(first);
        while (waiting.TryPop(out var piece))
        {
            var (x0, y0, x1, y1, halved, @long) = piece;
            bool is0 = double.IsFinite(y0),
                is1 = double.IsFinite(y1);
            var isEnd = halved == MostHalved || points > MostPoints;
            if (!is0 && !is1 && (halved >= 2 || isEnd))
            {
                End();
                continue;
            }

            if (is0 != is1 && isEnd)
            {
                // Here it begins to be defined, or ends.
                if (is0)
                    Add(x0, y0);
                End();
                if (is1)
                    Add(x1, y1);
                continue;
            }

            double middle = (x0 + x1) / 2,
                y = of(middle);
            var step = Math.Abs(y1 - y0);
            if (is0 && is1 && double.IsFinite(y))
            {
                if (IsOut(y0) && IsOut(y1) && IsOut(y) && Math.Sign(y0 - Middle) == Math.Sign(y1 - Middle))
                {
                    // Nothing of it is seen.
                    Add(x0, y0);
                    End();
                    continue;
                }

                if (isEnd)
                {
                    Add(x0, y0);
                    // As high as when it was much longer: it leaps.
                    if (step > tolerance * range.Height * 2 && step > Leaps * @long)
                        End();
                    Add(x1, y1);
                    continue;
                }

                var off = Math.Abs(y - (y0 + y1) / 2);
                if (off <= tolerance * range.Height && (halved > 0 || IsSmooth(x0, y0, x1, y1)))
                {
                    Add(x0, y0);
                    Add(x1, y1);
                    continue;
                }
            }

            if (isEnd)
            {
                End();
                continue;
            }

            if (halved == Longer)
                @long = step;
            waiting.Push(new Piece(middle, y, x1, y1, halved + 1, @long));
            waiting.Push(new Piece(x0, y0, middle, y, halved + 1, @long));
        }
    }

    /// <summary>A middle on the line can be chance: two more places are looked at.</summary>
    private bool IsSmooth(double x0, double y0, double x1, double y1)
    {
        foreach (var share in (ReadOnlySpan<double>)[0.27, 0.71])
        {
            var y = of(x0 + (x1 - x0) * share);
            if (!(Math.Abs(y - (y0 + (y1 - y0) * share)) <= tolerance * range.Height))
                return false;
        }

        return true;
    }

    private double Middle => (range.Top + range.Bottom) / 2;

    private bool IsOut(double y) => Math.Abs(y - Middle) > range.Height * Beyond;

    private void Add(double x, double y)
    {
        if (line.Count > 0 && line[^1].X == x)
            return;
        line.Add((x, Math.Clamp(y, Middle - range.Height * Beyond, Middle + range.Height * Beyond)));
        points++;
    }

    private void End()
    {
        if (line.Count > 1)
            lines.Add(line);
        line = [];
    }
}
