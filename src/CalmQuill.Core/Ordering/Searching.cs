namespace CalmQuill.Core.Ordering;

/// <summary>Looks for a place in what stands in order.</summary>
public static class Searching
{
    /// <summary>Of how many, from the first on, something holds: of none that stands after one of which it does not.</summary>
    public static int CountWhile<T>(this IReadOnlyList<T> ordered, Predicate<T> holds)
    {
        int low = 0,
            high = ordered.Count;
        while (low < high)
        {
            var middle = (low + high) / 2;
            if (holds(ordered[middle]))
                low = middle + 1;
            else
                high = middle;
        }

        return low;
    }
}
