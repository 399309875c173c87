using CalmQuill.Core.Operations;
using CalmQuill.Core.Writing;

namespace CalmQuill.Core.Items;

/// <summary>Whether what lies in a box of its own may enter a page.</summary>
public static class ThingRules
{
    /// <summary>The least that a box is wide and high, 0.01 mm.</summary>
    public const int LeastSide = 100;

    /// <summary>The most bytes of the names of two scales.</summary>
    internal const int MostNames = 400;

    /// <summary>The longest name of a file, in UTF-8.</summary>
    internal const int MostNameBytes = 800;

    /// <summary>The longest name of an item: two numbers of twenty digits, and what stands between them.</summary>
    internal const int MostItemBytes = 41;

    public static Refusal? Check(Change.ThingAdded added)
    {
        if (!Enum.IsDefined(added.Thing))
            return new Refusal("bad-thing", $"This is something that is not known here.");
        if (added.Width is < LeastSide or > TextContent.MostMeasure || added.Height is < LeastSide or > TextContent.MostMeasure)
            return new Refusal("bad-value", $"A box on a page is 1 mm to 2 m wide and high.");
        if (!added.Lay.IsReasonable)
            return new Refusal("too-far", $"A box lies more than 20 metres off its sheet.");
        if (ItemRules.Check(added.Values) is { } refusal)
            return refusal;
        if (added.Thing == ThingKind.Picture && !Says(added, ItemField.Source))
            return new Refusal("bad-thing", $"A picture does not say which one it is.");
        if (added.Thing == ThingKind.File && !(Says(added, ItemField.Source) && Says(added, ItemField.FileName)))
            return new Refusal("bad-thing", $"A file does not say which one it is.");
        return WritingRules.Check(added.Passage);
    }

    private static bool Says(Change.ThingAdded added, ItemField field) => added.Values.Any(value => value.Field == field);
}
