using CalmQuill.Core.Access;
using CalmQuill.Server.Access;
using CalmQuill.Store.History;
using CalmQuill.Store.Spaces;

namespace CalmQuill.Server.History;

/// <summary>What happened in a library, in one notebook, on one page: who did what, the latest first; and the past of notebooks and folders, as it is gone along.</summary>
internal static class HistoryEndpoints
{
    public static void MapHistory(this IEndpointRouteBuilder api)
    {
        var space = api.MapGroup("/spaces/{space:guid}").RequireAuthorization();
        space.MapGet("/deeds", OfSpace);
        space.MapGet("/notebooks/{notebook:guid}/deeds", OfNotebook);
        space.MapGet("/chart", ChartOfSpace);
        space.MapGet("/notebooks/{notebook:guid}/chart", ChartOfNotebook);
        space.MapGet("/notebooks/{notebook:guid}/then", PagesThen);
    }

    /// <summary>The bar of time of a folder with all that lies in it now, or of all of a library.</summary>
    private static Task<IResult> ChartOfSpace(
        ReadableSpace space,
        Guid? folder,
        Gate gate,
        ChartStore charts,
        SpaceStore spaces,
        CancellationToken cancel
    ) => ChartOf(new Within(space.Id, null, folder, false), space.Role, space.Visitor, gate, charts, spaces, cancel);

    private static Task<IResult> ChartOfNotebook(
        ReadableNotebook notebook,
        Gate gate,
        ChartStore charts,
        SpaceStore spaces,
        CancellationToken cancel
    ) =>
        ChartOf(
            new Within(notebook.Space, notebook.Id, null, notebook.IsGuest),
            notebook.Role,
            notebook.Visitor,
            gate,
            charts,
            spaces,
            cancel
        );

    /// <summary>A bar of time, for whom the past is open; a person is a place in the list.</summary>
    private static async Task<IResult> ChartOf(
        Within within,
        Role role,
        Visitor visitor,
        Gate gate,
        ChartStore charts,
        SpaceStore spaces,
        CancellationToken cancel
    )
    {
        if (await spaces.SeesNoPast(within.Space, role, cancel))
            return Problems.Of(Denial.NoPast);
        var chart = await charts.Of(within, await gate.Shut(visitor, cancel), cancel);
        var people = chart.People;
        return Results.Ok(
            new
            {
                people,
                sittings = chart.Sittings.Select(one => new[] { one.From, one.To, one.Left, one.Right }),
                strokes = chart.Strokes.Select(one => new[] { one.Column, people.IndexOf(one.Person), (long)one.Deed, one.Things }),
            }
        );
    }

    /// <summary>How the pages of a notebook stood at a time, UTC milliseconds since 1970: by what address each has its picture of then.</summary>
    private static async Task<IResult> PagesThen(
        ReadableNotebook notebook,
        long? at,
        ChartStore charts,
        SpaceStore spaces,
        CancellationToken cancel
    )
    {
        if (await spaces.SeesNoPast(notebook.Space, notebook.Role, cancel))
            return Problems.Of(Denial.NoPast);
        if (at is not { } moment || moment < 0 || moment > Latest)
            return Problems.BadInput($"The moment to look at is not well formed.");
        return Results.Ok(await charts.Pages(notebook.Space, notebook.Id, moment, cancel));
    }

    /// <summary>The end of the year 9999, UTC milliseconds since 1970.</summary>
    private static readonly long Latest = DateTimeOffset.MaxValue.ToUnixTimeMilliseconds();

    /// <param name="space">The library.</param>
    /// <param name="before">Only what was done before this time, UTC milliseconds since 1970.</param>
    /// <param name="gate">Says which notebooks are shut.</param>
    /// <param name="deeds">What is kept of it.</param>
    /// <param name="cancel">Gives up.</param>
    private static async Task<IResult> OfSpace(ReadableSpace space, long? before, Gate gate, DeedStore deeds, CancellationToken cancel) =>
        Results.Ok(await deeds.Of(space.Id, null, null, false, before ?? long.MaxValue, await gate.Shut(space.Visitor, cancel), cancel));

    private static async Task<IResult> OfNotebook(
        ReadableNotebook notebook,
        Guid? page,
        long? before,
        Gate gate,
        DeedStore deeds,
        CancellationToken cancel
    ) =>
        Results.Ok(
            await deeds.Of(
                notebook.Space,
                notebook.Id,
                page,
                notebook.IsGuest,
                before ?? long.MaxValue,
                await gate.Shut(notebook.Visitor, cancel),
                cancel
            )
        );
}
