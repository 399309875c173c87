using CalmQuill.Core.Operations;
using CalmQuill.Server.Access;
using CalmQuill.Server.Live;
using CalmQuill.Store.Documents;

namespace CalmQuill.Server.Documents;

/// <summary>What became of operations that somebody sent.</summary>
/// <param name="Sequences">Their numbers, in the order given; 0 where one was refused.</param>
/// <param name="Refusals">Why each was refused; null where it is stored.</param>
/// <param name="LastSequence">The document's last number.</param>
/// <param name="Fullness">The share of what the document may hold that is used.</param>
/// <param name="Refused">Why none was stored.</param>
public sealed record Written(
    IReadOnlyList<long> Sequences,
    IReadOnlyList<Refusal?> Refusals,
    long LastSequence,
    double Fullness,
    Refusal? Refused
);

/// <summary>Stores operations and has everybody told who has the document open. Telling comes after the commit, aside from the request, and cannot make it fail.</summary>
public sealed class DocumentWriter(DocumentStore documents, ReplicaStore replicas, Snapshots snapshots, LivePassing live, SpaceNews news)
{
    public static readonly Refusal ReplicaTaken = new(
        "replica-taken",
        $"This change carries another device's number; yours takes a new one."
    );

    public static readonly Refusal IdUsed = new("id-used", $"This change carries the number of another one.");

    /// <param name="document">The document.</param>
    /// <param name="person">Who sent them.</param>
    /// <param name="device">From which browser: a number that another application signs with is not theirs to use; null for what one of the person's browsers saved and any of them puts back.</param>
    /// <param name="operations">The operations, checked by the rules.</param>
    /// <param name="cancel">Gives up, until they are stored.</param>
    public async Task<Written> Append(
        DocumentRef document,
        Guid person,
        Guid? device,
        IReadOnlyList<Operation> operations,
        CancellationToken cancel
    )
    {
        var taken = await replicas.Bind(person, device, [.. operations.Select(operation => operation.Id.Replica).Distinct()], cancel);
        var stored = await documents.Append(document, operations, taken, cancel);
        if (stored.Refused is not null)
            return new Written([], [], 0, 0, stored.Refused);
        if (stored.New.Count > 0)
        {
            live.Stored(document, stored);
            news.Tell(document.Space);
            snapshots.Consider(document, stored);
        }

        var refusals = stored.Sequences.Zip(
            operations,
            (sequence, operation) =>
                sequence != 0 ? null
                : taken.Contains(operation.Id.Replica) ? ReplicaTaken
                : IdUsed
        );
        return new Written(stored.Sequences, [.. refusals], stored.LastSequence, stored.Fullness, null);
    }
}
