using System.Runtime.InteropServices.JavaScript;
using CalmQuill.Core.Typesetting;

namespace CalmQuill.Core.Browser;

/// <summary>Shapes letters by the HarfBuzz that script has loaded.</summary>
internal sealed partial class ScriptShaper : IShaper
{
    private const int Parts = 5;

    public IReadOnlyList<ShapedGlyph> Shape(Font font, string text, bool fromRight)
    {
        var parts = ShapeIn(font.Name, text, fromRight);
        var glyphs = new ShapedGlyph[parts.Length / Parts];
        for (var i = 0; i < glyphs.Length; i++)
        {
            var at = Parts * i;
            glyphs[i] = new ShapedGlyph(parts[at], parts[at + 1], parts[at + 2], parts[at + 3], parts[at + 4]);
        }

        return glyphs;
    }

    /// <summary>For each glyph its number, the first letter that it stands for, its advance, and how far it is moved right and up.</summary>
    [JSImport("shape", "letters")]
    private static partial int[] ShapeIn(string font, string text, bool fromRight);
}
