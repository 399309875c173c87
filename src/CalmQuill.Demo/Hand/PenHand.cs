using CalmQuill.Core.Ink;

namespace CalmQuill.Demo.Hand;

/// <summary>A hand that follows a line as a person does: fast on the straight, slow in the bend, lighter at both ends, never quite still.</summary>
/// <param name="random">The only source of chance.</param>
/// <param name="speed">Speed on a straight line, mm/s.</param>
public sealed class PenHand(Random random, double speed = 70)
{
    private const double SamplesASecond = 120;
    private const double JitterMillimetres = 0.014;

    /// <summary>Writes along a line given in mm; the samples are 0.01 mm and milliseconds.</summary>
    /// <param name="line">At least one point.</param>
    /// <param name="rounded">Whether corners are written round, as in letters, or kept, as along a ruler.</param>
    public StrokeSamples Follow(IReadOnlyList<Point> line, bool rounded = true)
    {
        var way = rounded ? Round(Round(line)) : line;
        var lengths = new double[way.Count];
        for (var i = 1; i < way.Count; i++)
            lengths[i] = lengths[i - 1] + (way[i] - way[i - 1]).Length;
        var total = lengths[^1];
        List<int> x = [],
            y = [],
            pressure = [],
            time = [];
        double at = 0,
            velocity = speed * 0.25,
            clock = 0;
        var jitter = new Point(0, 0);
        var press = 0.5 + random.NextDouble() * 0.1;
        for (var i = 0; ; )
        {
            while (i + 2 < way.Count && lengths[i + 1] < at)
                i++;
            var piece = i + 1 < way.Count ? lengths[i + 1] - lengths[i] : 0;
            var point = piece > 0 ? way[i] + (way[i + 1] - way[i]) * Math.Min(1, (at - lengths[i]) / piece) : way[i];
            jitter = jitter * 0.6 + new Point(Noise(), Noise()) * JitterMillimetres;
            var edge = Math.Min(1, Math.Min(at + 0.25, total - at + 0.25) / 1.2);
            press += (0.62 - 0.22 * (velocity / speed) - press) * 0.12 + Noise() * 0.012;
            x.Add((int)Math.Round((point.X + jitter.X) * 100));
            y.Add((int)Math.Round((point.Y + jitter.Y) * 100));
            pressure.Add((int)Math.Clamp(1023 * press * (0.45 + 0.55 * edge), 40, 1000));
            time.Add((int)Math.Round(clock));
            if (at >= total)
                break;
            var target = speed * (0.22 + 0.78 * Straightness(way, i)) * (0.3 + 0.7 * edge);
            velocity += (target - velocity) * 0.35;
            at = Math.Min(total, at + Math.Max(velocity, 6) / SamplesASecond);
            clock += 1000 / SamplesASecond;
        }

        return new StrokeSamples([.. x], [.. y], [.. pressure], [.. time]);
    }

    /// <summary>Small unevenness of where a word or line is set, ± the given mm.</summary>
    public double Wobble(double millimetres) => Noise() * millimetres;

    private double Noise() => random.NextDouble() + random.NextDouble() - 1;

    private static double Straightness(IReadOnlyList<Point> way, int i)
    {
        if (i == 0 || i + 2 >= way.Count)
            return 0.5;
        Point a = way[i] - way[i - 1],
            b = way[i + 1] - way[i];
        var lengths = a.Length * b.Length;
        return lengths == 0 ? 1 : Math.Clamp((a.X * b.X + a.Y * b.Y) / lengths, 0, 1);
    }

    /// <summary>Corner cutting, Chaikin 1974, with the ends kept.</summary>
    private static List<Point> Round(IReadOnlyList<Point> line)
    {
        if (line.Count < 3)
            return [.. line];
        var round = new List<Point> { line[0] };
        for (var i = 0; i + 1 < line.Count; i++)
        {
            round.Add(line[i] * 0.75 + line[i + 1] * 0.25);
            round.Add(line[i] * 0.25 + line[i + 1] * 0.75);
        }

        round.Add(line[^1]);
        return round;
    }
}
