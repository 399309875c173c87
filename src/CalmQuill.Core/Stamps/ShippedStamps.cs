using CalmQuill.Core.Changing;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Shapes;

namespace CalmQuill.Core.Stamps;

/// <summary>The stamps that ship with the application: drawn by Core out of shapes, about 10 mm large.</summary>
public static class ShippedStamps
{
    private static readonly Pen Line = new(PenKind.Ball, 45, WrittenContent.Ink);

    private const uint Gold = 0xE3B23C99,
        Sky = 0x1F5F8B55,
        Lichen = 0x7C8A4B99;

    /// <summary>What is drawn for each, by name; the part before the stroke is its category.</summary>
    private static readonly IReadOnlyDictionary<string, Drawn[]> All = new Dictionary<string, Drawn[]>
    {
        ["arrows/right"] = [Arrow(0, 0, 10, 0)],
        ["arrows/down"] = [Arrow(0, 0, 0, 10)],
        ["arrows/both"] = [new(new Shape(ShapeKind.DoubleArrow, [At(0, 0), At(12, 0)]))],
        ["arrows/back"] = [Curve((10, 6), (11, 1), (5, -1), (0, 3)), Path((3.4, 1.2), (0, 3), (3.6, 4.4))],
        ["arrows/round"] = [Arc((0, 6), (5, -1), (10, 6)), Path((7.4, 4.2), (10, 6), (10.6, 3))],
        ["brackets/left"] = [Curve((3, 0), (1.6, 1.4), (1.6, 5), (0, 7), (1.6, 9), (1.6, 12.6), (3, 14))],
        ["brackets/right"] = [Curve((0, 0), (1.4, 1.4), (1.4, 5), (3, 7), (1.4, 9), (1.4, 12.6), (0, 14))],
        ["brackets/under"] = [Curve((0, 0), (1.4, 1.4), (6, 1.4), (8, 3), (10, 1.4), (14.6, 1.4), (16, 0))],
        ["ticks/done"] = [Path((0, 4), (3, 8), (9, 0))],
        ["ticks/wrong"] = [Path((0, 0), (7, 8)), Path((7, 0), (0, 8))],
        ["ticks/ask"] = [Curve((0, 2), (2.5, -0.5), (5, 2), (2.8, 4.6), (2.5, 6.5)), Dot(2.5, 9)],
        ["ticks/heed"] = [Path((1, 0), (1, 6.5)), Dot(1, 9)],
        ["ticks/box"] = [Box(0, 0, 6, 6)],
        ["ticks/star"] = [new(ShapeTool.Between(ShapeKind.Star, 0, 0, 900, 900, true), Gold)],
        ["frames/box"] = [Box(0, 0, 40, 22)],
        ["frames/double"] = [Box(0, 0, 40, 22), Box(1.2, 1.2, 38.8, 20.8)],
        ["frames/round"] = [new(ShapeTool.Between(ShapeKind.Ellipse, 0, 0, 4_000, 2_200, false))],
        ["frames/speech"] =
        [
            Curve((8, 18), (2, 16), (0, 9), (4, 2), (20, 0), (36, 2), (40, 9), (36, 16), (20, 18), (13, 18)),
            Path((8, 18), (5, 24), (13, 18)),
        ],
        ["weather/sun"] = [Ring(6, 6, 3, Gold), .. Enumerable.Range(0, 8).Select(i => Ray(6, 6, 4.2, 6, i * Math.PI / 4))],
        ["weather/cloud"] = [Cloud()],
        ["weather/rain"] = [Cloud(), Path((4, 9.5), (3, 12)), Path((7.5, 9.5), (6.5, 12)), Path((11, 9.5), (10, 12))],
        ["weather/snow"] = [Cloud(), Dot(4, 10.5), Dot(7.5, 12), Dot(11, 10.5)],
        ["weather/lightning"] = [Cloud(), Path((8, 8.4), (6, 11), (8.4, 11), (6.4, 14))],
        ["faces/glad"] = [.. Face(), Arc((3, 6.6), (5, 8), (7, 6.6))],
        ["faces/so so"] = [.. Face(), Path((3.2, 7), (6.8, 7))],
        ["faces/sorry"] = [.. Face(), Arc((3, 7.8), (5, 6.4), (7, 7.8))],
        ["faces/surprised"] = [.. Face(), Ring(5, 7.2, 0.8)],
        ["clocks/dial"] =
        [
            Ring(6, 6, 6),
            .. Enumerable.Range(0, 12).Select(i => Ray(6, 6, i % 3 == 0 ? 4.6 : 5.2, 5.7, i * Math.PI / 6)),
            Path((6, 2), (6, 6), (8.6, 7.8)),
        ],
        ["clocks/wheel"] =
        [
            Wheel(6, 6, 5, 6, 24),
            Ring(6, 6, 1.1),
            .. Enumerable.Range(0, 5).Select(i => Ray(6, 6, 1.1, 4.6, i * Math.PI / 2.5)),
        ],
        ["clocks/pinion"] = [Wheel(3.5, 3.5, 2.2, 3.5, 8), Ring(3.5, 3.5, 0.8)],
        ["clocks/escape wheel"] = [Ratchet(7, 7, 5.4, 7, 15), Ring(7, 7, 1.2)],
        ["clocks/anchor"] =
        [
            Curve((0, 6), (2, 2.4), (6, 1), (10, 2.4), (12, 6)),
            Path((0, 6), (1.6, 7)),
            Path((12, 6), (10.4, 7)),
            Ring(6, 2.2, 0.7),
        ],
        ["clocks/pendulum"] = [Path((3, 0), (3, 15)), Ring(3, 18, 3, Gold), Path((1.6, 0), (4.4, 0))],
        ["clocks/spring"] = [Spiral(6, 6, 5.6, 5)],
    };

    /// <summary>The names of all, each with its category before a stroke, in the order in which they are shown.</summary>
    public static IReadOnlyList<string> Names { get; } = [.. All.Keys];

    /// <summary>A stamp as a piece; null where none has that name.</summary>
    public static byte[]? Piece(string name)
    {
        if (!All.TryGetValue(name, out var drawn))
            return null;
        var piece = new Piece();
        foreach (var (shape, fill) in drawn)
            piece.Add(new Change.ShapeAdded(shape, Line, fill, []));
        return OperationCodec.Encode(piece.Operations);
    }

    /// <summary>A shape, and what it is filled with.</summary>
    private readonly record struct Drawn(Shape Shape, uint Fill = 0);

    /// <summary>A spot, given in mm.</summary>
    private static Corner At(double x, double y) => Corner.At(x * 100, y * 100);

    private static Corner[] Of((double X, double Y)[] points) => [.. points.Select(point => At(point.X, point.Y))];

    private static Drawn Arrow(double x1, double y1, double x2, double y2) => new(new Shape(ShapeKind.Arrow, [At(x1, y1), At(x2, y2)]));

    private static Drawn Path(params (double X, double Y)[] points) =>
        new(new Shape(points.Length == 2 ? ShapeKind.Line : ShapeKind.Polyline, Of(points)));

    private static Drawn Curve(params (double X, double Y)[] points) => new(new Shape(ShapeKind.Curve, Of(points)));

    private static Drawn Arc(params (double X, double Y)[] points) => new(new Shape(ShapeKind.Arc, Of(points)));

    private static Drawn Box(double left, double top, double right, double bottom) =>
        new(ShapeTool.Between(ShapeKind.Rectangle, left * 100, top * 100, right * 100, bottom * 100, false));

    private static Drawn Ring(double x, double y, double radius, uint fill = 0) =>
        new(new Shape(ShapeKind.Circle, [At(x, y), At(x + radius, y)]), fill);

    private static Drawn Dot(double x, double y) => Ring(x, y, 0.35, WrittenContent.Ink);

    private static Drawn Ray(double x, double y, double from, double to, double angle)
    {
        var (sin, cos) = Math.SinCos(angle);
        return Path((x + from * cos, y + from * sin), (x + to * cos, y + to * sin));
    }

    private static Drawn Cloud() =>
        new(new Shape(ShapeKind.Polygon, [.. Round([(3, 8, 3), (5.2, 4.6, 3.2), (9.4, 4.2, 3.4), (12.2, 6.8, 2.4)])]), Sky);

    /// <summary>The upper edge of some circles, as one line that is closed below.</summary>
    private static IEnumerable<Corner> Round((double X, double Y, double Radius)[] circles)
    {
        const double floor = 8.4;
        const int steps = 48;
        double left = circles.Min(circle => circle.X - circle.Radius) + 1,
            right = circles.Max(circle => circle.X + circle.Radius) - 0.6;
        for (var i = 0; i <= steps; i++)
        {
            var x = left + (right - left) * i / steps;
            var top = circles
                .Where(circle => Math.Abs(x - circle.X) < circle.Radius)
                .Select(circle => circle.Y - Math.Sqrt(circle.Radius * circle.Radius - (x - circle.X) * (x - circle.X)))
                .Append(floor)
                .Min();
            yield return At(x, top);
        }

        yield return At(right, floor);
        yield return At(left, floor);
    }

    private static Drawn[] Face() => [Ring(5, 5, 5, Lichen), Dot(3.4, 3.8), Dot(6.6, 3.8)];

    /// <summary>A wheel with so many teeth between two radii.</summary>
    private static Drawn Wheel(double x, double y, double root, double tip, int teeth) =>
        Turned(x, y, teeth, [(0, root), (0.2, root), (0.32, tip), (0.68, tip), (0.8, root)]);

    /// <summary>The same with teeth that lean to one side, as an escape wheel has them.</summary>
    private static Drawn Ratchet(double x, double y, double root, double tip, int teeth) =>
        Turned(x, y, teeth, [(0, root), (0.55, tip), (0.62, root)]);

    private static Drawn Turned(double x, double y, int times, (double Share, double Radius)[] tooth) =>
        new(
            new Shape(
                ShapeKind.Polygon,
                [
                    .. Enumerable
                        .Range(0, times)
                        .SelectMany(i => tooth.Select(point => (Angle: (i + point.Share) / times * Math.Tau, point.Radius)))
                        .Select(point => At(x + point.Radius * Math.Cos(point.Angle), y + point.Radius * Math.Sin(point.Angle))),
                ]
            )
        );

    private static Drawn Spiral(double x, double y, double radius, int turns) =>
        new(
            new Shape(
                ShapeKind.Curve,
                [
                    .. Enumerable
                        .Range(0, turns * 12 + 1)
                        .Select(i =>
                        {
                            var (sin, cos) = Math.SinCos(i * Math.Tau / 12);
                            var r = radius * (0.12 + 0.88 * i / (turns * 12));
                            return At(x + r * cos, y + r * sin);
                        }),
                ]
            )
        );
}
