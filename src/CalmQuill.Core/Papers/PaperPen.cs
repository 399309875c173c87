using CalmQuill.Core.Art;
using CalmQuill.Core.Ink;

namespace CalmQuill.Core.Papers;

/// <summary>Draws a design on one sheet. Coordinates are 0.01 mm from the sheet's own corner; lines of one look are gathered into one path.</summary>
public sealed class PaperPen
{
    private readonly Dictionary<(uint Colour, int Width, Dash? Dash), VectorPath> lines = [];
    private readonly Dictionary<uint, VectorPath> grounds = [];
    private readonly Dictionary<uint, VectorPath> words = [];
    private readonly Drawing drawing;
    private readonly Box sheet;

    internal PaperPen(Paper paper, Box sheet, Planner.PlannerPrint? face)
    {
        (Paper, this.sheet, PlannerPrint) = (paper, sheet, face);
        drawing = new Drawing(paper.Colour);
        Rule = paper.LineColour;
        Strong = Colours.StandingOut(Rule, paper.Colour, 2.2);
        Ink = Colours.StandingOut(Colours.IsDark(paper.Colour) ? 0xD8D2C4FF : 0x6B6A5EFF, paper.Colour, 4.5);
        Accent = Colours.StandingOut(0xB4533CFF, paper.Colour, 3);
    }

    public Paper Paper { get; }

    /// <summary>The dates of a planner's page; null on other sheets.</summary>
    public Planner.PlannerPrint? PlannerPrint { get; }

    public int Width => sheet.Right - sheet.Left;

    public int Height => sheet.Bottom - sheet.Top;

    public int Spacing => Paper.Spacing;

    public int Count => Paper.Count ?? Paper.Design.UsualCount;

    public bool HasWords => !Paper.Plain;

    /// <summary>The room at the sides of a form.</summary>
    public int Side => SideOf(Width);

    internal static int SideOf(int width) => Math.Clamp(width / 14, 500, 1500);

    /// <summary>Where the first line lies: in proportion to the sheet, as on A4.</summary>
    public int Head => Paper.Head ?? Paper.Design.UsualHead(Paper);

    /// <summary>Where the margin lies; 0 for none.</summary>
    public int Margin => Paper.Margin ?? Paper.Design.UsualMargin(Paper);

    public uint Rule { get; }

    /// <summary>Lines that part things.</summary>
    public uint Strong { get; }

    /// <summary>Printed words.</summary>
    public uint Ink { get; }

    public uint Accent { get; }

    public int Weight => Paper.Weight ?? 15;

    public void Horizontal(float y, float from, float to, uint? colour = null, int? weight = null, Dash? dash = null) =>
        Path(colour ?? Rule, weight ?? Weight, dash).Segment(sheet.Left + from, sheet.Top + y, sheet.Left + to, sheet.Top + y);

    public void Vertical(float x, float from, float to, uint? colour = null, int? weight = null) =>
        Path(colour ?? Rule, weight ?? Weight, null).Segment(sheet.Left + x, sheet.Top + from, sheet.Left + x, sheet.Top + to);

    public void Slope(float x1, float y1, float x2, float y2) =>
        Path(Rule, Weight, null).Segment(sheet.Left + x1, sheet.Top + y1, sheet.Left + x2, sheet.Top + y2);

    public void Box(float left, float top, float width, float height, uint? colour = null, int? weight = null) =>
        Path(colour ?? Strong, weight ?? Weight, null).Rectangle(sheet.Left + left, sheet.Top + top, width, height);

    public void Circle(float x, float y, float radius, uint? colour = null) =>
        Path(colour ?? Strong, Weight, null).Circle(sheet.Left + x, sheet.Top + y, radius);

    /// <summary>A row of dots, each as wide as three lines.</summary>
    public void Dots(float y, float from, float to, int apart) => Horizontal(y, from, to, Strong, Weight * 3, new Dash(0, apart));

    /// <summary>A coloured part, behind lines and words.</summary>
    public void Fill(float left, float top, float width, float height, uint colour) =>
        In(grounds, colour).Rectangle(sheet.Left + left, sheet.Top + top, width, height);

    /// <summary>Ruled lines over a part of the sheet, from <paramref name="first"/> on.</summary>
    public void Lines(float first, float bottom, float left, float right)
    {
        for (var y = first; y < bottom - Spacing / 2f; y += Spacing)
            Horizontal(y, left, right);
    }

    /// <summary>Printed words; nothing on plain paper.</summary>
    /// <param name="text">What is printed.</param>
    /// <param name="x">Where it begins, ends or has its middle, by <paramref name="align"/>.</param>
    /// <param name="baseline">Its baseline.</param>
    /// <param name="size">An em.</param>
    /// <param name="align">0 begins, 0.5 is centred, 1 ends at <paramref name="x"/>.</param>
    /// <param name="colour">The printed words' own unless given.</param>
    public void Words(string text, float x, float baseline, float size, float align = 0, uint? colour = null)
    {
        if (HasWords)
            Print(text, x, baseline, size, align, colour);
    }

    /// <summary>What is printed also on plain paper: dates, numbers.</summary>
    public void Print(string text, float x, float baseline, float size, float align = 0, uint? colour = null) =>
        Glyphs.Write(text, sheet.Left + x - Glyphs.Width(text, size) * align, sheet.Top + baseline, size, In(words, colour ?? Ink));

    /// <summary>A field of a header: its name, and a line to write on.</summary>
    public void Field(string name, float left, float right, float y)
    {
        if (!HasWords)
            return;
        Words(name, left, y, 300);
        Horizontal(y + 60, left + Glyphs.Width(name, 300) + 150, right, Strong);
    }

    /// <summary>A printed part with its name over a hairline.</summary>
    public void Part(string name, float left, float top, float right)
    {
        Words(name, left, top, 330, 0, Ink);
        Horizontal(top + 130, left, right, Strong);
    }

    /// <summary>Makes a part of a planner's sheet lead to one of its pages.</summary>
    public void Link(float left, float top, float width, float height, Planner.PlannerPage page)
    {
        if (PlannerPrint is not { } face)
            return;
        drawing.Add(
            new DrawingLink(
                new Box((int)left + sheet.Left, (int)top + sheet.Top, (int)(left + width) + sheet.Left, (int)(top + height) + sheet.Top),
                page.IdIn(face.Notebook),
                page
            )
        );
    }

    internal Drawing Finish()
    {
        if (Paper.Grain)
            LayGrain();
        foreach (var (colour, path) in grounds)
            drawing.Add(new Piece.Fill(path, colour));
        foreach (var ((colour, width, dash), path) in lines)
            drawing.Add(new Piece.Line(path, colour, width, dash));
        foreach (var (colour, path) in words)
            drawing.Add(new Piece.Fill(path, colour));
        return drawing;
    }

    /// <summary>Fibres of paper: specks a touch darker or lighter than it, the same on every sheet of a size.</summary>
    private void LayGrain()
    {
        const int area = 700_000;
        var seed = 1730u;
        float Next(int most)
        {
            seed = unchecked(seed * 1_664_525 + 1_013_904_223);
            return (seed >> 8) / (float)(1 << 24) * most;
        }

        var colour = (Colours.IsDark(Paper.Colour) ? 0xFFFFFF00u : 0x6B5B3A00u) | 0x0E;
        for (var i = Math.Min(4_000, (long)Width * Height / area); i > 0; i--)
            Fill(Next(Width), Next(Height), 40 + Next(260), 12 + Next(20), colour);
    }

    private VectorPath Path(uint colour, int width, Dash? dash)
    {
        if (!lines.TryGetValue((colour, width, dash), out var path))
            lines[(colour, width, dash)] = path = new VectorPath();
        return path;
    }

    private static VectorPath In(Dictionary<uint, VectorPath> layer, uint colour)
    {
        if (!layer.TryGetValue(colour, out var path))
            layer[colour] = path = new VectorPath();
        return path;
    }
}
