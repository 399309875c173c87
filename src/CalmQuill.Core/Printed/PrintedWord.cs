namespace CalmQuill.Core.Printed;

/// <summary>A word that is printed on a page of a file: where its baseline begins and ends, and how high its type is, 0.01 mm on our page.</summary>
public readonly record struct PrintedWord(double X1, double Y1, double X2, double Y2, double Height)
{
    /// <summary>The middle of small letters lies so far above the baseline, in shares of the type's height (common practice: an x-height of about half).</summary>
    private const double Middle = 0.26;

    public double Length => Math.Sqrt((X2 - X1) * (X2 - X1) + (Y2 - Y1) * (Y2 - Y1));

    /// <summary>Along which it is read: a unit's length.</summary>
    internal (double X, double Y) Along => ((X2 - X1) / Length, (Y2 - Y1) / Length);

    /// <summary>Where the middle of its letters begins, above the baseline's beginning.</summary>
    internal (double X, double Y) Begin
    {
        get
        {
            var (ux, uy) = Along;
            // Down the page is more: a quarter to the left of the way it is read is up.
            return (X1 + uy * Height * Middle, Y1 - ux * Height * Middle);
        }
    }
}
