using System.Globalization;
using CalmQuill.Core.Art;
using CalmQuill.Core.Writing;

namespace CalmQuill.Core.Typesetting;

/// <summary>How letters are set: what their own look, and that of their paragraph, come to.</summary>
/// <param name="Family">One of the five families.</param>
/// <param name="Size">Height of the type, 0.1 pt; of raised and lowered letters of the line they stand in.</param>
/// <param name="Colour">0xRRGGBBAA; null for the text's own.</param>
/// <param name="Marker">Colour of the marker behind them; 0 for none.</param>
/// <param name="Shift">1 for raised letters, −1 for lowered ones.</param>
public sealed record LetterStyle(string Family, int Size, uint? Colour, uint Marker, int Shift)
{
    /// <summary>Raised and lowered letters are so high, in hundredths, and stand so far off the line, in hundredths of the type.</summary>
    private const int Small = 65,
        Up = 35,
        Down = 15;

    public bool Bold { get; init; }

    public bool Italic { get; init; }

    public bool Underline { get; init; }

    public bool Struck { get; init; }

    /// <summary>Where the letters lead; empty for nowhere.</summary>
    public string Link { get; init; } = "";

    /// <summary>The height in which the letters themselves are set, 0.1 pt.</summary>
    public int OwnSize => Shift == 0 ? Size : Size * Small / 100;

    /// <summary>How far above the line they stand, 1/64 of 0.01 mm.</summary>
    public int Rise => Shift == 0 ? 0 : Lengths.OfType(Shift > 0 ? Size * Up : -Size * Down) / 100;

    /// <param name="paragraph">The look of the paragraph.</param>
    /// <param name="look">The look of the letters.</param>
    public static LetterStyle Of(ParagraphStyle paragraph, Look look) =>
        new(
            look[Trait.Family] is { Length: > 0 } family ? family : paragraph.Family,
            look[Trait.Size] is { Length: > 0 } size ? int.Parse(size, CultureInfo.InvariantCulture) : paragraph.Size,
            look[Trait.Colour] is { Length: > 0 } colour ? Colours.Read(colour) : null,
            look[Trait.Marker] is { Length: > 0 } marker ? Colours.Read(marker) : 0,
            look[Trait.Shift] switch
            {
                "raised" => 1,
                "lowered" => -1,
                _ => 0,
            }
        )
        {
            Bold = paragraph.Bold || look[Trait.Bold].Length > 0,
            Italic = paragraph.Italic || look[Trait.Italic].Length > 0,
            Underline = look[Trait.Underline].Length > 0 || look[Trait.Link].Length > 0,
            Struck = look[Trait.Struck].Length > 0,
            Link = look[Trait.Link],
        };
}
