using CalmQuill.Core.Library;
using CalmQuill.Core.Operations;

namespace CalmQuill.Core.Access;

/// <summary>What a guest may do to a notebook beyond what every writer may not: nothing that reaches out of what was shared, and nothing that cannot be had back.</summary>
public static class GuestRules
{
    /// <summary>Null when a guest who writes may do it, else why not.</summary>
    public static Refusal? Check(Change change) =>
        change switch
        {
            Change.PropertySet { Property: Property.Erased } => new Refusal(
                Refusal.NotAllowedCode,
                $"This was shared with you. Only those in its library empty the bin."
            ),
            Change.PropertySet { Property: Property.MovedTo } => new Refusal(
                Refusal.NotAllowedCode,
                $"This was shared with you. Only those in its library move its pages to another notebook."
            ),
            Change.TagSet => new Refusal(Refusal.NotAllowedCode, $"This was shared with you. Tags belong to those in its library."),
            _ => null,
        };

    /// <summary>The pages that a change to a notebook brings into it; naming a page of another notebook would open it to whoever may read here.</summary>
    public static IEnumerable<Guid> PagesNamed(Change change) =>
        change switch
        {
            Change.PageAdded added => [added.Page],
            Change.NodePlaced { NodeKind: NodeKind.Page } placed => [placed.Node],
            _ => [],
        };
}
