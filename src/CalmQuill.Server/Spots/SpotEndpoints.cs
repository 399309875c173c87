using CalmQuill.Core.Ink;
using CalmQuill.Core.Spots;
using CalmQuill.Core.Text;
using CalmQuill.Documents.FollowUps;
using CalmQuill.Documents.Svg;
using CalmQuill.Server.Access;
using CalmQuill.Server.Limits;
using CalmQuill.Server.Pages;
using CalmQuill.Server.People;
using CalmQuill.Store.Library;
using CalmQuill.Store.People;
using CalmQuill.Store.Spaces;
using CalmQuill.Store.Spots;

namespace CalmQuill.Server.Spots;

/// <summary>Marks, links and headings across pages: follow-ups, contents, what links here, and the ink around a spot.</summary>
internal static class SpotEndpoints
{
    private const int MostNotebooks = 200;
    private const int MostTyped = 200;
    private const int MostHeadings = 50;

    public static void MapSpots(this IEndpointRouteBuilder api)
    {
        api.MapGet("/follow-ups", FollowUps).RequireAuthorization();
        api.MapPost("/follow-ups.md", Markdown).RequireAuthorization();
        api.MapPost("/follow-ups.csv", Csv).RequireAuthorization();
        var space = api.MapGroup("/spaces/{space:guid}").RequireAuthorization();
        space.MapGet("/notebooks/{notebook:guid}/spots", OfNotebook);
        space.MapGet("/notebooks/{notebook:guid}/pages", Pages);
        space.MapGet("/links", Links);
        space.MapGet("/headings", Headings);
        space.MapGet("/backlinks", Backlinks);
        space.MapGet("/pages/{page:guid}/part.svg", Part);
    }

    private static async Task<IResult> FollowUps(bool? all, HttpContext http, Gate gate, SpotStore spots, CancellationToken cancel) =>
        Results.Ok(await spots.Marks(http.User.Id(), all != true, await gate.Shut(Visitor.Of(http.User), cancel), cancel));

    /// <param name="All">Also those that are done.</param>
    /// <param name="Ids">Only these; null for all.</param>
    internal sealed record AskedFollowUps(bool All, Guid[]? Ids);

    private static async Task<IResult> Markdown(
        AskedFollowUps asked,
        HttpContext http,
        Gate gate,
        SpotStore spots,
        SpaceStore spaces,
        CancellationToken cancel
    ) => await Export(asked, http, gate, spots, spaces, FollowUpLists.Markdown, "text/markdown; charset=utf-8", "follow-ups.md", cancel);

    private static async Task<IResult> Csv(
        AskedFollowUps asked,
        HttpContext http,
        Gate gate,
        SpotStore spots,
        SpaceStore spaces,
        CancellationToken cancel
    ) => await Export(asked, http, gate, spots, spaces, FollowUpLists.Csv, "text/csv; charset=utf-8", "follow-ups.csv", cancel);

    private static async Task<IResult> Export(
        AskedFollowUps asked,
        HttpContext http,
        Gate gate,
        SpotStore spots,
        SpaceStore spaces,
        Func<IReadOnlyList<FollowUpLists.Line>, string> write,
        string type,
        string file,
        CancellationToken cancel
    )
    {
        var found = await spots.Marks(http.User.Id(), !asked.All, await gate.Shut(Visitor.Of(http.User), cancel), cancel);
        if (asked.Ids is not null)
        {
            var wanted = asked.Ids.ToHashSet();
            found.RemoveAll(spot => !wanted.Contains(spot.Id));
        }

        var people = new Dictionary<Guid, string>();
        foreach (var space in found.Select(spot => spot.Space).Distinct())
        {
            foreach (var member in await spaces.Members(space, cancel))
                people[member.Id] = member.Name;
        }

        var kinds = await spots.KindNames(http.User.Id(), cancel);
        var lines = found
            .Select(spot => new FollowUpLists.Line(
                Words(spot, kinds),
                spot.Note,
                spot.NotebookName,
                spot.PageTitle.Length > 0 ? $"page {spot.PageNumber}, {spot.PageTitle}" : $"page {spot.PageNumber}",
                $"{http.Request.Scheme}://{http.Request.Host}/page/{spot.Space}/{spot.Notebook}/{spot.Page}?mark={spot.Id}",
                spot.Person is { } person ? people.GetValueOrDefault(person, "") : "",
                spot.Due,
                DateTimeOffset.FromUnixTimeMilliseconds(spot.CreatedAt),
                spot.DoneAt is { } done ? DateTimeOffset.FromUnixTimeMilliseconds(done) : null
            ))
            .ToList();
        return Results.File(System.Text.Encoding.UTF8.GetBytes(write(lines)), type, file);
    }

    private static string Words(ShownSpot spot, Dictionary<(Guid Space, Guid Kind), string> own) =>
        spot.Mark switch
        {
            MarkKinds.ToDo => "To do",
            MarkKinds.Ask => "Ask",
            MarkKinds.LookUp => "Look up",
            MarkKinds.KeyPoint => "Key point",
            _ => Guid.TryParse(spot.Mark, out var id) && own.TryGetValue((spot.Space, id), out var name) ? name : "Mark",
        };

    private static async Task<IResult> OfNotebook(ReadableNotebook notebook, Gate gate, SpotStore spots, CancellationToken cancel) =>
        Results.Ok(
            await spots.OfNotebook(notebook.Space, notebook.Id, notebook.IsGuest, await gate.Shut(notebook.Visitor, cancel), cancel)
        );

    /// <summary>The pages of a notebook in order, with the numbers that the addresses of their pictures carry.</summary>
    private static async Task<IResult> Pages(ReadableNotebook notebook, ShelfStore shelf, CancellationToken cancel) =>
        Results.Ok(await shelf.Pages(notebook.Id, notebook.Space, notebook.IsGuest, cancel));

    /// <summary>The links between pages of some notebooks, for the web of pages.</summary>
    private static async Task<IResult> Links(ReadableSpace space, string? notebooks, Gate gate, SpotStore spots, CancellationToken cancel)
    {
        var asked = (notebooks ?? "").Split(',', StringSplitOptions.RemoveEmptyEntries);
        if (asked.Length > MostNotebooks || !asked.All(id => Guid.TryParse(id, out _)))
            return Problems.BadInput($"Links are asked for by at most {MostNotebooks} ids of notebooks.");
        return Results.Ok(await spots.LinksFrom(space.Id, [.. asked.Select(Guid.Parse)], await gate.Shut(space.Visitor, cancel), cancel));
    }

    /// <summary>Headings whose words hold a text, to choose from.</summary>
    private static async Task<IResult> Headings(ReadableSpace space, string? titled, Gate gate, SpotStore spots, CancellationToken cancel)
    {
        var text = Folding.Fold((titled ?? "").Trim());
        if (text.Length == 0 || text.Length > MostTyped)
            return Problems.BadInput($"Headings are asked for by 1 to {MostTyped} letters of their words.");
        return Results.Ok(await spots.Headings(space.Id, text, MostHeadings, await gate.Shut(space.Visitor, cancel), cancel));
    }

    /// <summary>What leads to a page of a space, or to a notebook of it.</summary>
    private static async Task<IResult> Backlinks(
        ReadableSpace space,
        Guid? notebook,
        Guid? page,
        Gate gate,
        SpotStore spots,
        CancellationToken cancel
    )
    {
        if (notebook is null)
            return Problems.BadInput($"What links here is asked for by the notebook.");
        return Results.Ok(
            await spots.Leading(space.Visitor.Person, space.Id, notebook.Value, page, await gate.Shut(space.Visitor, cancel), cancel)
        );
    }

    /// <summary>A part of a page as a picture; the address carries what makes it new.</summary>
    private static async Task<IResult> Part(
        ReadablePage page,
        string? paper,
        string? area,
        HttpContext http,
        PrintedPages pages,
        ShelfStore shelf,
        CancellationToken cancel
    )
    {
        var edges = (area ?? "")
            .Split(',')
            .Select(edge => int.TryParse(edge, out var value) && Math.Abs((long)value) <= StrokeSamples.MostCoordinate ? value : (int?)null)
            .ToArray();
        if (edges.Length != 4 || edges.Contains(null) || edges[0] >= edges[2] || edges[1] >= edges[3])
            return Problems.BadInput($"A part of a page is asked for by its left, upper, right and lower edge.");
        var known = await shelf.PageOrNew(page.Id, page.Space, cancel);
        var printed = await pages.Of(page.Space, known with { Paper = paper ?? known.Paper }, cancel);
        http.Response.Headers.CacheControl = page.IsLocked || printed.LacksPictures ? "no-store" : "private, max-age=31536000, immutable";
        return Results.Text(
            ThumbnailSvg.WritePart(printed, new Box(edges[0]!.Value, edges[1]!.Value, edges[2]!.Value, edges[3]!.Value)),
            "image/svg+xml"
        );
    }
}
