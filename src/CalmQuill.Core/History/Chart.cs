using CalmQuill.Core.Operations;
using CalmQuill.Core.Ordering;

namespace CalmQuill.Core.History;

/// <summary>
/// A bar of time, as a chart recorder would draw it: within a sitting time runs evenly, and between sittings, where nothing was done, the paper hardly moves
/// on. It
/// runs from 0 to 1.
/// </summary>
public sealed class Chart
{
    /// <summary>How many columns the deeds of a chart are gathered in, so that it is as quickly drawn of a million as of ten.</summary>
    public const int Columns = 360;

    /// <summary>After a pause of so long another sitting begins, milliseconds; longer where there would be too many.</summary>
    private const long UsualPause = 20 * 60_000;

    private const int MostSittings = 48;

    /// <summary>The share of the whole that the gaps between sittings take together at most, and one of them.</summary>
    private const double MostGaps = 0.25,
        MostGap = 0.02;

    private readonly List<Sitting> sittings;

    private Chart(List<Sitting> sittings, List<Stroke> strokes) => (this.sittings, Strokes) = (sittings, strokes);

    /// <summary>A bar that was worked out elsewhere, to go by; who did what is not on it.</summary>
    public Chart(IEnumerable<Sitting> sittings)
        : this([.. sittings], []) { }

    /// <summary>Something that was done.</summary>
    /// <param name="At">When, UTC milliseconds since 1970.</param>
    /// <param name="Person">By whom.</param>
    /// <param name="Deed">What.</param>
    /// <param name="Things">To how many things.</param>
    public readonly record struct Entry(long At, Guid Person, Deed Deed, long Things)
    {
        /// <summary>When it began, where it is told of a time and not of a moment.</summary>
        public long From { get; init; } = At;
    }

    /// <summary>A time in which something was done again and again.</summary>
    /// <param name="From">Its first deed, UTC milliseconds since 1970.</param>
    /// <param name="To">Its last.</param>
    /// <param name="Left">Where it begins on the bar.</param>
    /// <param name="Right">Where it ends.</param>
    public readonly record struct Sitting(long From, long To, double Left, double Right);

    /// <summary>What one person did within one column, of one kind.</summary>
    public readonly record struct Stroke(int Column, Guid Person, Deed Deed, long Things);

    public IReadOnlyList<Sitting> Sittings => sittings;

    /// <summary>All that was done, by columns.</summary>
    public IReadOnlyList<Stroke> Strokes { get; }

    /// <summary>Who did any of it, each once.</summary>
    public List<Guid> People => [.. Strokes.Select(stroke => stroke.Person).Distinct()];

    /// <summary>The bar of what was done in one document, from its operations in the order of their stamps.</summary>
    public static Chart OfDocument(IEnumerable<Operation> operations)
    {
        var entries = new List<Entry>();
        foreach (var operation in operations)
        {
            if (Deeds.Of(operation.Change, operation.Change is Change.NodePlaced) is var (deed, things))
                entries.Add(new Entry(operation.Time.UnixMilliseconds, operation.Author, deed, things));
        }

        return Of(entries);
    }

    /// <param name="entries">What was done, in the order in which it began.</param>
    public static Chart Of(IReadOnlyList<Entry> entries)
    {
        var spans = Spans(entries);
        var gap = spans.Count > 1 ? Math.Min(MostGap, MostGaps / (spans.Count - 1)) : 0;
        // Where much was done there is room to look at it, and a single stroke is seen too.
        var weights = spans.ConvertAll(span => 0.5 + Math.Sqrt(span.Count));
        var share = (1 - gap * (spans.Count - 1)) / Math.Max(1, weights.Sum());
        var sittings = new List<Sitting>();
        double left = 0;
        for (var i = 0; i < spans.Count; i++)
        {
            var right = i == spans.Count - 1 ? 1 : left + weights[i] * share;
            sittings.Add(new Sitting(spans[i].From, spans[i].To, left, right));
            left = right + gap;
        }

        var chart = new Chart(sittings, []);
        var strokes = entries
            .GroupBy(entry => (Column: Math.Min(Columns - 1, (int)(chart.PositionOf(entry.At) * Columns)), entry.Person, entry.Deed))
            .Select(one => new Stroke(one.Key.Column, one.Key.Person, one.Key.Deed, one.Sum(entry => entry.Things)))
            .OrderBy(stroke => stroke.Column);
        return new Chart(sittings, [.. strokes]);
    }

    /// <summary>Where a time stands on the bar.</summary>
    public double PositionOf(long at)
    {
        if (sittings.Count == 0 || at < sittings[0].From)
            return 0;
        var sitting = sittings[LastWhere(one => one.From <= at)];
        // One that is but a moment has all its width before it.
        return at >= sitting.To
            ? sitting.Right
            : sitting.Left + (sitting.Right - sitting.Left) * (at - sitting.From) / (sitting.To - sitting.From);
    }

    /// <summary>The time at a place of the bar; before all at its very beginning.</summary>
    public long TimeAt(double position)
    {
        if (sittings.Count == 0)
            return 0;
        if (position <= 0)
            return sittings[0].From - 1;
        var sitting = sittings[Math.Max(0, LastWhere(one => one.Left <= position))];
        return position >= sitting.Right
            ? sitting.To
            : sitting.From + (long)((sitting.To - sitting.From) * (position - sitting.Left) / (sitting.Right - sitting.Left));
    }

    /// <summary>The end of the sitting before a time or after it; before all, or the last deed of all, where there is none.</summary>
    public long Beside(long at, bool later)
    {
        if (sittings.Count == 0)
            return 0;
        // They follow each other, and so do their ends.
        var next = later ? LastWhere(one => one.To <= at) + 1 : LastWhere(one => one.To < at);
        return next < 0 ? sittings[0].From - 1 : sittings[Math.Min(next, sittings.Count - 1)].To;
    }

    private int LastWhere(Predicate<Sitting> holds) => sittings.CountWhile(holds) - 1;

    private static List<(long From, long To, int Count)> Spans(IReadOnlyList<Entry> entries)
    {
        var pause = UsualPause;
        var spans = Spans(entries, pause);
        while (spans.Count > MostSittings)
            spans = Spans(entries, pause *= 2);
        return spans;
    }

    private static List<(long From, long To, int Count)> Spans(IReadOnlyList<Entry> entries, long pause)
    {
        var spans = new List<(long From, long To, int Count)>();
        foreach (var entry in entries)
        {
            if (spans.Count > 0 && entry.From - spans[^1].To <= pause)
                spans[^1] = spans[^1] with { To = Math.Max(spans[^1].To, entry.At), Count = spans[^1].Count + 1 };
            else
                spans.Add((entry.From, entry.At, 1));
        }

        return spans;
    }
}
