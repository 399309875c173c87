using CalmQuill.Core.Ink;
using CalmQuill.Core.Reckoning;
using CalmQuill.Core.Typesetting;

namespace CalmQuill.Core.Plots;

/// <summary>
/// A plot as it is drawn in a box: what is filled, from the back to the front, and what is written. Places are 0.01 mm from the box's upper left corner.
/// </summary>
public sealed class PlotDrawing
{
    /// <summary>Words that say how it looks and reckons: no lines of the scales, landmarks with their values, angles in degrees.</summary>
    public const string NoGrid = "plain",
        Marks = "marks",
        Degrees = "degrees";

    /// <summary>The paper that it is drawn on, its lines and its scales.</summary>
    private const uint Paper = 0xFFFDF7FF,
        Grid = 0xDDE3DFFF,
        Axis = 0x4A5A57FF,
        Mark = 0xB4533CFF;

    /// <summary>What is laid through points lets through so much of what lies below, of 255.</summary>
    private const uint FitAlpha = 0xB0;

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

    /// <summary>So many landmarks are marked at most, and those nearer to each other than this are one, 0.01 mm.</summary>
    private const int MostMarks = 24,
        MarksApart = 40;

    private readonly PlotRange range;
    private readonly string[] shows;
    private readonly double left,
        top,
        right,
        bottom;
    private readonly List<Region> fills;
    private readonly List<(Label Label, double X, double Y, uint Colour)> labels = [];
    private readonly List<string> told = [];
    private readonly Dictionary<int, string> problems = [];

    /// <param name="width">How wide the box is, 0.01 mm.</param>
    /// <param name="height">How high.</param>
    /// <param name="range">What part of the plane is shown.</param>
    /// <param name="axes">The names of the scales, each on a line.</param>
    /// <param name="shows">Words that say how it looks, parted by blanks.</param>
    /// <param name="curves">What is drawn; null where there is nothing in a place.</param>
    /// <param name="points">What points are shown; null likewise.</param>
    public PlotDrawing(
        int width,
        int height,
        PlotRange range,
        string axes,
        string shows,
        IReadOnlyList<PlotCurve?> curves,
        IReadOnlyList<PlotData?> points
    )
    {
        (this.range, this.shows) = (range, shows.Split(' '));
        (left, top, right, bottom) = (LeftRoom, TopRoom, width - RightRoom, height - BottomRoom);
        fills = [new Region(Paper, [Region.Box(0, 0, width, height)])];
        if (right - left < NumbersApart || bottom - top < RowsApart)
            return;
        DrawScales(axes.Split('\n'));
        var heights = new List<Func<double, double>>();
        for (var i = 0; i < curves.Count; i++)
        {
            if (curves[i] is { } curve)
                DrawCurve(i, curve, heights);
        }

        foreach (var data in points.OfType<PlotData>())
            DrawData(data);
        if (Has(Marks))
            DrawLandmarks(heights);
        for (var i = 0; i < told.Count; i++)
        {
            var label = Label.Of(told[i], Type);
            labels.Add((label, right - label.Width - 60, top + 300 + i * 380, Axis));
        }
    }

    /// <summary>What of it shows the plane, within its scales.</summary>
    public Box Plane => new((int)left, (int)top, (int)right, (int)bottom);

    /// <summary>What is filled, from the back.</summary>
    public IReadOnlyList<Region> Fills => fills;

    /// <summary>What is written, where its letters begin, and its colour.</summary>
    public IReadOnlyList<(Label Label, double X, double Y, uint Colour)> Labels => labels;

    /// <summary>The formulas of what was laid through points.</summary>
    public IReadOnlyList<string> Told => told;

    /// <summary>Why a curve cannot be drawn, by its place among them.</summary>
    public IReadOnlyDictionary<int, string> Problems => problems;

    private bool Has(string word) => shows.Contains(word);

    private double X(double x) => left + (x - range.Left) / range.Width * (right - left);

    private double Y(double y) => bottom - (y - range.Bottom) / range.Height * (bottom - top);

    private (double X, double Y) At((double X, double Y) point) => (X(point.X), Y(point.Y));

    private void Fill(uint colour, IReadOnlyList<(double X, double Y)[]> rings)
    {
        if (rings.Count > 0)
            fills.Add(new Region(colour, rings));
    }

    private static (double X, double Y)[] Upright(double x, double from, double to, double width) =>
        Region.Box(x - width / 2, from, x + width / 2, to);

    private static (double X, double Y)[] Level(double y, double from, double to, double width) =>
        Region.Box(from, y - width / 2, to, y + width / 2);

    private void DrawScales(string[] names)
    {
        var across = Ticks.Step(range.Left, range.Right, (int)((right - left) / NumbersApart));
        var down = Ticks.Step(range.Bottom, range.Top, (int)((bottom - top) / RowsApart));
        var (columns, rows) = (Ticks.Of(range.Left, range.Right, across), Ticks.Of(range.Bottom, range.Top, down));
        foreach (var x in columns)
        {
            var label = Label.Of(Ticks.Words(x, across), Type);
            labels.Add((label, X(x) - label.Width / 2.0, bottom + 330, Axis));
        }

        foreach (var y in rows)
        {
            var label = Label.Of(Ticks.Words(y, down), Type);
            labels.Add((label, left - label.Width - 110, Y(y) + 95, Axis));
        }

        if (!Has(NoGrid))
            Fill(
                Grid,
                [.. columns.Select(x => Upright(X(x), top, bottom, GridWidth)), .. rows.Select(y => Level(Y(y), left, right, GridWidth))]
            );
        // The axes stand at 0 where that is seen, else at the edge.
        var (x0, y0) = (X(Math.Clamp(0, range.Left, range.Right)), Y(Math.Clamp(0, range.Bottom, range.Top)));
        Fill(Axis, [Level(y0, left, right, AxisWidth), Upright(x0, top, bottom, AxisWidth)]);
        if (names[0].Length > 0)
        {
            var label = Label.Of(names[0], Type);
            labels.Add((label, right - label.Width, y0 - 110, Axis));
        }

        if (names.Length > 1 && names[1].Length > 0)
            labels.Add((Label.Of(names[1], Type), x0 + 110, top + 90, Axis));
    }

    /// <param name="place">Its place among the curves.</param>
    /// <param name="curve">The curve.</param>
    /// <param name="heights">Receives what is a function of x alone.</param>
    private void DrawCurve(int place, PlotCurve curve, List<Func<double, double>> heights)
    {
        try
        {
            if (curve.Height(Has(Degrees)) is { } of)
            {
                heights.Add(of);
                DrawLine(of, curve.Colour, CurveWidth);
                return;
            }

            var pieces = ImplicitCurve.Of(curve.Off(Has(Degrees)), range);
            Fill(curve.Colour, [.. pieces.Select(piece => Lines.Band([At(piece.From), At(piece.To)], CurveWidth))]);
        }
        catch (FormulaException problem)
        {
            problems[place] = problem.Sentence.Told;
        }
    }

    private void DrawLine(Func<double, double> of, uint colour, double width) =>
        Fill(
            colour,
            [
                .. new CurveSampler(of, range, 0.0008)
                    .Lines()
                    .Select(line => line.ConvertAll(At))
                    .SelectMany(line => Lines.Within(line, (left, top, right, bottom)))
                    .Select(line => Lines.Band(line, width)),
            ]
        );

    private void DrawData(PlotData data)
    {
        if (Fit.Of(data.Fit, data.Points) is { } fit)
        {
            DrawLine(fit.At, (data.Colour & ~0xFFu) | FitAlpha, FitWidth);
            told.Add($"{fit.Words()}   R² = {Ticks.Number(fit.Share)}");
        }

        Fill(data.Colour, [.. data.Points.Where(range.Holds).Select(At).Select(at => Lines.Disc(at.X, at.Y, PointRadius))]);
    }

    private void DrawLandmarks(List<Func<double, double>> heights)
    {
        var found = new List<(double X, double Y)>();
        foreach (var of in heights)
        {
            found.AddRange(Landmarks.Zeros(of, range.Left, range.Right).Select(x => (x, 0.0)));
            found.AddRange(Landmarks.Turns(of, range.Left, range.Right).Select(x => (x, of(x))));
        }

        for (var one = 0; one < heights.Count; one++)
        {
            for (var other = one + 1; other < heights.Count; other++)
            {
                var (of, also) = (heights[one], heights[other]);
                found.AddRange(Landmarks.Zeros(x => of(x) - also(x), range.Left, range.Right).Select(x => (x, of(x))));
            }
        }

        var seen = found
            .Where(range.Holds)
            .DistinctBy(place => (Math.Round(X(place.X) / MarksApart), Math.Round(Y(place.Y) / MarksApart)))
            .Take(MostMarks)
            .ToList();
        Fill(Mark, [.. seen.Select(At).Select(at => Lines.Disc(at.X, at.Y, MarkRadius))]);
        foreach (var (x, y) in seen)
        {
            var label = Label.Of($"({Ticks.Number(Near(x, range.Width), 4)}; {Ticks.Number(Near(y, range.Height), 4)})", Type - 10);
            labels.Add((label, Math.Clamp(X(x) + 70, left, right - label.Width), Math.Max(Y(y) - 90, top + 200), Mark));
        }
    }

    /// <summary>What is 0 but for rounding is 0.</summary>
    private static double Near(double value, double of) => Math.Abs(value) < of * 1e-9 ? 0 : value;
}
