using System.Globalization;
using CalmQuill.Documents;

namespace CalmQuill.Server.Export;

/// <summary>How finely pictures are put into a file, from the query: <c>?dots=600</c>; as for paper where nothing is said.</summary>
/// <param name="Dots">Dots an inch.</param>
/// <param name="IsRefused">Whether something was said that is no such number.</param>
internal sealed record Fineness(int? Dots, bool IsRefused)
{
    /// <summary>Coarser no picture is to be recognised, and finer no printer is.</summary>
    private const int Least = 72,
        Most = 1_200;

    /// <summary>Read from a request by ASP.NET Core.</summary>
    public static ValueTask<Fineness> BindAsync(HttpContext http)
    {
        var said = http.Request.Query["dots"].ToString();
        var isDots = int.TryParse(said, NumberStyles.None, CultureInfo.InvariantCulture, out var dots) && dots is >= Least and <= Most;
        return ValueTask.FromResult(new Fineness(isDots ? dots : null, said.Length > 0 && !isDots));
    }

    /// <summary>Answers with what is wrong before anything is made.</summary>
    public static ValueTask<object?> Refuse(EndpointFilterInvocationContext context, EndpointFilterDelegate next) =>
        context.Arguments.OfType<Fineness>().Any(one => one.IsRefused)
            ? ValueTask.FromResult<object?>(
                Problems.Of(StatusCodes.Status400BadRequest, "bad-input", $"Pictures have {Least} to {Most} dots an inch.")
            )
            : next(context);

    public PrintedPage Of(PrintedPage page) => Dots is { } dots ? page with { DotsAnInch = dots } : page;
}
