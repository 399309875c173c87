using CalmQuill.Server.People;

namespace CalmQuill.Server.Access;

/// <summary>
/// A tab says for whom it is open. When somebody else has signed in in the same browser since, nothing is answered to it and nothing taken from it: it would keep
/// one person's notes among another's.
/// </summary>
internal sealed class SamePerson(RequestDelegate next)
{
    /// <summary>Of a request; a live connection has no headers of its own and says it in its address.</summary>
    public const string Header = "X-Quill-Person";

    private const string Query = "person";

    public async Task InvokeAsync(HttpContext http)
    {
        var said = http.Request.Path.StartsWithSegments("/live")
            ? http.Request.Query[Query].ToString()
            : http.Request.Headers[Header].ToString();
        var here = http.User.Id();
        if (said.Length > 0 && here != Guid.Empty && (!Guid.TryParse(said, out var person) || person != here))
            await Problems
                .Of(StatusCodes.Status401Unauthorized, "another-person", $"Somebody else has signed in in this browser.")
                .ExecuteAsync(http);
        else
            await next(http);
    }
}
