using CalmQuill.Core.Operations;

namespace CalmQuill.Core.Access;

/// <summary>The rules that follow from a group's <see cref="Touch"/>: the server refuses by them, and tools pass over what they do not allow.</summary>
public static class TouchRules
{
    private static readonly Refusal Others = new(
        Refusal.NotAllowedCode,
        $"In this group everybody changes only what they wrote themselves."
    );

    private static readonly Refusal OnlyAdds = new(
        Refusal.NotAllowedCode,
        $"In this group one adds, and changes nothing that is there already."
    );

    /// <summary>Whether somebody may change, move or remove a thing.</summary>
    /// <param name="touch">What the group chose.</param>
    /// <param name="role">What they are in it.</param>
    /// <param name="isTheirs">Whether they made the thing.</param>
    public static bool May(Touch touch, Role role, bool isTheirs) =>
        role is Role.Owner || touch is Touch.Everything || (touch is Touch.Own && isTheirs);

    /// <summary>
    /// The operations whose things a change alters, or whose effect it switches. What only leans on others' ink, as a mark does, is not among them.
    /// </summary>
    public static IEnumerable<OpId> Altered(Change change) =>
        change switch
        {
            Change.ItemsRemoved removed => removed.Items,
            Change.ItemsShifted shifted => shifted.Items,
            Change.GapsAdded gaps => gaps.Strokes.Select(stroke => stroke.Stroke),
            Change.ItemsTransformed transformed => transformed.Items,
            Change.ItemsSet set => set.Items,
            Change.ItemsAnchored anchored => anchored.Items,
            Change.TextTyped typed => [typed.Text],
            Change.AnswerWithdrawn withdrawn => [withdrawn.Answer],
            Change.ItemAdded added => added.Replaced,
            Change.EffectSet effect => [effect.Target],
            _ => [],
        };

    /// <summary>The folder, notebook, section or page that a change puts into the bin, erases, or takes away to another notebook; null for none.</summary>
    public static Guid? Removed(Change change) =>
        change is Change.PropertySet { Property: Property.Binned or Property.Erased or Property.MovedTo, Value.Length: > 0 } set
            ? set.Target
            : null;

    /// <summary>Whether a change is any matter of these rules: writing, by far the most of what is done, is none.</summary>
    public static bool Concerns(Change change) => Removed(change) is not null || Altered(change).Any();

    /// <summary>Why a change to a page may not be made; null when it may.</summary>
    /// <param name="touch">What the group chose.</param>
    /// <param name="role">What the one who makes it is there.</param>
    /// <param name="change">The change.</param>
    /// <param name="isTheirs">Whether an operation is that person's. Of one that has not arrived it is not.</param>
    public static Refusal? CheckPage(Touch touch, Role role, Change change, Func<OpId, bool> isTheirs)
    {
        // Taking one's own back is no change to what others see as there: it undoes what one added.
        var rule = change is Change.EffectSet or Change.AnswerWithdrawn && touch is Touch.Add ? Touch.Own : touch;
        return Altered(change).All(id => May(rule, role, isTheirs(id))) ? null : Reason(touch);
    }

    /// <summary>The same of a change to a library or notebook.</summary>
    /// <param name="touch">What the group chose.</param>
    /// <param name="role">What the one who makes it is there.</param>
    /// <param name="change">The change.</param>
    /// <param name="isTheirs">Whether that person made a folder, notebook, section or page.</param>
    public static Refusal? CheckPlaces(Touch touch, Role role, Change change, Func<Guid, bool> isTheirs) =>
        Removed(change) is { } target && !May(touch, role, isTheirs(target)) ? Reason(touch) : null;

    private static Refusal Reason(Touch touch) => touch is Touch.Add ? OnlyAdds : Others;
}
