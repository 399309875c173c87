using System.Globalization;
using System.Text;

namespace CalmQuill.Core.Art;

/// <summary>Lines and curves in 0.01 mm, x to the right, y down: what every printed thing on a sheet is drawn with, on screen as on paper.</summary>
public sealed class VectorPath
{
    /// <summary>How far the controls of a cubic quarter of a circle lie from its ends, in radii (common practice: 4/3·(√2−1)).</summary>
    private const float Quarter = 0.5522848f;
    private readonly List<Step> steps = [];
    private readonly List<float> points = [];

    /// <summary>What is done with the next points: one for a move or line, two for a quadratic, three for a cubic curve, none to close.</summary>
    public enum Step : byte
    {
        Move,
        Line,
        Quadratic,
        Cubic,
        Close,
    }

    public bool IsEmpty => steps.Count == 0;

    public IReadOnlyList<Step> Steps => steps;

    /// <summary>The points of all steps as x, y, x, y…</summary>
    public IReadOnlyList<float> Points => points;

    public VectorPath MoveTo(float x, float y) => Add(Step.Move, x, y);

    public VectorPath LineTo(float x, float y) => Add(Step.Line, x, y);

    public VectorPath QuadraticTo(float cx, float cy, float x, float y) => Add(Step.Quadratic, cx, cy, x, y);

    public VectorPath CubicTo(float ax, float ay, float bx, float by, float x, float y) => Add(Step.Cubic, ax, ay, bx, by, x, y);

    public VectorPath Close() => Add(Step.Close);

    public VectorPath Segment(float x1, float y1, float x2, float y2) => MoveTo(x1, y1).LineTo(x2, y2);

    public VectorPath Rectangle(float left, float top, float width, float height) =>
        MoveTo(left, top).LineTo(left + width, top).LineTo(left + width, top + height).LineTo(left, top + height).Close();

    public VectorPath Circle(float x, float y, float radius)
    {
        var k = radius * Quarter;
        return MoveTo(x + radius, y)
            .CubicTo(x + radius, y + k, x + k, y + radius, x, y + radius)
            .CubicTo(x - k, y + radius, x - radius, y + k, x - radius, y)
            .CubicTo(x - radius, y - k, x - k, y - radius, x, y - radius)
            .CubicTo(x + k, y - radius, x + radius, y - k, x + radius, y)
            .Close();
    }

    /// <summary>A closed curve through the midpoints of its control points.</summary>
    /// <param name="ring">The control points as x, y, x, y…</param>
    public VectorPath Ring(ReadOnlySpan<float> ring)
    {
        MoveTo((ring[^2] + ring[0]) / 2, (ring[^1] + ring[1]) / 2);
        for (var i = 0; i < ring.Length; i += 2)
        {
            var next = (i + 2) % ring.Length;
            QuadraticTo(ring[i], ring[i + 1], (ring[i] + ring[next]) / 2, (ring[i + 1] + ring[next + 1]) / 2);
        }

        return Close();
    }

    /// <summary>Appends another path, scaled and then moved.</summary>
    public VectorPath Append(VectorPath other, float scale, float dx, float dy)
    {
        steps.AddRange(other.steps);
        for (var i = 0; i < other.points.Count; i += 2)
        {
            points.Add(other.points[i] * scale + dx);
            points.Add(other.points[i + 1] * scale + dy);
        }

        return this;
    }

    /// <summary>As SVG path data (SVG 1.1 §8.3), to 0.001 mm.</summary>
    public string ToSvg()
    {
        var text = new StringBuilder(points.Count * 6);
        var at = 0;
        foreach (var step in steps)
        {
            text.Append("MLQCZ"[(int)step]);
            for (var i = 0; i < PointsOf(step) * 2; i++, at++)
            {
                if (i > 0)
                    text.Append(' ');
                text.Append(CultureInfo.InvariantCulture, $"{MathF.Round(points[at], 1):0.#}");
            }
        }

        return text.ToString();
    }

    /// <summary>Reads what <see cref="ToSvg"/> writes.</summary>
    /// <exception cref="FormatException">The text is not such path data.</exception>
    public static VectorPath Parse(ReadOnlySpan<char> data)
    {
        var path = new VectorPath();
        var at = 0;
        while (at < data.Length)
        {
            var step = "MLQCZ".IndexOf(data[at++], StringComparison.Ordinal);
            if (step < 0)
                throw new FormatException("Path data holds a command that is not known here.");
            path.steps.Add((Step)step);
            for (var i = 0; i < PointsOf((Step)step) * 2; i++)
            {
                if (i > 0)
                    at++;
                var start = at;
                while (at < data.Length && (char.IsAsciiDigit(data[at]) || data[at] is '-' or '.'))
                    at++;
                path.points.Add(float.Parse(data[start..at], CultureInfo.InvariantCulture));
            }
        }

        return path;
    }

    /// <summary>How many points a step takes.</summary>
    public static int PointsOf(Step step) =>
        step switch
        {
            Step.Quadratic => 2,
            Step.Cubic => 3,
            Step.Close => 0,
            _ => 1,
        };

    private VectorPath Add(Step step, params ReadOnlySpan<float> values)
    {
        steps.Add(step);
        points.AddRange(values);
        return this;
    }
}
