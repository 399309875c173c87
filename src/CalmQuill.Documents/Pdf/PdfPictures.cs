using System.Globalization;
using System.IO.Compression;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Pictures;
using CalmQuill.Documents.Pictures;

namespace CalmQuill.Documents.Pdf;

/// <summary>The pictures of one file: each is put in once for each size and look in which it is shown (ISO 32000-1 §8.9).</summary>
internal sealed class PdfPictures(PdfFile file) : IDisposable
{
    private readonly Dictionary<(Guid Asset, int Width, int Height, Tones Tones), int?> put = [];

    /// <summary>Those of them that are pages of other PDF files.</summary>
    public PdfLeaves Leaves { get; } = new(file);

    public void Dispose() => Leaves.Dispose();

    /// <summary>The number of a picture as it is shown in a place; null where its file is not there, or cannot be read.</summary>
    public int? Of(PrintedPage page, PictureLook picture, in Affine place)
    {
        if (picture.Leaf > 0)
            return Leaves.Of(page, picture);
        var need = FittedPicture.Need(picture, place, page.Dots);
        var key = (picture.Asset, need.Width, need.Height, picture.Tones);
        if (!put.TryGetValue(key, out var number))
            put[key] = number = page.Pictures.TryGetValue(picture.Asset, out var bytes) ? Put(bytes, need, picture.Tones) : null;
        return number;
    }

    private int? Put(byte[] bytes, (int, int) need, Tones tones)
    {
        using var fitted = FittedPicture.Read(bytes, need);
        if (fitted is null)
            return null;
        var decode = tones.IsPlain
            ? ""
            : string.Create(CultureInfo.InvariantCulture, $" /Decode [{Ends(tones)} {Ends(tones)} {Ends(tones)}]");
        if (fitted.IsOpaque)
            return file.AddJpeg(fitted.Pack().Bytes, fitted.Width, fitted.Height, decode);
        var (colours, alphas) = fitted.Dots();
        var size = string.Create(
            CultureInfo.InvariantCulture,
            $"/Type /XObject /Subtype /Image /Width {fitted.Width} /Height {fitted.Height} /BitsPerComponent 8"
        );
        // What shines through is a picture of its own (§11.6.5.3).
        var mask = file.AddStream(alphas, $"{size} /ColorSpace /DeviceGray", CompressionLevel.Optimal);
        return file.AddStream(colours, $"{size} /ColorSpace /DeviceRGB{decode} /SMask {mask} 0 R", CompressionLevel.Optimal);
    }

    /// <summary>What the least and the greatest value of a channel become.</summary>
    private static string Ends(Tones tones) =>
        string.Create(CultureInfo.InvariantCulture, $"{tones.Intercept:0.####} {tones.Intercept + tones.Slope:0.####}");
}
