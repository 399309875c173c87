using CalmQuill.Documents.Letters;
using CalmQuill.Server.Access;
using CalmQuill.Server.Assets;
using CalmQuill.Server.Bringing;
using CalmQuill.Server.Calendars;
using CalmQuill.Server.Desk;
using CalmQuill.Server.Documents;
using CalmQuill.Server.Export;
using CalmQuill.Server.Faults;
using CalmQuill.Server.Front;
using CalmQuill.Server.Groups;
using CalmQuill.Server.History;
using CalmQuill.Server.Lecterns;
using CalmQuill.Server.Lenses;
using CalmQuill.Server.Library;
using CalmQuill.Server.Limits;
using CalmQuill.Server.Live;
using CalmQuill.Server.Locks;
using CalmQuill.Server.Mail;
using CalmQuill.Server.Outside;
using CalmQuill.Server.Pages;
using CalmQuill.Server.People;
using CalmQuill.Server.Previews;
using CalmQuill.Server.Sharing;
using CalmQuill.Server.Spaces;
using CalmQuill.Server.Spots;
using CalmQuill.Store;
using CalmQuill.Store.Assets;
using CalmQuill.Store.Documents;
using CalmQuill.Store.Faults;
using CalmQuill.Store.Groups;
using CalmQuill.Store.History;
using CalmQuill.Store.Lecterns;
using CalmQuill.Store.Lenses;
using CalmQuill.Store.Library;
using CalmQuill.Store.Locks;
using CalmQuill.Store.Mail;
using CalmQuill.Store.People;
using CalmQuill.Store.Rights;
using CalmQuill.Store.Sharing;
using CalmQuill.Store.Spaces;
using CalmQuill.Store.Spots;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.AspNetCore.Identity;
using Microsoft.AspNetCore.SignalR;

namespace CalmQuill.Server;

/// <summary>Puts the server together.</summary>
public static class QuillServer
{
    /// <param name="settings">What the server is told from outside.</param>
    /// <param name="configure">Puts other services in place of the usual ones.</param>
    public static WebApplication Build(Settings settings, Action<IServiceCollection>? configure = null)
    {
        HarfBuzzShaper.Install();
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
        // What somebody is refused is told to them; a log that anybody can fill tells nothing.
        builder.Logging.AddFilter("Microsoft.AspNetCore.SignalR", LogLevel.Critical);
        AddServices(builder.Services, settings);
        configure?.Invoke(builder.Services);

        var app = builder.Build();
        app.UseTrustedProxies(settings);
        app.UseExceptionHandler(
            new ExceptionHandlerOptions
            {
                StatusCodeSelector = problem =>
                    problem is BadHttpRequestException bad ? bad.StatusCode : StatusCodes.Status500InternalServerError,
            }
        );
        app.UseStatusCodePages();
        app.UseSecurityHeaders();
        app.UseResponseCompression();
        app.UseFrontEnd(settings.FrontEnd);
        app.UseMiddleware<Busy>();
        app.UseRouting();
        app.UseRequestTimeouts();
        app.UseAuthentication();
        app.UseMiddleware<SamePerson>();
        app.UseRateLimiter();
        app.UseAuthorization();
        app.UseMiddleware<Doorkeeper>();
        app.MapGet("/health", () => Results.Text("ready"));
        var api = app.MapGroup("/api").AddEndpointFilter<AntiforgeryFilter>().WithUsualLimits();
        api.MapSession();
        api.MapPeople();
        api.MapLeaving();
        api.MapSpaces();
        api.MapGroups();
        api.MapInvitations();
        api.MapShares();
        api.MapSharing();
        api.MapLecterns();
        api.MapRooms();
        api.MapDocuments();
        api.MapLibrary();
        api.MapCopies();
        api.MapLenses();
        api.MapDesk();
        api.MapLocks();
        api.MapExport();
        api.MapSpots();
        api.MapPreviews();
        api.MapUnlocking(app.Services.GetRequiredService<QuillLimits>());
        api.MapHistory();
        api.MapAssets();
        api.MapCalendars();
        api.MapFaults();
        app.MapHub<LiveHub>("/live").RequireAuthorization();
        app.MapHub<RoomHub>("/live/room");
        app.MapFrontEndFallback(settings.FrontEnd);
        return app;
    }

    private static void AddServices(IServiceCollection services, Settings settings)
    {
        services.AddSingleton(settings).AddSingleton(settings.Limits);
        services.AddSingleton(new Database(settings.Database));
        services
            .AddSingleton<PersonStore>()
            .AddSingleton<SpaceStore>()
            .AddSingleton<GroupStore>()
            .AddSingleton<LeavingStore>()
            .AddSingleton<OwnPassword>()
            .AddSingleton<InvitationStore>()
            .AddSingleton<ShareStore>()
            .AddSingleton<GuestStore>()
            .AddSingleton<LecternStore>()
            .AddSingleton<DocumentStore>()
            .AddSingleton<ShelfStore>()
            .AddSingleton<CopyStore>()
            .AddSingleton<LensStore>()
            .AddSingleton<DeskStore>()
            .AddSingleton<LockStore>()
            .AddSingleton<BinStore>()
            .AddSingleton<DocumentWriter>()
            .AddSingleton<SpotStore>()
            .AddSingleton<DeedStore>()
            .AddSingleton<ChartStore>()
            .AddSingleton<AssetStore>()
            .AddSingleton<DatabaseFiles>()
            .AddSingleton<IAssetFiles>(provider =>
                settings.Bucket is { } bucket
                    ? new BucketFiles(bucket, provider.GetRequiredService<DatabaseFiles>())
                    : provider.GetRequiredService<DatabaseFiles>()
            )
            .AddSingleton<RecentFiles>()
            .AddSingleton<PrintedPages>()
            .AddSingleton<Asides>()
            .AddSingleton<Everything>()
            .AddSingleton(DocumentLimits.Usual)
            .AddSingleton<ReplicaStore>()
            .AddSingleton<SessionStore>()
            .AddSingleton<LetterStore>()
            .AddSingleton<MailStore>()
            .AddSingleton<FaultStore>()
            .AddSingleton<RightsNews>();
        services
            .AddSingleton<GuardedFetch>()
            .AddHttpClient(GuardedFetch.Client)
            .ConfigurePrimaryHttpMessageHandler(() =>
                GuardedFetch.Handler(
                    settings.CalendarHosts.Split(',', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)
                )
            );
        services
            .AddSingleton<Gate>()
            .AddSingleton<SignInLimiter>()
            .AddSingleton<KnownDevices>()
            .AddSingleton<SharedLinks>()
            .AddSingleton<Rooms>()
            .AddSingleton<SecondFactor>()
            .AddSingleton<SpaceQuotas>();
        services.AddSingleton<LiveConnections>().AddSingleton<SpaceNews>().AddSingleton(TimeProvider.System);
        services
            .AddSingleton<LivePassing>()
            .AddHostedService(provider => provider.GetRequiredService<LivePassing>())
            .AddHostedService<RightsWatcher>();
        services.AddSingleton<DigestStore>().AddSingleton<Digests>().AddHostedService(provider => provider.GetRequiredService<Digests>());
        services.AddSingleton<MailSender>().AddHostedService(provider => provider.GetRequiredService<MailSender>());
        services.AddRequestLimits();
        services.AddSingleton<IPasswordHasher<Person>, PasswordHasher<Person>>();
        services
            .AddSingleton<Snapshots>()
            .AddHostedService(provider => provider.GetRequiredService<Snapshots>())
            .AddHostedService<BinKeeper>();
        services.AddDataProtection().PersistKeysToFileSystem(new DirectoryInfo(settings.Secrets)).SetApplicationName("CalmQuill");
        services.AddAntiforgery(options =>
        {
            options.HeaderName = AntiforgeryFilter.Header;
            options.Cookie.Name = "quill-antiforgery";
            options.Cookie.SameSite = SameSiteMode.Strict;
            options.Cookie.SecurePolicy = settings.CookiePolicy();
        });
        services.AddSignIn(settings);
        services.AddProblemDetails();
        services.AddResponseCompression(options =>
            options.MimeTypes = ["application/json", "application/problem+json", "image/svg+xml", DocumentEndpoints.BatchType]
        );
        services.AddSingleton<HubLimits>();
        services
            .AddSignalR(options =>
            {
                options.MaximumReceiveMessageSize = 64 * 1024;
                options.AddFilter<HubLimits>();
            })
            .AddMessagePackProtocol();
    }
}
