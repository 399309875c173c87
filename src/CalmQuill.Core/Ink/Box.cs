namespace CalmQuill.Core.Ink;

/// <summary>An upright rectangle in 0.01 mm; its edges belong to it.</summary>
public readonly record struct Box(int Left, int Top, int Right, int Bottom)
{
    public Box Grow(int by) => new(Left - by, Top - by, Right + by, Bottom + by);

    public Box Shift(int dx, int dy) => new(Left + dx, Top + dy, Right + dx, Bottom + dy);

    public bool Meets(Box other) => Left <= other.Right && other.Left <= Right && Top <= other.Bottom && other.Top <= Bottom;
}
