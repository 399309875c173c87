using CalmQuill.Core.Items;
using CalmQuill.Core.Writing;

namespace CalmQuill.Core.Operations;

/// <summary>Gives operations other ids, together with all that they say of each other.</summary>
/// <param name="nameOf">The id that an operation has afterwards; its own where it keeps it.</param>
public sealed class Renumbering(Func<OpId, OpId> nameOf)
{
    /// <summary>
    /// Gives operations that nobody has seen yet the number of another replica. A device does so when the server refuses its number because somebody
    /// else used it first. Their times stay; only between two changes of one and the same time may the fresh number decide otherwise than the old one
    /// did.
    /// </summary>
    /// <param name="which">The operations that get it.</param>
    /// <param name="replica">The replica whose number they get; their counters stay.</param>
    public Renumbering(IReadOnlySet<OpId> which, ulong replica)
        : this(id => which.Contains(id) ? new OpId(replica, id.Counter) : id) { }

    /// <summary>The operation with the ids it has afterwards. One that neither is renumbered nor names one that is comes out as it is.</summary>
    public Operation Of(Operation operation) => operation with { Id = nameOf(operation.Id), Change = Of(operation.Change) };

    /// <summary>The change with the ids that the operations it names have afterwards.</summary>
    public Change Of(Change change) =>
        change switch
        {
            Change.ItemsRemoved removed => removed with { Items = Of(removed.Items) },
            Change.ItemsShifted shifted => shifted with { Items = Of(shifted.Items) },
            Change.GapsAdded gaps => gaps with
            {
                Strokes = [.. gaps.Strokes.Select(stroke => stroke with { Stroke = nameOf(stroke.Stroke) })],
            },
            Change.EffectSet effect => effect with { Target = nameOf(effect.Target) },
            Change.SpotAdded spot => spot with { Items = Of(spot.Items) },
            Change.ItemsTransformed transformed => transformed with { Items = Of(transformed.Items) },
            Change.ItemAdded added => added.Naming(nameOf),
            Change.ItemsSet set => new Change.ItemsSet(Of(set.Items), [.. set.Values.Select(value => value.Naming(nameOf))]),
            Change.AnswerWithdrawn withdrawn => withdrawn with { Answer = nameOf(withdrawn.Answer) },
            Change.ItemsAnchored anchored => anchored with { Items = Of(anchored.Items) },
            Change.TextTyped typed => new Change.TextTyped(
                nameOf(typed.Text),
                typed.Typed.Renamed(id => id == LetterId.Own ? id : nameOf(id))
            ),
            Change.StepsJoined joined => joined with { Steps = Of(joined.Steps) },
            _ => change,
        };

    private List<OpId> Of(IReadOnlyList<OpId> ids) => [.. ids.Select(nameOf)];
}
