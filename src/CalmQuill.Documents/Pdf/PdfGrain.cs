using System.Globalization;
using System.IO.Compression;
using CalmQuill.Core.Ink;

namespace CalmQuill.Documents.Pdf;

/// <summary>The paper's grain as a tiling pattern without colour (ISO 32000-1 §8.7.3.3): a stencil mask (§8.9.6.2), repeated from a place on the sheet.</summary>
/// <param name="Level">See <see cref="PencilGrain.LevelOf(StrokeSamples, Pen)"/>.</param>
/// <param name="Scale">Points a page unit.</param>
/// <param name="X">Where a tile's corner lies on the sheet, points.</param>
/// <param name="Y">See <paramref name="X"/>.</param>
internal readonly record struct PdfGrain(int Level, double Scale, double X, double Y)
{
    /// <summary>Adds the pattern to a file, whose masks, one for each level, are shared.</summary>
    public int AddTo(PdfFile file, Dictionary<int, int> masks)
    {
        if (!masks.TryGetValue(Level, out var mask))
            masks[Level] = mask = file.AddStream(
                Stencil(Level),
                $"/Type /XObject /Subtype /Image /ImageMask true /Width {PencilGrain.MostPoints} /Height {PencilGrain.MostPoints} /BitsPerComponent 1 /Decode [1 0]",
                CompressionLevel.Optimal
            );
        return file.AddStream(
            "1 0 0 1 0 0 cm /M Do"u8.ToArray(),
            string.Create(
                CultureInfo.InvariantCulture,
                $"/Type /Pattern /PatternType 1 /PaintType 2 /TilingType 1 /BBox [0 0 1 1] /XStep 1 /YStep 1 /Resources << /XObject << /M {mask} 0 R >> >> /Matrix [{PencilGrain.Side * Scale:0.####} 0 0 {PencilGrain.Side * Scale:0.####} {X:0.###} {Y - PencilGrain.Side * Scale:0.###}]"
            ),
            CompressionLevel.Fastest
        );
    }

    /// <summary>One bit a point, from above, set where the pencil marks.</summary>
    private static byte[] Stencil(int level)
    {
        var tile = PencilGrain.Tile(level, PencilGrain.MostPoints);
        var bits = new byte[tile.Length / 8];
        for (var i = 0; i < tile.Length; i++)
        {
            if (tile[i] >= 128)
                bits[i / 8] |= (byte)(0x80 >> (i % 8));
        }

        return bits;
    }
}
