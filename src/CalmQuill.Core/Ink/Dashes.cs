namespace CalmQuill.Core.Ink;

/// <summary>The parts of a broken line that are drawn.</summary>
public static class Dashes
{
    /// <summary>Lengths in line widths, measured along the line; ends are round, so that gaps look shorter by one width.</summary>
    private const float Dash = 3f,
        DashGap = 3f,
        Dot = 0.02f,
        DotGap = 2.2f;

    /// <summary>No dash is shorter than this, 0.01 mm, however thin the line.</summary>
    private const float LeastWidth = 20f;

    /// <summary>What of the visible parts of a stroke a pen draws: all of it with a solid line.</summary>
    public static List<Interval> Of(StrokeSamples samples, List<Interval> visible, Pen pen)
    {
        if (pen.Line == LineStyle.Solid || samples.Count == 1)
            return visible;
        var width = Math.Max(pen.Width, LeastWidth);
        var (on, off) = pen.Line == LineStyle.Dashed ? (width * Dash, width * DashGap) : (width * Dot, width * DotGap);
        var drawn = new List<Interval>();
        int part = 0,
            start = 0;
        double way = 0,
            next = on;
        var isOn = true;
        for (var i = 0; i + 1 < samples.Count; i++)
        {
            double dx = samples.X[i + 1] - samples.X[i],
                dy = samples.Y[i + 1] - samples.Y[i],
                length = Math.Sqrt(dx * dx + dy * dy);
            while (way + length >= next && length > 0)
            {
                var at = i * Interval.PerSample + (int)((next - way) / length * Interval.PerSample);
                if (isOn)
                    Cut(start, at);
                else
                    start = at;
                isOn = !isOn;
                next += isOn ? on : off;
            }

            way += length;
        }

        if (isOn)
            Cut(start, (samples.Count - 1) * Interval.PerSample);
        return drawn;

        void Cut(int from, int to)
        {
            while (part < visible.Count && visible[part].End < from)
                part++;
            for (var k = part; k < visible.Count && visible[k].Start <= to; k++)
                drawn.Add(new Interval(Math.Max(from, visible[k].Start), Math.Min(to, visible[k].End)));
        }
    }
}
