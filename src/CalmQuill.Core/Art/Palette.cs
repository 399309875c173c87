namespace CalmQuill.Core.Art;

/// <summary>The colours of people, groups, sections, tags and covers, by the names under which they are kept.</summary>
public static class Palette
{
    /// <summary>In the order in which people are given them.</summary>
    public static readonly IReadOnlyList<string> Names = ["plum", "sky", "lichen", "gold", "madder", "spruce"];
}
