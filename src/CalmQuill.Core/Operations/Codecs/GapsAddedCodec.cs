using System.Text.Json;
using CalmQuill.Core.Ink;

namespace CalmQuill.Core.Operations.Codecs;

internal sealed class GapsAddedCodec() : ChangeCodec<Change.GapsAdded>(ChangeKind.GapsAdded)
{
    protected override void Write(BatchWriter batch, Change.GapsAdded change)
    {
        Parts.WriteIds(batch.Head, change.Strokes.Select(stroke => stroke.Stroke).ToList());
        foreach (var stroke in change.Strokes)
            Parts.WriteIntervals(batch.Head, stroke.Intervals);
    }

    public override Change Read(ref BatchReader batch)
    {
        var gaps = Parts.ReadIds(ref batch.Head).Select(id => new StrokeGaps(id, [])).ToArray();
        for (var i = 0; i < gaps.Length; i++)
            gaps[i] = gaps[i] with { Intervals = Parts.ReadIntervals(ref batch.Head) };
        return new Change.GapsAdded(gaps);
    }

    protected override void Write(Utf8JsonWriter json, Change.GapsAdded change)
    {
        json.WriteStartObject("gaps");
        foreach (var stroke in change.Strokes)
            JsonParts.WriteNumbers(
                json,
                stroke.Stroke.ToString(),
                stroke.Intervals.SelectMany(interval => new[] { interval.Start, interval.End })
            );
        json.WriteEndObject();
    }

    public override Change Read(JsonElement json) =>
        new Change.GapsAdded([
            .. json.GetProperty("gaps")
                .EnumerateObject()
                .Select(stroke => new StrokeGaps(OpId.Parse(stroke.Name), [.. JsonParts.Pairs(stroke.Value)])),
        ]);
}
