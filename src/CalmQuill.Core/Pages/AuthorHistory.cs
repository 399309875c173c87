using CalmQuill.Core.Operations;

namespace CalmQuill.Core.Pages;

/// <summary>One person's steps on one page in the order of their stamps: what undo and redo go through.</summary>
internal sealed class AuthorHistory
{
    private readonly List<Step> steps = [];

    private readonly record struct Step(Stamp Stamp, bool Active, Stamp Switched);

    public void Add(Stamp stamp, bool active, Stamp switched)
    {
        var index = steps.Count;
        while (index > 0 && steps[index - 1].Stamp > stamp) index--;
        steps.Insert(index, new Step(stamp, active, switched));
    }

    public void SetActive(Stamp stamp, bool active, Stamp switched)
    {
        var index = steps.FindLastIndex(step => step.Stamp == stamp);
        steps[index] = new Step(stamp, active, switched);
    }

    public OpId? ToUndo()
    {
        var index = steps.FindLastIndex(step => step.Active);
        return index < 0 ? null : steps[index].Stamp.Id;
    }

    /// <summary>The step switched off last, if that was after the newest step was made.</summary>
    public OpId? ToRedo()
    {
        Step? latest = null;
        foreach (var step in steps)
        {
            if (!step.Active && step.Switched > steps[^1].Stamp && (latest is null || step.Switched > latest.Value.Switched)) latest = step;
        }

        return latest?.Stamp.Id;
    }
}
