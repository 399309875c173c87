using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Shapes;

namespace CalmQuill.Testing;

/// <summary>Shapes as a hurried hand draws them: turned, scaled, wobbling, with rounded corners and ends that miss or run past each other.</summary>
public static class RoughShapes
{
    private const double Degrees = Math.PI / 180;

    public static readonly ShapeKind[] Kinds =
    [
        ShapeKind.Line,
        ShapeKind.Arrow,
        ShapeKind.DoubleArrow,
        ShapeKind.Circle,
        ShapeKind.Ellipse,
        ShapeKind.Triangle,
        ShapeKind.Square,
        ShapeKind.Rectangle,
        ShapeKind.Rhombus,
        ShapeKind.Parallelogram,
        ShapeKind.Trapezoid,
        ShapeKind.RegularPolygon,
        ShapeKind.Polygon,
        ShapeKind.Star,
        ShapeKind.Arc,
        ShapeKind.Wave,
        ShapeKind.Polyline,
        ShapeKind.Curve,
    ];

    /// <summary>The strokes of one rough shape: one, or for some arrows two.</summary>
    /// <param name="kind">What it is meant to be.</param>
    /// <param name="random">Chance.</param>
    public static List<StrokeSamples> Draw(ShapeKind kind, Random random)
    {
        double R(double from, double to) => from + random.NextDouble() * (to - from);
        var size = R(900, 5_000);
        var turn = R(0, 360) * Degrees;
        var closes = false;
        List<List<(double X, double Y)>> strokes;
        switch (kind)
        {
            case ShapeKind.Line:
                strokes =
                [
                    [(-1, 0), (1, 0)],
                ];
                break;
            case ShapeKind.Arrow:
                strokes = ArrowOf(random, false);
                break;
            case ShapeKind.DoubleArrow:
                strokes = ArrowOf(random, true);
                break;
            case ShapeKind.Circle:
                strokes = [Round(1, R(0.95, 1), random)];
                closes = true;
                break;
            case ShapeKind.Ellipse:
                strokes = [Round(1, R(0.35, 0.72), random)];
                closes = true;
                break;
            case ShapeKind.Triangle:
                var apex = R(-0.6, 0.6);
                strokes =
                [
                    [(-1, 0.6), (1, 0.6), (apex, R(-1.2, -0.3))],
                ];
                closes = true;
                break;
            case ShapeKind.Square:
                var square = R(0.95, 1.05);
                strokes =
                [
                    [(-1, -square), (1, -square), (1, square), (-1, square)],
                ];
                closes = true;
                break;
            case ShapeKind.Rectangle:
                var high = R(0.3, 0.7);
                strokes =
                [
                    [(-1, -high), (1, -high), (1, high), (-1, high)],
                ];
                closes = true;
                break;
            case ShapeKind.Rhombus:
                var half = R(24, 35) * Degrees;
                strokes =
                [
                    [(-Math.Cos(half), 0), (0, -Math.Sin(half)), (Math.Cos(half), 0), (0, Math.Sin(half))],
                ];
                closes = true;
                break;
            case ShapeKind.Parallelogram:
                var lean = R(0.35, 0.6) * (random.Next(2) * 2 - 1);
                var low = R(0.35, 0.5);
                strokes =
                [
                    [(-1 + lean, -low), (1 + lean, -low), (1 - lean, low), (-1 - lean, low)],
                ];
                closes = true;
                break;
            case ShapeKind.Trapezoid:
                var top = R(0.3, 0.55);
                var shift = R(-0.15, 0.15);
                var deep = R(0.4, 0.7);
                strokes =
                [
                    [(-top + shift, -deep), (top + shift, -deep), (1, deep), (-1, deep)],
                ];
                closes = true;
                break;
            case ShapeKind.RegularPolygon:
                var sides = random.Next(5, 7);
                strokes =
                [
                    [
                        .. Enumerable
                            .Range(0, sides)
                            .Select(i => (Math.Cos(i * 360.0 / sides * Degrees), Math.Sin(i * 360.0 / sides * Degrees))),
                    ],
                ];
                closes = true;
                break;
            case ShapeKind.Polygon:
                // An L, or a house with a slanting roof: clearly not regular.
                strokes =
                    random.Next(2) == 0
                        ?
                        [
                            [(-1, -1), (-0.2, -1), (-0.2, 0.3), (1, 0.3), (1, 1), (-1, 1)],
                        ]
                        :
                        [
                            [(-1, 1), (-1, -0.2), (-0.4, -1), (1, -0.2), (1, 1)],
                        ];
                closes = true;
                break;
            case ShapeKind.Star:
                strokes =
                    random.Next(2) == 0
                        ?
                        [
                            [.. Enumerable.Range(0, 5).Select(i => (Math.Cos(i * 144 * Degrees), Math.Sin(i * 144 * Degrees)))],
                        ]
                        :
                        [
                            [
                                .. Enumerable
                                    .Range(0, 10)
                                    .Select(i =>
                                        (
                                            Math.Cos(i * 36 * Degrees) * (i % 2 == 0 ? 1 : 0.42),
                                            Math.Sin(i * 36 * Degrees) * (i % 2 == 0 ? 1 : 0.42)
                                        )
                                    ),
                            ],
                        ];
                closes = true;
                size = Math.Max(size, 1_400);
                break;
            case ShapeKind.Arc:
                var sweep = R(60, 250) * Degrees;
                strokes =
                [
                    [.. Enumerable.Range(0, 41).Select(i => (Math.Cos(sweep * i / 40), Math.Sin(sweep * i / 40)))],
                ];
                break;
            case ShapeKind.Wave:
                var halves = random.Next(4, 10);
                var crest = R(0.1, 0.22);
                strokes =
                [
                    [.. Enumerable.Range(0, 121).Select(i => (i / 60.0 - 1, crest * Math.Sin(Math.PI * halves * i / 120)))],
                ];
                size = Math.Max(size, 2_000);
                break;
            case ShapeKind.Curve:
                // A hook that bends more and more, or two bows of unlike size: its bend runs evenly from one end to the other.
                strokes = [random.Next(2) == 0 ? Bending(R(0, 15), R(190, 280), R(1.8, 2.4)) : Bending(-R(70, 110), R(170, 240), 1)];
                break;
            default:
                strokes = random.Next(3) switch
                {
                    0 =>
                    [
                        [(-1, -0.8), (0, 0.8), (1, -0.8)],
                    ],
                    1 =>
                    [
                        [(0.4, -1), (-0.4, -1), (-0.4, 1), (0.4, 1)],
                    ],
                    _ =>
                    [
                        [(-1, -0.7), (1, -0.7), (-1, 0.7), (1, 0.7)],
                    ],
                };
                break;
        }

        if (closes)
            strokes[0] = Closed(strokes[0], random);
        double x = R(5_000, 15_000),
            y = R(5_000, 20_000);
        var mirrored = random.Next(2) * 2 - 1;
        var (sin, cos) = Math.SinCos(turn);
        var wobble = R(0.004, 0.016);
        return
        [
            .. strokes.Select(stroke =>
                Written(
                    [.. stroke.Select(p => (x + size * (p.X * cos - p.Y * mirrored * sin), y + size * (p.X * sin + p.Y * mirrored * cos)))],
                    size * wobble,
                    random
                )
            ),
        ];
    }

    /// <summary>Where a closed line begins is chance, and it ends a little before or past its beginning.</summary>
    private static List<(double X, double Y)> Closed(List<(double X, double Y)> corners, Random random)
    {
        var start = random.Next(corners.Count);
        var turned = corners.Skip(start).Concat(corners.Take(start)).ToList();
        if (random.Next(2) == 0)
            turned.Reverse();
        turned.Add(turned[0]);
        var length = turned.Zip(turned.Skip(1), Distance).Sum();
        var miss = (random.NextDouble() * 0.09 - 0.045) * length;
        if (miss > 0)
        {
            var (ax, ay) = turned[0];
            var (bx, by) = turned[1];
            var share = Math.Min(1, miss / Math.Max(Distance(turned[0], turned[1]), 1e-9));
            turned.Add((ax + (bx - ax) * share, ay + (by - ay) * share));
        }
        else
        {
            while (turned.Count > 2 && Distance(turned[^1], turned[^2]) < -miss)
            {
                miss += Distance(turned[^1], turned[^2]);
                turned.RemoveAt(turned.Count - 1);
            }

            var (ax, ay) = turned[^1];
            var (bx, by) = turned[^2];
            var share = -miss / Math.Max(Distance(turned[^1], turned[^2]), 1e-9);
            turned[^1] = (ax + (bx - ax) * share, ay + (by - ay) * share);
        }

        return turned;
    }

    /// <summary>A line whose bend runs from one number to another, in degrees a unit of its length, along a power of its way.</summary>
    private static List<(double X, double Y)> Bending(double from, double to, double power)
    {
        double x = -1,
            y = 0,
            heading = 0;
        var line = new List<(double X, double Y)> { (x, y) };
        for (var i = 0; i < 60; i++)
        {
            heading += (from + (to - from) * Math.Pow(i / 60.0, power)) / 30 * Degrees;
            (x, y) = (x + Math.Cos(heading) / 30, y + Math.Sin(heading) / 30);
            line.Add((x, y));
        }

        return line;
    }

    private static List<(double X, double Y)> Round(double a, double b, Random random)
    {
        var start = random.NextDouble() * Math.PI * 2;
        return [.. Enumerable.Range(0, 60).Select(i => (a * Math.Cos(start + i * 6 * Degrees), b * Math.Sin(start + i * 6 * Degrees)))];
    }

    private static List<List<(double X, double Y)>> ArrowOf(Random random, bool twoHeads)
    {
        double barb = 0.3 + random.NextDouble() * 0.35,
            one = (22 + random.NextDouble() * 25) * Degrees,
            other = (22 + random.NextDouble() * 25) * Degrees;
        (double X, double Y) Barb(double tip, double angle) => (tip - Math.Sign(tip) * barb * Math.Cos(angle), barb * Math.Sin(angle));
        var head = new List<(double X, double Y)> { Barb(1, one), (1, 0), Barb(1, -other) };
        var tail = new List<(double X, double Y)> { Barb(-1, one), (-1, 0), Barb(-1, -other) };
        if (twoHeads)
            return
            [
                [tail[0], (-1, 0), tail[2], (-1, 0), (1, 0), head[0], (1, 0), head[2]],
            ];
        return random.Next(3) switch
        {
            0 =>
            [
                [(-1, 0), (1, 0), head[0], (1, 0), head[2]],
            ],
            1 =>
            [
                [(-1, 0), (1, 0), head[0], head[2], (1, 0)],
            ],
            _ =>
            [
                [(-1, 0), (1, 0)],
                head,
            ],
        };
    }

    /// <summary>A hand's way along corners: it wobbles slowly, shakes a little, and rounds corners.</summary>
    private static StrokeSamples Written(List<(double X, double Y)> corners, double wobble, Random random)
    {
        var points = new List<(double X, double Y)>();
        double phase = random.NextDouble() * 6,
            phase2 = random.NextDouble() * 6,
            way = 0;
        var whole = corners.Zip(corners.Skip(1), Distance).Sum();
        for (var i = 0; i + 1 < corners.Count; i++)
        {
            var length = Distance(corners[i], corners[i + 1]);
            var steps = Math.Max(1, (int)(length / 60));
            for (var k = 0; k < steps; k++)
            {
                var t = k / (double)steps;
                var at = (way + length * t) / Math.Max(whole, 1e-9);
                points.Add(
                    (
                        corners[i].X
                            + (corners[i + 1].X - corners[i].X) * t
                            + wobble * Math.Sin(at * 13 + phase)
                            + wobble * 0.35 * (random.NextDouble() * 2 - 1),
                        corners[i].Y
                            + (corners[i + 1].Y - corners[i].Y) * t
                            + wobble * Math.Sin(at * 11 + phase2)
                            + wobble * 0.35 * (random.NextDouble() * 2 - 1)
                    )
                );
            }

            way += length;
        }

        points.Add(corners[^1]);
        for (var i = 1; i + 1 < points.Count; i++)
            points[i] = (
                (points[i - 1].X + points[i].X * 2 + points[i + 1].X) / 4,
                (points[i - 1].Y + points[i].Y * 2 + points[i + 1].Y) / 4
            );
        return new StrokeSamples(
            [.. points.Select(p => (int)p.X)],
            [.. points.Select(p => (int)p.Y)],
            [.. points.Select(_ => 500)],
            [.. points.Select((_, i) => i * 8)]
        );
    }

    private static double Distance((double X, double Y) a, (double X, double Y) b) =>
        Math.Sqrt((a.X - b.X) * (a.X - b.X) + (a.Y - b.Y) * (a.Y - b.Y));

    /// <summary>What each kind was taken for, of so many drawn.</summary>
    public static Dictionary<ShapeKind, Dictionary<string, int>> Confusion(int each, int seed)
    {
        var random = new Random(seed);
        return Kinds.ToDictionary(
            kind => kind,
            kind =>
                Enumerable
                    .Range(0, each)
                    .Select(_ => Taken(Draw(kind, random)))
                    .GroupBy(name => name)
                    .ToDictionary(group => group.Key, group => group.Count())
        );
    }

    /// <summary>A confusion as a table: a row a kind, how many percent were right, and what the others were taken for.</summary>
    public static string Table(Dictionary<ShapeKind, Dictionary<string, int>> confusion) =>
        string.Join(
            "\n",
            confusion.Select(row =>
            {
                var (all, right) = (row.Value.Values.Sum(), row.Value.GetValueOrDefault(row.Key.ToString()));
                var others = string.Join(
                    ", ",
                    row.Value.Where(cell => cell.Key != row.Key.ToString())
                        .OrderByDescending(cell => cell.Value)
                        .Select(cell => $"{cell.Key} {cell.Value}")
                );
                return string.Create(
                    System.Globalization.CultureInfo.InvariantCulture,
                    $"| {row.Key} | {all} | {right * 100.0 / all:0.0} % | {others} |"
                );
            })
        );

    /// <summary>The gestures of the unistroke literature that are shapes: name, corners and what they are here.</summary>
    public static IEnumerable<(string Name, (double X, double Y)[] Line, ShapeKind Kind)> Unistrokes()
    {
        yield return ("triangle", [(0, -1), (-1, 0.8), (1, 0.8), (0, -1)], ShapeKind.Triangle);
        yield return ("rectangle", [(-1, -0.6), (-1, 0.6), (1, 0.6), (1, -0.6), (-1, -0.6)], ShapeKind.Rectangle);
        yield return (
            "circle",
            [
                .. Enumerable
                    .Range(0, 61)
                    .Select(i => (Math.Cos(-Math.PI / 2 - i * Math.PI / 30), Math.Sin(-Math.PI / 2 - i * Math.PI / 30))),
            ],
            ShapeKind.Circle
        );
        yield return ("check", [(-0.6, 0), (-0.2, 0.7), (0.9, -0.9)], ShapeKind.Polyline);
        yield return ("caret", [(-0.7, 0.8), (0, -0.8), (0.7, 0.8)], ShapeKind.Polyline);
        yield return ("arrow", [(-1, 0.5), (1, -0.5), (0.45, -0.55), (1, -0.5), (0.75, 0)], ShapeKind.Arrow);
        yield return ("left square bracket", [(0.4, -1), (-0.4, -1), (-0.4, 1), (0.4, 1)], ShapeKind.Polyline);
        yield return ("right square bracket", [(-0.4, -1), (0.4, -1), (0.4, 1), (-0.4, 1)], ShapeKind.Polyline);
        yield return ("v", [(-0.7, -0.8), (0, 0.8), (0.7, -0.8)], ShapeKind.Polyline);
        yield return (
            "star",
            [.. Enumerable.Range(0, 6).Select(i => (Math.Sin(i * 144 * Degrees), -Math.Cos(i * 144 * Degrees)))],
            ShapeKind.Star
        );
    }

    /// <summary>A line drawn at a chance size, place and turn by a wobbling hand.</summary>
    public static StrokeSamples Written((double X, double Y)[] line, Random random)
    {
        var (sin, cos) = Math.SinCos((random.NextDouble() - 0.5) * 0.5);
        var size = 900 + random.NextDouble() * 2_000;
        return Written(
            [.. line.Select(p => (6_000 + size * (p.X * cos - p.Y * sin), 6_000 + size * (p.X * sin + p.Y * cos)))],
            size * (0.004 + random.NextDouble() * 0.01),
            random
        );
    }

    /// <summary>What strokes are taken for, the first ones lying on a page as ink when the last is drawn.</summary>
    public static string Taken(List<StrokeSamples> strokes)
    {
        var (page, device) = (new PageDocument(), new Replica(1, Guid.NewGuid()));
        foreach (var stroke in strokes.SkipLast(1))
            page.Apply(device.Make(new Change.StrokeAdded(new Pen(PenKind.Ball, 40, 0xFF), 0, stroke), 0));
        if (Tidying.Of(strokes[^1], page, device.Author, 0) is not { } result)
            return "none";
        return result.Replaces.Count == strokes.Count - 1
            ? result.Shape.Kind.ToString()
            : $"{result.Shape.Kind} of {result.Replaces.Count + 1} strokes";
    }
}
