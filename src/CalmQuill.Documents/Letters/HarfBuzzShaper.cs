using System.Collections.Concurrent;
using System.Runtime.InteropServices;
using CalmQuill.Core.Typesetting;
using HarfBuzzSharp;
using Font = CalmQuill.Core.Typesetting.Font;

namespace CalmQuill.Documents.Letters;

/// <summary>Shapes letters by HarfBuzz, in the fonts that ship with the application.</summary>
public sealed class HarfBuzzShaper : IShaper
{
    private static readonly Lazy<bool> Set = new(() =>
    {
        Fonts.Use(new HarfBuzzShaper(), ShippedFile);
        return true;
    });

    private readonly ConcurrentDictionary<Font, HarfBuzzSharp.Font> opened = new();

    private HarfBuzzShaper() { }

    /// <summary>Has texts set in the shipped fonts from now on.</summary>
    public static void Install() => _ = Set.Value;

    public IReadOnlyList<ShapedGlyph> Shape(Font font, string text, bool fromRight)
    {
        using var buffer = new HarfBuzzSharp.Buffer();
        buffer.AddUtf16(text);
        buffer.GuessSegmentProperties();
        buffer.Direction = fromRight ? Direction.RightToLeft : Direction.LeftToRight;
        opened.GetOrAdd(font, Open).Shape(buffer);
        var infos = buffer.GetGlyphInfoSpan();
        var places = buffer.GetGlyphPositionSpan();
        var glyphs = new ShapedGlyph[infos.Length];
        for (var i = 0; i < glyphs.Length; i++)
            glyphs[i] = new ShapedGlyph(
                (int)infos[i].Codepoint,
                (int)infos[i].Cluster,
                places[i].XAdvance,
                places[i].XOffset,
                places[i].YOffset
            );
        return glyphs;
    }

    private static HarfBuzzSharp.Font Open(Font font)
    {
        // The file stays as long as the process does, and is not moved.
        var pinned = GCHandle.Alloc(font.File.Data.ToArray(), GCHandleType.Pinned);
        using var blob = new Blob(pinned.AddrOfPinnedObject(), font.File.Data.Length, MemoryMode.ReadOnly, pinned.Free);
        using var face = new Face(blob, 0);
        var own = new HarfBuzzSharp.Font(face);
        own.SetScale(font.File.UnitsPerEm, font.File.UnitsPerEm);
        own.SetFunctionsOpenType();
        return own;
    }

    private static byte[]? ShippedFile(string name)
    {
        using var resource = typeof(HarfBuzzShaper).Assembly.GetManifestResourceStream(name);
        if (resource is null)
            return null;
        var file = new byte[resource.Length];
        resource.ReadExactly(file);
        return file;
    }
}
