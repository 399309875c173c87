namespace CalmQuill.Core.Papers.Designs;

/// <summary>A header over lines, squares or staves: a title and a date to fill in.</summary>
internal static class Header
{
    /// <summary>So much of the sheet it takes, so that what begins at the edge begins below it.</summary>
    public const int Height = 2_000;

    public static void Lay(PaperPen pen)
    {
        var y = Math.Clamp(pen.Head * 0.45f, 800, 1_500);
        float left = Math.Max(pen.Side, pen.Margin + 250),
            right = pen.Width - pen.Side,
            split = left + (right - left) * 0.68f;
        pen.Field("Title", left, split - 500, y);
        pen.Field("Date", split, right, y);
    }
}
