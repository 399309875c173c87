using System.Text;
using System.Text.Json;

namespace CalmQuill.Core.Browser;

/// <summary>Lists and objects handed to script as JSON text.</summary>
internal static class Json
{
    public static string List<T>(IEnumerable<T> items, Action<Utf8JsonWriter, T> write) => Text(json => List(json, items, write));

    /// <summary>The corners of what lies behind letters, line by line, x and y in turn, as <c>corners</c>.</summary>
    public static void Corners(Utf8JsonWriter json, IEnumerable<(double X, double Y)[]> lines)
    {
        json.WritePropertyName("corners");
        List(
            json,
            lines,
            (writer, corners) =>
            {
                writer.WriteStartArray();
                foreach (var (x, y) in corners)
                {
                    writer.WriteNumberValue(x);
                    writer.WriteNumberValue(y);
                }

                writer.WriteEndArray();
            }
        );
    }

    public static void List<T>(Utf8JsonWriter json, IEnumerable<T> items, Action<Utf8JsonWriter, T> write)
    {
        json.WriteStartArray();
        foreach (var item in items)
            write(json, item);
        json.WriteEndArray();
    }

    public static string Text(Action<Utf8JsonWriter> write)
    {
        using var stream = new MemoryStream();
        using (var json = new Utf8JsonWriter(stream))
            write(json);
        return Encoding.UTF8.GetString(stream.GetBuffer(), 0, (int)stream.Length);
    }

    public static void Numbers(Utf8JsonWriter json, string name, IEnumerable<double> numbers)
    {
        json.WriteStartArray(name);
        foreach (var number in numbers)
            json.WriteNumberValue(number);
        json.WriteEndArray();
    }

    public static void Ids(Utf8JsonWriter json, string name, IEnumerable<Guid> ids)
    {
        json.WriteStartArray(name);
        foreach (var id in ids)
            json.WriteStringValue(id);
        json.WriteEndArray();
    }
}
