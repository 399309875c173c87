using CalmQuill.Core.Access;
using CalmQuill.Server.Access;
using CalmQuill.Server.Limits;
using CalmQuill.Store.Library;
using CalmQuill.Store.Sharing;
using CalmQuill.Store.Spaces;

namespace CalmQuill.Server.Spaces;

/// <summary>The people of a space and their roles, and how much it holds.</summary>
internal static class SpaceEndpoints
{
    private const int PagesOfAMember = 3;

    internal sealed record NewRole(string? Role);

    public static void MapSpaces(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("/spaces/{space:guid}").RequireAuthorization();
        group.MapGet("/members/", Members);
        group.MapPut("/members/{person:guid}", SetRole);
        group.MapGet("/members/pages", LastPages);
        group.MapGet("/guests", Guests);
        group.MapGet("/usage", Usage);
    }

    private static async Task<IResult> Members(ReadableSpace space, SpaceStore spaces, CancellationToken cancel) =>
        Results.Ok(
            (await spaces.Members(space.Id, cancel)).Select(member => new
            {
                member.Id,
                member.Name,
                member.Colour,
                role = member.Role.ToString().ToLowerInvariant(),
            })
        );

    /// <summary>Those who write or read here without being in it, and those who wrote here and left: their ink has a name.</summary>
    private static async Task<IResult> Guests(ReadableSpace space, GuestStore guests, CancellationToken cancel) =>
        Results.Ok(await guests.GuestsOf(space.Id, cancel));

    /// <summary>The pages that each member wrote on last.</summary>
    private static async Task<IResult> LastPages(ReadableSpace space, Gate gate, ShelfStore shelf, CancellationToken cancel) =>
        Results.Ok(
            (await shelf.LastOfMembers(space.Id, PagesOfAMember, await gate.ShutIn(space.Id, space.Visitor, cancel), cancel))
                .GroupBy(one => one.Person)
                .Select(one => new { person = one.Key, pages = one.Select(last => last.Page) })
        );

    private static async Task<IResult> SetRole(OwnedGroup space, Guid person, NewRole asked, SpaceStore spaces, CancellationToken cancel)
    {
        Role? role = asked.Role switch
        {
            "reader" => Role.Reader,
            "writer" => Role.Writer,
            "owner" => Role.Owner,
            "none" => Role.None,
            _ => null,
        };
        if (role is null)
            return Problems.BadInput($"A role is reader, writer or owner; none takes a person out of the group.");
        if (await spaces.RoleIn(space.Id, person, cancel) == Role.None)
            return Problems.NotHere();
        // Their open connections end with it, on every server.
        return await spaces.SetRoleBy(space.Visitor.Person, space.Id, person, role.Value, cancel)
            ? Results.NoContent()
            : Problems.BadInput($"A group needs at least one owner. Make somebody else an owner first.");
    }

    /// <summary>What the space holds, and what it may hold.</summary>
    private static async Task<IResult> Usage(ReadableSpace space, SpaceStore spaces, QuillLimits limits, CancellationToken cancel)
    {
        var usage = await spaces.Usage(space.Id, cancel);
        return Results.Ok(
            new
            {
                usage.Operations,
                usage.Bytes,
                usage.AssetBytes,
                mostOperations = limits.OperationsOfASpace,
                mostBytes = limits.BytesOfASpace,
                mostAssetBytes = limits.AssetBytesOfASpace,
            }
        );
    }
}
