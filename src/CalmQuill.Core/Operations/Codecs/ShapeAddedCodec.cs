using System.Text.Json;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Shapes;

namespace CalmQuill.Core.Operations.Codecs;

/// <summary>Where pressures follow a shape's points, its kind says so.</summary>
internal sealed class ShapeAddedCodec() : ChangeCodec<Change.ShapeAdded>(ChangeKind.ShapeAdded)
{
    private const byte WithPressure = 0x80;

    protected override void Write(BatchWriter batch, Change.ShapeAdded change)
    {
        batch.Head.Byte((byte)((int)change.Shape.Kind | (change.Shape.Pressure.Count > 0 ? WithPressure : 0)));
        batch.Head.Varint((ulong)change.Shape.Detail);
        batch.Head.Varint((ulong)change.Shape.Points.Count);
        Parts.WriteCorners(batch.Head, change.Shape.Points);
        if (change.Shape.Pressure.Count > 0)
        {
            batch.Head.Varint((ulong)change.Shape.Pressure.Count);
            foreach (var pressure in change.Shape.Pressure)
                batch.Head.Varint((ulong)pressure);
        }

        Parts.WritePen(batch.Head, change.Pen, true);
        batch.Head.Fixed32(change.Fill);
        batch.Head.Guid(change.Layer);
        Parts.WriteIds(batch.Head, change.Replaces);
    }

    public override Change Read(ref BatchReader batch)
    {
        var shapeKind = batch.Head.Byte();
        var detail = (int)Math.Min(batch.Head.Varint(), int.MaxValue);
        var shape = new Shape((ShapeKind)(shapeKind & ~WithPressure), Parts.ReadCorners(ref batch.Head), detail)
        {
            Pressure = (shapeKind & WithPressure) != 0 ? Parts.ReadPressures(ref batch.Head) : [],
        };
        var pen = Parts.ReadPen(ref batch.Head, true);
        var fill = batch.Head.Fixed32();
        var layer = batch.Head.Guid();
        return new Change.ShapeAdded(shape, pen, fill, Parts.ReadIds(ref batch.Head)) { Layer = layer };
    }

    protected override void Write(Utf8JsonWriter json, Change.ShapeAdded change)
    {
        json.WriteString("shape", change.Shape.Kind.ToString());
        json.WriteNumber("detail", change.Shape.Detail);
        JsonParts.WriteNumbers(json, "points", change.Shape.Points.SelectMany(point => new[] { point.X, point.Y }));
        if (change.Shape.Pressure.Count > 0)
            JsonParts.WriteNumbers(json, "pressure", change.Shape.Pressure);
        JsonParts.WritePen(json, change.Pen);
        json.WriteString("fill", JsonParts.Hex(change.Fill));
        if (change.Layer != Guid.Empty)
            json.WriteString("layer", change.Layer);
        JsonParts.WriteItems(json, change.Replaces, "replaces");
    }

    public override Change Read(JsonElement json) =>
        new Change.ShapeAdded(
            new Shape(
                Enum.Parse<ShapeKind>(JsonParts.Text(json, "shape")),
                [.. JsonParts.Pairs(json.GetProperty("points")).Select(pair => new Corner(pair.Start, pair.End))],
                json.GetProperty("detail").GetInt32()
            )
            {
                Pressure = json.TryGetProperty("pressure", out var pressure)
                    ? [.. pressure.EnumerateArray().Select(one => one.GetInt32())]
                    : [],
            },
            JsonParts.ReadPen(json),
            JsonParts.UnHex(JsonParts.Text(json, "fill")),
            JsonParts.ReadItems(json, "replaces")
        )
        {
            Layer = JsonParts.LayerOf(json),
        };
}
