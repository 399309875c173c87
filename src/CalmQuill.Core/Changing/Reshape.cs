using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Pages;

namespace CalmQuill.Core.Changing;

/// <summary>Scaling, turning and mirroring things of which some may follow only in part: each does what its content allows, about its own middle, which goes where the transform sends it.</summary>
public static class Reshape
{
    /// <summary>What is to be done to which things. Those that stay as they are are left out.</summary>
    /// <param name="items">The things.</param>
    /// <param name="transform">What is asked of all of them.</param>
    public static List<(IReadOnlyList<PageItem> Items, Transform Transform)> Of(IReadOnlyList<PageItem> items, Transform transform)
    {
        var steps = new List<(IReadOnlyList<PageItem>, Transform)>();
        if (transform.IsShift)
            return items.Count > 0 && transform != Transform.Identity ? [(items, transform)] : steps;
        var free = items.Where(item => item.Content.Reshaping == Reshaping.Freely).ToList();
        if (free.Count > 0)
            steps.Add((free, transform));
        foreach (var item in items.Where(item => item.Content.Reshaping != Reshaping.Freely))
        {
            var box = item.Bounds;
            var middle = (X: (box.Left + (double)box.Right) / 2, Y: (box.Top + (double)box.Bottom) / 2);
            var step = (item.Content.Reshaping == Reshaping.InProportion ? transform.InProportion() : Transform.Identity).Sending(
                middle,
                transform.Of(middle.X, middle.Y)
            );
            if (step != Transform.Identity)
                steps.Add(([item], step));
        }

        return steps;
    }
}
