using System.Threading.RateLimiting;
using CalmQuill.Server.People;
using CalmQuill.Store.Limits;
using Microsoft.AspNetCore.Http.Timeouts;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.RateLimiting;

namespace CalmQuill.Server.Limits;

/// <summary>Limits on requests: how many a minute, how many at once, how large, how long. By person; signed out, by address.</summary>
internal static class RequestLimits
{
    /// <summary>The policy of what takes much work.</summary>
    public const string Expensive = "expensive";

    private const string Long = "long";

    private const int UsualBodyBytes = 64 * 1024;
    private const int ExpensiveWaiting = 20;
    private static readonly TimeSpan Usual = TimeSpan.FromSeconds(40),
        ForExpensive = TimeSpan.FromSeconds(60);

    public static void AddRequestLimits(this IServiceCollection services)
    {
        services.AddRequestTimeouts(options =>
            options.AddPolicy(Expensive, new RequestTimeoutPolicy { Timeout = ForExpensive, TimeoutStatusCode = 503 })
        );
        services.AddSingleton<CountStore>();
        services.AddRateLimiter(_ => { });
        services
            .AddOptions<RateLimiterOptions>()
            .Configure<CountStore, QuillLimits, TimeProvider>(
                (options, counts, limits, clock) =>
                {
                    options.GlobalLimiter = PartitionedRateLimiter.CreateChained(AMinute(counts, limits, clock), AtOnce(limits));
                    options.AddPolicy(
                        Expensive,
                        _ =>
                            RateLimitPartition.GetConcurrencyLimiter(
                                Expensive,
                                _ => new ConcurrencyLimiterOptions { PermitLimit = limits.ExpensiveAtOnce, QueueLimit = ExpensiveWaiting }
                            )
                    );
                    options.AddPolicy(
                        Long,
                        http =>
                            RateLimitPartition.GetConcurrencyLimiter(http.User.Id(), _ => new ConcurrencyLimiterOptions { PermitLimit = 1 })
                    );
                    options.OnRejected = async (rejected, _) =>
                    {
                        rejected.HttpContext.Response.Headers.RetryAfter = "5";
                        await Problems
                            .Of(
                                StatusCodes.Status429TooManyRequests,
                                "too-many",
                                $"That was very much at once. It goes on by itself in a moment."
                            )
                            .ExecuteAsync(rejected.HttpContext);
                    };
                }
            );
    }

    /// <summary>The usual limits of all endpoints: a small body, an answer before long.</summary>
    public static RouteGroupBuilder WithUsualLimits(this RouteGroupBuilder api)
    {
        api.WithMetadata(new RequestSizeLimitAttribute(UsualBodyBytes))
            .WithRequestTimeout(new RequestTimeoutPolicy { Timeout = Usual, TimeoutStatusCode = 503 });
        return api;
    }

    /// <summary>Takes larger bodies than is usual.</summary>
    public static RouteHandlerBuilder Takes(this RouteHandlerBuilder endpoint, long bytes) =>
        endpoint.WithMetadata(new RequestSizeLimitAttribute(bytes));

    /// <summary>Takes much work: a few at a time, the others wait, and it ends when it takes too long.</summary>
    public static RouteHandlerBuilder TakesWork(this RouteHandlerBuilder endpoint)
    {
        endpoint.RequireRateLimiting(Expensive).WithRequestTimeout(Expensive);
        return endpoint;
    }

    /// <summary>Takes as long as it is fetched: one at a time for a person. It sees to it itself that not too much is made at once.</summary>
    public static RouteHandlerBuilder TakesLong(this RouteHandlerBuilder endpoint)
    {
        endpoint.RequireRateLimiting(Long).DisableRequestTimeout();
        return endpoint;
    }

    private static PartitionedRateLimiter<HttpContext> AMinute(CountStore counts, QuillLimits limits, TimeProvider clock) =>
        PartitionedRateLimiter.Create<HttpContext, string>(http =>
            Whose(http) is { } whose
                ? RateLimitPartition.Get(
                    whose,
                    key => new SharedLimiter(
                        counts,
                        key,
                        key.StartsWith("person", StringComparison.Ordinal) ? limits.RequestsAMinute : limits.RequestsAMinuteSignedOut,
                        clock
                    )
                )
                : RateLimitPartition.GetNoLimiter("")
        );

    private static PartitionedRateLimiter<HttpContext> AtOnce(QuillLimits limits) =>
        PartitionedRateLimiter.Create<HttpContext, string>(http =>
            Whose(http) is { } whose
                ? RateLimitPartition.GetConcurrencyLimiter(
                    whose,
                    _ => new ConcurrencyLimiterOptions
                    {
                        PermitLimit = limits.RequestsAtOnce,
                        QueueLimit = limits.RequestsWaiting,
                        QueueProcessingOrder = QueueProcessingOrder.OldestFirst,
                    }
                )
                : RateLimitPartition.GetNoLimiter("")
        );

    /// <summary>The person, or signed out the address; null for what is not limited: the application's own files, and the live connection, which is limited by itself.</summary>
    private static string? Whose(HttpContext http)
    {
        if (!http.Request.Path.StartsWithSegments("/api"))
            return null;
        var person = http.User.Id();
        return person != Guid.Empty ? $"person {person}" : $"address {http.ClientAddress()}";
    }
}
