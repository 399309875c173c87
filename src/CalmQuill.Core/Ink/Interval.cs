namespace CalmQuill.Core.Ink;

/// <summary>A closed interval of a stroke's parameter, in 1/256 of a sample: sample <c>i</c> lies at <c>256·i</c>.</summary>
public readonly record struct Interval(int Start, int End)
{
    /// <summary>Units of the parameter from one sample to the next.</summary>
    public const int PerSample = 256;

    /// <summary>The union as ascending, disjoint intervals; what touches is joined.</summary>
    public static List<Interval> Union(IEnumerable<Interval> intervals)
    {
        var union = new List<Interval>();
        foreach (var next in intervals.OrderBy(interval => interval.Start))
        {
            if (union.Count > 0 && next.Start <= union[^1].End)
                union[^1] = union[^1] with { End = Math.Max(union[^1].End, next.End) };
            else
                union.Add(next);
        }

        return union;
    }

    /// <summary>
    /// What an ascending, disjoint union leaves of <paramref name="start"/>…<paramref name="end"/>. An interval of no length parts nothing; of a dot, whose
    /// start and end are one, it leaves all or nothing.
    /// </summary>
    public static List<Interval> Complement(IReadOnlyList<Interval> union, int start, int end)
    {
        if (start == end)
            return union.Any(gap => gap.Start <= start && gap.End >= end) ? [] : [new Interval(start, end)];
        var rest = new List<Interval>();
        var from = start;
        foreach (var gap in union)
        {
            if (gap.Start == gap.End)
                continue;
            if (gap.Start > from)
                rest.Add(new Interval(from, Math.Min(gap.Start, end)));
            from = Math.Max(from, gap.End);
            if (from >= end)
                break;
        }

        if (from < end)
            rest.Add(new Interval(from, end));
        return rest;
    }
}
