namespace CalmQuill.Core.Shapes;

/// <summary>The shape tool: a shape dragged out between two spots.</summary>
public static class ShapeTool
{
    private const double StarInner = 0.382;

    /// <param name="kind">What it is to be.</param>
    /// <param name="x1">Where it was begun, 0.01 mm.</param>
    /// <param name="y1">See <paramref name="x1"/>.</param>
    /// <param name="x2">Where it ends.</param>
    /// <param name="y2">See <paramref name="x2"/>.</param>
    /// <param name="even">Whether lines rest at every 15°, and width and height are the same.</param>
    public static Shape Between(ShapeKind kind, double x1, double y1, double x2, double y2, bool even)
    {
        if (kind is ShapeKind.Line or ShapeKind.Arrow or ShapeKind.DoubleArrow or ShapeKind.Wave)
        {
            if (even)
            {
                double length = Gesture.Distance((x1, y1), (x2, y2)),
                    direction = Math.Round(Math.Atan2(y2 - y1, x2 - x1) / (Math.PI / 12)) * (Math.PI / 12);
                (x2, y2) = (x1 + length * Math.Cos(direction), y1 + length * Math.Sin(direction));
            }

            if (kind != ShapeKind.Wave)
                return Of(kind, (x1, y1), (x2, y2));
            double dx = x2 - x1,
                dy = y2 - y1,
                far = Math.Sqrt(dx * dx + dy * dy);
            var halves = Math.Clamp((int)(far / 400), 2, Shape.MostDetail);
            double high = far / halves * 0.45,
                nx = far < 1 ? 0 : -dy / far,
                ny = far < 1 ? 1 : dx / far;
            return Of(kind, (x1, y1), (x2, y2), (x1 + dx / halves / 2 - nx * high, y1 + dy / halves / 2 - ny * high)) with
            {
                Detail = halves,
            };
        }

        if (even || kind is ShapeKind.Circle or ShapeKind.Square or ShapeKind.RegularPolygon or ShapeKind.Star)
        {
            var side = Math.Max(Math.Abs(x2 - x1), Math.Abs(y2 - y1));
            (x2, y2) = (x1 + side * (x2 < x1 ? -1 : 1), y1 + side * (y2 < y1 ? -1 : 1));
        }

        double left = Math.Min(x1, x2),
            right = Math.Max(x1, x2),
            top = Math.Min(y1, y2),
            bottom = Math.Max(y1, y2),
            cx = (left + right) / 2,
            cy = (top + bottom) / 2,
            lean = (right - left) / 4;
        return kind switch
        {
            ShapeKind.Circle => Of(kind, (cx, cy), (right, cy)),
            ShapeKind.Ellipse => Of(kind, (cx, cy), (right, cy), (cx, bottom)),
            ShapeKind.Triangle => Of(kind, (cx, top), (right, bottom), (left, bottom)),
            ShapeKind.Rhombus => Of(kind, (cx, top), (right, cy), (cx, bottom), (left, cy)),
            ShapeKind.Parallelogram => Of(kind, (left + lean, top), (right, top), (right - lean, bottom), (left, bottom)),
            ShapeKind.Trapezoid => Of(kind, (left + lean, top), (right - lean, top), (right, bottom), (left, bottom)),
            ShapeKind.RegularPolygon => Of(kind, [.. Around(cx, cy, (right - left) / 2, 6, 1)]),
            ShapeKind.Star => Of(kind, [.. Around(cx, cy, (right - left) / 2, 10, StarInner)]),
            ShapeKind.Arc => Of(kind, (left, bottom), (cx, top), (right, bottom)),
            ShapeKind.Rectangle or ShapeKind.Square => Of(kind, (left, top), (right, top), (right, bottom), (left, bottom)),
            _ => Of(ShapeKind.Line, (x1, y1), (x2, y2)),
        };
    }

    private static IEnumerable<(double X, double Y)> Around(double cx, double cy, double radius, int count, double inner) =>
        Enumerable
            .Range(0, count)
            .Select(i =>
            {
                var (sin, cos) = Math.SinCos(Math.PI * 2 * i / count - Math.PI / 2);
                var r = i % 2 == 1 ? radius * inner : radius;
                return (cx + r * cos, cy + r * sin);
            });

    private static Shape Of(ShapeKind kind, params (double X, double Y)[] points) =>
        new(kind, [.. points.Select(point => Corner.At(point.X, point.Y))]);
}
