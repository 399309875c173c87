using CalmQuill.Core.Ink;
using CalmQuill.Core.Papers;

namespace CalmQuill.Core.Bringing;

/// <summary>How leaves are laid on sheets. The numbers are how many lie on one.</summary>
public enum Laying
{
    /// <summary>Each is a page.</summary>
    Whole = 1,

    /// <summary>Two to a sheet, with lines beside them.</summary>
    Two = 2,

    /// <summary>Four, likewise.</summary>
    Four = 4,

    /// <summary>Six, likewise.</summary>
    Six = 6,

    /// <summary>Each is a page with room above it, for a question.</summary>
    Below = 0,

    /// <summary>All on one sheet, in rows.</summary>
    Together = -1,
}

/// <summary>Lays the leaves of a file on sheets: imposition, as printers call it.</summary>
public static class Imposition
{
    /// <summary>The room at the edges of a sheet with several leaves, and between them, 0.01 mm.</summary>
    public const int Edge = 1_500,
        Gap = 800;

    /// <summary>So much of its height is above a leaf with room for a question.</summary>
    private const double RoomAbove = 0.4;

    /// <summary>So many leaves go on one sheet at most.</summary>
    public const int MostTogether = 40;

    /// <summary>The sheets, in the order of their leaves; each leaf lies on one of them.</summary>
    public static IReadOnlyList<LaidSheet> Of(IReadOnlyList<Leaf> leaves, Laying laying) =>
        laying switch
        {
            Laying.Whole => [.. leaves.Select(Whole)],
            Laying.Below => [.. leaves.Select(Below)],
            Laying.Together => [.. leaves.Chunk(MostTogether).Select(Together)],
            _ => [.. leaves.Chunk((int)laying).Select(some => Beside(some, (int)laying))],
        };

    private static LaidSheet Whole(Leaf leaf) =>
        new(Blank(leaf.LaidWidth, leaf.LaidHeight), [new LaidLeaf(leaf, new Box(0, 0, leaf.LaidWidth, leaf.LaidHeight))]);

    private static LaidSheet Below(Leaf leaf)
    {
        var above = Math.Min((int)Math.Round(leaf.LaidHeight * RoomAbove), PaperSize.Most - leaf.LaidHeight);
        return new LaidSheet(
            Blank(leaf.LaidWidth, above + leaf.LaidHeight),
            [new LaidLeaf(leaf, new Box(0, above, leaf.LaidWidth, above + leaf.LaidHeight))]
        );
    }

    /// <summary>One below the other at the left of an upright A4, and lines to write on beside them.</summary>
    private static LaidSheet Beside(IReadOnlyList<Leaf> leaves, int places)
    {
        var sheet = PaperSize.A4;
        var high = (sheet.Height - 2 * Edge - (places - 1) * Gap) / places;
        // The more there are, the narrower they come out, and the more room is left to write.
        var wide = places switch
        {
            2 => 11_500,
            4 => 8_500,
            _ => 6_000,
        };
        var paper = new Paper(sheet, PaperDesigns.Find("beside")!, 710) { Head = Edge + 710, Margin = Edge + wide + Gap };
        return new LaidSheet(
            paper,
            [
                .. leaves.Select(
                    (leaf, i) =>
                    {
                        var top = Edge + i * (high + Gap);
                        return new LaidLeaf(leaf, Fit(leaf, new Box(Edge, top, Edge + wide, top + high), 0));
                    }
                ),
            ]
        );
    }

    /// <summary>In as many rows and columns as let them come out largest.</summary>
    private static LaidSheet Together(IReadOnlyList<Leaf> leaves)
    {
        var sheet = PaperSize.A4;
        var (wide, high) = (sheet.Width - 2 * Edge, sheet.Height - 2 * Edge);
        List<LaidLeaf>? best = null;
        var most = -1L;
        for (var columns = 1; columns <= leaves.Count; columns++)
        {
            var rows = (leaves.Count + columns - 1) / columns;
            var (width, height) = ((wide - (columns - 1) * Gap) / columns, (high - (rows - 1) * Gap) / rows);
            if (width < 1 || height < 1)
                continue;
            var laid = leaves
                .Select(
                    (leaf, i) =>
                    {
                        var (left, top) = (Edge + i % columns * (width + Gap), Edge + i / columns * (height + Gap));
                        return new LaidLeaf(leaf, Fit(leaf, new Box(left, top, left + width, top + height), 0.5));
                    }
                )
                .ToList();
            var shown = laid.Sum(one => (long)(one.Lies.Right - one.Lies.Left) * (one.Lies.Bottom - one.Lies.Top));
            if (shown > most)
                (best, most) = (laid, shown);
        }

        return new LaidSheet(Blank(sheet.Width, sheet.Height), best!);
    }

    /// <summary>As large as it fits into a place, in its own proportions.</summary>
    /// <param name="leaf">The leaf.</param>
    /// <param name="place">The place.</param>
    /// <param name="middle">0 at the upper left of it, 0.5 in its middle.</param>
    private static Box Fit(Leaf leaf, Box place, double middle)
    {
        var (wide, high) = (place.Right - place.Left, place.Bottom - place.Top);
        var share = Math.Min(wide / (double)leaf.LaidWidth, high / (double)leaf.LaidHeight);
        var (width, height) = (
            Math.Clamp((int)Math.Round(leaf.LaidWidth * share), 1, wide),
            Math.Clamp((int)Math.Round(leaf.LaidHeight * share), 1, high)
        );
        var (left, top) = (place.Left + (int)((wide - width) * middle), place.Top + (int)((high - height) * middle));
        return new Box(left, top, left + width, top + height);
    }

    /// <summary>An empty sheet of a size; where it is one that has a name, of that.</summary>
    private static Paper Blank(int width, int height)
    {
        var blank = PaperDesigns.Find("blank")!;
        foreach (var size in PaperSize.Named)
        {
            if (Near(size.Width, width) && Near(size.Height, height))
                return new Paper(size, blank, blank.Spacing);
            if (Near(size.Width, height) && Near(size.Height, width))
                return new Paper(size, blank, blank.Spacing) { Across = true };
        }

        return new Paper(PaperSize.Find(FormattableString.Invariant($"{width}x{height}"))!.Value, blank, blank.Spacing);

        // A point is 0.35 mm, and files give whole ones.
        static bool Near(int one, int other) => Math.Abs(one - other) <= 18;
    }
}
