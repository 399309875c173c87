using CalmQuill.Documents.Previews;
using CalmQuill.Server.Limits;
using CalmQuill.Server.Outside;

namespace CalmQuill.Server.Previews;

/// <summary>Fetches what a page of the web says of itself, once and when somebody asks: they keep it with their own page.</summary>
internal static class PreviewEndpoints
{
    /// <summary>The largest picture that is taken, bytes.</summary>
    private const int MostPicture = 3 * 1024 * 1024;

    private static readonly string[] Pages = ["text/html", "application/xhtml+xml"];

    /// <summary>Drawings could fetch more by themselves, so they are left out.</summary>
    private static readonly string[] Pictures = ["image/jpeg", "image/png", "image/webp", "image/gif", "image/avif"];

    /// <param name="Address">The address, with its scheme.</param>
    internal sealed record Asked(string? Address);

    public static void MapPreviews(this IEndpointRouteBuilder api) => api.MapPost("/previews", Read).RequireAuthorization().TakesWork();

    private static async Task<IResult> Read(Asked asked, GuardedFetch fetch, CancellationToken cancel)
    {
        var page = await fetch.Get(asked.Address?.Trim() ?? "", PageHead.MostBytes, isCut: true, cancel);
        switch (page.Problem)
        {
            case GuardedFetch.Problem.None:
                break;
            case GuardedFetch.Problem.NoAddress:
                return Problems.BadInput($"A preview is of an address that begins with https:// or http://.");
            case GuardedFetch.Problem.Inside:
                return Problems.BadInput($"Previews are not fetched from inside the server's own network.");
            case GuardedFetch.Problem.Refused:
                return Problems.BadInput($"This address answered {page.Status}. There is no preview of it.");
            default:
                return Problems.BadInput($"This address did not answer. There is no preview of it.");
        }

        if (Pictures.Contains(page.Type))
            return await OfPicture(page.At!, fetch, cancel);
        if (!Pages.Contains(page.Type))
            return Problems.BadInput($"At this address is no page of the web. There is no preview of it.");
        var head = PageHead.Read(page.Bytes, page.At!);
        // A picture that cannot be had is left out.
        var picture = head.Picture is { } at ? await Picture(at, fetch, cancel) : null;
        return Results.Ok(
            new
            {
                title = head.Title.Length > 0 ? head.Title : page.At!.IdnHost,
                head.Words,
                head.Site,
                picture,
            }
        );
    }

    private static async Task<IResult> OfPicture(Uri at, GuardedFetch fetch, CancellationToken cancel)
    {
        var name = Uri.UnescapeDataString(at.Segments[^1].Trim('/'));
        return await Picture(at, fetch, cancel) is { } picture
            ? Results.Ok(
                new
                {
                    title = name.Length > 0 ? name : at.IdnHost,
                    words = "",
                    site = at.IdnHost,
                    picture,
                }
            )
            : Problems.BadInput($"The picture at this address is larger than 3 MB. There is no preview of it.");
    }

    /// <summary>A picture's kind and its bytes; null where there is none.</summary>
    private static async Task<object?> Picture(Uri at, GuardedFetch fetch, CancellationToken cancel)
    {
        var picture = await fetch.Get(at.AbsoluteUri, MostPicture, isCut: false, cancel);
        return picture.Problem == GuardedFetch.Problem.None && Pictures.Contains(picture.Type)
            ? new { picture.Type, Bytes = Convert.ToBase64String(picture.Bytes) }
            : null;
    }
}
