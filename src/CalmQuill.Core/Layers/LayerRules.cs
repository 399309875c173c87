using System.Globalization;
using CalmQuill.Core.Library;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Ordering;

namespace CalmQuill.Core.Layers;

/// <summary>Whether a change to a layer may enter a page.</summary>
public static class LayerRules
{
    public static Refusal? Check(Change.LayerSet set)
    {
        if (set.Values.Count == 0)
            return new Refusal("empty", "This change names nothing to change.");
        foreach (var (field, text) in set.Values)
        {
            if (set.Layer == Guid.Empty && field is (LayerField.MergedInto or LayerField.Erased))
                return new Refusal("bad-layer", "The first layer of a page always stays.");
            if (text.Length > 0 && Problem(set.Layer, field, text) is { } problem)
                return new Refusal("bad-layer", problem);
        }

        return null;
    }

    private static string? Problem(Guid layer, LayerField field, string text) =>
        field switch
        {
            LayerField.Name => Names.Problem(text),
            LayerField.Order => OrderKey.IsValid(text) ? null : "The place in the order is not well formed.",
            LayerField.Hidden or LayerField.Locked or LayerField.Erased => text == "1" ? null : "A switch is neither on nor off.",
            LayerField.Opacity => int.TryParse(text, NumberStyles.None, CultureInfo.InvariantCulture, out var number)
            && number is >= 1 and <= 100
                ? null
                : "A layer is shown at 1 to 100 percent.",
            LayerField.MergedInto => Guid.TryParse(text, out var into) && into != layer ? null : "A layer is merged into another one.",
            _ => "This is not known of a layer.",
        };
}
