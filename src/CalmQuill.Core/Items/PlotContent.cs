using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Plots;
using CalmQuill.Core.Reckoning;
using CalmQuill.Core.Typesetting;
using CalmQuill.Core.Writing;

namespace CalmQuill.Core.Items;

/// <summary>Curves and points over two scales, with what is written under it. Its own measures run from its upper left corner.</summary>
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

    /// <summary>Words of <see cref="ItemField.Shows"/>: no lines of the scales, landmarks with their values, angles in degrees.</summary>
    public const string NoGrid = "plain",
        Marks = "marks",
        Degrees = "degrees";

    /// <summary>The paper that it is drawn on, its lines and its scales.</summary>
    private const uint Paper = 0xFFFDF7FF,
        Grid = 0xDDE3DFFF,
        Axis = 0x4A5A57FF,
        Mark = 0xB4533CFF;

    /// <summary>Room around what is drawn, 0.01 mm; type of the scales, 0.1 pt; and how wide lines are.</summary>
    private const int LeftRoom = 950,
        RightRoom = 350,
        TopRoom = 350,
        BottomRoom = 600,
        Type = 75,
        GridWidth = 12,
        AxisWidth = 22,
        CurveWidth = 38,
        FitWidth = 26,
        PointRadius = 55,
        MarkRadius = 48;

    /// <summary>Numbers on a scale stand so far apart at least, 0.01 mm.</summary>
    private const int NumbersApart = 1_300,
        RowsApart = 900;

    private static readonly ItemField[] OwnFields =
    [
        ItemField.Colour,
        ItemField.Range,
        ItemField.Axes,
        ItemField.Shows,
        .. CurveFields,
        .. DataFields,
    ];

    private readonly Dictionary<ItemField, string> problems = [];
    private Drawn? drawn;
    private int drawnVersion;

    /// <summary>What is drawn, in its own measures.</summary>
    private sealed record Drawn(
        List<(uint Colour, List<(double X, double Y)[]> Rings)> Fills,
        List<(Label Label, double X, double Y, uint Colour)> Labels,
        List<string> Told
    );

    /// <summary>What went wrong with each curve, in a sentence; empty for those that are drawn. By their fields.</summary>
    public IReadOnlyDictionary<ItemField, string> Problems
    {
        get
        {
            _ = Drawing;
            return problems;
        }
    }

    /// <summary>The formulas of what was laid through points.</summary>
    public IReadOnlyList<string> Told => Drawing.Told;

    public string this[ItemField field] => Read(field);

    public PlotRange Range => PlotRange.Read(Read(ItemField.Range)) ?? AroundPoints ?? new PlotRange(-5, 5, -5, 5);

    public override ItemKinds Kind => ItemKinds.Plot;

    protected override Box Shows => new(0, 0, Width, Height);

    public override string Words => string.Join('\n', new[] { Typed.Text, Read(ItemField.Axes) }.Where(words => words.Length > 0));

    public override int Coats => Drawing.Fills.Count + base.Coats;

    public override Coat Coat(int index) =>
        index < Drawing.Fills.Count ? Items.Coat.Full(Drawing.Fills[index].Colour) : base.Coat(index - Drawing.Fills.Count);

    public override OutlineKey OutlineKey => base.OutlineKey with { Form = Drawing };

    protected override (double X, double Y)[] Edge
    {
        get
        {
            var lay = Affine.Of(added.Lay);
            return [lay.Of(0, 0), lay.Of(Width, 0), lay.Of(Width, Height), lay.Of(0, Height)];
        }
    }

    protected override IReadOnlyList<ItemField> Looks => OwnFields;

    private int Width => Number(ItemField.Measure, added.Width);

    private int Height => Number(ItemField.Height, added.Height);

    private PlotRange? AroundPoints => PlotRange.Around(DataFields.SelectMany(one => PlotData.Read(Read(one))?.Points ?? []));

    private bool Has(string word) => Read(ItemField.Shows).Split(' ').Contains(word);

    private Drawn Drawing
    {
        get
        {
            // Labels are set anew when there are more fonts.
            if (drawn is null || drawnVersion != Fonts.Version)
                (drawn, drawnVersion) = (Draw(), Fonts.Version);
            return drawn;
        }
    }

    public override Change.ItemAdded Copy() =>
        new Change.ThingAdded(ThingKind.Plot, Transform.Near(OwnPlace(true)), Width, Height, Passage.Of(Typed.Paragraphs()), Look);

    public override IEnumerable<(SetText Set, Affine Place, uint Colour)> Texts(bool shifted)
    {
        var place = OwnPlace(shifted);
        return base.Texts(shifted)
            .Concat(
                Drawing.Labels.Select(label => (label.Label.Set, place.After(Affine.Identity.Shifted(label.X, label.Y)), label.Colour))
            );
    }

    protected override void PaintBelow(ItemPainter painter, bool shifted)
    {
        var place = OwnPlace(shifted);
        foreach (var (colour, rings) in Drawing.Fills)
        {
            var outline = painter.Empty();
            foreach (var ring in rings)
            {
                foreach (var (x, y) in ring)
                {
                    var (px, py) = place.Of(x, y);
                    outline.Add((float)px, (float)py);
                }

                outline.Close();
            }

            painter.Fill(outline, Items.Coat.Full(colour));
        }
    }

    protected override void SketchBelow(IItemSketcher sketcher)
    {
        var place = OwnPlace(true);
        foreach (var (colour, rings) in Drawing.Fills)
        {
            foreach (var ring in rings)
                sketcher.Region([.. ring.Select(at => place.Of(at.X, at.Y)).SelectMany(at => new[] { (long)at.X, (long)at.Y })], colour);
        }
    }

    protected internal override void WorkOut(bool mayLieElsewhere)
    {
        if (mayLieElsewhere)
            drawn = null;
        base.WorkOut(mayLieElsewhere);
    }

    protected internal override void WriteState(ByteWriter writer, SampleCodec.Writers columns)
    {
        writer.Signed(Width);
        writer.Signed(Height);
        base.WriteState(writer, columns);
    }

    private Drawn Draw()
    {
        problems.Clear();
        var range = Range;
        var (left, top, right, bottom) = ((double)LeftRoom, (double)TopRoom, (double)Width - RightRoom, (double)Height - BottomRoom);
        var fills = new List<(uint, List<(double, double)[]>)> { (Paper, [Lines.Box(0, 0, Width, Height)]) };
        var labels = new List<(Label, double, double, uint)>();
        var told = new List<string>();
        if (right - left < NumbersApart || bottom - top < RowsApart)
            return new Drawn(fills, labels, told);
        double X(double x) => left + (x - range.Left) / range.Width * (right - left);
        double Y(double y) => bottom - (y - range.Bottom) / range.Height * (bottom - top);
        Scales();
        var curves = new List<(Func<double, double> Of, uint Colour)>();
        foreach (var field in CurveFields)
        {
            if (PlotCurve.Read(Read(field)) is { } curve)
                Curve(field, curve);
        }

        foreach (var field in DataFields)
        {
            if (PlotData.Read(Read(field)) is { } data)
                Data(data);
        }

        if (Has(Marks))
            Landmark(curves);
        for (var i = 0; i < told.Count; i++)
        {
            var label = Label.Of(told[i], Type);
            labels.Add((label, right - label.Width - 60, top + 300 + i * 380, Axis));
        }

        return new Drawn(fills, labels, told);

        void Scales()
        {
            var (across, down) = (
                Ticks.Step(range.Left, range.Right, (int)((right - left) / NumbersApart)),
                Ticks.Step(range.Bottom, range.Top, (int)((bottom - top) / RowsApart))
            );
            var grid = new List<(double, double)[]>();
            foreach (var x in Ticks.Of(range.Left, range.Right, across))
            {
                if (!Has(NoGrid))
                    grid.Add(Lines.Box(X(x) - GridWidth / 2.0, top, X(x) + GridWidth / 2.0, bottom));
                var label = Label.Of(Ticks.Words(x, across), Type);
                labels.Add((label, X(x) - label.Width / 2.0, bottom + 330, Axis));
            }

            foreach (var y in Ticks.Of(range.Bottom, range.Top, down))
            {
                if (!Has(NoGrid))
                    grid.Add(Lines.Box(left, Y(y) - GridWidth / 2.0, right, Y(y) + GridWidth / 2.0));
                var label = Label.Of(Ticks.Words(y, down), Type);
                labels.Add((label, left - label.Width - 110, Y(y) + 95, Axis));
            }

            if (grid.Count > 0)
                fills.Add((Grid, grid));
            // The axes stand at 0 where that is seen, else at the edge.
            var (x0, y0) = (X(Math.Clamp(0, range.Left, range.Right)), Y(Math.Clamp(0, range.Bottom, range.Top)));
            fills.Add(
                (
                    Axis,
                    [
                        Lines.Box(left, y0 - AxisWidth / 2.0, right, y0 + AxisWidth / 2.0),
                        Lines.Box(x0 - AxisWidth / 2.0, top, x0 + AxisWidth / 2.0, bottom),
                    ]
                )
            );
            var names = Read(ItemField.Axes).Split('\n');
            if (names[0].Length > 0)
            {
                var label = Label.Of(names[0], Type);
                labels.Add((label, right - label.Width, y0 - 110, Axis));
            }

            if (names.Length > 1 && names[1].Length > 0)
                labels.Add((Label.Of(names[1], Type), x0 + 110, top + 90, Axis));
        }

        void Curve(ItemField field, PlotCurve curve)
        {
            try
            {
                var degrees = Has(Degrees);
                if (curve.Height(degrees) is { } of)
                {
                    curves.Add((of, curve.Colour));
                    Line(of, curve.Colour, CurveWidth);
                    return;
                }

                var pieces = ImplicitCurve.Of(curve.Off(degrees), range);
                if (pieces.Count > 0)
                    fills.Add((curve.Colour, [.. pieces.Select(piece => Lines.Band([At(piece.From), At(piece.To)], CurveWidth))]));
            }
            catch (FormulaException problem)
            {
                problems[field] = problem.Sentence.Told;
            }
        }

        (double, double) At((double X, double Y) point) => (X(point.X), Y(point.Y));

        void Line(Func<double, double> of, uint colour, double width)
        {
            var rings = new CurveSampler(of, range, 0.0008)
                .Lines()
                .Select(line => line.ConvertAll(point => (X(point.X), Y(point.Y))))
                .SelectMany(line => Lines.Within(line, (left, top, right, bottom)))
                .Select(line => Lines.Band(line, width))
                .ToList();
            if (rings.Count > 0)
                fills.Add((colour, rings));
        }

        void Data(PlotData data)
        {
            if (Fit.Of(data.Fit, data.Points) is { } fit)
            {
                Line(fit.At, (data.Colour & ~0xFFu) | 0xB0, FitWidth);
                told.Add($"{fit.Words()}   R² = {Ticks.Number(fit.Share)}");
            }

            var discs = data
                .Points.Where(point => point.X >= range.Left && point.X <= range.Right && point.Y >= range.Bottom && point.Y <= range.Top)
                .Select(point => Lines.Disc(X(point.X), Y(point.Y), PointRadius))
                .ToList();
            if (discs.Count > 0)
                fills.Add((data.Colour, discs));
        }

        void Landmark(List<(Func<double, double> Of, uint Colour)> all)
        {
            var at = new List<(double X, double Y)>();
            foreach (var (of, _) in all)
            {
                at.AddRange(Landmarks.Zeros(of, range.Left, range.Right).Select(x => (x, 0.0)));
                at.AddRange(Landmarks.Turns(of, range.Left, range.Right).Select(x => (x, of(x))));
            }

            for (var one = 0; one < all.Count; one++)
            {
                for (var other = one + 1; other < all.Count; other++)
                {
                    var (of, also) = (all[one].Of, all[other].Of);
                    at.AddRange(Landmarks.Zeros(x => of(x) - also(x), range.Left, range.Right).Select(x => (x, of(x))));
                }
            }

            var seen = at.Where(place => place.Y >= range.Bottom && place.Y <= range.Top)
                .DistinctBy(place => (Math.Round(X(place.X) / 40), Math.Round(Y(place.Y) / 40)))
                .Take(24)
                .ToList();
            if (seen.Count > 0)
                fills.Add((Mark, [.. seen.Select(place => Lines.Disc(X(place.X), Y(place.Y), MarkRadius))]));
            foreach (var (x, y) in seen)
            {
                var label = Label.Of($"({Ticks.Number(Near(x, range.Width), 4)}; {Ticks.Number(Near(y, range.Height), 4)})", Type - 10);
                labels.Add((label, Math.Clamp(X(x) + 70, left, right - label.Width), Math.Max(Y(y) - 90, top + 200), Mark));
            }
        }

        // What is 0 but for rounding is 0.
        static double Near(double value, double of) => Math.Abs(value) < of * 1e-9 ? 0 : value;
    }
}
