using CalmQuill.Core.Art;
using CalmQuill.Core.Ink;

namespace CalmQuill.Core.Papers;

/// <summary>The lines that a paper is ruled with, as somebody who types on them needs them: found in what is printed on it, whatever its design.</summary>
public static class PaperRows
{
    /// <summary>Room at the sheet's right edge, 0.01 mm.</summary>
    private const int Edge = 1_000;

    /// <summary>Lines farther apart than this are no ruling, and nor are closer ones; 0.01 mm.</summary>
    private const int LeastPitch = 300,
        MostPitch = 2_500;

    /// <summary>A press so far below a line, as a share of the distance, still means that line.</summary>
    private const double Below = 0.3;

    /// <summary>Where a line of text stands that is begun at a place.</summary>
    /// <param name="Foot">The line that its letters stand on, 0.01 mm.</param>
    /// <param name="Pitch">How far the next one is below it; 0 where the paper has none there.</param>
    /// <param name="Right">Where it ends.</param>
    public readonly record struct Row(int Foot, int Pitch, int Right);

    /// <param name="drawing">What is printed.</param>
    /// <param name="sheet">Where the sheet lies.</param>
    /// <param name="x">Where it is pressed, 0.01 mm.</param>
    /// <param name="y">See <paramref name="x"/>.</param>
    public static Row At(Drawing drawing, Box sheet, int x, int y)
    {
        var lines = new SortedDictionary<int, int>();
        foreach (var line in drawing.Pieces.OfType<Piece.Line>())
        {
            foreach (var (left, right, foot) in Level(line.Path))
            {
                if (left <= x && x < right)
                    lines[foot] = Math.Max(lines.GetValueOrDefault(foot, right), right);
            }
        }

        var feet = lines.Keys.ToList();
        var free = new Row(y, 0, sheet.Right - Edge);
        for (var i = 0; i + 1 < feet.Count; i++)
        {
            var pitch = feet[i + 1] - feet[i];
            // A press above the first line of several means that one.
            var from = i == 0 ? feet[0] - pitch : feet[i];
            if (pitch is < LeastPitch or > MostPitch || y < from || y > feet[i + 1] + pitch * Below)
                continue;
            var at = y <= feet[i] + pitch * Below ? feet[i] : feet[i + 1];
            return new Row(at, pitch, Math.Min(lines[at], sheet.Right - Edge));
        }

        return free;
    }

    /// <summary>The level lines of a path: from where to where, and how high.</summary>
    private static IEnumerable<(int Left, int Right, int Foot)> Level(VectorPath path)
    {
        var at = 0;
        float x = 0,
            y = 0;
        var points = path.Points;
        foreach (var step in path.Steps)
        {
            var count = VectorPath.PointsOf(step) * 2;
            if (count == 0)
                continue;
            var (toX, toY) = (points[at + count - 2], points[at + count - 1]);
            if (step == VectorPath.Step.Line && Math.Abs(toY - y) < 0.5 && Math.Abs(toX - x) > Edge)
                yield return ((int)Math.Round(Math.Min(x, toX)), (int)Math.Round(Math.Max(x, toX)), (int)Math.Round(y));
            (x, y, at) = (toX, toY, at + count);
        }
    }
}
