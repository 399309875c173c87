using System.Collections.Concurrent;
using CalmQuill.Core.Operations;
using CalmQuill.Store.Spaces;

namespace CalmQuill.Server.Limits;

/// <summary>What a space holds against what it may hold. Counted anew every little while, and in between by what comes.</summary>
public sealed class SpaceQuotas(SpaceStore spaces, QuillLimits limits, TimeProvider clock)
{
    private const int MostRemembered = 10_000;
    private static readonly TimeSpan Fresh = TimeSpan.FromSeconds(20);
    private readonly ConcurrentDictionary<Guid, Counted> known = new();

    private sealed class Counted(SpaceUsage usage, DateTimeOffset at)
    {
        public readonly SpaceUsage Usage = usage;
        public readonly DateTimeOffset At = at;
        public long BytesSince;
    }

    /// <summary>Null when a space may take so many bytes of operations more; else why not.</summary>
    public async Task<Refusal?> Problem(Guid space, long bytes, CancellationToken cancel)
    {
        var counted = await Count(space, cancel);
        var since = Interlocked.Add(ref counted.BytesSince, bytes);
        return counted.Usage.Bytes + since > limits.BytesOfASpace || counted.Usage.Operations > limits.OperationsOfASpace ? Full : null;
    }

    /// <summary>The same for a picture or a frozen page.</summary>
    public async Task<Refusal?> AssetProblem(Guid space, long bytes, CancellationToken cancel)
    {
        var counted = await Count(space, cancel);
        var since = Interlocked.Add(ref counted.BytesSince, bytes);
        return counted.Usage.AssetBytes + since > limits.AssetBytesOfASpace ? Full : null;
    }

    public static Refusal Full { get; } =
        new(
            "space-full",
            $"This library holds as much as it may. What you wrote is kept on this device; who looks after the server can make more room."
        );

    private async Task<Counted> Count(Guid space, CancellationToken cancel)
    {
        var now = clock.GetUtcNow();
        if (known.TryGetValue(space, out var counted) && now - counted.At < Fresh)
            return counted;
        if (known.Count > MostRemembered)
            known.Clear();
        return known[space] = new Counted(await spaces.Usage(space, cancel), now);
    }
}
