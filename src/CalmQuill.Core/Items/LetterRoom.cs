using CalmQuill.Core.Ink;
using CalmQuill.Core.Typesetting;

namespace CalmQuill.Core.Items;

/// <summary>Letters that are set together, and where they lie: all that is typed into a thing, or what stands in one cell of a table.</summary>
/// <param name="Name">What names it within its thing; empty where there is only one.</param>
/// <param name="Set">The letters as they are set.</param>
/// <param name="Place">Where their measures lie on the page.</param>
/// <param name="Box">Where they are typed, their measures.</param>
/// <param name="Measure">How long their lines are, 0.01 mm.</param>
public sealed record LetterRoom(string Name, SetText Set, Affine Place, Box Box, int Measure)
{
    /// <summary>Where the caret before a letter stands on the page: its upper and its lower end.</summary>
    public ((double X, double Y) Top, (double X, double Y) Foot) CaretAt(int letter)
    {
        var (line, start, y) = Set.LineOf(letter);
        var x = line.CaretAt(Math.Clamp(letter - start, line.Start, line.End));
        return (OnPage(x, y - line.Ascent), OnPage(x, y + line.Descent));
    }

    /// <summary>What lies behind letters that are selected: for each line its four corners on the page.</summary>
    /// <param name="from">The first letter.</param>
    /// <param name="to">Behind the last one.</param>
    public IEnumerable<(double X, double Y)[]> Behind(int from, int to)
    {
        foreach (var (paragraph, start, top) in Set.Paragraphs)
        {
            foreach (var line in paragraph.Lines.Where(line => start + line.Start < to && from < start + line.End))
            {
                int one = line.CaretAt(Math.Max(from - start, line.Start)),
                    other = line.CaretAt(Math.Min(to - start, line.End)),
                    y = top + line.Y;
                yield return
                [
                    OnPage(one, y - line.Ascent),
                    OnPage(other, y - line.Ascent),
                    OnPage(other, y + line.Descent),
                    OnPage(one, y + line.Descent),
                ];
            }
        }
    }

    /// <summary>The first letter of the paragraph whose box to be ticked is at a spot, or so near that a press there means it; null for none.</summary>
    public int? TickAt(double x, double y)
    {
        var (bx, by) = Place.Back(x, y);
        foreach (var (paragraph, start, top) in Set.Paragraphs)
        {
            if (paragraph.Style.List != "tick")
                continue;
            var (left, side) = TextFills.TickOf(paragraph, Set.Width);
            double reach = side / 2.0,
                foot = top + paragraph.Lines[0].Y,
                px = bx * Lengths.PerUnit,
                py = by * Lengths.PerUnit;
            if (px >= left - reach && px <= left + side + reach && py >= foot - side - reach && py <= foot + reach)
                return start;
        }

        return null;
    }

    /// <summary>The upper left and the lower right corner of the box to be ticked of the paragraph that begins with a letter, on the page.</summary>
    public (double X, double Y)[] TickOf(int letter)
    {
        var (paragraph, _, top) = Set.Paragraphs.First(one => one.Start == letter);
        var (left, side) = TextFills.TickOf(paragraph, Set.Width);
        var foot = top + paragraph.Lines[0].Y;
        return [OnPage(left, foot - side), OnPage(left + side, foot)];
    }

    /// <summary>The letter before which a press sets the caret; 0.01 mm on the page.</summary>
    public int LetterAt(double x, double y)
    {
        var (bx, by) = Place.Back(x, y);
        return Set.LetterAt((int)(bx * Lengths.PerUnit), (int)(by * Lengths.PerUnit));
    }

    private (double X, double Y) OnPage(int x, int y) => Place.Of(x / (double)Lengths.PerUnit, y / (double)Lengths.PerUnit);
}
