using System.Globalization;
using System.Text.Json;
using CalmQuill.Core.Ink;

namespace CalmQuill.Core.Operations.Codecs;

/// <summary>What several kinds of change hold, as JSON.</summary>
internal static class JsonParts
{
    public static void WritePen(Utf8JsonWriter json, Pen pen)
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

    public static Pen ReadPen(JsonElement json) =>
        new(Enum.Parse<PenKind>(Text(json, "pen")), json.GetProperty("width").GetInt32(), UnHex(Text(json, "colour")))
        {
            Line = json.TryGetProperty("line", out var line) ? Enum.Parse<LineStyle>(line.GetString()!) : LineStyle.Solid,
            Tip = json.TryGetProperty("tip", out var tip) ? Enum.Parse<NibTip>(tip.GetString()!) : NibTip.Round,
            Angle = json.TryGetProperty("angle", out var angle) ? angle.GetInt32() : 0,
            Response = json.TryGetProperty("response", out var response) ? response.GetInt32() : 0,
        };

    public static Guid LayerOf(JsonElement json) => json.TryGetProperty("layer", out var layer) ? layer.GetGuid() : Guid.Empty;

    public static string Hex(uint colour) => "#" + colour.ToString("x8", CultureInfo.InvariantCulture);

    public static uint UnHex(string colour) => uint.Parse(colour.AsSpan(1), NumberStyles.HexNumber, CultureInfo.InvariantCulture);

    public static IEnumerable<Interval> Pairs(JsonElement values)
    {
        var numbers = values.EnumerateArray().Select(value => value.GetInt32()).ToArray();
        for (var i = 0; i + 1 < numbers.Length; i += 2)
            yield return new Interval(numbers[i], numbers[i + 1]);
    }

    public static void WriteItems(Utf8JsonWriter json, IReadOnlyList<OpId> items, string name = "items")
    {
        json.WriteStartArray(name);
        foreach (var item in items)
            json.WriteStringValue(item.ToString());
        json.WriteEndArray();
    }

    public static OpId[] ReadItems(JsonElement json, string name = "items") =>
        [.. json.GetProperty(name).EnumerateArray().Select(item => OpId.Parse(item.GetString()!))];

    public static void WriteNumbers(Utf8JsonWriter json, string name, IEnumerable<int> values)
    {
        json.WriteStartArray(name);
        foreach (var value in values)
            json.WriteNumberValue(value);
        json.WriteEndArray();
    }

    public static void WriteTransform(Utf8JsonWriter json, Transform transform)
    {
        var (a, b, c, d, e, f) = transform;
        WriteNumbers(json, "transform", [a, b, c, d, e, f]);
    }

    public static Transform ReadTransform(JsonElement json)
    {
        var numbers = json.GetProperty("transform");
        return new(
            numbers[0].GetInt32(),
            numbers[1].GetInt32(),
            numbers[2].GetInt32(),
            numbers[3].GetInt32(),
            numbers[4].GetInt32(),
            numbers[5].GetInt32()
        );
    }

    public static string Text(JsonElement json, string name) => json.GetProperty(name).GetString() ?? "";
}
