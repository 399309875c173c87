using System.Threading.RateLimiting;
using CalmQuill.Server.Limits;
using CalmQuill.Store.Limits;

namespace CalmQuill.Server.People;

/// <summary>Slows down guessing, over all servers: so many tries a minute for one account, and ten times as many from one address.</summary>
/// <remarks>
/// A browser in which the account's person signed in before has tries of its own, so that nobody can keep an owner out by guessing at the account from elsewhere.
/// </remarks>
public sealed class SignInLimiter(CountStore counts, QuillLimits limits, TimeProvider clock) : IDisposable
{
    private const int AddressShare = 10;
    private const int MostKey = 300;

    private readonly PartitionedRateLimiter<(string Key, int AMinute)> limiter = PartitionedRateLimiter.Create<
        (string Key, int AMinute),
        string
    >(asked => RateLimitPartition.Get(asked.Key, _ => new SharedLimiter(counts, asked.Key, asked.AMinute, clock)));

    /// <param name="what">What is tried: an account, a lock.</param>
    /// <param name="http">Who asks.</param>
    /// <param name="device">The browser, when the account's person signed in in it before.</param>
    /// <param name="cancel">Gives up.</param>
    public async Task<bool> Allows(string what, HttpContext http, Guid? device, CancellationToken cancel)
    {
        if (device is { } known)
            return await Take($"device {known} {Short(what)}", limits.SignInsAMinute, cancel);
        return await Take($"tries from {http.ClientAddress()}", limits.SignInsAMinute * AddressShare, cancel)
            && await Take($"tries at {Short(what)}", limits.SignInsAMinute, cancel);
    }

    /// <summary>The same where only the address is to be slowed down.</summary>
    public Task<bool> AllowsFrom(HttpContext http, CancellationToken cancel) =>
        Take($"tries from {http.ClientAddress()}", limits.SignInsAMinute * AddressShare, cancel);

    public void Dispose() => limiter.Dispose();

    private async Task<bool> Take(string key, int aMinute, CancellationToken cancel)
    {
        using var lease = await limiter.AcquireAsync((key, aMinute), 1, cancel);
        return lease.IsAcquired;
    }

    private static string Short(string what) => what.Length > MostKey ? what[..MostKey].ToLowerInvariant() : what.Trim().ToLowerInvariant();
}
