using CalmQuill.Core.Ink;
using CalmQuill.Core.Papers;

namespace CalmQuill.Core.Changing;

/// <summary>Where the loupe's box goes next: along the line, and at its end to the next one by the paper's ruling.</summary>
public static class LoupeSteps
{
    /// <summary>So much of the box stays in sight when it steps on, so that the last word can be read.</summary>
    private const double Overlap = 0.3;

    /// <summary>Nobody writes lines closer than this; what is printed finer is squares or staves.</summary>
    private const int LeastLine = 400;

    /// <summary>How far lines lie apart: one printed line, however wide or high the box; on finer grids as many of them as a line of writing needs.</summary>
    public static int LineStep(Paper paper)
    {
        var spacing = Math.Max(paper.Spacing, Paper.LeastSpacing);
        return (LeastLine + spacing - 1) / spacing * spacing;
    }

    /// <summary>The box one step on; at the end of the line at the beginning of the next.</summary>
    /// <param name="box">Where it is.</param>
    /// <param name="paper">The paper, for its margin and ruling.</param>
    /// <param name="sheet">Where the sheet lies.</param>
    /// <param name="begin">Where lines begin: where the person began this one.</param>
    public static Box On(Box box, Paper paper, Box sheet, int begin)
    {
        var width = box.Right - box.Left;
        if (box.Right >= sheet.Right - width / 20)
            return NextLine(box, paper, sheet, begin);
        var step = (int)(width * (1 - Overlap));
        return Shifted(box, Math.Min(step, sheet.Right - box.Right), 0);
    }

    public static Box Back(Box box, Box sheet)
    {
        var step = (int)((box.Right - box.Left) * (1 - Overlap));
        return Shifted(box, -Math.Min(step, Math.Max(0, box.Left - sheet.Left)), 0);
    }

    /// <summary>The beginning of the next line; on the last line it stays.</summary>
    public static Box NextLine(Box box, Paper paper, Box sheet, int begin)
    {
        var step = LineStep(paper);
        if (box.Bottom + step > sheet.Bottom && paper.Growth == Growth.None)
            return Shifted(box, begin - box.Left, Math.Max(0, sheet.Bottom - box.Bottom));
        return Shifted(box, begin - box.Left, step);
    }

    private static Box Shifted(Box box, int dx, int dy) => box.Shift(dx, dy);
}
