using CalmQuill.Core.Library;
using CalmQuill.Core.Operations;

namespace CalmQuill.Core.History;

/// <summary>What happened, told short: what each person did to each thing within each quarter of an hour.</summary>
public static class Chronicle
{
    /// <summary>The times that are told as one, milliseconds: every time zone's days begin with one.</summary>
    public const long Quarter = 15 * 60_000;

    /// <summary>What is said of a thing so soon after it was made belongs to its making, milliseconds: its title, its paper.</summary>
    private const long Making = 5_000;

    /// <param name="Target">The page, or the section, page, folder or notebook.</param>
    /// <param name="Person">Who did it.</param>
    /// <param name="Quarter">In which quarter of an hour since 1970, UTC.</param>
    /// <param name="Deed">What.</param>
    /// <param name="Things">To how many things.</param>
    /// <param name="At">When last, UTC milliseconds since 1970.</param>
    public sealed record Line(Guid Target, Guid Person, int Quarter, Deed Deed, long Things, long At);

    /// <param name="document">The document's id.</param>
    /// <param name="kind">Its kind.</param>
    /// <param name="operations">What is told of, in the order in which it was received.</param>
    /// <param name="stood">Whether a folder, notebook, section or page was there before.</param>
    /// <param name="received">When it was received, UTC milliseconds: nothing is told as done later than that, whatever a device's clock said.</param>
    public static List<Line> Of(Guid document, DocumentKind kind, IEnumerable<Operation> operations, Func<Guid, bool> stood, long received)
    {
        if (kind == DocumentKind.Aside)
            return [];
        var made = new Dictionary<Guid, long>();
        var lines = new Dictionary<(Guid Target, Guid Person, int Quarter, Deed Deed), (long Things, long At)>();
        foreach (var operation in operations)
        {
            var at = Math.Min(operation.Time.UnixMilliseconds, received);
            var target = kind == DocumentKind.Page ? document : TargetOf(operation.Change);
            if (
                target is not { } id
                || operation.Change
                    is Change.NodePlaced
                    {
                        NodeKind: NodeKind.Tag or NodeKind.Lens or NodeKind.Paper or NodeKind.MarkKind or NodeKind.Stamp
                    }
            )
                continue;
            var isNew = operation.Change is Change.NodePlaced or Change.PageAdded && !stood(id) && made.TryAdd(id, at);
            var belongsToMaking = operation.Change is Change.PropertySet && made.TryGetValue(id, out var making) && at - making <= Making;
            if (belongsToMaking || Deeds.Of(operation.Change, isNew) is not var (deed, things))
                continue;
            var key = (id, operation.Author, (int)(at / Quarter), deed);
            var (before, last) = lines.GetValueOrDefault(key);
            lines[key] = (before + things, Math.Max(last, at));
        }

        return
        [
            .. lines.Select(line => new Line(
                line.Key.Target,
                line.Key.Person,
                line.Key.Quarter,
                line.Key.Deed,
                line.Value.Things,
                line.Value.At
            )),
        ];
    }

    private static Guid? TargetOf(Change change) =>
        change switch
        {
            Change.PageAdded added => added.Page,
            Change.NodePlaced placed => placed.Node,
            Change.PropertySet set => set.Target,
            _ => null,
        };
}
