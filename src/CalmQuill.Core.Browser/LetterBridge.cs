using System.Runtime.InteropServices.JavaScript;
using CalmQuill.Core.Items;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Typesetting;

namespace CalmQuill.Core.Browser;

/// <summary>Exported to script: the fonts that typed text is set in, which script fetches.</summary>
public static partial class LetterBridge
{
    /// <summary>The names of all shipped fonts; each has the number of its place.</summary>
    [JSExport]
    public static string[] Names() => [.. Families.All];

    /// <summary>Letters can be shaped from now on.</summary>
    [JSExport]
    public static void Begin() => Fonts.Use(new ScriptShaper());

    /// <summary>The fonts that a text asked for and that are not there.</summary>
    [JSExport]
    public static string[] Wanted() => [.. Fonts.Wanted];

    /// <summary>The signs of a slice of a font as a browser names them; empty for a font that is whole.</summary>
    [JSExport]
    public static string Range(string name) => EasternFonts.RangeOf(name) ?? "";

    /// <summary>Takes a font in; texts are set in it when they are handed out next.</summary>
    [JSExport]
    public static void Add(string name, byte[] file) => Fonts.Add(name, file);

    /// <summary>Hands all texts of a page out anew: there are more fonts now.</summary>
    [JSExport]
    public static void SetAnew(int page) =>
        PageBridge.HandOut(
            page,
            Session.Document<PageDocument>(page).Items.Where(item => item.Content is WrittenContent).Select(item => item.Id)
        );

    /// <summary>The outline of a glyph in units of its font, y down, as SVG path data; empty while the font is not there.</summary>
    [JSExport]
    public static string Outline(int font, int glyph) => Fonts.Find(Families.All[font]) is { } found ? found.OutlineOf(glyph).ToSvg() : "";
}
