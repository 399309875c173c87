using CalmQuill.Core.Lenses;
using CalmQuill.Server.Access;
using CalmQuill.Store.Lenses;

namespace CalmQuill.Server.Lenses;

/// <summary>Filters and lenses, and how often tags are used.</summary>
internal static class LensEndpoints
{
    /// <param name="Rule">The question, as JSON text.</param>
    /// <param name="Order">name, written, created, kind or size.</param>
    /// <param name="Descending">Whether the other way round.</param>
    /// <param name="Offset">How many to pass over.</param>
    /// <param name="Limit">How many to give.</param>
    /// <param name="Clock">The clock where the person is; UTC where it is not said.</param>
    internal sealed record Asked(string? Rule, string? Order, bool Descending, int Offset, int? Limit, List<ClockChange>? Clock);

    /// <param name="Since">From when on, UTC milliseconds since 1970.</param>
    /// <param name="Minutes">How far ahead of UTC the clock is.</param>
    internal sealed record ClockChange(long Since, int Minutes);

    public static void MapLenses(this IEndpointRouteBuilder api)
    {
        var space = api.MapGroup("/spaces/{space:guid}").RequireAuthorization();
        space.MapPost("/entries", Entries);
        space.MapGet("/tag-uses", Uses);
    }

    private static async Task<IResult> Entries(
        ReadableSpace space,
        Asked asked,
        Gate gate,
        LensStore lenses,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        var (rule, refusal) = RuleJson.Read(asked.Rule ?? "");
        if (rule is null)
            return Problems.Of(StatusCodes.Status400BadRequest, refusal!);
        if (asked.Offset < 0 || asked.Limit is < 1 or > LensStore.MostAtOnce)
            return Problems.BadInput($"A list gives 1 to {LensStore.MostAtOnce} entries at once.");
        var changes = (asked.Clock ?? []).Select(change => (change.Since, change.Minutes)).ToList();
        if (!LocalClock.AreGood(changes))
            return Problems.BadInput($"The clock is not well formed.");
        if (!Enum.TryParse<EntryOrder>(asked.Order ?? "name", ignoreCase: true, out var order) || !Enum.IsDefined(order))
            return Problems.BadInput($"A list is sorted by name, written, created, kind or size.");
        var question = new LensStore.Question(
            rule,
            order,
            asked.Descending,
            asked.Offset,
            asked.Limit ?? 100,
            new LocalClock(clock.GetUtcNow().ToUnixTimeMilliseconds(), changes),
            await gate.ShutIn(space.Id, space.Visitor, cancel)
        );
        return Results.Ok(await lenses.Find(space.Id, space.Visitor.Person, question, cancel));
    }

    private static async Task<IResult> Uses(ReadableSpace space, Gate gate, LensStore lenses, CancellationToken cancel) =>
        Results.Ok(await lenses.Uses(space.Id, await gate.ShutIn(space.Id, space.Visitor, cancel), cancel));
}
