using CalmQuill.Core.Items;
using CalmQuill.Core.Pages;

namespace CalmQuill.Testing;

/// <summary>What tests ask of things that they know to be lines.</summary>
public static class ItemLine
{
    extension(PageItem item)
    {
        public LineContent Line => (LineContent)item.Content;

        /// <summary>The same; null for a thing that is no line.</summary>
        public LineContent? LineOrNone => item.Content as LineContent;
    }
}
