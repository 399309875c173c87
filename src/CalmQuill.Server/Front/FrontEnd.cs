using Microsoft.AspNetCore.StaticFiles;
using Microsoft.Extensions.FileProviders;
using Microsoft.Net.Http.Headers;

namespace CalmQuill.Server.Front;

/// <summary>Serves the built front end, pre-compressed, with cache headers that fit how each file is named.</summary>
internal static class FrontEnd
{
    private const string HashedFolder = "/assets/";

    public static void UseFrontEnd(this WebApplication app, string folder)
    {
        var types = new FileExtensionContentTypeProvider();
        types.Mappings[".webmanifest"] = "application/manifest+json";
        var files = new PhysicalFileProvider(Path.GetFullPath(folder));
        app.Use(
            (http, next) =>
            {
                Rewrite(http, files);
                return next(http);
            }
        );
        app.UseStaticFiles(
            new StaticFileOptions
            {
                FileProvider = files,
                ContentTypeProvider = types,
                ServeUnknownFileTypes = true,
                OnPrepareResponse = context => Describe(context, types),
            }
        );
    }

    /// <summary>Every other address is the application's own to understand.</summary>
    public static void MapFrontEndFallback(this WebApplication app, string folder)
    {
        var index = Path.GetFullPath(Path.Combine(folder, "index.html"));
        app.MapFallback(
            "{*path:nonfile}",
            (HttpContext http) =>
            {
                if (http.Request.Path.StartsWithSegments("/api"))
                    return Problems.NotHere();
                http.Response.Headers.CacheControl = "no-cache";
                return Results.File(index, "text/html; charset=utf-8");
            }
        );
    }

    private static void Rewrite(HttpContext http, PhysicalFileProvider files)
    {
        var path = http.Request.Path.Value;
        if (
            path is null
            || !HttpMethods.IsGet(http.Request.Method)
            || !http.Request.Headers.AcceptEncoding.ToString().Contains("br", StringComparison.Ordinal)
        )
            return;
        if (path.EndsWith(".br", StringComparison.Ordinal) || !files.GetFileInfo(path + ".br").Exists)
            return;
        http.Request.Path = path + ".br";
    }

    private static void Describe(StaticFileResponseContext context, FileExtensionContentTypeProvider types)
    {
        var headers = context.Context.Response.Headers;
        var name = context.File.Name;
        if (name.EndsWith(".br", StringComparison.Ordinal))
        {
            name = name[..^3];
            headers.ContentEncoding = "br";
            if (types.TryGetContentType(name, out var type))
                headers.ContentType = type;
        }

        headers.Append(HeaderNames.Vary, HeaderNames.AcceptEncoding);
        var hashed = context.Context.Request.Path.StartsWithSegments(HashedFolder.TrimEnd('/'));
        headers.CacheControl = hashed ? "public, max-age=31536000, immutable" : "no-cache";
    }
}
