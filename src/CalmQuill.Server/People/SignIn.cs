using System.Security.Claims;
using CalmQuill.Store.People;
using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Authentication.Cookies;

namespace CalmQuill.Server.People;

/// <summary>Being signed in: a cookie that names the person and the key under which the sign-in was made.</summary>
internal static class SignIn
{
    private const string KeyClaim = "sign-in-key";
    private const string DeviceClaim = "device";

    public static Guid Id(this ClaimsPrincipal user) =>
        Guid.TryParse(user.FindFirstValue(ClaimTypes.NameIdentifier), out var id) ? id : Guid.Empty;

    /// <summary>The sign-in on one device: locks are opened for it alone.</summary>
    public static Guid Device(this ClaimsPrincipal user) => Guid.TryParse(user.FindFirstValue(DeviceClaim), out var device) ? device : user.Id();

    public static void AddSignIn(this IServiceCollection services)
    {
        services.AddAuthorization();
        services.AddAuthentication(CookieAuthenticationDefaults.AuthenticationScheme).AddCookie(options =>
        {
            options.Cookie.Name = "quill-sign-in";
            options.Cookie.HttpOnly = true;
            options.Cookie.SameSite = SameSiteMode.Strict;
            options.ExpireTimeSpan = TimeSpan.FromDays(30);
            options.SlidingExpiration = true;
            options.Events.OnRedirectToLogin = context => Answer(context.HttpContext, Problems.Of(401, "signed-out", "You are not signed in."));
            options.Events.OnRedirectToAccessDenied = context => Answer(context.HttpContext, Problems.NotAllowed("This is not open to you."));
            options.Events.OnValidatePrincipal = Validate;
        });
    }

    public static Task SignInAs(this HttpContext http, Person person)
    {
        var identity = new ClaimsIdentity(
            [new Claim(ClaimTypes.NameIdentifier, person.Id.ToString()), new Claim(ClaimTypes.Name, person.Name), new Claim(KeyClaim, person.SignInKey.ToString()), new Claim(DeviceClaim, Guid.NewGuid().ToString())],
            CookieAuthenticationDefaults.AuthenticationScheme);
        http.User = new ClaimsPrincipal(identity);
        return http.SignInAsync(http.User, new AuthenticationProperties { IsPersistent = true });
    }

    /// <summary>A sign-in ends when the password changes or the account goes.</summary>
    private static async Task Validate(CookieValidatePrincipalContext context)
    {
        var people = context.HttpContext.RequestServices.GetRequiredService<PersonStore>();
        var person = await people.Find(context.Principal!.Id(), context.HttpContext.RequestAborted);
        if (person is null || context.Principal!.FindFirstValue(KeyClaim) != person.SignInKey.ToString()) context.RejectPrincipal();
    }

    private static Task Answer(HttpContext http, IResult result) => result.ExecuteAsync(http);
}
