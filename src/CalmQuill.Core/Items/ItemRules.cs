using System.Globalization;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Shapes;

namespace CalmQuill.Core.Items;

/// <summary>Whether what is written of items and layers may enter a page.</summary>
public static class ItemRules
{
    public const int MostOrder = 1_000_000;

    public static Refusal? Check(Pen pen)
    {
        if (!Enum.IsDefined(pen.Kind) || !Enum.IsDefined(pen.Line) || !Enum.IsDefined(pen.Tip))
            return new Refusal("bad-pen", "This pen is not known here.");
        if (pen.Width is < Pen.LeastWidth or > Pen.MostWidth)
            return new Refusal("bad-pen", "A pen is 0.1 to 20 mm wide.");
        if (pen.Angle is < 0 or > 179 || pen.Response is < -Pen.MostResponse or > Pen.MostResponse)
            return new Refusal("bad-pen", "A nib is held at 0 to 179 degrees, and takes pressure between −100 and 100.");
        if (pen.Kind == PenKind.Highlighter && (pen.Colour & 0xFF) > Pen.MostHighlighterAlpha)
            return new Refusal("bad-pen", "A highlighter does not cover what lies under it.");
        return null;
    }

    public static Refusal? Check(Change.ShapeAdded added) =>
        added.Shape.IsWellFormed ? Check(added.Pen) : new Refusal("bad-shape", "A shape is not well formed.");

    public static Refusal? Check(Change.ItemsSet set)
    {
        if (set.Items.Count == 0 || set.Values.Count == 0)
            return new Refusal("empty", "This change names nothing to change.");
        foreach (var value in set.Values)
        {
            if (!Enum.IsDefined(value.Field) || (value.Value.Length > 0 && !IsGood(value)))
                return new Refusal("bad-value", "What is said of ink is not well formed.");
        }

        return null;
    }

    private static bool IsGood(ItemValue value) =>
        value.Field switch
        {
            ItemField.Colour or ItemField.Fill => value.Value.Length == 8 && value.Value.All(char.IsAsciiHexDigit),
            ItemField.Width => Whole(value.Value, Pen.LeastWidth, Pen.MostWidth),
            ItemField.Pen => Whole(value.Value, 1, (int)PenKind.Highlighter),
            ItemField.Line => Whole(value.Value, 0, (int)LineStyle.Dotted),
            ItemField.Shape => Shape.Read(value.Value) is not null,
            ItemField.Layer or ItemField.Group => Guid.TryParse(value.Value, out _),
            ItemField.Order => Whole(value.Value, -MostOrder, MostOrder),
            _ => value.Value == "1",
        };

    private static bool Whole(string text, int least, int most) =>
        int.TryParse(text, NumberStyles.AllowLeadingSign, CultureInfo.InvariantCulture, out var number)
        && number >= least
        && number <= most;
}
