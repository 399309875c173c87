using System.Net;
using Microsoft.AspNetCore.HttpOverrides;

namespace CalmQuill.Server.Front;

/// <summary>Behind a proxy: whom it asks for is believed only from proxies that are named, and TLS is kept to.</summary>
internal static class TrustedProxies
{
    public static void UseTrustedProxies(this WebApplication app, Settings settings)
    {
        var options = new ForwardedHeadersOptions
        {
            ForwardedHeaders = ForwardedHeaders.XForwardedFor | ForwardedHeaders.XForwardedProto,
            ForwardLimit = 1,
        };
        options.KnownProxies.Clear();
        options.KnownIPNetworks.Clear();
        foreach (var proxy in settings.Proxies.Split(',', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries))
        {
            options.KnownProxies.Add(
                IPAddress.TryParse(proxy, out var address)
                    ? address
                    : throw new InvalidOperationException($"QUILL_PROXIES names addresses, parted by commas; “{proxy}” is none.")
            );
        }

        if (options.KnownProxies.Count > 0)
            app.UseForwardedHeaders(options);
        if (settings.PublicUrl?.Scheme == "https")
        {
            app.Use(
                (http, next) =>
                {
                    // TLS ends at the proxy; what comes from it was asked for by https, whether or not it says so.
                    http.Request.Scheme = "https";
                    http.Response.Headers.StrictTransportSecurity = "max-age=31536000";
                    return next(http);
                }
            );
        }
    }
}
