using CalmQuill.Server.Assets;
using CalmQuill.Server.Calendars;
using CalmQuill.Server.Desk;
using CalmQuill.Server.Documents;
using CalmQuill.Server.Export;
using CalmQuill.Server.Front;
using CalmQuill.Server.Lenses;
using CalmQuill.Server.Library;
using CalmQuill.Server.Live;
using CalmQuill.Server.Locks;
using CalmQuill.Server.Pages;
using CalmQuill.Server.People;
using CalmQuill.Server.Spaces;
using CalmQuill.Server.Spots;
using CalmQuill.Store;
using CalmQuill.Store.Assets;
using CalmQuill.Store.Documents;
using CalmQuill.Store.Lenses;
using CalmQuill.Store.Library;
using CalmQuill.Store.Locks;
using CalmQuill.Store.People;
using CalmQuill.Store.Spaces;
using CalmQuill.Store.Spots;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.AspNetCore.Identity;

namespace CalmQuill.Server;

/// <summary>Puts the server together.</summary>
public static class QuillServer
{
    public static WebApplication Build(Settings settings)
    {
        var builder = WebApplication.CreateSlimBuilder(new WebApplicationOptions { EnvironmentName = Environments.Production });
        builder.WebHost.UseUrls(settings.Address);
        builder.WebHost.ConfigureKestrel(kestrel =>
        {
            kestrel.AddServerHeader = false;
            kestrel.Limits.MaxRequestBodySize = DocumentEndpoints.MostBodyBytes;
        });
        builder.Logging.SetMinimumLevel(LogLevel.Warning);
        // Keys lie in a folder that only this account reads; there is nothing on one machine to encrypt them with that does not lie beside them.
        builder.Logging.AddFilter("Microsoft.AspNetCore.DataProtection", LogLevel.Error);
        AddServices(builder.Services, settings);

        var app = builder.Build();
        app.UseExceptionHandler(new ExceptionHandlerOptions { StatusCodeSelector = problem => problem is BadHttpRequestException bad ? bad.StatusCode : StatusCodes.Status500InternalServerError });
        app.UseStatusCodePages();
        app.UseSecurityHeaders();
        app.UseResponseCompression();
        app.UseFrontEnd(settings.FrontEnd);
        app.UseAuthentication();
        app.UseAuthorization();
        app.MapGet("/health", () => Results.Text("ready"));
        var api = app.MapGroup("/api").AddEndpointFilter<AntiforgeryFilter>();
        api.MapSession();
        api.MapPeople();
        api.MapSpaces();
        api.MapDocuments();
        api.MapLibrary();
        api.MapCopies();
        api.MapLenses();
        api.MapDesk();
        api.MapLocks();
        api.MapExport();
        api.MapSpots();
        api.MapAssets();
        api.MapCalendars();
        app.MapHub<LiveHub>("/live").RequireAuthorization();
        app.MapFrontEndFallback(settings.FrontEnd);
        return app;
    }

    private static void AddServices(IServiceCollection services, Settings settings)
    {
        services.AddSingleton(settings);
        services.AddSingleton(new Database(settings.Database));
        services.AddSingleton<PersonStore>().AddSingleton<SpaceStore>().AddSingleton<DocumentStore>().AddSingleton<ShelfStore>()
            .AddSingleton<CopyStore>().AddSingleton<LensStore>().AddSingleton<DeskStore>().AddSingleton<LockStore>().AddSingleton<BinStore>().AddSingleton<DocumentWriter>()
            .AddSingleton<SpotStore>().AddSingleton<AssetStore>().AddSingleton<PrintedPages>();
        services.AddHttpClient(CalendarEndpoints.Client)
            .ConfigurePrimaryHttpMessageHandler(() => CalendarEndpoints.Handler(settings.CalendarHosts.Split(',', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)));
        services.AddSingleton<Gate>().AddSingleton<SignInLimiter>().AddSingleton<LiveConnections>().AddSingleton<SpaceNews>().AddSingleton(TimeProvider.System);
        services.AddSingleton<IPasswordHasher<Person>, PasswordHasher<Person>>();
        services.AddSingleton<Snapshots>().AddHostedService(provider => provider.GetRequiredService<Snapshots>()).AddHostedService<BinKeeper>();
        services.AddDataProtection().PersistKeysToFileSystem(new DirectoryInfo(settings.Secrets)).SetApplicationName("CalmQuill");
        services.AddAntiforgery(options =>
        {
            options.HeaderName = AntiforgeryFilter.Header;
            options.Cookie.Name = "quill-antiforgery";
            options.Cookie.SameSite = SameSiteMode.Strict;
        });
        services.AddSignIn();
        services.AddProblemDetails();
        services.AddResponseCompression(options =>
            options.MimeTypes = ["application/json", "application/problem+json", "image/svg+xml", DocumentEndpoints.BatchType]);
        var signalR = services.AddSignalR(options => options.MaximumReceiveMessageSize = 64 * 1024).AddMessagePackProtocol();
        if (settings.Redis is { } redis) signalR.AddStackExchangeRedis(redis);
    }
}
