using CalmQuill.Core.Items;

namespace CalmQuill.Core.Pages;

/// <summary>What a tool works on: things that may be changed, of chosen kinds, on one layer or all.</summary>
/// <param name="Kinds">The kinds.</param>
/// <param name="Layer">The only layer; null for all.</param>
public readonly record struct ItemFilter(ItemKinds Kinds, Guid? Layer)
{
    public static readonly ItemFilter All = new(ItemKinds.All, null);

    public bool Takes(PageItem item) => item.IsOpen && Fits(item);

    /// <summary>The same, of what is locked in place itself but on an open layer: so that it can be unlocked.</summary>
    public bool TakesLocked(PageItem item) => item.IsLocked && item.Shown && item.IsReached && Fits(item);

    private bool Fits(PageItem item) => (Kinds & item.Kind) != 0 && (Layer is not { } layer || item.Layer!.Id == layer);
}
