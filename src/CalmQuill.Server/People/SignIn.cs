using System.Security.Claims;
using CalmQuill.Server.Limits;
using CalmQuill.Store.People;
using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Authentication.Cookies;

namespace CalmQuill.Server.People;

/// <summary>Being signed in: a cookie that names the person and the row of the sign-in. Without that row it opens nothing.</summary>
internal static class SignIn
{
    private const string SessionClaim = "session";
    private const string DeviceClaim = "device";
    private const int MostAgent = 400;

    public static Guid Id(this ClaimsPrincipal user) =>
        Guid.TryParse(user.FindFirstValue(ClaimTypes.NameIdentifier), out var id) ? id : Guid.Empty;

    /// <summary>The sign-in: locks are opened for it alone.</summary>
    public static Guid Session(this ClaimsPrincipal user) =>
        Guid.TryParse(user.FindFirstValue(SessionClaim), out var session) ? session : Guid.Empty;

    /// <summary>The browser, which is the same one when somebody signs in in it again.</summary>
    public static Guid Device(this ClaimsPrincipal user) =>
        Guid.TryParse(user.FindFirstValue(DeviceClaim), out var device) ? device : Guid.Empty;

    /// <summary>The address a request comes from, as far as it is known.</summary>
    public static string ClientAddress(this HttpContext http)
    {
        if (http.Connection.RemoteIpAddress is not { } address)
            return "";
        if (address.IsIPv4MappedToIPv6)
            address = address.MapToIPv4();
        // Whoever has an address of version 6 has a whole network of 2^64 of them.
        return address.AddressFamily == System.Net.Sockets.AddressFamily.InterNetworkV6
            ? new System.Net.IPAddress([.. address.GetAddressBytes()[..8], .. new byte[8]]) + "/64"
            : address.ToString();
    }

    public static void AddSignIn(this IServiceCollection services, Settings settings)
    {
        services.AddAuthorization();
        services
            .AddAuthentication(CookieAuthenticationDefaults.AuthenticationScheme)
            .AddCookie(options =>
            {
                options.Cookie.Name = "quill-sign-in";
                options.Cookie.HttpOnly = true;
                options.Cookie.SameSite = SameSiteMode.Strict;
                options.Cookie.SecurePolicy = settings.CookiePolicy();
                options.ExpireTimeSpan = TimeSpan.FromDays(30);
                options.SlidingExpiration = true;
                options.Events.OnRedirectToLogin = context =>
                    Answer(context.HttpContext, Problems.Of(401, "signed-out", $"You are not signed in."));
                options.Events.OnRedirectToAccessDenied = context =>
                    Answer(context.HttpContext, Problems.NotAllowed($"This is not open to you."));
                options.Events.OnValidatePrincipal = Validate;
            });
    }

    public static CookieSecurePolicy CookiePolicy(this Settings settings) =>
        settings.PublicUrl?.Scheme == "https" ? CookieSecurePolicy.Always : CookieSecurePolicy.SameAsRequest;

    /// <summary>Begins a sign-in in the browser that asks.</summary>
    public static async Task SignInAs(this HttpContext http, Person person, CancellationToken cancel)
    {
        var services = http.RequestServices;
        var session = Guid.NewGuid();
        var device = services.GetRequiredService<KnownDevices>().Remember(http, person.Id);
        var agent = http.Request.Headers.UserAgent.ToString();
        await services
            .GetRequiredService<SessionStore>()
            .Begin(
                session,
                person.Id,
                device,
                DeviceNames.Of(agent.Length > MostAgent ? agent[..MostAgent] : agent),
                http.ClientAddress(),
                services.GetRequiredService<QuillLimits>().DevicesOfAPerson,
                cancel
            );
        var identity = new ClaimsIdentity(
            [
                new Claim(ClaimTypes.NameIdentifier, person.Id.ToString()),
                new Claim(SessionClaim, session.ToString()),
                new Claim(DeviceClaim, device.ToString()),
            ],
            CookieAuthenticationDefaults.AuthenticationScheme
        );
        http.User = new ClaimsPrincipal(identity);
        await http.SignInAsync(http.User, new AuthenticationProperties { IsPersistent = true });
    }

    private static async Task Validate(CookieValidatePrincipalContext context)
    {
        var http = context.HttpContext;
        var sessions = http.RequestServices.GetRequiredService<SessionStore>();
        var user = context.Principal!;
        if (
            user.Session() == Guid.Empty
            || await sessions.Enter(user.Session(), user.Id(), http.ClientAddress(), http.RequestAborted) is null
        )
            context.RejectPrincipal();
    }

    private static Task Answer(HttpContext http, IResult result) => result.ExecuteAsync(http);
}
