using CalmQuill.Core.Pages;

namespace CalmQuill.Core.Assets;

/// <summary>What a file is by its own bytes: what it is called, or said to be, does not count.</summary>
/// <param name="MediaType">Its media type; <c>application/octet-stream</c> for all that is only kept.</param>
/// <param name="Width">Of a picture, in pixels; of a frozen page 0.01 mm; else 0.</param>
/// <param name="Height">See <paramref name="Width"/>.</param>
public sealed record FileType(string MediaType, int Width = 0, int Height = 0)
{
    public const string Jpeg = "image/jpeg",
        Png = "image/png",
        Webp = "image/webp",
        Pdf = "application/pdf",
        Other = "application/octet-stream";

    internal static readonly Sentence NotWhole = $"The picture is not whole. Nothing was kept.";
    internal static readonly Sentence SomethingBehind = $"Behind the picture's end there is something else. Nothing was kept.";

    /// <summary>The most pixels that a picture may unfold to; and of a JPEG, which can be read in an eighth of its size without unfolding.</summary>
    public const int MostPixels = 40_000_000,
        MostJpegPixels = 120_000_000;

    public bool IsPicture => IsPictureType(MediaType);

    /// <summary>Whether a media type is that of a picture that browsers show.</summary>
    public static bool IsPictureType(string mediaType) => mediaType is Jpeg or Png or Webp;

    /// <summary>Looks at a file.</summary>
    public static FileType Of(ReadOnlySpan<byte> file)
    {
        if (JpegFile.Read(file) is { } jpeg)
            return new FileType(Jpeg, jpeg.Width, jpeg.Height);
        if (PngFile.Read(file) is { } png)
            return new FileType(Png, png.Width, png.Height);
        if (WebpFile.Read(file) is { } webp)
            return new FileType(Webp, webp.Width, webp.Height);
        // What begins as a picture and goes on as none is a broken one, and no file that is only kept.
        if (file.StartsWith<byte>([0xFF, 0xD8, 0xFF]))
            return new FileType(Jpeg);
        if (file.StartsWith<byte>([0x89, (byte)'P', (byte)'N', (byte)'G']))
            return new FileType(Png);
        if (file.StartsWith("RIFF"u8) && file.Length > 8 && file[8..].StartsWith("WEBP"u8))
            return new FileType(Webp);
        if (file.StartsWith("%PDF-"u8))
            return new FileType(Pdf);
        if (FrozenPage.Read(file) is { } frozen)
            return new FileType(FrozenPage.MediaType, frozen.Paper.Width, frozen.Paper.Height);
        return new FileType(Other);
    }

    /// <summary>Null where a file of this type may be kept; else why not, in a sentence. A picture must be whole, and say nothing of where it was taken.</summary>
    public Sentence? Problem(ReadOnlySpan<byte> file)
    {
        if (!IsPicture)
            return null;
        var most = MediaType == Jpeg ? MostJpegPixels : MostPixels;
        if ((long)Width * Height > most)
            return $"The picture has {(long)Width * Height / 1_000_000} megapixels; the most is {most / 1_000_000}. Nothing was kept.";
        // What is printed takes a JPEG picture as it is, and its colours for these.
        if (MediaType == Jpeg && JpegFile.Read(file) is { Components: not 3 })
            return $"The picture is not in red, green and blue. Nothing was kept.";
        if (Broken(file) is { } broken)
            return broken;
        return Cleaned(file).Length < file.Length
            ? Sentence.Of($"The picture still says where, when or with what it was taken. Nothing was kept.")
            : null;
    }

    /// <summary>A picture without what it says of where, when and with what it was taken; any other file, and what is not whole, as it is.</summary>
    public byte[] Cleaned(ReadOnlySpan<byte> file)
    {
        if (!IsPicture || Broken(file) is not null)
            return file.ToArray();
        return MediaType switch
        {
            Jpeg => JpegFile.WithoutOrigin(file),
            Png => PngFile.WithoutOrigin(file),
            _ => WebpFile.WithoutOrigin(file),
        };
    }

    private Sentence? Broken(ReadOnlySpan<byte> file) =>
        Width == 0
            ? NotWhole
            : MediaType switch
            {
                Jpeg => JpegFile.Problem(file),
                Png => PngFile.Problem(file),
                _ => WebpFile.Problem(file),
            };
}
