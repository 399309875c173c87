using System.Globalization;

namespace CalmQuill.Core.Plots;

/// <summary>What part of the plane a plot shows.</summary>
public readonly record struct PlotRange(double Left, double Right, double Bottom, double Top)
{
    /// <summary>How far out one may look, and how closely, so that numbers stay numbers.</summary>
    public const double Most = 1e12,
        Least = 1e-9;

    /// <summary>The longest form: four numbers of at most 24 signs and what parts them.</summary>
    public const int MostBytes = 100;

    public double Width => Right - Left;

    public double Height => Top - Bottom;

    public bool Holds((double X, double Y) point) => point.X >= Left && point.X <= Right && point.Y >= Bottom && point.Y <= Top;

    /// <summary>As fields hold it: the four numbers, parted by blanks.</summary>
    public string ToText() =>
        string.Join(' ', new[] { Left, Right, Bottom, Top }.Select(edge => edge.ToString("R", CultureInfo.InvariantCulture)));

    /// <summary>Null where a text is no range that can be shown.</summary>
    public static PlotRange? Read(string text)
    {
        var parts = text.Split(' ');
        var edges = new double[4];
        if (parts.Length != 4)
            return null;
        for (var i = 0; i < 4; i++)
        {
            if (!double.TryParse(parts[i], NumberStyles.Float, CultureInfo.InvariantCulture, out edges[i]))
                return null;
        }

        var range = new PlotRange(edges[0], edges[1], edges[2], edges[3]);
        return range.CanBeShown ? range : null;
    }

    private bool CanBeShown => IsNear(Left) && IsNear(Right) && IsNear(Bottom) && IsNear(Top) && IsWide(Left, Right) && IsWide(Bottom, Top);

    /// <summary>Whether an edge is a number, and not too far out.</summary>
    private static bool IsNear(double edge) => Math.Abs(edge) <= Most;

    /// <summary>Whether two edges lie so far apart that between them numbers can be told from each other.</summary>
    private static bool IsWide(double from, double to) => to - from >= Least && to - from > 1e-9 * Math.Max(Math.Abs(from), Math.Abs(to));

    /// <summary>The same as much further to the right and up as these shares of it; as it was where that is too far out.</summary>
    public PlotRange Moved(double right, double up) =>
        Kept(new PlotRange(Left + right * Width, Right + right * Width, Bottom + up * Height, Top + up * Height));

    /// <summary>So many times as much of the plane; as it was where that is too much or too little.</summary>
    /// <param name="across">How many times as wide.</param>
    /// <param name="up">How many times as high.</param>
    /// <param name="x">What stays where it is, a share from the left.</param>
    /// <param name="y">The same from below.</param>
    public PlotRange Widened(double across, double up, double x = 0.5, double y = 0.5)
    {
        double fixedX = Left + x * Width,
            fixedY = Bottom + y * Height;
        return Kept(
            new PlotRange(
                fixedX - x * Width * across,
                fixedX + (1 - x) * Width * across,
                fixedY - y * Height * up,
                fixedY + (1 - y) * Height * up
            )
        );
    }

    /// <summary>With as many digits as one sees: a hand moves it, and nobody wants to read what a pixel comes to.</summary>
    public PlotRange Rounded() => Kept(new PlotRange(Near(Left, Width), Near(Right, Width), Near(Bottom, Height), Near(Top, Height)));

    private PlotRange Kept(PlotRange wished) => wished.CanBeShown ? wished : this;

    /// <summary>The nearest number that is even in the decimal place of a thousandth of what is shown.</summary>
    private static double Near(double edge, double shown)
    {
        var place = (int)Math.Floor(Math.Log10(shown)) - 3;
        // A power of ten that is no fraction is exact, and by it the nearest decimal is had.
        return place < 0
            ? Math.Round(edge * Math.Pow(10, -place)) / Math.Pow(10, -place)
            : Math.Round(edge / Math.Pow(10, place)) * Math.Pow(10, place);
    }

    /// <summary>The range around some points, with room at the edges; null where there are none.</summary>
    public static PlotRange? Around(IEnumerable<(double X, double Y)> points)
    {
        double left = double.MaxValue,
            right = double.MinValue,
            bottom = double.MaxValue,
            top = double.MinValue;
        foreach (var (x, y) in points)
        {
            (left, right) = (Math.Min(left, x), Math.Max(right, x));
            (bottom, top) = (Math.Min(bottom, y), Math.Max(top, y));
        }

        return left > right ? null : new PlotRange(left, right, bottom, top).Padded(0.08);
    }

    /// <summary>The same with room at the edges, a share of each side.</summary>
    private PlotRange Padded(double share)
    {
        double across = Width > 0 ? Width * share : Math.Max(1, Math.Abs(Left) * share),
            down = Height > 0 ? Height * share : Math.Max(1, Math.Abs(Bottom) * share);
        return new PlotRange(Left - across, Right + across, Bottom - down, Top + down);
    }
}
