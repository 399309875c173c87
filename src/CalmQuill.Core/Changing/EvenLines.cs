using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;

namespace CalmQuill.Core.Changing;

/// <summary>Handwriting straightened and evenly spaced.</summary>
/// <remarks>
/// Strokes are grouped into lines by how far they overlap downwards, allowing for a slope, and lines into words by the gaps between strokes. A line's
/// baseline is a straight line through the feet of its words by Theil's and Sen's estimator (Theil 1950, Sen 1968): the median of the slopes of all
/// pairs, then the median of what is left, so that letters with descenders, up to 29 % of the feet, do not pull it down. Each word is then turned and
/// moved as a whole, so that a hand stays a hand.
/// </remarks>
public static class EvenLines
{
    /// <summary>A gap of this share of the line's height parts words.</summary>
    private const double WordGap = 0.45;

    /// <summary>Between about so many points the slopes of all pairs are taken.</summary>
    private const int MostPaired = 400;

    /// <summary>What is done to the words.</summary>
    /// <param name="Strength">0 leaves all as it is, 1 makes it even.</param>
    /// <param name="Words">Whether the gaps between words are evened too.</param>
    /// <param name="Height">Whether the words' heights are levelled.</param>
    public readonly record struct Wish(double Strength, bool Words, bool Height);

    /// <summary>A line of handwriting as found.</summary>
    /// <param name="Words">Its words from left to right.</param>
    /// <param name="Slope">Of its baseline, downwards for each to the right.</param>
    /// <param name="Foot">Where the baseline crosses the page's left edge, 0.01 mm.</param>
    public sealed record Line(IReadOnlyList<Word> Words, double Slope, double Foot)
    {
        public double BaselineAt(double x) => Foot + Slope * x;

        public int Left => Words.Min(word => word.Box.Left);
    }

    /// <summary>A word: strokes that lie close beside each other.</summary>
    public sealed record Word(IReadOnlyList<PageItem> Items, Box Box)
    {
        public double Middle => (Box.Left + Box.Right) / 2.0;
    }

    /// <summary>The lines of handwriting among items, from above.</summary>
    public static List<Line> Find(IReadOnlyList<PageItem> items)
    {
        var strokes = items.Where(item => item.Shown).OrderBy(item => item.Bounds.Left).ToList();
        if (strokes.Count == 0)
            return [];
        var height = Median(
            strokes.Select(item => (double)(item.Bounds.Bottom - item.Bounds.Top)).Where(high => high > 60).DefaultIfEmpty(400)
        );
        var lines = new List<List<PageItem>>();
        foreach (var stroke in strokes)
        {
            // A stroke belongs to the line whose last written part it lies beside; what lies nearest wins.
            var best = lines
                .Select(line => (Line: line, Off: Math.Abs(MiddleOf(stroke) - Recent(line, stroke, height))))
                .OrderBy(one => one.Off)
                .FirstOrDefault();
            if (best.Line is not null && best.Off < height * 0.95)
                best.Line.Add(stroke);
            else
                lines.Add([stroke]);
        }

        return [.. lines.Select(line => Fit(line, height)).OrderBy(line => line.BaselineAt(line.Left))];
    }

    /// <summary>What is to be done to each word: its strokes and one transform for all of them. Words that stay where they are are left out.</summary>
    public static List<(IReadOnlyList<PageItem> Items, Transform Transform)> Work(IReadOnlyList<PageItem> items, Wish wish)
    {
        var lines = Find(items);
        var steps = new List<(IReadOnlyList<PageItem>, Transform)>();
        if (lines.Count == 0 || wish.Strength <= 0)
            return steps;
        var (feet, left) = Feet(lines);
        var heights = lines.SelectMany(line => line.Words).Select(word => (double)(word.Box.Bottom - word.Box.Top)).ToList();
        var height = Median(heights);
        for (var i = 0; i < lines.Count; i++)
        {
            var line = lines[i];
            var places = wish.Words ? Spaced(line) : [.. line.Words.Select(word => (double)word.Box.Left)];
            for (var w = 0; w < line.Words.Count; w++)
            {
                var word = line.Words[w];
                double turn = -Math.Atan(line.Slope) * wish.Strength,
                    baseline = line.BaselineAt(word.Middle);
                var scale = wish.Height
                    ? 1 + (Math.Clamp(height / Math.Max(word.Box.Bottom - word.Box.Top, 1), 0.7, 1.4) - 1) * wish.Strength
                    : 1;
                double dx = (places[w] - word.Box.Left + (left - line.Left) * (Math.Abs(left - line.Left) < 600 ? 1 : 0)) * wish.Strength,
                    dy = (feet[i] - baseline) * wish.Strength;
                steps.Add((word.Items, About(word.Middle, baseline, turn, scale, dx, dy)));
            }
        }

        return steps;
    }

    /// <summary>Theil's and Sen's line through points: its slope and where it crosses x = 0. Of very many points the slopes are taken between evenly picked ones.</summary>
    public static (double Slope, double At0) TheilSen(IReadOnlyList<(double X, double Y)> points)
    {
        var slopes = new List<double>();
        var step = 1 + points.Count / MostPaired;
        for (var i = 0; i < points.Count; i += step)
        {
            for (var j = i + step; j < points.Count; j += step)
            {
                if (Math.Abs(points[j].X - points[i].X) > 1)
                    slopes.Add((points[j].Y - points[i].Y) / (points[j].X - points[i].X));
            }
        }

        var slope = slopes.Count == 0 ? 0 : Median(slopes);
        return (slope, Median(points.Select(point => point.Y - slope * point.X)));
    }

    private static Line Fit(List<PageItem> strokes, double height)
    {
        var words = new List<Word>();
        foreach (var stroke in strokes.OrderBy(item => item.Bounds.Left))
        {
            var box = stroke.Bounds;
            if (words.Count > 0 && box.Left - words[^1].Box.Right < height * WordGap)
                words[^1] = new Word([.. words[^1].Items, stroke], words[^1].Box.With(box));
            else
                words.Add(new Word([stroke], box));
        }

        // The feet of strokes, not of words: more points, and descenders are few among them. Dots and dashes high up are left out.
        var feet = strokes.Select(item => (X: (item.Bounds.Left + item.Bounds.Right) / 2.0, Y: Foot(item))).ToList();
        var middle = Median(feet.Select(foot => foot.Y));
        var near = feet.Where(foot => foot.Y > middle - height * 0.6).ToList();
        // A single word has too little of a line to say how it slopes.
        var wide = words[^1].Box.Right - words[0].Box.Left > height * 3;
        var (slope, at0) = wide ? TheilSen(near) : (0, Median(near.Select(foot => foot.Y)));
        return new Line(words, Math.Abs(slope) < 0.6 ? slope : 0, Math.Abs(slope) < 0.6 ? at0 : middle);
    }

    /// <summary>A stroke's foot: where its line, without its width, is lowest.</summary>
    private static double Foot(PageItem item) => item.Samples.Y.Max() + item.Dy;

    /// <summary>About how far down a line runs where a stroke is to be added: the median of what was written last.</summary>
    private static double Recent(List<PageItem> line, PageItem stroke, double height)
    {
        var near = line.Where(item => stroke.Bounds.Left - item.Bounds.Right < height * 6).TakeLast(5).ToList();
        return near.Count == 0 ? MiddleOf(line[^1]) : Median(near.Select(MiddleOf));
    }

    /// <summary>Where the baselines are to lie: evenly spaced between the first and the last, and from where lines begin.</summary>
    private static (double[] Feet, double Left) Feet(List<Line> lines)
    {
        var at = lines.Select(line => line.BaselineAt(line.Words.Average(word => word.Middle))).ToArray();
        var left = Median(lines.Select(line => (double)line.Left));
        if (lines.Count < 3)
            return (at, left);
        var (step, first) = TheilSen([.. at.Select((y, i) => ((double)i, y))]);
        // Where lines stand in groups, even spacing would tear them apart: only what is nearly even is evened.
        var even = Enumerable.Range(0, at.Length).Select(i => first + step * i).ToArray();
        return Enumerable.Range(0, at.Length).All(i => Math.Abs(even[i] - at[i]) < Math.Abs(step) * 0.45) ? (even, left) : (at, left);
    }

    /// <summary>Where words begin when all gaps are the line's median gap.</summary>
    private static List<double> Spaced(Line line)
    {
        var gaps = line.Words.Zip(line.Words.Skip(1), (one, next) => (double)(next.Box.Left - one.Box.Right)).ToList();
        var gap = gaps.Count == 0 ? 0 : Math.Max(Median(gaps), 60);
        var places = new List<double>();
        var at = (double)line.Words[0].Box.Left;
        foreach (var word in line.Words)
        {
            places.Add(at);
            at += word.Box.Right - word.Box.Left + gap;
        }

        return places;
    }

    /// <summary>Turns and scales about a place and then moves.</summary>
    private static Transform About(double x, double y, double turn, double scale, double dx, double dy)
    {
        var (sin, cos) = Math.SinCos(turn);
        double a = cos * scale,
            b = sin * scale,
            c = -sin * scale,
            d = cos * scale;
        return new Transform(
            (int)Math.Round(a * Transform.One),
            (int)Math.Round(b * Transform.One),
            (int)Math.Round(c * Transform.One),
            (int)Math.Round(d * Transform.One),
            (int)Math.Round(x + dx - a * x - c * y),
            (int)Math.Round(y + dy - b * x - d * y)
        );
    }

    private static double MiddleOf(PageItem item) => (item.Bounds.Top + item.Bounds.Bottom) / 2.0;

    private static double Median(IEnumerable<double> values)
    {
        var sorted = values.Order().ToArray();
        return sorted.Length % 2 == 1 ? sorted[sorted.Length / 2] : (sorted[sorted.Length / 2 - 1] + sorted[sorted.Length / 2]) / 2;
    }
}
