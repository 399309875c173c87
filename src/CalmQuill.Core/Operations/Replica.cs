namespace CalmQuill.Core.Operations;

/// <summary>One open application as a source of operations: draws ids and stamps, and remembers the latest stamp it has seen.</summary>
/// <remarks>Time is passed in. An offset learnt from the server is added to it, so that a wrong device clock costs nothing.</remarks>
public sealed class Replica(ulong id, Guid author)
{
    private ulong counter;
    private Hlc latest;

    public ulong Id { get; private set; } = id;

    public Guid Author { get; } = author;

    /// <summary>What is added to the device's clock, in milliseconds.</summary>
    public long ClockOffset { get; private set; }

    /// <summary>The id of the operation made last.</summary>
    public OpId LastId => new(Id, counter);

    /// <summary>Makes the next operation; its stamp is later than every stamp this replica made or saw.</summary>
    public Operation Make(Change change, long deviceUnixMilliseconds)
    {
        latest = Next(deviceUnixMilliseconds + ClockOffset);
        return new Operation(new OpId(Id, ++counter), latest, Author, change);
    }

    /// <summary>Takes note of somebody else's stamp, so that what is made from now on comes after it.</summary>
    public void Observe(Hlc stamp)
    {
        if (stamp > latest)
            latest = stamp;
    }

    /// <summary>
    /// Sets the device's clock right by the server's; earlier stamps that ran further ahead than the server takes no longer drive the clock. Those that it did
    /// take still do, so that what follows them keeps on following them.
    /// </summary>
    public void CorrectClock(long serverUnixMilliseconds, long deviceUnixMilliseconds)
    {
        ClockOffset = serverUnixMilliseconds - deviceUnixMilliseconds;
        var furthest = Hlc.At(serverUnixMilliseconds + OperationRules.MostAhead);
        if (latest > furthest)
            latest = furthest;
    }

    /// <summary>Goes on under another number, since somebody else has this one. Counters go on where they were.</summary>
    public void Renumber(ulong id) => Id = id;

    /// <summary>The same operation with a fresh stamp. Allowed only while nobody else has seen it.</summary>
    public Operation Restamp(Operation operation, long deviceUnixMilliseconds)
    {
        latest = Next(deviceUnixMilliseconds + ClockOffset);
        return operation with { Time = latest };
    }

    private Hlc Next(long now) => now > latest.UnixMilliseconds ? Hlc.At(now) : new Hlc(latest.Value + 1);
}
