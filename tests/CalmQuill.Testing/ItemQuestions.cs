using CalmQuill.Core.Items;
using CalmQuill.Core.Pages;

namespace CalmQuill.Testing;

/// <summary>What tests ask of the things on a page.</summary>
public static class ItemQuestions
{
    /// <summary>An item as the shape it is; null for what is none.</summary>
    public static ShapeContent? AsShape(this PageItem item) => item.Content as ShapeContent;
}
