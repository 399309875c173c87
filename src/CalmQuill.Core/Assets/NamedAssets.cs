using CalmQuill.Core.Items;
using CalmQuill.Core.Operations;

namespace CalmQuill.Core.Assets;

/// <summary>The files that what is written on pages names.</summary>
public static class NamedAssets
{
    /// <summary>Those that some operations name; each once.</summary>
    public static IEnumerable<Guid> In(IEnumerable<Operation> operations) =>
        operations.SelectMany(operation => In(operation.Change)).Distinct();

    private static IEnumerable<Guid> In(Change change) =>
        change switch
        {
            Change.WrittenAdded added => In(added.Values),
            Change.ItemsSet set => In(set.Values),
            _ => [],
        };

    private static IEnumerable<Guid> In(IReadOnlyList<ItemValue> values)
    {
        foreach (var (field, value) in values)
        {
            if (field is ItemField.Source or ItemField.Original && Guid.TryParse(value, out var asset) && asset != Guid.Empty)
                yield return asset;
        }
    }
}
