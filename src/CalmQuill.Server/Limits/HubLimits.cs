using Microsoft.AspNetCore.SignalR;

namespace CalmQuill.Server.Limits;

/// <summary>So many hub calls, and so many bytes of wet ink, a second on one connection; what is more is refused, and passed on to nobody.</summary>
/// <remarks>A pen that writes passes on some thirty pieces a second. The allowance is a bucket that fills steadily, so that joining many documents at once is no matter.</remarks>
public sealed class HubLimits(TimeProvider clock) : IHubFilter
{
    private const double CallsASecond = 200,
        MostCalls = 800;
    private const double BytesASecond = 400_000,
        MostBytes = 2_000_000;

    public async ValueTask<object?> InvokeMethodAsync(HubInvocationContext invocation, Func<HubInvocationContext, ValueTask<object?>> next)
    {
        var bytes = invocation.HubMethodArguments.OfType<byte[]>().Sum(piece => (double)piece.Length);
        if (!Own(invocation.Context).Take(bytes, clock.GetTimestamp(), clock))
            throw new HubException($"That was very much at once.");
        return await next(invocation);
    }

    private static Bucket Own(HubCallerContext context)
    {
        lock (context.Items)
        {
            if (context.Items.TryGetValue(typeof(Bucket), out var known))
                return (Bucket)known!;
            var made = new Bucket();
            context.Items[typeof(Bucket)] = made;
            return made;
        }
    }

    private sealed class Bucket
    {
        private readonly Lock state = new();
        private double calls = MostCalls,
            bytes = MostBytes;
        private long filled;

        public bool Take(double size, long now, TimeProvider clock)
        {
            lock (state)
            {
                var seconds = filled == 0 ? 0 : clock.GetElapsedTime(filled, now).TotalSeconds;
                (calls, bytes, filled) = (
                    Math.Min(MostCalls, calls + seconds * CallsASecond),
                    Math.Min(MostBytes, bytes + seconds * BytesASecond),
                    now
                );
                if (calls < 1 || bytes < size)
                    return false;
                (calls, bytes) = (calls - 1, bytes - size);
                return true;
            }
        }
    }
}
