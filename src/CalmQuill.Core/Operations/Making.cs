using CalmQuill.Core.Access;

namespace CalmQuill.Core.Operations;

/// <summary>Makes operations of what a person does, all of a step or none: a change against the rules throws before any operation is handed out.</summary>
/// <param name="replica">The open application that signs them.</param>
/// <param name="kind">The kind of the document they are meant for.</param>
public sealed class Making(Replica replica, DocumentKind kind)
{
    /// <summary>The operation of a change.</summary>
    /// <exception cref="SentenceException">The change is against the rules; the message is their sentence.</exception>
    public Operation One(Change change, long deviceUnixMilliseconds)
    {
        Check(change);
        return replica.Make(change, deviceUnixMilliseconds);
    }

    /// <summary>The operations of changes that belong together.</summary>
    /// <param name="changes">What is done, in order.</param>
    /// <param name="deviceUnixMilliseconds">The device's clock.</param>
    /// <param name="joined">Whether undo takes them back together, as one step.</param>
    /// <exception cref="SentenceException">One of them is against the rules: none is made.</exception>
    public List<Operation> All(IReadOnlyList<Change> changes, long deviceUnixMilliseconds, bool joined = false)
    {
        foreach (var change in changes)
            Check(change);
        var operations = changes.Select(change => replica.Make(change, deviceUnixMilliseconds)).ToList();
        if (joined && operations.Count > 1)
            operations.Add(replica.Make(new Change.StepsJoined([.. operations.Select(operation => operation.Id)]), deviceUnixMilliseconds));
        return operations;
    }

    /// <summary>Throws with the rules' sentence when a change may not enter the document.</summary>
    /// <exception cref="SentenceException">It may not.</exception>
    public void Check(Change change)
    {
        // As written by this person now: neither the clock nor the number are the change's.
        var operation = new Operation(new OpId(replica.Id, 1), default, replica.Author, change);
        if (OperationRules.Check(operation, kind, Role.Writer, replica.Author, 0) is { } refusal)
            throw new SentenceException(refusal.Sentence);
    }
}
