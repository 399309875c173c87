using CalmQuill.Core.Operations;

namespace CalmQuill.Core.Items;

/// <summary>One field of an item and what is written into it; empty is what it was made with.</summary>
public readonly record struct ItemValue(ItemField Field, string Value)
{
    /// <summary>The same with another name for the item that it names; what names none as it is.</summary>
    public ItemValue Naming(Func<OpId, OpId> nameOf) =>
        Field is ItemField.Within or ItemField.From or ItemField.To or ItemField.Holder or ItemField.Table
        && OpId.TryParse(Value, out var item)
            ? this with
            {
                Value = nameOf(item).ToString(),
            }
            : this;
}
