namespace CalmQuill.Core.Ordering;

/// <summary>Looks for a place in what stands in order.</summary>
public static class Searching
{
    /// <summary>Of how many, from the first on, something holds: of none that stands after one of which it does not.</summary>
    public static int CountWhile<T>(this IReadOnlyList<T> ordered, Predicate<T> holds) => CountWhile(ordered.Count, i => holds(ordered[i]));

    /// <summary>The same of so many places, by their numbers.</summary>
    public static int CountWhile(int count, Predicate<int> holds)
    {
        int low = 0,
            high = count;
        while (low < high)
        {
            var middle = (low + high) / 2;
            if (holds(middle))
                low = middle + 1;
            else
                high = middle;
        }

        return low;
    }
}
