using System.Diagnostics.CodeAnalysis;
using CalmQuill.Core.Operations;

namespace CalmQuill.Core.Ink;

/// <summary>Which parts of a stroke have been rubbed out, as intervals of the stroke's own parameter.</summary>
/// <remarks>
/// Intervals are added under the id of the operation that made them and only ever taken back by that id, so the set merges in any order
/// and undo never restores somebody else's erasing.
/// </remarks>
public sealed class Gaps
{
    /// <summary>Made when first needed: most strokes never have any.</summary>
    private Dictionary<OpId, IReadOnlyList<Interval>>? added;

    [MemberNotNullWhen(true, nameof(added))]
    public bool Any => added is { Count: > 0 };

    public void Add(OpId operation, IReadOnlyList<Interval> intervals) => (added ??= [])[operation] = intervals;

    public void TakeBack(OpId operation) => added?.Remove(operation);

    /// <summary>The visible remainder, as ascending, disjoint intervals; empty when nothing is left.</summary>
    public List<Interval> Visible(int sampleCount)
    {
        var end = (sampleCount - 1) * Interval.PerSample;
        if (!Any)
            return [new Interval(0, end)];
        return Interval.Complement(Interval.Union(added.Values.SelectMany(intervals => intervals)), 0, end);
    }
}
