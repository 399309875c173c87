namespace CalmQuill.Core.Papers.Designs;

/// <summary>Papers to draw and reckon on.</summary>
internal static class Grids
{
    private const string Group = "Grids";

    public static readonly PaperDesign[] All =
    [
        new("squared", "Squared", Group, 500, LaySquared)
        {
            SpacingWords = "Squares",
            HasHead = true,
            UsualHead = UsualHead,
            MarginWords = "Margin",
            CanBeHeaded = true,
        },
        new("millimetre", "Millimetre", Group, 100, LayMillimetre) { SpacingWords = "" },
        new("dotted", "Dotted", Group, 500, LayDotted)
        {
            SpacingWords = "Dots",
            HasHead = true,
            UsualHead = UsualHead,
            MarginWords = "Margin",
            CanBeHeaded = true,
        },
        new("isometric", "Isometric", Group, 700, LayIsometric) { SpacingWords = "Triangles" },
    ];

    /// <summary>Squares and dots begin at the sheet's edge, or below its header.</summary>
    private static int UsualHead(Paper paper) => paper.Headed ? Header.Height : 0;

    private static void LaySquared(PaperPen pen)
    {
        Squares(pen, pen.Spacing, pen.Rule, pen.Weight, pen.Head);
        Ruled.LayMargin(pen);
    }

    private static void Squares(PaperPen pen, int apart, uint colour, int weight, int head = 0)
    {
        for (var y = head > 0 ? head : apart; y < pen.Height; y += apart)
            pen.Horizontal(y, 0, pen.Width, colour, weight);
        for (var x = apart; x < pen.Width; x += apart)
            pen.Vertical(x, head, pen.Height, colour, weight);
    }

    private static void LayMillimetre(PaperPen pen)
    {
        Squares(pen, 100, pen.Rule, 6);
        Squares(pen, 500, pen.Rule, 14);
        Squares(pen, 1000, pen.Strong, 18);
    }

    private static void LayDotted(PaperPen pen)
    {
        for (var y = pen.Head > 0 ? pen.Head : pen.Spacing; y < pen.Height; y += pen.Spacing)
            pen.Dots(y, pen.Spacing, pen.Width - 1, pen.Spacing);
        Ruled.LayMargin(pen);
    }

    /// <summary>Upright lines, and lines at 30° both ways through their crossings.</summary>
    private static void LayIsometric(PaperPen pen)
    {
        var apart = pen.Spacing * MathF.Sqrt(3) / 2;
        for (var x = apart; x < pen.Width; x += apart)
            pen.Vertical(x, 0, pen.Height);
        var rise = pen.Width / MathF.Sqrt(3);
        for (var y = -MathF.Floor(rise / pen.Spacing) * pen.Spacing; y < pen.Height + rise; y += pen.Spacing)
        {
            Clipped(pen, y, rise);
            Clipped(pen, y, -rise);
        }
    }

    /// <summary>A line from (0, y) to the right edge, as far as it lies on the sheet.</summary>
    private static void Clipped(PaperPen pen, float y, float rise)
    {
        float from = 0,
            to = 1;
        // Where it crosses the upper and the lower edge, in shares of its length.
        float top = -y / rise,
            bottom = (pen.Height - y) / rise;
        from = Math.Max(from, Math.Min(top, bottom));
        to = Math.Min(to, Math.Max(top, bottom));
        if (from < to)
            pen.Slope(from * pen.Width, y + rise * from, to * pen.Width, y + rise * to);
    }
}
