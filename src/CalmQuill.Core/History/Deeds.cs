using CalmQuill.Core.Operations;
using CalmQuill.Core.Spots;

namespace CalmQuill.Core.History;

/// <summary>What operations tell of in history, each by itself.</summary>
public static class Deeds
{
    /// <summary>What a change does and to how many things; null for one that tells of nothing, as a setting or what joins a step.</summary>
    /// <param name="change">The change, of a page, notebook or library.</param>
    /// <param name="isNew">Whether the folder, notebook, section or page that a change puts somewhere comes by it.</param>
    public static (Deed Deed, int Things)? Of(Change change, bool isNew = false) =>
        change switch
        {
            Change.StrokeAdded => (Deed.Wrote, 1),
            Change.TextAdded text => text.Passage.Text.Length > 0 ? (Deed.Typed, text.Passage.Text.Length) : null,
            Change.TextTyped { Typed: { Letters: > 0 } typed } => (Deed.Typed, typed.Letters),
            Change.TextTyped typed => (typed.Typed.Removals.Count > 0 ? Deed.Removed : Deed.Moved, 1),
            Change.ItemAdded or Change.SpotAdded or Change.PageAdded => (Deed.Added, 1),
            Change.ItemsRemoved removed => (Deed.Removed, removed.Items.Count),
            Change.GapsAdded gaps => (Deed.Removed, gaps.Strokes.Count),
            Change.EffectSet effect => (effect.Active ? Deed.Added : Deed.Removed, 1),
            Change.ItemsShifted shifted => (Deed.Moved, shifted.Items.Count),
            Change.ItemsTransformed transformed => (Deed.Moved, transformed.Items.Count + transformed.Spots.Count),
            Change.ItemsSet set => (Deed.Moved, set.Items.Count),
            Change.LayerSet => (Deed.Moved, 1),
            Change.SpotSet set => (
                set.Values.Any(value => value is { Field: SpotField.Removed, Value.Length: > 0 }) ? Deed.Removed : Deed.Moved,
                1
            ),
            Change.AnswerAdded => (Deed.Said, 1),
            Change.NodePlaced => (isNew ? Deed.Added : Deed.Moved, 1),
            Change.PropertySet set => Of(set),
            _ => null,
        };

    private static (Deed Deed, int Things)? Of(Change.PropertySet set) =>
        set.Property switch
        {
            Property.Binned => (set.Value.Length > 0 ? Deed.Removed : Deed.Added, 1),
            Property.Erased or Property.MovedTo => (Deed.Removed, 1),
            Property.Name or Property.Paper => (Deed.Moved, 1),
            _ => null,
        };
}
