using CalmQuill.Documents.Pdf;
using SkiaSharp;

namespace CalmQuill.Testing;

/// <summary>Slides of a lesson as a PDF file of another maker: Skia.</summary>
public static class SlideFile
{
    /// <summary>Three slides of 720 by 540 points: letters, lines, a link to the web and one to the third; and behind them as many more as are wished, full of words.</summary>
    /// <param name="pages">How many there are in all.</param>
    public static byte[] Write(int pages = 3)
    {
        using var stream = new MemoryStream();
        using (
            var document = SKDocument.CreatePdf(
                stream,
                new SKDocumentPdfMetadata
                {
                    Title = "Escapements",
                    Creation = DateTime.UnixEpoch,
                    Modified = DateTime.UnixEpoch,
                }
            )
        )
        using (var face = SKTypeface.FromStream(typeof(PdfExport).Assembly.GetManifestResourceStream("serif")))
        using (var large = new SKFont(face, 48))
        using (var paint = new SKPaint { Color = new SKColor(0x22, 0x30, 0x2E), IsAntialias = true })
        using (
            var line = new SKPaint
            {
                Color = new SKColor(0xB4, 0x53, 0x3C),
                IsStroke = true,
                StrokeWidth = 6,
            }
        )
        {
            foreach (var (title, index) in new[] { "Anchor escapement", "Two pallets", "Recoil" }.Select((title, i) => (title, i)))
            {
                var canvas = document.BeginPage(720, 540);
                canvas.DrawText(title, 60, 90, SKTextAlign.Left, large, paint);
                canvas.DrawCircle(200 + 100 * index, 320, 90 + 20 * index, line);
                if (index == 0)
                {
                    // Its line lies in one part of the slide as it is drawn very large, and its lower ends in the next.
                    canvas.DrawText("gauge", 420, 176, SKTextAlign.Left, large, paint);
                    canvas.DrawUrlAnnotation(new SKRect(60, 40, 460, 110), "https://bells.example/escapements");
                    canvas.DrawLinkDestinationAnnotation(new SKRect(60, 400, 460, 470), "third");
                }

                if (index == 2)
                    canvas.DrawNamedDestinationAnnotation(new SKPoint(0, 0), "third");
                document.EndPage();
            }

            using var small = new SKFont(face, 20);
            for (var page = 4; page <= pages; page++)
            {
                var canvas = document.BeginPage(720, 540);
                canvas.DrawText($"Slide {page}", 60, 90, SKTextAlign.Left, large, paint);
                for (var row = 0; row < 14; row++)
                    canvas.DrawText(
                        $"{page}.{row} What the pallets do, and what the pendulum has of it.",
                        60,
                        140 + 26 * row,
                        SKTextAlign.Left,
                        small,
                        paint
                    );
                document.EndPage();
            }

            document.Close();
        }

        return stream.ToArray();
    }
}
