using CalmQuill.Core.Items;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Shapes;

namespace CalmQuill.Core.Tables;

/// <summary>A table that was drawn with the pen, with tidy lines and rectangles; 0.01 mm.</summary>
/// <param name="X">Its left edge.</param>
/// <param name="Y">Its upper edge.</param>
/// <param name="Widths">How wide its columns are.</param>
/// <param name="Heights">How high its rows are.</param>
public sealed record DrawnTable(int X, int Y, IReadOnlyList<int> Widths, IReadOnlyList<int> Heights)
{
    /// <summary>Lines so near to each other are one, and a line leans at most so much, in hundredths of its length.</summary>
    private const int Near = 250,
        Lean = 6;

    /// <summary>Whether something can be a rule of a table.</summary>
    public static bool IsRule(PageItem item) =>
        item.Content is ShapeContent { PlacedShape.Kind: ShapeKind.Line or ShapeKind.Rectangle or ShapeKind.Square };

    /// <summary>What some lines are the rules of; null where they are no table, or one leans, or another shape is among them.</summary>
    /// <param name="items">The lines; what is written between them may be among them.</param>
    public static DrawnTable? Of(IReadOnlyList<PageItem> items)
    {
        var (across, down) = (new List<int>(), new List<int>());
        foreach (var item in items)
        {
            if (item.Content is not ShapeContent { PlacedShape: { } shape })
                continue;
            if (!IsRule(item))
                return null;
            var sides = shape.Kind == ShapeKind.Line ? 1 : shape.Points.Count;
            for (var i = 0; i < sides; i++)
            {
                var (one, other) = (shape.Points[i], shape.Points[(i + 1) % shape.Points.Count]);
                int dx = Math.Abs(one.X - other.X),
                    dy = Math.Abs(one.Y - other.Y);
                if (dy * 100L <= (long)dx * Lean)
                    down.Add((one.Y + other.Y) / 2);
                else if (dx * 100L <= (long)dy * Lean)
                    across.Add((one.X + other.X) / 2);
                else
                    return null;
            }
        }

        var (columns, rows) = (Edges(across), Edges(down));
        // A frame alone is a frame.
        if (columns.Count < 2 || rows.Count < 2 || columns.Count + rows.Count < 5)
            return null;
        List<int> widths = Between(columns),
            heights = Between(rows);
        return
            TableLimits.Check(heights.Count, widths.Count) is null
            && widths.Concat(heights).All(extent => extent is >= TableLimits.LeastExtent and <= TableLimits.MostExtent)
            ? new DrawnTable(columns[0], rows[0], widths, heights)
            : null;
    }

    private static List<int> Edges(List<int> lines)
    {
        var edges = new List<int>();
        foreach (var line in lines.Order())
        {
            if (edges.Count == 0 || line - edges[^1] > Near)
                edges.Add(line);
        }

        return edges;
    }

    private static List<int> Between(List<int> edges) => [.. edges.Skip(1).Select((edge, i) => edge - edges[i])];
}
