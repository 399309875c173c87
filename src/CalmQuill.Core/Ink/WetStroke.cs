namespace CalmQuill.Core.Ink;

/// <summary>A stroke while it is written: steadied as wished, and outlined piece by piece, so that each sample is painted as it comes.</summary>
/// <param name="pen">What it is written with.</param>
/// <param name="stabilising">0 to 100; see <see cref="Stabiliser"/>.</param>
public sealed class WetStroke(Pen pen, int stabilising)
{
    /// <summary>So many spans before the last are drawn again as a sample comes, since their curve depends on it: whether a sample is a corner, the one after the next can tell.</summary>
    private const int Again = 3;

    /// <summary>A piece is drawn with so many samples before it, so that its curve is the one that the whole stroke will have.</summary>
    private const int Before = Again + 2;

    private readonly Stabiliser stabiliser = new(stabilising);
    private readonly StrokeOutliner outliner = new() { OpenEnd = true };
    private readonly List<int> x = [],
        y = [],
        pressure = [],
        time = [],
        tiltX = [],
        tiltY = [];
    private int outlined;
    private bool tilted;

    public Pen Pen => pen;

    public int Count => x.Count;

    /// <summary>How densely the paper's grain is covered, by what is written so far; see <see cref="PencilGrain"/>.</summary>
    public int Grain =>
        pen.Kind != PenKind.Pencil || Count == 0
            ? PencilGrain.Levels - 1
            : PencilGrain.LevelOf(pen.Pressed((int)(pressedInAll / Count)), Nib.Lean(tiltX[Count / 2], tiltY[Count / 2]));

    private long pressedInAll;

    /// <summary>Takes a sample as the pen reports it. Time never runs backwards: a sample out of turn stands at the time of the one before.</summary>
    public void Add(int penX, int penY, int pressed, int at, int leanX, int leanY)
    {
        if (Count >= StrokeSamples.MostSamples)
            return;
        var when = Count == 0 ? Math.Max(0, at) : Math.Max(time[^1], at);
        var (px, py) = stabiliser.Follow(penX, penY, when);
        Push(px, py, pressed, when, leanX, leanY);
    }

    /// <summary>The pen was lifted: the line arrives where it was.</summary>
    public void End()
    {
        if (Count == 0)
            return;
        foreach (var (px, py) in stabiliser.Arrive().ToList())
        {
            if (Count < StrokeSamples.MostSamples)
                Push(px, py, pressure[^1], time[^1] + 1, tiltX[^1], tiltY[^1]);
        }
    }

    /// <summary>Adds the outline of what has come since the last call.</summary>
    public void OutlineNews(Outline outline)
    {
        if (outlined >= Count)
            return;
        // A broken line is measured from its start.
        var from = pen.Line == LineStyle.Solid ? Math.Max(0, outlined - Before) : 0;
        var piece = ToSamples(from);
        var start = Math.Max(0, outlined - Again - from) * Interval.PerSample;
        outliner.Append(piece, [new Interval(start, (piece.Count - 1) * Interval.PerSample)], pen, 0, 0, outline);
        outlined = Count;
    }

    /// <summary>The samples, steadied, from one on.</summary>
    /// <exception cref="InvalidOperationException">There are none.</exception>
    public StrokeSamples ToSamples(int from = 0)
    {
        if (Count == 0)
            throw new InvalidOperationException("A stroke needs at least one sample.");
        int[] Part(List<int> all) => [.. System.Runtime.InteropServices.CollectionsMarshal.AsSpan(all)[from..]];
        return tilted
            ? new StrokeSamples(Part(x), Part(y), Part(pressure), Part(time), Part(tiltX), Part(tiltY))
            : new StrokeSamples(Part(x), Part(y), Part(pressure), Part(time));
    }

    private void Push(int px, int py, int pressed, int when, int leanX, int leanY)
    {
        x.Add(Math.Clamp(px, -StrokeSamples.MostCoordinate, StrokeSamples.MostCoordinate));
        y.Add(Math.Clamp(py, -StrokeSamples.MostCoordinate, StrokeSamples.MostCoordinate));
        pressure.Add(Math.Clamp(pressed, 0, StrokeSamples.MostPressure));
        pressedInAll += pressure[^1];
        time.Add(when);
        tiltX.Add(leanX);
        tiltY.Add(leanY);
        tilted |= leanX != 0 || leanY != 0;
    }
}
