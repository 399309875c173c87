using System.Threading.RateLimiting;

namespace CalmQuill.Server.People;

/// <summary>Slows down guessing: so many tries a minute for one e-mail address, and ten times as many from one network address.</summary>
public sealed class SignInLimiter(Settings settings) : IDisposable
{
    private readonly PartitionedRateLimiter<string> byEmail = Limiter(settings.SignInsAMinute);
    private readonly PartitionedRateLimiter<string> byAddress = Limiter(settings.SignInsAMinute * 10);

    public bool Allows(string email, string address)
    {
        using var first = byAddress.AttemptAcquire(address);
        using var second = byEmail.AttemptAcquire(email.Trim().ToLowerInvariant());
        return first.IsAcquired && second.IsAcquired;
    }

    public void Dispose()
    {
        byEmail.Dispose();
        byAddress.Dispose();
    }

    private static PartitionedRateLimiter<string> Limiter(int aMinute) =>
        PartitionedRateLimiter.Create<string, string>(key => RateLimitPartition.GetSlidingWindowLimiter(
            key, _ => new SlidingWindowRateLimiterOptions { PermitLimit = aMinute, Window = TimeSpan.FromMinutes(1), SegmentsPerWindow = 6 }));
}
