using System.Globalization;
using CalmQuill.Core.Writing;

namespace CalmQuill.Core.Typesetting;

/// <summary>How a paragraph is set, and what its letters look like where they say nothing else.</summary>
/// <param name="Family">One of the five families.</param>
/// <param name="Size">Height of the type, 0.1 pt.</param>
/// <param name="Bold">Whether its letters are bold.</param>
/// <param name="Italic">Whether they are slanted.</param>
/// <param name="Above">Space above it where lines are spaced freely, 0.1 pt.</param>
public sealed record ParagraphStyle(string Family, int Size, bool Bold, bool Italic, int Above)
{
    /// <summary>How far one step sets a paragraph in, and what stands before a list, 0.01 mm.</summary>
    private const int Step = 800;

    public string Align { get; private init; } = "";

    /// <summary>How far in it begins, 0.01 mm.</summary>
    public int Indent { get; private init; }

    /// <summary>How many steps that are.</summary>
    public int Depth { get; private init; }

    public string List { get; private init; } = "";

    public bool IsTicked { get; private init; }

    /// <summary>Space between its lines, in hundredths of the usual.</summary>
    public int Leading { get; private init; }

    /// <summary>Whether it runs from right to left; null for as its first letter does.</summary>
    public bool? FromRight { get; private init; }

    /// <summary>How much room stands before the lines of a list, 0.01 mm.</summary>
    public int Hang => List.Length > 0 ? Step : 0;

    public static ParagraphStyle Of(Look look)
    {
        var style = look[Trait.Style] switch
        {
            "title" => new ParagraphStyle(Families.Usual, 240, false, false, 0),
            "heading" => new ParagraphStyle(Families.Usual, 180, true, false, 90),
            "subheading" => new ParagraphStyle(Families.Usual, 140, true, false, 60),
            "small" => new ParagraphStyle(Families.Usual, 90, false, false, 0),
            "quotation" => new ParagraphStyle(Families.Usual, 120, false, true, 0),
            "code" => new ParagraphStyle("mono", 100, false, false, 0),
            _ => new ParagraphStyle(Families.Usual, 120, false, false, 0),
        };
        var depth = Number(Trait.Indent, 0) + (look[Trait.Style] == "quotation" ? 1 : 0);
        return style with
        {
            Above = Number(Trait.Above, style.Above),
            Align = look[Trait.Align],
            Depth = depth,
            List = look[Trait.List],
            Indent = depth * Step,
            IsTicked = look[Trait.Ticked].Length > 0,
            Leading = Number(Trait.Leading, 100),
            FromRight = look[Trait.Direction] switch
            {
                "rtl" => true,
                "ltr" => false,
                _ => null,
            },
        };

        int Number(Trait trait, int usual) => look[trait] is { Length: > 0 } text ? int.Parse(text, CultureInfo.InvariantCulture) : usual;
    }
}
