using CalmQuill.Server.Access;
using CalmQuill.Store.History;

namespace CalmQuill.Server.History;

/// <summary>What happened in a library, in one notebook, on one page: who did what, the latest first.</summary>
internal static class HistoryEndpoints
{
    public static void MapHistory(this IEndpointRouteBuilder api)
    {
        var space = api.MapGroup("/spaces/{space:guid}").RequireAuthorization();
        space.MapGet("/deeds", OfSpace);
        space.MapGet("/notebooks/{notebook:guid}/deeds", OfNotebook);
    }

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
