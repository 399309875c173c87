namespace CalmQuill.Core.Pictures;

/// <summary>A picture as it is shown: which one, how large, what of it, and how.</summary>
/// <param name="Asset">The picture's file.</param>
/// <param name="Width">How wide the whole picture is in its own measures, 0.01 mm.</param>
/// <param name="Height">How high.</param>
/// <param name="Cut">What of it is shown.</param>
/// <param name="Alpha">How much it covers, 0 to 255.</param>
/// <param name="Tones">How bright and how rich in contrast it is.</param>
public sealed record PictureLook(Guid Asset, int Width, int Height, PictureCut Cut, int Alpha, Tones Tones)
{
    /// <summary>The frame that is drawn where its file is not there: 0xRRGGBBAA, and 0.01 mm.</summary>
    public const uint MissingEdge = 0xB9B4A6FF;

    /// <inheritdoc cref="MissingEdge"/>
    public const int MissingWidth = 20;

    /// <summary>The most pages that a PDF file is shown of.</summary>
    public const int MostLeaf = 10_000;

    /// <summary>Which page of a PDF file is shown, counted from 1, as on white paper; 0 where the file is a picture.</summary>
    public int Leaf { get; init; }

    /// <summary>The corners of what is shown, in the picture's own measures from its upper left corner.</summary>
    public IEnumerable<(double X, double Y)> Corners =>
        Cut.Corners.Select(at => (at.X * (double)Width / PictureCut.One, at.Y * (double)Height / PictureCut.One));
}
