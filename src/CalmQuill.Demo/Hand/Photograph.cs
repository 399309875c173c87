using SkiaSharp;

namespace CalmQuill.Demo.Hand;

/// <summary>A drawing on a sheet of yellowed, ruled paper, as a camera takes it in the light of a lamp.</summary>
public static class Photograph
{
    /// <summary>Dots for a millimetre, and how good the file stays, of 100.</summary>
    private const int Dots = 12,
        Quality = 88;

    /// <param name="width">The sheet's width, mm.</param>
    /// <param name="height">Its height.</param>
    /// <param name="lines">What is drawn on it, mm.</param>
    /// <returns>A JPEG file.</returns>
    public static byte[] Of(int width, int height, IEnumerable<IReadOnlyList<Point>> lines)
    {
        using var bitmap = new SKBitmap(new SKImageInfo(width * Dots, height * Dots, SKColorType.Rgba8888, SKAlphaType.Opaque));
        using (var canvas = new SKCanvas(bitmap))
        {
            canvas.Clear(new SKColor(232, 224, 204));
            canvas.Scale(Dots);
            using var rule = Pen(new SKColor(160, 184, 196), 0.25f);
            for (var y = 9; y < height; y += 8)
                canvas.DrawLine(0, y, width, y, rule);
            using var ink = Pen(new SKColor(34, 38, 62), 0.75f);
            foreach (var line in lines)
            {
                for (var i = 1; i < line.Count; i++)
                    canvas.DrawLine((float)line[i - 1].X, (float)line[i - 1].Y, (float)line[i].X, (float)line[i].Y, ink);
            }

            // The lamp stands at the upper left.
            using var shade = SKShader.CreateRadialGradient(
                new SKPoint(width * 0.25f, height * 0.1f),
                width * 1.1f,
                [new SKColor(255, 246, 220, 26), new SKColor(58, 46, 34, 120)],
                SKShaderTileMode.Clamp
            );
            using var light = new SKPaint { Shader = shade };
            canvas.DrawRect(0, 0, width, height, light);
        }

        using var file = bitmap.Encode(SKEncodedImageFormat.Jpeg, Quality);
        return file.ToArray();
    }

    private static SKPaint Pen(SKColor colour, float width) =>
        new()
        {
            Color = colour,
            StrokeWidth = width,
            IsStroke = true,
            IsAntialias = true,
            StrokeCap = SKStrokeCap.Round,
        };
}
