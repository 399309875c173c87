using System.Runtime.CompilerServices;
using System.Text.Json;

namespace CalmQuill.Core.Operations.Codecs;

/// <summary>What is written into the fields of a thing, in both forms: each field by its number and a text, or as an object by their names.</summary>
/// <typeparam name="TField">The fields, numbered in a byte.</typeparam>
/// <typeparam name="T">A field and what is written into it.</typeparam>
internal sealed class FieldsCodec<TField, T>(
    IReadOnlyDictionary<TField, TextRule> rules,
    Func<TField, string, T> of,
    Func<T, (TField Field, string Value)> parts
)
    where TField : struct, Enum
{
    public void Write(ByteWriter writer, IReadOnlyList<T> values)
    {
        writer.Varint((ulong)values.Count);
        foreach (var (field, value) in values.Select(parts))
        {
            writer.Byte(Unsafe.BitCast<TField, byte>(field));
            writer.Text(value);
        }
    }

    /// <summary>Values, each as long as its field's rule lets it be; a field that is not known here may be of a later version.</summary>
    public T[] Read(ref ByteReader reader)
    {
        var values = new T[reader.Count(byte.MaxValue, 2, "values")];
        for (var i = 0; i < values.Length; i++)
        {
            var field = Unsafe.BitCast<byte, TField>(reader.Byte());
            var most = rules.TryGetValue(field, out var rule) ? rule.MostBytesRead : TextRule.MostBytesUnknown;
            values[i] = of(field, reader.Text(most));
        }

        return values;
    }

    public void Write(Utf8JsonWriter json, IReadOnlyList<T> values)
    {
        json.WriteStartObject("values");
        foreach (var (field, value) in values.Select(parts))
            json.WriteString(field.ToString(), value);
        json.WriteEndObject();
    }

    public T[] Read(JsonElement json) =>
        [
            .. json.GetProperty("values")
                .EnumerateObject()
                .Select(value => of(Enum.Parse<TField>(value.Name), value.Value.GetString() ?? "")),
        ];
}
