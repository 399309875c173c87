using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Http;

namespace CalmQuill.Testing;

/// <summary>Stands before the server: answers some requests itself, and holds some of the server's answers back.</summary>
public sealed class FaultInjector : IStartupFilter
{
    /// <summary>A status to answer with, before the server sees the request; null to let it through.</summary>
    public volatile Func<HttpContext, int?>? Answer;

    /// <summary>A body to answer with in place of the server's; null to let it through.</summary>
    public volatile Func<HttpContext, string?>? Instead;

    /// <summary>For a request whose answer is made but not sent until this is done; null for the others.</summary>
    public volatile Func<HttpContext, Task?>? Hold;

    /// <summary>Done once an answer was made that is held back.</summary>
    public TaskCompletionSource Made { get; } = new();

    public Action<IApplicationBuilder> Configure(Action<IApplicationBuilder> next) =>
        app =>
        {
            app.Use(Pass);
            next(app);
        };

    private async Task Pass(HttpContext http, RequestDelegate go)
    {
        if (Answer?.Invoke(http) is { } status)
        {
            http.Response.StatusCode = status;
            await http.Response.WriteAsJsonAsync(new { code = "test", title = "The server cannot take it now." });
        }
        else if (Instead?.Invoke(http) is { } body)
        {
            http.Response.ContentType = "application/json";
            await http.Response.WriteAsync(body);
        }
        else if (Hold?.Invoke(http) is { } until)
        {
            var answer = http.Response.Body;
            using var made = new MemoryStream();
            http.Response.Body = made;
            await go(http);
            http.Response.Body = answer;
            Made.TrySetResult();
            await until;
            made.Position = 0;
            await made.CopyToAsync(answer);
        }
        else
            await go(http);
    }
}
