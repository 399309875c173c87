using System.Security.Cryptography;
using System.Text.Json;
using Microsoft.AspNetCore.DataProtection;

namespace CalmQuill.Server.People;

/// <summary>Browsers in which somebody signed in before, by a cookie that outlives signing out. It lets nobody in; guessing from elsewhere does not slow such a browser's people down.</summary>
public sealed class KnownDevices(IDataProtectionProvider protection, Settings settings)
{
    private const string Cookie = "quill-device";
    private const int MostPeople = 20;
    private readonly IDataProtector protector = protection.CreateProtector("known-device");

    private sealed record Content(Guid Device, Guid[] People);

    /// <summary>The browser's id when the person signed in in it before; null otherwise.</summary>
    public Guid? Find(HttpContext http, Guid person) => Read(http) is { } known && known.People.Contains(person) ? known.Device : null;

    /// <summary>Notes that a person signed in in this browser, and gives its id.</summary>
    public Guid Remember(HttpContext http, Guid person)
    {
        var known = Read(http) ?? new Content(Guid.NewGuid(), []);
        Guid[] people = [person, .. known.People.Where(one => one != person).Take(MostPeople - 1)];
        http.Response.Cookies.Append(
            Cookie,
            protector.Protect(JsonSerializer.Serialize(known with { People = people })),
            new CookieOptions
            {
                HttpOnly = true,
                SameSite = SameSiteMode.Strict,
                MaxAge = TimeSpan.FromDays(365),
                Secure = settings.PublicUrl?.Scheme == "https",
                IsEssential = true,
            }
        );
        return known.Device;
    }

    private Content? Read(HttpContext http)
    {
        if (http.Request.Cookies[Cookie] is not { Length: > 0 } text)
            return null;
        try
        {
            return JsonSerializer.Deserialize<Content>(protector.Unprotect(text));
        }
        catch (Exception problem) when (problem is CryptographicException or JsonException or FormatException)
        {
            return null;
        }
    }
}
