using System.Globalization;
using System.Text.Json;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Layers;
using CalmQuill.Core.Library;
using CalmQuill.Core.Shapes;
using CalmQuill.Core.Spots;

namespace CalmQuill.Core.Operations;

/// <summary>Operations as JSON, for people and for the open archive. Says the same as the binary codec; see docs/operations.md.</summary>
public static class OperationJson
{
    public static void Write(Utf8JsonWriter json, Operation operation)
    {
        json.WriteStartObject();
        json.WriteString("id", operation.Id.ToString());
        json.WriteNumber("time", operation.Time.UnixMilliseconds);
        json.WriteNumber("logical", operation.Time.Logical);
        json.WriteString("author", operation.Author);
        json.WriteString("kind", operation.Change.Kind.ToString());
        WriteChange(json, operation.Change);
        json.WriteEndObject();
    }

    /// <exception cref="OperationFormatException">The JSON is not an operation.</exception>
    public static Operation Read(JsonElement json)
    {
        try
        {
            var time = Hlc.At(json.GetProperty("time").GetInt64(), json.GetProperty("logical").GetInt32());
            if (!Enum.TryParse<ChangeKind>(Text(json, "kind"), out var kind))
                throw new OperationFormatException($"The kind “{Text(json, "kind")}” is not known here.");
            return new Operation(OpId.Parse(Text(json, "id")), time, json.GetProperty("author").GetGuid(), ReadChange(json, kind));
        }
        catch (Exception problem)
            when (problem
                    is KeyNotFoundException
                        or InvalidOperationException
                        or FormatException
                        or ArgumentException
                        or IndexOutOfRangeException
            )
        {
            throw problem as OperationFormatException
                ?? new OperationFormatException("The JSON is not an operation: " + problem.Message, problem);
        }
    }

    private static void WriteChange(Utf8JsonWriter json, Change change)
    {
        switch (change)
        {
            case Change.NodePlaced placed:
                json.WriteString("node", placed.Node);
                json.WriteString("nodeKind", placed.NodeKind.ToString());
                json.WriteString("parent", placed.Parent);
                json.WriteString("order", placed.Order);
                break;
            case Change.PropertySet set:
                json.WriteString("target", set.Target);
                json.WriteString("property", set.Property.ToString());
                json.WriteString("value", set.Value);
                break;
            case Change.PageAdded added:
                json.WriteString("page", added.Page);
                json.WriteString("order", added.Order);
                json.WriteString("paper", added.Paper);
                break;
            case Change.OrdersSet set:
                json.WriteStartObject("orders");
                foreach (var (node, order) in set.Orders)
                    json.WriteString(node.ToString(), order);
                json.WriteEndObject();
                break;
            case Change.StrokeAdded stroke:
                WritePen(json, stroke.Pen);
                if (stroke.Layer != Guid.Empty)
                    json.WriteString("layer", stroke.Layer);
                json.WriteNumber("startedAt", stroke.StartedAt);
                foreach (var (name, values) in Channels(stroke.Samples))
                    Numbers(json, name, values);
                break;
            case Change.ItemsRemoved removed:
                Items(json, removed.Items);
                break;
            case Change.ItemsShifted shifted:
                Items(json, shifted.Items);
                json.WriteNumber("dx", shifted.Dx);
                json.WriteNumber("dy", shifted.Dy);
                break;
            case Change.GapsAdded gaps:
                json.WriteStartObject("gaps");
                foreach (var stroke in gaps.Strokes)
                    Numbers(
                        json,
                        stroke.Stroke.ToString(),
                        stroke.Intervals.SelectMany(interval => new[] { interval.Start, interval.End })
                    );
                json.WriteEndObject();
                break;
            case Change.EffectSet effect:
                json.WriteString("target", effect.Target.ToString());
                json.WriteBoolean("active", effect.Active);
                break;
            case Change.TagSet tag:
                json.WriteString("target", tag.Target);
                json.WriteString("tag", tag.Tag);
                json.WriteBoolean("on", tag.On);
                break;
            case Change.Visited visited:
                json.WriteString("space", visited.Space);
                json.WriteString("target", visited.Target);
                break;
            case Change.SpotAdded spot:
                json.WriteString("spot", spot.Spot);
                json.WriteString("spotKind", spot.SpotKind.ToString());
                Numbers(json, "area", [spot.Area.Left, spot.Area.Top, spot.Area.Right, spot.Area.Bottom]);
                Items(json, spot.Items);
                Values(json, spot.Values);
                break;
            case Change.SpotSet spot:
                json.WriteString("spot", spot.Spot);
                Values(json, spot.Values);
                break;
            case Change.ItemsTransformed transformed:
                Items(json, transformed.Items);
                json.WriteStartArray("spots");
                foreach (var spot in transformed.Spots)
                    json.WriteStringValue(spot);
                json.WriteEndArray();
                var (a, b, c, d, e, f) = transformed.Transform;
                Numbers(json, "transform", [a, b, c, d, e, f]);
                break;
            case Change.ShapeAdded shape:
                json.WriteString("shape", shape.Shape.Kind.ToString());
                json.WriteNumber("detail", shape.Shape.Detail);
                Numbers(json, "points", shape.Shape.Points.SelectMany(point => new[] { point.X, point.Y }));
                if (shape.Shape.Pressure.Count > 0)
                    Numbers(json, "pressure", shape.Shape.Pressure);
                WritePen(json, shape.Pen);
                json.WriteString("fill", Hex(shape.Fill));
                if (shape.Layer != Guid.Empty)
                    json.WriteString("layer", shape.Layer);
                Items(json, shape.Replaces, "replaces");
                break;
            case Change.ItemsSet set:
                Items(json, set.Items);
                json.WriteStartObject("values");
                foreach (var (field, value) in set.Values)
                    json.WriteString(field.ToString(), value);
                json.WriteEndObject();
                break;
            case Change.LayerSet set:
                json.WriteString("layer", set.Layer);
                json.WriteStartObject("values");
                foreach (var (field, value) in set.Values)
                    json.WriteString(field.ToString(), value);
                json.WriteEndObject();
                break;
            case Change.StepsJoined joined:
                Items(json, joined.Steps, "steps");
                break;
        }
    }

    private static Change ReadChange(JsonElement json, ChangeKind kind) =>
        kind switch
        {
            ChangeKind.NodePlaced => new Change.NodePlaced(
                json.GetProperty("node").GetGuid(),
                Enum.Parse<NodeKind>(Text(json, "nodeKind")),
                json.GetProperty("parent").GetGuid(),
                Text(json, "order")
            ),
            ChangeKind.PropertySet => new Change.PropertySet(
                json.GetProperty("target").GetGuid(),
                Enum.Parse<Property>(Text(json, "property")),
                Text(json, "value")
            ),
            ChangeKind.PageAdded => new Change.PageAdded(json.GetProperty("page").GetGuid(), Text(json, "order"), Text(json, "paper")),
            ChangeKind.OrdersSet => new Change.OrdersSet([
                .. json.GetProperty("orders")
                    .EnumerateObject()
                    .Select(one => new NodeOrder(Guid.Parse(one.Name), one.Value.GetString() ?? "")),
            ]),
            ChangeKind.StrokeAdded => new Change.StrokeAdded(ReadPen(json), json.GetProperty("startedAt").GetInt64(), ReadSamples(json))
            {
                Layer = LayerOf(json),
            },
            ChangeKind.ItemsRemoved => new Change.ItemsRemoved(ReadItems(json)),
            ChangeKind.ItemsShifted => new Change.ItemsShifted(
                ReadItems(json),
                json.GetProperty("dx").GetInt32(),
                json.GetProperty("dy").GetInt32()
            ),
            ChangeKind.GapsAdded => new Change.GapsAdded([
                .. json.GetProperty("gaps")
                    .EnumerateObject()
                    .Select(stroke => new StrokeGaps(OpId.Parse(stroke.Name), [.. Pairs(stroke.Value)])),
            ]),
            ChangeKind.EffectSet => new Change.EffectSet(OpId.Parse(Text(json, "target")), json.GetProperty("active").GetBoolean()),
            ChangeKind.TagSet => new Change.TagSet(
                json.GetProperty("target").GetGuid(),
                json.GetProperty("tag").GetGuid(),
                json.GetProperty("on").GetBoolean()
            ),
            ChangeKind.Visited => new Change.Visited(json.GetProperty("space").GetGuid(), json.GetProperty("target").GetGuid()),
            ChangeKind.SpotAdded => new Change.SpotAdded(
                json.GetProperty("spot").GetGuid(),
                Enum.Parse<SpotKind>(Text(json, "spotKind")),
                BoxOf(json.GetProperty("area")),
                ReadItems(json),
                ReadValues(json)
            ),
            ChangeKind.SpotSet => new Change.SpotSet(json.GetProperty("spot").GetGuid(), ReadValues(json)),
            ChangeKind.ItemsTransformed => new Change.ItemsTransformed(
                ReadItems(json),
                [.. json.GetProperty("spots").EnumerateArray().Select(spot => spot.GetGuid())],
                TransformOf(json.GetProperty("transform"))
            ),
            ChangeKind.ShapeAdded => new Change.ShapeAdded(
                new Shape(
                    Enum.Parse<ShapeKind>(Text(json, "shape")),
                    [.. Pairs(json.GetProperty("points")).Select(pair => new Corner(pair.Start, pair.End))],
                    json.GetProperty("detail").GetInt32()
                )
                {
                    Pressure = json.TryGetProperty("pressure", out var pressure)
                        ? [.. pressure.EnumerateArray().Select(one => one.GetInt32())]
                        : [],
                },
                ReadPen(json),
                UnHex(Text(json, "fill")),
                ReadItems(json, "replaces")
            )
            {
                Layer = LayerOf(json),
            },
            ChangeKind.ItemsSet => new Change.ItemsSet(
                ReadItems(json),
                [
                    .. json.GetProperty("values")
                        .EnumerateObject()
                        .Select(value => new ItemValue(Enum.Parse<ItemField>(value.Name), value.Value.GetString() ?? "")),
                ]
            ),
            ChangeKind.LayerSet => new Change.LayerSet(
                LayerOf(json),
                [
                    .. json.GetProperty("values")
                        .EnumerateObject()
                        .Select(value => new LayerValue(Enum.Parse<LayerField>(value.Name), value.Value.GetString() ?? "")),
                ]
            ),
            ChangeKind.StepsJoined => new Change.StepsJoined(ReadItems(json, "steps")),
            _ => throw new OperationFormatException($"The kind {kind} has no JSON form."),
        };

    private static void WritePen(Utf8JsonWriter json, Pen pen)
    {
        json.WriteString("pen", pen.Kind.ToString());
        json.WriteNumber("width", pen.Width);
        json.WriteString("colour", Hex(pen.Colour));
        if (pen.Line != LineStyle.Solid)
            json.WriteString("line", pen.Line.ToString());
        if (pen.Tip != NibTip.Round)
            json.WriteString("tip", pen.Tip.ToString());
        if (pen.Angle != 0)
            json.WriteNumber("angle", pen.Angle);
        if (pen.Response != 0)
            json.WriteNumber("response", pen.Response);
    }

    private static Pen ReadPen(JsonElement json) =>
        new(Enum.Parse<PenKind>(Text(json, "pen")), json.GetProperty("width").GetInt32(), UnHex(Text(json, "colour")))
        {
            Line = json.TryGetProperty("line", out var line) ? Enum.Parse<LineStyle>(line.GetString()!) : LineStyle.Solid,
            Tip = json.TryGetProperty("tip", out var tip) ? Enum.Parse<NibTip>(tip.GetString()!) : NibTip.Round,
            Angle = json.TryGetProperty("angle", out var angle) ? angle.GetInt32() : 0,
            Response = json.TryGetProperty("response", out var response) ? response.GetInt32() : 0,
        };

    private static Guid LayerOf(JsonElement json) => json.TryGetProperty("layer", out var layer) ? layer.GetGuid() : Guid.Empty;

    private static string Hex(uint colour) => "#" + colour.ToString("x8", CultureInfo.InvariantCulture);

    private static uint UnHex(string colour) => uint.Parse(colour.AsSpan(1), NumberStyles.HexNumber, CultureInfo.InvariantCulture);

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

    private static void Values(Utf8JsonWriter json, IReadOnlyList<SpotValue> values)
    {
        json.WriteStartObject("values");
        foreach (var value in values)
            json.WriteString(value.Field.ToString(), value.Value);
        json.WriteEndObject();
    }

    private static SpotValue[] ReadValues(JsonElement json) =>
        [
            .. json.GetProperty("values")
                .EnumerateObject()
                .Select(value => new SpotValue(Enum.Parse<SpotField>(value.Name), value.Value.GetString() ?? "")),
        ];

    private static Box BoxOf(JsonElement json) => new(json[0].GetInt32(), json[1].GetInt32(), json[2].GetInt32(), json[3].GetInt32());

    private static Transform TransformOf(JsonElement json) =>
        new(json[0].GetInt32(), json[1].GetInt32(), json[2].GetInt32(), json[3].GetInt32(), json[4].GetInt32(), json[5].GetInt32());

    private static IEnumerable<Interval> Pairs(JsonElement values)
    {
        var numbers = values.EnumerateArray().Select(value => value.GetInt32()).ToArray();
        for (var i = 0; i + 1 < numbers.Length; i += 2)
            yield return new Interval(numbers[i], numbers[i + 1]);
    }

    private static void Items(Utf8JsonWriter json, IReadOnlyList<OpId> items, string name = "items")
    {
        json.WriteStartArray(name);
        foreach (var item in items)
            json.WriteStringValue(item.ToString());
        json.WriteEndArray();
    }

    private static OpId[] ReadItems(JsonElement json, string name = "items") =>
        [.. json.GetProperty(name).EnumerateArray().Select(item => OpId.Parse(item.GetString()!))];

    private static void Numbers(Utf8JsonWriter json, string name, IEnumerable<int> values)
    {
        json.WriteStartArray(name);
        foreach (var value in values)
            json.WriteNumberValue(value);
        json.WriteEndArray();
    }

    private static string Text(JsonElement json, string name) => json.GetProperty(name).GetString() ?? "";
}
