using CalmQuill.Core.Assets;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Pictures;
using SkiaSharp;

namespace CalmQuill.Documents.Pictures;

/// <summary>A picture of a page in no more dots than paper or screen can show.</summary>
public sealed class FittedPicture : IDisposable
{
    /// <summary>How good a picture stays that is packed as JPEG, of 100.</summary>
    private const int Quality = 92;

    private readonly SKBitmap bitmap;

    private FittedPicture(SKBitmap bitmap) => this.bitmap = bitmap;

    /// <summary>In dots.</summary>
    public int Width => bitmap.Width;

    /// <inheritdoc cref="Width"/>
    public int Height => bitmap.Height;

    /// <summary>Whether nothing shines through it.</summary>
    public bool IsOpaque => bitmap.AlphaType == SKAlphaType.Opaque;

    /// <summary>How many dots a picture needs where it is shown.</summary>
    /// <param name="picture">The picture as it is shown.</param>
    /// <param name="place">Where it lies, 0.01 mm.</param>
    /// <param name="dots">How many dots there are for 0.01 mm.</param>
    public static (int Width, int Height) Need(PictureLook picture, in Affine place, double dots) =>
        (
            (int)Math.Ceiling(picture.Width * Math.Sqrt(place.A * place.A + place.B * place.B) * dots),
            (int)Math.Ceiling(picture.Height * Math.Sqrt(place.C * place.C + place.D * place.D) * dots)
        );

    /// <summary>Reads a JPEG, PNG or WebP file; null where it cannot be read.</summary>
    /// <param name="file">The file.</param>
    /// <param name="need">So many dots are needed at least: it is made smaller to them, never larger.</param>
    public static FittedPicture? Read(byte[] file, (int Width, int Height) need)
    {
        using var data = SKData.CreateCopy(file);
        using var codec = SKCodec.Create(data);
        if (codec is null)
            return null;
        var share = Math.Max(need.Width / (double)codec.Info.Width, need.Height / (double)codec.Info.Height);
        var scaled = codec.GetScaledDimensions((float)Math.Clamp(share, 0.05, 1));
        if ((long)scaled.Width * scaled.Height > FileType.MostPixels)
            return null;
        var isOpaque = codec.Info.AlphaType == SKAlphaType.Opaque;
        var info = new SKImageInfo(
            scaled.Width,
            scaled.Height,
            SKColorType.Rgba8888,
            isOpaque ? SKAlphaType.Opaque : SKAlphaType.Unpremul,
            SKColorSpace.CreateSrgb()
        );
        var read = new SKBitmap(info);
        if (codec.GetPixels(info, read.GetPixels()) is not (SKCodecResult.Success or SKCodecResult.IncompleteInput))
        {
            read.Dispose();
            return null;
        }

        var wanted = Math.Max(need.Width / (double)read.Width, need.Height / (double)read.Height);
        if (wanted >= 1)
            return new FittedPicture(read);
        var smaller = new SKSizeI(
            Math.Max(1, (int)Math.Ceiling(read.Width * wanted)),
            Math.Max(1, (int)Math.Ceiling(read.Height * wanted))
        );
        using (read)
        {
            // Several dots become one: their mean.
            var fitted = read.Resize(smaller, new SKSamplingOptions(SKFilterMode.Linear, SKMipmapMode.Linear));
            return fitted is null ? null : new FittedPicture(fitted);
        }
    }

    /// <summary>As a file: JPEG where nothing shines through it, else PNG.</summary>
    public (byte[] Bytes, string Type) Pack()
    {
        using var packed = bitmap.Encode(IsOpaque ? SKEncodedImageFormat.Jpeg : SKEncodedImageFormat.Png, Quality);
        return (packed.ToArray(), IsOpaque ? FileType.Jpeg : FileType.Png);
    }

    /// <summary>Red, green and blue of each dot, and how much each covers.</summary>
    public (byte[] Colours, byte[] Alphas) Dots()
    {
        var dots = bitmap.GetPixelSpan();
        var count = Width * Height;
        var (colours, alphas) = (new byte[count * 3], new byte[count]);
        for (var i = 0; i < count; i++)
        {
            dots.Slice(i * 4, 3).CopyTo(colours.AsSpan(i * 3));
            alphas[i] = dots[i * 4 + 3];
        }

        return (colours, alphas);
    }

    public void Dispose() => bitmap.Dispose();
}
