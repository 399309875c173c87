using CalmQuill.Core.Operations;
using CalmQuill.Core.Ordering;

namespace CalmQuill.Core.History;

/// <summary>A library or notebook as it was at any time. It is of the moment in which it was opened; what comes afterwards is not in it.</summary>
/// <remarks>Forth it goes from where it is, back from the beginning: all of a notebook is little beside what is written on its pages.</remarks>
public sealed class PlacesHistory<T>(T now)
    where T : class, IPlaces, new()
{
    private readonly List<Operation> operations = now.Operations();

    /// <summary>How many operations there are.</summary>
    public int Length => operations.Count;

    /// <summary>How many of them had been made at the moment.</summary>
    public int At { get; private set; }

    /// <summary>As it was at the moment.</summary>
    public T Then { get; private set; } = new();

    /// <summary>What was done after the moment.</summary>
    public IEnumerable<Operation> Since => operations.Skip(At);

    /// <summary>Goes towards a time, UTC milliseconds since 1970, by so many operations at most; says how many are left to go.</summary>
    public int MoveTo(long time, int most = int.MaxValue)
    {
        var count = operations.CountWhile(operation => operation.Time.UnixMilliseconds <= time);
        if (count < At)
            (Then, At) = (new T(), 0);
        for (; At < count && most > 0; most--)
            Then.Apply(operations[At++]);
        return count - At;
    }

    /// <summary>Goes to the moment of a time at once.</summary>
    public static PlacesHistory<T> Of(T now, long time)
    {
        var history = new PlacesHistory<T>(now);
        history.MoveTo(time);
        return history;
    }
}
