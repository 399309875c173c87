namespace CalmQuill.Core.Art;

/// <summary>Covers of notebooks: a pattern that follows from the notebook's name, in its colour, with room for the title set on it.</summary>
public static class Cover
{
    /// <summary>The size of a cover in its own units.</summary>
    public const int Width = 840,
        Height = 1140;
    private const uint Light = 0xFFFDF761,
        Band = 0x00000024,
        Edge = 0xFFFFFF24;

    public static readonly string[] Designs =
    [
        "rings",
        "dots",
        "waves",
        "rays",
        "lattice",
        "bands",
        "gears",
        "steps",
        "leaves",
        "weave",
        "label",
        "hatch",
        "stars",
        "plain",
    ];

    /// <param name="design">One of <see cref="Designs"/>; another word gives rings.</param>
    /// <param name="colour">The cover's colour, 0xRRGGBBAA.</param>
    /// <param name="name">The notebook's name, from which the pattern takes its turns.</param>
    public static Drawing Draw(string design, uint colour, string name)
    {
        var drawing = new Drawing(colour);
        // FNV-1a over the name: the same name always gives the same cover.
        var seed = name.Aggregate(2166136261u, (hash, c) => unchecked((hash ^ c) * 16777619u));
        float Turn(int which, float from, float to) => from + (to - from) * ((seed >> (which * 5 % 27)) & 31) / 31f;
        var lines = new VectorPath();
        var fills = new VectorPath();
        Pattern(design, Turn, lines, fills);
        drawing.Add(new Piece.Fill(fills, Light));
        drawing.Add(new Piece.Line(lines, Light, 10));
        drawing.Add(new Piece.Fill(new VectorPath().Rectangle(0, 0, 70, Height), Band));
        drawing.Add(new Piece.Line(new VectorPath().Segment(70, 0, 70, Height), Edge, 10));
        return drawing;
    }

    private static void Pattern(string design, Func<int, float, float, float> turn, VectorPath lines, VectorPath fills)
    {
        switch (design)
        {
            case "plain":
                break;
            case "dots":
                for (var i = 0; i < 24; i++)
                    fills.Circle(170 + i % 6 * 115, 690 + i / 6 * 120, 10 + (i * 7 + (int)turn(0, 0, 9)) % 5 * turn(1, 5, 9));
                break;
            case "waves":
                for (var row = 0; row < 6; row++)
                    Wave(lines, 620 + row * 90, turn(0, 30, 80), turn(1, 90, 160));
                break;
            case "rays":
                float cx = turn(0, 300, 700),
                    cy = turn(1, 560, 720);
                for (var i = 0; i < 19; i++)
                    lines.Segment(cx, cy, -300 + i * 90, Height + 60);
                break;
            case "lattice":
                for (var x = -500; x < Width; x += (int)turn(0, 90, 150))
                    lines.Segment(x, Height, x + 520, 620).Segment(x + 520, Height, x, 620);
                break;
            case "bands":
                for (var i = 0; i < 5; i++)
                    fills.Rectangle(70, 640 + i * 96, Width, 12 + (i + (int)turn(0, 0, 4)) % 5 * 12);
                break;
            case "gears":
                Gear(lines, turn(0, 380, 470), turn(1, 800, 850), 170, (int)turn(2, 14, 22));
                Gear(lines, turn(3, 640, 690), turn(4, 1000, 1040), 95, (int)turn(1, 9, 13));
                break;
            case "steps":
                var step = turn(0, 60, 100);
                lines.MoveTo(70, Height - 60);
                for (float x = 70, y = Height - 60; x < Width; x += step, y -= step * 0.62f)
                    lines.LineTo(x, y).LineTo(x + step, y);
                break;
            case "leaves":
                for (var i = 0; i < 9; i++)
                    Leaf(fills, 180 + i % 3 * 230 + turn(0, -20, 20), 720 + i / 3 * 150, turn(1, 60, 90), i % 2 == 0 ? 1 : -1);
                break;
            case "weave":
                for (var i = 0; i < 48; i++)
                {
                    float x = 110 + i % 8 * 92,
                        y = 640 + i / 8 * 82;
                    if ((i + i / 8) % 2 == 0)
                        lines.Segment(x, y, x + turn(0, 55, 75), y);
                    else
                        lines.Segment(x + 30, y - 32, x + 30, y + 32);
                }

                break;
            case "label":
                lines.Rectangle(120, 90, 660, 430).Rectangle(138, 108, 624, 394);
                for (var i = 0; i < 4; i++)
                    lines.Segment(190, 700 + i * 90, turn(i, 480, 720), 700 + i * 90);
                break;
            case "hatch":
                for (var i = 0; i < 22; i++)
                    lines.Segment(70 + i * 38, Height, 70 + i * 38 + turn(0, 60, 200), 640 + Math.Abs(i - turn(1, 6, 16)) * 22);
                break;
            case "stars":
                for (var i = 0; i < 13; i++)
                    Star(fills, 150 + (i * 263 + turn(0, 0, 200)) % 640, 660 + i * 137 % 420, 14 + i * 7 % 4 * turn(1, 5, 9));
                break;
            default:
                float rx = turn(0, 520, 660),
                    ry = turn(1, 900, 1000),
                    gap = turn(2, 62, 92);
                for (var r = 1; r < 8; r++)
                    lines.Circle(rx, ry, r * gap);
                break;
        }
    }

    private static void Wave(VectorPath lines, float y, float high, float length)
    {
        lines.MoveTo(70, y);
        for (float x = 70, sign = 1; x < Width; x += length, sign = -sign)
            lines.CubicTo(x + length / 3, y - high * sign, x + length * 2 / 3, y - high * sign, x + length, y);
    }

    private static void Gear(VectorPath lines, float x, float y, float radius, int teeth)
    {
        for (var i = 0; i <= teeth * 4; i++)
        {
            var angle = MathF.PI * 2 * i / (teeth * 4);
            var r = i % 4 < 2 ? radius : radius * 0.84f;
            var (px, py) = (x + r * MathF.Cos(angle), y + r * MathF.Sin(angle));
            if (i == 0)
                lines.MoveTo(px, py);
            else
                lines.LineTo(px, py);
        }

        lines.Close().Circle(x, y, radius * 0.22f);
    }

    private static void Leaf(VectorPath fills, float x, float y, float size, int side) =>
        fills
            .MoveTo(x, y)
            .CubicTo(x + size * side, y - size * 0.9f, x + size * 1.5f * side, y - size * 0.5f, x + size * 1.7f * side, y)
            .CubicTo(x + size * 1.1f * side, y + size * 0.4f, x + size * 0.5f * side, y + size * 0.4f, x, y)
            .Close();

    private static void Star(VectorPath fills, float x, float y, float radius)
    {
        for (var i = 0; i < 8; i++)
        {
            var angle = MathF.PI / 4 * i;
            var r = i % 2 == 0 ? radius : radius * 0.35f;
            var (px, py) = (x + r * MathF.Sin(angle), y - r * MathF.Cos(angle));
            if (i == 0)
                fills.MoveTo(px, py);
            else
                fills.LineTo(px, py);
        }

        fills.Close();
    }
}
