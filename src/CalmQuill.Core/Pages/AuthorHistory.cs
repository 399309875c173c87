using CalmQuill.Core.Operations;

namespace CalmQuill.Core.Pages;

/// <summary>One person's steps on one page in the order of their stamps: what undo and redo go through. Several operations may be one step.</summary>
internal sealed class AuthorHistory
{
    private readonly List<Step> steps = [];
    private readonly Dictionary<OpId, OpId> joins = [];

    public bool CanUndo => steps.Exists(step => step.Active);

    public bool CanRedo => LastSwitchedOff() is not null;

    private readonly record struct Step(Stamp Stamp, bool Active, Stamp Switched);

    public void Add(Stamp stamp, bool active, Stamp switched)
    {
        var index = steps.Count;
        while (index > 0 && steps[index - 1].Stamp > stamp)
            index--;
        steps.Insert(index, new Step(stamp, active, switched));
    }

    /// <summary>Operations that are one step; of two joins of one operation the one with the greater id counts.</summary>
    public void Join(OpId join, IReadOnlyList<OpId> operations)
    {
        foreach (var operation in operations)
        {
            if (!joins.TryGetValue(operation, out var standing) || join.CompareTo(standing) > 0)
                joins[operation] = join;
        }
    }

    /// <summary>The step is not made yet.</summary>
    public void Remove(Stamp stamp) => steps.RemoveAt(IndexOf(stamp));

    public void SetActive(Stamp stamp, bool active, Stamp switched)
    {
        steps[IndexOf(stamp)] = new Step(stamp, active, switched);
    }

    public List<OpId> ToUndo()
    {
        var index = steps.FindLastIndex(step => step.Active);
        return index < 0 ? [] : With(steps[index], step => step.Active);
    }

    public List<OpId> ToRedo() => LastSwitchedOff() is { } found ? With(found, step => !step.Active) : [];

    /// <summary>The step switched off last, if that was after the newest step was made.</summary>
    private Step? LastSwitchedOff()
    {
        Step? latest = null;
        foreach (var step in steps)
        {
            if (!step.Active && step.Switched > steps[^1].Stamp && (latest is null || step.Switched > latest.Value.Switched))
                latest = step;
        }

        return latest;
    }

    /// <summary>Where a step stands: steps are in the order of their stamps.</summary>
    private int IndexOf(Stamp stamp)
    {
        int low = 0,
            high = steps.Count - 1;
        while (low < high)
        {
            var middle = (low + high) / 2;
            if (steps[middle].Stamp < stamp)
                low = middle + 1;
            else
                high = middle;
        }

        return low;
    }

    /// <summary>The operation, with those it was joined with that are in the same state; the newest first.</summary>
    private List<OpId> With(Step step, Predicate<Step> same) =>
        joins.TryGetValue(step.Stamp.Id, out var join)
            ?
            [
                .. steps
                    .Where(other => same(other) && joins.TryGetValue(other.Stamp.Id, out var own) && own == join)
                    .Reverse()
                    .Select(other => other.Stamp.Id),
            ]
            : [step.Stamp.Id];
}
