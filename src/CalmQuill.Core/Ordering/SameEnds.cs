namespace CalmQuill.Core.Ordering;

/// <summary>How much of a list is as it was before, at its head and at its tail: mostly all but what lies where somebody did something.</summary>
public static class SameEnds
{
    /// <summary>How many from the head are the same, and of the rest how many from the tail.</summary>
    /// <param name="before">The list as it was.</param>
    /// <param name="now">The list as it is.</param>
    /// <param name="isSame">Whether one is as it was.</param>
    /// <param name="isSameBehind">The same of those at the tail, where more may differ, as by how far they moved; null for as at the head.</param>
    public static (int Head, int Tail) Of<T>(
        IReadOnlyList<T> before,
        IReadOnlyList<T> now,
        Func<T, T, bool> isSame,
        Func<T, T, bool>? isSameBehind = null
    )
    {
        isSameBehind ??= isSame;
        var most = Math.Min(before.Count, now.Count);
        int head = 0,
            tail = 0;
        while (head < most && isSame(before[head], now[head]))
            head++;
        while (tail < most - head && isSameBehind(before[^(tail + 1)], now[^(tail + 1)]))
            tail++;
        return (head, tail);
    }
}
