namespace CalmQuill.Core.Operations;

/// <summary>
/// Gives operations that nobody has seen yet the number of another replica, together with all that they say of each other. A device does so when the server refuses its number
/// because somebody else used it first. Their times stay; only between two changes of one and the same time may the fresh number decide otherwise than the old one did.
/// </summary>
/// <param name="which">The operations that get it.</param>
/// <param name="replica">The replica whose number they get; their counters stay.</param>
public sealed class Renumbering(IReadOnlySet<OpId> which, ulong replica)
{
    /// <summary>The operation with the ids it has afterwards. One that neither is renumbered nor names one that is comes out as it is.</summary>
    public Operation Of(Operation operation) => operation with { Id = Of(operation.Id), Change = Of(operation.Change) };

    private OpId Of(OpId id) => which.Contains(id) ? new OpId(replica, id.Counter) : id;

    private List<OpId> Of(IReadOnlyList<OpId> ids) => [.. ids.Select(Of)];

    private Change Of(Change change) =>
        change switch
        {
            Change.ItemsRemoved removed => removed with { Items = Of(removed.Items) },
            Change.ItemsShifted shifted => shifted with { Items = Of(shifted.Items) },
            Change.GapsAdded gaps => gaps with { Strokes = [.. gaps.Strokes.Select(stroke => stroke with { Stroke = Of(stroke.Stroke) })] },
            Change.EffectSet effect => effect with { Target = Of(effect.Target) },
            Change.SpotAdded spot => spot with { Items = Of(spot.Items) },
            Change.ItemsTransformed transformed => transformed with { Items = Of(transformed.Items) },
            Change.ShapeAdded shape => shape with { Replaces = Of(shape.Replaces) },
            Change.ItemsSet set => set with { Items = Of(set.Items) },
            Change.StepsJoined joined => joined with { Steps = Of(joined.Steps) },
            _ => change,
        };
}
