using CalmQuill.Core.Access;
using CalmQuill.Server.Live;
using CalmQuill.Server.People;
using CalmQuill.Store.Spaces;

namespace CalmQuill.Server.Spaces;

/// <summary>The people of a space and their roles.</summary>
internal static class SpaceEndpoints
{
    private sealed record NewRole(string? Role);

    public static void MapSpaces(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("/spaces/{space:guid}/members").RequireAuthorization();
        group.MapGet("/", Members);
        group.MapPut("/{person:guid}", SetRole);
    }

    private static async Task<IResult> Members(Guid space, HttpContext http, Gate gate, SpaceStore spaces, CancellationToken cancel)
    {
        if (!Rights.MayRead(await gate.RoleIn(space, http.User, cancel))) return Problems.NotHere();
        var members = await spaces.Members(space, cancel);
        return Results.Ok(members.Select(member => new { member.Id, member.Name, member.Colour, role = member.Role.ToString().ToLowerInvariant() }));
    }

    private static async Task<IResult> SetRole(
        Guid space, Guid person, NewRole asked, HttpContext http, Gate gate, SpaceStore spaces, LiveConnections live, CancellationToken cancel)
    {
        var own = await gate.RoleIn(space, http.User, cancel);
        if (!Rights.MayRead(own)) return Problems.NotHere();
        if (!Rights.MayManagePeople(own)) return Problems.NotAllowed("Only an owner of the space changes roles.");
        Role? role = asked.Role switch { "reader" => Role.Reader, "writer" => Role.Writer, "owner" => Role.Owner, _ => null };
        if (role is null) return Problems.BadInput("A role is reader, writer or owner.");
        if (await spaces.RoleIn(space, person, cancel) == Role.None) return Problems.NotHere();
        if (!await spaces.SetRole(space, person, role.Value, cancel)) return Problems.BadInput("A space needs at least one owner.");
        live.Drop(person);
        return Results.NoContent();
    }
}
