namespace CalmQuill.Demo.Hand;

/// <summary>A place or a way in millimetres, x to the right, y down.</summary>
public readonly record struct Point(double X, double Y)
{
    public double Length => Math.Sqrt(X * X + Y * Y);

    public static Point operator +(Point a, Point b) => new(a.X + b.X, a.Y + b.Y);

    public static Point operator -(Point a, Point b) => new(a.X - b.X, a.Y - b.Y);

    public static Point operator *(Point a, double by) => new(a.X * by, a.Y * by);

    /// <summary>The point at a distance and an angle (degrees clockwise from the right) from here.</summary>
    public Point Polar(double radius, double degrees) =>
        new(X + radius * Math.Cos(degrees * Math.PI / 180), Y + radius * Math.Sin(degrees * Math.PI / 180));
}
