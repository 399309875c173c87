using CalmQuill.Core.Operations;

namespace CalmQuill.Store.Documents;

/// <summary>What became of a batch.</summary>
/// <param name="Sequences">The sequence number of each operation, in the order given; 0 where the id stands already for other content, or is not the sender's to use.</param>
/// <param name="FirstNew">The number of the first operation that was new; those that were new have consecutive numbers.</param>
/// <param name="New">The operations that were new.</param>
/// <param name="LastSequence">The document's last number.</param>
public sealed record AppendResult(IReadOnlyList<long> Sequences, long FirstNew, IReadOnlyList<Operation> New, long LastSequence)
{
    /// <summary>Why nothing was stored; null when the batch was taken.</summary>
    public Refusal? Refused { get; init; }

    /// <summary>The share of what a document may hold that is used, from 0 to 1.</summary>
    public double Fullness { get; init; }

    internal static AppendResult Not(Refusal refusal) => new([], 0, [], 0) { Refused = refusal };
}
