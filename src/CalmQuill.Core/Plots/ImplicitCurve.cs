namespace CalmQuill.Core.Plots;

/// <summary>
/// Draws where a function of x and y is 0, by marching squares: the plane is cut into small squares, and of each that has corners of both signs the line
/// between is drawn.
/// </summary>
public static class ImplicitCurve
{
    /// <summary>So many squares along each side.</summary>
    private const int Squares = 160;

    /// <summary>Along an edge the place where it is 0 is sought in so many steps.</summary>
    private const int Halvings = 14;

    /// <summary>The short lines.</summary>
    /// <param name="of">The function.</param>
    /// <param name="range">What is shown.</param>
    public static List<((double X, double Y) From, (double X, double Y) To)> Of(Func<double, double, double> of, PlotRange range)
    {
        var values = new double[(Squares + 1) * (Squares + 1)];
        for (var row = 0; row <= Squares; row++)
        {
            for (var column = 0; column <= Squares; column++)
                values[row * (Squares + 1) + column] = of(X(column), Y(row));
        }

        var found = new List<((double, double), (double, double))>();
        Span<(double X, double Y)> on = stackalloc (double, double)[4];
        for (var row = 0; row < Squares; row++)
        {
            for (var column = 0; column < Squares; column++)
            {
                // The corners in turn: below left, below right, above right, above left.
                (int Column, int Row)[] corners = [(column, row), (column + 1, row), (column + 1, row + 1), (column, row + 1)];
                var count = 0;
                for (var i = 0; i < 4; i++)
                {
                    var (one, next) = (corners[i], corners[(i + 1) % 4]);
                    double v0 = Value(one),
                        v1 = Value(next);
                    if (double.IsFinite(v0) && double.IsFinite(v1) && v0 < 0 != v1 < 0 && Cross(one, v0, next, v1) is { } at)
                        on[count++] = at;
                }

                if (count >= 2)
                    found.Add((on[0], on[1]));
                if (count == 4)
                    found.Add((on[2], on[3]));
            }
        }

        return found;

        double X(double column) => range.Left + range.Width * column / Squares;
        double Y(double row) => range.Bottom + range.Height * row / Squares;
        double Value((int Column, int Row) at) => values[at.Row * (Squares + 1) + at.Column];

        (double X, double Y)? Cross((int Column, int Row) one, double v0, (int Column, int Row) next, double v1)
        {
            double from = 0,
                to = 1;
            for (var i = 0; i < Halvings; i++)
            {
                var middle = (from + to) / 2;
                var value = At(middle);
                if (!double.IsFinite(value))
                    return null;
                if (value < 0 == v0 < 0)
                    from = middle;
                else
                    to = middle;
            }

            // Beside a pole the signs differ and nothing is 0.
            var least = Math.Min(Math.Abs(v0), Math.Abs(v1));
            if (Math.Abs(At((from + to) / 2)) > 4 * Math.Max(least, 1e-300) && least > 0)
                return null;
            return Place((from + to) / 2);

            (double X, double Y) Place(double share) =>
                (X(one.Column + (next.Column - one.Column) * share), Y(one.Row + (next.Row - one.Row) * share));
            double At(double share)
            {
                var (x, y) = Place(share);
                return of(x, y);
            }
        }
    }
}
