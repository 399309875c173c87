namespace CalmQuill.Core.Papers.Designs;

/// <summary>Staves of five lines, tablature of six and of four (common practice).</summary>
internal static class Music
{
    private const string Group = "Music";
    private const int MostStaves = 14;

    public static readonly PaperDesign[] All =
    [
        new("staves", "Music", Group, 180, LayStaves)
        {
            HasHead = true,
            UsualHead = UsualHead,
            CanBeHeaded = true,
            SpacingWords = "Staff lines",
            CountWords = "Staves",
            UsualCount = 10,
            MostCount = MostStaves,
        },
        new("guitar", "Guitar tablature", Group, 280, pen => LayTablature(pen, 6))
        {
            HasHead = true,
            UsualHead = UsualHead,
            CanBeHeaded = true,
            SpacingWords = "Strings",
            CountWords = "Systems",
            UsualCount = 8,
            MostCount = MostStaves,
            HasWords = true,
        },
        new("bass", "Bass tablature", Group, 320, pen => LayTablature(pen, 4))
        {
            HasHead = true,
            UsualHead = UsualHead,
            CanBeHeaded = true,
            SpacingWords = "Strings",
            CountWords = "Systems",
            UsualCount = 8,
            MostCount = MostStaves,
            HasWords = true,
        },
    ];

    /// <summary>The first stave, in proportion to the room at the sides, and below a header.</summary>
    private static int UsualHead(Paper paper) =>
        Math.Max((int)(PaperPen.SideOf(paper.Width) * 1.6f), paper.Headed ? Header.Height + 500 : 0);

    private static void LayStaves(PaperPen pen)
    {
        const int lines = 5;
        var places = Places(pen, lines);
        for (var i = 0; i < places.Count; i++)
        {
            for (var line = 0; line < lines; line++)
                pen.Horizontal(places[i] + line * pen.Spacing, pen.Side, pen.Width - pen.Side, pen.Strong);
            if (!pen.Paper.Paired || i % 2 == 1 || i + 1 == places.Count)
                continue;
            var bottom = places[i + 1] + (lines - 1) * pen.Spacing;
            pen.Vertical(pen.Side, places[i], bottom, pen.Strong);
            pen.Vertical(pen.Width - pen.Side, places[i], bottom, pen.Strong);
            Brace(pen, places[i], bottom);
        }
    }

    private static void LayTablature(PaperPen pen, int strings)
    {
        foreach (var top in Places(pen, strings))
        {
            for (var line = 0; line < strings; line++)
                pen.Horizontal(top + line * pen.Spacing, pen.Side, pen.Width - pen.Side, pen.Strong);
            pen.Vertical(pen.Side, top, top + (strings - 1) * pen.Spacing, pen.Strong);
            pen.Vertical(pen.Width - pen.Side, top, top + (strings - 1) * pen.Spacing, pen.Strong);
            var size = pen.Spacing * 1.25f;
            for (var letter = 0; letter < 3; letter++)
                pen.Words(
                    "TAB"[letter].ToString(),
                    pen.Side + 350,
                    top + (strings - 1) * pen.Spacing / 2f + (letter - 0.62f) * size,
                    size,
                    0.5f
                );
        }
    }

    /// <summary>The upper lines of staves spread evenly over the sheet; fewer than wished where they would touch.</summary>
    private static List<float> Places(PaperPen pen, int lines)
    {
        var staff = (lines - 1) * pen.Spacing;
        float top = pen.Head;
        var room = pen.Height - top - pen.Side;
        var count = (int)Math.Clamp(Math.Min(pen.Count, room / (staff * 1.5f)), 1, MostStaves);
        var step = count == 1 ? 0 : (room - staff) / (count - 1);
        return [.. Enumerable.Range(0, count).Select(i => top + i * step)];
    }

    private static void Brace(PaperPen pen, float top, float bottom)
    {
        float x = pen.Side - 120,
            middle = (top + bottom) / 2,
            wide = 260;
        var steps = 24;
        for (var half = 0; half < 2; half++)
        {
            float from = half == 0 ? top : bottom,
                lastX = x,
                lastY = from;
            for (var i = 1; i <= steps; i++)
            {
                var t = i / (float)steps;
                // Out, back, and to the point in the middle.
                var bow = x - wide * (0.55f * MathF.Sin(t * MathF.PI) + 0.45f * t * t * t);
                var y = from + (middle - from) * t;
                pen.Slope(lastX, lastY, bow, y);
                (lastX, lastY) = (bow, y);
            }
        }
    }
}
