namespace CalmQuill.Core.Items;

/// <summary>One field of an item and what is written into it; empty is what it was made with.</summary>
public readonly record struct ItemValue(ItemField Field, string Value);
