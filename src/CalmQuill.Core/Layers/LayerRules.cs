using System.Globalization;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Ordering;

namespace CalmQuill.Core.Layers;

/// <summary>Whether a change to a layer may enter a page.</summary>
public static class LayerRules
{
    /// <summary>What may be written of a layer, field by field.</summary>
    public static readonly IReadOnlyDictionary<LayerField, TextRule> Fields = new Dictionary<LayerField, TextRule>
    {
        [LayerField.Name] = TextRule.Name,
        [LayerField.Order] = new(
            OrderKey.MostLength,
            text => OrderKey.IsValid(text) ? null : Sentence.Of($"The place in the order is not well formed.")
        ),
        [LayerField.Hidden] = TextRule.Switch,
        [LayerField.Locked] = TextRule.Switch,
        [LayerField.Opacity] = new(
            3,
            text =>
                int.TryParse(text, NumberStyles.None, CultureInfo.InvariantCulture, out var number) && number is >= 1 and <= 100
                    ? null
                    : Sentence.Of($"A layer is shown at 1 to 100 percent.")
        ),
        [LayerField.MergedInto] = TextRule.Id,
        [LayerField.Erased] = TextRule.Switch,
    };

    public static Refusal? Check(Change.LayerSet set)
    {
        if (set.Values.Count == 0)
            return new Refusal("empty", $"This change names nothing to change.");
        if (set.Values.DistinctBy(value => value.Field).Count() < set.Values.Count)
            return new Refusal("bad-layer", $"One and the same is said of a layer twice.");
        foreach (var (field, text) in set.Values)
        {
            if (set.Layer == Guid.Empty && field is (LayerField.MergedInto or LayerField.Erased))
                return new Refusal("bad-layer", $"The first layer of a page always stays.");
            if (field == LayerField.MergedInto && Guid.TryParse(text, out var into) && into == set.Layer)
                return new Refusal("bad-layer", $"A layer is merged into another one.");
            if (!Fields.TryGetValue(field, out var rule))
                return new Refusal("bad-layer", $"This is not known of a layer.");
            if (rule.Problem(text) is { } problem)
                return new Refusal("bad-layer", problem);
        }

        return null;
    }
}
