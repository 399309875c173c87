using System.Collections.Concurrent;
using System.Xml.Linq;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Http;
using Microsoft.Extensions.Logging;

namespace CalmQuill.FileStore;

/// <summary>A small store that speaks as much S3 as is asked of it: one bucket in memory, objects put, given and removed. It takes only who names its key; signatures it does not work out.</summary>
public sealed class Shelves : IAsyncDisposable
{
    private readonly WebApplication app;

    private Shelves(WebApplication app) => this.app = app;

    /// <summary>What lies in the bucket, by key.</summary>
    public ConcurrentDictionary<string, byte[]> Objects { get; } = new();

    public Uri Address => new(app.Urls.First());

    /// <param name="port">0 takes a free one.</param>
    /// <param name="bucket">The bucket's name.</param>
    /// <param name="key">Who may ask.</param>
    public static async Task<Shelves> Open(int port, string bucket, string key)
    {
        var builder = WebApplication.CreateSlimBuilder();
        builder.Logging.ClearProviders();
        builder.WebHost.UseUrls($"http://127.0.0.1:{port}");
        var shelves = new Shelves(builder.Build());
        shelves.app.Use(
            (http, next) =>
                http.Request.Headers.Authorization.ToString().StartsWith($"AWS4-HMAC-SHA256 Credential={key}/", StringComparison.Ordinal)
                    ? next(http)
                    : Refuse(http)
        );
        shelves.app.MapPut($"/{bucket}/{{**name}}", shelves.Put);
        shelves.app.MapGet($"/{bucket}/{{**name}}", shelves.Get);
        shelves.app.MapPost($"/{bucket}", (Delegate)shelves.Remove);
        await shelves.app.StartAsync();
        return shelves;
    }

    public ValueTask DisposeAsync() => app.DisposeAsync();

    private static Task Refuse(HttpContext http)
    {
        http.Response.StatusCode = StatusCodes.Status403Forbidden;
        return Task.CompletedTask;
    }

    private async Task<IResult> Put(string name, HttpContext http)
    {
        using var body = new MemoryStream();
        await http.Request.Body.CopyToAsync(body);
        Objects[name] = body.ToArray();
        return Results.Ok();
    }

    private IResult Get(string name) =>
        Objects.TryGetValue(name, out var bytes)
            ? Results.Bytes(bytes)
            : Results.Text("<Error><Code>NoSuchKey</Code></Error>", "application/xml", statusCode: StatusCodes.Status404NotFound);

    private async Task<IResult> Remove(HttpContext http)
    {
        var asked = await XDocument.LoadAsync(http.Request.Body, LoadOptions.None, http.RequestAborted);
        foreach (var key in asked.Descendants().Where(element => element.Name.LocalName == "Key"))
            Objects.TryRemove(key.Value, out _);
        return Results.Text("<DeleteResult/>", "application/xml");
    }
}
