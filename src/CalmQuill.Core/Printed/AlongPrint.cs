namespace CalmQuill.Core.Printed;

/// <summary>Where a highlighter's stroke comes to lie that was drawn along printed words: straight over those it went over, from the first to the last, as high as they are.</summary>
/// <param name="X1">Where it begins, 0.01 mm.</param>
/// <param name="Y1">The same, down.</param>
/// <param name="X2">Where it ends.</param>
/// <param name="Y2">The same, down.</param>
/// <param name="Width">How wide it is.</param>
/// <param name="Words">The words, in their order along the line, by their places among those given.</param>
public sealed record AlongPrint(double X1, double Y1, double X2, double Y2, double Width, IReadOnlyList<int> Words)
{
    /// <summary>A stroke is at least so long, 0.01 mm; what is shorter is a dot.</summary>
    private const double LeastLength = 200;

    /// <summary>It is at most so many times as long as the way from its beginning to its end; what is longer is a scribble.</summary>
    private const double MostDetour = 1.35;

    /// <summary>It leaves the way the words are read by so much at most: the cosine of 15°.</summary>
    private const double LeastCosine = 0.966;

    /// <summary>It lies from the middle of the letters so far off at most, in shares of the type's height.</summary>
    private const double MostOff = 0.62;

    /// <summary>So much of a word was gone over where it is meant.</summary>
    private const double LeastShare = 0.4;

    /// <summary>What is laid over letters is so much of the type's height.</summary>
    private const double Covering = 1.05;

    /// <summary>Null where it was not drawn along words.</summary>
    /// <param name="stroke">The stroke's places: x and y in turn.</param>
    /// <param name="words">The words of the page.</param>
    public static AlongPrint? Of(IReadOnlyList<double> stroke, IReadOnlyList<PrintedWord> words)
    {
        if (stroke.Count < 4)
            return null;
        var (from, to) = ((X: stroke[0], Y: stroke[1]), (X: stroke[^2], Y: stroke[^1]));
        var (dx, dy) = (to.X - from.X, to.Y - from.Y);
        var length = Math.Sqrt(dx * dx + dy * dy);
        if (length < LeastLength || Travelled(stroke) > length * MostDetour)
            return null;

        // The line that is nearest to the stroke is the one that is meant.
        var hits = new List<(int Word, double Off)>();
        for (var i = 0; i < words.Count; i++)
        {
            if (Off(words[i], from, (dx, dy), length) is { } off)
                hits.Add((i, off));
        }

        if (hits.Count == 0)
            return null;
        var meant = words[hits.MinBy(hit => hit.Off).Word];
        var (ux, uy) = meant.Along;
        var (bx, by) = meant.Begin;
        var over = hits.Select(hit => hit.Word)
            .Where(word => IsOnLineOf(words[word], meant))
            .Select(word => (Word: word, Start: At(words[word].X1, words[word].Y1), End: At(words[word].X2, words[word].Y2)))
            .OrderBy(one => one.Start)
            .ToList();
        var (start, end) = (over.Min(one => one.Start), over.Max(one => one.End));
        var height = over.Max(one => words[one.Word].Height);
        return new AlongPrint(
            bx + ux * start,
            by + uy * start,
            bx + ux * end,
            by + uy * end,
            height * Covering,
            [.. over.Select(one => one.Word)]
        );

        double At(double x, double y) => (x - bx) * ux + (y - by) * uy;
    }

    /// <summary>How far a stroke lies off a word that it went over, in shares of its height; null where it did not.</summary>
    private static double? Off(PrintedWord word, (double X, double Y) from, (double X, double Y) way, double length)
    {
        var own = word.Length;
        if (!(own > 0 && word.Height > 0))
            return null;
        var (ux, uy) = word.Along;
        if (Math.Abs(way.X * ux + way.Y * uy) < LeastCosine * length)
            return null;
        var (bx, by) = word.Begin;
        var first = (from.X - bx) * ux + (from.Y - by) * uy;
        var last = first + way.X * ux + way.Y * uy;
        var gone = Math.Min(own, Math.Max(first, last)) - Math.Max(0, Math.Min(first, last));
        if (gone < own * LeastShare)
            return null;
        // Where the stroke passes the word's middle.
        var share = last == first ? 0 : Math.Clamp((own / 2 - first) / (last - first), 0, 1);
        var (px, py) = (from.X + way.X * share, from.Y + way.Y * share);
        var off = Math.Abs((px - bx) * -uy + (py - by) * ux) / word.Height;
        return off <= MostOff ? off : null;
    }

    private static bool IsOnLineOf(PrintedWord word, PrintedWord other)
    {
        var (ux, uy) = other.Along;
        var (wx, wy) = word.Along;
        var off = Math.Abs((word.X1 - other.X1) * -uy + (word.Y1 - other.Y1) * ux);
        return ux * wx + uy * wy > 0.99 && off <= 0.3 * Math.Max(word.Height, other.Height);
    }

    private static double Travelled(IReadOnlyList<double> stroke)
    {
        var travelled = 0.0;
        for (var i = 2; i + 1 < stroke.Count; i += 2)
        {
            var (dx, dy) = (stroke[i] - stroke[i - 2], stroke[i + 1] - stroke[i - 1]);
            travelled += Math.Sqrt(dx * dx + dy * dy);
        }

        return travelled;
    }
}
