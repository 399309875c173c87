using CalmQuill.Core.Papers;
using CalmQuill.Core.Pictures;

namespace CalmQuill.Core.Bringing;

/// <summary>One page of a file that is brought in, or one picture.</summary>
/// <param name="Asset">The file.</param>
/// <param name="Number">Which page of it, counted from 1; 0 for a picture.</param>
/// <param name="Width">How wide it is as its file has it, 0.01 mm.</param>
/// <param name="Height">How high.</param>
/// <param name="Turn">By how many quarters it is turned to the right, 0 to 3.</param>
public sealed record Leaf(Guid Asset, int Number, int Width, int Height, int Turn)
{
    /// <summary>A side may be at most so many times the other; what is longer is shown as if it were not.</summary>
    private const int MostRatio = PaperSize.Most / PaperSize.Least;

    /// <summary>How wide it is as it lies.</summary>
    public int LaidWidth => Turn % 2 == 0 ? Width : Height;

    /// <summary>How high.</summary>
    public int LaidHeight => Turn % 2 == 0 ? Height : Width;

    /// <summary>A page of a PDF file, as large as that says; one of no size, or of more than a sheet can have, as near to it as a sheet comes.</summary>
    /// <param name="asset">The file.</param>
    /// <param name="number">Which page, from 1.</param>
    /// <param name="width">In points, 1/72 inch (ISO 32000-1 §8.3.2.3).</param>
    /// <param name="height">The same.</param>
    /// <param name="turn">Quarters to the right.</param>
    public static Leaf OfPage(Guid asset, int number, double width, double height, int turn)
    {
        const double Point = 2540.0 / 72;
        var (across, down) = Sides(width * Point, height * Point);
        return new Leaf(asset, Math.Clamp(number, 1, PictureLook.MostLeaf), across, down, turn & 3);
    }

    /// <summary>A picture, as long as the longer side of A4.</summary>
    /// <param name="asset">The file.</param>
    /// <param name="width">Dots, or anything in proportion to them.</param>
    /// <param name="height">The same.</param>
    /// <param name="turn">Quarters to the right.</param>
    public static Leaf OfPicture(Guid asset, double width, double height, int turn)
    {
        var share = PaperSize.A4.Height / Math.Max(width, height);
        var (across, down) = Sides(width * share, height * share);
        return new Leaf(asset, 0, across, down, turn & 3);
    }

    /// <summary>The sides of a sheet that can be, in the proportions of those that are given as far as there is such a sheet.</summary>
    private static (int, int) Sides(double width, double height)
    {
        if (!(width > 0 && height > 0 && double.IsFinite(width) && double.IsFinite(height)))
            return (PaperSize.A4.Width, PaperSize.A4.Height);
        var (longer, shorter) = (Math.Max(width, height), Math.Min(width, height));
        if (longer / shorter > MostRatio)
            shorter = longer / MostRatio;
        var share =
            longer > PaperSize.Most ? PaperSize.Most / longer
            : shorter < PaperSize.Least ? PaperSize.Least / shorter
            : 1;
        var (rounded, other) = (Side(longer * share), Side(shorter * share));
        return width >= height ? (rounded, other) : (other, rounded);
    }

    private static int Side(double side) => Math.Clamp((int)Math.Round(side), PaperSize.Least, PaperSize.Most);
}
