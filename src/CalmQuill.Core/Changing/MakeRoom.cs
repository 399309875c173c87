using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Spots;

namespace CalmQuill.Core.Changing;

/// <summary>Making room: all that lies beyond a line is moved along with it, or drawn back towards it.</summary>
public sealed class MakeRoom
{
    private readonly List<PageItem> moved;
    private readonly List<Spot> signs;
    private readonly bool sideways;

    /// <param name="page">The page.</param>
    /// <param name="line">Where the line is: how far down, or with <paramref name="sideways"/> how far right; 0.01 mm.</param>
    /// <param name="sideways">Whether what lies right of the line moves, instead of what lies below.</param>
    public MakeRoom(PageDocument page, int line, bool sideways)
    {
        this.sideways = sideways;
        var open = page.Items.Where(item => item.IsOpen).ToList();
        moved = [.. open.Where(item => Middle(item.Bounds) >= line)];
        var ids = moved.Select(item => item.Id).ToHashSet();
        // What was put on ink goes where that ink goes.
        signs = [.. page.Spots().Where(spot => spot.Items.Count == 0 && Middle(spot.Area) >= line)];
        var first = moved.Select(item => Near(item.Bounds)).Concat(signs.Select(spot => Near(spot.Area))).DefaultIfEmpty(line).Min();
        var last = page
            .Items.Where(item => item.Shown && !ids.Contains(item.Id) && BesideAny(item.Bounds))
            .Select(item => Far(item.Bounds))
            .DefaultIfEmpty(0)
            .Max();
        // Drawn back it stops where it would lie over what stays.
        MostBack = Math.Max(0, first - Math.Max(last, 0));
    }

    public IReadOnlyList<PageItem> Moved => moved;

    /// <summary>How much empty space can be taken away at most, 0.01 mm.</summary>
    public int MostBack { get; }

    /// <summary>How far a wish to move goes: as far as wished forward, and back until it would lie over ink.</summary>
    public int Within(int by) => Math.Max(by, -MostBack);

    /// <summary>The change; null when there is nothing to move.</summary>
    public Change? Change(int by)
    {
        by = Within(by);
        if (by == 0 || moved.Count + signs.Count == 0)
            return null;
        return new Change.ItemsTransformed(
            [.. moved.Select(item => item.Id)],
            [.. signs.Select(spot => spot.Id)],
            sideways ? Transform.Shift(by, 0) : Transform.Shift(0, by)
        );
    }

    /// <summary>What would leave a sheet that ends there: things that would lie mostly beyond its end.</summary>
    public List<PageItem> Leaving(int by, int end) => [.. moved.Where(item => Middle(item.Bounds) + by > end)];

    private int Middle(Box box) => (Near(box) + Far(box)) / 2;

    private int Near(Box box) => sideways ? box.Left : box.Top;

    private int Far(Box box) => sideways ? box.Right : box.Bottom;

    /// <summary>Whether something that stays lies in the way of what moves.</summary>
    private bool BesideAny(Box box) =>
        moved.Exists(item =>
            sideways
                ? item.Bounds.Top <= box.Bottom && box.Top <= item.Bounds.Bottom
                : item.Bounds.Left <= box.Right && box.Left <= item.Bounds.Right
        );
}
