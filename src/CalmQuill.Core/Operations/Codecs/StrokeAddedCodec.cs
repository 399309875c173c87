using System.Text.Json;
using CalmQuill.Core.Ink;

namespace CalmQuill.Core.Operations.Codecs;

/// <summary>Samples stand in the columns of the batch; a pen and a layer are written where they differ from those of the stroke before.</summary>
internal sealed class StrokeAddedCodec() : ChangeCodec<Change.StrokeAdded>(ChangeKind.StrokeAdded)
{
    private const byte NewPen = 1,
        FancyPen = 2,
        NewLayer = 4;

    protected override void Write(BatchWriter batch, Change.StrokeAdded change)
    {
        var (pen, layer) = batch.Before;
        var penFlags =
            change.Pen == pen ? 0
            : change.Pen.IsPlain ? NewPen
            : NewPen | FancyPen;
        batch.Head.Byte((byte)(penFlags | (change.Layer == layer ? 0 : NewLayer)));
        if (penFlags != 0)
            Parts.WritePen(batch.Head, change.Pen, !change.Pen.IsPlain);
        if (change.Layer != layer)
            batch.Head.Guid(change.Layer);
        batch.Before = (change.Pen, change.Layer);
        // Most strokes are stamped when the pen is lifted, so this is next to nothing.
        batch.Head.Signed(change.StartedAt + change.Samples.Time[^1] - batch.Time.UnixMilliseconds);
        SampleCodec.Write(batch.Head, batch.Columns, change.Samples);
    }

    public override Change Read(ref BatchReader batch)
    {
        var news = batch.Head.Byte();
        if (news > (NewPen | FancyPen | NewLayer) || (news & (NewPen | FancyPen)) == FancyPen)
            throw new OperationFormatException("A pen is not well formed.");
        var (pen, layer) = batch.Before;
        if ((news & NewPen) != 0)
            pen = Parts.ReadPen(ref batch.Head, (news & FancyPen) != 0);
        if ((news & NewLayer) != 0)
            layer = batch.Head.Guid();
        batch.Before = (pen, layer);
        var ended = unchecked(batch.Time.UnixMilliseconds + batch.Head.Signed());
        var samples = SampleCodec.Read(ref batch.Head, ref batch.Columns);
        return new Change.StrokeAdded(pen, unchecked(ended - samples.Time[^1]), samples) { Layer = layer };
    }

    protected override void Write(Utf8JsonWriter json, Change.StrokeAdded change)
    {
        JsonParts.WritePen(json, change.Pen);
        if (change.Layer != Guid.Empty)
            json.WriteString("layer", change.Layer);
        json.WriteNumber("startedAt", change.StartedAt);
        foreach (var (name, values) in Channels(change.Samples))
            JsonParts.WriteNumbers(json, name, values);
    }

    public override Change Read(JsonElement json) =>
        new Change.StrokeAdded(JsonParts.ReadPen(json), json.GetProperty("startedAt").GetInt64(), ReadSamples(json))
        {
            Layer = JsonParts.LayerOf(json),
        };

    private static IEnumerable<(string Name, int[] Values)> Channels(StrokeSamples samples)
    {
        yield return ("x", samples.X);
        yield return ("y", samples.Y);
        yield return ("pressure", samples.Pressure);
        yield return ("t", samples.Time);
        if (samples.TiltX is null || samples.TiltY is null)
            yield break;
        yield return ("tiltX", samples.TiltX);
        yield return ("tiltY", samples.TiltY);
    }

    private static StrokeSamples ReadSamples(JsonElement json)
    {
        int[]? Channel(string name) =>
            json.TryGetProperty(name, out var values) ? [.. values.EnumerateArray().Select(value => value.GetInt32())] : null;
        return new StrokeSamples(
            Channel("x") ?? [],
            Channel("y") ?? [],
            Channel("pressure") ?? [],
            Channel("t") ?? [],
            Channel("tiltX"),
            Channel("tiltY")
        );
    }
}
