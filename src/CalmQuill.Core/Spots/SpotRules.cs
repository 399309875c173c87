using System.Globalization;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Links;
using CalmQuill.Core.Operations;

namespace CalmQuill.Core.Spots;

/// <summary>Whether a change to a spot may enter a page.</summary>
public static class SpotRules
{
    public const int MostNote = 2_000,
        MostLevel = 6;

    /// <summary>What may be written of a sign, field by field.</summary>
    public static readonly IReadOnlyDictionary<SpotField, TextRule> Fields = new Dictionary<SpotField, TextRule>
    {
        [SpotField.Removed] = TextRule.Switch,
        [SpotField.Mark] = new(68, text => MarkKinds.IsKind(text) ? null : Sentence.Of($"This kind of mark is not known here.")),
        [SpotField.Note] = new(
            MostNote * 3,
            text =>
                text.Length <= MostNote && !text.Any(c => char.IsControl(c) && c != '\n')
                    ? null
                    : Sentence.Of($"A note has at most {MostNote} characters.")
        ),
        [SpotField.Due] = new(
            10,
            text =>
                DateOnly.TryParseExact(text, "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None, out _)
                    ? null
                    : Sentence.Of($"A due day is not well formed.")
        ),
        [SpotField.Person] = TextRule.Id,
        [SpotField.Done] = TextRule.Switch,
        [SpotField.Target] = new(
            LinkTarget.MostAddress * 3,
            text =>
                LinkTarget.Read(text) is null
                    ? Sentence.Of($"A link leads to an address that begins with https:// or http://, or to something in a library.")
                    : null
        ),
        [SpotField.Title] = TextRule.Name,
        [SpotField.Level] = new(
            1,
            text =>
                int.TryParse(text, NumberStyles.None, CultureInfo.InvariantCulture, out var level) && level is >= 1 and <= MostLevel
                    ? null
                    : Sentence.Of($"A heading stands 1 to {MostLevel} levels deep.")
        ),
    };

    public static Refusal? Check(Change.SpotAdded added)
    {
        if (!Enum.IsDefined(added.SpotKind))
            return new Refusal("bad-spot", $"This kind of sign on a page is not known here.");
        var (left, top, right, bottom) = added.Area;
        if (right < left || bottom < top || Far(left) || Far(top) || Far(right) || Far(bottom))
            return new Refusal("too-far", $"A sign lies more than 20 metres off its sheet.");
        var needed = added.SpotKind switch
        {
            SpotKind.Mark => SpotField.Mark,
            SpotKind.Link => SpotField.Target,
            _ => SpotField.Level,
        };
        // A curtain needs nothing said of it.
        if (added.SpotKind == SpotKind.Curtain && added.Values.Count == 0)
            return added.Spot == Guid.Empty ? new Refusal("bad-id", $"A sign on a page has no proper id.") : null;
        if (added.SpotKind != SpotKind.Curtain && !added.Values.Any(value => value.Field == needed && value.Value.Length > 0))
            return new Refusal("bad-spot", $"A sign on a page does not say what it is.");
        return Check(added.Spot, added.Values);
    }

    public static Refusal? Check(Guid spot, IReadOnlyList<SpotValue> values)
    {
        if (spot == Guid.Empty)
            return new Refusal("bad-id", $"A sign on a page has no proper id.");
        if (values.Count == 0 || values.DistinctBy(value => value.Field).Count() < values.Count)
            return new Refusal("empty", $"This change names nothing to change.");
        foreach (var value in values)
        {
            if (Check(value) is { } refusal)
                return refusal;
        }

        return null;
    }

    private static Refusal? Check(SpotValue value) =>
        !Fields.TryGetValue(value.Field, out var rule) ? new Refusal("bad-spot", $"This is not known of a sign.")
        : rule.Problem(value.Value) is { } problem ? new Refusal(value.Field == SpotField.Title ? "bad-name" : "bad-value", problem)
        : null;

    private static bool Far(int value) => Math.Abs((long)value) > StrokeSamples.MostCoordinate;
}
