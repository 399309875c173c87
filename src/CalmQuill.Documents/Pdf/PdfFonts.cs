using CalmQuill.Core.Typesetting;

namespace CalmQuill.Documents.Pdf;

/// <summary>The fonts of a PDF file: each is written once, whatever sheets use it.</summary>
internal sealed class PdfFonts(PdfFile file)
{
    private readonly Dictionary<Font, PdfFont> all = [];

    public PdfFont Of(Font font)
    {
        if (!all.TryGetValue(font, out var own))
            all[font] = own = new PdfFont(font, file.Reserve());
        return own;
    }

    /// <summary>Writes them, once all sheets are.</summary>
    public void Put()
    {
        foreach (var font in all.Values)
            font.Put(file);
    }
}
