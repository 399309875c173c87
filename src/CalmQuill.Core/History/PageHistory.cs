using CalmQuill.Core.Operations;
using CalmQuill.Core.Ordering;
using CalmQuill.Core.Pages;

namespace CalmQuill.Core.History;

/// <summary>A page as it was at any time: all that was done on it, in the order of its stamps, and a page that is taken forth and back along it.</summary>
/// <remarks>
/// Every operation's contribution can be taken out again, so a step back costs what a step forth does: nothing is worked out anew from the beginning, and only
/// the
/// things that a step touches change. It is of the moment in which it was opened; what comes to the page afterwards is not in it.
/// </remarks>
public sealed class PageHistory
{
    private readonly List<Operation> operations;
    private readonly Dictionary<OpId, Operation> byId;

    /// <summary>For each switch (<see cref="Change.EffectSet"/>) that took the place of an earlier one, that one.</summary>
    private readonly Dictionary<OpId, Operation> replaced = [];

    public PageHistory(PageDocument now)
    {
        operations = now.Operations();
        byId = operations.ToDictionary(operation => operation.Id);
        var standing = new Dictionary<(OpId, Guid), Operation>();
        foreach (var operation in operations)
        {
            if (operation.Change is not Change.EffectSet effect)
                continue;
            var key = (effect.Target, operation.Author);
            if (standing.TryGetValue(key, out var before))
                replaced[operation.Id] = before;
            standing[key] = operation;
        }
    }

    /// <summary>The page as it was at the moment.</summary>
    public PageDocument Page { get; } = new();

    /// <summary>How many operations there are.</summary>
    public int Length => operations.Count;

    /// <summary>The moment: how many of the operations had been made.</summary>
    public int At { get; private set; }

    /// <summary>All of it, in the order of the stamps.</summary>
    public IReadOnlyList<Operation> Operations => operations;

    /// <summary>What was done after the moment.</summary>
    public IEnumerable<Operation> Since => operations.Skip(At);

    /// <summary>What an operation that is named did; null where it is not here.</summary>
    public Operation? Find(OpId id) => byId.GetValueOrDefault(id);

    /// <summary>How many operations had been made by a time, UTC milliseconds since 1970.</summary>
    public int CountAt(long unixMilliseconds) => operations.CountWhile(operation => operation.Time.UnixMilliseconds <= unixMilliseconds);

    /// <summary>How many had been made when the operation of a stamp was.</summary>
    public int CountThrough(Stamp stamp) => operations.CountWhile(operation => !(operation.Stamp > stamp));

    /// <summary>When the last was made of so many, UTC milliseconds since 1970; null of none.</summary>
    public long? TimeOf(int count) => count > 0 && Length > 0 ? operations[Math.Min(count, Length) - 1].Time.UnixMilliseconds : null;

    /// <summary>Goes towards a moment, by so many operations at most; says how many are left to go.</summary>
    public int MoveTo(int count, int most)
    {
        count = Math.Clamp(count, 0, operations.Count);
        for (; At < count && most > 0; most--)
            Page.Apply(operations[At++]);
        for (; At > count && most > 0; most--)
        {
            var operation = operations[--At];
            Page.Withdraw(operation, replaced.GetValueOrDefault(operation.Id));
        }

        return Math.Abs(count - At);
    }
}
