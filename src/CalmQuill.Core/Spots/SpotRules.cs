using System.Globalization;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Library;
using CalmQuill.Core.Links;
using CalmQuill.Core.Operations;

namespace CalmQuill.Core.Spots;

/// <summary>Whether a change to a spot may enter a page.</summary>
public static class SpotRules
{
    public const int MostNote = 2_000,
        MostLevel = 6;

    public static Refusal? Check(Change.SpotAdded added)
    {
        if (!Enum.IsDefined(added.SpotKind))
            return new Refusal("bad-spot", "This kind of sign on a page is not known here.");
        var (left, top, right, bottom) = added.Area;
        if (right < left || bottom < top || Far(left) || Far(top) || Far(right) || Far(bottom))
            return new Refusal("too-far", "A sign lies more than 20 metres off its sheet.");
        var needed = added.SpotKind switch
        {
            SpotKind.Mark => SpotField.Mark,
            SpotKind.Link => SpotField.Target,
            _ => SpotField.Level,
        };
        // A curtain needs nothing said of it.
        if (added.SpotKind == SpotKind.Curtain && added.Values.Count == 0)
            return added.Spot == Guid.Empty ? new Refusal("bad-id", "A sign on a page has no proper id.") : null;
        if (added.SpotKind != SpotKind.Curtain && !added.Values.Any(value => value.Field == needed && value.Value.Length > 0))
            return new Refusal("bad-spot", "A sign on a page does not say what it is.");
        return Check(added.Spot, added.Values);
    }

    public static Refusal? Check(Guid spot, IReadOnlyList<SpotValue> values)
    {
        if (spot == Guid.Empty)
            return new Refusal("bad-id", "A sign on a page has no proper id.");
        if (values.Count == 0 || values.DistinctBy(value => value.Field).Count() < values.Count)
            return new Refusal("empty", "This change names nothing to change.");
        foreach (var value in values)
        {
            if (Check(value) is { } refusal)
                return refusal;
        }

        return null;
    }

    private static Refusal? Check(SpotValue value)
    {
        var text = value.Value;
        if (text.Length == 0)
            return Enum.IsDefined(value.Field) ? null : new Refusal("bad-spot", "This is not known of a sign.");
        return value.Field switch
        {
            SpotField.Removed or SpotField.Done => Ensure(text == "1", "A switch is neither on nor off."),
            SpotField.Mark => Ensure(MarkKinds.IsKind(text), "This kind of mark is not known here."),
            SpotField.Note => Ensure(
                text.Length <= MostNote && !text.Any(c => char.IsControl(c) && c != '\n'),
                $"A note has at most {MostNote} characters."
            ),
            SpotField.Due => Ensure(
                DateOnly.TryParseExact(text, "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None, out _),
                "A due day is not well formed."
            ),
            SpotField.Person => Ensure(Guid.TryParse(text, out _), "The person named here has no proper id."),
            SpotField.Target => Ensure(
                LinkTarget.Read(text) is not null,
                "A link leads to an address that begins with https:// or http://, or to something in a library."
            ),
            SpotField.Title => Names.Problem(text) is { } problem ? new Refusal("bad-name", problem) : null,
            SpotField.Level => Ensure(
                int.TryParse(text, NumberStyles.None, CultureInfo.InvariantCulture, out var level) && level is >= 1 and <= MostLevel,
                $"A heading stands 1 to {MostLevel} levels deep."
            ),
            _ => new Refusal("bad-spot", "This is not known of a sign."),
        };
    }

    private static Refusal? Ensure(bool holds, string sentence) => holds ? null : new Refusal("bad-value", sentence);

    private static bool Far(int value) => Math.Abs((long)value) > StrokeSamples.MostCoordinate;
}
