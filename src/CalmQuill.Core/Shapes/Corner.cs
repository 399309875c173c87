namespace CalmQuill.Core.Shapes;

/// <summary>A point of a shape, 0.01 mm.</summary>
public readonly record struct Corner(int X, int Y)
{
    public static Corner At(double x, double y) =>
        new(
            (int)Math.Round(Math.Clamp(x, -int.MaxValue / 4.0, int.MaxValue / 4.0)),
            (int)Math.Round(Math.Clamp(y, -int.MaxValue / 4.0, int.MaxValue / 4.0))
        );

    public double To(Corner other) => Math.Sqrt(Square(other.X - (double)X) + Square(other.Y - (double)Y));

    private static double Square(double value) => value * value;
}
