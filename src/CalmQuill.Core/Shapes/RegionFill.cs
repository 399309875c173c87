using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Pages;

namespace CalmQuill.Core.Shapes;

/// <summary>Finds the region around a spot that strokes and shapes close in, small gaps tolerated.</summary>
/// <remarks>
/// Lines are drawn on a raster, thickened by half of what a gap may be; the region is flooded from the spot, grown back by as much, and its edge followed
/// and simplified. Islands inside are cut out by a slit to the outer edge. The raster begins around the spot and doubles until the region does not reach
/// its border; a region that reaches the sheet's edge is open. A raster has no more cells than <see cref="MostCells"/>: for a larger one the cells are coarser,
/// up to <see cref="CoarsestCell"/>; a region that takes more is too large.
/// </remarks>
public sealed class RegionFill
{
    /// <summary>So many cells a raster has at most. What is held of a cell at the worst moment, five marks and two places on stacks, comes to 13 bytes: 52 MB in all.</summary>
    private const int MostCells = 4_000_000;

    /// <summary>Side of a raster cell at first, and at most, 0.01 mm.</summary>
    private const int FinestCell = 20,
        CoarsestCell = 160;
    private const int FirstHalf = 3_000;

    /// <summary>An island smaller than this many cells is a speck.</summary>
    private const int LeastIsland = 12;

    /// <summary>How far a simplified edge may be off, in cells.</summary>
    private const double Tolerance = 0.7;

    private readonly int left,
        top,
        width,
        height,
        side;
    private readonly bool[] wall;
    private readonly bool[] inside;

    private RegionFill(Box window, int cell)
    {
        (left, top, side) = (window.Left, window.Top, cell);
        (width, height) = ((window.Right - window.Left) / cell + 1, (window.Bottom - window.Top) / cell + 1);
        (wall, inside) = (new bool[width * height], new bool[width * height]);
    }

    /// <summary>The region as a shape; null where nothing closes it in, or the spot lies on ink.</summary>
    /// <param name="page">The page.</param>
    /// <param name="sheet">Where the sheet lies.</param>
    /// <param name="x">The spot, 0.01 mm.</param>
    /// <param name="y">The spot, 0.01 mm.</param>
    /// <param name="gap">How wide a gap may be, 0.01 mm.</param>
    /// <exception cref="SentenceException">The region is too large; the message says so.</exception>
    public static Shape? At(PageDocument page, Box sheet, int x, int y, int gap)
    {
        if (x < sheet.Left || x > sheet.Right || y < sheet.Top || y > sheet.Bottom)
            return null;
        var lines = page
            .Items.Where(item => item.Shown && item.Kind is (ItemKinds.Ink or ItemKinds.Shape) && item.Content is LineContent)
            .ToList();
        for (var half = FirstHalf; ; half *= 2)
        {
            var window = new Box(
                Math.Max(sheet.Left, x - half),
                Math.Max(sheet.Top, y - half),
                Math.Min(sheet.Right, x + half),
                Math.Min(sheet.Bottom, y + half)
            );
            var fill = new RegionFill(window, CellFor(window));
            foreach (var item in lines)
            {
                if (item.Bounds.Meets(window.Grow(gap)))
                    fill.Draw(item, (LineContent)item.Content, gap / 2);
            }

            if (fill.Flood((x - window.Left) / fill.side, (y - window.Top) / fill.side) is not { } closed)
                return null;
            if (closed)
                return fill.Outline(gap / 2);
            if (window == sheet)
                return null;
        }
    }

    private static int CellFor(Box window)
    {
        var cell = FinestCell;
        while (((window.Right - (long)window.Left) / cell + 1) * ((window.Bottom - (long)window.Top) / cell + 1) > MostCells)
            cell *= 2;
        return cell <= CoarsestCell
            ? cell
            : throw new SentenceException($"This region is too large to be filled. Close in a smaller one, or draw a shape and fill that.");
    }

    private void Draw(PageItem item, LineContent drawn, int thicker)
    {
        var (samples, pen) = (drawn.Samples, drawn.Pen);
        foreach (var part in item.Visible())
        {
            var line = FlatLine.Of(samples, part);
            for (var k = 0; k < Math.Max(1, line.Count - 1); k++)
            {
                var (from, to, i) = (line[k], line[Math.Min(k + 1, line.Count - 1)], (int)line[k].At);
                var radius = (i + 1 == samples.Count ? pen.Radius(samples.Pressure[i]) : Nib.HalfAcross(samples, i, pen)) + thicker;
                Thick(from.X + item.Dx, from.Y + item.Dy, to.X + item.Dx, to.Y + item.Dy, Math.Max(radius, side * 0.75));
            }
        }
    }

    private void Thick(double ax, double ay, double bx, double by, double radius)
    {
        int x0 = Math.Max(0, (int)((Math.Min(ax, bx) - radius - left) / side)),
            x1 = Math.Min(width - 1, (int)((Math.Max(ax, bx) + radius - left) / side));
        int y0 = Math.Max(0, (int)((Math.Min(ay, by) - radius - top) / side)),
            y1 = Math.Min(height - 1, (int)((Math.Max(ay, by) + radius - top) / side));
        double ux = bx - ax,
            uy = by - ay,
            square = ux * ux + uy * uy,
            reach = radius * radius;
        for (var cy = y0; cy <= y1; cy++)
        {
            for (var cx = x0; cx <= x1; cx++)
            {
                double px = left + (cx + 0.5) * side - ax,
                    py = top + (cy + 0.5) * side - ay,
                    t = square == 0 ? 0 : Math.Clamp((px * ux + py * uy) / square, 0, 1);
                px -= ux * t;
                py -= uy * t;
                if (px * px + py * py <= reach)
                    wall[cy * width + cx] = true;
            }
        }
    }

    /// <summary>Floods from a cell. True when it stays within the window, false when it reaches its border, null when the cell lies on ink.</summary>
    private bool? Flood(int x, int y)
    {
        var start = y * width + x;
        if (wall[start])
            return null;
        var open = new Stack<int>();
        open.Push(start);
        inside[start] = true;
        while (open.TryPop(out var cell))
        {
            int cx = cell % width,
                cy = cell / width;
            if (cx == 0 || cy == 0 || cx == width - 1 || cy == height - 1)
                return false;
            Step(cell - 1);
            Step(cell + 1);
            Step(cell - width);
            Step(cell + width);
        }

        return true;

        void Step(int next)
        {
            if (wall[next] || inside[next])
                return;
            inside[next] = true;
            open.Push(next);
        }
    }

    private Shape? Outline(int thicker)
    {
        Grow((int)Math.Ceiling((thicker + side * 0.75) / side));
        var outer = Follow(Array.IndexOf(inside, true), inside);
        var seen = OuterSpace();
        var island = new bool[inside.Length];
        var ring = Simplify(outer);
        for (var cell = 0; cell < inside.Length; cell++)
        {
            if (inside[cell] || seen[cell])
                continue;
            var cells = Spread(cell, island, inside);
            foreach (var one in cells)
                seen[one] = true;
            if (cells.Count >= LeastIsland)
                ring = WithSlit(ring, Simplify(Follow(cells.Min(), island)));
            foreach (var one in cells)
                island[one] = false;
        }

        return ring.Count is >= 3 and <= Shape.MostPoints ? new Shape(ShapeKind.Area, ring) : null;
    }

    /// <summary>Takes back what lines were thickened by: every cell so near the region belongs to it.</summary>
    private void Grow(int steps)
    {
        for (var step = 0; step < steps; step++)
        {
            var before = (bool[])inside.Clone();
            for (var cy = 1; cy < height - 1; cy++)
            {
                for (var cx = 1; cx < width - 1; cx++)
                {
                    var cell = cy * width + cx;
                    // Every other step by corners too, so that it grows round and not square.
                    inside[cell] |=
                        before[cell - 1]
                        || before[cell + 1]
                        || before[cell - width]
                        || before[cell + width]
                        || (
                            step % 2 == 1
                            && (
                                before[cell - width - 1] || before[cell - width + 1] || before[cell + width - 1] || before[cell + width + 1]
                            )
                        );
                }
            }
        }
    }

    /// <summary>All cells that the border can be reached from without crossing the region.</summary>
    private bool[] OuterSpace()
    {
        var seen = new bool[inside.Length];
        Spread(0, seen, inside);
        return seen;
    }

    /// <summary>Marks all cells that can be reached from one without crossing a barrier, and says which they are.</summary>
    private List<int> Spread(int start, bool[] into, bool[] barrier)
    {
        // What was reached is also what is still to be gone on from.
        var reached = new List<int> { start };
        into[start] = true;
        for (var next = 0; next < reached.Count; next++)
        {
            var cell = reached[next];
            int cx = cell % width,
                cy = cell / width;
            if (cx > 0)
                Step(cell - 1);
            if (cx < width - 1)
                Step(cell + 1);
            if (cy > 0)
                Step(cell - width);
            if (cy < height - 1)
                Step(cell + width);
        }

        return reached;

        void Step(int beside)
        {
            if (barrier[beside] || into[beside])
                return;
            into[beside] = true;
            reached.Add(beside);
        }
    }

    /// <summary>The edge of a set of cells, along the cells' own edges, from the upper left corner of its first cell, with the set on the right.</summary>
    private List<Corner> Follow(int first, bool[] cells)
    {
        int x = first % width,
            y = first / width,
            startX = x,
            startY = y,
            direction = 0;
        var edge = new List<Corner>();
        ReadOnlySpan<(int X, int Y)> ways = [(1, 0), (0, 1), (-1, 0), (0, -1)];
        do
        {
            edge.Add(new Corner(left + x * side, top + y * side));
            // Turn left where the cell ahead on the left belongs to it, go straight where the one on the right does, else turn right.
            bool aheadLeft = Ahead(cells, x, y, direction, true),
                aheadRight = Ahead(cells, x, y, direction, false);
            if (aheadLeft)
                direction = (direction + 3) % 4;
            else if (!aheadRight)
                direction = (direction + 1) % 4;
            x += ways[direction].X;
            y += ways[direction].Y;
        } while ((x, y) != (startX, startY) && edge.Count < 400_000);
        return edge;
    }

    private bool Ahead(bool[] cells, int x, int y, int direction, bool onLeft)
    {
        // The four cells round the corner (x, y): upper left, upper right, lower right, lower left.
        var (cx, cy) = (direction, onLeft) switch
        {
            (0, true) => (x, y - 1),
            (0, false) => (x, y),
            (1, true) => (x, y),
            (1, false) => (x - 1, y),
            (2, true) => (x - 1, y),
            (2, false) => (x - 1, y - 1),
            (3, true) => (x - 1, y - 1),
            _ => (x, y - 1),
        };
        return cx >= 0 && cy >= 0 && cx < width && cy < height && cells[cy * width + cx];
    }

    private List<Corner> Simplify(List<Corner> edge)
    {
        if (edge.Count < 8)
            return edge;
        var line = edge.Select((corner, i) => new FlatPoint(i, corner.X, corner.Y)).ToList();
        // Split at the point farthest from the first, since both ends are one place.
        var far = Enumerable.Range(0, edge.Count).MaxBy(i => edge[i].To(edge[0]));
        return
        [
            .. LineSimplifier.Keep(line[..(far + 1)], Tolerance * side).Select(i => edge[i]),
            .. LineSimplifier.Keep(line[far..], Tolerance * side).Skip(1).Select(i => edge[far + i]),
        ];
    }

    /// <summary>Cuts an island out of a ring by going there and back through a slit of no width.</summary>
    private static List<Corner> WithSlit(List<Corner> ring, List<Corner> island)
    {
        var (at, to) = (0, 0);
        var least = double.MaxValue;
        for (var i = 0; i < ring.Count; i++)
        {
            for (var k = 0; k < island.Count; k++)
            {
                if (ring[i].To(island[k]) is var off && off < least)
                    (at, to, least) = (i, k, off);
            }
        }

        // Islands are followed the same way round as the outer edge, so they are gone through backwards.
        var around = Enumerable.Range(0, island.Count + 1).Select(i => island[(to - i + 2 * island.Count) % island.Count]);
        return [.. ring[..(at + 1)], .. around, .. ring[at..]];
    }
}
