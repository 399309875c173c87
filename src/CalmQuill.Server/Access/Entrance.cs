using System.Reflection;
using Microsoft.AspNetCore.Http.Metadata;

namespace CalmQuill.Server.Access;

/// <summary>Something that is looked up, and checked, before a handler runs.</summary>
public interface IEntrance<T>
    where T : class
{
    /// <summary>Looks up what an address names, or says why the one who asks is not let in.</summary>
    static abstract Task<Entry<T>> Enter(Gate gate, RouteIds ids, Visitor visitor, CancellationToken cancel);
}

/// <summary>What an endpoint needs, as metadata: its handler's parameters say it, so no endpoint can forget to.</summary>
/// <param name="Type">The parameter's type.</param>
/// <param name="Enter">Looks it up.</param>
public sealed record Need(Type Type, Func<Gate, RouteIds, Visitor, CancellationToken, Task<(object? Value, Denial? Denied)>> Enter);

/// <summary>Lets a handler take an entrance as a parameter. <see cref="Doorkeeper"/> has looked it up by then.</summary>
public abstract record Entrance<T> : IEndpointParameterMetadataProvider
    where T : Entrance<T>, IEntrance<T>
{
    public static ValueTask<T?> BindAsync(HttpContext http) => ValueTask.FromResult(http.Items[typeof(T)] as T);

    public static void PopulateMetadata(ParameterInfo parameter, EndpointBuilder builder) =>
        builder.Metadata.Add(
            new Need(
                typeof(T),
                async (gate, ids, visitor, cancel) =>
                {
                    var entry = await T.Enter(gate, ids, visitor, cancel);
                    return (entry.Value, entry.Denied);
                }
            )
        );
}

/// <summary>Looks up what an endpoint's handler needs, in one place and before it runs; who is not let in gets the reason and nothing else.</summary>
internal sealed class Doorkeeper(RequestDelegate next)
{
    public async Task InvokeAsync(HttpContext http, Gate gate)
    {
        foreach (var need in http.GetEndpoint()?.Metadata.GetOrderedMetadata<Need>() ?? [])
        {
            var (value, denied) = await need.Enter(
                gate,
                new RouteIds(http.Request.RouteValues),
                Visitor.Of(http.User),
                http.RequestAborted
            );
            if (denied is not null)
            {
                await Problems.Of(denied).ExecuteAsync(http);
                return;
            }

            http.Items[need.Type] = value;
        }

        await next(http);
    }
}
