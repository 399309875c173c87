using CalmQuill.Core.Operations;
using CalmQuill.Core.Spots;

namespace CalmQuill.Core.Pages;

/// <summary>What is written on a page, done once more by another device, for a page of its own.</summary>
public static class PageCopy
{
    /// <summary>
    /// The operations that make the same page again: all that was done, in its order, also what was taken back since. All of it is then by whoever copies, since nobody can sign
    /// for others; when each stroke was begun stays.
    /// </summary>
    /// <param name="page">The page that is copied.</param>
    /// <param name="device">Who does it, and where.</param>
    /// <param name="now">The device's clock, milliseconds since 1970.</param>
    public static List<Operation> Of(PageDocument page, Replica device, long now)
    {
        // What takes something back may stand before it where a clock was set right between them, so all have their names first.
        var names = new Dictionary<OpId, OpId>();
        var made = new List<Operation>();
        var standing = page.Operations();
        var authors = standing.ToDictionary(operation => operation.Id, operation => operation.Author);
        foreach (var operation in standing)
        {
            // What others said to a mark is nobody else's to say, and stays where it was said.
            if (AnswerRules.IsAnswering(operation.Change))
                continue;
            // Nobody takes back what another did; by one hand it would be taken back.
            if (operation.Change is Change.EffectSet effect && authors.GetValueOrDefault(effect.Target) != operation.Author)
                continue;
            var copy = device.Make(operation.Change, now);
            names.Add(operation.Id, copy.Id);
            made.Add(copy);
        }

        var renumbering = new Renumbering(id => names.GetValueOrDefault(id, id));
        return [.. made.Select(operation => operation with { Change = renumbering.Of(operation.Change) })];
    }
}
