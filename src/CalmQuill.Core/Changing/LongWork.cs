using CalmQuill.Core.Operations;

namespace CalmQuill.Core.Changing;

/// <summary>Changes that were begun and are made some at a time, as when very much is undone. On the way they can be given up.</summary>
public sealed class LongWork(IEnumerable<Change> changes)
{
    private readonly Queue<Change> waiting = new(changes);
    private readonly List<Change> made = [];

    /// <summary>How many are still to be made.</summary>
    public int Count => waiting.Count;

    /// <summary>The next ones to be made; none when all are.</summary>
    public List<Change> Take(int most)
    {
        var next = new List<Change>();
        while (next.Count < most && waiting.TryDequeue(out var change))
            next.Add(change);
        made.AddRange(next);
        return next;
    }

    /// <summary>What takes back those made so far, the last first: what was switched off is on again, and the other way round. Nothing else is taken back.</summary>
    public LongWork GiveUp() => new(made.OfType<Change.EffectSet>().Reverse().Select(set => set with { Active = !set.Active }));
}
