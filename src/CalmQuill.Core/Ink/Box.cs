namespace CalmQuill.Core.Ink;

/// <summary>An upright rectangle in 0.01 mm; its edges belong to it.</summary>
public readonly record struct Box(int Left, int Top, int Right, int Bottom)
{
    /// <summary>Its corners, from the upper left one clockwise.</summary>
    public IEnumerable<(double X, double Y)> Corners => [(Left, Top), (Right, Top), (Right, Bottom), (Left, Bottom)];

    public Box Grow(int by) => new(Left - by, Top - by, Right + by, Bottom + by);

    public Box Shift(int dx, int dy) => new(Left + dx, Top + dy, Right + dx, Bottom + dy);

    /// <summary>The box around both.</summary>
    public Box With(Box other) =>
        new(Math.Min(Left, other.Left), Math.Min(Top, other.Top), Math.Max(Right, other.Right), Math.Max(Bottom, other.Bottom));

    /// <summary>The box around all; null around nothing.</summary>
    public static Box? Around(IEnumerable<Box> boxes)
    {
        Box? all = null;
        foreach (var box in boxes)
            all = all?.With(box) ?? box;
        return all;
    }

    /// <summary>The smallest box in whole numbers around corners, given as x, y, x, y…; there is at least one.</summary>
    public static Box Around(double[] corners) =>
        Around(Enumerable.Range(0, corners.Length / 2).Select(i => (corners[2 * i], corners[2 * i + 1])));

    /// <summary>The smallest box in whole numbers around places; there is at least one.</summary>
    public static Box Around(IEnumerable<(double X, double Y)> places)
    {
        double left = double.MaxValue,
            top = double.MaxValue,
            right = double.MinValue,
            bottom = double.MinValue;
        foreach (var (x, y) in places)
        {
            (left, right) = (Math.Min(left, x), Math.Max(right, x));
            (top, bottom) = (Math.Min(top, y), Math.Max(bottom, y));
        }

        return new Box((int)Math.Floor(left), (int)Math.Floor(top), (int)Math.Ceiling(right), (int)Math.Ceiling(bottom));
    }

    /// <summary>Whether both share more than an edge.</summary>
    public bool Overlaps(Box other) => Left < other.Right && other.Left < Right && Top < other.Bottom && other.Top < Bottom;

    public bool Meets(Box other) => Left <= other.Right && other.Left <= Right && Top <= other.Bottom && other.Top <= Bottom;
}
