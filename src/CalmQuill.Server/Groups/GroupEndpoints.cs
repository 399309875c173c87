using CalmQuill.Core.Access;
using CalmQuill.Core.Art;
using CalmQuill.Core.Library;
using CalmQuill.Server.Access;
using CalmQuill.Server.People;
using CalmQuill.Store.Groups;
using CalmQuill.Store.Spaces;

namespace CalmQuill.Server.Groups;

/// <summary>Making a group, naming it, leaving it, handing it over, dissolving it and having it back.</summary>
internal static class GroupEndpoints
{
    internal sealed record Looks(string? Name, string? Colour, string? Touch, bool? IsPastClosed);

    internal sealed record Heir(Guid Person);

    public static void MapGroups(this IEndpointRouteBuilder api)
    {
        var groups = api.MapGroup("/groups").RequireAuthorization();
        groups.MapPost("/", Make);
        groups.MapGet("/dissolved", Dissolved);
        groups.MapPost("/dissolved/{space:guid}", HaveBack);
        var group = api.MapGroup("/spaces/{space:guid}/group").RequireAuthorization();
        group.MapPut("/", Change);
        group.MapDelete("/", Dissolve);
        group.MapPost("/heir", HandOver);
        group.MapDelete("/me", Leave);
    }

    private static async Task<IResult> Make(Looks asked, HttpContext http, GroupStore groups, CancellationToken cancel)
    {
        var (name, colour) = (asked.Name?.Trim() ?? "", asked.Colour ?? Palette.Names[0]);
        if (Problem(name, colour) is { } problem)
            return Problems.BadInput(problem);
        var id = Guid.NewGuid();
        return await groups.Make(id, name, colour, http.User.Id(), cancel)
            ? Results.Ok(new { id })
            : Problems.Of(
                StatusCodes.Status409Conflict,
                "too-many-groups",
                $"You look after {Invitation.MostOwned} groups, which is as many as one person can. Hand one over, or dissolve one, first."
            );
    }

    private static async Task<IResult> Change(OwnedGroup group, Looks asked, GroupStore groups, CancellationToken cancel)
    {
        var (name, colour) = (asked.Name?.Trim() ?? "", asked.Colour ?? "");
        if (Problem(name, colour) is { } problem)
            return Problems.BadInput(problem);
        Touch? touch = asked.Touch switch
        {
            "everything" => Touch.Everything,
            "own" => Touch.Own,
            "add" => Touch.Add,
            _ => null,
        };
        // Who says nothing of it leaves it as it is.
        if (touch is null && asked.Touch is not null)
            return Problems.BadInput($"Writers change everything, only their own, or they only add.");
        await groups.Change(group.Id, name, colour, touch, asked.IsPastClosed, cancel);
        return Results.NoContent();
    }

    private static async Task<IResult> Leave(JoinedGroup group, SpaceStore spaces, CancellationToken cancel) =>
        await spaces.SetRole(group.Id, group.Visitor.Person, Role.None, cancel)
            ? Results.NoContent()
            : Problems.Of(
                StatusCodes.Status409Conflict,
                "last-owner",
                $"You are the only owner. Hand the group over to somebody else, or dissolve it."
            );

    private static async Task<IResult> HandOver(
        OwnedGroup group,
        Heir asked,
        GroupStore groups,
        SpaceStore spaces,
        CancellationToken cancel
    )
    {
        if (await spaces.RoleIn(group.Id, asked.Person, cancel) == Role.None)
            return Problems.NotHere();
        return await groups.HandOver(group.Id, group.Visitor.Person, asked.Person, cancel)
            ? Results.NoContent()
            : Problems.BadInput($"A group is handed over by its owner to somebody else who is in it.");
    }

    private static async Task<IResult> Dissolve(OwnedGroup group, GroupStore groups, TimeProvider clock, CancellationToken cancel)
    {
        await groups.Dissolve(group.Id, clock.GetUtcNow(), cancel);
        return Results.NoContent();
    }

    private static async Task<IResult> Dissolved(HttpContext http, GroupStore groups, TimeProvider clock, CancellationToken cancel) =>
        Results.Ok(
            (await groups.DissolvedOf(http.User.Id(), clock.GetUtcNow(), cancel)).Select(group => new
            {
                group.Id,
                group.Name,
                group.Colour,
                until = group.Until.ToUnixTimeMilliseconds(),
            })
        );

    private static async Task<IResult> HaveBack(
        Guid space,
        HttpContext http,
        GroupStore groups,
        TimeProvider clock,
        CancellationToken cancel
    ) => await groups.HaveBack(space, http.User.Id(), clock.GetUtcNow(), cancel) ? Results.NoContent() : Problems.NotHere();

    private static Sentence? Problem(string name, string colour) =>
        Names.Problem(name) ?? (Palette.Names.Contains(colour) ? null : Sentence.Of($"A group’s colour is one of the palette’s."));
}
