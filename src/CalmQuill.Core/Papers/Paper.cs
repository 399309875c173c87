using CalmQuill.Core.Art;
using CalmQuill.Core.Ink;

namespace CalmQuill.Core.Papers;

/// <summary>What a page is written on: a size, a design, and what is set differently from the design's own measures. Lengths are 0.01 mm, colours 0xRRGGBBAA.</summary>
/// <param name="Size">The size of the upright sheet.</param>
/// <param name="Design">What is printed on it.</param>
/// <param name="Spacing">The distance of lines, squares or dots.</param>
public sealed record Paper(PaperSize Size, PaperDesign Design, int Spacing)
{
    public const int LeastSpacing = 100,
        MostSpacing = 6_000,
        MostCount = 60;

    /// <summary>The colour of plain paper.</summary>
    public const uint White = 0xFFFDF7FF;

    /// <summary>A4, ruled at 7.1 mm (common practice: college ruling).</summary>
    public static readonly Paper Default = new(PaperSize.A4, PaperDesigns.Find("ruled")!, 710);

    /// <summary>Whether the sheet lies across.</summary>
    public bool Across { get; init; }

    public Growth Growth { get; init; }

    /// <summary>Distance of the first line from the upper edge; none for the design's own.</summary>
    public int? Head { get; init; }

    /// <summary>A line down the sheet so far from its left edge; none for the design's own.</summary>
    public int? Margin { get; init; }

    /// <summary>How many columns, staves, rows or frames; none for the design's own.</summary>
    public int? Count { get; init; }

    /// <summary>The paper's colour; none for the design's own.</summary>
    public uint? Tint { get; init; }

    /// <summary>The colour of its lines; none for one that suits the paper.</summary>
    public uint? LineTint { get; init; }

    /// <summary>The width of its lines; none for 0.15 mm.</summary>
    public int? Weight { get; init; }

    /// <summary>Without the design's words and header.</summary>
    public bool Plain { get; init; }

    /// <summary>Staves in pairs, joined by a brace.</summary>
    public bool Paired { get; init; }

    /// <summary>With a header for a title and a date.</summary>
    public bool Headed { get; init; }

    /// <summary>With a very light grain.</summary>
    public bool Grain { get; init; }

    /// <summary>The paper of one's own that lies under it; the empty id for none.</summary>
    public Guid Own { get; init; }

    public int Width =>
        Across ? Math.Max(Size.Width, Size.Height)
        : Size.Name.Contains('x', StringComparison.Ordinal) ? Size.Width
        : Math.Min(Size.Width, Size.Height);

    public int Height =>
        Across ? Math.Min(Size.Width, Size.Height)
        : Size.Name.Contains('x', StringComparison.Ordinal) ? Size.Height
        : Math.Max(Size.Width, Size.Height);

    public uint Colour => Tint ?? Design.Tint;

    /// <summary>The colour of ruled lines: the wished one where it is given, else one that can be seen on the paper without being loud.</summary>
    public uint LineColour =>
        LineTint
        ?? (
            Design.LineTint is { } own && Tint is null
                ? own
                : Colours.StandingOut(
                    Colours.IsDark(Colour) ? Colours.Mix(Colour, 0xFFFFFFFF, 0.16) : Colours.Mix(0xC9D3CFFF, Colour, 0.1),
                    Colour,
                    Colours.IsDark(Colour) ? 1.7 : 1.45
                )
        );

    /// <summary>The short text that operations carry; see <see cref="PaperText"/>.</summary>
    public override string ToString() => PaperText.Write(this);

    public static bool TryParse(string text, out Paper paper)
    {
        var read = PaperText.Read(text);
        paper = read.Paper ?? Default;
        return read.Paper is not null;
    }

    public static Paper ParseOrDefault(string text) => TryParse(text, out var paper) ? paper : Default;

    /// <summary>The sheet as it lies under what is written on it: a page that grows always has half a sheet more than its ink needs.</summary>
    /// <param name="ink">The box of what is on the page; null for an empty one.</param>
    public Box Sheet(Box? ink)
    {
        var sheet = new Box(0, 0, Width, Height);
        if (Growth == Growth.None || ink is not { } box)
            return sheet;
        // Steps are whole spacings, so that lines stay where they were.
        int Step(int edge) => Math.Max(1, edge / 2 / Spacing) * Spacing;
        int down = Step(Height),
            side = Step(Width);
        int Grown(int needed, int edge, int step) =>
            needed + step / 2 <= edge ? edge : edge + (int)Math.Ceiling((needed + step / 2 - edge) / (double)step) * step;
        sheet = sheet with { Bottom = Math.Min(Grown(box.Bottom, Height, down), StrokeSamples.MostCoordinate) };
        if (Growth == Growth.Down)
            return sheet;
        return new Box(-Grown(-box.Left, 0, side), -Grown(-box.Top, 0, down), Grown(box.Right, Width, side), sheet.Bottom);
    }

    /// <summary>How many crossings of its ruling a sheet that has grown may have; a page of squares of 5 mm grown to 12 m by 12 m. Beyond it the sheet is blank.</summary>
    private const long MostCrossings = 6_000_000;

    /// <summary>What is printed on the sheet.</summary>
    /// <param name="sheet">Where the sheet lies; see <see cref="Sheet"/>.</param>
    /// <param name="face">The dates on it, for a page of a planner.</param>
    public Drawing Draw(Box sheet, Planner.PlannerPrint? face = null)
    {
        var pen = new PaperPen(this, sheet, face);
        var isGrown = pen.Width > Width || pen.Height > Height;
        if (!isGrown || (long)pen.Width * pen.Height / ((long)Spacing * Spacing) <= MostCrossings)
            Design.Lay(pen);
        if (Headed && Design.CanBeHeaded && face is null)
            Designs.Header.Lay(pen);
        if (face is not null)
        {
            Designs.Calendars.LayHead(pen);
            Designs.PlannerTabs.Lay(pen);
        }

        return pen.Finish();
    }
}
