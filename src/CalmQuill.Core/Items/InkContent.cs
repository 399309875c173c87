using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;

namespace CalmQuill.Core.Items;

/// <summary>What was written by hand: a stroke.</summary>
public sealed class InkContent(IItemFrame frame, Change.StrokeAdded made) : LineContent(frame, made.Pen)
{
    private const int MostTime = 60_000;

    public override ItemKinds Kind => Pen.LiesBehind ? ItemKinds.Highlighter : ItemKinds.Ink;

    public override int Rank => Pen.LiesBehind ? 1 : 2;

    protected override StrokeSamples Made => made.Samples;

    public override int MadeWithin => Math.Clamp(made.Samples.Time[^1], 1, MostTime);

    /// <summary>By the samples' own time.</summary>
    protected override int EndAfter(int after, int takes)
    {
        var time = made.Samples.Time;
        if (time[^1] <= 0)
            return base.EndAfter(after, takes);
        var i = 0;
        while (i + 1 < time.Length && time[i + 1] <= after)
            i++;
        var end = i * Interval.PerSample;
        if (i + 1 < time.Length && time[i + 1] > time[i])
            end += (int)((after - (long)time[i]) * Interval.PerSample / (time[i + 1] - time[i]));
        return end;
    }

    public override Change.ItemAdded Copy() => new Change.StrokeAdded(Kept, Frame.StartedAt, Lying());
}
