using CalmQuill.Core.Ink;

namespace CalmQuill.Core.Items;

/// <summary>A piece of the way of a round eraser, 0.01 mm.</summary>
/// <param name="FromX">Where it begins.</param>
/// <param name="FromY">Where it begins.</param>
/// <param name="X">Where it ends.</param>
/// <param name="Y">Where it ends.</param>
/// <param name="Radius">The radius.</param>
/// <param name="IsFirst">Whether the eraser comes down on it, so that where it begins counts too.</param>
public readonly record struct EraserWay(double FromX, double FromY, double X, double Y, double Radius, bool IsFirst)
{
    private const int MostSteps = 400;

    /// <summary>The box of all that it can touch.</summary>
    public Box Area =>
        new Box((int)Math.Min(X, FromX), (int)Math.Min(Y, FromY), (int)Math.Max(X, FromX), (int)Math.Max(Y, FromY)).Grow(
            (int)Math.Ceiling(Radius) + 1
        );

    /// <summary>How many steps it takes, each at most half the eraser's radius.</summary>
    public int Steps
    {
        get
        {
            var way = Math.Sqrt((X - FromX) * (X - FromX) + (Y - FromY) * (Y - FromY));
            return Math.Clamp((int)Math.Ceiling(way / Math.Max(Radius / 2, 5)), 1, MostSteps);
        }
    }
}
