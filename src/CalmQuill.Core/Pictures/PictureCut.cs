using System.Globalization;

namespace CalmQuill.Core.Pictures;

/// <summary>What of a picture is shown: a closed line round it. The picture itself stays whole.</summary>
/// <param name="Corners">Its corners, in shares of the picture's width and height: 0 to <see cref="One"/>.</param>
public sealed record PictureCut(IReadOnlyList<(int X, int Y)> Corners)
{
    /// <summary>All of a side.</summary>
    public const int One = 10_000;

    /// <summary>A loop drawn by hand comes out with fewer.</summary>
    public const int MostCorners = 400;

    /// <summary>The longest form: each corner as two numbers of five digits at most, a comma and a blank.</summary>
    public const int MostBytes = MostCorners * 12;

    public static readonly PictureCut Whole = new([(0, 0), (One, 0), (One, One), (0, One)]);

    public bool IsWhole => Corners.SequenceEqual(Whole.Corners);

    /// <summary>As fields hold it: “x,y x,y …”.</summary>
    public string ToText() => string.Join(' ', Corners.Select(at => string.Create(CultureInfo.InvariantCulture, $"{at.X},{at.Y}")));

    /// <summary>Null where a text is no cut: fewer than three corners, too many, or some off the picture.</summary>
    public static PictureCut? Read(string text)
    {
        var parts = text.Split(' ', MostCorners + 1);
        if (parts.Length is < 3 or > MostCorners)
            return null;
        var corners = new (int X, int Y)[parts.Length];
        for (var i = 0; i < parts.Length; i++)
        {
            var comma = parts[i].IndexOf(',');
            if (
                comma < 0
                || !int.TryParse(parts[i].AsSpan(0, comma), NumberStyles.None, CultureInfo.InvariantCulture, out var x)
                || !int.TryParse(parts[i].AsSpan(comma + 1), NumberStyles.None, CultureInfo.InvariantCulture, out var y)
                || x > One
                || y > One
            )
                return null;
            corners[i] = (x, y);
        }

        return new PictureCut(corners);
    }
}
