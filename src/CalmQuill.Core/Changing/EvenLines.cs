using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;

namespace CalmQuill.Core.Changing;

/// <summary>Handwriting straightened and evenly spaced.</summary>
/// <remarks>
/// The page's slope is the one at which all ink falls into rows most sharply (Postl 1986); the rows are where its projection has its crests, and each is followed from left to
/// right, since a hand wanders. Dots, commas and bars belong to what they stand by. A line falls into words where its gaps are of the wider of two kinds (Otsu 1979). A line's
/// baseline is a straight line through the feet of its words by Theil's and Sen's estimator (Theil 1950, Sen 1968): the median of the slopes of all
/// pairs, then the median of what is left, so that letters with descenders, up to 29 % of the feet, do not pull it down. Each word is then turned and
/// moved as a whole, so that a hand stays a hand.
/// </remarks>
public static class EvenLines
{
    /// <summary>A gap of this share of the line's height parts words.</summary>
    private const double WordGap = 0.45;

    /// <summary>What is no larger than this share of the height is a dot, a comma or a bar.</summary>
    private const double Small = 0.45;

    /// <summary>Rows by crests are not to be trusted when half of all lies farther off its row than this share of the height.</summary>
    private const double Unsettled = 0.45;

    /// <summary>Within this share of the height a stroke is beside a row.</summary>
    private const double Beside = 0.95;

    /// <summary>A row is followed by this many of its strokes.</summary>
    private const int LastSeen = 7;

    /// <summary>A page is projected by about so many points, into so many rows at most.</summary>
    private const int MostProjected = 6_000,
        MostBins = 20_000;

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
        var strokes = items
            .Where(item => item.Shown && item.Content is LineContent)
            .Select(item => new Written(item, ((LineContent)item.Content).Samples))
            .OrderBy(stroke => stroke.Left)
            .ToList();
        if (strokes.Count == 0)
            return [];
        var height = Median(strokes.Select(stroke => stroke.High).Where(high => high > 60).DefaultIfEmpty(400));
        var slope = PageSlope(strokes, height);
        foreach (var stroke in strokes)
            stroke.Level(slope);
        // Dots, commas and bars belong to what they stand by; bodies make the lines.
        var bodies = strokes.Where(stroke => stroke.Extent > height * Small).ToList();
        if (bodies.Count == 0)
            bodies = strokes;
        var lines = Rows(bodies, height);
        foreach (var mark in strokes.Except(bodies))
            LineOf(mark, lines, height).Add(mark);
        var gap = WordGapOf(lines, height);
        return [.. lines.Select(line => Fit(line, height, gap, slope)).OrderBy(line => line.BaselineAt(line.Left))];
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

    /// <summary>A stroke as the lines are found by it: what it lies in, and some of its points.</summary>
    private sealed class Written
    {
        private const int MostPoints = 24;

        public Written(PageItem item, StrokeSamples samples)
        {
            Item = item;
            var box = item.Bounds;
            (Left, Right, High) = (box.Left, box.Right, box.Bottom - box.Top);
            Extent = Math.Max(High, Right - Left);
            Foot = samples.Y.Max() + item.Dy;
            var step = 1 + samples.Count / MostPoints;
            Points =
            [
                .. Enumerable
                    .Range(0, 1 + (samples.Count - 1) / step)
                    .Select(i => (samples.X[i * step] + (double)item.Dx, samples.Y[i * step] + (double)item.Dy)),
            ];
            Level(0);
        }

        public PageItem Item { get; }

        /// <summary>Where its line, without its width, is lowest.</summary>
        public double Foot { get; }

        public double Left { get; }

        public double Right { get; }

        public double High { get; }

        public double Extent { get; }

        public (double X, double Y)[] Points { get; }

        /// <summary>Its middle as its points have it, with the page's slope taken out: of a letter with a stem near where its bow is.</summary>
        public double Middle { get; private set; }

        public double Top { get; private set; }

        public double Bottom { get; private set; }

        /// <summary>Takes a slope out.</summary>
        public void Level(double slope)
        {
            var levels = Points.Select(point => point.Y - slope * point.X).Order().ToArray();
            (Top, Middle, Bottom) = (levels[0], levels[levels.Length / 2], levels[^1]);
        }
    }

    /// <summary>The slope at which all that is written falls into rows most sharply: the greatest sum of squares of its projection (Postl 1986), between −14° and 14°.</summary>
    private static double PageSlope(List<Written> strokes, double height)
    {
        var all = strokes.SelectMany(stroke => stroke.Points).ToArray();
        // What is hardly wider than high has no rows to tell a slope by.
        if (all.Max(point => point.X) - all.Min(point => point.X) < height * 6)
            return 0;
        var step = 1 + all.Length / MostProjected;
        var points = all.Where((_, i) => i % step == 0).ToArray();
        double best = 0,
            most = 0;
        void Try(double degrees)
        {
            var slope = Math.Tan(degrees * Math.PI / 180);
            var rows = new Dictionary<int, int>();
            foreach (var (x, y) in points)
            {
                var row = (int)Math.Floor((y - slope * x) / (height * 0.3));
                rows[row] = rows.GetValueOrDefault(row) + 1;
            }

            // Of slopes that are as good as each other the flattest.
            var sharp = rows.Values.Sum(count => (double)count * count) * (1 - Math.Abs(degrees) * 0.002);
            if (sharp > most)
                (best, most) = (degrees, sharp);
        }

        for (var degrees = -14.0; degrees <= 14; degrees += 0.5)
            Try(degrees);
        for (double around = best, off = -0.4; off <= 0.41; off += 0.1)
            Try(around + off);
        return Math.Tan(best * Math.PI / 180);
    }

    /// <summary>The rows into which bodies fall: where the projection has its crests; each follows its own way from left to right.</summary>
    private static List<List<Written>> Rows(List<Written> bodies, double height)
    {
        // Lines that slope each their own way have no crests in common: they are followed from where each begins.
        var (crested, off) = Crested(bodies, height);
        return off <= height * Unsettled ? crested : Chained(bodies, height);
    }

    /// <summary>Each body beside the row whose last written part it lies beside; what lies beside none begins one.</summary>
    private static List<List<Written>> Chained(List<Written> bodies, double height)
    {
        var rows = new List<List<Written>>();
        foreach (var body in bodies)
        {
            var best = rows.MinBy(row => Math.Abs(body.Middle - Here(row)));
            if (best is not null && Math.Abs(body.Middle - Here(best)) < height * Beside)
                best.Add(body);
            else
                rows.Add([body]);
        }

        return rows;
    }

    private static double Here(List<Written> row) => Median(row.TakeLast(LastSeen).Select(stroke => stroke.Middle));

    private static (List<List<Written>> Rows, double Off) Crested(List<Written> bodies, double height)
    {
        var rows = Crests(bodies, height).Select(middle => (Start: middle, Line: new List<Written>())).ToList();
        var off = new List<double>();
        double From(Written body, (double Start, List<Written> Line) row) =>
            Math.Abs(body.Middle - (row.Line.Count == 0 ? row.Start : Here(row.Line)));
        foreach (var body in bodies)
        {
            var best = rows.MinBy(row => From(body, row));
            off.Add(From(body, best));
            best.Line.Add(body);
        }

        return ([.. rows.Select(row => row.Line).Where(line => line.Count > 0)], Median(off));
    }

    /// <summary>Where rows run: the crests of the projection of all points, smoothed, with a dip between each and the next.</summary>
    private static List<double> Crests(List<Written> bodies, double height)
    {
        var bin = height / 8;
        double top = bodies.Min(body => body.Top),
            bottom = bodies.Max(body => body.Bottom);
        var count = (int)Math.Min((bottom - top) / bin + 1, MostBins);
        bin = (bottom - top) / count + 1e-9;
        var profile = new double[count];
        foreach (var body in bodies)
            profile[Math.Clamp((int)((body.Middle - top) / bin), 0, count - 1)] += Math.Min(body.Extent, height * 4);
        var smooth = Smoothed(profile, height * 0.32 / bin);
        var crests = new List<int>();
        for (var i = 0; i < count; i++)
        {
            if (smooth[i] <= 0 || (i > 0 && smooth[i - 1] > smooth[i]) || (i + 1 < count && smooth[i + 1] >= smooth[i]))
                continue;
            // Between two rows it dips; a crest without a dip before it is part of the other.
            if (crests.Count > 0 && Dip(smooth, crests[^1], i) > Math.Min(smooth[crests[^1]], smooth[i]) * 0.75)
            {
                if (smooth[i] > smooth[crests[^1]])
                    crests[^1] = i;
                continue;
            }

            crests.Add(i);
        }

        return [.. crests.Select(i => top + (i + 0.5) * bin)];
    }

    private static double Dip(double[] values, int from, int to) => values[from..(to + 1)].Min();

    /// <summary>Values under a bell curve of so many places.</summary>
    private static double[] Smoothed(double[] values, double spread)
    {
        var reach = (int)Math.Ceiling(spread * 3);
        var smooth = new double[values.Length];
        for (var i = 0; i < values.Length; i++)
        {
            if (values[i] == 0)
                continue;
            for (var k = Math.Max(0, i - reach); k <= Math.Min(values.Length - 1, i + reach); k++)
                smooth[k] += values[i] * Math.Exp(-(k - i) * (k - i) / (2 * spread * spread));
        }

        return smooth;
    }

    /// <summary>The line of a dot, comma or bar: that of the body it is nearest to; what stands above a body rather than what hangs below one.</summary>
    private static List<Written> LineOf(Written mark, List<List<Written>> lines, double height)
    {
        var (best, least) = (lines[0], double.MaxValue);
        foreach (var line in lines)
        {
            foreach (var body in line)
            {
                if (body.Left > mark.Right + height * 3 || body.Right < mark.Left - height * 3 || body.Extent <= height * Small)
                    continue;
                double aside = Math.Max(0, Math.Max(body.Left - mark.Right, mark.Left - body.Right)),
                    above = Math.Max(0, body.Top - mark.Bottom),
                    below = Math.Max(0, mark.Top - body.Bottom),
                    off = aside + above + below * 1.5;
                if (off < least)
                    (best, least) = (line, off);
            }
        }

        return best;
    }

    /// <summary>How wide a gap parts words on this page: between the two kinds of gaps there are (Otsu 1979), and a share of the height where there are too few to tell.</summary>
    private static double WordGapOf(List<List<Written>> lines, double height)
    {
        var gaps = lines.SelectMany(Gaps).Select(gap => Math.Clamp(gap, 0, height * 3)).Order().ToArray();
        if (gaps.Length < 12)
            return height * WordGap;
        double sum = gaps.Sum(),
            before = 0,
            best = height * WordGap,
            most = 0;
        for (var i = 0; i + 1 < gaps.Length; i++)
        {
            before += gaps[i];
            double low = before / (i + 1),
                high = (sum - before) / (gaps.Length - i - 1),
                between = (i + 1.0) * (gaps.Length - i - 1) * (high - low) * (high - low);
            if (between > most)
                (best, most) = ((gaps[i] + gaps[i + 1]) / 2, between);
        }

        return Math.Clamp(best, height * 0.2, height * 1.2);
    }

    private static IEnumerable<double> Gaps(List<Written> line)
    {
        var right = double.NaN;
        foreach (var stroke in line.OrderBy(stroke => stroke.Left))
        {
            if (!double.IsNaN(right))
                yield return stroke.Left - right;
            right = double.IsNaN(right) ? stroke.Right : Math.Max(right, stroke.Right);
        }
    }

    private static Line Fit(List<Written> strokes, double height, double gap, double pageSlope)
    {
        var words = new List<Word>();
        foreach (var stroke in strokes.OrderBy(stroke => stroke.Left))
        {
            var box = stroke.Item.Bounds;
            if (words.Count > 0 && box.Left - words[^1].Box.Right < gap)
                words[^1] = new Word([.. words[^1].Items, stroke.Item], words[^1].Box.With(box));
            else
                words.Add(new Word([stroke.Item], box));
        }

        // The feet of strokes, not of words: more points, and descenders are few among them. Dots and dashes high up are left out.
        var feet = strokes.Select(stroke => (X: (stroke.Left + stroke.Right) / 2, Y: stroke.Foot)).ToList();
        var middle = Median(feet.Select(foot => foot.Y - pageSlope * foot.X));
        var near = feet.Where(foot => foot.Y - pageSlope * foot.X > middle - height * 0.6).ToList();
        // A single word has too little of a line to say how it slopes.
        var wide = words[^1].Box.Right - words[0].Box.Left > height * 3;
        var (slope, at0) = wide ? TheilSen(near) : (0, Median(near.Select(foot => foot.Y)));
        return new Line(words, Math.Abs(slope) < 0.6 ? slope : 0, Math.Abs(slope) < 0.6 ? at0 : middle);
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

    private static double Median(IEnumerable<double> values)
    {
        var sorted = values.Order().ToArray();
        return sorted.Length % 2 == 1 ? sorted[sorted.Length / 2] : (sorted[sorted.Length / 2 - 1] + sorted[sorted.Length / 2]) / 2;
    }
}
