using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Plots;
using CalmQuill.Core.Tables;
using CalmQuill.Core.Typesetting;

namespace CalmQuill.Core.Items;

/// <summary>Curves and points over two scales, with what is written under it.</summary>
public sealed class PlotContent(IItemFrame frame, Change.ThingAdded added) : CaptionedContent(frame, added)
{
    /// <summary>Each curve and each list of points has a field of its own, so that two people change two of them at once and both stand.</summary>
    public static readonly IReadOnlyList<ItemField> CurveFields =
    [
        ItemField.Curve1,
        ItemField.Curve2,
        ItemField.Curve3,
        ItemField.Curve4,
        ItemField.Curve5,
        ItemField.Curve6,
    ];

    /// <inheritdoc cref="CurveFields"/>
    public static readonly IReadOnlyList<ItemField> DataFields = [ItemField.Data1, ItemField.Data2, ItemField.Data3];

    private static readonly ItemField[] OwnFields =
    [
        ItemField.Colour,
        ItemField.Range,
        ItemField.Axes,
        ItemField.Shows,
        .. CurveFields,
        .. DataFields,
    ];

    /// <summary>What decides how it is drawn; what is typed under it does not.</summary>
    private static readonly ItemField[] Decide = [ItemField.Measure, ItemField.Height, .. OwnFields];

    private const ItemField FromTable = ItemField.Data1;

    private PlotData? tabled;
    private string[] decided = [];
    private PlotDrawing? drawn;
    private int drawnVersion;

    /// <summary>What went wrong with curves, in a sentence, by their fields.</summary>
    public IReadOnlyDictionary<ItemField, string> Problems =>
        Drawing.Problems.ToDictionary(problem => CurveFields[problem.Key], problem => problem.Value);

    /// <summary>The formulas of what was laid through points.</summary>
    public IReadOnlyList<string> Told => Drawing.Told;

    public PlotRange Range => PlotRange.Read(Read(ItemField.Range)) ?? PlotRange.Around(Points) ?? new PlotRange(-5, 5, -5, 5);

    public override ItemKinds Kind => ItemKinds.Plot;

    public override string Words => string.Join('\n', new[] { Typed.Text, Read(ItemField.Axes) }.Where(words => words.Length > 0));

    public override OutlineKey OutlineKey => base.OutlineKey with { Form = Drawing };

    protected override Box Shows => new(0, 0, Width, Height);

    protected override IReadOnlyList<Region> Below => Drawing.Fills;

    protected override IReadOnlyList<ItemField> Looks => OwnFields;

    public override IReadOnlyList<(ItemField Field, OpId On)> LeansOn => Table is { } table ? [(ItemField.Table, table)] : [];

    public override IReadOnlyList<ItemValue> Alone => tabled is { } data ? [new ItemValue(FromTable, data.ToText())] : [];

    /// <summary>The table from which its first points come; null for none. They follow what is typed in it, and stay as they were last when it is gone.</summary>
    public OpId? Table => OpId.TryParse(Read(ItemField.Table), out var table) ? table : null;

    private IEnumerable<(double X, double Y)> Points => DataFields.SelectMany(one => DataOf(one)?.Points ?? []);

    /// <summary>Those points as they stand in the table; null where they come from none, or there are not two columns of numbers in it now.</summary>
    private PlotData? ReadTable() =>
        Table is { } table
        && PlotData.Read(Read(FromTable)) is { } data
        && Frame.Beside(table, false) is TableContent content
        && TablePlot.Of(content.Layout.Text) is { } plot
            ? data with
            {
                Points = plot.Points,
            }
            : null;

    public PlotDrawing Drawing
    {
        get
        {
            // Labels are set anew when there are more fonts.
            if (drawn is null || drawnVersion != Fonts.Version)
                (drawn, drawnVersion) = (DrawnAt(Range), Fonts.Version);
            return drawn;
        }
    }

    public override IReadOnlyList<LaidText> Texts(bool shifted)
    {
        var place = OwnPlace(shifted);
        return
        [
            .. base.Texts(shifted),
            .. Drawing.Labels.Select(one => new LaidText(one.Label.Set, place.After(Affine.Identity.Shifted(one.X, one.Y)), one.Colour)),
        ];
    }

    protected internal override void WorkOut(bool mayLieElsewhere)
    {
        tabled = ReadTable();
        string[] decides = [.. Decide.Select(field => field == FromTable && tabled is { } data ? data.ToText() : Read(field))];
        if (!decides.AsSpan().SequenceEqual(decided))
            (decided, drawn) = (decides, null);
        base.WorkOut(mayLieElsewhere);
    }

    /// <summary>As it would be drawn if it showed another part of the plane.</summary>
    public PlotDrawing DrawnAt(PlotRange range) =>
        new(
            Width,
            Height,
            range,
            Read(ItemField.Axes),
            Read(ItemField.Shows),
            [.. CurveFields.Select(one => PlotCurve.Read(Read(one)))],
            [.. DataFields.Select(DataOf)]
        );

    /// <summary>Points as they are shown.</summary>
    public PlotData? DataOf(ItemField field) => (field == FromTable ? tabled : null) ?? PlotData.Read(Read(field));
}
