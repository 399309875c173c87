using System.Security.Claims;
using CalmQuill.Server.People;

namespace CalmQuill.Server.Access;

/// <summary>Who asks: a person, through one sign-in, in one browser. The empty ids are somebody signed out, who has a role nowhere.</summary>
public readonly record struct Visitor(Guid Person, Guid Session, Guid Device)
{
    public static Visitor Of(ClaimsPrincipal user) => new(user.Id(), user.Session(), user.Device());
}
