using System.Threading.RateLimiting;
using CalmQuill.Store.Limits;

namespace CalmQuill.Server.Limits;

/// <summary>So many permits a minute for one partition, over all servers that share the database.</summary>
/// <remarks>
/// Each server takes a portion of the minute's permits from the database at a time and gives them out itself, so that counting costs a statement for every tenth of them.
/// </remarks>
internal sealed class SharedLimiter(CountStore counts, string partition, int aMinute, TimeProvider clock) : RateLimiter
{
    private const int Portions = 10;
    private static readonly RateLimitLease Given = new Lease(true),
        Refused = new Lease(false);
    private readonly SemaphoreSlim asking = new(1, 1);
    private readonly Lock state = new();
    private long minute;
    private int left;
    private bool spent;
    private long lastUsed = clock.GetTimestamp();

    public override TimeSpan? IdleDuration => clock.GetElapsedTime(lastUsed);

    public override RateLimiterStatistics? GetStatistics() => null;

    protected override RateLimitLease AttemptAcquireCore(int permitCount)
    {
        lastUsed = clock.GetTimestamp();
        lock (state)
        {
            Turn();
            if (permitCount == 0)
                return left > 0 || !spent ? Given : Refused;
            if (left < permitCount)
                return Refused;
            left -= permitCount;
            return Given;
        }
    }

    protected override async ValueTask<RateLimitLease> AcquireAsyncCore(int permitCount, CancellationToken cancellationToken)
    {
        if (AttemptAcquireCore(permitCount).IsAcquired)
            return Given;
        await asking.WaitAsync(cancellationToken);
        try
        {
            while (true)
            {
                if (AttemptAcquireCore(permitCount).IsAcquired)
                    return Given;
                long now;
                lock (state)
                {
                    if (spent)
                        return Refused;
                    now = minute;
                }

                var portion = Math.Max(permitCount, aMinute / Portions);
                var used = await counts.Add(partition, now, portion, cancellationToken);
                lock (state)
                {
                    if (minute != now)
                        continue;
                    // Of the last portion only what is within the limit is given out.
                    left += Math.Clamp(portion - Math.Max(0, used - aMinute), 0, portion);
                    spent = used >= aMinute;
                }
            }
        }
        finally
        {
            asking.Release();
        }
    }

    private void Turn()
    {
        var now = clock.GetUtcNow().ToUnixTimeSeconds() / 60;
        if (now == minute)
            return;
        (minute, left, spent) = (now, 0, false);
    }

    private sealed class Lease(bool given) : RateLimitLease
    {
        public override bool IsAcquired => given;

        public override IEnumerable<string> MetadataNames => [];

        public override bool TryGetMetadata(string metadataName, out object? metadata)
        {
            metadata = null;
            return false;
        }
    }
}
