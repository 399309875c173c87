namespace CalmQuill.Server.Front;

/// <summary>What every answer tells the browser about trust.</summary>
internal static class SecurityHeaders
{
    /// <summary>Scripts only from here; WebAssembly may be compiled, nothing may be evaluated. Pictures may also come from memory.</summary>
    private const string Policy =
        "default-src 'none'; script-src 'self' 'wasm-unsafe-eval'; style-src 'self'; font-src 'self'; img-src 'self' blob: data:; "
        + "connect-src 'self'; worker-src 'self'; manifest-src 'self'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'";

    public static void UseSecurityHeaders(this WebApplication app) =>
        app.Use(
            (http, next) =>
            {
                var headers = http.Response.Headers;
                headers.ContentSecurityPolicy = Policy;
                headers.XContentTypeOptions = "nosniff";
                headers["Referrer-Policy"] = "same-origin";
                headers["Cross-Origin-Opener-Policy"] = "same-origin";
                return next(http);
            }
        );
}
