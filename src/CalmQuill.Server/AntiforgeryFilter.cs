using Microsoft.AspNetCore.Antiforgery;

namespace CalmQuill.Server;

/// <summary>Every request that changes something must carry the token that <c>GET /api/session</c> gives.</summary>
internal sealed class AntiforgeryFilter(IAntiforgery antiforgery) : IEndpointFilter
{
    public const string Header = "X-Quill-Antiforgery";

    public async ValueTask<object?> InvokeAsync(EndpointFilterInvocationContext context, EndpointFilterDelegate next)
    {
        if (!HttpMethods.IsGet(context.HttpContext.Request.Method) && !await antiforgery.IsRequestValidAsync(context.HttpContext))
            return Problems.Of(
                StatusCodes.Status400BadRequest,
                "antiforgery",
                $"This request did not come from an open page of this application. Reload and try again."
            );
        return await next(context);
    }
}
