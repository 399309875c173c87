using System.Globalization;
using CalmQuill.Core.Algebra;
using CalmQuill.Core.Formulas;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pictures;
using CalmQuill.Core.Plots;
using CalmQuill.Core.Shapes;
using CalmQuill.Core.Tables;
using CalmQuill.Core.Writing;

namespace CalmQuill.Core.Items;

/// <summary>Whether what is written of items and layers may enter a page.</summary>
public static class ItemRules
{
    public const int MostOrder = 1_000_000;

    /// <summary>What may be written of an item, field by field.</summary>
    public static readonly IReadOnlyDictionary<ItemField, TextRule> Fields = new Dictionary<ItemField, TextRule>
    {
        [ItemField.Colour] = Colour,
        [ItemField.Width] = Whole(Pen.LeastWidth, Pen.MostWidth),
        [ItemField.Pen] = Whole(1, (int)PenKind.Highlighter),
        [ItemField.Line] = Whole(0, (int)LineStyle.Dotted),
        [ItemField.Fill] = Colour,
        [ItemField.Shape] = new(
            TextRule.MostBytesUnknown,
            text => Shape.Read(text) is null ? Sentence.Of($"A shape is not well formed.") : null
        ),
        [ItemField.Layer] = TextRule.Id,
        [ItemField.Order] = Whole(-MostOrder, MostOrder),
        [ItemField.Group] = TextRule.Id,
        [ItemField.Locked] = TextRule.Switch,
        [ItemField.Measure] = Whole(TextContent.LeastMeasure, TextContent.MostMeasure),
        [ItemField.Ruling] = Whole(0, TextContent.MostRuling),
        [ItemField.Edge] = Colour,
        [ItemField.EdgeWidth] = Whole(1, Pen.MostWidth),
        [ItemField.Corner] = Whole(0, TextContent.MostPadding),
        [ItemField.Padding] = Whole(0, TextContent.MostPadding),
        [ItemField.Source] = TextRule.Id,
        [ItemField.Opacity] = Whole(1, 100),
        [ItemField.Brightness] = Whole(-Tones.Most, Tones.Most),
        [ItemField.Contrast] = Whole(-Tones.Most, Tones.Most),
        [ItemField.Cut] = new(
            PictureCut.MostBytes,
            text => PictureCut.Read(text) is null ? Sentence.Of($"What is shown of a picture is not well formed.") : null
        ),
        [ItemField.Cleared] = Whole(0, 100),
        [ItemField.Height] = Whole(ThingRules.LeastSide, TextContent.MostMeasure),
        [ItemField.Original] = TextRule.Id,
        [ItemField.Folded] = TextRule.Switch,
        [ItemField.Pinned] = TextRule.Switch,
        [ItemField.Within] = Item,
        [ItemField.Range] = new(PlotRange.MostBytes, text => PlotRange.Read(text) is null ? NoPlot : null),
        [ItemField.Axes] = new(ThingRules.MostNames, text => text.Split('\n').Length > 2 ? NoPlot : null),
        [ItemField.Shows] = new(
            ThingRules.MostNames,
            text =>
                text.Split(' ')
                    .All(word =>
                        word is PlotDrawing.NoGrid or PlotDrawing.Marks or PlotDrawing.Degrees or TableLayout.Header
                        || DrawnFormula.Words.Contains(word)
                    )
                    ? null
                    : NoPlot
        ),
        [ItemField.Curve1] = Curve,
        [ItemField.Curve2] = Curve,
        [ItemField.Curve3] = Curve,
        [ItemField.Curve4] = Curve,
        [ItemField.Curve5] = Curve,
        [ItemField.Curve6] = Curve,
        [ItemField.Data1] = Data,
        [ItemField.Data2] = Data,
        [ItemField.Data3] = Data,
        [ItemField.FileName] = new(
            ThingRules.MostNameBytes,
            text => FileContent.IsName(text) ? null : Sentence.Of($"A file is not well named.")
        ),
        [ItemField.FileSize] = Whole(0, 99_999_999),
        [ItemField.From] = Item,
        [ItemField.To] = Item,
        [ItemField.Holder] = Item,
        [ItemField.Table] = Item,
        [ItemField.Leaf] = Whole(1, PictureLook.MostLeaf),
        [ItemField.Letter] = new(
            Letters.MostLetters * 4,
            text =>
                text.Length is > 0 and <= Letters.MostLetters && !text.Any(char.IsControl)
                    ? null
                    : Sentence.Of($"A letter is not well named.")
        ),
    };

    public static Refusal? Check(Pen pen)
    {
        if (!Enum.IsDefined(pen.Kind) || !Enum.IsDefined(pen.Line) || !Enum.IsDefined(pen.Tip))
            return new Refusal("bad-pen", $"This pen is not known here.");
        if (pen.Width is < Pen.LeastWidth or > Pen.MostWidth)
            return new Refusal("bad-pen", $"A pen is 0.1 to 20 mm wide.");
        if (pen.Angle is < 0 or > 179 || pen.Response is < -Pen.MostResponse or > Pen.MostResponse)
            return new Refusal("bad-pen", $"A nib is held at 0 to 179 degrees, and takes pressure between −100 and 100.");
        if (pen.Kind == PenKind.Highlighter && (pen.Colour & 0xFF) > Pen.MostHighlighterAlpha)
            return new Refusal("bad-pen", $"A highlighter does not cover what lies under it.");
        return null;
    }

    public static Refusal? Check(Change.StrokeAdded stroke)
    {
        if (Check(stroke.Pen) is { } refusal)
            return refusal;
        var samples = stroke.Samples;
        if (samples.Count > StrokeSamples.MostSamples)
            return new Refusal("too-long", $"A stroke has at most {StrokeSamples.MostSamples} samples.");
        var box = samples.Bounds();
        const int Most = StrokeSamples.MostCoordinate;
        if (box.Left < -Most || box.Top < -Most || box.Right > Most || box.Bottom > Most)
            return new Refusal("too-far", $"A stroke lies more than 20 metres off its sheet.");
        foreach (var pressure in samples.Pressure)
        {
            if (pressure is < 0 or > StrokeSamples.MostPressure)
                return new Refusal("bad-pressure", $"Pressure runs from 0 to 1023.");
        }

        return null;
    }

    public static Refusal? Check(Change.ShapeAdded added) =>
        added.Shape.IsWellFormed ? Check(added.Pen) : new Refusal("bad-shape", $"A shape is not well formed.");

    public static Refusal? Check(Change.TextAdded added)
    {
        if (added.Width is < TextContent.LeastMeasure or > TextContent.MostMeasure || added.Ruling is < 0 or > TextContent.MostRuling)
            return new Refusal("bad-value", $"The lines of a text are 5 mm to 2 m long, and at most 20 cm apart.");
        if (!added.Lay.IsReasonable)
            return new Refusal("too-far", $"A text lies more than 20 metres off its sheet.");
        return WritingRules.Check(added.Passage) ?? Check(added.Values);
    }

    public static Refusal? Check(Change.ItemsSet set)
    {
        if (set.Items.Count == 0 || set.Values.Count == 0)
            return new Refusal("empty", $"This change names nothing to change.");
        return Check(set.Values);
    }

    internal static Refusal? Check(IReadOnlyList<ItemValue> values)
    {
        if (values.DistinctBy(value => value.Field).Count() < values.Count)
            return new Refusal("bad-value", $"One and the same is said of ink twice.");
        foreach (var value in values)
        {
            if (!Fields.TryGetValue(value.Field, out var rule) || rule.Problem(value.Value) is not null)
                return new Refusal("bad-value", $"What is said of ink is not well formed.");
        }

        return null;
    }

    private static Sentence NoPlot => Sentence.Of($"What a plot shows is not well formed.");

    private static TextRule Item =>
        new(ThingRules.MostItemBytes, text => OpId.TryParse(text, out _) ? null : Sentence.Of($"A thing is not well named."));

    private static TextRule Curve => new(PlotCurve.MostBytes, text => PlotCurve.Read(text) is null ? NoPlot : null);

    private static TextRule Data => new(PlotData.MostBytes, text => PlotData.Read(text) is null ? NoPlot : null);

    internal static TextRule Colour =>
        new(8, text => text.Length == 8 && text.All(char.IsAsciiHexDigit) ? null : Sentence.Of($"A colour is not well formed."));

    internal static TextRule Whole(int least, int most) =>
        new(
            8,
            text =>
                int.TryParse(text, NumberStyles.AllowLeadingSign, CultureInfo.InvariantCulture, out var number)
                && number >= least
                && number <= most
                    ? null
                    : Sentence.Of($"A number is out of range.")
        );
}
