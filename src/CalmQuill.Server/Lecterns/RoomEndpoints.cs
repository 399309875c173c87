using CalmQuill.Core.Spots;
using CalmQuill.Documents.Svg;
using CalmQuill.Server.Pages;
using CalmQuill.Store.Library;

namespace CalmQuill.Server.Lecterns;

/// <summary>The sheet of a lectern for a screen in the room, without signing in.</summary>
internal static class RoomEndpoints
{
    internal sealed record Asked(string? Code);

    public static void MapRooms(this IEndpointRouteBuilder api) => api.MapPost("/room", Sheet);

    /// <summary>
    /// The page that the leader shows now, as a picture, with the curtains that hang on it; without a page where they show none that lies in the notebook.
    /// </summary>
    private static async Task<IResult> Sheet(
        Asked asked,
        HttpContext http,
        Rooms rooms,
        ShelfStore shelf,
        PrintedPages printed,
        CancellationToken cancel
    )
    {
        var (open, denied) = await rooms.Enter(asked.Code, http, cancel);
        if (open is null)
            return denied!;
        http.Response.Headers.CacheControl = "no-store";
        if (open.Page is not { } now || await shelf.PageAtHome(open.Notebook, open.Space, now, cancel) is not { } shown)
            return Results.Ok(new { page = "" });
        var page = await printed.Of(open.Space, shown, cancel);
        return Results.Ok(
            new
            {
                page = shown.Id.ToString(),
                svg = PageSvg.Write(page),
                curtains = page
                    .Page.Spots()
                    .Where(spot => spot.Kind is SpotKind.Curtain)
                    .Select(spot => new
                    {
                        spot.Id,
                        area = new[] { spot.Area.Left, spot.Area.Top, spot.Area.Right, spot.Area.Bottom },
                        note = spot[SpotField.Note],
                    }),
            }
        );
    }
}
