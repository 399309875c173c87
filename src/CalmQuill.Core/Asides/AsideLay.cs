using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;

namespace CalmQuill.Core.Asides;

/// <summary>An aside laid over its page: what was written at something on the page lies where that now lies.</summary>
/// <remarks>
/// The steps that moved the thing on the page are done to what was written at it too, at their own stamps among the aside's own steps; those that were done before it was
/// written are not. So nothing of it is stored, every device comes to the same, undoing a step on the page brings the note back, and what one does to the note oneself keeps its place among them. What
/// had not been heard of when it was written, though it was done before, and what was done before and taken back after, is made up for as one step at the moment of writing.
/// </remarks>
public sealed class AsideLay(PageDocument aside, PageDocument page)
{
    /// <summary>Who goes on writing within so many milliseconds, and so near, writes on at the same thing.</summary>
    private const long GoesOnMilliseconds = 2_000;

    /// <inheritdoc cref="GoesOnMilliseconds"/>
    private const int GoesOnWithin = 1_000;

    private readonly Dictionary<OpId, List<(Stamp Stamp, Transform Step)>> carried = [];
    private (int Moves, int Anchors) seen = (-1, -1);
    private (long Ended, Box Area, OpId? On) last = (long.MinValue / 2, default, null);

    /// <summary>The page that it lies over.</summary>
    public PageDocument Page => page;

    /// <summary>Takes along what was written at things that have moved since the last call; false when there is nothing to take along.</summary>
    public bool Follow()
    {
        var now = (page.Moves, aside.Anchors.Version);
        if (now == seen)
            return false;
        seen = now;
        var moved = false;
        foreach (var (item, anchor) in aside.Anchors.All)
        {
            var (wanted, had) = (StepsOf(anchor), carried.GetValueOrDefault(item) ?? []);
            if (wanted.SequenceEqual(had))
                continue;
            aside.Carry(item, had, wanted);
            carried[item] = wanted;
            moved = true;
        }

        return moved;
    }

    /// <summary>Lifts it: everything on it lies where it was written, as far as the page goes.</summary>
    public void Lift()
    {
        foreach (var (item, had) in carried)
            aside.Carry(item, had, []);
        carried.Clear();
        seen = (-1, -1);
    }

    /// <summary>What says at which thing something new was written; null on empty paper. One that goes on where it was written last is at the same thing.</summary>
    public Change.ItemsAnchored? AnchorFor(PageItem written)
    {
        var goesOn = written.StartedAt - last.Ended <= GoesOnMilliseconds && last.Area.Grow(GoesOnWithin).Meets(written.Bounds);
        var on = goesOn ? last.On : Anchors.Under(page, written.Bounds)?.Id;
        last = (written.Stamp.Time.UnixMilliseconds, written.Bounds, on);
        if (on is not { } thing)
            return null;
        var lay = page.Find(thing)?.Placed?.Whole() ?? Transform.Identity;
        return lay.IsReasonable ? new Change.ItemsAnchored([written.Id], thing, lay) : null;
    }

    private List<(Stamp, Transform)> StepsOf(Anchor anchor)
    {
        var steps = new List<(Stamp, Transform)>();
        var placed = page.Find(anchor.On)?.Placed;
        var before = placed?.Whole(anchor.Stamp) ?? Transform.Identity;
        // Where it lay then, undone; and where it lay by what is known now.
        if (
            before != anchor.Lay
            && before.After(anchor.Lay.Inverse()) is { IsReasonable: true } difference
            && difference != Transform.Identity
        )
            steps.Add((anchor.Stamp, difference));
        if (placed is not null)
            steps.AddRange(placed.Since(anchor.Stamp));
        return steps;
    }
}
