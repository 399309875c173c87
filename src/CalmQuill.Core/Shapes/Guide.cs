namespace CalmQuill.Core.Shapes;

/// <summary>What ink keeps to while it lies on the page: a ruler's edge, or a compass's circle.</summary>
/// <param name="Round">Whether it is a compass.</param>
/// <param name="X">Middle of the ruler's upper edge, or centre of the circle; 0.01 mm.</param>
/// <param name="Y">See <paramref name="X"/>.</param>
/// <param name="Angle">The edge's direction, degrees clockwise.</param>
/// <param name="Size">Half the ruler's length, or the circle's radius; 0.01 mm.</param>
public readonly record struct Guide(bool Round, double X, double Y, double Angle, double Size)
{
    /// <summary>Degrees at which a turned ruler rests.</summary>
    private const double Rest = 15,
        RestWithin = 1.5;

    /// <summary>How broad a ruler is, 0.01 mm.</summary>
    public const double Breadth = 1_900;

    /// <summary>The guide that ink begun at a place keeps to, at the nearer of a ruler's two edges; a compass has one circle.</summary>
    public Guide EdgeAt(double x, double y)
    {
        if (Round)
            return this;
        var (sin, cos) = Math.SinCos(Angle * Math.PI / 180);
        return Beside(x, y).Below <= Breadth / 2 ? this : this with { X = X - sin * Breadth, Y = Y + cos * Breadth };
    }

    /// <summary>Whether a place lies on a ruler, between its edges.</summary>
    public bool IsUnder(double x, double y)
    {
        var (along, below) = Beside(x, y);
        return !Round && Math.Abs(along) <= Size && below >= 0 && below <= Breadth;
    }

    /// <summary>Where a place lies to a ruler: along its upper edge from the middle, and below that edge.</summary>
    private (double Along, double Below) Beside(double x, double y)
    {
        var (sin, cos) = Math.SinCos(Angle * Math.PI / 180);
        return ((x - X) * cos + (y - Y) * sin, (y - Y) * cos - (x - X) * sin);
    }

    /// <summary>How far a place lies from the edge or the circle, 0.01 mm.</summary>
    public double Distance(double x, double y)
    {
        var (kx, ky) = Keep(x, y);
        return Math.Sqrt((kx - x) * (kx - x) + (ky - y) * (ky - y));
    }

    /// <summary>The place on the edge or circle that is nearest.</summary>
    public (double X, double Y) Keep(double x, double y)
    {
        if (Round)
        {
            double dx = x - X,
                dy = y - Y,
                from = Math.Sqrt(dx * dx + dy * dy);
            return from < 1e-6 ? (X + Size, Y) : (X + dx / from * Size, Y + dy / from * Size);
        }

        var (sin, cos) = Math.SinCos(Angle * Math.PI / 180);
        var along = Math.Clamp(Beside(x, y).Along, -Size, Size);
        return (X + along * cos, Y + along * sin);
    }

    /// <summary>Where a turned ruler comes to rest: at every 15°, when it is near.</summary>
    public static double Resting(double angle)
    {
        var nearest = Math.Round(angle / Rest) * Rest;
        return Math.Abs(angle - nearest) <= RestWithin ? nearest : angle;
    }
}
