namespace CalmQuill.Core.Shapes;

/// <summary>The places by which a drawn shape is changed: ends, corners, sides, radius.</summary>
public static class ShapeHandles
{
    /// <summary>What a handle is, for its look and name.</summary>
    public enum Role : byte
    {
        End,
        Corner,
        Side,
        Radius,
        Bend,
    }

    /// <summary>Sides that differ by no more than this share of the longer are dragged to be alike.</summary>
    private const double Snap = 0.025;

    public readonly record struct Handle(Corner At, Role Role);

    /// <summary>The handles in the order in which <see cref="Drag"/> counts them; none for a filled region.</summary>
    public static List<Handle> Of(Shape shape)
    {
        var p = shape.Points;
        switch (shape.Kind)
        {
            case ShapeKind.Area:
                return [];
            case ShapeKind.Line or ShapeKind.Arrow or ShapeKind.DoubleArrow or ShapeKind.Connector:
                return [new(p[0], Role.End), new(p[^1], Role.End)];
            case ShapeKind.Circle:
                return [new(p[1], Role.Radius)];
            case ShapeKind.Ellipse:
                return
                [
                    new(p[1], Role.Radius),
                    new(p[2], Role.Radius),
                    new(Across(p[0], p[1]), Role.Radius),
                    new(Across(p[0], p[2]), Role.Radius),
                ];
            case ShapeKind.Arc:
                return [new(p[0], Role.End), new(p[1], Role.Bend), new(p[2], Role.End)];
            case ShapeKind.Wave:
                return [new(p[0], Role.End), new(p[1], Role.End), new(p[2], Role.Bend)];
            case ShapeKind.Curve or ShapeKind.Polyline:
                return [.. p.Select((point, i) => new Handle(point, i == 0 || i == p.Count - 1 ? Role.End : Role.Bend))];
            case ShapeKind.Rectangle or ShapeKind.Square:
                return
                [
                    .. p.Select(point => new Handle(point, Role.Corner)),
                    .. Enumerable.Range(0, 4).Select(i => new Handle(Middle(p[i], p[(i + 1) % 4]), Role.Side)),
                ];
            default:
                return [.. p.Select(point => new Handle(point, Role.Corner))];
        }
    }

    /// <summary>The shape with a handle dragged to a place; what makes it what it is stays: a square stays a square, a circle a circle.</summary>
    public static Shape Drag(Shape shape, int handle, double x, double y)
    {
        var p = shape.Points.ToArray();
        var to = Corner.At(x, y);
        switch (shape.Kind)
        {
            case ShapeKind.Circle:
                p[1] = to;
                break;
            case ShapeKind.Ellipse:
                Axis(p, handle % 2 == 0 ? 1 : 2, handle < 2 ? to : Across(p[0], to));
                break;
            case ShapeKind.Rectangle or ShapeKind.Square when handle >= 4:
                Side(p, handle - 4, x, y);
                return new Shape(EvenSide(p, handle - 4) ? shape.Kind : ShapeKind.Rectangle, p);
            case ShapeKind.Rectangle:
                FromOpposite(p, handle, x, y, false);
                break;
            case ShapeKind.Square:
                FromOpposite(p, handle, x, y, true);
                break;
            case ShapeKind.Rhombus or ShapeKind.Parallelogram:
                double cx = (p[0].X + (double)p[2].X) / 2,
                    cy = (p[0].Y + (double)p[2].Y) / 2;
                p[handle] = to;
                p[(handle + 2) % 4] = Corner.At(2 * cx - x, 2 * cy - y);
                if (shape.Kind == ShapeKind.Rhombus)
                    KeepAcross(p, handle, cx, cy);
                break;
            case ShapeKind.RegularPolygon or ShapeKind.Star:
                return About(shape, handle, x, y);
            default:
                p[handle] = to;
                break;
        }

        return shape with
        {
            Points = p,
        };
    }

    /// <summary>Turns and scales about the middle so that a corner comes to a place.</summary>
    private static Shape About(Shape shape, int corner, double x, double y)
    {
        double cx = shape.Points.Average(point => (double)point.X),
            cy = shape.Points.Average(point => (double)point.Y),
            fromX = shape.Points[corner].X - cx,
            fromY = shape.Points[corner].Y - cy;
        var square = Math.Max(fromX * fromX + fromY * fromY, 1);
        double toX = x - cx,
            toY = y - cy,
            a = (fromX * toX + fromY * toY) / square,
            b = (fromX * toY - fromY * toX) / square;
        return shape.Map((px, py) => (cx + a * (px - cx) - b * (py - cy), cy + b * (px - cx) + a * (py - cy)));
    }

    /// <summary>Moves one axis's end; the other axis stays as long as it was, across it.</summary>
    private static void Axis(Corner[] p, int which, Corner to)
    {
        var other = 3 - which;
        double length = p[0].To(p[other]),
            dx = to.X - (double)p[0].X,
            dy = to.Y - (double)p[0].Y,
            far = Math.Max(Math.Sqrt(dx * dx + dy * dy), 1);
        var way = which == 1 ? 1 : -1;
        p[which] = to;
        p[other] = Corner.At(p[0].X - dy / far * length * way, p[0].Y + dx / far * length * way);
    }

    /// <summary>Moves one side of a rectangle along its own normal.</summary>
    private static void Side(Corner[] p, int side, double x, double y)
    {
        int a = side,
            b = (side + 1) % 4,
            c = (side + 2) % 4,
            d = (side + 3) % 4;
        double nx = p[a].X - (double)p[d].X,
            ny = p[a].Y - (double)p[d].Y,
            far = Math.Sqrt(nx * nx + ny * ny);
        if (far < 1)
            (nx, ny, far) = (-(p[b].Y - (double)p[a].Y), p[b].X - (double)p[a].X, Math.Max(p[a].To(p[b]), 1));
        (nx, ny) = (nx / far, ny / far);
        var by = (x - p[d].X) * nx + (y - p[d].Y) * ny;
        p[a] = Corner.At(p[d].X + nx * by, p[d].Y + ny * by);
        p[b] = Corner.At(p[c].X + nx * by, p[c].Y + ny * by);
    }

    /// <summary>A side that was moved until a rectangle is nearly a square is moved so that it is one.</summary>
    /// <returns>Whether it is.</returns>
    private static bool EvenSide(Corner[] p, int side)
    {
        int a = side,
            b = (side + 1) % 4,
            c = (side + 2) % 4,
            d = (side + 3) % 4;
        double wide = p[a].To(p[b]),
            far = p[d].To(p[a]);
        if (far < 1 || Math.Abs(wide - far) > Math.Max(wide, far) * Snap)
            return false;
        p[a] = Corner.At(p[d].X + (p[a].X - (double)p[d].X) / far * wide, p[d].Y + (p[a].Y - (double)p[d].Y) / far * wide);
        p[b] = Corner.At(p[c].X + (p[b].X - (double)p[c].X) / far * wide, p[c].Y + (p[b].Y - (double)p[c].Y) / far * wide);
        return true;
    }

    /// <summary>Moves a corner; the one opposite stays, and the sides keep their directions.</summary>
    private static void FromOpposite(Corner[] p, int corner, double x, double y, bool square)
    {
        int opposite = (corner + 2) % 4,
            next = (corner + 1) % 4,
            before = (corner + 3) % 4;
        // A side of no length has no direction: its neighbour, turned by a right angle, has.
        var (ux, uy) = Direction(p[opposite], p[next]) ?? (Direction(p[opposite], p[before]) is { } other ? (other.Y, -other.X) : (1, 0));
        var (vx, vy) = Direction(p[opposite], p[before]) ?? (-uy, ux);
        double dx = x - p[opposite].X,
            dy = y - p[opposite].Y,
            u = dx * ux + dy * uy,
            v = dx * vx + dy * vy;
        if (square)
            u = v = Math.Max(Math.Abs(u), Math.Abs(v));
        else if (Math.Abs(Math.Abs(u) - Math.Abs(v)) <= Math.Max(Math.Abs(u), Math.Abs(v)) * Snap)
        {
            var side = (Math.Abs(u) + Math.Abs(v)) / 2;
            (u, v) = (Math.CopySign(side, u), Math.CopySign(side, v));
        }

        p[next] = Corner.At(p[opposite].X + ux * u, p[opposite].Y + uy * u);
        p[before] = Corner.At(p[opposite].X + vx * v, p[opposite].Y + vy * v);
        p[corner] = Corner.At(p[opposite].X + ux * u + vx * v, p[opposite].Y + uy * u + vy * v);
    }

    /// <summary>A rhombus's diagonals stay at right angles.</summary>
    private static void KeepAcross(Corner[] p, int moved, double cx, double cy)
    {
        double dx = p[moved].X - cx,
            dy = p[moved].Y - cy,
            far = Math.Max(Math.Sqrt(dx * dx + dy * dy), 1);
        int next = (moved + 1) % 4,
            before = (moved + 3) % 4;
        double ex = p[next].X - cx,
            ey = p[next].Y - cy,
            length = Math.Sqrt(ex * ex + ey * ey),
            way = dx * ey - dy * ex >= 0 ? 1 : -1;
        p[next] = Corner.At(cx - dy / far * length * way, cy + dx / far * length * way);
        p[before] = Corner.At(cx + dy / far * length * way, cy - dx / far * length * way);
    }

    private static (double X, double Y)? Direction(Corner from, Corner to) =>
        from.To(to) is var length and > 0.5 ? ((to.X - (double)from.X) / length, (to.Y - (double)from.Y) / length) : null;

    private static Corner Across(Corner centre, Corner end) => new(2 * centre.X - end.X, 2 * centre.Y - end.Y);

    private static Corner Middle(Corner a, Corner b) => Corner.At((a.X + (double)b.X) / 2, (a.Y + (double)b.Y) / 2);
}
