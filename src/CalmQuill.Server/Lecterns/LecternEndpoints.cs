using CalmQuill.Core.Access;
using CalmQuill.Server.Access;
using CalmQuill.Server.Live;
using CalmQuill.Server.People;
using CalmQuill.Store.Lecterns;
using CalmQuill.Store.Locks;

namespace CalmQuill.Server.Lecterns;

/// <summary>Opening a lectern in a notebook, closing it, and the screen for the room. What is shown from it goes over the live connection.</summary>
internal static class LecternEndpoints
{
    public static void MapLecterns(this IEndpointRouteBuilder api)
    {
        var lectern = api.MapGroup("/spaces/{space:guid}/notebooks/{notebook:guid}/lectern").RequireAuthorization();
        lectern.MapGet("/", In);
        lectern.MapPost("/", Open);
        lectern.MapDelete("/", Close);
        lectern.MapPost("/room", Room);
    }

    private static async Task<IResult> In(ReadableNotebook notebook, LecternStore lecterns, TimeProvider clock, CancellationToken cancel) =>
        await lecterns.In(notebook.Space, notebook.Id, clock.GetUtcNow(), cancel) is { } open
            ? Results.Ok(Told(open))
            : Results.NoContent();

    private static async Task<IResult> Open(
        WritableSpace space,
        ReadableNotebook notebook,
        LockStore locks,
        LecternStore lecterns,
        LivePassing live,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        if (!Rights.May(space.Role, Act.Teach))
            return Problems.Of(Denial.MayNotWrite);
        if (await locks.MakerOf(notebook.Space, notebook.Id, cancel) is null)
            return Problems.NotHere();
        var (open, closed) = await lecterns.Open(notebook.Space, notebook.Id, space.Visitor.Person, clock.GetUtcNow(), cancel);
        if (closed is not null)
            live.Close(closed);
        return open.Leader == space.Visitor.Person
            ? Results.Ok(Told(open))
            : Problems.Of(StatusCodes.Status409Conflict, "taken", $"Somebody else teaches from this notebook at this moment.");
    }

    private static async Task<IResult> Close(
        WritableSpace space,
        ReadableNotebook notebook,
        LecternStore lecterns,
        LivePassing live,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        if (await lecterns.In(notebook.Space, notebook.Id, clock.GetUtcNow(), cancel) is not { } open)
            return Results.NoContent();
        if (open.Leader != space.Visitor.Person && !Rights.May(space.Role, Act.CloseLectern))
            return Problems.Of(Denial.MayNotManage);
        if (await lecterns.Close(notebook.Space, notebook.Id, cancel) is { } over)
            live.Close(over);
        return Results.NoContent();
    }

    /// <summary>The code for a screen in the room; the leader alone is told it.</summary>
    private static async Task<IResult> Room(
        WritableSpace space,
        ReadableNotebook notebook,
        LecternStore lecterns,
        Rooms rooms,
        HttpContext http,
        Settings settings,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        if (
            await lecterns.In(notebook.Space, notebook.Id, clock.GetUtcNow(), cancel) is not { } open
            || open.Leader != space.Visitor.Person
        )
            return Problems.NotHere();
        if (await rooms.CodeOf(open, cancel) is { } code)
        {
            var link = PeopleEndpoints.Link(http, settings, $"/room#{code}");
            return Results.Ok(
                new
                {
                    code,
                    link,
                    modules = SquareCode.Of(link),
                }
            );
        }

        return Problems.Of(StatusCodes.Status423Locked, "locked", $"A notebook with a lock, or in the bin, is not shown to a room.");
    }

    private static object Told(OpenLectern open) =>
        new
        {
            open.Id,
            open.Leader,
            openedAt = open.OpenedAt.ToUnixTimeMilliseconds(),
        };
}
