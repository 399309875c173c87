namespace CalmQuill.Core.Papers;

/// <summary>One printed line from (X1, Y1) to (X2, Y2), in 0.01 mm.</summary>
public readonly record struct PaperLine(int X1, int Y1, int X2, int Y2)
{
    /// <summary>Width of printed lines: 0.15 mm.</summary>
    public const int Width = 15;

    /// <summary>Colour of printed lines, 0xRRGGBBAA.</summary>
    public const uint Colour = 0xC9D3CFFF;
}
