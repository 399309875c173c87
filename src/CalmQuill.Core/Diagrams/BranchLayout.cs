using CalmQuill.Core.Ink;

namespace CalmQuill.Core.Diagrams;

/// <summary>One thing of a branch map.</summary>
/// <param name="Box">The box around it, 0.01 mm.</param>
/// <param name="Parent">The number of what it branches off, which is smaller than its own; −1 for the centre, which comes first.</param>
/// <param name="IsRight">Whether it goes off to the right; for what branches off the centre alone, all else goes on as that does.</param>
public readonly record struct BranchNode(Box Box, int Parent, bool IsRight);

/// <summary>
/// Lays out a branch map: the centre stays, what branches off goes to its right and its left, each in the order in which it is given, a branch as high as all
/// that it carries, so that nothing lies on anything else.
/// </summary>
public static class BranchLayout
{
    /// <summary>Room between a thing and what branches off it, and between what lies one below the other; 0.01 mm.</summary>
    public const int Across = 1_800,
        Below = 500;

    /// <summary>By how much each thing is to be moved.</summary>
    /// <param name="nodes">The things, each after what it branches off.</param>
    public static (int Dx, int Dy)[] Of(IReadOnlyList<BranchNode> nodes)
    {
        var right = new bool[nodes.Count];
        for (var i = 1; i < nodes.Count; i++)
            right[i] = nodes[i].Parent == 0 ? nodes[i].IsRight : right[nodes[i].Parent];
        var heights = Heights(nodes, right);
        var moved = new (int Dx, int Dy)[nodes.Count];
        // Where what comes next of each thing's branches begins, to its right and to its left.
        var next = new double[nodes.Count, 2];
        for (var i = 0; i < nodes.Count; i++)
        {
            if (i > 0)
            {
                var (parent, side, box) = (nodes[i].Parent, right[i] ? 0 : 1, nodes[i].Box);
                var held = nodes[parent].Box.Shift(moved[parent].Dx, moved[parent].Dy);
                var left = right[i] ? held.Right + Across : held.Left - Across - (box.Right - box.Left);
                var middle = next[parent, side] + heights[i].Whole / 2;
                next[parent, side] += heights[i].Whole + Below;
                moved[i] = (left - box.Left, (int)Math.Round(middle - (box.Top + (double)box.Bottom) / 2));
            }

            var (top, bottom) = (nodes[i].Box.Top + moved[i].Dy, nodes[i].Box.Bottom + moved[i].Dy);
            (next[i, 0], next[i, 1]) = ((top + (double)bottom - heights[i].Right) / 2, (top + (double)bottom - heights[i].Left) / 2);
        }

        return moved;
    }

    /// <summary>How high each thing is with all that it carries, and how high that is on either side.</summary>
    private static (double Whole, double Right, double Left)[] Heights(IReadOnlyList<BranchNode> nodes, bool[] right)
    {
        var heights = new (double Whole, double Right, double Left)[nodes.Count];
        for (var i = nodes.Count - 1; i >= 0; i--)
        {
            var box = nodes[i].Box;
            heights[i].Whole = Math.Max(box.Bottom - box.Top, Math.Max(heights[i].Right, heights[i].Left));
            if (i == 0)
                continue;
            ref var parent = ref heights[nodes[i].Parent];
            ref var side = ref right[i] ? ref parent.Right : ref parent.Left;
            side += (side > 0 ? Below : 0) + heights[i].Whole;
        }

        return heights;
    }
}
